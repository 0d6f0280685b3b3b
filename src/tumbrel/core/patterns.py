"""What is asked of a camera on a leg, by pattern, in whole ms. k counts from 0.

Source: model/patterns#asked.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from typing import Final

from .document import Armed, Interval, Loop, LoopOffered, Takes
from .document.patterns import Counted

Span = tuple[int, int]
MS_PER_HOUR: Final = 3_600_000


def how_many(count: int | None, per_hour: float | None, duration_ms: int) -> int:
    """The count, or the hourly rate rounded to whole ones: floor(per hour x D + 0.5).

    Source: model/patterns#asked.
    """
    if count is not None:
        return count
    return math.floor((per_hour or 0.0) * duration_ms / MS_PER_HOUR + 0.5)


def counted(what: Counted, duration_ms: int) -> int:
    """How many of something a leg holds."""
    return how_many(what.count, what.per_hour, duration_ms)


def middles(count: int, start_ms: int, duration_ms: int) -> list[int]:
    """Times (k + 1/2) D/n after a start."""
    return [start_ms + (2 * k + 1) * duration_ms // (2 * count) for k in range(count)]


def take_spans(takes: Takes, start_ms: int, end_ms: int) -> list[Span]:
    """Takes [start, end): take k of s seconds starts at (k + 1/2) D/n - s/2; n s >= D is Roll."""
    duration_ms = end_ms - start_ms
    count = counted(takes, duration_ms)
    length_ms = takes.seconds * 1000
    if count * length_ms >= duration_ms:
        return [(start_ms, end_ms)]
    spans = []
    for k in range(count):
        first = start_ms + ((2 * k + 1) * duration_ms - count * length_ms) // (2 * count)
        spans.append((first, first + length_ms))
    return spans


def armed_spans(armed: Armed, start_ms: int, end_ms: int) -> list[Span]:
    """Clips of an armed camera: from pre-record before a trigger to s after it, merged, clipped."""
    duration_ms = end_ms - start_ms
    count = counted(armed, duration_ms)
    if count == 0:
        return []
    return merged(
        (max(start_ms, at - armed.pre_record_s * 1000), min(end_ms, at + armed.seconds * 1000))
        for at in middles(count, start_ms, duration_ms)
    )


def merged(spans: Iterable[Span]) -> list[Span]:
    """Spans in order, overlapping or touching ones as one; empty ones left out."""
    joined: list[Span] = []
    for start_ms, end_ms in sorted(spans):
        if start_ms >= end_ms:
            continue
        if joined and start_ms <= joined[-1][1]:
            joined[-1] = (joined[-1][0], max(joined[-1][1], end_ms))
        else:
            joined.append((start_ms, end_ms))
    return joined


def save_count(loop: Loop, duration_ms: int) -> int | None:
    """How many times a loop is saved; None: at moments."""
    if loop.saves is None and loop.saves_per_hour is None:
        return None
    return how_many(loop.saves, loop.saves_per_hour, duration_ms)


def segment_ms(loop: Loop) -> int:
    """Length of one segment of a loop [ms], rounded up."""
    return -(-loop.length_s * 1000 // loop.segments)


def frame_every_ms(interval: Interval) -> int:
    """Time between frames [ms]."""
    return max(1, round(interval.every_s * 1000))


def frame_on_ms(interval: Interval, boot_ms: int, frame_ms: int, spare_ms: int) -> int:
    """How long the camera is on for a frame [ms]: boot, exposure and writing.

    All the time when frames come too fast to go off between them; `frame_ms` is typical of
    exposure and writing, where they are not said. Source: model/patterns#asked.
    """
    every_ms = frame_every_ms(interval)
    if every_ms <= boot_ms + spare_ms:
        return every_ms
    return min(every_ms, boot_ms + frame_takes_ms(interval, frame_ms))


def frame_takes_ms(interval: Interval, frame_ms: int) -> int:
    """Exposure and writing of a frame [ms]; what is not said of either is typical of both."""
    if interval.exposure_s is None and interval.writing_s is None:
        return frame_ms
    writing_ms = frame_ms if interval.writing_s is None else round(interval.writing_s * 1000)
    return max(1, round((interval.exposure_s or 0.0) * 1000) + writing_ms)


def whole_if_held_ms(duration_s: float, reaction_s: float) -> float:
    """Length that a loop must hold to have an event of d seconds answered after r whole [ms]."""
    return (duration_s + reaction_s) * 1000.0


def shortest_loop_s(waits_s: list[tuple[float, int]], segments: int) -> int | None:
    """Shortest length [s] that keeps 95 in 100 events whole; None without events.

    `waits_s` are d + r and how many such events there are. Length - segment >= d + r.
    """
    total = sum(count for _, count in waits_s)
    if total == 0:
        return None
    seen = 0
    for wait_s, count in sorted(waits_s):
        seen += count
        if seen >= 0.95 * total:
            return math.ceil(wait_s * segments / (segments - 1) - 1e-9)
    return None


def as_offered(loop: Loop, offered: Sequence[LoopOffered]) -> Loop:
    """A loop as a camera has it: the next longer one that it offers, else its longest."""
    if not offered:
        return loop
    longer = [one for one in offered if one.length_s >= loop.length_s]
    by_length = sorted(longer or offered, key=lambda one: one.length_s)
    best = by_length[0] if longer else by_length[-1]
    return loop.model_copy(update={"length_s": best.length_s, "segments": best.segments})


def shortest_offered(
    waits_s: list[tuple[float, int]], offered: Sequence[LoopOffered], segments: int
) -> tuple[int, int] | None:
    """Length [s] and segments of the shortest loop that suffices, of those that a camera has.

    Where it has none that does, or any, the length reckoned with so many segments.
    """
    for one in sorted(offered, key=lambda one: one.length_s):
        least = shortest_loop_s(waits_s, one.segments)
        if least is not None and one.length_s >= least:
            return one.length_s, one.segments
    best = shortest_loop_s(waits_s, segments)
    return None if best is None else (best, segments)
