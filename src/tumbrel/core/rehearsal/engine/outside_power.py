"""Stretches in which a camera's set-up runs on outside power (E1.3, E4.7)."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ...document import PlanDocument
from ..camera.camera_run import CameraRun
from ..trip.timeline import Laid, Timeline


@dataclass(frozen=True, slots=True)
class Rig:
    """A stretch in which a camera's set-up runs on outside power (E1.3)."""

    start_ms: int
    end_ms: int
    camera: int
    source: str
    draw_w: float
    battery_out: bool


def rigs_of(document: PlanDocument, timeline: Timeline, cameras: list[CameraRun]) -> list[Rig]:
    """Legs and stops on outside power in order of time; those that touch are one."""
    sources = {c.camera: c.source for c in document.plan.cameras}
    rigs: list[Rig] = []
    for run in cameras:
        source = sources.get(run.camera.id)
        if source is None:
            continue
        for part in timeline.laid:
            rig = _outside(document, run, part, source)
            if rig is None:
                continue
            last = rigs[-1] if rigs and rigs[-1].camera == run.index else None
            touches = last is not None and last.end_ms >= rig.start_ms
            if last is not None and touches and last.battery_out == rig.battery_out:
                most_w = max(last.draw_w, rig.draw_w)
                rigs[-1] = replace(last, end_ms=rig.end_ms, draw_w=most_w)
            else:
                rigs.append(rig)
    return sorted(rigs, key=lambda rig: (rig.start_ms, rig.camera))


def _outside(document: PlanDocument, run: CameraRun, part: Laid, source: str) -> Rig | None:
    """What a leg or stop wants on outside power; from when it can begin to boot."""
    for assignment in document.plan.assignments:
        if assignment.camera != run.camera.id or assignment.item != part.id:
            continue
        set_up = next((s for s in run.camera.set_ups if s.id == assignment.set_up), None)
        if set_up is None or set_up.power == "battery":
            return None
        spans = [s for s in run.asked_list if part.start_ms <= s.start_ms < part.end_ms]
        draws = [span.recording.draw_w for span in spans if span.recording is not None]
        first = spans[0].prepare_ms if spans and spans[0].prepare_ms is not None else None
        early_ms = part.start_ms if first is None else min(first, part.start_ms)
        draw_w = max(draws, default=run.standby_w)
        out = set_up.power == "outside_only"
        return Rig(early_ms, part.end_ms, run.index, source, draw_w, out)
    return None
