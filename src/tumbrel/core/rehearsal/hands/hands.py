"""One pair of hands: what is due at a stop, in which order, and what cannot be done.

Source: model/hands#tasks.
"""

from __future__ import annotations

from typing import Final

from mypy_extensions import mypyc_attr

from ...document import Leg, ManualSwap
from ..camera.camera_run import CameraRun
from ..camera.causes import Cause
from ..camera.handled import (
    begin_handling,
    end_handling,
    fit_card,
    fit_cell,
    lets_go,
    may_copy,
)
from ..camera.turns import FILMING, OFF, STANDBY
from ..power.consumer import Consumer
from ..power.grid import Grid
from ..power.loads import Supply
from ..state.append_log import Log
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..trip.scene import Scene
from ..trip.timeline import Laid
from .copying import Copying
from .handling import Handling
from .lookahead import Need, need_of
from .modules import Modules
from .moving import looks_ms, move_due, moved
from .plugging import Plugging
from .reach import Reachable
from .swapping import Swapping
from .tasks import (
    AnyTask,
    BeginCopy,
    EndCopy,
    LayInCharger,
    OnCamera,
    PlugIn,
    Remount,
    Restart,
    Skipped,
    SwapBattery,
    SwapCard,
    SwapModule,
    Task,
    TaskDone,
    WakeBank,
    holder_of,
)

WAIT_FOR_A_HAND: Final = frozenset({Cause.NO_HAND, Cause.NO_START, Cause.CLIP_LIMIT})


