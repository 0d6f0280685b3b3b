"""How long a mode will last in other air, and how sure that is, from what the runs taught.

Source: model/learning#fit.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from ..parameters import DEFAULTS, Defaults
from .fit import SEED, TIME_ERROR
from .model import bench_of, expected, hidden_at_start
from .special import CHARGE_ERROR, RISE_ERROR, charging_min

if TYPE_CHECKING:
    from .fit import Learned
    from .model import Array, Bench, BodyCourse
    from .runs import BenchRun, RunEnd

LONGEST_MIN = 2880.0
ABOUT_EVEN = 0.15
ALIKE_K, ALIKE_MPS = 2.0, 0.3
COLD_SPREAD = 0.3  # of a time, for each share that the room hides: draws differ in the cold too


@dataclass(frozen=True, slots=True)
class Outlook:
    """Minutes at 10, 50 and 90 in 100, the likelier end, and in how many of 100 it is heat."""

    low_min: float
    likely_min: float
    high_min: float
    end: RunEnd
    hot_share: float


def outlook(learned: Learned, bench: Bench, defaults: Defaults = DEFAULTS) -> Outlook:
    """Draw figures as sure as they are, and see what ends the run. Seeded: always the same.

    Where the steady temperature is close to the limit the range is wide, and says so by itself.
    """
    import numpy as np  # noqa: PLC0415 - slow to import

    hot_min, empty_min = ends_of(learned, bench, defaults)
    minutes = np.minimum(np.minimum(hot_min, empty_min), LONGEST_MIN)
    low, likely, high = (float(one) for one in np.quantile(minutes, (0.1, 0.5, 0.9)))
    hot = float(np.mean((hot_min < empty_min) & (hot_min < LONGEST_MIN)))
    ends_hot = _ends_hot(learned, bench, hot)
    by_kit = _as_taken(learned, bench, defaults)
    if by_kit is not None and by_kit[1] == ends_hot:  # what goes into a kit foretells the same
        likely = min(max(by_kit[0], low), high)
    other: RunEnd = "stopped" if bench.plugged else "empty"
    return Outlook(low, likely, high, "hot" if ends_hot else other, hot)


def _as_taken(learned: Learned, bench: Bench, defaults: Defaults) -> tuple[float, bool] | None:
    """Minutes by the figures themselves, and whether heat ends them; None: nothing ends it."""
    course = expected(learned.mean[None, :], learned.figures, bench, defaults)
    hot_min, empty_min = (float(one[0]) for one in ends(course, 1.0, 1.0))
    minutes = min(hot_min, empty_min)
    return (minutes, hot_min < empty_min) if minutes < LONGEST_MIN else None


def _ends_hot(learned: Learned, bench: Bench, hot: float) -> bool:
    """Whether heat is the likelier end; where that is about even, as runs just like it ended."""
    alike = [was_hot for other, was_hot in learned.ended if _is_like(other, bench)]
    if alike and abs(hot - 0.5) < ABOUT_EVEN:
        return 2 * sum(alike) > len(alike)
    return hot > 0.5


def _is_like(one: Bench, other: Bench) -> bool:
    """Whether two runs are of one mode and set-up, fed alike, in nearly the same air."""
    built = (one.mode, one.set_up, one.features, one.plugged, one.store_wh)
    if built != (other.mode, other.set_up, other.features, other.plugged, other.store_wh):
        return False
    apart_k, apart_mps = abs(one.ambient_c - other.ambient_c), abs(one.air_mps - other.air_mps)
    return apart_k <= ALIKE_K and apart_mps <= ALIKE_MPS


def run_outlook(learned: Learned, run: BenchRun, defaults: Defaults = DEFAULTS) -> Outlook:
    """What was to be expected of a run, charging or recording."""
    import numpy as np  # noqa: PLC0415 - slow to import

    if not run.charging:
        seen = outlook(learned, bench_of(run), defaults)
        both = seen.end == "empty" and run.store_wh is not None
        return replace(seen, end="both_empty") if both else seen
    to_share = defaults.full.value if run.end == "full" else run.charge_end or 1.0
    drawn = charging_min(learned.draws, learned.figures, run, to_share, defaults)
    draw = np.random.default_rng(SEED)
    minutes = drawn * np.exp(draw.normal(0.0, CHARGE_ERROR, len(learned.draws)))
    low, likely, high = (float(one) for one in np.quantile(minutes, (0.1, 0.5, 0.9)))
    return Outlook(low, likely, high, run.end, 0.0)


def ends_of(learned: Learned, bench: Bench, defaults: Defaults = DEFAULTS) -> tuple[Array, Array]:
    """Minutes to hot and to empty [600] of the figures drawn, each with the errors of a run."""
    import numpy as np  # noqa: PLC0415 - slow to import

    draw = np.random.default_rng(SEED)
    count = len(learned.draws)
    cold = hidden_at_start(bench, learned.figures.family, defaults)
    time_error = math.hypot(TIME_ERROR, COLD_SPREAD * cold)
    return ends(
        expected(learned.draws, learned.figures, bench, defaults),
        np.exp(draw.normal(0.0, RISE_ERROR, count)),
        np.exp(draw.normal(0.0, time_error, count)),
    )


def ends(
    course: BodyCourse, rise_factor: Array | float, time_factor: Array | float
) -> tuple[Array, Array]:
    """Minutes to hot and to empty of each set of figures, with errors of a run as factors."""
    import numpy as np  # noqa: PLC0415 - slow to import

    way = np.clip(course.head_k / (course.rise_k * rise_factor), 0.0, 1.0)
    with np.errstate(divide="ignore"):
        hot_min = np.where(way < 1.0, -course.lag_min * np.log1p(-way), np.inf)
    return hot_min, course.empty_min * time_factor
