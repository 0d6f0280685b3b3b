"""The only door between kit rows and the core."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from tumbrel.core.document import Kit
from tumbrel.core.document.versions import brought_up, numbered

from .models import Kit as KitRow


def kit_from(kept: Mapping[str, Any]) -> Kit:
    """The kit of a row or step, whatever schema it was kept in."""
    return Kit.model_validate(brought_up(kept, "kit"), strict=False)


def kit_of(row: KitRow) -> Kit:
    """The kit document of a row."""
    return kit_from(row.document)


def as_kept(kit: Kit) -> dict[str, Any]:
    """A kit as a row keeps it."""
    return numbered(kit.model_dump(mode="json"))


def camera_names(row: KitRow) -> list[str]:
    """Names of a kit's cameras, without reading all of it."""
    return [camera["name"] for camera in brought_up(row.document, "kit")["cameras"]]
