"""Temperatures of bodies and places in the trip's conditions, tabulated once.

Source: model/time#steps, model/cold#cell, model/heat#node.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import exp, inf
from typing import Final, Literal

from ...heat import Body, ms_to_level, shedding
from ...parameters import Defaults
from ...shared import Shared
from .timeline import Conditions

Warmth = Literal["inside", "outer", "bag"]
MILD_C, FROST_C = 5.0, -5.0
BLOCK: Final = 16


@dataclass(frozen=True, slots=True)
class Warmths(Shared):
    """How warm pockets are [degC]: inside, and the warm side of an outer one, mild and cold."""

    inside_c: float
    outer_mild_c: float
    outer_cold_c: float

    def outer(self, ambient_c: float) -> float:
        """Half way between its warm side and the air (model/cold#cell)."""
        way = min(1.0, max(0.0, (ambient_c - FROST_C) / (MILD_C - FROST_C)))
        warm_c = self.outer_cold_c + (self.outer_mild_c - self.outer_cold_c) * way
        return (warm_c + ambient_c) / 2.0


def warmths_of(defaults: Defaults) -> Warmths:
    """The pockets' warmths by the parameters."""
    return Warmths(
        defaults.inside_pocket_c.value, defaults.outer_mild_c.value, defaults.outer_cold_c.value
    )


@dataclass(frozen=True, slots=True)
class Climate(Shared):
    """A body in the trip's conditions, step by step: level without its own heat, g, and lag."""

    base_c: tuple[float, ...]
    g: tuple[float, ...]
    lag_ms: tuple[float, ...]
    hottest_base_c: float
    coldest_base_c: float
    largest_g: float
    least_lag_ms: float


@lru_cache(maxsize=256)
def climate_of(body: Body, conditions: Conditions) -> Climate:
    """Tabulate model/heat#node for a body: `T_eq = base + g * rise`."""
    airs = tuple(zip(conditions.air_mps, conditions.height_m, conditions.under, strict=True))
    by_air = {each: shedding(body, *each) for each in set(airs)}
    g = tuple(by_air[each] for each in airs)
    rows = zip(conditions.ambient_c, conditions.sun_w_m2, g, strict=True)
    base_c = tuple(ambient + each * body.sun_k_per_w_m2 * sun for ambient, sun, each in rows)
    lag_ms = tuple(1000.0 * body.tau_s * each for each in g)
    return Climate(base_c, g, lag_ms, max(base_c), min(base_c), max(g), min(lag_ms))


@dataclass(frozen=True, slots=True, eq=False)
class PlaceClimate(Shared):
    """A place for cells: its temperature by step, and that of a cell which has always lain there.

    A cell that comes from elsewhere differs from the latter by a decaying exponential. Lowest and
    highest temperatures are also kept by blocks of steps.
    """

    starts_ms: tuple[int, ...]
    base_c: tuple[float, ...]
    settled_c: tuple[float, ...]
    lag_ms: float
    coldest_c: float
    hottest_c: float
    lows_c: tuple[float, ...]
    highs_c: tuple[float, ...]

    def settled(self, at_ms: int) -> float:
        """Temperature of a cell that has always lain here [degC]."""
        step = bisect_right(self.starts_ms, at_ms) - 1
        base_c = self.base_c[step]
        decay = exp((self.starts_ms[step] - at_ms) / self.lag_ms)
        return base_c + (self.settled_c[step] - base_c) * decay

    def after(self, cell_c: float, from_ms: int, to_ms: int) -> float:
        """Temperature [degC] at `to_ms` of a cell that was at `cell_c` at `from_ms`."""
        if to_ms <= from_ms:
            return cell_c
        decay = exp((from_ms - to_ms) / self.lag_ms)
        step = bisect_right(self.starts_ms, from_ms)
        if step == len(self.starts_ms) or to_ms <= self.starts_ms[step]:
            base_c = self.base_c[step - 1]
            return base_c + (cell_c - base_c) * decay
        return self.settled(to_ms) + (cell_c - self.settled(from_ms)) * decay

    def path(self, cell_c: float, from_ms: int, times_ms: Sequence[int]) -> list[float]:
        """Temperatures [degC] at some later times of a cell that was at `cell_c` at `from_ms`.

        Times rise.
        """
        starts_ms, base_c, settled_c = self.starts_ms, self.base_c, self.settled_c
        over_c, lag_ms, final = cell_c - self.settled(from_ms), self.lag_ms, len(self.starts_ms) - 1
        step = max(0, bisect_right(starts_ms, from_ms) - 1)
        cells_c: list[float] = []
        for at_ms in times_ms:
            while step < final and starts_ms[step + 1] <= at_ms:
                step += 1
            level_c = base_c[step]
            decay = exp((starts_ms[step] - at_ms) / lag_ms)
            settled = level_c + (settled_c[step] - level_c) * decay
            cells_c.append(settled + over_c * exp((from_ms - at_ms) / lag_ms))
        return cells_c

    def crossing(self, cell_c: float, from_ms: int, level_c: float, bound_ms: int) -> int | None:
        """When a cell reaches a level from where it is, at or before a bound; else None [ms]."""
        if level_c < min(cell_c, self.coldest_c) or level_c > max(cell_c, self.hottest_c):
            return None  # a cell stays between where it is and what it meets
        starts_ms, levels_c, lag_ms = self.starts_ms, self.base_c, self.lag_ms
        step = bisect_right(starts_ms, from_ms) - 1
        last = bisect_left(starts_ms, bound_ms, max(0, step))
        if level_c < cell_c and level_c < min(_met(levels_c, self.lows_c, step, last), default=inf):
            return None
        if level_c > cell_c and level_c > max(
            _met(levels_c, self.highs_c, step, last), default=-inf
        ):
            return None
        at_ms, final = from_ms, len(starts_ms) - 1
        while at_ms < bound_ms:
            end_ms = bound_ms if step >= final else min(bound_ms, starts_ms[step + 1])
            base_c = levels_c[step]
            if (base_c > level_c) != (cell_c > level_c) or cell_c == level_c:
                reached = ms_to_level(cell_c, base_c, level_c, lag_ms / 1000.0)
                if reached is not None and at_ms + reached <= end_ms:
                    return at_ms + reached
            cell_c = base_c + (cell_c - base_c) * exp((at_ms - end_ms) / lag_ms)
            at_ms, step = end_ms, step + 1
        return None

    def coldest(self, from_ms: int, to_ms: int) -> float:
        """The lowest temperature of the place between two times [degC]."""
        first = bisect_right(self.starts_ms, from_ms) - 1
        last = max(first + 1, bisect_right(self.starts_ms, to_ms))
        return min(_met(self.base_c, self.lows_c, first, last))


def _met(
    values: tuple[float, ...], blocks: tuple[float, ...], first: int, last: int
) -> tuple[float, ...]:
    """What stands for the steps from `first` on to before `last`, whole blocks by theirs."""
    head, tail = -(-first // BLOCK), last // BLOCK
    if head >= tail:
        return values[first:last]
    return (*values[first : head * BLOCK], *blocks[head:tail], *values[tail * BLOCK : last])


@lru_cache(maxsize=64)
def place_climate(
    conditions: Conditions, place: Warmth | float, warmths: Warmths, lag_s: float
) -> PlaceClimate:
    """A pocket's or bag's temperatures: inside as the body, outer half way, bag ambient.

    A place that keeps a temperature of its own [degC] is given by that. Source: model/cold#cell.
    """
    if isinstance(place, float):
        base_c = tuple(place for _ in conditions.ambient_c)
    elif place == "inside":
        base_c = tuple(warmths.inside_c for _ in conditions.ambient_c)
    elif place == "outer":
        base_c = tuple(map(warmths.outer, conditions.ambient_c))
    else:
        base_c = conditions.ambient_c
    lag_ms = lag_s * 1000.0
    settled = [base_c[0]]
    for step in range(1, len(base_c)):
        elapsed_ms = conditions.starts_ms[step] - conditions.starts_ms[step - 1]
        before_c = base_c[step - 1]
        settled.append(before_c + (settled[-1] - before_c) * exp(-elapsed_ms / lag_ms))
    blocks = [base_c[first : first + BLOCK] for first in range(0, len(base_c), BLOCK)]
    return PlaceClimate(
        conditions.starts_ms,
        base_c,
        tuple(settled),
        lag_ms,
        min(base_c),
        max(base_c),
        tuple(map(min, blocks)),
        tuple(map(max, blocks)),
    )
