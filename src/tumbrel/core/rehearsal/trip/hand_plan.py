"""What the plan says for the hands: swaps, plugs and copies by leg or stop, and when needed."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from ...document import Copy, ManualCardSwap, ManualSwap, PlanDocument
from ...local_time import ms_at
from .timeline import Timeline

Promise = tuple[str, str, int]  # camera, leg or stop, and when that begins [ms]


@dataclass(frozen=True, slots=True)
class PlugSaid:
    """A plug of the plan: to be, or not to be; where to (keys, number from 0 or -1); from when."""

    plug: bool
    to: str
    place: int
    at_ms: int


@dataclass(frozen=True, slots=True)
class HandPlan:
    """The plan's words for the hands, by what they are about.

    `swaps` by camera and leg or stop; `promised` by battery; cards likewise; `swaps_ms` and
    `card_swaps_ms` when those of each camera are due; `plugs` by leg or stop and unit;
    `full_by_ms` by unit; `fed` the cameras that each source feeds; `linked` the other cameras of a
    camera's link; `leaving` where something is left until the last chance.
    """

    early: bool
    charges: bool
    swaps: Mapping[tuple[str, str], ManualSwap]
    promised: Mapping[str, tuple[Promise, ...]]
    card_swaps: Mapping[tuple[str, str], ManualCardSwap]
    cards_promised: Mapping[str, tuple[Promise, ...]]
    swaps_ms: Mapping[str, tuple[int, ...]]
    card_swaps_ms: Mapping[str, tuple[int, ...]]
    plugs: Mapping[str, Mapping[str, PlugSaid]]
    copies: tuple[Copy, ...]
    full_by_ms: Mapping[str, int]
    fed: Mapping[str, frozenset[str]]
    linked: Mapping[str, tuple[str, ...]]
    said_at: frozenset[str]
    leaving: frozenset[str]


def hand_plan_of(document: PlanDocument, timeline: Timeline) -> HandPlan:
    """The plan's words for the hands, with their times."""
    plan = document.plan
    plugs: dict[str, dict[str, PlugSaid]] = {}
    for plug in plan.plugs:
        at_ms = 0
        if plug.at is not None:
            at_ms = ms_at(timeline.start_utc, document.trip.time_zone, plug.at)
        said = PlugSaid(plug.plug, plug.to or "", (plug.place or 0) - 1, at_ms)
        plugs.setdefault(plug.item, {})[plug.unit] = said
    return HandPlan(
        early=plan.swap_policy == "early",
        charges=plan.charging != "never",
        swaps={(swap.camera, swap.item): swap for swap in reversed(plan.swaps)},
        promised=_promised(((one.battery, one) for one in plan.swaps), timeline),
        card_swaps={(one.camera, one.item): one for one in reversed(plan.card_swaps)},
        cards_promised=_promised(((one.card, one) for one in plan.card_swaps), timeline),
        swaps_ms=_made_ms(plan.swaps, timeline),
        card_swaps_ms=_made_ms(plan.card_swaps, timeline),
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
        leaving=frozenset(
            {one.item for one in plan.swaps if one.when == "leaving"}
            | {one.item for one in plan.card_swaps if one.when == "leaving"}
        ),
    )


def _promised(
    named: Iterable[tuple[str | None, ManualSwap | ManualCardSwap]], timeline: Timeline
) -> dict[str, tuple[Promise, ...]]:
    """For each battery or card that is named, where and when it is to go in."""
    found: dict[str, tuple[Promise, ...]] = {}
    for unit, swap in named:
        if unit is not None:
            one = (swap.camera, swap.item, timeline.by_id[swap.item].start_ms)
            found[unit] = (*found.get(unit, ()), one)
    return found


def _made_ms(
    said: Iterable[ManualSwap | ManualCardSwap], timeline: Timeline
) -> dict[str, tuple[int, ...]]:
    """For each camera, when the plan puts something in: on arrival, or on leaving [ms]."""
    found: dict[str, tuple[int, ...]] = {}
    for swap in said:
        part = timeline.by_id[swap.item]
        named = swap.battery if isinstance(swap, ManualSwap) else swap.card
        if named is not None:
            at_ms = part.end_ms if swap.when == "leaving" else part.start_ms
            found[swap.camera] = (*found.get(swap.camera, ()), at_ms)
    return found


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
