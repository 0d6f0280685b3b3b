"""Caught seconds and moments whole: moments, and the footage finally kept.

Where footage follows the moment (a roll, a loop or armed clips that a word answers), moments whole
are counted at the instants where they are laid. Where it does not (takes, windows, interval,
clips by motion, speed or power), they are expected: each counts as the share of the instants at
which it might begin and would be whole in what is kept, of any camera asked there.

Source: model/results#moments, model/results#verdict.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections import defaultdict
from dataclasses import dataclass
from typing import Final

from ...document import Armed, Loop, Roll
from ...document.patterns import Pattern
from ...patterns import Span, merged, shortest_offered
from ..engine.played import Played
from ..trip.asking import moment_times
from ..trip.timeline import Laid
from .result import Caught
from .stretch_results import LoopAdvice

WHOLE: Final = 0.999
EXPECTED: Final = 0.5  # a must moment below this is not expected to be kept


@dataclass(frozen=True, slots=True)
class _Kept:
    """What one camera keeps: footage that follows moments, and footage that does not."""

    follows: list[Span]
    by_itself: list[Span]


def caught_of(played: Played) -> tuple[Caught, ...]:
    """For every kind of moment on a leg: how many, how many whole, and the seconds caught."""
    cameras = _kept(played)
    anything = merged(span for kept in cameras for span in (*kept.follows, *kept.by_itself))
    rows: dict[tuple[str, int], list[tuple[int, int]]] = defaultdict(list)
    for item, number, start_ms, end_ms in moment_times(played.timeline):
        rows[item, number].append((start_ms, end_ms))
    told = []
    for (item, number), moments in rows.items():
        part = played.timeline.by_id[item]
        assert part.item is not None
        moment = part.item.moments[number]
        share = _share(cameras, part, moments[0][1] - moments[0][0])
        worth = [1.0 if _is_whole(cameras, *one) else share for one in moments]
        told.append(
            Caught(
                item=item,
                moment=moment.name,
                importance=moment.importance,
                count=len(moments),
                whole=round(sum(worth, 0.0), 3),
                missed=sum(one < EXPECTED for one in worth),
                caught_s=sum(_overlap(anything, *one) for one in moments) / 1000.0,
                of_s=sum(end_ms - start_ms for start_ms, end_ms in moments) / 1000.0,
            )
        )
    return tuple(told)


def _kept(played: Played) -> list[_Kept]:
    """Footage of each camera that was kept, pieces that touch as one."""
    follows = [_follows(one.pattern) for one in played.written.plan.assignments]
    found = []
    for run in played.cameras:
        clips = [clip for clip in run.recorder.kept if not clip.frames]
        found.append(
            _Kept(
                merged((c.start_ms, c.end_ms) for c in clips if follows[c.assignment]),
                merged((c.start_ms, c.end_ms) for c in clips if not follows[c.assignment]),
            )
        )
    return found


def _follows(pattern: Pattern) -> bool:
    """Whether what a pattern keeps follows the moment, so that its own instants count."""
    by_word = isinstance(pattern, Armed) and pattern.trigger in ("voice", "press")
    return by_word or isinstance(pattern, Roll | Loop)


def _is_whole(cameras: list[_Kept], start_ms: int, end_ms: int) -> bool:
    """Whether a moment lies whole in the footage of a camera that follows it."""
    least_ms = WHOLE * (end_ms - start_ms)
    return any(_overlap(kept.follows, start_ms, end_ms) >= least_ms for kept in cameras)


def _share(cameras: list[_Kept], part: Laid, length_ms: int) -> float:
    """Share of a leg's instants at which a moment of a length would be whole in what is kept."""
    first_ms, last_ms = part.start_ms, part.end_ms - length_ms
    if last_ms <= first_ms:
        spans = [span for kept in cameras for span in kept.by_itself]
        return float(any(a <= part.start_ms and b >= part.end_ms for a, b in spans))
    starts = merged(
        (max(first_ms, start_ms), min(last_ms, end_ms - length_ms))
        for kept in cameras
        for start_ms, end_ms in _within(kept.by_itself, first_ms, part.end_ms)
    )
    return sum(end_ms - start_ms for start_ms, end_ms in starts) / (last_ms - first_ms)


def _within(spans: list[Span], start_ms: int, end_ms: int) -> list[Span]:
    """Those of spans in order and apart that reach into a stretch."""
    first = max(0, bisect_right(spans, (start_ms, start_ms)) - 1)
    return spans[first : bisect_left(spans, (end_ms, end_ms))]


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
    """For each loop on a leg with moments: the shortest length that keeps 95 in 100.

    Source: model/patterns#asked.
    """
    advice = []
    cameras = {camera.id: camera for camera in played.written.kit.cameras}
    counts: dict[tuple[str, int], int] = defaultdict(int)
    for item, number, _, _ in moment_times(played.timeline):
        counts[item, number] += 1
    for number, assignment in enumerate(played.written.plan.assignments):
        pattern = assignment.pattern
        leg = played.timeline.by_id[assignment.item].item
        if not isinstance(pattern, Loop) or leg is None or not leg.moments:
            continue
        waits = [
            (float(moment.seconds + moment.reaction_s), counts[assignment.item, place])
            for place, moment in enumerate(leg.moments)
        ]
        camera = cameras[assignment.camera]
        found = shortest_offered(waits, camera.loops, pattern.segments)
        if found is not None:
            best, segments = found
            advice.append(
                LoopAdvice(
                    assignment=number,
                    length_s=pattern.length_s,
                    shortest_s=best,
                    segments=segments,
                )
            )
    return tuple(advice)
