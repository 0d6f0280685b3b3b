"""The same leg asked otherwise: another pattern, its last minutes, a nicer stretch left out."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..document import (
    IMPORTANCES,
    Armed,
    Assignment,
    Camera,
    ClockEdge,
    Item,
    Loop,
    Mode,
    PlanDocument,
    Roll,
    Window,
    Windows,
)
from ..local_time import local_at
from ..patterns import as_offered
from ..rehearsal.result.result import Loss, Rehearsal
from .changes import Proposal, Values, left_out, on_stretch

DAY_MS = 86_400_000
LEAST_MINUTES = 5
MOST_LEFT_OUT = 2
USUAL_LOOP_S, USUAL_SAVES_PER_HOUR = 300, 2.0
USUAL_ARMED = Armed(seconds=30, per_hour=6.0, pre_record_s=0)


@dataclass(frozen=True)
class StretchAsked:
    """One lost stretch: its camera, leg or stop, mode, and what is known of the gap."""

    document: PlanDocument
    told: Rehearsal
    loss: Loss
    assignment: Assignment
    camera: Camera
    item: Item
    mode: Mode

    @property
    def where(self) -> tuple[str, str]:
        """Camera and leg."""
        return self.camera.id, self.item.id


def kept_loops(document: PlanDocument, camera: Camera, asked: Assignment) -> Iterator[Proposal]:
    """A loop that is kept at moments, or twice an hour, in a mode that has one."""
    item = document.trip.item(asked.item)
    waits = [moment.seconds + moment.reaction_s for moment in item.moments]
    length_s = max([USUAL_LOOP_S, *(-(-wait * 5 // 4) for wait in waits)])
    wanted = Loop(length_s=length_s, saves_per_hour=None if waits else USUAL_SAVES_PER_HOUR)
    pattern = as_offered(wanted, camera.loops)
    mode = next((one for one in camera.modes if one.id == asked.mode), None)
    if mode is None or not mode.loops or isinstance(asked.pattern, Loop):
        return
    names: Values = {
        "camera": camera.name,
        "leg": item.name,
        "minutes": round(pattern.length_s / 60),
    }
    code = "loop" if waits else "loop_kept"
    yield Proposal(code, on_stretch(camera.id, item.id, pattern=pattern), names)


def started_by_itself(
    document: PlanDocument, camera: Camera, asked: Assignment
) -> Iterator[Proposal]:
    """Patterns that want no press on the way: rolled, or armed from the stop before."""
    item = document.trip.item(asked.item)
    names = {"camera": camera.name, "leg": item.name}
    if not isinstance(asked.pattern, Roll):
        yield Proposal("roll", on_stretch(camera.id, item.id, pattern=Roll()), names)
    if not isinstance(asked.pattern, Armed):
        yield Proposal("arm", on_stretch(camera.id, item.id, pattern=USUAL_ARMED), names)


def nicer_left_out(asked: StretchAsked) -> Iterator[Proposal]:
    """Stretches of less importance, or nice ones, that the same camera films before."""
    rank = IMPORTANCES.index
    filmed: dict[int, int] = {}
    result = next(one for one in asked.told.cameras if one.camera == asked.camera.id)
    for span in result.filmed:
        if span.end_ms <= asked.loss.start_ms:
            filmed[span.assignment] = filmed.get(span.assignment, 0) + span.end_ms - span.start_ms
    plan = asked.document.plan.assignments
    less = [n for n in filmed if rank(plan[n].importance) > rank(asked.assignment.importance)]
    less.sort(key=lambda n: (-rank(plan[n].importance), -filmed[n]))
    for number in less[:MOST_LEFT_OUT]:
        item = asked.document.trip.item(plan[number].item)
        names = {"camera": asked.camera.name, "leg": item.name, "for": asked.item.name}
        yield Proposal("left_out", left_out(asked.camera.id, item.id), names)


def last_minutes(asked: StretchAsked) -> Iterator[Proposal]:
    """Only as much of a rolled leg as lasts, at its end: the same minutes, later."""
    laid = next(one for one in asked.told.items if one.id == asked.item.id)
    result = next(one for one in asked.told.cameras if one.camera == asked.camera.id)
    spans = [one for one in result.filmed if one.assignment == asked.loss.assignment]
    seconds = sum(one.end_ms - one.start_ms for one in spans) // 1000
    minutes = round(seconds / 60)
    whole = isinstance(asked.assignment.pattern, Roll) and laid.end_ms - laid.start_ms < DAY_MS
    if not whole or minutes < LEAST_MINUTES:
        return
    zone = asked.document.trip.time_zone
    edges = [
        local_at(asked.told.start_utc, zone, at_ms).time()
        for at_ms in (laid.end_ms - seconds * 1000, laid.end_ms)
    ]
    opens, closes = (ClockEdge(at=edge.replace(tzinfo=None)) for edge in edges)
    pattern = Windows(windows=(Window(opens=opens, closes=closes),))
    names: Values = {"camera": asked.camera.name, "leg": asked.item.name, "minutes": minutes}
    yield Proposal("last_minutes", on_stretch(*asked.where, pattern=pattern), names)
