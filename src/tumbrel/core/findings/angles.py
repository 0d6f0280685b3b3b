"""Mounts, angles and water against what is done on a leg (model/results#findings, job 3)."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Final

from ..document import Camera, Item, Verdict
from ..parameters.serving import FALLS_FROM, FALLS_ON_OTHERS, HELMET_RULES, LOST_BELOW
from ..serving import carried, stands_water, where_of
from .registry import Found, Seen, Values, check

LOSES: Final = 2  # angles from which a must is safe


@check("mount_against_activity", "warn", curable=True, harm=True)
def mount_against_activity(seen: Seen) -> Iterator[Found]:
    """A mount or angle that is unsafe or useless on a leg, and no reason is given."""
    yield from _joined(one for one in _spoken_against(seen) if one.verdict == "never")


@check("serves_poorly", "note", curable=True)
def serves_poorly(seen: Seen) -> Iterator[Found]:
    """A mount or angle that serves poorly on a leg, and no reason is given."""
    yield from _joined(one for one in _spoken_against(seen) if one.verdict == "poorly")


@check("chosen_all_the_same", "note")
def chosen_all_the_same(seen: Seen) -> Iterator[Found]:
    """The same, with the person's reason: their choice wins."""
    for one in _spoken_against(seen):
        if one.reason:
            about = {"camera": one.camera.name, "leg": one.item.name, "why": one.why}
            values: Values = {**about, "reason": one.reason.rstrip(".")}
            yield Found(f"plan.assignments[{one.number}]", values, one.camera.id, one.item.id)


@dataclass(frozen=True, slots=True)
class _Against:
    """What speaks against a camera on a leg, and what the person says to it."""

    number: int
    camera: Camera
    item: Item
    verdict: Verdict
    why: str
    reason: str


def _spoken_against(seen: Seen) -> Iterator[_Against]:
    for one in seen.placed:
        for verdict, why in one.against[:1]:
            reason = one.assignment.reason
            yield _Against(one.number, one.camera, one.item, verdict, why, reason)


def _joined(found: Iterable[_Against]) -> Iterator[Found]:
    """One finding for each camera and reason, however many legs it holds on."""
    groups: dict[tuple[str, str], list[_Against]] = {}
    for one in found:
        if not one.reason:
            groups.setdefault((one.camera.id, one.why), []).append(one)
    for (camera, why), legs in groups.items():
        first, more = legs[0], len(legs) - 1
        others = "" if more == 0 else f" and {more} more" + (" leg" if more == 1 else " legs")
        leg = f"{first.item.name}{others}"
        values: Values = {"camera": first.camera.name, "leg": leg, "why": why}
        yield Found(f"plan.assignments[{first.number}]", values, camera, first.item.id)


@check("water_against_set_up", "stop", curable=True)
def water_against_set_up(seen: Seen) -> Iterator[Found]:
    """A set-up, or the power module in it, that does not stand the leg's water."""
    for one in seen.placed:
        camera, item = one.camera, one.item
        set_up = camera.built(one.assignment.set_up)
        if set_up is None or stands_water(set_up, item):
            continue
        module = set_up.hot_swap or set_up.power != "battery"
        what = f"the power module of '{set_up.name}'" if module else f"'{set_up.name}'"
        values: Values = {"camera": camera.name, "what": what, "leg": item.name}
        yield Found(f"plan.assignments[{one.number}].set_up", values, camera.id, item.id)


@check("helmet_rules", "note")
def helmet_rules(seen: Seen) -> Iterator[Found]:
    """A camera on a helmet, where rules and approvals often speak against it; once a camera."""
    said: set[str] = set()
    for one in seen.placed:
        camera, item = one.camera, one.item
        if one.mount == "helmet" and where_of(item) in HELMET_RULES and camera.id not in said:
            said.add(camera.id)
            yield Found(_carried_path(seen, camera), {"camera": camera.name}, camera.id, item.id)


@check("tether_wanted", "warn", curable=True, harm=True)
def tether_wanted(seen: Seen) -> Iterator[Found]:
    """A camera that falls on others, or is lost, when its mount gives way; once a camera."""
    said: set[str] = set()
    for one in seen.placed:
        camera, item, mount = one.camera, one.item, one.mount
        where = where_of(item)
        over = where in FALLS_ON_OTHERS
        if mount not in FALLS_FROM or not (over or where in LOST_BELOW) or camera.id in said:
            continue
        known = camera.mounted(mount)
        tied = known is not None and known.tether != "none"
        if tied or carried(seen.record.written.plan, camera.id).tethered:
            continue
        said.add(camera.id)
        harm = "it falls on whoever is below" if where == "flight" else "it is lost or hits someone"
        values: Values = {"camera": camera.name, "leg": item.name, "harm": harm}
        yield Found(_carried_path(seen, camera), values, camera.id, item.id)


@check("mount_blocks_door", "note")
def mount_blocks_door(seen: Seen) -> Iterator[Found]:
    """Swaps of a camera whose mount blocks its door: what that costs in all."""
    for number, run in enumerate(seen.record.cameras):
        swaps = [d for d in seen.record.done if d.camera == number and d.kind == "swap"]
        asked = {s.id: s for s in run.camera.set_ups if s.door_blocked_s > 0.0}
        used = [a.set_up for _, a, c in seen.assignments() if c.id == run.camera.id]
        blocked = next((asked[name] for name in used if name in asked), None)
        if swaps and blocked is not None:
            values: Values = {
                "camera": run.camera.name,
                "set_up": blocked.name,
                "seconds": round(blocked.door_blocked_s),
                "swaps": "1 swap takes" if len(swaps) == 1 else f"{len(swaps)} swaps each take",
            }
            yield Found(f"kit.cameras[{number}].set_ups", values, run.camera.id)


@check("must_from_one_angle", "note")
def must_from_one_angle(seen: Seen) -> Iterator[Found]:
    """A moment that must be had, on a leg that fewer than two angles film.

    Two cameras in two places see two things, whatever their angles are called; where one sits on
    nothing that is named, it has a place of its own.
    """
    angles: dict[str, set[tuple[str, str]]] = {}
    for one in seen.placed:
        where = one.camera.id if one.mount == "other" else one.mount
        angles.setdefault(one.item.id, set()).add((one.angle, where))
    for number, item in enumerate(seen.record.written.trip.items):
        musts = [one.name for one in item.moments if one.importance == "must"]
        count = len(angles.get(item.id, set()))
        if musts and count < LOSES:
            values: Values = {
                "moment": musts[0],
                "leg": item.name,
                "angles": "no angle" if count == 0 else "one angle only",
            }
            yield Found(f"trip.items[{number}].moments", values, None, item.id)


def _carried_path(seen: Seen, camera: Camera) -> str:
    cameras = [one.camera for one in seen.record.written.plan.cameras]
    return f"plan.cameras[{cameras.index(camera.id)}]" if camera.id in cameras else "plan.cameras"
