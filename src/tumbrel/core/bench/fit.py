"""Figures from runs: the most probable ones, how sure they are, and what cannot be known yet.

Maximum a posteriori in logarithms. Residuals are logarithms too: of the time for a run that ended
empty, of the body's rise over the head room for one that ended hot (near its limit the time to hot
grows without bound, the rise does not). What did not happen counts by the tail of the same error.

How sure it is comes from draws around the most probable figures, by the Jacobian there, weighed by
their true probability and drawn again: a normal curve alone would forget what did not happen.

Source: model/learning#fit, model/learning#spread.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from ..parameters import DEFAULTS, Defaults
from .believed import LearnedFigure, figures_learned
from .figures import Figures, figures_of
from .model import bench_of, expected, hidden_at_start
from .special import (
    RISE_ERROR,
    charging_misfits,
    cold_misfits,
    died_cold,
    pause_misfits,
    store_misfits,
)

if TYPE_CHECKING:
    from collections.abc import Callable, Sequence

    import numpy as np

    from ..document import BatteryFamily, Camera
    from .model import Array, Bench
    from .runs import BenchRun

TIME_ERROR = 0.06  # of a repeated run
COLD_ERROR = 2.0  # of a time, for each share of the charge that the room hides at the start
CHARGE_READING = 0.02
METER_ERROR = 0.03  # of a meter at the cell
PORT_ERROR = 0.06  # of one at the port: the regulator's efficiency is not known
FULL_ENOUGH = 0.98  # nothing goes into a cell this full
ROBUST_FROM = 2.5
SAID_FROM = 1.0  # what is said of a draw may be said of nothing: a run in it outweighs that
OUTLIER_FROM = 3.5
STARTS = 3
ENDED = ("hot", "empty", "both_empty")
JAC_STEP = 1e-6
START_SPREAD = 0.5
SAME_COST = 0.02
SEED = 13
TRIED_DRAWS = 9000
KEPT_DRAWS = 600
WIDER = 1.5
LOPSIDED = frozenset({"taper"})  # its errors flatten where no reading reaches the taper


@dataclass(frozen=True, slots=True)
class Residual:
    """How far a run lies from what the figures expect, in errors of a run."""

    run: str
    errors: float
    outlier: bool


@dataclass(frozen=True)
class Learned:
    """What runs taught of one camera.

    `logs` [figures] are the logarithms of the most probable figures, `spread` [figures, figures]
    their covariance by the Jacobian, `draws` [600, figures] figures as probable as they are and
    `mean` [figures] the mean of such: the most probable ones lie on the edge of what did not happen
    when that is all that is known, their mean lies inside.
    `agreeing` of `starts` searches from different starts found the same figures.
    `hot_runs` of the runs that count ended hot; they were made in `set_ups`. `ended` says how those
    that recorded to their end did end, and in which conditions.
    """

    figures: Figures
    logs: Array
    spread: Array
    draws: Array
    mean: Array
    learned: tuple[LearnedFigure, ...]
    residuals: tuple[Residual, ...]
    converged: bool
    agreeing: int
    starts: int
    hot_runs: int
    set_ups: frozenset[str]
    ended: tuple[tuple[Bench, bool], ...]

    def of(self, kind: str, name: str = "") -> LearnedFigure:
        """One figure. Raises StopIteration when the camera has no such one."""
        return next(one for one in self.learned if (one.figure.kind, one.figure.of) == (kind, name))


def learn(
    camera: Camera,
    family: BatteryFamily,
    runs: Sequence[BenchRun],
    defaults: Defaults = DEFAULTS,
) -> Learned:
    """Fit all runs of a camera together, but those that are excluded or of modes that are gone."""
    import numpy as np  # noqa: PLC0415 - slow to import
    from scipy.optimize import least_squares  # noqa: PLC0415 - the same

    counted = usable(camera, runs)
    figures = figures_of(camera, family, defaults, counted)
    means, spreads = np.array(figures.means()), np.array(figures.spreads())
    said = np.array([one.kind == "draw_w" for one in figures.all])

    def errors(logs: Array) -> Array:
        data = [one for run in counted for one in _misfits(logs, figures, run, defaults)]
        seen = _robust(np.stack(data, axis=-1)) if data else logs[..., :0]
        apart = (logs - means) / spreads
        apart = np.where(said, _robust(apart, SAID_FROM), apart)
        return np.concatenate([seen, apart], axis=-1)

    steps = JAC_STEP * np.eye(len(means))

    def slopes(logs: Array) -> Array:
        """All columns at once: central differences over a stack of figures."""
        apart: Array = errors(logs + steps) - errors(logs - steps)
        return apart.T / (2.0 * JAC_STEP)

    draw = np.random.default_rng(SEED)
    starts = [means] + [
        means + spreads * draw.normal(0.0, START_SPREAD, len(means)) for _ in range(STARTS - 1)
    ]
    found = [least_squares(errors, start, jac=slopes) for start in starts]
    best = min(found, key=lambda one: one.cost)
    spread = np.linalg.inv(best.jac.T @ best.jac)
    lopsided = np.array([one.kind in LOPSIDED for one in figures.all])
    about = spread * WIDER + np.diag(np.where(lopsided, spreads**2, 0.0))
    draws, mean = _drawn(best.x, about, errors, draw)
    return Learned(
        figures,
        best.x,
        spread,
        draws,
        mean,
        figures_learned(figures, mean, draws, _rooms_apart_k(counted)),
        tuple(_residual(best.x, figures, run, defaults) for run in counted),
        bool(best.success),
        sum(one.cost <= best.cost + SAME_COST for one in found),
        STARTS,
        sum(run.end == "hot" for run in counted),
        frozenset(run.set_up for run in counted),
        tuple((bench_of(run), run.end == "hot") for run in counted if run.end in ENDED),
    )


def _rooms_apart_k(runs: Sequence[BenchRun]) -> float:
    """How far apart the rooms are in which heat showed itself [K]."""
    rooms = [r.ambient_c for r in runs if r.end == "hot" or r.warned_min is not None]
    return max(rooms) - min(rooms) if rooms else 0.0


def _drawn(
    logs: Array, about: Array, errors: Callable[[Array], Array], draw: np.random.Generator
) -> tuple[Array, Array]:
    """Figures as probable as they are [600, figures], and the mean of all tried [figures].

    Importance resampling around the best, in pairs on either side of it: tried from a normal
    curve of the covariance `about`, which is wider than the Jacobian's.
    """
    import numpy as np  # noqa: PLC0415 - slow to import

    half = draw.multivariate_normal(np.zeros(len(logs)), about, TRIED_DRAWS // 2)
    apart = np.stack([half, -half], axis=1).reshape(TRIED_DRAWS, len(logs))
    tried = logs + apart
    curve = np.einsum("ni,ij,nj->n", apart, np.linalg.inv(about), apart)
    weights = 0.5 * (curve - np.sum(errors(tried) ** 2, axis=-1))
    weights = np.exp(weights - weights.max())
    weights /= weights.sum()
    steps = (np.arange(KEPT_DRAWS) + draw.random()) / KEPT_DRAWS
    kept = np.searchsorted(np.cumsum(weights), steps)
    return tried[np.minimum(kept, TRIED_DRAWS - 1)], weights @ tried


def usable(camera: Camera, runs: Sequence[BenchRun]) -> list[BenchRun]:
    """Runs of a camera that count."""
    modes = {mode.id for mode in camera.modes}
    set_ups = {set_up.id for set_up in camera.set_ups}
    return [
        run
        for run in runs
        if run.camera == camera.id
        and run.excluded is None
        and run.mode in modes
        and run.set_up in set_ups
    ]


def _misfits(logs: Array, figures: Figures, run: BenchRun, defaults: Defaults) -> list[Any]:
    """Standardised residuals of one run: of heat, its warning, power, charge, a charge read off."""
    import numpy as np  # noqa: PLC0415 - slow to import

    if run.charging:
        return list(charging_misfits(logs, figures, run, defaults))
    course = expected(logs, figures, bench_of(run), defaults)
    over = np.log(course.risen_k(run.minutes) / np.maximum(course.head_k, 1e-3)) / RISE_ERROR
    misfits = [over if run.end == "hot" else _not_before(-over)]
    if run.warned_min is not None:
        warm = course.risen_k(run.warned_min) / np.maximum(course.warn_k, 1e-3)
        misfits.append(np.log(warm) / RISE_ERROR)
    if run.mean_w is not None and _meter_tells(run):
        through = defaults.feed_efficiency.value if run.metered == "port" else 1.0
        error = PORT_ERROR if run.metered == "port" else METER_ERROR
        misfits.append(np.log(run.mean_w * through / course.draw_w) / error)
    misfits += pause_misfits(logs, figures, run, defaults)
    misfits += store_misfits(course, logs, figures, run)
    if run.plugged:
        return misfits
    if died_cold(run):
        return misfits + cold_misfits(course, logs, figures, run, defaults)
    cold = hidden_at_start(bench_of(run), figures.family, defaults)
    time_error = math.hypot(TIME_ERROR, COLD_ERROR * cold)  # the cold does not teach draw
    late = np.log(run.minutes / np.maximum(course.empty_min, 1e-6)) / time_error
    misfits.append(late if run.end in ("empty", "both_empty") else _not_before(-late))
    ended = run.end in ("empty", "both_empty")
    read = None if ended or run.store_wh is not None else run.charge_end
    if read is not None and read < run.charge_start:
        spent = run.charge_start - read
        per_charge = course.empty_min / run.charge_start
        error = math.hypot(time_error, CHARGE_READING / spent)
        misfits.append(np.log(run.minutes / (per_charge * spent)) / error)
    return misfits


def _meter_tells(run: BenchRun) -> bool:
    """Whether a meter saw the draw alone: at the port it sees charging too, unless that is over."""
    return run.metered == "battery" or run.charge_start >= FULL_ENOUGH


def _not_before(margin: Any) -> Any:
    """Residual of "it had not happened yet", by the tail beyond a margin in errors."""
    import numpy as np  # noqa: PLC0415 - slow to import
    from scipy.special import log_ndtr  # noqa: PLC0415 - the same

    return np.sqrt(-2.0 * log_ndtr(margin))


def _robust(errors: Array, above: float = ROBUST_FROM) -> Array:
    """Large residuals count by their size, not its square (soft L1): no single run can rule."""
    import numpy as np  # noqa: PLC0415 - slow to import

    scaled = np.sqrt(1.0 + (errors / above) ** 2) - 1.0
    return np.sign(errors) * above * np.sqrt(2.0 * scaled)


def _residual(logs: Array, figures: Figures, run: BenchRun, defaults: Defaults) -> Residual:
    worst = max((float(one) for one in _misfits(logs, figures, run, defaults)), key=abs)
    return Residual(run.id, worst, abs(worst) > OUTLIER_FROM)
