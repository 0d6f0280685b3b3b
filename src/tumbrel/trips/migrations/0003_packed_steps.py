"""Steps as compressed JSON."""

from typing import Any

from django.db import migrations

import tumbrel.keeping.packed


def pack(apps: Any, _schema_editor: Any) -> None:
    """Every step's document into its packed form."""
    steps = apps.get_model("trips", "tripstep").objects
    for step in steps.iterator(chunk_size=50):
        step.packed = step.document
        step.save(update_fields=["packed"])


class Migration(migrations.Migration):
    """The document of a step, packed."""

    dependencies = [("trips", "0002_variants")]

    operations = [
        migrations.AddField("tripstep", "packed", tumbrel.keeping.packed.PackedJSON(null=True)),
        migrations.RunPython(pack, migrations.RunPython.noop),
        migrations.RemoveField("tripstep", "document"),
        migrations.RenameField("tripstep", "packed", "document"),
        migrations.AlterField("tripstep", "document", tumbrel.keeping.packed.PackedJSON()),
    ]
