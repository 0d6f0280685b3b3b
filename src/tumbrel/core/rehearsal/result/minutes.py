"""Whole minutes that add up: every sum on the screen is a sum of what stands there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ...document import IMPORTANCES, Importance
from ...parameters import Defaults
from ..camera.asked_time import GapSpan
from ..camera.camera_run import CameraRun
from ..camera.causes import SHORT_ONES_ARE_NOTES
from ..engine.played import Played

MINUTE_MS: Final = 60_000


@dataclass(slots=True)
class FilmedTime:
    """What of the asked time is filmed and what is not [ms]."""

    filmed_ms: int = 0
    missing_ms: int = 0


def time_filmed(played: Played) -> dict[Importance, FilmedTime]:
    """Camera time by importance, of a trip that is not told for it; notes are missing as well."""
    asked = played.written.plan.assignments
    found = {one: FilmedTime() for one in IMPORTANCES}
    for run in played.cameras:
        for span in run.time.filmed:
            found[asked[span.assignment].importance].filmed_ms += span.end_ms - span.start_ms
        for gap in run.time.gaps:
            found[asked[gap.assignment].importance].missing_ms += gap.end_ms - gap.start_ms
    return found


def notes_of(run: CameraRun, defaults: Defaults) -> list[bool]:
    """Which of a camera's gaps are but noted, in their order (model/results#verdict).

    Short ones of starting, saving and clip limits; and what else of a stretch is missing where that
    is short in all, and something of it is filmed.
    """
    least_ms = defaults.note_gap_s.value * 1000
    filmed = {span.assignment for span in run.time.filmed}
    missing: dict[int, int] = {}
    for gap in run.time.gaps:
        if not _is_start(gap, least_ms):
            missing[gap.assignment] = missing.get(gap.assignment, 0) + gap.end_ms - gap.start_ms
    return [
        _is_start(gap, least_ms)
        or (gap.assignment in filmed and missing[gap.assignment] < least_ms)
        for gap in run.time.gaps
    ]


def _is_start(gap: GapSpan, least_ms: float) -> bool:
    """Whether a gap is short, and of a kind of which each stands by itself."""
    return gap.end_ms - gap.start_ms < least_ms and gap.cause in SHORT_ONES_ARE_NOTES


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
