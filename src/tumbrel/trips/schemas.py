"""What the API takes and gives for trips."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from tumbrel.core.card import StopChanged, TripCard
from tumbrel.core.cures import Cure, CureTarget, Outcome
from tumbrel.core.document import Going, Item, Kit, Plan, PlanDocument, Trip
from tumbrel.core.route.correcting import Correction
from tumbrel.core.route.daily import DailyRange
from tumbrel.core.route.laying import TrackLaid
from tumbrel.core.serving import LegServed, ServingLine
from tumbrel.core.variants import Compared, Start
from tumbrel.history.steps import Ways


class TripLine(Schema):
    """A trip in a list."""

    id: int
    name: str
    kit: str
    variants: int
    saved_at: datetime


BinKind = Literal["trip", "kit"]


class Binned(Schema):
    """A trip or kit in the bin."""

    kind: BinKind
    id: int
    name: str
    variants: int
    thrown_away_at: datetime
    goes_at: datetime


class TripState(Ways):
    """A trip as it is kept, with its kit as it is now."""

    id: int
    version: int
    kit_id: int
    kit_name: str
    kit: Kit
    trip: Trip
    plan: Plan
    saved_at: datetime
    card_made: datetime | None
    """When the card that is in a pocket was made."""


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
    """How a track file is to be laid out."""

    start: datetime
    way: Going = "foot"
    factor: Annotated[float, Field(ge=0.2, le=5.0)] = 1.0
    trip: int | None = Field(default=None, description="The trip that it is for.")


class TrackRead(Schema):
    """A track laid out anew; its items for behind the trip's; the trip, if it goes this way."""

    laid: TrackLaid
    behind: tuple[Item, ...] = Field(description="The same items from the trip's end on.")
    again: Trip | None


class CorrectionAsked(Schema):
    """A correction by hand of a trip's route."""

    trip: Trip
    plan: Plan
    correction: Correction


class RouteAsked(Schema):
    """A trip whose route is to be drawn."""

    trip: Trip


class ZoneTold(Schema):
    """The time zone of a place."""

    time_zone: str


class VariantNew(Schema):
    """A variant to keep: the trip as it is, under a name, or one of the starting set."""

    name: Annotated[str, Field(max_length=200)] = ""
    words: Annotated[str, Field(max_length=200)] = ""
    start: Start | None = None


class VariantNamed(Schema):
    """Another name for a variant."""

    name: Annotated[str, Field(max_length=200)]


class VariantLine(Schema):
    """A variant in a list."""

    id: int
    name: str
    words: str
    made_at: datetime


class VariantKept(Schema):
    """A variant with its whole document."""

    variant: VariantLine
    document: PlanDocument


class VariantCompared(Schema):
    """One state of a comparison; without a variant it is the trip as it is now."""

    variant: VariantLine | None
    state: Compared


class AirAsked(Schema):
    """A trip whose air is wanted; of a file's text, of a day's low and high, else made up."""

    trip: Trip
    text: Annotated[str, Field(max_length=2_000_000)] | None = None
    name: str = "weather file"
    days: DailyRange | None = None


class ServingTold(Schema):
    """Which cameras serve on each leg and stop, and the matrix that this is by."""

    legs: tuple[LegServed, ...]
    matrix: tuple[ServingLine, ...]


class PictureAsked(Schema):
    """A camera on a leg or stop, whose light and settings are wanted."""

    document: PlanDocument
    camera: str
    item: str


class CuresAsked(Schema):
    """A document, and what of it is to be cured."""

    document: PlanDocument
    target: CureTarget


class CureLine(Schema):
    """One line of the answer: a cure, or last the outcome."""

    cure: Cure | None = None
    outcome: Outcome | None = None


TickKind = Literal["done", "left_out", "undone", "note", "reading"]
MOST_TICKS = 500


class Tick(Schema):
    """Something ticked, noted or read on the way; `id` was made where it was ticked."""

    id: Annotated[str, Field(min_length=8, max_length=40, pattern=r"^[A-Za-z0-9-]+$")]
    move: Annotated[str, Field(max_length=200)] = ""
    kind: TickKind
    at: datetime
    text: Annotated[str, Field(max_length=200)] = ""


class TicksIn(Schema):
    """Ticks that come back from where they were made."""

    ticks: Annotated[list[Tick], Field(max_length=MOST_TICKS)]


class Ticks(Schema):
    """All ticks of a trip."""

    ticks: list[Tick]


class CardState(Schema):
    """The card of the plan as it is kept, what was ticked on it, what changed since it was made.

    `made` is when the last card was taken along.
    """

    card: TripCard
    ticks: list[Tick]
    made: datetime | None
    changed: list[StopChanged]
