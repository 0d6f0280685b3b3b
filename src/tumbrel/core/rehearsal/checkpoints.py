"""An edit of a late day is rehearsed from a checkpoint before it, with the same result (E15).

A checkpoint may be used when everything that the engine has looked at until then is the same in
the new document: what happened before, and what it looked ahead to.
"""

from __future__ import annotations

import copy
from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from itertools import zip_longest
from zoneinfo import ZoneInfo

from ..document import Assignment, Copy, ManualSwap, PlanDocument
from ..light import SunDays, sun_heights_of_day
from ..parameters import DEFAULTS, Defaults
from .asked import Asked, refuse_too_many
from .engine import Played, Rehearser, played_of
from .grid_watch import SOON_MS
from .rigs import Rig
from .timeline import Timeline, lay_out

MOST_KEPT = 40
OnItem = Assignment | ManualSwap | Copy


@dataclass(frozen=True)
class Checkpoint:
    """The trip as it stood at a time; everything before that has happened."""

    at_ms: int
    state: Rehearser


@dataclass(frozen=True)
class Earlier:
    """A rehearsal that was played before, with its checkpoints in order of time."""

    document: PlanDocument
    timeline: Timeline
    defaults: Defaults
    checkpoints: tuple[Checkpoint, ...] = field(default=())


def day_starts(document: PlanDocument, timeline: Timeline) -> list[int]:
    """Local midnights inside the trip, ms from its start."""
    zone = ZoneInfo(document.trip.time_zone)
    day = timeline.start_utc.astimezone(zone).date()
    starts: list[int] = []
    while True:
        day += timedelta(days=1)
        at = datetime.combine(day, datetime.min.time(), zone).astimezone(UTC)
        at_ms = round((at - timeline.start_utc) / timedelta(milliseconds=1))
        if at_ms >= timeline.duration_ms:
            return starts
        starts.append(at_ms)


def play_from(
    document: PlanDocument,
    earlier: Earlier | None = None,
    defaults: Defaults = DEFAULTS,
    sun_days: SunDays = sun_heights_of_day,
) -> tuple[Played, Earlier]:
    """Play a document through, from a checkpoint of an earlier rehearsal where that is the same.

    Raises BadDocument when its times make no trip or it asks for too many takes.
    """
    timeline = lay_out(document.trip, sun_days)
    refuse_too_many(document, timeline)
    kept: list[Checkpoint] = []
    rehearser = None
    if earlier is not None and earlier.defaults is defaults:
        until_ms = same_until(earlier, document, timeline)
        kept = [c for c in earlier.checkpoints if _looked_to(c, earlier.timeline) <= until_ms]
        if kept:
            known = _known_asked(kept[-1].state, earlier, document, timeline)
            rehearser = resumed(kept[-1], document, timeline, defaults, known)
    if rehearser is None:
        rehearser = Rehearser(document, timeline, defaults)
    for at_ms in day_starts(document, timeline)[-MOST_KEPT:]:
        if kept and at_ms <= kept[-1].at_ms:
            continue
        rehearser.play(at_ms)
        kept.append(Checkpoint(at_ms, rehearser.checkpoint()))
    rehearser.play()
    rehearser.close()
    return played_of(rehearser), Earlier(document, timeline, defaults, tuple(kept))


def _looked_to(checkpoint: Checkpoint, timeline: Timeline) -> int:
    """How far ahead of a checkpoint the engine may have looked until then."""
    ahead_ms = timeline.next_free_end_ms(checkpoint.at_ms)
    if checkpoint.state.grid.supplies:
        ahead_ms = max(ahead_ms, checkpoint.at_ms + SOON_MS)
    boots_ms = max((run.boot_ms for run in checkpoint.state.cameras), default=0)
    return ahead_ms + boots_ms + 1


