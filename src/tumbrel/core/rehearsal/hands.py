"""One pair of hands: what is due at a stop, in which order, and what cannot be done (E8)."""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass
from typing import Literal

from ..document import PlanDocument
from ..parameters import Defaults
from .camera_run import CameraRun
from .causes import OFF, Cause
from .needs import Need, need_of
from .pools import BAG, CardRun, Cell
from .timeline import FreeHands, Laid, Timeline

TaskKind = Literal["restart", "swap", "card"]


@dataclass(frozen=True, slots=True)
class Task:
    """One thing for the hands to do; the order of its fields is the order of doing (E8.1)."""

    importance: int
    lasts_ms: int
    camera: int
    kind: TaskKind
    takes_ms: int
    cell: Cell | None = None
    card: CardRun | None = None
    by_hand_of_plan: bool = False

    def rank(self) -> tuple[int, int, int]:
        """Importance, then least time to give out, then document."""
        return (self.importance, self.lasts_ms, self.camera)


@dataclass(frozen=True, slots=True)
class Done:
    """A task that was done, for the board."""

    start_ms: int
    end_ms: int
    camera: int
    kind: TaskKind
    out_name: str
    in_name: str


@dataclass(frozen=True, slots=True)
class Skipped:
    """A task for which the free hands did not last."""

    at_ms: int
    camera: int
    kind: TaskKind
    takes_ms: int


