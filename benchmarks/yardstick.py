"""Timing, and a yardstick of this machine at this moment to hold the figures against."""

from __future__ import annotations

import heapq
import math
import time
from collections.abc import Callable
from dataclasses import dataclass
from statistics import median

ROWS = 12_000
QUIET_MS = 19.0  # what the yardstick took when nothing else ran on the machine of the targets


@dataclass(slots=True)
class _Row:
    number: int
    level: float


def median_ms(do: Callable[[], object], times: int) -> float:
    """Median of some runs [ms], after one to warm up."""
    do()
    return median(one_ms(do) for _ in range(times))


def fastest_ms(do: Callable[[], object], times: int) -> float:
    """Fastest of some runs [ms], after one to warm up: what the rest of the machine spares."""
    do()
    return min(one_ms(do) for _ in range(times))


def one_ms(do: Callable[[], object]) -> float:
    """One run [ms]."""
    start = time.perf_counter()
    do()
    return (time.perf_counter() - start) * 1000


def yardstick_ms() -> float:
    """A fixed piece of Python of the engine's kind, to tell how busy the machine is [ms].

    Small objects through a heap, with an exponential each.
    """

    def work() -> float:
        heap: list[tuple[int, int, _Row]] = []
        total = 0.0
        for n in range(ROWS):
            heapq.heappush(heap, (n * 7919 % 10_007, n, _Row(n, n * 0.5)))
            if len(heap) > 200:
                at, _, row = heapq.heappop(heap)
                total = max(total * 0.999, row.level) * math.exp(-at / 1e5)
        return total

    return median_ms(work, 9)


def line(what: str, value: float, unit: str, target: float, yardstick: float = QUIET_MS) -> bool:
    """Print one figure with its target; True when it is met, as it is or on a quiet machine.

    `yardstick` is what the yardstick took [ms] beside the figure; none for what is no time.
    """
    quiet = value * min(1.0, QUIET_MS / yardstick)
    word = "met" if value < target else "met when quiet" if quiet < target else "MISSED"
    beside = (
        "" if yardstick == QUIET_MS else f"  yardstick {yardstick:.0f} ms: quiet {quiet:.1f} ms"
    )
    print(f"{what:<40} {value:8.1f} {unit:<3} target {target:g} {unit}: {word}{beside}")
    return quiet < target
