"""What the API takes and gives for trips."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from ninja import Schema
from pydantic import Field

from tumbrel.core.document import Kit, Plan, Trip
from tumbrel.core.route.pace import Way


class TripLine(Schema):
    """A trip in a list."""

    id: int
    name: str
    kit: str
    saved_at: datetime


class TripState(Schema):
    """A trip as it is kept, with its kit as it is now."""

    id: int
    version: int
    kit_id: int
    kit_name: str
    kit: Kit
    trip: Trip
    plan: Plan
    saved_at: datetime
    can_undo: bool
    can_redo: bool


class TripNew(Schema):
    """A trip to make. Without a kit, an empty one is made for it."""

    name: str
    start: datetime
    kit_id: int | None = None


class TripSave(Schema):
    """A trip to keep."""

    version: int
    trip: Trip
    plan: Plan


class TripStepAsked(Schema):
    """A step back or forward, from a version."""

    version: int


class TableAsked(Schema):
    """A pasted table, and the keys that are taken."""

    text: str
    taken: tuple[str, ...] = ()


class TrackAsked(Schema):
    """How a track file is to be laid out; `taken` are keys of the trip, parted by commas."""

    start: datetime
    way: Way = "foot"
    factor: Annotated[float, Field(ge=0.2, le=5.0)] = 1.0
    taken: Annotated[str, Field(max_length=60_000)] = ""


class AirAsked(Schema):
    """A trip whose air is wanted; of a file's text, else of the made-up weather service."""

    trip: Trip
    text: Annotated[str, Field(max_length=2_000_000)] | None = None
    name: str = "weather file"
