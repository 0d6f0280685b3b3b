"""From a document to a scene: the only door through which a rehearsal sees what was written."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from ...charging import intake_of
from ...cold import cold_curve, points_of
from ...document import Bank, Battery, Camera, Card, FixedMemory, PlanDocument, Source
from ...energy import battery_wh, nominal_wh
from ...heat import body_of
from ...light import SunDays, sun_heights_of_day
from ...memory import card_store, fixed_store, memory_key
from ...mistakes import Mistake, idle, mistakes_of
from ...parameters import DEFAULTS, Defaults
from .asked import Asked
from .asking import Asking
from .climate import place_climate
from .hand_plan import hand_plan_of
from .initial_fit import InitialFit
from .outside_power import outside_power_of
from .scene import (
    BAG,
    BankAtStart,
    BatteryAtStart,
    CameraAtStart,
    CardAtStart,
    Scene,
    SourceAtStart,
    Written,
)
from .supply_table import supply_table
from .timeline import Timeline, lay_out
from .too_many import refuse_too_many


def prepare(
    document: PlanDocument,
    defaults: Defaults = DEFAULTS,
    sun_days: SunDays = sun_heights_of_day,
    known: Callable[[Timeline], Mapping[str, list[Asked]]] | None = None,
) -> Scene:
    """What a document asks to be played; with nothing asked where a figure cannot be meant.

    `sun_days` gives the sun's heights of a UTC day at a place; `known` what is known to be asked of
    some cameras already, as the trip is laid out. Raises BadDocument when its times make no trip or
    it asks for too much.
    """
    timeline = lay_out(document.trip, sun_days)
    mistakes = mistakes_of(document.kit)
    if mistakes:
        document = idle(document)
    else:
        refuse_too_many(document, timeline)
    asked = known(timeline) if known else {}
    return _Preparing(document, timeline, defaults).scene(asked, mistakes)


class _Preparing:
    def __init__(self, document: PlanDocument, timeline: Timeline, defaults: Defaults) -> None:
        self.document = document
        self.timeline = timeline
        self.defaults = defaults
        kit = document.kit
        self.families = {family.id: family for family in kit.families}
        self.warmth = {pocket.id: pocket.warmth for pocket in kit.pockets}
        self.chosen = {c.camera: c for c in document.plan.cameras}
        self.fit = InitialFit(document)

    def scene(self, asked: Mapping[str, list[Asked]], mistakes: tuple[Mistake, ...]) -> Scene:
        """The scene; what is known to be asked is not made anew."""
        document, timeline, defaults = self.document, self.timeline, self.defaults
        kit = document.kit
        cameras = tuple(self._camera(camera, asked.get(camera.id)) for camera in kit.cameras)
        standby_w = defaults.standby_w.value
        spans = [one.asked for one in cameras]
        return Scene(
            written=Written(kit, document.trip, document.plan),
            timeline=timeline,
            defaults=defaults,
            cameras=cameras,
            batteries=tuple(self._battery(n, one) for n, one in enumerate(kit.batteries)),
            cards=(*map(self._card, kit.cards), *self._memories()),
            chargers=kit.chargers,
            sources=tuple(self._source(one) for one in kit.sources),
            drives=kit.drives,
            outside=outside_power_of(document, timeline, spans, standby_w),
            hands=hand_plan_of(document, timeline),
            mistakes=mistakes,
        )

    def _camera(self, camera: Camera, asked: list[Asked] | None) -> CameraAtStart:
        plan = self.chosen.get(camera.id)
        asking = Asking(camera, self.document, self.timeline, self.defaults)
        battery = self.fit.battery(camera)
        fixed = isinstance(camera.memory, FixedMemory)
        return CameraAtStart(
            camera=camera,
            family=self.families[camera.battery_family],
            body=body_of(camera, camera.set_ups[0], self.defaults),
            asked=asking.all() if asked is None else asked,
            between=plan.between if plan else "off",
            radio_left_on=plan.radio_left_on if plan else False,
            boot_ms=asking.boot_ms,
            battery=battery,
            store=memory_key(camera) if fixed else self.fit.card(camera),
        )

    def _battery(self, number: int, battery: Battery) -> BatteryAtStart:
        """A battery in its pocket and at its temperature."""
        conditions, defaults = self.timeline.conditions, self.defaults
        family = self.families[battery.family]
        wh = battery_wh(battery, family)
        inside_c, lag_s = defaults.inside_pocket_c.value, defaults.tau_cell_s.value
        home = self.warmth.get(battery.pocket or "", "bag")
        return BatteryAtStart(
            id=battery.id,
            name=battery.name,
            family=battery.family,
            wh=wh,
            charge=battery.charge,
            intake=intake_of(wh, family.rate_per_h, defaults),
            curve=cold_curve(points_of(family, defaults)),
            home=battery.pocket or BAG,
            home_climate=place_climate(conditions, home, inside_c, lag_s),
            bag_climate=place_climate(conditions, "bag", inside_c, lag_s),
            document_order=number,
        )

    def _card(self, card: Card) -> CardAtStart:
        read = card.read_mb_s if card.read_mb_s is not None else self.defaults.read_mb_s.value
        return CardAtStart(card_store(card, self.defaults), card.used_bytes, card.gb, read * 1e6)

    def _memories(self) -> list[CardAtStart]:
        found = []
        for camera in self.document.kit.cameras:
            memory = camera.memory
            if isinstance(memory, FixedMemory):
                read = memory.read_mb_s if memory.read_mb_s is not None else memory.speed_mb_s
                store = fixed_store(camera, memory, self.defaults)
                found.append(CardAtStart(store, 0, memory.gb, read * 1e6))
        return found

    def _source(self, source: Source) -> SourceAtStart:
        table = supply_table(source, self.document.trip, self.timeline, self.defaults)
        bank = self._bank(source) if isinstance(source, Bank) else None
        return SourceAtStart(source, table, bank)

    def _bank(self, bank: Bank) -> BankAtStart:
        kit, defaults = self.document.kit, self.defaults
        first = next((s.id for s in kit.sources if s.kind == "bank"), None)
        per_day_wh = [
            load.wh_per_day / 24.0 for load in kit.loads if (load.bank or first) == bank.id
        ]
        return BankAtStart(
            bank=bank,
            wh=nominal_wh(bank.mah, defaults.bank_v.value, bank.health),
            curve=cold_curve(defaults.available),
            climate=place_climate(
                self.timeline.conditions,
                self.warmth.get(bank.pocket or "", "bag"),
                defaults.inside_pocket_c.value,
                defaults.tau_bank_s.value,
            ),
            loads_w=sum(per_day_wh, 0.0),
        )
