"""What the runs foretell in any air: minutes to empty and to hot, and the body's course.

Source: model/learning#fit, model/learning#foretold.
"""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field

from ..document import BatteryFamily, Camera
from ..document.base import Celsius, Key, Part
from ..document.kit import FeatureName
from ..parameters import DEFAULTS, Defaults
from .model import Bench, expected
from .notebook import Taken
from .outlook import LONGEST_MIN, ends, ends_of, outlook
from .runs import BenchRun, RunEnd
from .taking import family_put_back, put_back

if TYPE_CHECKING:
    from .fit import Learned
    from .model import Array

CURVE_POINTS = 41
SHOWN_MIN = 240.0
FAN_MPS = 1.5
MOST_SET_UPS = 2


class BenchQuestion(Part):
    """A camera with its battery family and all runs of the bench."""

    camera: Camera
    family: BatteryFamily
    runs: Annotated[tuple[BenchRun, ...], Field(max_length=600)] = ()
    taken: Taken | None = Field(default=None, description="Figures of it that came from the bench.")

    def assumed(self) -> Camera:
        """The camera as it was before it learned from these runs: they must not count twice."""
        return put_back(self.camera, self.taken)

    def assumed_family(self) -> BatteryFamily:
        """Its battery family likewise."""
        return family_put_back(self.family, self.taken)

    def stands(self) -> bool:
        """Whether figures from the bench still stand in the kit."""
        return self.assumed() != self.camera or self.assumed_family() != self.family


class Air(Part):
    """Where and how a mode would record."""

    mode: Key
    set_up: Key
    features: tuple[FeatureName, ...] = ()
    ambient_c: Celsius = 20.0
    air_mps: Annotated[float, Field(ge=0.0, le=60.0)] = 0.0
    plugged: bool = False


class LookQuestion(BenchQuestion):
    """The same camera in an air of one's choice."""

    air: Air


class Reach(Part):
    """Minutes until something happens, at 10, 50 and 90 in 100; none: not within 48 h."""

    low_min: float | None
    likely_min: float | None
    high_min: float | None


class ModeLook(Part):
    """One mode: to empty, to hot, and what ends it."""

    mode: str
    empty: Reach
    hot: Reach
    low_min: float
    likely_min: float
    high_min: float
    end: RunEnd
    hot_share: float


class Curve(Part):
    """The body's temperature over minutes, likely and the middle 80 %."""

    kind: Literal["asked", "charging", "still", "moving", "set_up"]
    name: str
    minutes: tuple[float, ...]
    likely_c: tuple[float, ...]
    low_c: tuple[float, ...]
    high_c: tuple[float, ...]
    hot_min: float | None
    empty_min: float | None


class Look(Part):
    """Every mode in the air asked, and the courses of the body in one of them."""

    modes: tuple[ModeLook, ...]
    curves: tuple[Curve, ...]
    stop_low_c: float
    stop_c: float
    stop_high_c: float


def predict(learned: Learned, air: Air, defaults: Defaults = DEFAULTS) -> Look:
    """Outlook of every mode in this air, and courses of the mode asked beside its alternatives.

    Raises StopIteration on a mode or set-up that the camera has not.
    """
    camera = learned.figures.camera
    stop = learned.of("stop_c")
    return Look(
        modes=tuple(
            _mode_minutes(
                learned, bench_in(camera, air.model_copy(update={"mode": mode.id})), defaults
            )
            for mode in camera.modes
        ),
        curves=_curves(learned, air, defaults),
        stop_low_c=stop.low,
        stop_c=stop.value,
        stop_high_c=stop.high,
    )


def bench_in(camera: Camera, air: Air) -> Bench:
    """The conditions of an air, from a full battery. A set-up on outside power is plugged in."""
    set_up = next(s for s in camera.set_ups if s.id == air.set_up)
    plugged = air.plugged or set_up.power != "battery"
    return Bench(air.set_up, air.mode, air.features, air.ambient_c, air.air_mps, plugged)


def _mode_minutes(learned: Learned, bench: Bench, defaults: Defaults) -> ModeLook:
    seen = outlook(learned, bench, defaults)
    hot_min, empty_min = ends_of(learned, bench, defaults)
    return ModeLook(
        mode=bench.mode,
        empty=_reach(empty_min),
        hot=_reach(hot_min),
        low_min=seen.low_min,
        likely_min=seen.likely_min,
        high_min=seen.high_min,
        end=seen.end,
        hot_share=seen.hot_share,
    )


def _reach(minutes: Array) -> Reach:
    import numpy as np  # noqa: PLC0415 - slow to import

    bounded = np.where(minutes < LONGEST_MIN, minutes, np.inf)
    low, likely, high = np.quantile(bounded, (0.1, 0.5, 0.9), method="nearest")
    return Reach(low_min=_or_none(low), likely_min=_or_none(likely), high_min=_or_none(high))


def _or_none(minutes: float) -> float | None:
    return float(minutes) if math.isfinite(minutes) else None


def _curves(learned: Learned, air: Air, defaults: Defaults) -> tuple[Curve, ...]:
    """The air asked, and what charging, still or moving air, or another set-up would change."""
    camera = learned.figures.camera
    chosen = next(s for s in camera.set_ups if s.id == air.set_up)
    asked: list[tuple[Literal["asked", "charging", "still", "moving", "set_up"], str, Air]] = [
        ("asked", chosen.name, air)
    ]
    if camera.charges_in_w is not None and chosen.power == "battery" and not air.plugged:
        asked.append(("charging", "charging", air.model_copy(update={"plugged": True})))
    if air.air_mps > 0.0:
        asked.append(("still", "in still air", air.model_copy(update={"air_mps": 0.0})))
    else:
        asked.append(("moving", "with a fan", air.model_copy(update={"air_mps": FAN_MPS})))
    others = [s for s in camera.set_ups if s is not chosen][:MOST_SET_UPS]
    asked += [
        ("set_up", other.name, air.model_copy(update={"set_up": other.id, "plugged": False}))
        for other in others
    ]
    return tuple(
        _curve(learned, kind, name, bench_in(camera, one), defaults) for kind, name, one in asked
    )


def _curve(
    learned: Learned,
    kind: Literal["asked", "charging", "still", "moving", "set_up"],
    name: str,
    bench: Bench,
    defaults: Defaults,
) -> Curve:
    """Course of the body until its likely end, four hours at most."""
    import numpy as np  # noqa: PLC0415 - slow to import

    best = expected(learned.mean, learned.figures, bench, defaults)
    hot, empty = (float(one) for one in ends(best, 1.0, 1.0))
    minutes = np.linspace(0.0, min(hot, empty, SHOWN_MIN), CURVE_POINTS)
    course = expected(learned.draws, learned.figures, bench, defaults)
    drawn = course.risen_k(minutes[:, None])
    low, high = np.quantile(drawn, (0.1, 0.9), axis=1)
    return Curve(
        kind=kind,
        name=name,
        minutes=_tidy(minutes),
        likely_c=_tidy(bench.ambient_c + best.risen_k(minutes)),
        low_c=_tidy(bench.ambient_c + low),
        high_c=_tidy(bench.ambient_c + high),
        hot_min=hot if hot < min(empty, LONGEST_MIN) else None,
        empty_min=empty if empty <= hot and math.isfinite(empty) else None,
    )


def _tidy(values: Array) -> tuple[float, ...]:
    return tuple(round(float(one), 2) for one in values)
