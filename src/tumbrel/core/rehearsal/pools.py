"""Batteries and cards as they go from pocket to camera and back."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from dataclasses import dataclass, field

from ..charging import Intake
from ..cold import ColdCurve
from ..energy import self_discharge_wh
from ..memory import Store
from .climate import PlaceClimate
from .log import Log

BAG = "bag"
CHARGER_MARK = "/"
TOPPED_UNTIL = 0.001


@dataclass(frozen=True, slots=True)
class Stay:
    """A battery or card in one place for a while; level is charge [0..1] or bytes used."""

    place: str
    from_ms: int
    level_from: float
    to_ms: int = 0
    level_to: float = 0.0


def _stay_start(stay: Stay) -> int:
    return stay.from_ms


def _stay_end(stay: Stay) -> int:
    return stay.to_ms


@dataclass(slots=True)
class Cell:
    """A battery during the rehearsal."""

    id: str
    name: str
    family: str
    wh: float
    charge: float
    intake: Intake
    curve: ColdCurve
    home: str
    home_climate: PlaceClimate
    bag_climate: PlaceClimate
    document_order: int
    place: str = BAG
    since_ms: int = 0
    cell_c: float = 20.0
    lost_wh: float = 0.0
    refused: str = ""
    topped: bool = False
    in_camera: bool = False
    came_ms: int = 0
    came_charge: float = 0.0
    stays: Log[Stay] = field(default_factory=Log)
    rows: Log[tuple[int, float, float]] = field(default_factory=Log)

    @property
    def spare(self) -> bool:
        """Whether a hand can take it: in a pocket, the bag or a charger."""
        return not self.in_camera

    @property
    def in_charger(self) -> bool:
        """Whether it lies in a charger's bay."""
        return CHARGER_MARK in self.place

    def takes_charge(self) -> bool:
        """Whether it is not full; once full, only again when a thousandth has gone."""
        if self.charge >= self.intake.full - 1e-9:
            self.topped = True
        elif self.charge < self.intake.full - TOPPED_UNTIL:
            self.topped = False
        return not self.topped

    def rest_until(self, at_ms: int, share_per_month: float) -> None:
        """Bring a spare up to date: its temperature, and what it loses by itself."""
        if at_ms <= self.since_ms or self.in_camera or self.in_charger:
            return
        lost = self_discharge_wh(self.wh, self.charge, at_ms - self.since_ms, share_per_month)
        self.charge -= lost / self.wh
        self.lost_wh += lost
        self.cell_c = self.home_climate.after(self.cell_c, self.since_ms, at_ms)
        self.since_ms = at_ms

    def move(self, place: str, at_ms: int, *, in_camera: bool = False) -> None:
        """Close the stay and begin one elsewhere; its temperature goes with it."""
        self.close(at_ms)
        self.place = place
        self.in_camera = in_camera
        self.refused = ""
        self.since_ms = self.came_ms = at_ms
        self.came_charge = self.charge
        self.rows.append((at_ms, self.charge, self.cell_c))

    def stays_within(self, start_ms: int, end_ms: int) -> list[Stay]:
        """Where it lay at any time in [start, end)."""
        first = bisect_right(self.stays, start_ms, key=_stay_end)
        last = bisect_left(self.stays, end_ms, lo=first, key=_stay_start)
        return self.stays[first:last]

    def close(self, at_ms: int) -> None:
        """End the stay."""
        if at_ms > self.came_ms:
            stay = Stay(self.place, self.came_ms, self.came_charge, at_ms, self.charge)
            self.stays.append(stay)
            self.rows.append((at_ms, self.charge, self.cell_c))


@dataclass(slots=True)
class CardRun:
    """A card or fixed memory during the rehearsal."""

    store: Store
    used: int
    gb: int
    read_bytes_s: float
    place: str = BAG
    written: int = 0
    overwritten: int = 0
    wiped: int = 0
    came_ms: int = 0
    came_used: int = 0
    stays: Log[Stay] = field(default_factory=Log)

    @property
    def free(self) -> int:
        """Bytes that still fit."""
        return max(0, self.store.usable_bytes - self.used)

    def move(self, place: str, at_ms: int) -> None:
        """Close the stay and begin one elsewhere."""
        self.close(at_ms)
        self.place = place
        self.came_ms, self.came_used = at_ms, self.used

    def close(self, at_ms: int) -> None:
        """End the stay."""
        if at_ms > self.came_ms:
            self.stays.append(
                Stay(self.place, self.came_ms, float(self.came_used), at_ms, float(self.used))
            )
