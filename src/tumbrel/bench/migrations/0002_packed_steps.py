"""Steps as compressed JSON."""

from typing import Any

from django.db import migrations

import tumbrel.keeping.packed


def pack(apps: Any, _schema_editor: Any) -> None:
    """Every step's document into its packed form."""
    steps = apps.get_model("bench", "benchstep").objects
    for step in steps.iterator(chunk_size=50):
        step.packed = step.document
        step.save(update_fields=["packed"])


class Migration(migrations.Migration):
    """The document of a step, packed."""

    dependencies = [("bench", "0001_initial")]

    operations = [
        migrations.AddField("benchstep", "packed", tumbrel.keeping.packed.PackedJSON(null=True)),
        migrations.RunPython(pack, migrations.RunPython.noop),
        migrations.RemoveField("benchstep", "document"),
        migrations.RenameField("benchstep", "packed", "document"),
        migrations.AlterField("benchstep", "document", tumbrel.keeping.packed.PackedJSON()),
    ]
