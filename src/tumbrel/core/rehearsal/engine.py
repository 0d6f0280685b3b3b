"""The event loop: the trip played through from event to event, in closed form between them (E2)."""

from __future__ import annotations

import heapq
from dataclasses import dataclass
from enum import Enum, auto
from itertools import count
from typing import NamedTuple

from ..document import Card, CardSlot, PlanDocument
from ..energy import battery_wh
from ..light import SunDays, sun_heights_of_day
from ..memory import card_is_too_large, card_store, fixed_store
from ..parameters import DEFAULTS, Defaults
from .asked import Asked, asked_of, refuse_too_many
from .camera_run import CameraRun
from .causes import OFF, Priority
from .hands import Hands
from .pools import BAG, CardRun, Cell, close_stay
from .timeline import Timeline, lay_out


class Happens(Enum):
    """Kinds of events in the queue."""

    PREPARE = auto()
    ASK = auto()
    UNASK = auto()
    BOOTED = auto()
    BY_ITSELF = auto()
    TASK_ENDS = auto()
    DECIDE = auto()


class Event(NamedTuple):
    """Something that happens; a camera's own forecasts carry the epoch they were made in."""

    kind: Happens
    camera: int = -1
    epoch: int = -1
    span: Asked | None = None


@dataclass(frozen=True)
class Played:
    """The trip played through, before it is told."""

    document: PlanDocument
    timeline: Timeline
    cameras: list[CameraRun]
    cells: list[Cell]
    cards: list[CardRun]
    hands: Hands
    start_wh: float
    start_bytes: int