def same_until(earlier: Earlier, document: PlanDocument, timeline: Timeline) -> int:
    """Until when two documents are the same to the engine, ms from the start; 0: not at all."""
    old, new = earlier.document, document
    if old.kit != new.kit or _apart_from_items(old) != _apart_from_items(new):
        return 0
    known = earlier.timeline
    differing = [
        min(one.start_ms, other.start_ms)
        for one, other in zip(known.laid, timeline.laid, strict=False)
        if one != other
    ]
    shorter = min(known.duration_ms, timeline.duration_ms)
    until_ms = min([*differing, shorter if known.laid != timeline.laid else 2**53])
    lists: tuple[tuple[Sequence[OnItem], Sequence[OnItem]], ...] = (
        (old.plan.assignments, new.plan.assignments),
        (old.plan.swaps, new.plan.swaps),
        (old.plan.copies, new.plan.copies),
    )
    for one, other in lists:
        for pair in zip_longest(one, other):
            if pair[0] != pair[1]:
                until_ms = min(until_ms, *_starts(pair, known, timeline))
    return until_ms


def _apart_from_items(document: PlanDocument) -> tuple[object, ...]:
    trip, plan = document.trip, document.plan
    return (
        (trip.start, trip.time_zone, trip.place),
        (plan.cameras, plan.swap_policy, plan.charging, plan.full_by, plan.links),
    )


def _starts(
    pair: tuple[OnItem | None, OnItem | None], known: Timeline, timeline: Timeline
) -> list[int]:
    """Where two parts that differ begin."""
    laid = (known.by_id, timeline.by_id)
    return [
        by_id[part.item].start_ms
        for part, by_id in zip(pair, laid, strict=True)
        if part is not None
    ]


# -- putting a checkpoint into a new document ---------------------------------------------------


def _known_asked(
    state: Rehearser, earlier: Earlier, document: PlanDocument, timeline: Timeline
) -> dict[str, list[Asked]]:
    """What is asked of the cameras whose assignments and times are the same as before."""
    if earlier.timeline.laid != timeline.laid:
        return {}
    old, new = _by_camera(earlier.document), _by_camera(document)
    same = {name for name in old if old[name] == new.get(name)}
    return {run.camera.id: run.asked_list for run in state.cameras if run.camera.id in same}


def _by_camera(document: PlanDocument) -> dict[str, list[tuple[int, Assignment]]]:
    found: dict[str, list[tuple[int, Assignment]]] = {c.id: [] for c in document.kit.cameras}
    for number, assignment in enumerate(document.plan.assignments):
        found[assignment.camera].append((number, assignment))
    return found


def resumed(
    checkpoint: Checkpoint,
    document: PlanDocument,
    timeline: Timeline,
    defaults: Defaults,
    known: dict[str, list[Asked]],
) -> Rehearser:
    """A rehearser of the new document that stands where the checkpoint stood."""
    fresh = Rehearser(document, timeline, defaults, known)
    state = copy.deepcopy(checkpoint.state, checkpoint.state.shared())
    at_ms = checkpoint.at_ms
    for run, new in zip(state.cameras, fresh.cameras, strict=True):
        run.adopt(new)
    for cell, new_cell in zip(state.cells, fresh.cells, strict=True):
        cell.home_climate, cell.bag_climate = new_cell.home_climate, new_cell.bag_climate
    for supply, new_supply in zip(state.grid.supplies, fresh.grid.supplies, strict=True):
        supply.table = new_supply.table
        if supply.bank is not None and new_supply.bank is not None:
            supply.bank.climate = new_supply.bank.climate
    state.document, state.timeline = document, timeline
    state.hands.read(document, timeline)
    state.decisions = [one for one in fresh.decisions if one >= at_ms]
    state.decisions.sort()
    state.leaves = fresh.leaves
    state.next_leave = bisect_left(fresh.leaves, at_ms)
    state.rigs = fresh.rigs
    state.next_rig = bisect_left([rig.start_ms for rig in fresh.rigs], at_ms)
    state.rigged = [
        rig for rig in fresh.rigs[: state.next_rig] if rig.end_ms >= at_ms and _is_on(state, rig)
    ]
    for run in state.cameras:
        run.plan_next()
    return state


def _is_on(state: Rehearser, rig: Rig) -> bool:
    """Whether a rig's camera was on its source at the checkpoint."""
    return any(old.camera == rig.camera for old in state.rigged)
