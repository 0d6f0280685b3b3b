"""Footage at risk: minutes that exist in one place, by the hour, and the largest loss.

Source: model/memory#risk.
"""

from __future__ import annotations

from collections import defaultdict
from typing import Final

from ...document import Interval
from ...document.patterns import Pattern
from ..engine.played import Played
from ..hands.copying import GONE
from ..stock.clips import Kept
from .result import AtRisk, LargestLoss

HOUR_MS: Final = 3_600_000


class Single:
    """Footage that exists in one place only, from one time to another."""

    __slots__ = ("from_ms", "length_ms", "place", "to_ms")

    def __init__(self, place: str, from_ms: int, to_ms: int, length_ms: int) -> None:
        self.place: Final = place
        self.from_ms: Final = from_ms
        self.to_ms: Final = to_ms
        self.length_ms: Final = length_ms


def playback_ms(clip: Kept, pattern: Pattern) -> int:
    """Length of footage as it is watched: frames at their playback rate [ms]."""
    if isinstance(pattern, Interval):
        return round(clip.frames * 1000 / pattern.playback_fps)
    return clip.end_ms - clip.start_ms


def singles_of(played: Played) -> list[Single]:
    """When each clip exists in one place only, and which."""
    end_ms = played.timeline.duration_ms
    moves: dict[tuple[str, int], list[tuple[int, str]]] = defaultdict(list)
    for landed in played.hands.copying.landed:
        moves[landed.store, landed.start_ms].append((landed.at_ms, landed.drive))
    singles = []
    assignments = played.written.plan.assignments
    for run in played.cameras:
        for clip in run.recorder.kept:
            length_ms = playback_ms(clip, assignments[clip.assignment].pattern)
            moved = sorted(moves.get((clip.store, clip.start_ms), ()))
            if not moved:
                if clip.end_ms <= end_ms:
                    singles.append(Single(clip.store, clip.end_ms, end_ms + 1, length_ms))
                continue
            places = {clip.store}
            since_ms = clip.end_ms
            for at_ms, drive in [*moved, (end_ms + 1, "")]:
                if len(places) == 1 and at_ms > since_ms:
                    singles.append(Single(next(iter(places)), since_ms, at_ms, length_ms))
                if drive.startswith(GONE):
                    places.discard(drive.removeprefix(GONE))
                elif drive:
                    places.add(drive)
                since_ms = max(since_ms, at_ms)
    return singles


def at_risk(played: Played, singles: list[Single]) -> tuple[AtRisk, ...]:
    """Minutes that exist in one place only, place by place, at the start of every hour."""
    hours = played.timeline.duration_ms // HOUR_MS + 1
    by_place: dict[str, list[int]] = {}
    for single in singles:
        row = by_place.setdefault(single.place, [0] * (hours + 1))
        first = -(-single.from_ms // HOUR_MS)
        last = -(-single.to_ms // HOUR_MS)
        row[min(first, hours)] += single.length_ms
        row[min(last, hours)] -= single.length_ms
    told = []
    for place, steps in by_place.items():
        total, course = 0, []
        for step in steps[:hours]:
            total += step
            course.append(total)
        told.append(AtRisk(place=place, by_hour_ms=tuple(course)))
    return tuple(told)


def largest_loss(played: Played, singles: list[Single]) -> LargestLoss | None:
    """The most minutes that would go with one camera, card or drive, and when."""
    events: dict[str, list[tuple[int, int]]] = defaultdict(list)
    for single in singles:
        events[single.place].append((single.from_ms, single.length_ms))
        events[single.place].append((single.to_ms, -single.length_ms))
    worst: tuple[int, int, str] | None = None
    for place, changes in events.items():
        total = 0
        for at_ms, change in sorted(changes):
            total += change
            if worst is None or total > worst[0]:
                worst = (total, at_ms, place)
    if worst is None:
        return None
    names = {card.store.id: card.store.name for card in played.cards}
    names |= {drive.id: drive.name for drive in played.written.kit.drives}
    return LargestLoss(store=worst[2], name=names[worst[2]], filmed_ms=worst[0], at_ms=worst[1])
