"""Whole minutes that add up: every sum on the screen is a sum of what stands there."""

from __future__ import annotations

from collections.abc import Sequence

MINUTE_MS = 60_000


def whole_minutes(length_ms: int) -> int:
    """A length of time in whole minutes, halves up."""
    return (length_ms + MINUTE_MS // 2) // MINUTE_MS


def share_out(total: int, parts_ms: Sequence[int]) -> list[int]:
    """Whole minutes for parts so that they add up to `total` (largest remainder first)."""
    floors = [part // MINUTE_MS for part in parts_ms]
    left = total - sum(floors)
    by_remainder = sorted(range(len(parts_ms)), key=lambda n: (-(parts_ms[n] % MINUTE_MS), n))
    for place in by_remainder[: max(0, left)]:
        floors[place] += 1
    for place in reversed(by_remainder):
        if sum(floors) <= total:
            break
        floors[place] -= min(floors[place], sum(floors) - total)
    return floors
