"""Plans that ask for more pieces than can be played in a few seconds are refused before."""

from __future__ import annotations

from ..document import Armed, BadDocument, FieldFault, Interval, Loop, PlanDocument, Takes
from ..patterns import counted, frame_every_ms, save_count
from .timeline import Timeline

MOST_ASKED = 40_000


def refuse_too_many(document: PlanDocument, timeline: Timeline) -> None:
    """Raise BadDocument when the plan asks for more pieces than can be played in a few seconds."""
    asked = 0
    for assignment in document.plan.assignments:
        part = timeline.by_id[assignment.item]
        duration_ms = part.end_ms - part.start_ms
        pattern = assignment.pattern
        if isinstance(pattern, Takes | Armed):
            asked += counted(pattern, duration_ms)
        elif isinstance(pattern, Loop):
            asked += save_count(pattern, duration_ms) or 0
        elif isinstance(pattern, Interval):
            asked += _bursts(pattern, duration_ms)
    if asked > MOST_ASKED:
        why = f"ask for {asked} takes, clips and frames; up to {MOST_ASKED} can be rehearsed"
        raise BadDocument((FieldFault("plan.assignments", why),))


def _bursts(interval: Interval, duration_ms: int) -> int:
    """Frames that are played one by one; faster ones run at mean power (E7.1)."""
    every_ms = frame_every_ms(interval)
    return duration_ms // every_ms if every_ms > 45_000 else 0
