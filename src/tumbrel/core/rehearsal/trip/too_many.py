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
from ...memory import longest_clip_s
from ...patterns import counted, save_count
from ..trip.timeline import Timeline

MOST_ASKED: Final = 40_000


def refuse_too_many(document: PlanDocument, timeline: Timeline) -> None:
    """Raise BadDocument when the plan asks for more pieces than can be played in a few seconds.

    Frames are not counted: they are played by their mean (model/patterns#trains), however many
    there are.
    """
    cameras = {camera.id: camera for camera in document.kit.cameras}
    asked, most, worst = 0, 0, 0
    for number, assignment in enumerate(document.plan.assignments):
        part = timeline.by_id[assignment.item]
        camera = cameras[assignment.camera]
        mode = next((one for one in camera.modes if one.id == assignment.mode), None)
        limit_s = None if mode is None else longest_clip_s(mode, camera.built(assignment.set_up))
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
    """Takes, clips of at most the longest, and saves that an assignment comes to."""
    pattern = assignment.pattern
    if isinstance(pattern, Takes | Armed):
        return counted(pattern, duration_ms)
    if isinstance(pattern, Interval):
        return 0
    saves = (save_count(pattern, duration_ms) or 0) if isinstance(pattern, Loop) else 0
    clips = 0 if clip_limit_s is None else duration_ms // (clip_limit_s * 1000)
    return saves + clips
