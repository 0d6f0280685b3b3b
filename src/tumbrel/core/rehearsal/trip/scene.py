"""A trip ready to be played: what is asked of whom and when, and everything as it sets out."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ...charging import Intake
from ...cold import ColdCurve
from ...document import (
    Bank,
    BatteryFamily,
    Between,
    Camera,
    Charger,
    Drive,
    Gear,
    Kit,
    Module,
    Plan,
    Source,
    Trip,
)
from ...heat import Body
from ...memory import Store
from ...mistakes import Mistake
from ...parameters import Defaults
from .asked import Asked
from .climate import PlaceClimate
from .hand_plan import HandPlan
from .outside_power import OutsidePower
from .supply_table import SupplyTable
from .timeline import Timeline

BAG: Final = "bag"  # where lies what has no pocket


@dataclass(frozen=True, slots=True)
class Written:
    """What the person wrote: for the names and places of what is told, never for playing."""

    kit: Kit
    trip: Trip
    plan: Plan


@dataclass(frozen=True, slots=True)
class BatteryAtStart:
    """A battery as it sets out: energy [W h], charge [0..1], how it charges, where it lies."""

    id: str
    name: str
    family: str
    wh: float
    charge: float
    intake: Intake
    cool_intake: Intake
    curve: ColdCurve
    home: str
    home_climate: PlaceClimate
    bag_climate: PlaceClimate
    document_order: int


@dataclass(frozen=True, slots=True)
class CardAtStart:
    """A card or fixed memory as it sets out: bytes used, nominal GB, reading rate [bytes/s]."""

    store: Store
    used: int
    gb: int
    read_bytes_s: float


@dataclass(frozen=True, slots=True)
class CameraAtStart:
    """A camera as it sets out, with what it is asked and the keys of what is in it.

    `store` is what it writes to first, `beside` the other, of one that has memory and a card.
    """

    camera: Camera
    family: BatteryFamily
    body: Body
    asked: list[Asked]
    between: Between
    radio_left_on: bool
    boot_ms: int
    battery: str | None
    store: str | None
    beside: str | None


@dataclass(frozen=True, slots=True)
class BankAtStart:
    """A bank or module as it sets out: energy [W h], and what other loads draw from it [W]."""

    bank: Bank | Module
    wh: float
    curve: ColdCurve
    climate: PlaceClimate
    loads_w: float
    module: bool


@dataclass(frozen=True, slots=True)
class GearAtStart:
    """Something with a battery as it sets out, and when it is used [ms]."""

    gear: Gear
    curve: ColdCurve
    climate: PlaceClimate
    uses: tuple[tuple[int, int], ...]


@dataclass(frozen=True, slots=True)
class SourceAtStart:
    """A source with what it can give through the trip."""

    source: Source
    table: SupplyTable
    bank: BankAtStart | None


@dataclass(frozen=True, slots=True)
class Scene:
    """Everything that a rehearsal is played from; nothing of it changes while it is played."""

    written: Written
    timeline: Timeline
    defaults: Defaults
    cameras: tuple[CameraAtStart, ...]
    batteries: tuple[BatteryAtStart, ...]
    cards: tuple[CardAtStart, ...]
    chargers: tuple[Charger, ...]
    sources: tuple[SourceAtStart, ...]
    gear: tuple[GearAtStart, ...]
    drives: tuple[Drive, ...]
    outside: tuple[OutsidePower, ...]
    hands: HandPlan
    mistakes: tuple[Mistake, ...] = ()
