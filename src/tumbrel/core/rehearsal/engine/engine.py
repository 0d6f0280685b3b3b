"""The main loop: the trip played through from event to event, in closed form between them.

Cameras meet their own events by themselves; the loop lets whoever is first go on. Cameras touch
each other only through the hands and through shared sources. So while no hand is free and a
camera hangs on no source, it runs ahead alone up to the next thing that hands may do.

Source: model/time#ties.
"""

from __future__ import annotations

import heapq
from collections.abc import Callable, Iterator
from typing import Final

from mypy_extensions import mypyc_attr

from ...charging import NEVER_MS
from ..camera.camera_run import CameraRun
from ..camera.events import happen
from ..camera.handled import fit_card, fit_cell
from ..camera.plain_takes import play_takes
from ..camera.turns import COPYING, OFF, Due, Priority, Turn
from ..hands.hands import Hands
from ..hands.tasks import Remount, changes_power
from ..power.consumer import Consumer
from ..power.grid import Grid
from ..power.stores import BankRun
from ..state.snapshot import Frozen
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..trip.scene import CameraAtStart, Scene
from .budget import Budget, TooMuch
from .feeding import Feeding

MOST_TURNS: Final = 20_000
NEVER_DUE: Final = (NEVER_MS, 0)


@mypyc_attr(serializable=True)
class Rehearser:
    """Plays one scene through once."""

    def __init__(self, scene: Scene) -> None:
        self.scene = scene
        self.timeline = scene.timeline
        self.defaults = scene.defaults
        self.cells = [Cell(carried) for carried in scene.batteries]
        self.cards = [CardRun(carried) for carried in scene.cards]
        self.cameras = [self._set_out(index, one) for index, one in enumerate(scene.cameras)]
        self.grid = Grid(scene)
        for one in scene.outside:
            self.grid.rides.setdefault(one.camera, one.source)
        self.start_wh = self.held_wh()
        self.start_bytes = sum(card.used for card in self.cards)
        self.hands = Hands(scene, self.cameras, self.cells, self.cards, self.grid)
        self.decisions = self.hands.decision_instants()
        heapq.heapify(self.decisions)
        self.leaves = [free.end_ms for free in scene.timeline.free_hands]
        self.next_leave = 0
        self.feeding = Feeding(scene.outside)
        self.minute, self.turns = -1, 0
        self.budget = Budget()
        if self.grid.gears or self.grid.banks:
            self.grid.settle()
        self.standing = self.grid.standing()
        for run in self.cameras:
            run.plan_next()

    def _set_out(self, index: int, carried: CameraAtStart) -> CameraRun:
        """A camera with what is in it when the trip begins."""
        run = CameraRun(index, carried, self.scene)
        cell = next((one for one in self.cells if one.id == carried.battery), None)
        if cell is not None:
            cell.cell_c = run.thermal.body_c
        fit_cell(run, cell)
        fit_card(run, next((one for one in self.cards if one.store.id == carried.store), None))
        run.beside = next((one for one in self.cards if one.store.id == carried.beside), None)
        if run.beside is not None:
            run.beside.move(run.camera.id, 0)
        return run

    def held_wh(self) -> float:
        """Energy in all batteries and banks [W h]."""
        cells = sum((cell.wh * cell.charge for cell in self.cells), 0.0)
        stores = sum((bank.wh * bank.charge for bank in self.grid.banks), 0.0)
        stores += sum((gear.wh * gear.charge for gear in self.grid.gears), 0.0)
        return cells + stores

    # -- playing --------------------------------------------------------------------

    def play(self, until_ms: int | None = None, breathe: Callable[[], None] | None = None) -> None:
        """Run every event up to a time, or the trip's end; `breathe` is called before each."""
        end_ms = self.timeline.duration_ms if until_ms is None else until_ms
        while True:
            if breathe is not None:
                breathe()
            at_ms, _, turn, index = self._first()
            self._guard(at_ms)
            if at_ms > end_ms or (until_ms is not None and at_ms >= until_ms):
                return
            if turn == Turn.CAMERA:
                self._camera(self.cameras[index], at_ms, end_ms, breathe)
            elif turn == Turn.DECIDE:
                self._decide(at_ms)
            elif turn == Turn.TASK:
                self._finish(at_ms)
            elif turn == Turn.GRID:
                self._grid(at_ms)
            elif turn == Turn.FEED:
                self._feed(at_ms)
            else:
                self._leave(at_ms)

    def _guard(self, at_ms: int) -> None:
        """Raise TooMuch when events crowd so that the trip would never end, or cost too much."""
        minute = at_ms // 60_000
        if minute != self.minute:
            self.minute, self.turns = minute, 0
        self.turns += 1
        if self.turns > MOST_TURNS:
            raise TooMuch(f"takes over {MOST_TURNS:,} events in one minute", at_ms)
        self._spend(at_ms)

    def _spend(self, at_ms: int) -> None:
        """Count an event. Raises TooMuch."""
        if self.budget.spend(at_ms):
            rows = sum(len(run.trace.t_ms) for run in self.cameras)
            self.budget.hold(rows, sum(len(run.recorder.kept) for run in self.cameras), at_ms)

    def _first(self) -> tuple[int, int, int, int]:
        """What is first: time, priority, kind, and the camera's number."""
        soonest, index = NEVER_DUE, 0
        for run in self.cameras:
            if run.due < soonest:
                soonest, index = run.due, run.index
        first = (*soonest, Turn.CAMERA, index)
        if self.decisions:
            first = min(first, (self.decisions[0], Priority.HANDS, Turn.DECIDE, 0))
        if self.hands.task is not None:
            first = min(first, (self.hands.busy_until_ms, Priority.ENDS, Turn.TASK, 0))
        if self.grid.due_ms <= first[0]:
            first = min(first, (self.grid.due_ms, Priority.CONDITIONS, Turn.GRID, 0))
        if self.next_leave < len(self.leaves):
            first = min(first, (self.leaves[self.next_leave], Priority.ENDS, Turn.LEAVE, 0))
        if self.feeding.stretches:
            first = min(first, (self.feeding.due_ms(), Priority.CONDITIONS, Turn.FEED, 0))
        if self.hands.copying.jobs and self.hands.task is None:
            copied_ms = max(self.hands.copying.due_ms(), self.grid.now_ms)
            first = min(first, (copied_ms, Priority.HANDS, Turn.DECIDE, 1))
        return first

    def _camera(
        self, run: CameraRun, at_ms: int, end_ms: int, breathe: Callable[[], None] | None
    ) -> None:
        """Let a camera go on; alone up to the next thing that hands may do, where it can."""
        limit_ms = min(self._limit_ms(index_of=run.index), end_ms)
        if run.hung_on is None:
            play_takes(run, limit_ms)
            if run.due[0] > at_ms:
                return
        copying = run.state == COPYING
        if run.due_kind in (Due.ASK, Due.PREPARE):
            self._before_start(run, at_ms)
        decides = happen(run)
        hung = run.hung_on is not None
        if hung:
            self._regrant(at_ms)
        if run.hung_on is None:
            run.plan_next()
        if copying and run.state != COPYING:
            self.hands.copying.interrupt(run, at_ms)
        if decides and self.timeline.hands_free_at(at_ms):
            heapq.heappush(self.decisions, at_ms)
            return
        if hung or self.hands.task is not None or self.timeline.hands_free_at(at_ms):
            return
        while run.due[0] < limit_ms:
            before_ms = run.due[0]
            if breathe is not None:
                breathe()
            self._spend(before_ms)
            play_takes(run, limit_ms)
            if run.due[0] == before_ms:
                happen(run)
                run.plan_next()

    def _limit_ms(self, index_of: int) -> int:
        """Until when a camera without a source surely meets neither hands nor others."""
        limit_ms = self.decisions[0] if self.decisions else NEVER_MS
        if self.next_leave < len(self.leaves):
            limit_ms = min(limit_ms, self.leaves[self.next_leave])
        limit_ms = min(limit_ms, self.feeding.due_ms(), self.hands.copying.due_ms())
        if self.hands.task is not None:
            limit_ms = min(limit_ms, self.hands.busy_until_ms)
        here_ms = self.cameras[index_of].due[0]
        if limit_ms > here_ms and self.timeline.hands_free_at(here_ms):
            others = (run.due[0] for run in self.cameras if run.index != index_of)
            limit_ms = min(limit_ms, self.grid.due_ms, *others)
        return limit_ms

    def _before_start(self, run: CameraRun, at_ms: int) -> None:
        """What the free hand that starts a camera does first.

        A camera that only charges is taken off its cable to film; banks behind it that have
        switched themselves off are switched on (model/charging#bank).
        """
        if run.hung_on is None or not run.schedule.spans[run.schedule.next].by_hand:
            return
        self.grid.advance(at_ms)
        if not self.feeding.holds(run, self.cameras):
            self.grid.detach(run)
        elif self.grid.wake_behind(run):
            self.grid.settle()

    def _regrant(self, at_ms: int) -> None:
        """Make grants anew, and plan what hangs on a source."""
        self.grid.advance(at_ms)
        before = [run for run in self.cameras if run.hung_on is not None]
        self.grid.settle()
        for run in before:
            if run.hung_on is None:
                run.plan_next()

    def _grid(self, at_ms: int) -> None:
        if self.grid.only_banks_fed(at_ms):
            return
        before = self.standing
        self._regrant(at_ms)
        self.standing = self.grid.standing()
        low = self.grid.newly_low()
        if (self.standing != before or low) and self.timeline.hands_free_at(at_ms):
            heapq.heappush(self.decisions, at_ms)

    def _decide(self, at_ms: int) -> None:
        while self.decisions and self.decisions[0] <= at_ms:
            heapq.heappop(self.decisions)
        self.grid.advance(at_ms)
        free = self.timeline.free_interval(at_ms)
        if free is not None and free.start_ms == at_ms:  # as one who begins here would find it
            for instant in self.hands.must_be_back(at_ms):
                if instant > at_ms:
                    heapq.heappush(self.decisions, instant)
        task = self.hands.choose(at_ms)
        looks = self.hands.looks
        while looks:
            heapq.heappush(self.decisions, looks.pop())
        if task is None:
            self._end_copies_unseen(at_ms)
            return
        self.hands.begin(task, at_ms)
        run = task.handled
        if run is not None:
            run.advance(at_ms)
            run.plan_next()
            if run.hung_on is not None:
                self._regrant(at_ms)

    def _end_copies_unseen(self, at_ms: int) -> None:
        """A copy that is through when no hand is free waits for one: look again then."""
        copying = self.hands.copying
        if copying.due_ms() > at_ms or self.hands.task is not None:
            return
        next_ms = self.timeline.next_free_ms(at_ms)
        for job in copying.jobs:
            if job.ends_ms <= at_ms:
                job.ends_ms = max(at_ms + 1, next_ms)

    def _finish(self, at_ms: int) -> None:
        self.grid.advance(at_ms)
        task = self.hands.task
        assert task is not None
        if task.handled is not None:
            task.handled.advance(at_ms)
        of_power = changes_power(task)
        touched = self.hands.finish(at_ms)
        for run in touched:
            run.plan_next()
        if of_power or any(run.hung_on is not None for run in touched):
            self._regrant(at_ms)
            self.standing = self.grid.standing()  # hands look at once, as they do now
        if isinstance(task, Remount) and self.feeding.held:
            self._feed(at_ms)  # it may be built now for the source that it waits for
        for instant in (at_ms, *self.hands.to_come):
            heapq.heappush(self.decisions, instant)
        self.hands.to_come.clear()

    # -- leaving a stop, and set-ups on outside power -------------------------------

    def _leave(self, at_ms: int) -> None:
        """Hands stop being free: plugs come out of sockets, cameras off their chargers.

        Not where the person only falls asleep: what charges then stays plugged
        (model/hands#overnight).
        """
        self.next_leave += 1
        for run in self.cameras:
            self._notice(run, at_ms)
        if self.grid.idle or self.timeline.sleeps_from(at_ms):
            return
        self.grid.advance(at_ms)
        off: list[Consumer] = []
        for supply in self.grid.supplies:
            for consumer in supply.ports:
                if consumer is None:
                    continue
                loose = consumer.runs and not self.feeding.holds(consumer, self.cameras)
                if isinstance(consumer, BankRun) and consumer.module:
                    loose = not consumer.stays_hung
                if loose or supply.source.kind == "mains":
                    off.append(consumer)
        for consumer in off:
            self.grid.detach(consumer)
        self._regrant(at_ms)
        for consumer in off:
            consumer.plan_next()

    @staticmethod
    def _notice(run: CameraRun, at_ms: int) -> None:
        """A free hand has seen that it went off, and could press again.

        Source: model/hands#who-presses.
        """
        if run.spent and run.schedule.wanted is None:
            run.advance(at_ms)
            run.spent = run.hot or (run.dead and not run.thawed())

    def _feed(self, at_ms: int) -> None:
        """Put cameras on their source, or take them off it, as their set-ups want."""
        self.grid.advance(at_ms)
        touched = self.feeding.happen(at_ms, self.cameras, self.grid)
        self._regrant(at_ms)
        for run in touched:
            run.plan_next()

    # -- the end, and checkpoints ---------------------------------------------------

    def close(self) -> None:
        """Bring everything to the trip's end."""
        end_ms = self.timeline.duration_ms
        self.grid.advance(end_ms)
        for run in self.cameras:
            run.advance(end_ms)
            run.halt(OFF)
            run.close_spans()
        for job in list(self.hands.copying.jobs):
            self.hands.copying.end(job.number, end_ms)
        share = self.defaults.self_discharge_per_month.value
        for cell in self.cells:
            cell.rest_until(end_ms, share)
            cell.close(end_ms)
        for card in self.cards:
            card.close(end_ms)
        for bank in self.grid.banks:
            bank.note(end_ms, 1)
        for gear in self.grid.gears:
            gear.account()
            gear.note(end_ms, 1)

    def use_scene(self, scene: Scene) -> None:
        """Go on in a scene that was the same until now."""
        self.scene, self.timeline = scene, scene.timeline
        self.hands.use_scene(scene)

    def put_away(self) -> Frozen[Rehearser]:
        """The trip as it stands, to be taken up again."""
        for run in self.cameras:
            run.trace.put_away()
        return Frozen(self, self._fixed())

    def _fixed(self) -> Iterator[object]:
        """What never changes, or is made anew for another scene."""
        timeline, scene = self.timeline, self.scene
        yield from (scene, scene.hands, timeline, timeline.conditions, self.defaults)
        yield from (self.leaves, self.feeding.stretches)
        for run in self.cameras:
            schedule = run.schedule
            yield from (schedule.spans, schedule.starts_ms, schedule.sums)