class Rehearser:
    """Plays one document through once."""

    def __init__(self, document: PlanDocument, timeline: Timeline, defaults: Defaults) -> None:
        self.document = document
        self.timeline = timeline
        self.defaults = defaults
        self.cells = _cells(document)
        self.cameras = self._make_cameras()
        self.cards = self._fit_out()
        self.start_wh = sum(cell.wh * cell.charge for cell in self.cells)
        self.start_bytes = sum(card.used for card in self.cards)
        self.hands = Hands(document, timeline, self.cameras, self.cells, self.cards, defaults)
        self._queue: list[tuple[int, int, int, Event]] = []
        self._serial = count()

    def play(self) -> Played:
        """Run every event to the end of the trip."""
        self._schedule()
        end_ms = self.timeline.duration_ms
        while self._queue:
            at_ms, priority, _, event = heapq.heappop(self._queue)
            if at_ms > end_ms:
                break
            self._happen(at_ms, priority, event)
        for run in self.cameras:
            run.advance(end_ms)
            run.halt(OFF)
            run.close_spans()
            if run.cell is not None:
                run.cell.since_ms = end_ms
        share = self.defaults.self_discharge_per_month.value
        for cell in self.cells:
            cell.rest_until(end_ms, share)
            close_stay(cell.stays, end_ms, cell.charge)
        for card in self.cards:
            close_stay(card.stays, end_ms, float(card.used))
        return Played(
            self.document,
            self.timeline,
            self.cameras,
            self.cells,
            self.cards,
            self.hands,
            self.start_wh,
            self.start_bytes,
        )

    # -- setting out ----------------------------------------------------------------

    def _make_cameras(self) -> list[CameraRun]:
        chosen = {c.camera: c for c in self.document.plan.cameras}
        runs = []
        for index, camera in enumerate(self.document.kit.cameras):
            plan = chosen.get(camera.id)
            runs.append(
                CameraRun(
                    index,
                    camera,
                    asked_of(camera, self.document, self.timeline, self.defaults),
                    self.timeline.conditions,
                    self.defaults,
                    plan.between if plan else "off",
                    plan.radio_left_on if plan else False,
                )
            )
        return runs

    def _fit_out(self) -> list[CardRun]:
        """Put a battery and a card in each camera: the plan's choice, else the first free one."""
        chosen = {c.camera: c for c in self.document.plan.cameras}
        kit = self.document.kit
        cells = {cell.id: cell for cell in self.cells}
        cards = {
            card.id: CardRun(card_store(card, self.defaults), card.used_bytes, card.gb)
            for card in kit.cards
        }
        taken = {c.battery for c in chosen.values()} | {c.card for c in chosen.values()}
        own: list[CardRun] = []
        for run in self.cameras:
            plan = chosen.get(run.camera.id)
            battery = plan.battery if plan else None
            if battery is None:
                battery = self._first_free_cell(run, taken)
            fitted = cells[battery] if battery else None
            if fitted is not None and fitted.family != run.camera.battery_family:
                fitted = None
            if fitted is not None:
                taken.add(fitted.id)
            run.fit_cell(fitted)
            own += self._fit_memory(run, plan.card if plan else None, kit.cards, cards, taken)
        for cell in self.cells:
            if cell.place == BAG:
                cell.move(BAG, 0)
        for card in cards.values():
            if card.place == BAG:
                card.move(BAG, 0)
        return [*cards.values(), *own]

    def _first_free_cell(self, run: CameraRun, taken: set[str | None]) -> str | None:
        family = run.camera.battery_family
        free = (c.id for c in self.cells if c.family == family and c.id not in taken)
        return next(free, None)

    def _fit_memory(
        self,
        run: CameraRun,
        chosen: str | None,
        kit_cards: tuple[Card, ...],
        cards: dict[str, CardRun],
        taken: set[str | None],
    ) -> list[CardRun]:
        memory = run.camera.memory
        if not isinstance(memory, CardSlot):
            fixed = CardRun(fixed_store(run.camera, memory, self.defaults), 0, memory.gb)
            run.fit_card(fixed)
            return [fixed]
        fitting = [c for c in kit_cards if not card_is_too_large(c, run.camera)]
        if chosen is None:
            chosen = next((c.id for c in fitting if c.id not in taken), None)
        usable = chosen if any(c.id == chosen for c in fitting) else None
        if usable is not None:
            taken.add(usable)
        run.fit_card(cards[usable] if usable else None)
        return []

    def _schedule(self) -> None:
        for run in self.cameras:
            before_ms = 0
            for span in run.asked_list:
                early_ms = max(0, before_ms, span.start_ms - run.boot_ms)
                may = run.camera.starts_itself or self.hands.free_at(early_ms)
                if may and early_ms < span.start_ms and run.between == "off":
                    self._push(early_ms, Priority.STARTS, Happens.PREPARE, run, span)
                self._push(span.start_ms, Priority.STARTS, Happens.ASK, run, span)
                ends = Priority.ENDS if span.ends_leg else Priority.PATTERN_ENDS
                self._push(span.end_ms, ends, Happens.UNASK, run, span)
                before_ms = span.end_ms
            self._forecast(run)
        for at_ms in self.hands.decision_instants():
            self._push_event(at_ms, Priority.HANDS, Event(Happens.DECIDE))

    def _push(
        self, at_ms: int, priority: Priority, kind: Happens, run: CameraRun, span: Asked
    ) -> None:
        self._push_event(at_ms, priority, Event(kind, run.index, span=span))

    def _push_event(self, at_ms: int, priority: int, event: Event) -> None:
        heapq.heappush(self._queue, (at_ms, int(priority), next(self._serial), event))

    # -- playing --------------------------------------------------------------------

    def _happen(self, at_ms: int, priority: int, event: Event) -> None:
        if event.kind is Happens.DECIDE:
            self._decide(at_ms)
            return
        if event.kind is Happens.TASK_ENDS:
            run = self.cameras[event.camera]
            run.advance(at_ms)
            self.hands.finish(at_ms)
            self._forecast(run)
            self._push_event(at_ms, Priority.HANDS, Event(Happens.DECIDE))
            return
        run = self.cameras[event.camera]
        if event.epoch >= 0 and event.epoch != run.epoch:
            return  # a forecast made before something else happened
        run.advance(at_ms)
        match event.kind:
            case Happens.PREPARE if event.span is not None:
                run.prepare(event.span)
            case Happens.ASK if event.span is not None:
                run.ask(event.span)
                if run.boot_ends_ms == at_ms:  # booted just in time: no event of its own
                    run.record()
            case Happens.UNASK if event.span is not None:
                run.unask(event.span)
            case Happens.BOOTED:
                run.record()
            case _:
                self._by_itself(run, Priority(priority))
        self._forecast(run)

    def _by_itself(self, run: CameraRun, what: Priority) -> None:
        if what is Priority.HEAT and run.hot:
            run.cooled()
        elif what is Priority.HEAT:
            run.stop_hot()
        elif what is Priority.EMPTY:
            run.stop_empty()
        elif what is Priority.CARD_FULL:
            run.stop_full()
        else:
            run.stop_at_clip_limit()
        self._push_event(run.now_ms, Priority.HANDS, Event(Happens.DECIDE))

    def _decide(self, at_ms: int) -> None:
        task = self.hands.choose(at_ms)
        if task is None:
            return
        self.hands.begin(task, at_ms)
        self._forecast(self.cameras[task.camera])
        ends = Event(Happens.TASK_ENDS, task.camera)
        self._push_event(self.hands.busy_until_ms, Priority.ENDS, ends)

    def _forecast(self, run: CameraRun) -> None:
        """Queue what the camera will meet next by itself; older forecasts become stale."""
        run.epoch += 1
        bound_ms = self.timeline.duration_ms
        if run.asked is not None:
            bound_ms = run.asked.end_ms
        elif run.next_asked < len(run.asked_list):
            bound_ms = run.asked_list[run.next_asked].start_ms
        if run.boot_ends_ms is not None:
            booted = Event(Happens.BOOTED, run.index, run.epoch)
            self._push_event(run.boot_ends_ms, Priority.STARTS, booted)
        found = run.next_event(bound_ms)
        if found is not None:
            event = Event(Happens.BY_ITSELF, run.index, run.epoch)
            self._push_event(found[0], found[1], event)


def _cells(document: PlanDocument) -> list[Cell]:
    families = {family.id: family for family in document.kit.families}
    return [
        Cell(b.id, b.name, b.family, battery_wh(b, families[b.family]), b.charge)
        for b in document.kit.batteries
    ]


def play(
    document: PlanDocument,
    defaults: Defaults = DEFAULTS,
    sun_days: SunDays = sun_heights_of_day,
) -> Played:
    """Play a document through.

    Raises BadDocument when its times make no trip or it asks for too many takes.
    """
    timeline = lay_out(document.trip, sun_days)
    refuse_too_many(document, timeline)
    return Rehearser(document, timeline, defaults).play()
