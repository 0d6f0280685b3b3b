"""One pair of hands: what is due at a stop, in which order, and what cannot be done (E8)."""

from __future__ import annotations

from ...document import Leg, PlanDocument
from ...parameters import Defaults
from ..camera.camera_run import CameraRun
from ..camera.causes import FILMING, OFF, STANDBY, Cause
from ..power.grid import Grid
from ..power.loads import ChargerRun, name_of
from ..state.append_log import Log
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..trip.timeline import Laid, Timeline
from .copying import Copying
from .handling import Handling
from .lookahead import Need, need_of
from .plugging import Plugging
from .swapping import Swapping
from .tasks import Done, Skipped, Task, holder_of, links_of

WAIT_FOR_A_HAND = frozenset({Cause.NO_HAND, Cause.NO_START, Cause.CLIP_LIMIT})
OPTIONAL = frozenset({"swap", "card"})


class Hands:
    """The person's hands through the trip."""

    def __init__(
        self,
        document: PlanDocument,
        timeline: Timeline,
        cameras: list[CameraRun],
        cells: list[Cell],
        cards: list[CardRun],
        grid: Grid,
        defaults: Defaults,
    ) -> None:
        self.cameras = cameras
        self.cells = cells
        self.cards = cards
        self.grid = grid
        self.defaults = defaults
        self.copying = Copying(document, cameras, cards, defaults)
        self.handling = Handling(document, timeline, cameras, defaults)
        self.swapping = Swapping(document, timeline, cells, cards, self.handling, defaults)
        self.plugging = Plugging(
            document, timeline, cameras, cells, grid, self.copying, self.handling, defaults
        )
        self.read(document, timeline)
        self.linked = links_of(document, cameras)
        self.busy_until_ms = 0
        self.to_come: list[int] = []
        self.task: Task | None = None
        self.done: Log[Done] = Log()
        self.skipped: Log[Skipped] = Log()

    def read(self, document: PlanDocument, timeline: Timeline) -> None:
        """Go by a document."""
        self.document = document
        self.timeline = timeline
        self._swaps = {(swap.camera, swap.item): swap for swap in reversed(document.plan.swaps)}
        self.handling.read(document, timeline)
        self.swapping.read(document, timeline)
        self.plugging.read(document, timeline)
        self.copying.document = document

    # -- when -----------------------------------------------------------------------

    def decision_instants(self) -> list[int]:
        """Starts of free-hands intervals, their last chances, what the plan wants (E8.2).

        And where a source begins to give, as a socket does at a stop reached with free hands.
        """
        free = self.timeline.free_hands
        instants = {one.start_ms for one in free}
        instants |= {self.handling.last_chance_ms(one) for one in free}
        begins = (at_ms for supply in self.grid.supplies for at_ms in supply.table.begins())
        instants |= {at_ms for at_ms in begins if self.timeline.hands_free_at(at_ms)}
        wanted = self.document.plan.said_at()
        instants |= {part.start_ms for part in self.timeline.laid if part.id in wanted}
        for swap in self.document.plan.swaps:
            if swap.when == "leaving":
                instants.add(self.handling.leaving_ms(self.timeline.by_id[swap.item]))
        return sorted(instants)

    def must_be_back(self, at_ms: int) -> list[int]:
        """When batteries that are out to charge must be back in their cameras (E4.5a)."""
        timeline = self.timeline
        interval = timeline.free_interval(at_ms)
        if interval is None:
            interval = timeline.free_interval(timeline.next_free_ms(at_ms))
        if interval is None:
            return []
        out = [run for run in self.cameras if run.cell is None and run.camera.battery_comes_out]
        return [max(at_ms, self.plugging.back_by_ms(run, interval)) for run in out]

    # -- what -----------------------------------------------------------------------

    def choose(self, now_ms: int) -> Task | None:
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
        due = [task for run in self.cameras if (task := self._due(run, here, now_ms, horizon_ms))]
        plug = self.plugging.due(now_ms, interval)
        copy = self.copying.due(here, now_ms, interval)
        due += [task for task in (plug, copy) if task is not None]
        for task in sorted(due, key=Task.rank):
            if self._leaves_no_angle(task, here):
                continue
            if now_ms + task.takes_ms <= interval.end_ms:
                return task
            self._skip(task, now_ms)
        return None

    def _leaves_no_angle(self, task: Task, here: Laid) -> bool:
        """Whether an optional swap would leave a leg that wants one angle with none (E8.4)."""
        item = here.item
        if not isinstance(item, Leg) or not item.one_angle_always or task.kind not in OPTIONAL:
            return False
        run = self.cameras[task.camera]
        if run.state not in FILMING:
            return False
        return not any(
            other.state in FILMING and other.asked is not None
            for other in self.cameras
            if other is not run
        )

    def _skip(self, task: Task, now_ms: int) -> None:
        free = self.timeline.free_interval
        last = [s for s in self.skipped if (s.camera, s.kind) == (task.camera, task.kind)]
        if not last or free(last[-1].at_ms) != free(now_ms):
            self.skipped.append(Skipped(now_ms, task.camera, task.kind, task.takes_ms))

    def _due(self, run: CameraRun, here: Laid, now_ms: int, horizon_ms: int) -> Task | None:
        manual = self._manual(run, here, now_ms)
        asked_ms = horizon_ms if run.cell else self.timeline.next_free_end_ms(now_ms)
        if manual is None and run.wanted is None and not run.is_asked_before(asked_ms):
            return None
        if Cause.COPYING in run.holds:
            return None
        as_before = self._as_before(run, asked_ms)
        if manual is None and run.enough == as_before:
            return None  # off since it was last looked at, with enough in it
        if run.cell is None and manual is None and self._may_wait(run, now_ms):
            return None
        run.advance(now_ms)
        if run.cell is None:  # taken out to charge: it must be back before the next stop begins
            horizon_ms = self.timeline.next_free_end_ms(now_ms)
        need = need_of(run, now_ms, horizon_ms)
        if manual is not None and manual.cell is not None:
            return manual
        wanted = need.wh * self.defaults.swap_margin.value
        held_wh = self.swapping.held_wh(run, wanted, now_ms, horizon_ms)
        swap = None if manual else self.swapping.battery_due(run, need, held_wh, now_ms, horizon_ms)
        task = (
            swap
            or self.swapping.card_due(run, need, now_ms)
            or self._restart_due(run, need, now_ms)
        )
        rests = run.state is OFF and run.wanted is None and not run.dead and run.off_w == 0.0
        if task is None and rests and run.cell and (held_wh or 0.0) >= wanted:
            run.enough = as_before
        return task

    @staticmethod
    def _as_before(run: CameraRun, asked_ms: int) -> tuple[int, int, str, str, float]:
        """What a camera that rests must still have in it, and ahead of it, to need no look."""
        cell = run.cell.id if run.cell else ""
        return (asked_ms, run.next_asked, cell, run.card.store.id if run.card else "", run.used_wh)

    def _manual(self, run: CameraRun, here: Laid, now_ms: int) -> Task | None:
        """The plan's own word for this stop: a swap to do, or (without a cell) leave it in."""
        swap = self._swaps.get((run.camera.id, here.id))
        if swap is None:
            return None
        cell = next((c for c in self.cells if c.id == swap.battery), None)
        holder = holder_of(self.cameras, cell)
        done = (run.camera.id, here.id) in self.swapping.made
        if swap.when == "leaving" and now_ms < self.handling.leaving_ms(here):
            cell = None  # left in until then
        free = holder is None or (holder is not run and holder.lets_go)
        fits = free and cell is not None and cell.family == run.camera.battery_family
        takes_ms = self.handling.takes_ms(run, "swap", now_ms)
        if holder is not None:
            takes_ms += self.handling.takes_ms(holder, "swap", now_ms)
        fitted = cell if fits and not done and run.camera.battery_comes_out else None
        return Task(0, 0, run.index, "swap", takes_ms, run.index, cell=fitted, by_hand_of_plan=True)

    def _may_wait(self, run: CameraRun, now_ms: int) -> bool:
        """Whether a camera whose battery was taken out to charge can do without it for now."""
        interval = self.timeline.free_interval(now_ms)
        return interval is not None and now_ms < self.plugging.back_by_ms(run, interval)

    def _restart_due(self, run: CameraRun, need: Need, now_ms: int) -> Task | None:
        """Start again what a hand can start: after heat, a clip limit, or a cell that warmed."""
        holds = run.holds
        warmed = run.dead and run.thawed()
        waits = warmed or not WAIT_FOR_A_HAND.isdisjoint(holds)
        barred = Cause.HOT in holds or run.cell is None or (run.dead and not warmed)
        empty = run.cell is not None and run.cell.charge <= run.line()
        stuck = run.card is None or run.card.free <= 0
        if not waits or barred or empty or stuck or run.wanted is None or run.state > STANDBY:
            return None
        takes_ms = self.handling.takes_ms(run, "restart", now_ms)
        return Task(
            run.wanted.importance, need.lasts_ms, run.index, "restart", takes_ms, camera=run.index
        )

    # -- doing ----------------------------------------------------------------------

    def begin(self, task: Task, now_ms: int) -> None:
        """Start a task; the camera is in the hands from now on."""
        self.task = task
        self.busy_until_ms = now_ms + task.takes_ms
        if task.by_hand_of_plan:
            camera = self.cameras[task.camera].camera.id
            self.swapping.made.add((camera, self.timeline.laid_at(now_ms).id))
        if task.kind == "swap":
            self.cameras[task.camera].begin_handling(Cause.SWAP)
        elif task.kind == "card":
            self.cameras[task.camera].begin_handling(Cause.CARD_SWAP)

    def finish(self, now_ms: int) -> list[CameraRun]:
        """End the task; gives back the cameras that it touched."""
        task = self.task
        assert task is not None
        self.task = None
        names = ("", "")
        if task.cell is not None:
            task.cell.rest_until(now_ms, self.defaults.self_discharge_per_month.value)
        touched = [self.cameras[task.camera]] if task.camera >= 0 else []
        if task.kind in ("swap", "card", "restart"):
            names = self._handled(task, touched[0])
            touched += self._linked_starts(touched[0])
        elif task.kind == "plug":
            names = self._plugged(task, now_ms)
        elif task.kind == "wake" and task.supply is not None and task.supply.bank is not None:
            task.supply.bank.switched_off = False
            names = ("", task.supply.source.name)
        elif task.kind == "copy":
            names = self._copying_begun(task, now_ms)
        else:
            job = self.copying.end(task.number, now_ms)
            names = (job.card.store.name, job.drive.name)
        start_ms = now_ms - task.takes_ms
        self.done.append(Done(start_ms, now_ms, task.camera, task.kind, *names, task.unit))
        return touched

    def _handled(self, task: Task, run: CameraRun) -> tuple[str, str]:
        out_name = in_name = ""
        run.close_spans()
        if task.kind == "swap" and task.cell is not None:
            out_name = run.cell.name if run.cell else ""
            in_name = task.cell.name
            charger = self.grid.charger_of(task.cell)
            if charger is not None:
                charger.take_out(task.cell)
            holder = holder_of(self.cameras, task.cell)
            if holder is not None:
                holder.advance(run.now_ms)
                holder.fit_cell(None)
            run.fit_cell(task.cell)
        elif task.kind == "card" and task.card is not None:
            out_name = run.card.store.name if run.card else ""
            in_name = task.card.store.name
            run.fit_card(task.card)
        run.end_handling(Cause.CARD_SWAP if task.kind == "card" else Cause.SWAP)
        return out_name, in_name

    def _linked_starts(self, run: CameraRun) -> list[CameraRun]:
        """One action starts all cameras that are linked (E1.5)."""
        started = []
        for index in self.linked.get(run.index, ()):
            other = self.cameras[index]
            waits = not {Cause.NO_HAND, Cause.NO_START}.isdisjoint(other.holds)
            if waits and Cause.HOT not in other.holds:
                other.advance(run.now_ms)
                other.end_handling(Cause.NO_HAND)
                started.append(other)
        return started

    def _plugged(self, task: Task, now_ms: int) -> tuple[str, str]:
        """A battery into a bay, and a charger, camera or bank onto a port."""
        consumer = task.consumer
        assert consumer is not None
        if task.supply is not None and task.supply.free_port() is not None:
            self.grid.attach(consumer, task.supply)
        supply = self.grid.supply_of(consumer)
        where = supply.source.name if supply else ""
        if task.cell is None:
            return name_of(consumer), where
        assert task.bay is not None
        assert isinstance(consumer, ChargerRun)
        old = consumer.bays[task.bay].cell
        if old is not None:
            old.move(old.home, now_ms)
        if task.camera >= 0 and self.cameras[task.camera].cell is task.cell:
            run = self.cameras[task.camera]
            run.fit_cell(None)
            interval = self.timeline.free_interval(now_ms - 1)
            if interval is not None:  # it is looked at again when it must be back
                self.to_come.append(max(now_ms, self.plugging.back_by_ms(run, interval)))
        task.cell.move(consumer.place_of(task.bay), now_ms)
        consumer.bays[task.bay].cell = task.cell
        return task.cell.name, consumer.name

    def _copying_begun(self, task: Task, now_ms: int) -> tuple[str, str]:
        interval = self.timeline.free_interval(now_ms - 1)
        assert interval is not None
        assert task.copy is not None
        self.copying.begin(task.number, now_ms, interval)
        job = self.copying.jobs[-1] if self.copying.jobs else None
        return (job.card.store.name, job.drive.name) if job else ("", "")
