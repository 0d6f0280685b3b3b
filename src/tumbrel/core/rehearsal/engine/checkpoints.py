"""An edit of a late day is rehearsed from a checkpoint before it, with the same result (E15).

A checkpoint may be used when everything that the engine has looked at until then is the same in
the new document: what happened before, and what it looked ahead to.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from itertools import zip_longest
from zoneinfo import ZoneInfo

from ...charging import NEVER_MS
from ...document import Assignment, Copy, ManualPlug, ManualSwap, PlanDocument
from ...light import SunDays, sun_heights_of_day
from ...mistakes import mistakes_of
from ...parameters import DEFAULTS, Defaults
from ..hands.plugging import cameras_fed
from ..power.next_event import SOON_MS
from ..state.snapshot import Frozen
from ..trip.asked import Asked
from ..trip.timeline import FreeHands, Timeline, first_place, lay_out
from .engine import Rehearser
from .outside_power import Rig
from .played import Played, played_of, unplayed
from .too_many import refuse_too_many

MOST_KEPT = 40
OnItem = Assignment | ManualSwap | ManualPlug | Copy


@dataclass(frozen=True)
class Checkpoint:
    """The trip as it stood at a time; everything before that has happened.

    Until then the engine had looked no further than `asked_to_ms` at what is asked, and no further
    than `laid_to_ms` at legs, stops, sources, manual swaps and plugs.
    """

    at_ms: int
    state: Frozen[Rehearser]
    asked_to_ms: int
    laid_to_ms: int


@dataclass(frozen=True)
class Same:
    """Until when two documents are the same to the engine, ms from the start; 0: not at all."""

    asked_ms: int
    laid_ms: int

    def holds(self, checkpoint: Checkpoint) -> bool:
        """Whether a checkpoint of the one may be used for the other."""
        asked = checkpoint.asked_to_ms <= min(self.asked_ms, self.laid_ms)
        return asked and checkpoint.laid_to_ms <= self.laid_ms


@dataclass(frozen=True)
class Earlier:
    """A rehearsal that was played before: what it asked, and its checkpoints in order of time."""

    document: PlanDocument
    timeline: Timeline
    defaults: Defaults
    asked: Mapping[str, list[Asked]]
    checkpoints: tuple[Checkpoint, ...]


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
    breathe: Callable[[], None] | None = None,
) -> tuple[Played, Earlier]:
    """Play a document through, from a checkpoint of an earlier rehearsal where that is the same.

    `breathe` is called before every event and may wait, where something else goes first.
    Raises BadDocument when its times make no trip or it asks for too many takes.
    """
    timeline = lay_out(document.trip, sun_days)
    mistakes = mistakes_of(document.kit)
    if mistakes:
        played = unplayed(document, timeline, mistakes, defaults)
        return played, Earlier(played.document, timeline, defaults, {}, ())
    refuse_too_many(document, timeline)
    kept: list[Checkpoint] = []
    times_ms = day_starts(document, timeline)[-MOST_KEPT:]
    rehearser, same = None, None
    if earlier is not None and earlier.defaults is defaults:
        same = same_until(earlier, document, timeline)
        kept = [c for c in earlier.checkpoints if same.holds(c)][-MOST_KEPT:]
        if kept:
            known = _known_asked(earlier, document, timeline)
            rehearser = resumed(kept[-1], document, timeline, defaults, known)
            times_ms = []  # an edit is answered first; a later one makes its own checkpoint
    if rehearser is None:
        rehearser = Rehearser(document, timeline, defaults)
    if same is not None:
        times_ms += _before_an_edit(same, rehearser)
    for at_ms in sorted(times_ms):
        if kept and at_ms <= kept[-1].at_ms:
            continue
        rehearser.play(at_ms, breathe)
        kept.append(_checkpoint(rehearser, at_ms))
    rehearser.play(breathe=breathe)
    rehearser.close()
    asked = {run.camera.id: run.asked_list for run in rehearser.cameras}
    return played_of(rehearser), Earlier(document, timeline, defaults, asked, tuple(kept))


def _checkpoint(rehearser: Rehearser, at_ms: int) -> Checkpoint:
    asked_to_ms = rehearser.timeline.next_free_end_ms(at_ms) + _boots_ms(rehearser) + 1
    laid_to_ms = at_ms + SOON_MS if rehearser.grid.supplies else asked_to_ms
    return Checkpoint(at_ms, rehearser.put_away(), asked_to_ms, max(asked_to_ms, laid_to_ms))


def _boots_ms(rehearser: Rehearser) -> int:
    """The longest boot of any camera [ms]."""
    return max((run.boot_ms for run in rehearser.cameras), default=0)


def _before_an_edit(same: Same, rehearser: Rehearser) -> list[int]:
    """A checkpoint as late as the next edit of the same stretch can use it, if there is any."""
    free_hands = rehearser.timeline.free_hands
    until_ms = same.asked_ms - _boots_ms(rehearser) - 1
    place = bisect_right(free_hands, until_ms, key=_free_end) - 1
    if same.asked_ms >= NEVER_MS or same.asked_ms > same.laid_ms or place < 0:
        return []
    at_ms = free_hands[place].start_ms - 1
    return [at_ms] if at_ms > 0 else []


def _free_end(free: FreeHands) -> int:
    return free.end_ms


def same_until(earlier: Earlier, document: PlanDocument, timeline: Timeline) -> Same:
    """Until when two documents are the same to the engine."""
    old, new = earlier.document, document
    known = earlier.timeline
    if old.kit != new.kit or _all_along(old, known) != _all_along(new, timeline):
        return Same(0, 0)
    differing = [
        min(one.start_ms, other.start_ms)
        for one, other in zip(known.laid, timeline.laid, strict=False)
        if one != other
    ]
    shorter = min(known.duration_ms, timeline.duration_ms)
    laid_ms = min([*differing, shorter if known.laid != timeline.laid else NEVER_MS])
    laid_ms = min(
        laid_ms,
        _differ_from(old.plan.swaps, new.plan.swaps, known, timeline),
        _differ_from(old.plan.plugs, new.plan.plugs, known, timeline),
    )
    return Same(
        min(
            _differ_from(old.plan.assignments, new.plan.assignments, known, timeline),
            _differ_from(old.plan.copies, new.plan.copies, known, timeline),
        ),
        laid_ms,
    )


def _differ_from(
    old: Sequence[OnItem], new: Sequence[OnItem], known: Timeline, timeline: Timeline
) -> int:
    """When the first leg or stop begins of which something else is said."""
    if old is new:
        return NEVER_MS
    return min(
        (
            start_ms
            for pair in zip_longest(old, new)
            if pair[0] != pair[1]
            for start_ms in _starts(pair, known, timeline)
        ),
        default=NEVER_MS,
    )


def _all_along(document: PlanDocument, timeline: Timeline) -> tuple[object, ...]:
    """What matters from the start: the rest of trip and plan, first stretches, fed cameras."""
    trip, plan = document.trip, document.plan
    firsts: dict[str, tuple[int, Assignment]] = {}
    for assignment in plan.assignments:
        at_ms = timeline.by_id[assignment.item].start_ms
        if assignment.camera not in firsts or at_ms < firsts[assignment.camera][0]:
            firsts[assignment.camera] = (at_ms, assignment)
    return (
        (trip.start, trip.time_zone, trip.place, first_place(trip)),
        (plan.cameras, plan.swap_policy, plan.charging, plan.full_by, plan.links),
        {camera: (first.mode, first.set_up) for camera, (_, first) in firsts.items()},
        cameras_fed(document),
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
    earlier: Earlier, document: PlanDocument, timeline: Timeline
) -> dict[str, list[Asked]]:
    """What is asked of the cameras whose assignments and times are the same as before."""
    if earlier.timeline.laid != timeline.laid:
        return {}
    old, new = _by_camera(earlier.document), _by_camera(document)
    same = {name for name in old if old[name] == new.get(name)}
    return {name: asked for name, asked in earlier.asked.items() if name in same}


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
    state = checkpoint.state.thaw()
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
    state.decisions += state.hands.must_be_back(at_ms)
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
