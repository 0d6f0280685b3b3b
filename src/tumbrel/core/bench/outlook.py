"""How long a mode will last in other air, and how sure that is, from what the runs taught.

Source: model/learning#fit.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from ..parameters import DEFAULTS, Defaults
from .fit import RISE_ERROR, SEED, TIME_ERROR
from .model import expected

if TYPE_CHECKING:
    from .fit import Learned
    from .model import Array, Bench, BodyCourse
    from .runs import RunEnd

LONGEST_MIN = 2880.0


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
    other: RunEnd = "stopped" if bench.plugged else "empty"
    return Outlook(low, likely, high, "hot" if hot > 0.5 else other, hot)


def ends_of(learned: Learned, bench: Bench, defaults: Defaults = DEFAULTS) -> tuple[Array, Array]:
    """Minutes to hot and to empty [600] of the figures drawn, each with the errors of a run."""
    import numpy as np  # noqa: PLC0415 - slow to import

    draw = np.random.default_rng(SEED)
    count = len(learned.draws)
    return ends(
        expected(learned.draws, learned.figures, bench, defaults),
        np.exp(draw.normal(0.0, RISE_ERROR, count)),
        np.exp(draw.normal(0.0, TIME_ERROR, count)),
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
