"""What the API takes and gives for kits."""

from __future__ import annotations

from ninja import Schema

from tumbrel.core.document import Kit
from tumbrel.history.steps import Ways

from .uses import TripRows, UnitUse


class KitLine(Schema):
    """A kit in a list."""

    id: int
    name: str
    cameras: list[str]
    trips: list[str]


class KitState(Ways):
    """A kit as it is kept."""

    id: int
    name: str
    version: int
    kit: Kit
    uses: list[UnitUse]
    went: list[TripRows]
    """Rows of trips that went along in the step just made; `back`: that came back."""
    back: list[TripRows]


class KitNew(Schema):
    """A kit to make; without a document an empty one."""

    name: str
    kit: Kit | None = None


class KitSave(Schema):
    """A kit to keep. What trips name of it and it has no more goes out of them in the same step."""

    version: int
    name: str
    kit: Kit


class KitStepAsked(Schema):
    """A step back or forward, from a version."""

    version: int
