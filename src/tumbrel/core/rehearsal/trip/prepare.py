"""From a document to a scene: the only door through which a rehearsal sees what was written."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from ...charging import cool_intake_of, intake_of
from ...cold import cold_curve, points_of
from ...document import (
    Bank,
    Battery,
    Camera,
    Card,
    FixedMemory,
    Gear,
    Kit,
    Module,
    PlanDocument,
    Source,
)
from ...energy import battery_wh, kit_with_draws, module_wh, nominal_wh
from ...heat import body_of
from ...light import SunDays, sun_heights_of_day
from ...memory import card_store, fixed_store, memory_key
from ...mistakes import Mistake, idle, mistakes_of
from ...parameters import DEFAULTS, Defaults
from .asked import Asked
from .asking import Asking
from .climate import PlaceClimate, Warmth, place_climate, warmths_of
from .hand_plan import hand_plan_of
from .initial_fit import InitialFit
from .outside_power import outside_power_of
from .scene import (
    BAG,
    BankAtStart,
    BatteryAtStart,
    CameraAtStart,
    CardAtStart,
    GearAtStart,
    Scene,
    SourceAtStart,
    Written,
)
from .supply_table import supply_table
from .timeline import Timeline, albedos_of, lay_out
from .too_many import refuse_too_many


def prepare(
    document: PlanDocument,
    defaults: Defaults = DEFAULTS,
    sun_days: SunDays = sun_heights_of_day,
    known: Callable[[Timeline], Mapping[str, list[Asked]]] | None = None,
    *,
    as_typed: bool = False,
) -> Scene:
    """What a document asks to be played; with nothing asked where a figure cannot be meant.

    `sun_days` gives the sun's heights of a UTC day at a place; `known` what is known to be asked of
    some cameras already, as the trip is laid out; `as_typed` plays what cannot be meant, too.
    Raises BadDocument when its times make no trip or
    it asks for too much.
    """
    timeline = lay_out(document.trip, sun_days, albedos_of(defaults))
    mistakes = () if as_typed else mistakes_of(document.kit)
    if mistakes:
        document = idle(document)
    else:
        refuse_too_many(document, timeline)
    asked = known(timeline) if known else {}
    drawn = document.model_copy(update={"kit": kit_with_draws(document.kit, defaults)})
    return _Preparing(drawn, timeline, defaults).scene(asked, mistakes, document.kit)


class _Preparing:
    def __init__(self, document: PlanDocument, timeline: Timeline, defaults: Defaults) -> None:
        self.document = document
        self.timeline = timeline
        self.defaults = defaults
        kit = document.kit
        self.families = {family.id: family for family in kit.families}
        self.places: dict[str, Warmth | float] = {
            pocket.id: pocket.warmth if pocket.kept_c is None else pocket.kept_c
            for pocket in kit.pockets
        }
        self.warmths = warmths_of(defaults)
        self.chosen = {c.camera: c for c in document.plan.cameras}
        self.fit = InitialFit(document)

    def scene(
        self, asked: Mapping[str, list[Asked]], mistakes: tuple[Mistake, ...], written: Kit
    ) -> Scene:
        """The scene; what is known to be asked is not made anew. `written` is the kit as it was."""
        document, timeline, defaults = self.document, self.timeline, self.defaults
        kit = document.kit
        cameras = tuple(self._camera(camera, asked.get(camera.id)) for camera in kit.cameras)
        standby_w = defaults.standby_w.value
        spans = [one.asked for one in cameras]
        return Scene(
            written=Written(written, document.trip, document.plan),
            timeline=timeline,
            defaults=defaults,
            cameras=cameras,
            batteries=tuple(self._battery(n, one) for n, one in enumerate(kit.batteries)),
            cards=(*map(self._card, kit.cards), *self._memories()),
            chargers=kit.chargers,
            sources=tuple(self._source(one) for one in kit.sources),
            gear=tuple(self._gear(one, cameras) for one in kit.gear),
            drives=kit.drives,
            outside=outside_power_of(document, timeline, spans, standby_w),
            hands=hand_plan_of(document, timeline),
            mistakes=mistakes,
        )

    def _camera(self, camera: Camera, asked: list[Asked] | None) -> CameraAtStart:
        plan = self.chosen.get(camera.id)
        asking = Asking(camera, self.document, self.timeline, self.defaults)
        battery = self.fit.battery(camera)
        own = memory_key(camera) if isinstance(camera.memory, FixedMemory) else None
        card = self.fit.card(camera) if camera.card_slot is not None else None
        spans = asking.all() if asked is None else asked
        first = next((span.recording for span in spans if span.recording), None)
        set_up = camera.set_ups[0] if first is None else first.set_up
        stores = (own, card) if camera.writes_own(set_up) else (card, own)
        return CameraAtStart(
            camera=camera,
            family=self.families[camera.battery_family],
            body=body_of(camera, camera.set_ups[0], self.defaults),
            asked=spans,
            between=plan.between if plan else "off",
            radio_left_on=plan.radio_left_on if plan else False,
            boot_ms=asking.boot_ms,
            battery=battery,
            store=stores[0],
            beside=stores[1],
        )

    def _battery(self, number: int, battery: Battery) -> BatteryAtStart:
        """A battery in its pocket and at its temperature."""
        conditions, defaults = self.timeline.conditions, self.defaults
        family = self.families[battery.family]
        wh = battery_wh(battery, family)
        lag_s, warmths = defaults.tau_cell_s.value, self.warmths
        home = self.places.get(battery.pocket or "", "bag")
        return BatteryAtStart(
            id=battery.id,
            name=battery.name,
            family=battery.family,
            wh=wh,
            charge=battery.charge,
            intake=intake_of(wh, family, defaults),
            cool_intake=cool_intake_of(wh, family, defaults),
            curve=cold_curve(points_of(family, defaults), battery.health),
            home=battery.pocket or BAG,
            home_climate=place_climate(conditions, home, warmths, lag_s),
            bag_climate=place_climate(conditions, "bag", warmths, lag_s),
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
        bank = self._store(source) if isinstance(source, Bank | Module) else None
        return SourceAtStart(source, table, bank)

    def _store(self, source: Bank | Module) -> BankAtStart:
        return self._bank(source) if isinstance(source, Bank) else self._module(source)

    def _module(self, module: Module) -> BankAtStart:
        """A module rides in the open, and is drained as hard as its camera drinks."""
        defaults = self.defaults
        camera = next(c for c in self.document.kit.cameras if c.id == module.fits)
        family = self.families[camera.battery_family]
        return BankAtStart(
            bank=module,
            wh=module_wh(module, camera, family, defaults),
            curve=cold_curve(defaults.available, module.health),
            climate=self._place(None, defaults.tau_bank_s.value),
            loads_w=0.0,
            module=True,
        )

    def _gear(self, gear: Gear, cameras: tuple[CameraAtStart, ...]) -> GearAtStart:
        """Used while its camera is asked, and where the plan names it."""
        timeline = self.timeline
        named = {one.item for one in self.document.plan.gear if one.gear == gear.id}
        spans = [(p.start_ms, p.end_ms) for p in timeline.laid if p.id in named]
        for one in cameras:
            if one.camera.id == gear.serves:
                spans += [(span.start_ms, span.end_ms) for span in one.asked]
        return GearAtStart(
            gear=gear,
            curve=cold_curve(self.defaults.available),
            climate=self._place(gear.pocket, self.defaults.tau_cell_s.value),
            uses=joined(spans),
        )

    def _place(self, pocket: str | None, lag_s: float) -> PlaceClimate:
        where = self.places.get(pocket or "", "bag")
        return place_climate(self.timeline.conditions, where, self.warmths, lag_s)

    def _bank(self, bank: Bank) -> BankAtStart:
        kit, defaults = self.document.kit, self.defaults
        first = next((s.id for s in kit.sources if s.kind == "bank"), None)
        per_day_wh = [
            load.wh_per_day / 24.0 for load in kit.loads if (load.bank or first) == bank.id
        ]
        return BankAtStart(
            bank=bank,
            wh=nominal_wh(bank.mah, defaults.bank_v.value, bank.health),
            curve=cold_curve(defaults.bank_available, bank.health),
            climate=self._place(bank.pocket, defaults.tau_bank_s.value),
            loads_w=sum(per_day_wh, 0.0),
            module=False,
        )


def joined(spans: list[tuple[int, int]]) -> tuple[tuple[int, int], ...]:
    """Spans in order of time; those that touch or overlap are one."""
    whole: list[tuple[int, int]] = []
    for start_ms, end_ms in sorted(spans):
        if whole and start_ms <= whole[-1][1]:
            whole[-1] = (whole[-1][0], max(end_ms, whole[-1][1]))
        else:
            whole.append((start_ms, end_ms))
    return tuple(whole)
