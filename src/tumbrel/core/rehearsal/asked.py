"""What each camera is asked, interval by interval, with the figures that filming it needs."""

from __future__ import annotations

from dataclasses import dataclass

from ..document import (
    Assignment,
    BadDocument,
    Camera,
    FieldFault,
    Mode,
    PlanDocument,
    SetUp,
    Takes,
)
from ..energy import features_w, mode_w
from ..heat import Body, body_of
from ..memory import byte_rate, peak_byte_rate
from ..parameters import Defaults
from ..patterns import asked_spans, take_count
from .timeline import Timeline

MOST_ASKED = 40_000
IMPORTANCE_RANK = {"must": 0, "want": 1, "nice": 2}


@dataclass(frozen=True, slots=True)
class Recording:
    """How a camera records under one assignment: power, heat, bytes and hands."""

    mode: Mode
    set_up: SetUp
    draw_w: float
    rise_k: float
    byte_rate: int
    peak_rate: int
    clip_limit_ms: int | None
    body: Body


@dataclass(frozen=True, slots=True)
class Asked:
    """One asked interval [start, end); `recording` is None when the mode is missing."""

    start_ms: int
    end_ms: int
    assignment: int
    ends_leg: bool
    importance: int
    recording: Recording | None


def refuse_too_many(document: PlanDocument, timeline: Timeline) -> None:
    """Raise BadDocument when the plan asks for more takes than can be played in a few seconds."""
    laid = {part.id: part for part in timeline.laid}
    asked = 0
    for assignment in document.plan.assignments:
        if isinstance(assignment.pattern, Takes):
            part = laid[assignment.item]
            asked += take_count(assignment.pattern, part.end_ms - part.start_ms)
    if asked > MOST_ASKED:
        why = f"ask for {asked} takes together; up to {MOST_ASKED} can be rehearsed"
        raise BadDocument((FieldFault("plan.assignments", why),))


def asked_of(
    camera: Camera, document: PlanDocument, timeline: Timeline, defaults: Defaults
) -> list[Asked]:
    """All asked intervals of a camera in order of time."""
    laid = {part.id: part for part in timeline.laid}
    known: dict[tuple[str, str, tuple[str, ...]], Recording | None] = {}
    asked: list[Asked] = []
    for number, assignment in enumerate(document.plan.assignments):
        if assignment.camera != camera.id:
            continue
        key = (assignment.mode, assignment.set_up, tuple(sorted(assignment.features)))
        if key not in known:
            known[key] = recording_of(camera, assignment, document, defaults)
        part = laid[assignment.item]
        for start_ms, end_ms in asked_spans(assignment.pattern, part.start_ms, part.end_ms):
            asked.append(
                Asked(
                    start_ms,
                    end_ms,
                    number,
                    end_ms == part.end_ms,
                    IMPORTANCE_RANK[assignment.importance],
                    known[key],
                )
            )
    asked.sort(key=lambda span: span.start_ms)
    return asked


def recording_of(
    camera: Camera, assignment: Assignment, document: PlanDocument, defaults: Defaults
) -> Recording | None:
    """Power, heat and bytes of an assignment; None when its mode or set-up is not on the camera."""
    mode = next((m for m in camera.modes if m.id == assignment.mode), None)
    set_up = next((s for s in camera.set_ups if s.id == assignment.set_up), None)
    if mode is None or set_up is None:
        return None
    family = next(f for f in document.kit.families if f.id == camera.battery_family)
    body = body_of(camera, set_up, defaults)
    own_w = mode_w(mode, family)
    allowed = tuple(name for name in assignment.features if name in mode.features)
    extra_w = features_w(camera, allowed, defaults)
    own_rise = mode.rise_k if mode.rise_k is not None else body.resistance_k_per_w * own_w
    return Recording(
        mode=mode,
        set_up=set_up,
        draw_w=own_w + extra_w,
        rise_k=own_rise + body.resistance_k_per_w * extra_w,
        byte_rate=byte_rate(mode, defaults),
        peak_rate=peak_byte_rate(mode, defaults),
        clip_limit_ms=mode.clip_limit_s * 1000 if mode.clip_limit_s else None,
        body=body,
    )
