"""The same trip recorded by one of the four schools: roll, takes, loop, set and leave."""

from __future__ import annotations

from collections import Counter
from typing import Literal

from ..document import (
    Armed,
    Assignment,
    Camera,
    Interval,
    Item,
    Leg,
    Loop,
    Pattern,
    PlanDocument,
    Roll,
    Takes,
)
from ..patterns import as_offered

School = Literal["roll", "takes", "loop", "leave"]

# What a school does where the plan has nothing of its own to go by.
USUAL_TAKES = Takes(seconds=40, per_hour=6.0)
USUAL_LOOP_S, USUAL_SAVES_PER_HOUR = 300, 2.0
USUAL_ARMED = Armed(seconds=30, per_hour=6.0, pre_record_s=10)
USUAL_INTERVAL = Interval(every_s=10.0)


def in_school(document: PlanDocument, school: School) -> PlanDocument:
    """The document with every stretch that is asked recorded by one school.

    What the plan itself does by that school (its takes, its loop, its interval) is taken over;
    the rest is usual: takes of 40 s six times an hour; a loop of five minutes kept at the leg's
    moments, or twice an hour where it has none; armed on legs and an interval at stops. A mode
    that cannot loop gives way to one of its camera that can.
    """
    items = {item.id: item for item in document.trip.items}
    cameras = {camera.id: camera for camera in document.kit.cameras}
    own = _own(document, school)
    assignments = tuple(
        _asked(one, school, own, items[one.item], cameras[one.camera])
        for one in document.plan.assignments
    )
    plan = document.plan.model_copy(update={"assignments": assignments})
    return document.model_copy(update={"plan": plan})


def _own(document: PlanDocument, school: School) -> Pattern | None:
    """The pattern that the plan uses most by a school."""
    if school not in ("takes", "loop"):
        return None
    used = Counter(one.pattern for one in document.plan.assignments if one.pattern.kind == school)
    return used.most_common(1)[0][0] if used else None


def _asked(
    one: Assignment, school: School, own: Pattern | None, item: Item, camera: Camera
) -> Assignment:
    pattern: Pattern
    if school == "roll":
        pattern = Roll()
    elif school == "takes":
        pattern = one.pattern if isinstance(one.pattern, Takes) else own or USUAL_TAKES
    elif school == "loop":
        return _looped(one, own, item, camera)
    elif isinstance(item, Leg):
        pattern = one.pattern if isinstance(one.pattern, Armed) else USUAL_ARMED
    else:
        pattern = one.pattern if isinstance(one.pattern, Interval) else USUAL_INTERVAL
    return one.model_copy(update={"pattern": pattern})


def _looped(one: Assignment, own: Pattern | None, item: Item, camera: Camera) -> Assignment:
    able = [mode for mode in camera.modes if mode.loops]
    if not able:
        return one.model_copy(update={"pattern": Roll()})
    mode = one.mode if any(mode.id == one.mode for mode in able) else able[0].id
    length_s = own.length_s if isinstance(own, Loop) else USUAL_LOOP_S
    saves = {} if item.moments else {"saves_per_hour": USUAL_SAVES_PER_HOUR}
    fresh = as_offered(Loop(length_s=length_s, **saves), camera.loops)
    pattern = one.pattern if isinstance(one.pattern, Loop) else fresh
    preset = one.preset if mode == one.mode else None
    return one.model_copy(update={"pattern": pattern, "mode": mode, "preset": preset})
