"""Time to empty and the rise of the body in a bench run, for one or many sets of figures at once.

The same rules as the rehearsal's (model/energy#draw, model/heat#node), with a body that starts as
warm as the room.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from ..charging import intake_of
from ..cold import cold_curve, points_of
from ..energy import features_w, nominal_wh
from .figures import Figures, Kind, fan_key

if TYPE_CHECKING:
    from collections.abc import Callable

    import numpy as np
    import numpy.typing as npt

    from ..document import BatteryFamily, SetUp
    from ..parameters import Defaults
    from .runs import BenchRun

    Array = npt.NDArray[np.float64]


HALVINGS = 12  # then a straight line between
APART = 1e-3
COOL_C = 0.0
LEAST_MIN = 0.01  # where the cold holds all of it, so that its logarithm is finite


@dataclass(frozen=True)
class Bench:
    """Where and how a camera records on the bench."""

    set_up: str
    mode: str
    features: tuple[str, ...]
    ambient_c: float
    air_mps: float
    plugged: bool = False
    charge_start: float = 1.0
    charging_share: float = 1.0  # of a run on outside power: charging may pause
    store_wh: float | None = None
    store_kind: str = "module"
    cell_start_c: float | None = None
    fan: str = ""  # before which fan it stood, where its air was fitted


@dataclass(frozen=True)
class BodyCourse:
    """What is to be expected, for each set of figures (last axis of the vector taken away).

    `empty_min` [min] is infinite on outside power; the body rises as
    `rise_k (1 - exp(-t / lag_min))` [K]; recording stops `head_k` [K] above the room, and a warning
    comes `warn_k` [K] above it. `draw_w` [W] is what mode and features drink; by that a full
    battery lasts `full_min`, and a module or bank `store_min` before it [min].
    """

    empty_min: Array
    rise_k: Array
    lag_min: Array
    head_k: Array
    warn_k: Array
    draw_w: Array
    full_min: Array
    store_min: Array

    def risen_k(self, minutes: float | Array) -> Array:
        """How far the body has risen after minutes [K]."""
        import numpy as np  # noqa: PLC0415 - slow to import

        risen: Array = self.rise_k * (1.0 - np.exp(-minutes / self.lag_min))
        return risen


def bench_of(run: BenchRun) -> Bench:
    """The conditions of a run."""
    return Bench(
        run.set_up,
        run.mode,
        run.features,
        run.ambient_c,
        run.air_mps,
        run.plugged,
        run.charge_start,
        1.0 - run.charge_paused_min / run.minutes,
        run.store_wh,
        run.store_kind,
        run.cell_start_c,
        fan_key(run.air_mps),
    )


def expected(logs: Array, figures: Figures, bench: Bench, defaults: Defaults) -> BodyCourse:
    """Course of a run by figures' logarithms [..., figures].

    Raises StopIteration on a mode or set-up that the camera has not.
    """
    import numpy as np  # noqa: PLC0415 - slow to import

    def value(kind: Kind, of: str = "") -> Array:
        return np.exp(logs[..., figures.place[kind, of]])

    camera, family = figures.camera, figures.family
    mode = next(m for m in camera.modes if m.id == bench.mode)
    set_up = next(s for s in camera.set_ups if s.id == bench.set_up)
    allowed = tuple(name for name in mode.features if name in bench.features)
    mode_w, more_w = value("draw_w", mode.id), features_w(camera, allowed, defaults)
    if mode.id in figures.boxed:
        mode_w = mode_w * value("box")
    draw_w = mode_w + more_w
    heat_w = mode_w * value("mode_heat", mode.id) + more_w
    wh = nominal_wh(family.mah, family.nominal_v)
    if bench.plugged:
        lost_w = _lost_w(draw_w, wh, bench, figures, defaults)
        heat_w = heat_w + lost_w * value("charge_heat")
    air_mps = bench.air_mps * np.ones_like(draw_w)
    if ("fan", bench.fan) in figures.place:
        air_mps = air_mps * value("fan", bench.fan)
    through = np.sqrt(air_mps * set_up.air_share)
    store_min = np.zeros_like(draw_w)
    if bench.store_wh is not None and ("store_gives", bench.store_kind) in figures.place:
        store_min = bench.store_wh * value("store_gives", bench.store_kind) / draw_w * 60.0
    shed = _case(set_up, figures, value) / (1.0 + value("air_a") * set_up.case_a * through)
    g = np.maximum(defaults.least_g.value, shed)
    rise_k = g * value("rise_k_per_w") * heat_w
    head_k = value("stop_c") - bench.ambient_c
    lag_min = value("tau_s") * set_up.lag_factor * g / 60.0
    full_min = wh * value("energy") / draw_w * 60.0
    if bench.plugged:
        empty_min = np.full_like(draw_w, np.inf)
    else:
        held = value("cold_hold") if ("cold_hold", "") in figures.place else 1.0
        empty_min = _empty_min(full_min, store_min, held, rise_k, lag_min, bench, family, defaults)
    warn_k = head_k - value("warn_below_k")
    return BodyCourse(empty_min, rise_k, lag_min, head_k, warn_k, draw_w, full_min, store_min)


def _empty_min(
    full_min: Array,
    store_min: Array,
    held: Array | float,
    rise_k: Array,
    lag_min: Array,
    bench: Bench,
    family: BatteryFamily,
    defaults: Defaults,
) -> Array:
    """When the charge has fallen to what the cold hides of it, as the cell warms with the body.

    The cell starts as cold as the room, or as warm as its pocket, and follows the body
    (model/cold#cell); a module before it is empty first. Found by halving, since the charge falls
    and what is hidden falls more slowly.
    """
    import numpy as np  # noqa: PLC0415 - slow to import

    curve = cold_curve(points_of(family, defaults))
    if bench.ambient_c >= curve.cells_c[-1]:
        return store_min + full_min * max(0.0, bench.charge_start - curve.unreachable[-1])
    start_k = 0.0 if bench.cell_start_c is None else bench.cell_start_c - bench.ambient_c
    cell_min = defaults.tau_cell_s.value / 60.0
    near = np.abs(lag_min - cell_min) < APART * cell_min
    body_min = np.where(near, cell_min * (1 + APART), lag_min)

    def left(at: Array) -> Array:
        late = body_min * np.exp(-at / body_min) - cell_min * np.exp(-at / cell_min)
        cell_c = bench.ambient_c + rise_k * (1.0 - late / (body_min - cell_min))
        cell_c = cell_c + start_k * np.exp(-at / cell_min)
        hidden: Array = np.interp(cell_c, curve.cells_c, curve.unreachable)
        spent = np.maximum(0.0, at - store_min) / full_min
        return bench.charge_start - spent - np.minimum(1.0, hidden * held)

    low, high = np.zeros_like(full_min), store_min + full_min * bench.charge_start
    for _ in range(HALVINGS):
        at = 0.5 * (low + high)
        lasts = left(at) > 0.0
        low, high = np.where(lasts, at, low), np.where(lasts, high, at)
    above, below = np.maximum(left(low), 0.0), np.maximum(-left(high), 1e-12)
    found: Array = low + (high - low) * above / (above + below)  # smooth: its slopes are wanted
    return np.maximum(found, LEAST_MIN)


def cell_after(minutes: float, course: BodyCourse, bench: Bench, defaults: Defaults) -> Array:
    """The cell's temperature after some minutes [degC], by the body it follows."""
    import numpy as np  # noqa: PLC0415 - slow to import

    cell_min = defaults.tau_cell_s.value / 60.0
    near = np.abs(course.lag_min - cell_min) < APART * cell_min
    body_min = np.where(near, cell_min * (1 + APART), course.lag_min)
    late = body_min * np.exp(-minutes / body_min) - cell_min * math.exp(-minutes / cell_min)
    start_k = 0.0 if bench.cell_start_c is None else bench.cell_start_c - bench.ambient_c
    cell_c: Array = bench.ambient_c + course.rise_k * (1.0 - late / (body_min - cell_min))
    return cell_c + start_k * math.exp(-minutes / cell_min)


def hidden_at_start(bench: Bench, family: BatteryFamily, defaults: Defaults) -> float:
    """Share of the charge that a room hides as the run begins, more than a cool one does."""
    curve = cold_curve(points_of(family, defaults))
    return max(0.0, curve.at(bench.ambient_c) - curve.at(COOL_C))


def _case(set_up: SetUp, figures: Figures, value: Callable[[Kind, str], Array]) -> Array | float:
    """How much worse heat is shed than bare: fitted, but for the set-up that the rest refers to."""
    if set_up is figures.camera.set_ups[0]:
        return set_up.case_factor
    return value("case", set_up.id)


def _lost_w(draw_w: Array, wh: float, bench: Bench, figures: Figures, defaults: Defaults) -> Array:
    """Regulator and charging loss in the body on outside power [W] (model/heat#priors)."""
    fed = draw_w * (1.0 / defaults.feed_efficiency.value - 1.0)
    set_up = next(s for s in figures.camera.set_ups if s.id == bench.set_up)
    if set_up.power == "outside_only":
        return fed
    intake = intake_of(wh, figures.family, defaults)
    into_w = intake.heating_w(bench.charge_start, intake.most_w) * bench.charging_share
    return fed + into_w * (1.0 / defaults.charge_efficiency.value - 1.0)
