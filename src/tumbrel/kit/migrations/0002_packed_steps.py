"""Steps as compressed JSON."""

from typing import Any

from django.db import migrations

import tumbrel.keeping.packed


def pack(apps: Any, _schema_editor: Any) -> None:
    """Every step's document into its packed form."""
    steps = apps.get_model("kit", "kitstep").objects
    for step in steps.iterator(chunk_size=50):
        step.packed = step.document
        step.save(update_fields=["packed"])


class Migration(migrations.Migration):
    """The document of a step, packed."""

    dependencies = [("kit", "0001_initial")]

    operations = [
        migrations.AddField("kitstep", "packed", tumbrel.keeping.packed.PackedJSON(null=True)),
        migrations.RunPython(pack, migrations.RunPython.noop),
        migrations.RemoveField("kitstep", "document"),
        migrations.RenameField("kitstep", "packed", "document"),
        migrations.AlterField("kitstep", "document", tumbrel.keeping.packed.PackedJSON()),
    ]
