"""What is asked of a camera on a leg, by pattern (E7)."""

from __future__ import annotations

import math

from .document import Pattern, Roll, Takes


def take_count(takes: Takes, duration_ms: int) -> int:
    """How many takes a leg holds: the count, or the hourly rate rounded to whole takes (E7)."""
    if takes.count is not None:
        return takes.count
    assert takes.per_hour is not None
    return math.floor(takes.per_hour * duration_ms / 3_600_000 + 0.5)


def asked_spans(pattern: Pattern, start_ms: int, end_ms: int) -> list[tuple[int, int]]:
    """Asked intervals [start, end) in ms of a pattern over a leg from start to end (E7).

    Take k of s seconds starts at (k + 1/2) D/n - s/2; when n s >= D the leg is rolled.
    """
    if isinstance(pattern, Roll):
        return [(start_ms, end_ms)]
    duration_ms = end_ms - start_ms
    count = take_count(pattern, duration_ms)
    length_ms = pattern.seconds * 1000
    if count * length_ms >= duration_ms:
        return [(start_ms, end_ms)]
    spans = []
    for k in range(count):
        first = start_ms + ((2 * k + 1) * duration_ms - count * length_ms) // (2 * count)
        spans.append((first, first + length_ms))
    return spans
