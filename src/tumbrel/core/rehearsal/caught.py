"""Caught seconds: moments, and the footage finally kept (E1.4)."""

from __future__ import annotations

from bisect import bisect_right
from collections import defaultdict

from ..document import Loop
from ..patterns import Span, merged, shortest_loop_s
from .asked import moment_times
from .engine import Played
from .result import Caught, LoopAdvice

WHOLE = 0.999


def caught_of(played: Played) -> tuple[Caught, ...]:
    """For every kind of moment on a leg: how many, how many whole, and the seconds caught."""
    kept = merged(
        (clip.start_ms, clip.end_ms)
        for run in played.cameras
        for clip in run.kept
        if not clip.frames
    )
    rows: dict[tuple[str, int], list[int]] = defaultdict(lambda: [0, 0, 0, 0])
    for item, number, start_ms, end_ms in moment_times(played.timeline):
        overlap_ms = _overlap(kept, start_ms, end_ms)
        row = rows[item, number]
        row[0] += 1
        row[1] += overlap_ms >= WHOLE * (end_ms - start_ms)
        row[2] += overlap_ms
        row[3] += end_ms - start_ms
    told = []
    for (item, number), (count, whole, caught_ms, of_ms) in rows.items():
        leg = played.timeline.by_id[item].item
        assert leg is not None
        moment = leg.moments[number]
        told.append(
            Caught(
                item=item,
                moment=moment.name,
                importance=moment.importance,
                count=count,
                whole=whole,
                caught_s=caught_ms / 1000.0,
                of_s=of_ms / 1000.0,
            )
        )
    return tuple(told)


def _overlap(spans: list[Span], start_ms: int, end_ms: int) -> int:
    """Length of [start, end) that lies in spans, which are in order and apart [ms]."""
    place = max(0, bisect_right(spans, (start_ms, start_ms)) - 1)
    total = 0
    for from_ms, to_ms in spans[place:]:
        if from_ms >= end_ms:
            break
        total += max(0, min(to_ms, end_ms) - max(from_ms, start_ms))
    return total


def loop_advice(played: Played) -> tuple[LoopAdvice, ...]:
    """For each loop on a leg with moments: the shortest length that keeps 95 in 100 (E7)."""
    advice = []
    counts: dict[tuple[str, int], int] = defaultdict(int)
    for item, number, _, _ in moment_times(played.timeline):
        counts[item, number] += 1
    for number, assignment in enumerate(played.document.plan.assignments):
        pattern = assignment.pattern
        leg = played.timeline.by_id[assignment.item].item
        if not isinstance(pattern, Loop) or leg is None or not leg.moments:
            continue
        waits = [
            (float(moment.seconds + moment.reaction_s), counts[assignment.item, place])
            for place, moment in enumerate(leg.moments)
        ]
        best = shortest_loop_s(waits, pattern.segments)
        if best is not None:
            advice.append(LoopAdvice(assignment=number, length_s=pattern.length_s, shortest_s=best))
    return tuple(advice)
