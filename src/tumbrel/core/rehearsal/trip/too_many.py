"""Plans that ask for more pieces than can be played in a few seconds are refused before."""

from __future__ import annotations

from typing import Final

from ...document import (
    Armed,
    Assignment,
    BadDocument,
    FieldFault,
    Interval,
    Loop,
    PlanDocument,
    Takes,
)
from ...patterns import counted, save_count
from ..trip.timeline import Timeline

MOST_ASKED: Final = 40_000


def refuse_too_many(document: PlanDocument, timeline: Timeline) -> None:
    """Raise BadDocument when the plan asks for more pieces than can be played in a few seconds.

    Frames are not counted: they are played by their mean (model/patterns#trains), however many
    there are.
    """
    limits_s = {
        (camera.id, mode.id, set_up.id): min(
            (one for one in (mode.clip_limit_s, set_up.clip_limit_s) if one), default=None
        )
        for camera in document.kit.cameras
        for mode in camera.modes
        for set_up in camera.set_ups
    }
    asked, most, worst = 0, 0, 0
    for number, assignment in enumerate(document.plan.assignments):
        part = timeline.by_id[assignment.item]
        limit_s = limits_s.get((assignment.camera, assignment.mode, assignment.set_up))
        pieces = _pieces(assignment, part.end_ms - part.start_ms, limit_s)
        asked += pieces
        if pieces > most:
            most, worst = pieces, number
    if asked > MOST_ASKED:
        why = (
            f"asks for {most} of {asked} takes and clips; up to {MOST_ASKED} can be rehearsed. "
            "Ask for fewer or longer ones, or choose a mode with longer clips"
        )
        raise BadDocument((FieldFault(f"plan.assignments[{worst}]", why),))


def _pieces(assignment: Assignment, duration_ms: int, clip_limit_s: int | None) -> int:
    """Takes, clips of at most the mode's longest, and saves that an assignment comes to."""
    pattern = assignment.pattern
    if isinstance(pattern, Takes | Armed):
        return counted(pattern, duration_ms)
    if isinstance(pattern, Interval):
        return 0
    saves = (save_count(pattern, duration_ms) or 0) if isinstance(pattern, Loop) else 0
    clips = 0 if clip_limit_s is None else duration_ms // (clip_limit_s * 1000)
    return saves + clips
