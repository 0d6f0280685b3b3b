"""Batteries as they go from pocket to camera and back."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from dataclasses import dataclass, field

from ...charging import Intake
from ...cold import ColdCurve
from ...energy import self_discharge_wh
from ..state.append_log import Log
from ..trip.climate import PlaceClimate
from .stays import BAG, Stay, stay_end, stay_start

CHARGER_MARK = "/"
TOPPED_UNTIL = 0.001


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
        first = bisect_right(self.stays, start_ms, key=stay_end)
        last = bisect_left(self.stays, end_ms, lo=first, key=stay_start)
        return self.stays[first:last]

    def close(self, at_ms: int) -> None:
        """End the stay."""
        if at_ms > self.came_ms:
            stay = Stay(self.place, self.came_ms, self.came_charge, at_ms, self.charge)
            self.stays.append(stay)
            self.rows.append((at_ms, self.charge, self.cell_c))
