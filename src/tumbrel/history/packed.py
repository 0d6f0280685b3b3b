"""A document as compressed JSON: a trip keeps every state it was ever in."""

from __future__ import annotations

import json
import zlib
from typing import Any

from django.db import migrations, models

LEVEL = 6


def packing(app: str, model: str) -> list[migrations.operations.base.Operation]:
    """Operations that turn a step's plain JSON into its packed form, row by row."""

    def pack(apps: Any, _schema_editor: Any) -> None:
        everyones = apps.get_model(app, model)._base_manager  # of all owners, once
        for step in everyones.iterator(chunk_size=50):
            step.packed = step.document
            step.save(update_fields=["packed"])

    return [
        migrations.AddField(model, "packed", PackedJSON(null=True)),
        migrations.RunPython(pack, migrations.RunPython.noop),
        migrations.RemoveField(model, "document"),
        migrations.RenameField(model, "packed", "document"),
        migrations.AlterField(model, "document", PackedJSON()),
    ]


class PackedJSON(models.BinaryField):  # type: ignore[type-arg]
    """JSON, deflated (RFC 1950); a tenth of its text, so that steps are never thrown away."""

    def get_prep_value(self, value: Any) -> Any:
        """To bytes, for the database."""
        if value is None or isinstance(value, bytes | memoryview):
            return value
        return zlib.compress(json.dumps(value, separators=(",", ":")).encode("utf-8"), LEVEL)

    def from_db_value(self, value: Any, _expression: Any, _connection: Any) -> Any:
        """From the bytes that the database keeps."""
        return None if value is None else json.loads(zlib.decompress(bytes(value)))

    def to_python(self, value: Any) -> Any:
        """A document as it is."""
        return value