@mypyc_attr(serializable=True)
class Hands:
    """The person's hands through the trip."""

    def __init__(
        self,
        scene: Scene,
        cameras: list[CameraRun],
        cells: list[Cell],
        cards: list[CardRun],
        grid: Grid,
    ) -> None:
        self.cameras = cameras
        self._by_key = {run.id: run for run in cameras}
        self.cells = cells
        self.cards = cards
        self.grid = grid
        self.defaults = scene.defaults
        self.copying = Copying(scene, cameras, cards)
        self.handling = Handling(scene, cameras)
        self.looks: set[int] = set()
        self.swapping = Swapping(scene, cells, cards, self.handling, self.looks)
        self.plugging = Plugging(
            scene, cameras, cells, grid, self.copying, self.handling, self.looks
        )
        self.modules = Modules(grid, self.swapping)
        self.timeline, self.plan = scene.timeline, scene.hands
        self._enough: dict[int, tuple[int, int, str, str, float]] = {}
        self.busy_until_ms = 0
        self.to_come: list[int] = []
        self.task: AnyTask | None = None
        self.done: Log[TaskDone] = Log()
        self.skipped: Log[Skipped] = Log()

    def use_scene(self, scene: Scene) -> None:
        """Go by a scene that was the same until now."""
        self.timeline = scene.timeline
        self.plan = scene.hands
        self.handling.use_scene(scene)
        self.swapping.use_scene(scene)
        self.plugging.use_scene(scene)
        self.copying.use_scene(scene)

    # -- when -----------------------------------------------------------------------

    def decision_instants(self) -> list[int]:
        """Starts of free hands, of legs and stops in them, last chances, what the plan wants.

        And where a source begins to give, as a socket does at a stop reached with free hands.

        Source: model/hands#instants.
        """
        free = self.timeline.free_hands
        instants = {one.start_ms for one in free}
        instants |= {self.handling.last_chance_ms(one) for one in free}
        begins = (at_ms for supply in self.grid.supplies for at_ms in supply.table.begins())
        instants |= {at_ms for at_ms in begins if self.timeline.hands_free_at(at_ms)}
        said_at = self.plan.said_at
        laid, free_at = self.timeline.laid, self.timeline.hands_free_at
        instants |= {one.start_ms for one in laid if one.id in said_at or free_at(one.start_ms)}
        changed = zip(self.cameras, self.handling.changes, strict=True)
        looks = (at_ms for run, pairs in changed for at_ms in looks_ms(run.camera, pairs))
        instants |= {at_ms for at_ms in looks if self.timeline.hands_free_at(at_ms)}
        times = (one.at_ms for said in self.plan.plugs.values() for one in said.values())
        instants |= {at_ms for at_ms in times if self.timeline.hands_free_at(at_ms)}
        for item in self.plan.leaving:
            instants.add(self.handling.leaving_ms(self.timeline.by_id[item]))
        return sorted(instants)

    def must_be_back(self, at_ms: int) -> list[int]:
        """When batteries that are out to charge must be back in their cameras.

        Source: model/hands#overnight.
        """
        timeline = self.timeline
        interval = timeline.free_interval(at_ms)
        if interval is None:
            interval = timeline.free_interval(timeline.next_free_ms(at_ms))
        if interval is None:
            return []
        out = [run for run in self.cameras if run.cell is None and run.camera.battery_comes_out]
        return [max(at_ms, self.plugging.back_by_ms(run, interval)) for run in out]

    # -- what -----------------------------------------------------------------------

    def choose(self, now_ms: int) -> AnyTask | None:
        """The task to begin now, if hands are free and one is due and fits."""
        interval = self.timeline.free_interval(now_ms)
        if interval is None or self.task is not None:
            return None
        if now_ms == interval.start_ms or now_ms >= self.handling.last_chance_ms(interval):
            self.swapping.settling = True
        elif now_ms != self.busy_until_ms:
            self.swapping.settling = False
        horizon_ms = self.timeline.next_free_ms(now_ms)
        here = self.timeline.laid_at(now_ms)
        due: list[AnyTask] = []
        for run in self.cameras:
            said = self.swapping.card_said(run, here, now_ms)
            task: AnyTask | None = said or self._due(run, here, now_ms, horizon_ms)
            if task is not None:
                due.append(task)
            moves = self.handling.changes[run.index]
            move = move_due(run, now_ms, interval, self.timeline) if moves else None
            if move is not None:
                due.append(move)
        plug = self.plugging.due(now_ms, interval)
        copy = self.copying.due(here, now_ms, interval)
        due += [one for one in (plug, copy) if one is not None]
        for one in sorted(due, key=Task.rank):
            if self._leaves_no_angle(one, here):
                continue
            if now_ms + one.takes_ms <= interval.end_ms:
                return one
            self._skip(one, now_ms)
        return None

    def _leaves_no_angle(self, task: Task, here: Laid) -> bool:
        """Whether an optional swap would leave a leg that wants one angle with none.

        Source: model/hands#one-angle.
        """
        item = here.item
        if not isinstance(item, Leg) or not item.one_angle_always:
            return False
        if not isinstance(task, SwapBattery | SwapCard) or task.run.state not in FILMING:
            return False
        return not any(
            other.state in FILMING and other.schedule.current is not None
            for other in self.cameras
            if other is not task.run
        )

    def _skip(self, task: Task, now_ms: int) -> None:
        free = self.timeline.free_interval
        last = [s for s in self.skipped if (s.camera, s.kind) == (task.camera, task.kind)]
        if not last or free(last[-1].at_ms) != free(now_ms):
            self.skipped.append(Skipped(now_ms, task.camera, task.kind, task.takes_ms))

    def _due(
        self, run: CameraRun, here: Laid, now_ms: int, horizon_ms: int
    ) -> SwapBattery | SwapCard | SwapModule | Restart | None:
        said = self.plan.swaps.get((run.camera.id, here.id))
        schedule = run.schedule
        asked_ms = horizon_ms if run.cell else self.timeline.next_free_end_ms(now_ms)
        if Cause.COPYING in run.holds:
            return None
        if said is None and schedule.wanted is None:
            back = self._back_in(run, now_ms) if run.cell is None else None
            if back is not None or not schedule.is_asked_before(asked_ms):
                return back or self._for_copy(run, here, now_ms)
        as_before = self._as_before(run, asked_ms)
        rides = run.index in self.grid.rides
        if said is None and not rides and self._enough.get(run.index) == as_before:
            return None  # off since it was last looked at, with enough in it
        if run.cell is None and said is None and self._may_wait(run, now_ms):
            return None
        run.advance(now_ms)
        if run.cell is None:  # taken out to charge: it must be back before the next stop begins
            horizon_ms = self.timeline.next_free_end_ms(now_ms)
        manual = None if said is None else self._manual(said, run, here, now_ms)
        if manual is not None:
            return manual
        need = need_of(run, now_ms, horizon_ms)
        module: SwapModule | None = None
        if rides:
            takes_ms = self.handling.swap_ms(run, now_ms)
            module, need = self.modules.look(run, here, need, takes_ms, now_ms)
        wanted = need.wh * self.defaults.swap_margin.value
        reach = Reachable(run, now_ms, horizon_ms)
        held_wh = reach.gives_wh(run.cell, wanted) if run.cell and reach.starts() else None
        swap = None if said else self.swapping.battery_due(run, need, held_wh, reach)
        card_here = (run.camera.id, here.id) in self.plan.card_swaps  # the plan's word is all
        if card_here:
            change = None
        else:
            held = reach.gives_wh(run.cell, need.wh) if held_wh is None and run.cell else held_wh
            change = self.swapping.card_due(run, need, held or 0.0, reach)
        task = module or swap or change or self._restart_due(run, need)
        idle = run.state == OFF and schedule.wanted is None
        rests = idle and not run.dead and run.energy.off_w == 0.0
        if task is None and rests and run.cell and (held_wh or 0.0) >= wanted:
            self._enough[run.index] = as_before
        return task or self._for_copy(run, here, now_ms)

    def _back_in(self, run: CameraRun, now_ms: int) -> SwapBattery | None:
        """Its own battery, which was taken out to charge, of a camera that is asked later."""
        return None if run.schedule.following() is None else self.swapping.back_in(run, now_ms)

    def _for_copy(self, run: CameraRun, here: Laid, now_ms: int) -> SwapBattery | None:
        """A battery for a copy that the plan wants here, where the camera has no power for it."""
        if not self.copying.wanted or run.state != OFF:
            return None
        if run.schedule.wanted is not None or may_copy(run):
            return None
        copied_wh = self.copying.needs_wh(run, here, now_ms)
        return self.swapping.for_copy(run, copied_wh, now_ms) if copied_wh > 0.0 else None

    @staticmethod
    def _as_before(run: CameraRun, asked_ms: int) -> tuple[int, int, str, str, float]:
        """What a camera that rests must still have in it, and ahead of it, to need no look."""
        cell, card = run.unit, run.card.store.id if run.card else ""
        return (asked_ms, run.schedule.next, cell, card, run.energy.used_wh)

    def _manual(
        self, said: ManualSwap, run: CameraRun, here: Laid, now_ms: int
    ) -> SwapBattery | None:
        """The plan's own word for this stop: a swap to do; None to leave in what is in."""
        if (said.camera, said.item) in self.swapping.made or not run.camera.battery_comes_out:
            return None
        if said.when == "leaving" and now_ms < self.handling.leaving_ms(here):
            return None  # left in until then
        cell = next((c for c in self.cells if c.id == said.battery), None)
        if cell is None or cell.family != run.camera.battery_family:
            return None
        holder = holder_of(self.cameras, cell)
        takes_ms = self.handling.swap_ms(run, now_ms)
        if holder is not None:
            if holder is run or not lets_go(holder):
                return None
            takes_ms += self.handling.swap_ms(holder, now_ms)
        return SwapBattery(0, 0, run.index, takes_ms, run, cell, said_at=here.id)

    def _may_wait(self, run: CameraRun, now_ms: int) -> bool:
        """Whether a camera whose battery was taken out to charge can do without it for now."""
        interval = self.timeline.free_interval(now_ms)
        return interval is not None and now_ms < self.plugging.back_by_ms(run, interval)

    def _restart_due(self, run: CameraRun, need: Need) -> Restart | None:
        """Start again what a hand can start: after heat, a clip limit, or a cell that warmed."""
        holds, wanted = run.holds, run.schedule.wanted
        warmed = run.dead and run.thawed()
        waits = warmed or not WAIT_FOR_A_HAND.isdisjoint(holds)
        barred = Cause.HOT in holds or run.cell is None or (run.dead and not warmed)
        empty = run.cell is not None and run.cell.charge <= run.line()
        stuck = run.card is None or run.card.free <= 0
        if not waits or barred or empty or stuck or wanted is None or run.state > STANDBY:
            return None
        takes_ms = self.handling.restart_ms
        return Restart(wanted.importance, need.lasts_ms, run.index, takes_ms, run)

    # -- doing ----------------------------------------------------------------------

    def begin(self, task: AnyTask, now_ms: int) -> None:
        """Start a task; the camera is in the hands from now on."""
        self.task = task
        self.busy_until_ms = now_ms + task.takes_ms
        if isinstance(task, SwapBattery):
            if task.said_at:
                self.swapping.made.add((task.run.camera.id, task.said_at))
            begin_handling(task.run, Cause.SWAP)
        elif isinstance(task, SwapModule):
            begin_handling(task.run, Cause.SWAP)
        elif isinstance(task, SwapCard):
            if task.said_at:
                self.swapping.cards_made.add((task.run.camera.id, task.said_at))
            begin_handling(task.run, Cause.CARD_SWAP)
        elif isinstance(task, Remount):
            task.run.advance(now_ms)
            begin_handling(task.run, Cause.MOVE)

    def finish(self, now_ms: int) -> list[CameraRun]:
        """End the task; gives back the cameras that it touched."""
        task = self.task
        assert task is not None
        self.task = None
        touched = [] if task.handled is None else [task.handled]
        out_name, in_name = self._do(task, now_ms)
        if isinstance(task, OnCamera):
            touched += self._linked_starts(task.run)
        start_ms = now_ms - task.takes_ms
        cable = not (isinstance(task, EndCopy) and self.copying.by_radio(task.number))
        camera, kind, unit = task.camera, task.kind, task.unit
        done = TaskDone(start_ms, now_ms, camera, kind, out_name, in_name, unit, cable)
        self.done.append(done)
        return touched

    def _do(self, task: AnyTask, now_ms: int) -> tuple[str, str]:  # noqa: PLR0911 - one a kind
        """What the task does; the names of what comes out and what goes in."""
        if isinstance(task, Restart):
            task.run.close_spans()
            end_handling(task.run, Cause.SWAP)
            return "", ""
        if isinstance(task, SwapBattery):
            return self._swapped(task, now_ms)
        if isinstance(task, SwapCard):
            task.run.close_spans()
            out_name = task.run.card.store.name if task.run.card else ""
            fit_card(task.run, task.card)
            end_handling(task.run, Cause.CARD_SWAP)
            return out_name, task.card.store.name
        if isinstance(task, Remount):
            return moved(task)
        if isinstance(task, SwapModule):
            return self.modules.put_on(task)
        if isinstance(task, PlugIn):
            stays, port = task.stays, task.port
            return task.consumer.name, self._hang(task.consumer, task.supply, port, stays=stays)
        if isinstance(task, LayInCharger):
            return self._laid_in(task, now_ms)
        if isinstance(task, WakeBank):
            assert task.supply.bank is not None
            task.supply.bank.switched_off = False
            task.supply.bank.woken_ms = now_ms
            return "", task.supply.source.name
        if isinstance(task, BeginCopy):
            return self._copying_begun(task, now_ms)
        job = self.copying.end(task.number, now_ms)
        return job.card.store.name if job.copy.drive else "", job.drive.name

    def _swapped(self, task: SwapBattery, now_ms: int) -> tuple[str, str]:
        run, cell = task.run, task.cell
        cell.rest_until(now_ms, self.defaults.self_discharge_per_month.value)
        run.close_spans()
        out_name = run.cell.name if run.cell else ""
        charger = self.grid.charger_of(cell)
        if charger is not None:
            charger.take_out(cell)
        holder = holder_of(self.cameras, cell)
        if holder is not None:
            holder.advance(run.now_ms)
            fit_cell(holder, None)
        old = fit_cell(run, cell)
        if old is not None and not task.said_at:
            old.leave(run.id, now_ms)
        end_handling(run, Cause.SWAP)
        return out_name, cell.name

    def _linked_starts(self, run: CameraRun) -> list[CameraRun]:
        """One action starts all cameras that are linked (model/hands#links)."""
        started = []
        for key in self.plan.linked.get(run.id, ()):
            other = self._by_key[key]
            waits = not {Cause.NO_HAND, Cause.NO_START}.isdisjoint(other.holds)
            if waits and Cause.HOT not in other.holds:
                other.advance(run.now_ms)
                end_handling(other, Cause.NO_HAND)
                started.append(other)
        return started

    def _hang(
        self, consumer: Consumer, supply: Supply | None, port: int = -1, *, stays: bool = False
    ) -> str:
        """Put something onto a port, where one is free; the name of the source it hangs on."""
        if supply is not None and supply.free_port() is not None:
            self.grid.attach(consumer, supply, port)
            consumer.stays_hung = stays
        hung = self.grid.supply_of(consumer)
        return hung.source.name if hung is not None else ""

    def _laid_in(self, task: LayInCharger, now_ms: int) -> tuple[str, str]:
        """A battery into a bay; what lies there goes back to its pocket."""
        cell, charger, run = task.cell, task.charger, task.run
        cell.rest_until(now_ms, self.defaults.self_discharge_per_month.value)
        self._hang(charger, task.supply)
        old = charger.bays[task.bay].cell
        if old is not None:
            old.move(old.home, now_ms)
        if run is not None and run.cell is cell:
            fit_cell(run, None)
            cell.leave(run.id, now_ms)
            interval = self.timeline.free_interval(now_ms - 1)
            if interval is not None:  # it is looked at again when it must be back
                back_ms = self.plugging.back_by_ms(run, interval)
                if back_ms < interval.end_ms:  # another day's is told as that begins
                    self.to_come.append(max(now_ms, back_ms))
        cell.move(charger.place_of(task.bay), now_ms)
        charger.bays[task.bay].cell = cell
        return cell.name, charger.name

    def _copying_begun(self, task: BeginCopy, now_ms: int) -> tuple[str, str]:
        interval = self.timeline.free_interval(now_ms - 1)
        assert interval is not None
        self.copying.begin(task.number, now_ms, interval)
        job = self.copying.jobs[-1] if self.copying.jobs else None
        return (job.card.store.name, job.drive.name) if job else ("", "")
