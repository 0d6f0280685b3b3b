"""How fast a person goes on a slope, by what they do (for tracks without times)."""

from __future__ import annotations

from typing import TYPE_CHECKING, Literal

from ..document import Activity, Going

if TYPE_CHECKING:
    from .track import Array

Pace = Literal["foot", "flight", "sled", "sail", "ride", "paddle", "drive"]

TOBLER_KMH, TOBLER_PER_SLOPE, TOBLER_BEST = 6.0, 3.5, -0.05
# m/s on the flat, and the share of it lost (won) for each unit of slope up (down)
OTHERS: dict[Pace, tuple[float, float]] = {
    "flight": (9.0, 0.0),
    "sled": (3.3, 5.0),
    "sail": (7.0, 0.0),
    "ride": (5.0, 7.0),
    "paddle": (1.3, 0.0),
    "drive": (12.0, 2.0),
}
SLOWEST, FASTEST = 0.25, 1.8  # of the speed on the flat
BY_ACTIVITY: dict[Activity, Pace] = {
    "flight": "flight",
    "sled": "sled",
    "sail": "sail",
    "ride": "ride",
    "paddle": "paddle",
    "drive": "drive",
}
STEEPEST = 1.0  # slopes are held within this: more is a fault of the heights


def speed_mps(pace: Pace, slope: Array, factor: float) -> Array:
    """Speed [m/s] on slopes [m/m, up positive]; `factor` is the person's, 1.2 a fifth faster.

    On foot: Tobler's function, 6 exp(-3.5 |slope + 0.05|) km/h, the usual refinement of Naismith's
    rule (Tobler 1993, three presentations on geographical analysis and modelling).
    """
    import numpy as np  # noqa: PLC0415 - slow to import

    held = np.clip(slope, -STEEPEST, STEEPEST)
    if pace == "foot":
        kmh = TOBLER_KMH * np.exp(-TOBLER_PER_SLOPE * np.abs(held - TOBLER_BEST))
        speed: Array = kmh / 3.6 * factor
        return speed
    flat_mps, lost = OTHERS[pace]
    other: Array = flat_mps * np.clip(1.0 - lost * held, SLOWEST, FASTEST) * factor
    return other


def pace_of(activity: Activity, going: Going) -> Pace:
    """The pace of an activity; climbs, walks, descents and what is unnamed go as the way does."""
    if activity in ("climb", "walk", "descent"):
        return "foot"
    return BY_ACTIVITY.get(activity, going)
