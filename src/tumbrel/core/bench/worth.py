"""The run that would teach most about what a trip depends on (model/learning#fit)."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from ..parameters import DEFAULTS, Defaults
from .fit import TIME_ERROR
from .model import Bench, expected
from .outlook import ends
from .special import RISE_ERROR

if TYPE_CHECKING:
    from collections.abc import Sequence

    from .fit import Learned
    from .model import Array

BENCH_LONGEST_MIN = 240.0  # nobody watches a camera longer


@dataclass(frozen=True, slots=True)
class Wanted:
    """How long a mode lasts in conditions that matter, and how much they matter.

    It is asked to last `longest_min`: beyond that nobody wants to know.
    """

    bench: Bench
    weight: float = 1.0
    longest_min: float = 2880.0


@dataclass(frozen=True, slots=True)
class Worth:
    """A run that could be done: its likely minutes, and the doubt before and after it.

    Doubt is the standard deviation of the logarithm of the minutes that are wanted, over all of
    them by weight: 0.1 is about 10 % up or down. `about` is the place in the list of what is wanted
    that it tells most about, with the doubt about that one alone.
    """

    bench: Bench
    likely_min: float
    doubt_before: float
    doubt_after: float
    about: int
    about_before: float
    about_after: float


def worth_doing(
    learned: Learned,
    wanted: Sequence[Wanted],
    possible: Sequence[Bench],
    defaults: Defaults = DEFAULTS,
) -> tuple[Worth, ...]:
    """Possible runs, the one that leaves least doubt first. Raises ValueError when none is wanted.

    By the linear rule: a run whose length goes with what is wanted takes away
    `cov^2 / (var + error^2)` of its variance, taken from the draws of the fit.
    """
    import numpy as np  # noqa: PLC0415 - slow to import

    if not wanted:
        raise ValueError("say what the runs should tell about")
    total = sum(one.weight for one in wanted)
    weights = np.array([one.weight / total for one in wanted])
    goals = [_logs(learned, one.bench, one.longest_min, defaults) for one in wanted]
    variances = np.array([np.var(goal) for goal in goals])
    before = float(weights @ variances)
    found = []
    for bench in possible:
        length = _logs(learned, bench, BENCH_LONGEST_MIN, defaults)
        spread = float(np.var(length)) + _error(learned, bench, defaults) ** 2
        told = np.array([float(np.cov(goal, length, bias=True)[0, 1]) ** 2 for goal in goals])
        told = np.minimum(told / spread, variances)
        about = int(np.argmax(weights * told))
        found.append(
            Worth(
                bench,
                float(np.exp(np.median(length))),
                math.sqrt(before),
                math.sqrt(max(0.0, before - float(weights @ told))),
                about,
                math.sqrt(variances[about]),
                math.sqrt(variances[about] - told[about]),
            )
        )
    return tuple(sorted(found, key=lambda one: (one.doubt_after, one.likely_min)))


def _error(learned: Learned, bench: Bench, defaults: Defaults) -> float:
    """Error of the logarithm of a run's length, by how likely heat or the battery ends it."""
    hot, empty = ends(expected(learned.draws, learned.figures, bench, defaults), 1.0, 1.0)
    share = float((hot < empty).mean())
    return math.sqrt(share * RISE_ERROR**2 + (1.0 - share) * TIME_ERROR**2)


def _logs(learned: Learned, bench: Bench, longest_min: float, defaults: Defaults) -> Array:
    """Logarithm of the minutes in each draw, an end that is never met at the longest."""
    import numpy as np  # noqa: PLC0415 - slow to import

    course = expected(learned.draws, learned.figures, bench, defaults)
    minutes = np.minimum(*ends(course, 1.0, 1.0))
    logs: Array = np.log(np.minimum(minutes, longest_min))
    return logs
