"""What may be tried where a camera sits wrongly: elsewhere, built another way, another camera.

Source: model/cures#weighed.
"""

from __future__ import annotations

from collections.abc import Iterator

from ..serving import carried, stands_water
from ..wording.moves import MOUNT_WORDS
from ..wording.picture import ANGLE_WORDS
from .changes import Proposal, Values, handed_over, longer, on_stretch, stand_ins
from .told_finding import ToldFinding


def not_moved(told: ToldFinding) -> Iterator[Proposal]:
    """The stop before it longer; the camera left where it sits; another camera."""
    asked, camera = told.assignment, told.camera
    if asked is None or camera is None:
        return
    items = told.document.trip.items
    place = next(number for number, one in enumerate(items) if one.id == asked.item)
    before = next((one for one in reversed(items[:place]) if one.kind == "stop"), None)
    takes_s = int(told.finding.values["takes_s"])
    if before is not None:
        more_s = max(60, -(-takes_s // 60) * 60)
        values: Values = {"stop": before.name, "minutes": more_s // 60}
        yield Proposal("longer_stop", longer(before.id, more_s), values)
    earlier = {one.id for one in items[:place]}
    mine = [one for one in told.document.plan.assignments if one.camera == camera.id]
    order = {one.id: number for number, one in enumerate(items)}
    sat = max((one for one in mine if one.item in earlier), key=lambda one: order[one.item])
    mount = sat.mount or carried(told.document.plan, camera.id).mount
    values = {"camera": camera.name, "was": told.finding.values["was"], "leg": items[place].name}
    change = on_stretch(camera.id, asked.item, mount=mount, set_up=sat.set_up)
    yield Proposal("unmoved", change, values)
    yield from another_camera(told)


def angle_as_seen(told: ToldFinding) -> Iterator[Proposal]:
    """The angle that its mount gives; another mount of which that is known; another camera."""
    asked, camera = told.assignment, told.camera
    if asked is None or camera is None:
        return
    plan = carried(told.document.plan, camera.id)
    mount, angle = asked.mount or plan.mount, asked.angle or plan.angle
    leg = told.document.trip.item(asked.item).name
    for known in camera.mounts:
        names = {"camera": camera.name, "leg": leg}
        if known.mount == mount and known.sees is not None:
            change = on_stretch(camera.id, asked.item, angle=known.sees)
            yield Proposal("angle", change, {**names, "angle": ANGLE_WORDS[known.sees]})
        elif known.sees == angle:
            change = on_stretch(camera.id, asked.item, mount=known.mount)
            yield Proposal("mount", change, {**names, "mount": MOUNT_WORDS[known.mount]})
    yield from another_camera(told)


def known_set_up(told: ToldFinding) -> Iterator[Proposal]:
    """Set-ups that the camera has and that stand the leg's water; else another camera."""
    asked, camera = told.assignment, told.camera
    if asked is None or camera is None:
        return
    item = told.document.trip.item(asked.item)
    for set_up in camera.set_ups:
        if set_up.id != asked.set_up and stands_water(set_up, item):
            change = on_stretch(camera.id, item.id, set_up=set_up.id)
            names = {"camera": camera.name, "leg": item.name, "set_up": set_up.name}
            yield Proposal("set_up", change, names)
    yield from another_camera(told)


def another_camera(told: ToldFinding) -> Iterator[Proposal]:
    """Another camera that may serve there."""
    asked, camera = told.assignment, told.camera
    if asked is None or camera is None:
        return
    item = told.document.trip.item(asked.item)
    for other, set_up in stand_ins(told.document, item):
        change = handed_over(camera.id, item.id, other, set_up)
        names = {"camera": other.name, "leg": item.name, "instead": camera.name}
        yield Proposal("other_camera", change, names)
