"""What free hands plug in, in order of need (model/hands#plug)."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Final

from mypy_extensions import mypyc_attr

from ...charging import NEVER_MS
from ...document import Leg, Mains
from ..camera.camera_run import CameraRun
from ..camera.handled import next_start_ms
from ..camera.turns import OFF
from ..power.consumer import Consumer
from ..power.grid import Grid
from ..power.loads import ChargerRun, Supply
from ..power.next_event import SOON_MS
from ..power.stores import GearRun, StoreRun
from ..stock.batteries import Cell, refusal_of
from ..trip.climate import PlaceClimate
from ..trip.hand_plan import PlugSaid
from ..trip.scene import Scene
from ..trip.timeline import FreeHands
from .copying import Copying
from .handling import Handling
from .tasks import PLUG_RANK, AnyTask, LayInCharger, PlugIn, WakeBank

PREFERENCE: Final = {"mains": 0, "vehicle": 1, "bank": 2, "dynamo": 3, "panel": 4, "module": 5}
WORTH_TAKING: Final = 0.02
SECOND_LOOK_MS: Final = 60_000
HAIR_K: Final = 1e-5
FULL_TOO: Final = 2.0
WORTH_A_CABLE_MS: Final = 600_000
WAKE_AGAIN_MS: Final = 3_600_000
NONE_FED: frozenset[str] = frozenset()
NOTHING_SAID: Mapping[str, PlugSaid] = {}
ANYWHERE: Final = PlugSaid(plug=True, to="", place=-1, at_ms=0)


@dataclass(frozen=True, slots=True)
class Low:
    """Something that is low, with the order of its need."""

    used_ms: int
    full_by_ms: int
    charge: float
    order: int
    unit: str
    cell: Cell | None = None
    camera: CameraRun | None = None
    bank: StoreRun | None = None

    def need(self) -> tuple[int, int, float, int]:
        """Next manual use, `full_by` deadline, lowest per cent, document."""
        return (self.used_ms, self.full_by_ms, round(self.charge, 2), self.order)


@mypyc_attr(serializable=True)
class Plugging:
    """Finds the next thing to plug."""

    def __init__(
        self,
        scene: Scene,
        cameras: list[CameraRun],
        cells: list[Cell],
        grid: Grid,
        copying: Copying,
        handling: Handling,
        looks: set[int],
    ) -> None:
        self.handling = handling
        self.cameras = cameras
        self.cells = cells
        self.grid = grid
        self.copying = copying
        self.defaults = scene.defaults
        self.takes_ms = round(scene.defaults.plug_s.value * 1000)
        self.looks = looks
        self.use_scene(scene)

    def use_scene(self, scene: Scene) -> None:
        """Go by a scene that was the same until now."""
        self.timeline = scene.timeline
        self.plan = scene.hands

    def due(self, now_ms: int, interval: FreeHands) -> AnyTask | None:
        """The next thing to plug, wake or hang elsewhere."""
        if not self.grid.supplies:
            return None
        said = self.plan.plugs.get(self.timeline.laid_at(now_ms).id, NOTHING_SAID)
        task = self._first_of(now_ms, interval, said, planned=True) if said else None
        task = task or self._wake(now_ms)
        if task is not None or not self.plan.charges:
            return task
        hanging = self._hang_elsewhere(now_ms)
        if hanging is not None:
            return hanging
        return self._first_of(now_ms, interval, said, planned=False)

    def _first_of(
        self, now_ms: int, interval: FreeHands, said: Mapping[str, PlugSaid], *, planned: bool
    ) -> AnyTask | None:
        """The neediest that can be plugged: of those the plan wants, or of all it allows."""
        below = FULL_TOO if planned else self.defaults.chargeable_below.value
        for low in sorted(self._low(now_ms, interval, said, below), key=Low.need):
            wanted = said.get(low.unit)
            if wanted is None and planned:
                continue
            if wanted is not None and (not wanted.plug or now_ms < wanted.at_ms):
                continue
            task = self._plug(low, now_ms, wanted or ANYWHERE)
            if task is not None:
                return task
        return None

    # -- what is low ----------------------------------------------------------------

    def _low(
        self, now_ms: int, interval: FreeHands, said: Mapping[str, PlugSaid], below: float
    ) -> Iterator[Low]:
        """What has less than some charge; and what could then take it from where it would hang."""
        spare_below = min(below, self.defaults.chargeable_below.value)
        share = self.defaults.self_discharge_per_month.value
        for cell in self.cells:
            if cell.charge >= spare_below or cell.in_charger or not cell.spare:
                continue
            cell.rest_until(now_ms, share)
            if not self._refused(cell, cell.home_climate, now_ms, interval):
                yield self._as_low(cell.id, cell.charge, cell.document_order, now_ms, cell=cell)
        for run in self.cameras:
            if run.cell is None or run.cell.charge >= below:
                continue
            if self.grid.supply_of(run) is not None:
                continue
            cell = run.cell
            order = cell.document_order
            said_so = _is_wanted(said.get(cell.id), now_ms)
            if not self._hangs_long(next_start_ms(run), now_ms, interval, wanted=said_so):
                continue
            if run.camera.charges_in_w is not None:
                yield self._as_low(cell.id, cell.charge, order, now_ms, camera=run)
            elif cell.charge < spare_below and self._worth_unloading(
                run, now_ms, interval, wanted=said_so
            ):
                run.advance(now_ms)
                if not self._refused(cell, cell.bag_climate, now_ms + SECOND_LOOK_MS, interval):
                    yield self._as_low(cell.id, cell.charge, order, now_ms, cell=cell, camera=run)
        yield from self._low_stores(now_ms, interval, said, below)

    def _hangs_long(self, until_ms: int, now_ms: int, interval: FreeHands, *, wanted: bool) -> bool:
        """Whether a cable that comes out at a time is worth the hands; on the way it stays longer.

        Source: model/hands#plug.
        """
        begun_ms = now_ms + self.takes_ms
        if wanted or not isinstance(self.timeline.laid_at(now_ms).item, Leg):
            return until_ms > begun_ms
        return min(until_ms, interval.end_ms) >= begun_ms + WORTH_A_CABLE_MS

    def _refused(
        self, cell: Cell, climate: PlaceClimate, from_ms: int, interval: FreeHands
    ) -> bool:
        """Whether a battery is too cold or hot to be charged; it is looked at when it is not.

        One that follows its camera is looked at again and again, as it is behind the air.
        """
        why, d = refusal_of(cell.cell_c, "", self.defaults), self.defaults
        if why:
            cold = why == "cold"
            level_c = d.refuse_cold_c.value + HAIR_K if cold else d.refuse_hot_c.value - HAIR_K
            turn_ms = climate.crossing(cell.cell_c, from_ms, level_c, interval.end_ms)
            if turn_ms is not None:
                self.looks.add(turn_ms)
        return why != ""

    def _low_stores(
        self, now_ms: int, interval: FreeHands, said: Mapping[str, PlugSaid], below: float
    ) -> Iterator[Low]:
        for number, store in enumerate([*self.grid.banks, *self.grid.gears]):
            if store.charge >= below or self.grid.supply_of(store) is not None:
                continue
            wanted = _is_wanted(said.get(store.id), now_ms)
            if not self._hangs_long(_used_ms(store), now_ms, interval, wanted=wanted):
                continue
            if not refusal_of(store.cell_c, store.refused, self.defaults):
                order = 1000 + number
                yield self._as_low(store.id, store.charge, order, now_ms, bank=store)

    def _worth_unloading(
        self, run: CameraRun, now_ms: int, interval: FreeHands, *, wanted: bool
    ) -> bool:
        left_ms = self.back_by_ms(run, interval) - now_ms
        worth_s = self.defaults.worth_unloading_s.value
        return (
            run.camera.battery_comes_out
            and run.state == OFF
            and left_ms >= (self.takes_ms if wanted else worth_s * 1000)
            and not self._copied_without(run, now_ms, interval)
        )

    def _copied_without(self, run: CameraRun, now_ms: int, interval: FreeHands) -> bool:
        """Whether it is copied from where it would be without its battery, until asked on it."""
        if any(job.run is run for job in self.copying.jobs):
            return True
        awaited = self.copying.awaited(run)
        if not awaited:
            return False
        until_ms = self.timeline.next_free_end_ms(now_ms)
        for span in run.schedule.within(now_ms, until_ms):
            if span.recording is not None and span.recording.set_up.power != "outside_only":
                until_ms = min(until_ms, span.start_ms)
        places = self.timeline.places(now_ms, max(interval.end_ms, until_ms))
        return not awaited.isdisjoint(places)

    def back_by_ms(self, run: CameraRun, interval: FreeHands) -> int:
        """Until when a battery that is taken out to charge may stay out (model/hands#overnight).

        To the last chance before its camera is asked: over the night, where hands are free again
        before that.
        """
        if next_start_ms(run) < interval.end_ms:
            return self.handling.late_as_can_be_ms(run, interval)
        due_ms = interval.end_ms - self.handling.last_chance_ms(interval)
        if self.timeline.sleeps_from(interval.end_ms):
            after = self.timeline.free_interval(self.timeline.next_free_ms(interval.start_ms))
            if after is not None and next_start_ms(run) >= after.start_ms + due_ms:
                return self.back_by_ms(run, after)
        return interval.end_ms - due_ms

    def _as_low(
        self,
        unit: str,
        charge: float,
        order: int,
        now_ms: int,
        cell: Cell | None = None,
        camera: CameraRun | None = None,
        bank: StoreRun | None = None,
    ) -> Low:
        uses_ms = [at_ms for _, _, at_ms in self.plan.promised.get(unit, ())]
        used_ms = min((u for u in uses_ms if now_ms <= u < now_ms + SOON_MS), default=NEVER_MS)
        full_by_ms = self.plan.full_by_ms.get(unit, NEVER_MS)
        return Low(used_ms, full_by_ms, charge, order, unit, cell, camera, bank)

    # -- where it can be plugged ----------------------------------------------------

    def _plug(self, low: Low, now_ms: int, where: PlugSaid) -> AnyTask | None:
        if low.cell is not None:
            return self._into_charger(low.cell, low.camera, now_ms, where)
        consumer: Consumer | None = low.camera or low.bank
        assert consumer is not None
        supply = self._supply_for(consumer, now_ms, where)
        if supply is None:
            return None
        takes_ms, port, order = self.takes_ms, where.place, low.order
        stays = where.to != ""
        return PlugIn(PLUG_RANK, 0, order, takes_ms, low.camera, consumer, supply, port, stays)

    def _into_charger(
        self, cell: Cell, camera: CameraRun | None, now_ms: int, where: PlugSaid
    ) -> LayInCharger | None:
        for charger in self.grid.chargers:
            if cell.family not in charger.charger.families or where.to not in ("", charger.id):
                continue
            bay = _bay_of(charger, where.place)
            if bay is None:
                continue
            hung = self.grid.supply_of(charger)
            supply = None
            if hung is None or hung.gives_w(now_ms) <= 0.0:
                supply = self._supply_for(charger, now_ms, ANYWHERE)
                if supply is None and hung is None:
                    continue
            takes_ms = self.takes_ms
            if camera is not None:
                takes_ms += self.handling.unloading_ms(camera)
            order = cell.document_order
            return LayInCharger(PLUG_RANK, 0, order, takes_ms, camera, cell, charger, bay, supply)
        return None

    def _supply_for(self, consumer: Consumer, now_ms: int, where: PlugSaid) -> Supply | None:
        """The best source with a free port that gives something, now or within a day.

        Or the one that the plan names, where its port is free.
        """
        found = [
            s
            for s in self.grid.supplies
            if where.to in ("", s.source.id)
            and (where.place < 0 or s.is_free(where.place))
            and self._may_hang(consumer, s, now_ms, named=where.to != "")
        ]
        return min(found, key=lambda s: PREFERENCE[s.source.kind], default=None)

    def _may_hang(self, consumer: Consumer, supply: Supply, now_ms: int, *, named: bool) -> bool:
        if supply.port_of(consumer) is not None or not self._has_room(supply, consumer):
            return False
        if supply.bank is not None:
            if supply.bank.module or supply.bank.dry or not (consumer.on_banks or named):
                return False
            if any(bank is consumer for bank in self.grid.behind(supply)):
                return False  # it would charge itself, by way of others perhaps
            return supply.bank.charge > supply.bank.floor() + WORTH_TAKING
        if isinstance(supply.source, Mains):
            return supply.table.at(now_ms) > 0.0
        return supply.table.ever(now_ms, now_ms + SOON_MS)

    def _has_room(self, supply: Supply, consumer: Consumer) -> bool:
        """Whether a port is free beside those that the plan keeps for other cameras it feeds."""
        free = sum(one is None for one in supply.ports)
        hung = {one.id for one in (*supply.ports, consumer) if one is not None and one.runs}
        return free > len(self.plan.fed.get(supply.source.id, NONE_FED) - hung)

    def _wake(self, now_ms: int) -> WakeBank | None:
        """A bank that switched itself off while something on it wants power for long enough.

        One bank at most once an hour (model/hands#plug).
        """
        low_w = self.defaults.bank_off_below_w.value
        for number, supply in enumerate(self.grid.supplies):
            bank = supply.bank
            if bank is None or not bank.switched_off or bank.dry:
                continue
            hung = [one.would_take_w() for one in supply.ports if one is not None]
            if sum(hung, 0.0) < low_w:
                continue
            if bank.woken_ms is not None and now_ms < bank.woken_ms + WAKE_AGAIN_MS:
                self.looks.add(bank.woken_ms + WAKE_AGAIN_MS)
                continue
            return WakeBank(PLUG_RANK, 0, number, self.takes_ms, supply)
        return None

    def _hang_elsewhere(self, now_ms: int) -> PlugIn | None:
        """A charger or bank whose source gives nothing, while another one does."""
        for number, charger in enumerate(self.grid.chargers):
            hung = self.grid.supply_of(charger)
            waits = charger.wants_w() > 0.0
            if not waits or (hung is not None and hung.gives_w(now_ms) > 0.0):
                continue
            better = self._supply_for(charger, now_ms, ANYWHERE)
            if better is not None and better.gives_w(now_ms) > 0.0:
                return PlugIn(PLUG_RANK, 0, number, self.takes_ms, None, charger, better)
        return None


def _used_ms(store: StoreRun) -> int:
    """When a thing with a battery is used next, and comes off its cable; NEVER_MS for a bank."""
    next_ms = store.next_use_ms() if isinstance(store, GearRun) else None
    return NEVER_MS if next_ms is None else next_ms


def _is_wanted(said: PlugSaid | None, now_ms: int) -> bool:
    return said is not None and said.plug and now_ms >= said.at_ms


def _bay_of(charger: ChargerRun, place: int) -> int | None:
    """The bay that is named, or the first that is free or holds what is full; None: none is."""
    if place >= 0:
        if place >= len(charger.bays):
            return None
        cell = charger.bays[place].cell
        return place if cell is None or _full(cell) else None
    bay = charger.free_bay()
    if bay is not None:
        return bay
    return next((n for n, one in enumerate(charger.bays) if one.cell and _full(one.cell)), None)


def _full(cell: Cell) -> bool:
    return cell.charge >= cell.intake.full - 1e-9
