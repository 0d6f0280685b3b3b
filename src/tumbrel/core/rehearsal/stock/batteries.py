"""Batteries as they go from pocket to camera and back."""

from __future__ import annotations

from typing import Final

from mypy_extensions import mypyc_attr

from ...energy import self_discharge_wh
from ...parameters import Defaults
from ..state.append_log import Log
from ..trip.scene import BatteryAtStart
from .stays import PlaceStay

CHARGER_MARK: Final = "/"
TOPPED_UNTIL: Final = 0.001


@mypyc_attr(serializable=True)
class Cell:
    """A battery during the rehearsal: charge [0..1] of `wh`, temperature, and where it lies.

    `refused` says why it takes no charge, `topped` that it is full; `came_*` when and how it came
    to its place, `since_ms` until when it has been brought up to date; `left_*` which camera hands
    took it out of by themselves, when, and what it held then [W h].
    """

    __slots__ = (
        "bag_climate",
        "came_charge",
        "came_ms",
        "cell_c",
        "charge",
        "cool",
        "curve",
        "document_order",
        "family",
        "home",
        "home_climate",
        "id",
        "in_camera",
        "intake",
        "intakes",
        "left",
        "left_ms",
        "left_wh",
        "lost_wh",
        "name",
        "place",
        "refused",
        "rows",
        "since_ms",
        "stays",
        "topped",
        "turns_as",
        "turns_ms",
        "wh",
    )

    def __init__(self, carried: BatteryAtStart) -> None:
        self.id = carried.id
        self.name = carried.name
        self.family = carried.family
        self.wh = carried.wh
        self.charge = self.came_charge = carried.charge
        self.intakes = (carried.intake, carried.cool_intake)
        self.intake = carried.intake
        self.cool = False
        self.curve = carried.curve
        self.home = self.place = carried.home
        self.home_climate = carried.home_climate
        self.bag_climate = carried.bag_climate
        self.document_order = carried.document_order
        self.cell_c = carried.home_climate.base_c[0]
        self.since_ms = self.came_ms = 0
        self.lost_wh = 0.0
        self.left, self.left_ms, self.left_wh = "", 0, 0.0
        self.refused = ""
        self.topped = self.in_camera = False
        self.turns_as, self.turns_ms = ("", False), 0
        self.stays: Log[PlaceStay] = Log()
        self.rows: Log[tuple[int, float, float]] = Log()
        self.rows.append((0, self.charge, self.cell_c))

    def adopt(self, carried: BatteryAtStart) -> None:
        """Go on in air that was the same until now."""
        self.home_climate, self.bag_climate = carried.home_climate, carried.bag_climate

    @property
    def spare(self) -> bool:
        """Whether a hand can take it: in a pocket, the bag or a charger."""
        return not self.in_camera

    @property
    def in_charger(self) -> bool:
        """Whether it lies in a charger's bay."""
        return CHARGER_MARK in self.place

    def held_wh(self) -> float:
        """What it holds above what the cold keeps back, as warm as it is [W h]."""
        return self.wh * max(0.0, self.charge - self.curve.at(self.cell_c))

    def leave(self, camera: str, at_ms: int) -> None:
        """Remember that hands took it out of a camera, and what it held."""
        self.left, self.left_ms, self.left_wh = camera, at_ms, self.held_wh()

    def review(self, defaults: Defaults) -> bool:
        """Whether it takes charge at its temperature, and at what rate; true when that changed.

        Source: model/charging#refusal, model/charging#cool.
        """
        before = self.refused, self.cool
        self.refused = refusal_of(self.cell_c, self.refused, defaults)
        if self.cool:
            self.cool = self.cell_c < defaults.warm_above_c.value - 1e-6
        else:
            self.cool = self.cell_c <= defaults.cool_below_c.value + 1e-6
        self.intake = self.intakes[1 if self.cool else 0]
        return (self.refused, self.cool) != before

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
        self.refused, self.cool, self.intake = "", False, self.intakes[0]
        self.turns_ms = 0
        self.since_ms = self.came_ms = at_ms
        self.came_charge = self.charge
        self.rows.append((at_ms, self.charge, self.cell_c))

    def close(self, at_ms: int) -> None:
        """End the stay."""
        if at_ms > self.came_ms:
            stay = PlaceStay(self.place, self.came_ms, self.came_charge, at_ms, self.charge)
            self.stays.append(stay)
            self.rows.append((at_ms, self.charge, self.cell_c))


def refusal_of(cell_c: float, before: str, defaults: Defaults) -> str:
    """Why a cell takes no charge at a temperature: "cold", "hot" or "".

    Source: model/charging#refusal, with hysteresis.
    """
    cold = defaults.resume_cold_c.value - 1e-6 if before == "cold" else defaults.refuse_cold_c.value
    hot = defaults.resume_hot_c.value + 1e-6 if before == "hot" else defaults.refuse_hot_c.value
    if (before == "cold" and cell_c < cold) or (before != "cold" and cell_c <= cold + 1e-6):
        return "cold"
    if (before == "hot" and cell_c > hot) or (before != "hot" and cell_c > hot - 1e-6):
        return "hot"
    return ""
