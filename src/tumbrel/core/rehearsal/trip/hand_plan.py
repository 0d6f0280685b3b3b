"""What the plan says for the hands: swaps, plugs and copies by leg or stop, and when needed."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ...document import Copy, ManualSwap, PlanDocument
from ...local_time import ms_at
from .timeline import Timeline


@dataclass(frozen=True, slots=True)
class HandPlan:
    """The plan's words for the hands, by what they are about.

    `swaps` by camera and leg or stop; `promised` by battery: camera, leg or stop, and its start
    [ms]; `plugs` by leg or stop and unit: to plug, or not to; `full_by_ms` by unit; `fed` the
    cameras that each source feeds; `linked` the other cameras of a camera's link.
    """

    early: bool
    charges: bool
    swaps: Mapping[tuple[str, str], ManualSwap]
    promised: Mapping[str, tuple[tuple[str, str, int], ...]]
    plugs: Mapping[str, Mapping[str, bool]]
    copies: tuple[Copy, ...]
    full_by_ms: Mapping[str, int]
    fed: Mapping[str, frozenset[str]]
    linked: Mapping[str, tuple[str, ...]]
    said_at: frozenset[str]


def hand_plan_of(document: PlanDocument, timeline: Timeline) -> HandPlan:
    """The plan's words for the hands, with their times."""
    plan = document.plan
    promised: dict[str, tuple[tuple[str, str, int], ...]] = {}
    for swap in plan.swaps:
        if swap.battery is not None:
            one = (swap.camera, swap.item, timeline.by_id[swap.item].start_ms)
            promised[swap.battery] = (*promised.get(swap.battery, ()), one)
    plugs: dict[str, dict[str, bool]] = {}
    for plug in plan.plugs:
        plugs.setdefault(plug.item, {})[plug.unit] = plug.plug
    return HandPlan(
        early=plan.swap_policy == "early",
        charges=plan.charging != "never",
        swaps={(swap.camera, swap.item): swap for swap in reversed(plan.swaps)},
        promised=promised,
        plugs=plugs,
        copies=plan.copies,
        full_by_ms={
            wanted.unit: ms_at(timeline.start_utc, document.trip.time_zone, wanted.at)
            for wanted in plan.full_by
        },
        fed=cameras_fed(document),
        linked={
            name: tuple(other for other in link.cameras if other != name)
            for link in plan.links
            for name in link.cameras
        },
        said_at=frozenset(plan.said_at()),
    )


def cameras_fed(document: PlanDocument) -> dict[str, frozenset[str]]:
    """For each source, the cameras that the plan feeds from it in some set-up."""
    outside = {
        (camera.id, set_up.id)
        for camera in document.kit.cameras
        for set_up in camera.set_ups
        if set_up.power != "battery"
    }
    used = {a.camera for a in document.plan.assignments if (a.camera, a.set_up) in outside}
    fed: dict[str, frozenset[str]] = {}
    for chosen in document.plan.cameras:
        if chosen.source is not None and chosen.camera in used:
            fed[chosen.source] = fed.get(chosen.source, frozenset()) | {chosen.camera}
    return fed
