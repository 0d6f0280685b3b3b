"""An edit of a late day is rehearsed from a checkpoint before it, with the same result.

A checkpoint may be used when everything that the engine has looked at until then is the same in
the new document: what happened before, and what it looked ahead to.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from functools import partial
from itertools import zip_longest
from typing import Final
from zoneinfo import ZoneInfo

from ...charging import NEVER_MS
from ...document import (
    Assignment,
    Copy,
    GearUse,
    Kit,
    ManualCardSwap,
    ManualPlug,
    ManualSwap,
    Plan,
    PlanDocument,
    Trip,
)
from ...light import SunDays, sun_heights_of_day
from ...parameters import DEFAULTS, Defaults
from ..power.next_event import SOON_MS
from ..state.snapshot import Frozen
from ..trip.asked import Asked
from ..trip.prepare import prepare
from ..trip.scene import Scene
from ..trip.timeline import FreeHands, Timeline, first_place
from .engine import Rehearser
from .played import Played, play, played_of

MOST_KEPT: Final = 40
OnItem = Assignment | ManualSwap | ManualCardSwap | ManualPlug | Copy | GearUse


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

    @property
    def until_ms(self) -> int:
        """Until when they are the same in everything."""
        return min(self.asked_ms, self.laid_ms)

    def holds(self, checkpoint: Checkpoint) -> bool:
        """Whether a checkpoint of the one may be used for the other."""
        asked = checkpoint.asked_to_ms <= self.until_ms
        return asked and checkpoint.laid_to_ms <= self.laid_ms


@dataclass(frozen=True)
class Earlier:
    """A rehearsal that was played before: its scene, and its checkpoints in order of time.

    `differed_ms` is where its document began to differ from the one before it.
    """

    scene: Scene
    checkpoints: tuple[Checkpoint, ...]
    differed_ms: int = NEVER_MS


def day_starts(scene: Scene) -> list[int]:
    """Local midnights inside the trip, ms from its start."""
    zone, timeline = ZoneInfo(scene.written.trip.time_zone), scene.timeline
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
    taken = _take_up(document, earlier, defaults, sun_days)
    scene, rehearser, kept = taken.scene, taken.rehearser, taken.kept
    if scene.mistakes:
        return play(scene), Earlier(scene, ())
    # an edit is answered first, and what is dragged again and again; a later one makes its own
    times_ms = [] if kept or taken.again else day_starts(scene)[-MOST_KEPT:]
    if taken.same is not None:
        times_ms += _before_an_edit(taken.same, rehearser)
    for at_ms in sorted(times_ms):
        if kept and at_ms <= kept[-1].at_ms:
            continue
        rehearser.play(at_ms, breathe)
        kept.append(_checkpoint(rehearser, at_ms))
    rehearser.play(breathe=breathe)
    rehearser.close()
    differs_ms = NEVER_MS if taken.same is None else taken.same.until_ms
    return played_of(rehearser), Earlier(scene, tuple(kept), differs_ms)


def play_once(
    document: PlanDocument,
    earlier: Earlier | None = None,
    defaults: Defaults = DEFAULTS,
    sun_days: SunDays = sun_heights_of_day,
    breathe: Callable[[], None] | None = None,
) -> Played:
    """The same for what is tried and left: no checkpoints are made of it."""
    taken = _take_up(document, earlier, defaults, sun_days)
    if taken.scene.mistakes:
        return play(taken.scene)
    taken.rehearser.play(breathe=breathe)
    taken.rehearser.close()
    return played_of(taken.rehearser)


@dataclass(frozen=True)
class _Taken:
    """A scene with a rehearser that stands as far on as an earlier rehearsal holds."""

    scene: Scene
    rehearser: Rehearser
    kept: list[Checkpoint]
    same: Same | None
    again: bool = False  # it differs from where the one before it did


def _take_up(
    document: PlanDocument, earlier: Earlier | None, defaults: Defaults, sun_days: SunDays
) -> _Taken:
    if earlier is not None and earlier.scene.defaults is not defaults:
        earlier = None
    if earlier is None:
        scene = prepare(document, defaults, sun_days)
        return _Taken(scene, Rehearser(scene), [], None)
    scene = prepare(document, defaults, sun_days, partial(_known_asked, earlier.scene, document))
    if scene.mistakes:
        return _Taken(scene, Rehearser(scene), [], None)
    same = same_until(earlier.scene, scene)
    kept = [one for one in earlier.checkpoints if same.holds(one)][-MOST_KEPT:]
    rehearser = resumed(kept[-1], scene) if kept else Rehearser(scene)
    return _Taken(scene, rehearser, kept, same, again=same.until_ms == earlier.differed_ms)


def _checkpoint(rehearser: Rehearser, at_ms: int) -> Checkpoint:
    asked_to_ms = rehearser.timeline.next_free_end_ms(at_ms) + _boots_ms(rehearser) + 1
    laid_to_ms = max(asked_to_ms, at_ms + SOON_MS)  # sources, and what manual uses keep back
    return Checkpoint(at_ms, rehearser.put_away(), asked_to_ms, laid_to_ms)


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


def same_until(earlier: Scene, scene: Scene) -> Same:
    """Until when two scenes are the same to the engine."""
    old, new = earlier.written, scene.written
    known, timeline = earlier.timeline, scene.timeline
    if old.kit != new.kit or _all_along(earlier) != _all_along(scene):
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
        _differ_from(old.plan.card_swaps, new.plan.card_swaps, known, timeline),
    )
    return Same(
        min(
            _differ_from(old.plan.assignments, new.plan.assignments, known, timeline),
            _differ_from(old.plan.copies, new.plan.copies, known, timeline),
            _differ_from(old.plan.gear, new.plan.gear, known, timeline),
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


def _all_along(scene: Scene) -> tuple[object, ...]:
    """What matters from the start: the rest of trip and plan, first stretches, fed cameras."""
    trip, plan, timeline = scene.written.trip, scene.written.plan, scene.timeline
    firsts: dict[str, tuple[int, Assignment]] = {}
    for assignment in plan.assignments:
        at_ms = timeline.by_id[assignment.item].start_ms
        if assignment.camera not in firsts or at_ms < firsts[assignment.camera][0]:
            firsts[assignment.camera] = (at_ms, assignment)
    return (
        _where_and_when(trip),
        (plan.cameras, plan.swap_policy, plan.charging, plan.full_by, plan.links),
        {camera: (first.mode, first.set_up, first.mount) for camera, (_, first) in firsts.items()},
        scene.hands.fed,
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


# -- putting a checkpoint into a new scene ------------------------------------------------------


def _known_asked(
    earlier: Scene, document: PlanDocument, timeline: Timeline
) -> dict[str, list[Asked]]:
    """What is asked of the cameras whose assignments and times are the same as before.

    Nothing where the kit, links, times or places are not the same.
    """
    old, new = earlier.written, document
    if earlier.mistakes or old.kit != new.kit or old.plan.links != new.plan.links:
        return {}
    if old.plan.cameras != new.plan.cameras:
        return {}
    if _where_and_when(old.trip) != _where_and_when(new.trip):
        return {}
    if earlier.timeline.laid != timeline.laid:
        return {}
    before, now = _by_camera(old.kit, old.plan), _by_camera(new.kit, new.plan)
    same = {name for name in before if before[name] == now.get(name)}
    return {one.camera.id: one.asked for one in earlier.cameras if one.camera.id in same}


def _where_and_when(trip: Trip) -> tuple[object, ...]:
    return (trip.start, trip.time_zone, trip.place, first_place(trip))


def _by_camera(kit: Kit, plan: Plan) -> dict[str, list[tuple[int, Assignment]]]:
    found: dict[str, list[tuple[int, Assignment]]] = {c.id: [] for c in kit.cameras}
    for number, assignment in enumerate(plan.assignments):
        found[assignment.camera].append((number, assignment))
    return found


def resumed(checkpoint: Checkpoint, scene: Scene) -> Rehearser:
    """A rehearser of the new scene that stands where the checkpoint stood."""
    fresh = Rehearser(scene)
    state = checkpoint.state.thaw()
    at_ms = checkpoint.at_ms
    for run, new in zip(state.cameras, fresh.cameras, strict=True):
        run.trace.take_up()
        run.adopt(new)
    for cell, battery in zip(state.cells, scene.batteries, strict=True):
        cell.adopt(battery)
    for supply, source in zip(state.grid.supplies, scene.sources, strict=True):
        supply.adopt(source)
    for gear, one in zip(state.grid.gears, scene.gear, strict=True):
        gear.adopt(one)
    state.use_scene(scene)
    state.decisions = [one for one in fresh.decisions if one >= at_ms]
    state.decisions += [one for one in state.hands.must_be_back(at_ms) if one > at_ms]
    state.decisions.sort()
    state.leaves = fresh.leaves
    state.next_leave = bisect_left(fresh.leaves, at_ms)
    state.feeding.adopt(scene.outside, at_ms)
    for run in state.cameras:
        run.plan_next()
    return state