class Hands:
    """The person's hands through the trip."""

    def __init__(
        self,
        document: PlanDocument,
        timeline: Timeline,
        cameras: list[CameraRun],
        cells: list[Cell],
        cards: list[CardRun],
        defaults: Defaults,
    ) -> None:
        self.document = document
        self.timeline = timeline
        self.cameras = cameras
        self.cells = cells
        self.cards = cards
        self.defaults = defaults
        self._free_starts = [free.start_ms for free in timeline.free_hands]
        self.busy_until_ms = 0
        self.task: Task | None = None
        self.done: list[Done] = []
        self.skipped: list[Skipped] = []
        self._manual_done: set[tuple[int, str]] = set()

    # -- when -----------------------------------------------------------------------

    def free_at(self, at_ms: int) -> bool:
        """Whether hands are free at a time (a task may keep them busy)."""
        return self._interval_at(at_ms) is not None

    def decision_instants(self) -> list[int]:
        """Starts of free-hands intervals, their ends less all swap times, manual swaps (E8.2)."""
        swaps_ms = sum(
            self._takes_ms(camera, "swap", 0)
            for camera in self.cameras
            if camera.camera.battery_comes_out
        )
        instants = {free.start_ms for free in self.timeline.free_hands}
        instants |= {max(f.start_ms, f.end_ms - swaps_ms) for f in self.timeline.free_hands}
        wanted = {swap.item for swap in self.document.plan.swaps}
        instants |= {part.start_ms for part in self.timeline.laid if part.id in wanted}
        return sorted(instants)

    def _interval_at(self, at_ms: int) -> FreeHands | None:
        place = bisect_right(self._free_starts, at_ms) - 1
        free = self.timeline.free_hands[place] if place >= 0 else None
        return free if free and at_ms < free.end_ms else None

    def _horizon_ms(self, at_ms: int) -> int:
        """Start of the next hands-free interval, else the trip's end (E8.3)."""
        place = bisect_right(self._free_starts, at_ms)
        if place < len(self._free_starts):
            return self._free_starts[place]
        return self.timeline.duration_ms

    # -- what -----------------------------------------------------------------------

    def choose(self, now_ms: int) -> Task | None:
        """The task to begin now, if hands are free and one is due and fits."""
        interval = self._interval_at(now_ms)
        if interval is None or self.task is not None:
            return None
        horizon_ms = self._horizon_ms(now_ms)
        share = self.defaults.self_discharge_per_month.value
        for cell in self.cells:
            cell.rest_until(now_ms, share)
        here = self.timeline.laid_at(now_ms)
        due = [task for run in self.cameras if (task := self._due(run, here, now_ms, horizon_ms))]
        for task in sorted(due, key=Task.rank):
            if now_ms + task.takes_ms <= interval.end_ms:
                return task
            self._skip(task, now_ms)
        return None

    def _skip(self, task: Task, now_ms: int) -> None:
        last = [s for s in self.skipped if (s.camera, s.kind) == (task.camera, task.kind)]
        if not last or self._interval_at(last[-1].at_ms) != self._interval_at(now_ms):
            self.skipped.append(Skipped(now_ms, task.camera, task.kind, task.takes_ms))

    def _due(self, run: CameraRun, here: Laid, now_ms: int, horizon_ms: int) -> Task | None:
        manual = self._manual(run, here, now_ms)
        if manual is None and run.wanted is None and not run.is_asked_before(horizon_ms):
            return None
        run.advance(now_ms)
        need = need_of(run, now_ms, horizon_ms)
        if manual is not None and manual.cell is not None:
            return manual
        held = manual is not None
        swap = None if held else self._battery_due(run, need, now_ms)
        return swap or self._card_due(run, need, now_ms) or self._restart_due(run, need, now_ms)

    def _manual(self, run: CameraRun, here: Laid, now_ms: int) -> Task | None:
        """The plan's own word for this stop: a swap to do, or (without a cell) leave it in."""
        for swap in self.document.plan.swaps:
            if swap.camera != run.camera.id or swap.item != here.id:
                continue
            cell = next((c for c in self.cells if c.id == swap.battery and c.place == BAG), None)
            done = (run.index, here.id) in self._manual_done
            fits = cell is not None and cell.family == run.camera.battery_family
            task_cell = cell if fits and not done and run.camera.battery_comes_out else None
            takes_ms = self._takes_ms(run, "swap", now_ms)
            return Task(0, 0, run.index, "swap", takes_ms, cell=task_cell, by_hand_of_plan=True)
        return None

    def _battery_due(self, run: CameraRun, need: Need, now_ms: int) -> Task | None:
        if not run.camera.battery_comes_out or need.wh <= 0.0:
            return None
        reachable = run.cell.wh * run.cell.charge if run.cell else 0.0
        wanted = need.wh * self.defaults.swap_margin.value
        early = self.document.plan.swap_policy == "early"
        if reachable >= wanted or (reachable > 0.0 and not early):
            return None
        family = run.camera.battery_family
        spares = [c for c in self.cells if c.place == BAG and c.family == family]
        enough = [c for c in spares if c.wh * c.charge >= wanted]
        if enough:
            best = min(enough, key=lambda c: c.charge)
        else:
            more = [c for c in spares if c.wh * c.charge > reachable]
            if not more:
                return None
            best = max(more, key=lambda c: c.wh * c.charge)
        takes_ms = self._takes_ms(run, "swap", now_ms)
        return Task(need.importance, need.lasts_ms, run.index, "swap", takes_ms, cell=best)

    def _card_due(self, run: CameraRun, need: Need, now_ms: int) -> Task | None:
        slot = run.camera.memory
        if slot.kind == "fixed" or need.bytes <= 0 or need.peak_rate is None:
            return None
        unfit = Cause.CARD_UNFIT in run.holds
        free = run.card.free if run.card and not unfit else 0
        wanted = need.bytes * self.defaults.swap_margin.value
        early = self.document.plan.swap_policy == "early"
        if free >= wanted or (free > 0 and not early):
            return None
        spares = [
            card
            for card in self.cards
            if card.place == BAG
            and card.gb <= slot.largest_gb
            and card.store.sustained_bytes_s >= need.peak_rate
        ]
        enough = [card for card in spares if card.free >= wanted]
        if enough:
            best = min(enough, key=lambda card: card.free)
        else:
            more = [card for card in spares if card.free > free]
            if not more:
                return None
            best = max(more, key=lambda card: card.free)
        takes_ms = self._takes_ms(run, "card", now_ms)
        return Task(need.importance, need.lasts_ms, run.index, "card", takes_ms, card=best)

    def _restart_due(self, run: CameraRun, need: Need, now_ms: int) -> Task | None:
        waits = Cause.NO_HAND in run.holds or Cause.CLIP_LIMIT in run.holds
        barred = Cause.HOT in run.holds or run.cell is None or run.cell.charge <= 0.0
        stuck = run.card is None or run.card.free <= 0
        if not waits or barred or stuck or run.wanted is None or run.state is not OFF:
            return None
        takes_ms = self._takes_ms(run, "restart", now_ms)
        return Task(run.wanted.importance, need.lasts_ms, run.index, "restart", takes_ms)

    def _takes_ms(self, run: CameraRun, kind: TaskKind, now_ms: int) -> int:
        """How long a task takes [ms], bare or gloved, a blocked door added (E8.1)."""
        if kind == "restart":
            return round(self.defaults.restart_hand_s.value * 1000)
        recording = run.recording or (run.asked_list[0].recording if run.asked_list else None)
        set_up = recording.set_up if recording else run.camera.set_ups[0]
        item = self.timeline.laid_at(now_ms).item
        gloved_s = set_up.swap_gloved_s - set_up.swap_s if item and item.gloves else 0.0
        bare_s = set_up.swap_s if kind == "swap" else self.defaults.card_swap_s.value
        return max(1, round((bare_s + max(0.0, gloved_s) + set_up.door_blocked_s) * 1000))

    # -- doing ----------------------------------------------------------------------

    def begin(self, task: Task, now_ms: int) -> None:
        """Start a task; the camera is in the hands from now on."""
        self.task = task
        self.busy_until_ms = now_ms + task.takes_ms
        run = self.cameras[task.camera]
        if task.by_hand_of_plan:
            self._manual_done.add((task.camera, self.timeline.laid_at(now_ms).id))
        if task.kind == "swap":
            run.begin_handling(Cause.SWAP)
        elif task.kind == "card":
            run.begin_handling(Cause.CARD_SWAP)

    def finish(self, now_ms: int) -> CameraRun:
        """End the task: what was swapped is in, and the camera is started again if it is asked."""
        task = self.task
        assert task is not None
        self.task = None
        run = self.cameras[task.camera]
        out_name = in_name = ""
        run.close_spans()
        if task.kind == "swap" and task.cell is not None:
            out_name = run.cell.name if run.cell else ""
            in_name = task.cell.name
            run.fit_cell(task.cell)
        elif task.kind == "card" and task.card is not None:
            out_name = run.card.store.name if run.card else ""
            in_name = task.card.store.name
            run.fit_card(task.card)
        run.end_handling(Cause.CARD_SWAP if task.kind == "card" else Cause.SWAP)
        start_ms = now_ms - task.takes_ms
        self.done.append(Done(start_ms, now_ms, task.camera, task.kind, out_name, in_name))
        return run
