"""What one change did: pairs of runs that differ in air, set-up or charging alone."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import permutations
from typing import Literal

from .runs import BenchRun

SAME_ROOM_K = 3.0
SAME_AIR_MPS = 0.3
WORTH_TELLING = 1.25  # less than a quarter longer or shorter is no story
MOST = 3

What = Literal["air", "set_up", "plugged"]


@dataclass(frozen=True)
class Contrast:
    """Two runs alike but for one thing: `after` had it, `before` had not."""

    what: What
    before: BenchRun
    after: BenchRun

    @property
    def ratio(self) -> float:
        """How many times as long it lasted."""
        return self.after.minutes / self.before.minutes


def contrasts(runs: Iterable[BenchRun], first_set_up: str) -> tuple[Contrast, ...]:
    """The most telling contrasts, the largest first: the largest of each kind, help and harm apart.

    Only runs that ended by heat or an empty battery are compared.
    """
    ended = [run for run in runs if run.end in ("empty", "hot")]
    found: dict[tuple[What, bool], Contrast] = {}
    for one in _pairs(ended, first_set_up):
        if max(one.ratio, 1.0 / one.ratio) < WORTH_TELLING:
            continue
        key = one.what, one.ratio > 1.0
        if key not in found or _size(one) > _size(found[key]):
            found[key] = one
    return tuple(sorted(found.values(), key=_size, reverse=True)[:MOST])


def _size(one: Contrast) -> float:
    return abs(math.log(one.ratio))


def _pairs(runs: list[BenchRun], first_set_up: str) -> Iterator[Contrast]:
    for before, after in permutations(runs, 2):
        if before.mode != after.mode or abs(before.ambient_c - after.ambient_c) > SAME_ROOM_K:
            continue
        airs = abs(before.air_mps - after.air_mps) > SAME_AIR_MPS
        built = before.set_up != after.set_up
        fed = before.plugged != after.plugged
        if airs and not built and not fed and before.air_mps < after.air_mps:
            yield Contrast("air", before, after)
        elif built and not airs and before.set_up == first_set_up:
            yield Contrast("set_up", before, after)  # plugged or not goes with the set-up
        elif fed and not airs and not built and after.plugged:
            yield Contrast("plugged", before, after)
