"""Which cameras serve on each leg and stop, why, and what is unsafe (job 3)."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from .document import (
    Angle,
    Assignment,
    Camera,
    CameraPlan,
    Item,
    Kit,
    Leg,
    Mount,
    Plan,
    PlanDocument,
    SetUp,
    Verdict,
    Where,
)
from .document.base import Part
from .parameters.serving import USUAL, Rule

WORSE: Mapping[Verdict, int] = {"well": 0, "poorly": 1, "never": 2}
WATER_ORDER = {"dry": 0, "splash": 1, "under": 2}


class ServingLine(Part):
    """One cell of the matrix of what serves where."""

    what: Angle | Mount
    where: Where
    verdict: Verdict
    why: str
    own: bool


class Served(Part):
    """How one camera serves on one leg or stop; `why` holds a reason for each thing against it."""

    camera: str
    mount: Mount
    angle: Angle
    verdict: Verdict
    why: tuple[str, ...]
    asked: bool
    reason: str


class LegServed(Part):
    """All cameras on one leg or stop, those that serve best first.

    `suggested` are cameras that serve well and are not asked, each with an angle of its own that
    nobody asked has; those whose angle is asked for the fewest minutes of the trip come first.
    """

    item: str
    name: str
    cameras: tuple[Served, ...]
    suggested: tuple[str, ...]
    angles: int


def rule_of(kit: Kit, what: Angle | Mount, where: Where) -> Rule:
    """The verdict on a mount or angle somewhere: the person's own, else what is usual."""
    for own in kit.serving:
        if own.what == what and own.where == where:
            return own.verdict, own.why
    return USUAL.get((what, where), ("well", ""))


def matrix_of(kit: Kit) -> tuple[ServingLine, ...]:
    """Everything that does not simply serve well, and what the person said."""
    own = {(one.what, one.where): (one.verdict, one.why) for one in kit.serving}
    cells = {**USUAL, **own}
    return tuple(
        ServingLine(what=what, where=where, verdict=verdict, why=why, own=(what, where) in own)
        for (what, where), (verdict, why) in cells.items()
    )


def where_of(item: Item) -> Where:
    """What is done on a leg; a stop is a stop."""
    return item.activity if isinstance(item, Leg) else "stop"


def carried(plan: Plan, camera: str) -> CameraPlan:
    """How a camera is carried, as the plan says or as usual."""
    known = (one for one in plan.cameras if one.camera == camera)
    return next(known, CameraPlan(camera=camera))


def mount_and_angle(plan: CameraPlan, asked: Assignment | None) -> tuple[Mount, Angle]:
    """Mount and angle on a leg: the stretch's own, else as carried."""
    mount = (asked.mount if asked else None) or plan.mount
    return mount, (asked.angle if asked else None) or plan.angle


def against(kit: Kit, item: Item, mount: Mount, angle: Angle) -> list[Rule]:
    """What speaks against a mount and an angle on a leg or stop, the gravest first."""
    where = where_of(item)
    rules = [rule_of(kit, what, where) for what in (mount, angle)]
    held = mount == "hand_held" and isinstance(item, Leg) and item.hands == "never"
    if held and rules[0][0] == "well" and not _own(kit, mount, where):
        rules[0] = ("never", "no hand is free on it")
    found = [(verdict, why or verdict) for verdict, why in rules if verdict != "well"]
    return sorted(found, key=lambda rule: -WORSE[rule[0]])


def _own(kit: Kit, what: Angle | Mount, where: Where) -> bool:
    return any(one.what == what and one.where == where for one in kit.serving)


def stands_water(set_up: SetUp, item: Item) -> bool:
    """Whether a set-up stands the water of a leg."""
    return not isinstance(item, Leg) or WATER_ORDER[item.wet] <= WATER_ORDER[set_up.water]


def served(document: PlanDocument) -> tuple[LegServed, ...]:
    """What serves where, for each leg and stop in order."""
    asked = {(one.item, one.camera): one for one in document.plan.assignments}
    minutes = _asked_s(document)
    return tuple(_leg(document, item, asked, minutes) for item in document.trip.items)


def _leg(
    document: PlanDocument,
    item: Item,
    asked: Mapping[tuple[str, str], Assignment],
    seconds: Mapping[Angle, int],
) -> LegServed:
    told = [
        _camera(document, item, camera, asked.get((item.id, camera.id)))
        for camera in document.kit.cameras
    ]
    told.sort(key=lambda one: (WORSE[one.verdict], not one.asked))
    taken = {one.angle for one in told if one.asked}
    suggested: list[str] = []
    free = [one for one in told if not one.asked and one.verdict == "well"]
    for one in sorted(free, key=lambda one: seconds.get(one.angle, 0)):
        if one.angle not in taken:
            taken.add(one.angle)
            suggested.append(one.camera)
    angles = len({one.angle for one in told if one.asked})
    return LegServed(
        item=item.id,
        name=item.name,
        cameras=tuple(told),
        suggested=tuple(suggested),
        angles=angles,
    )


def _camera(document: PlanDocument, item: Item, camera: Camera, asked: Assignment | None) -> Served:
    mount, angle = mount_and_angle(carried(document.plan, camera.id), asked)
    rules = [*against(document.kit, item, mount, angle), *_water(camera, item, asked)]
    verdict: Verdict = max((rule[0] for rule in rules), key=WORSE.__getitem__, default="well")
    return Served(
        camera=camera.id,
        mount=mount,
        angle=angle,
        verdict=verdict,
        why=tuple(why for _, why in rules),
        asked=asked is not None,
        reason=asked.reason if asked else "",
    )


def _water(camera: Camera, item: Item, asked: Assignment | None) -> Iterator[Rule]:
    """Against water: the set-up that is asked, or every set-up the camera has."""
    chosen = [s for s in camera.set_ups if asked is None or s.id == asked.set_up]
    if chosen and not any(stands_water(set_up, item) for set_up in chosen):
        yield "never", "it does not stand the water as it is built"


def _asked_s(document: PlanDocument) -> dict[Angle, int]:
    """Seconds of the trip for which each angle is asked."""
    lasts = {item.id: item.duration_s for item in document.trip.items}
    plans = {camera.id: carried(document.plan, camera.id) for camera in document.kit.cameras}
    found: dict[Angle, int] = {}
    for one in document.plan.assignments:
        _, angle = mount_and_angle(plans[one.camera], one)
        found[angle] = found.get(angle, 0) + lasts[one.item]
    return found
