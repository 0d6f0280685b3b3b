"""Timing, and a yardstick of this machine at this moment to hold the figures against."""

from __future__ import annotations

import time
from collections.abc import Callable
from statistics import median

LOOPS = 300_000


def median_ms(do: Callable[[], object], times: int) -> float:
    """Median of some runs [ms], after one to warm up."""
    do()
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        do()
        taken.append((time.perf_counter() - start) * 1000)
    return median(taken)


def yardstick_ms() -> float:
    """A fixed piece of plain Python: what it takes tells how busy the machine is [ms]."""

    def work() -> float:
        total = 0.0
        for n in range(LOOPS):
            total += (n % 7) * 0.5
        return total

    return median_ms(work, 9)


def line(what: str, value: float, unit: str, target: float) -> bool:
    """Print one figure with its target; True when it is met."""
    met = value < target
    print(
        f"{what:<44} {value:9.1f} {unit:<3} target {target:g} {unit}  {'met' if met else 'MISSED'}"
    )
    return met
