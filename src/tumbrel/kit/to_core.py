"""The only door from kit rows to the core."""

from __future__ import annotations

from tumbrel.core.document import Kit

from .models import Kit as KitRow


def kit_of(row: KitRow) -> Kit:
    """The kit document of a row."""
    return Kit.model_validate(row.document, strict=False)
