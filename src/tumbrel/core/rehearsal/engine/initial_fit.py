"""What is in the cameras when the trip begins, and where everything else lies."""

from __future__ import annotations

from collections.abc import Mapping

from ...charging import intake_of
from ...cold import cold_curve, points_of
from ...document import Card, CardSlot, FixedMemory, PlanDocument
from ...energy import battery_wh
from ...memory import card_is_too_large, card_store, fixed_store
from ...parameters import Defaults
from ..camera.camera_run import CameraRun
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..stock.stays import BAG
from ..trip.asked import Asked, Asking
from ..trip.climate import Warmth, place_climate
from ..trip.timeline import Timeline


def make_cells(document: PlanDocument, timeline: Timeline, defaults: Defaults) -> list[Cell]:
    """All batteries, each in its pocket and at its temperature."""
    families = {family.id: family for family in document.kit.families}
    warmth: dict[str, Warmth] = {pocket.id: pocket.warmth for pocket in document.kit.pockets}
    inside_c, lag_s = defaults.inside_pocket_c.value, defaults.tau_cell_s.value
    bag = place_climate(timeline.conditions, "bag", inside_c, lag_s)
    cells = []
    for number, battery in enumerate(document.kit.batteries):
        family = families[battery.family]
        wh = battery_wh(battery, family)
        home = warmth.get(battery.pocket or "", "bag")
        climate = place_climate(timeline.conditions, home, inside_c, lag_s)
        cell = Cell(
            id=battery.id,
            name=battery.name,
            family=battery.family,
            wh=wh,
            charge=battery.charge,
            intake=intake_of(wh, family.rate_per_h, defaults),
            curve=cold_curve(points_of(family, defaults)),
            home=battery.pocket or BAG,
            home_climate=climate,
            bag_climate=bag,
            document_order=number,
            cell_c=climate.base_c[0],
        )
        cell.place = cell.home
        cell.came_charge = cell.charge
        cell.rows.append((0, cell.charge, cell.cell_c))
        cells.append(cell)
    return cells


def make_cameras(
    document: PlanDocument,
    timeline: Timeline,
    defaults: Defaults,
    asked: Mapping[str, list[Asked]],
) -> list[CameraRun]:
    """All cameras with what they are asked (made, unless it is known), nothing in them yet."""
    chosen = {c.camera: c for c in document.plan.cameras}
    families = {family.id: family for family in document.kit.families}
    runs = []
    for index, camera in enumerate(document.kit.cameras):
        plan = chosen.get(camera.id)
        between = plan.between if plan else "off"
        known = asked.get(camera.id)
        asking = Asking(camera, document, timeline, defaults)
        runs.append(
            CameraRun(
                index,
                camera,
                families[camera.battery_family],
                asking.all() if known is None else known,
                timeline.conditions,
                defaults,
                between,
                plan.radio_left_on if plan else False,
                asking.boot_ms,
                timeline.duration_ms,
            )
        )
    return runs


class FitOut:
    """Puts a battery and a card in each camera: the plan's choice, else the first free one."""

    def __init__(
        self, document: PlanDocument, cameras: list[CameraRun], cells: list[Cell], d: Defaults
    ) -> None:
        self.document = document
        self.defaults = d
        self.cells = {cell.id: cell for cell in cells}
        self.chosen = {c.camera: c for c in document.plan.cameras}
        plans = self.chosen.values()
        self.taken: set[str | None] = {c.battery for c in plans} | {c.card for c in plans}
        self.cards = {card.id: self._card(card) for card in document.kit.cards}
        self.fixed: list[CardRun] = []
        for run in cameras:
            self._fit_cell(run)
            self._fit_memory(run)

    def all_cards(self) -> list[CardRun]:
        """Cards, then fixed memories."""
        return [*self.cards.values(), *self.fixed]

    def _card(self, card: Card) -> CardRun:
        read = card.read_mb_s if card.read_mb_s is not None else self.defaults.read_mb_s.value
        run = CardRun(card_store(card, self.defaults), card.used_bytes, card.gb, read * 1e6)
        run.came_used = card.used_bytes
        return run

    def _fit_cell(self, run: CameraRun) -> None:
        plan = self.chosen.get(run.camera.id)
        family = run.camera.battery_family
        battery = plan.battery if plan else None
        if battery is None:
            free = (c for c in self.cells.values() if c.family == family)
            battery = next((c.id for c in free if c.id not in self.taken), None)
        fitted = self.cells[battery] if battery else None
        if fitted is None or fitted.family != family:
            run.fit_cell(None)
            return
        self.taken.add(fitted.id)
        fitted.cell_c = run.body_c
        run.fit_cell(fitted)

    def _fit_memory(self, run: CameraRun) -> None:
        memory = run.camera.memory
        if isinstance(memory, FixedMemory):
            read = memory.read_mb_s if memory.read_mb_s is not None else memory.speed_mb_s
            store = fixed_store(run.camera, memory, self.defaults)
            fixed = CardRun(store, 0, memory.gb, read * 1e6)
            self.fixed.append(fixed)
            run.fit_card(fixed)
            return
        assert isinstance(memory, CardSlot)
        plan = self.chosen.get(run.camera.id)
        kit_cards = self.document.kit.cards
        fitting = [c.id for c in kit_cards if not card_is_too_large(c, run.camera)]
        chosen = plan.card if plan else None
        if chosen is None:
            chosen = next((name for name in fitting if name not in self.taken), None)
        if chosen not in fitting:
            run.fit_card(None)
            return
        self.taken.add(chosen)
        run.fit_card(self.cards[chosen])
