"""The run that would teach most about what a trip depends on (E13)."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from ..parameters import DEFAULTS, Defaults
from .fit import RISE_ERROR, TIME_ERROR
from .model import Bench, expected
from .outlook import ends

if TYPE_CHECKING:
    from collections.abc import Sequence

    from .fit import Learned
    from .model import Array

BENCH_LONGEST_MIN = 240.0  # nobody watches a camera longer
RUN_ERROR = math.hypot(RISE_ERROR, TIME_ERROR)


@dataclass(frozen=True, slots=True)
class Wanted:
    """How long a mode lasts in conditions that matter, and how much they matter."""

    bench: Bench
    weight: float = 1.0


@dataclass(frozen=True, slots=True)
class Worth:
    """A run that could be done: its likely minutes, and the doubt before and after it.

    Doubt is the standard deviation of the logarithm of the minutes that are wanted, over all of
    them by weight: 0.1 is about 10 % up or down.
    """

    bench: Bench
    likely_min: float
    doubt_before: float
    doubt_after: float


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
    goals = [(one.weight / total, _logs(learned, one.bench, 2880.0, defaults)) for one in wanted]
    before = sum(weight * float(np.var(logs)) for weight, logs in goals)
    found = []
    for bench in possible:
        length = _logs(learned, bench, BENCH_LONGEST_MIN, defaults)
        spread = float(np.var(length)) + RUN_ERROR**2
        told = sum(
            weight * float(np.cov(logs, length, bias=True)[0, 1]) ** 2 / spread
            for weight, logs in goals
        )
        likely_min = float(np.exp(np.median(length)))
        found.append(
            Worth(bench, likely_min, math.sqrt(before), math.sqrt(max(0.0, before - told)))
        )
    return tuple(sorted(found, key=lambda one: (one.doubt_after, one.likely_min)))


def _logs(learned: Learned, bench: Bench, longest_min: float, defaults: Defaults) -> Array:
    """Logarithm of the minutes in each draw, an end that is never met at the longest."""
    import numpy as np  # noqa: PLC0415 - slow to import

    course = expected(learned.draws, learned.figures, bench, defaults)
    minutes = np.minimum(*ends(course, 1.0, 1.0))
    logs: Array = np.log(np.minimum(minutes, longest_min))
    return logs
