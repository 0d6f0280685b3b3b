"""Where a battery or card was, and for how long."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class PlaceStay:
    """A battery or card in one place for a while; level is charge [0..1] or bytes used."""

    place: str
    from_ms: int
    level_from: float
    to_ms: int = 0
    level_to: float = 0.0


def stays_within(stays: Sequence[PlaceStay], start_ms: int, end_ms: int) -> Sequence[PlaceStay]:
    """Those of some stays, in order of time, that hold at any time in [start, end)."""
    first = bisect_right(stays, start_ms, key=_end)
    last = bisect_left(stays, end_ms, lo=first, key=_start)
    return stays[first:last]


def _start(stay: PlaceStay) -> int:
    return stay.from_ms


def _end(stay: PlaceStay) -> int:
    return stay.to_ms
