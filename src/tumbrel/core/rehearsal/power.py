"""Sources, banks and chargers: who gets how much, until when (E4).

What a port grants is fixed from one event of the grid to the next; a cell in its taper takes
less than was granted. Grants are made anew at every plug, start, stop, full cell, refusal and
change of a source.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from ..charging import MS_PER_HOUR, NEVER_MS
from ..cold import ColdCurve, cold_curve
from ..document import Bank, Charger, PlanDocument, Source
from ..energy import nominal_wh
from ..parameters import Defaults
from .body_state import refusal_of
from .camera_run import CameraRun
from .climate import PlaceClimate, place_climate
from .log import Log
from .march import first_zero
from .pools import CHARGER_MARK, Cell
from .supply_table import SupplyTable, supply_table
from .timeline import Timeline

SOON_MS = 24 * 3_600_000
ROW_MS = 600_000
LEAST_WH = 1e-9


@dataclass(slots=True)
class Bay:
    """One place of a charger."""

    cell: Cell | None = None
    into_w: float = 0.0


@dataclass(slots=True)
class ChargerRun:
    """A charger with what lies in it."""

    charger: Charger
    bays: list[Bay]
    granted_w: float = 0.0
    port_wh: float = 0.0
    lost_wh: float = 0.0

    @property
    def id(self) -> str:
        """Of the charger."""
        return self.charger.id

    def place_of(self, bay: int) -> str:
        """The name of a bay as a place."""
        return f"{self.charger.id}{CHARGER_MARK}{bay + 1}"

    def free_bay(self) -> int | None:
        """The first bay with nothing in it."""
        return next((n for n, bay in enumerate(self.bays) if bay.cell is None), None)

    def take_out(self, cell: Cell) -> None:
        """Empty the bay that a cell lies in."""
        for bay in self.bays:
            if bay.cell is cell:
                bay.cell, bay.into_w = None, 0.0

    def active(self) -> list[Bay]:
        """Bays that charge now: all, or the first that takes any (in turn)."""
        taking = [
            bay
            for bay in self.bays
            if bay.cell and not bay.cell.refused and bay.cell.charge < bay.cell.intake.full
        ]
        return taking if self.charger.together else taking[:1]

    def wants_w(self, efficiency: float) -> float:
        """What it would take from its port [W]."""
        most = self.charger.bay_w or self.charger.in_w
        wanted = sum(
            min(most, bay.cell.intake.taper_w(bay.cell.charge) / efficiency)
            for bay in self.active()
            if bay.cell
        )
        return min(self.charger.in_w, wanted)

    def grant(self, watts: float, efficiency: float) -> None:
        """Share out what the port gives, bay by bay."""
        self.granted_w = left = watts
        most = self.charger.bay_w or self.charger.in_w
        for bay in self.bays:
            bay.into_w = 0.0
        for bay in self.active():
            assert bay.cell is not None
            wanted = min(most, bay.cell.intake.taper_w(bay.cell.charge) / efficiency)
            given = min(left, wanted)
            bay.into_w = given * efficiency
            left -= given

    def taking_w(self, efficiency: float) -> float:
        """What it takes from its port now [W]."""
        return sum(
            min(bay.into_w, bay.cell.intake.taper_w(bay.cell.charge)) / efficiency
            for bay in self.bays
            if bay.cell and bay.into_w > 0.0
        )


@dataclass(slots=True)
class BankRun:
    """A power bank's store (E4.3)."""

    bank: Bank
    wh: float
    charge: float
    curve: ColdCurve
    climate: PlaceClimate
    cell_c: float
    loads_w: float
    now_ms: int = 0
    into_w: float = 0.0
    refused: str = ""
    dry: bool = False
    switched_off: bool = False
    low_since_ms: int | None = None
    reserve_touched_ms: int | None = None
    port_wh: float = 0.0
    used_wh: float = 0.0
    lost_wh: float = 0.0
    rows: Log[tuple[int, float, float]] = field(default_factory=Log)

    @property
    def id(self) -> str:
        """Of the bank."""
        return self.bank.id

    def floor(self, efficiency: float) -> float:
        """Charge below which no camera gets anything: the cold's line, or the reserve (E4.6)."""
        return max(self.curve.at(self.cell_c), self.bank.reserve_wh / (self.wh * efficiency))


Consumer = CameraRun | ChargerRun | BankRun


@dataclass(slots=True)
class Supply:
    """A source with what hangs on its ports."""

    source: Source
    table: SupplyTable
    ports: list[Consumer | None]
    bank: BankRun | None = None
    granted_w: float = 0.0
    seen_wh: dict[str, float] = field(default_factory=dict)
    given_wh: float = 0.0

    def port_of(self, consumer: Consumer) -> int | None:
        """The port on which something hangs."""
        return next((n for n, one in enumerate(self.ports) if one is consumer), None)

    def free_port(self) -> int | None:
        """The first port with nothing on it."""
        return next((n for n, one in enumerate(self.ports) if one is None), None)

    def gives_w(self, at_ms: int) -> float:
        """What it can give in all at a time [W]."""
        if self.bank is not None and (self.bank.dry or self.bank.switched_off):
            return 0.0
        return self.table.at(at_ms)


@dataclass(frozen=True, slots=True)
class Switched:
    """Something about a source or a charging cell that the person should know."""

    at_ms: int
    unit: str
    what: str


class Grid:
    """All sources and chargers of a trip, advanced from event to event."""

    def __init__(self, document: PlanDocument, timeline: Timeline, defaults: Defaults) -> None:
        self.defaults = defaults
        self.chargers = [
            ChargerRun(charger, [Bay() for _ in range(charger.bays)])
            for charger in document.kit.chargers
        ]
        self.supplies = [
            Supply(source, supply_table(source, document, timeline, defaults), _ports(source))
            for source in document.kit.sources
        ]
        self.banks: list[BankRun] = []
        for supply in self.supplies:
            if isinstance(supply.source, Bank):
                supply.bank = _bank(supply.source, document, timeline, defaults)
                self.banks.append(supply.bank)
        self.now_ms = 0
        self.due_ms = NEVER_MS
        self.log: Log[Switched] = Log()
        self.full_events: Log[tuple[int, str]] = Log()

    # -- who hangs where ------------------------------------------------------------

    def supply_of(self, consumer: Consumer) -> Supply | None:
        """The source on which something hangs."""
        return next((s for s in self.supplies if s.port_of(consumer) is not None), None)

    def attach(self, consumer: Consumer, supply: Supply) -> None:
        """Put something on a free port. Raises ValueError when there is none."""
        port = supply.free_port()
        if port is None:
            raise ValueError(f"no port of {supply.source.id} is free")
        self.detach(consumer)
        supply.ports[port] = consumer
        supply.seen_wh[_id(consumer)] = consumer.port_wh
        if supply.bank is not None:
            supply.bank.switched_off = False

    def detach(self, consumer: Consumer) -> None:
        """Take something off its port."""
        supply = self.supply_of(consumer)
        if supply is None:
            return
        port = supply.port_of(consumer)
        assert port is not None
        supply.ports[port] = None
        if isinstance(consumer, CameraRun):
            consumer.feed(0.0)
        elif isinstance(consumer, ChargerRun):
            consumer.grant(0.0, self.defaults.charge_efficiency.value)
        else:
            consumer.into_w = 0.0

    def charger_of(self, cell: Cell) -> ChargerRun | None:
        """The charger in which a cell lies."""
        return next((c for c in self.chargers for bay in c.bays if bay.cell is cell), None)

    # -- advancing ------------------------------------------------------------------

    @property
    def idle(self) -> bool:
        """Whether nothing hangs on any source, so that no grant is to be made."""
        return all(one is None for supply in self.supplies for one in supply.ports)

    def advance(self, to_ms: int) -> None:
        """Move everything that is not a camera to a time; cameras on a port are moved too."""
        elapsed_ms = to_ms - self.now_ms
        if elapsed_ms <= 0:
            return
        for charger in self.chargers:
            self._advance_charger(charger, to_ms)
        for supply in self.supplies:
            for consumer in supply.ports:
                if isinstance(consumer, CameraRun):
                    consumer.advance(to_ms)
        for bank in self.banks:
            self._bring_in(bank, elapsed_ms)
        for supply in self.supplies:
            self._give(supply, elapsed_ms)
        for bank in self.banks:
            bank.cell_c = bank.climate.after(bank.cell_c, self.now_ms, to_ms)
            bank.now_ms = to_ms
            if not bank.rows or to_ms - bank.rows[-1][0] >= ROW_MS:
                bank.rows.append((to_ms, bank.charge, bank.cell_c))
        self.now_ms = to_ms

    def _advance_charger(self, charger: ChargerRun, to_ms: int) -> None:
        efficiency = self.defaults.charge_efficiency.value
        for bay in charger.bays:
            cell = bay.cell
            if cell is None:
                continue
            if bay.into_w > 0.0:
                before = cell.charge
                cell.charge = cell.intake.charge_after(before, bay.into_w, to_ms - self.now_ms)
                into_wh = (cell.charge - before) * cell.wh
                charger.port_wh += into_wh / efficiency
                charger.lost_wh += into_wh / efficiency - into_wh
            cell.cell_c = cell.bag_climate.after(cell.cell_c, self.now_ms, to_ms)
            cell.since_ms = to_ms
            if not cell.rows or to_ms - cell.rows[-1][0] >= ROW_MS:
                cell.rows.append((to_ms, cell.charge, cell.cell_c))

    def _bring_in(self, bank: BankRun, elapsed_ms: int) -> None:
        if bank.into_w <= 0.0:
            return
        efficiency = self.defaults.charge_efficiency.value
        into_wh = bank.into_w * elapsed_ms / MS_PER_HOUR
        into_wh = min(into_wh, max(0.0, self.defaults.full.value - bank.charge) * bank.wh)
        bank.charge += into_wh / bank.wh
        bank.port_wh += into_wh / efficiency
        bank.lost_wh += into_wh / efficiency - into_wh

    def _give(self, supply: Supply, elapsed_ms: int) -> None:
        """Book what its ports took since it was last looked at, and a bank's other loads."""
        taken_wh = 0.0
        for consumer in supply.ports:
            if consumer is not None:
                taken_wh += consumer.port_wh - supply.seen_wh[_id(consumer)]
                supply.seen_wh[_id(consumer)] = consumer.port_wh
        supply.given_wh += taken_wh
        bank = supply.bank
        if bank is None:
            return
        efficiency = self.defaults.bank_efficiency.value
        line = bank.curve.at(bank.cell_c)
        loads_wh = bank.loads_w * elapsed_ms / MS_PER_HOUR
        loads_wh = min(loads_wh, max(0.0, (bank.charge - line) * bank.wh * efficiency - taken_wh))
        bank.used_wh += loads_wh
        out_wh = (taken_wh + loads_wh) / efficiency
        reserve = bank.bank.reserve_wh / (bank.wh * efficiency)
        before = bank.charge
        bank.charge = max(0.0, bank.charge - out_wh / bank.wh)
        bank.lost_wh += (before - bank.charge) * bank.wh - taken_wh - loads_wh
        if bank.reserve_touched_ms is None and bank.charge < reserve - 1e-9 <= before + 1e-6:
            bank.reserve_touched_ms = self.now_ms + elapsed_ms

    # -- grants ---------------------------------------------------------------------

    def settle(self) -> None:
        """Review refusals, make every grant anew, and find when to look again."""
        for charger in self.chargers:
            for bay in charger.bays:
                if bay.cell is not None:
                    self._review(bay.cell, charger)
        for bank in self.banks:
            self._review_bank(bank)
        for supply in self.supplies:
            self._grant(supply)
        self._watch_low_load()
        self.due_ms = self._next_ms()

    def _review(self, cell: Cell, charger: ChargerRun) -> None:
        before = cell.refused
        cell.refused = refusal_of(cell.cell_c, before, self.defaults)
        live = self.supply_of(charger) is not None
        if live and cell.refused and cell.refused != before:
            self.log.append(Switched(self.now_ms, cell.id, f"refused_{cell.refused}"))

    def _review_bank(self, bank: BankRun) -> None:
        bank.refused = refusal_of(bank.cell_c, bank.refused, self.defaults)
        floor = bank.floor(self.defaults.bank_efficiency.value)
        if bank.charge <= floor + 1e-7 and not bank.dry:
            bank.dry = True
            self.log.append(Switched(self.now_ms, bank.id, "dry"))
        elif bank.dry and bank.charge >= floor + self.defaults.revival.value:
            bank.dry = False

    def _grant(self, supply: Supply) -> None:
        """Feeding cameras first, then port by port (E4.5); none more than its port gives."""
        left = supply.gives_w(self.now_ms)
        efficiency = self.defaults.charge_efficiency.value
        order = [n for n, one in enumerate(supply.ports) if one is not None]
        order.sort(key=lambda n: (not _feeds(supply.ports[n]), n))
        supply.granted_w = 0.0
        for port in order:
            consumer = supply.ports[port]
            most = min(left, supply.source.ports[port])
            if isinstance(consumer, CameraRun):
                consumer.review_refusal()
                given = min(most, consumer.wants_w())
                consumer.feed(given)
                consumer.plan_next()
            elif isinstance(consumer, ChargerRun):
                given = min(most, consumer.wants_w(efficiency))
                consumer.grant(given, efficiency)
            else:
                assert consumer is not None
                takes = not consumer.refused and consumer.charge < self.defaults.full.value
                given = min(most, consumer.bank.in_w) if takes else 0.0
                consumer.into_w = given * efficiency
            left -= given
            supply.granted_w += given

    def _watch_low_load(self) -> None:
        """A bank with too little to do switches itself off after a while (E4.3)."""
        low_w = self.defaults.bank_off_below_w.value
        after_ms = round(self.defaults.bank_off_after_s.value * 1000)
        for supply in self.supplies:
            bank = supply.bank
            if bank is None or bank.bank.stays_on:
                continue
            hung = any(one is not None for one in supply.ports)
            if not hung or bank.switched_off or self._taken_w(supply) >= low_w:
                bank.low_since_ms = None
            elif bank.low_since_ms is None:
                bank.low_since_ms = self.now_ms
            elif self.now_ms >= bank.low_since_ms + after_ms:
                bank.switched_off = True
                bank.low_since_ms = None
                camera = any(isinstance(one, CameraRun) for one in supply.ports)
                what = "switched_off_camera" if camera else "switched_off"
                self.log.append(Switched(self.now_ms, bank.id, what))
                self._grant(supply)

    def _taken_w(self, supply: Supply) -> float:
        efficiency = self.defaults.charge_efficiency.value
        total = 0.0
        for one in supply.ports:
            if isinstance(one, ChargerRun):
                total += one.taking_w(efficiency)
            elif isinstance(one, BankRun):
                total += one.into_w / efficiency
            elif one is not None:
                total += one.taking_w()
        return total

    # -- when to look again ---------------------------------------------------------

    def _next_ms(self) -> int:
        first = NEVER_MS
        for charger in self.chargers:
            live = self.supply_of(charger) is not None
            for bay in charger.bays:
                if bay.cell is not None and live:
                    first = min(first, self._bay_ms(charger, bay, bay.cell))
        for supply in self.supplies:
            if any(one is not None for one in supply.ports):
                first = min(first, supply.table.next_change(self.now_ms))
        after_ms = round(self.defaults.bank_off_after_s.value * 1000)
        for supply in self.supplies:
            bank = supply.bank
            if bank is None:
                continue
            if bank.low_since_ms is not None:
                first = min(first, bank.low_since_ms + after_ms)
            first = min(first, self._bank_ms(supply, bank, min(first, self.now_ms + SOON_MS)))
        return max(self.now_ms + 1, first)

    def _bay_ms(self, charger: ChargerRun, bay: Bay, cell: Cell) -> int:
        """When a charging cell is full, draws too little, or is refused; or may go on again."""
        d = self.defaults
        first = NEVER_MS
        if bay.into_w > 0.0:
            first = self.now_ms + cell.intake.ms_to(cell.charge, bay.into_w, cell.intake.full)
            low_into_w = d.bank_off_below_w.value * d.charge_efficiency.value
            low_at = 1.0 - (1.0 - cell.intake.kink) * low_into_w / cell.intake.most_w
            if cell.charge < low_at - 1e-9 < cell.intake.full:
                first = min(
                    first, self.now_ms + cell.intake.ms_to(cell.charge, bay.into_w, low_at) + 1
                )
        levels = [d.refuse_cold_c.value, d.refuse_hot_c.value]
        if cell.refused == "cold":
            levels = [d.resume_cold_c.value]
        elif cell.refused == "hot":
            levels = [d.resume_hot_c.value]
        bound = min(first, self.now_ms + SOON_MS)
        for level_c in levels:
            crossing = cell.bag_climate.crossing(cell.cell_c, self.now_ms, level_c, bound)
            if crossing is not None:
                first = min(first, crossing)
        return first

    def _bank_ms(self, supply: Supply, bank: BankRun, bound_ms: int) -> int:
        """When a bank may be dry or full, at the earliest: what hangs on it only takes less."""
        d = self.defaults
        first = bound_ms
        out_w = (self._taken_w(supply) + bank.loads_w) / d.bank_efficiency.value
        per_ms = (out_w - bank.into_w) / MS_PER_HOUR / bank.wh
        if bank.into_w > 0.0 and bank.charge < d.full.value and per_ms < 0.0:
            first = min(first, self.now_ms + int((d.full.value - bank.charge) / -per_ms) + 1)
        if bank.into_w > 0.0 or bank.refused:
            for level_c in (d.refuse_cold_c.value, d.refuse_hot_c.value, d.resume_cold_c.value):
                crossing = bank.climate.crossing(bank.cell_c, self.now_ms, level_c, first)
                first = min(first, crossing) if crossing is not None else first
        if bank.dry:
            return min(first, self.now_ms + ROW_MS) if bank.into_w > 0.0 else first
        dry = self._dry_ms(bank, max(0.0, per_ms), first)
        return first if dry is None else dry

    def _dry_ms(self, bank: BankRun, per_ms: float, bound_ms: int) -> int | None:
        """When charge falling at a rate [1/ms] meets the floor, at or before a bound."""
        reserve = bank.bank.reserve_wh / (bank.wh * self.defaults.bank_efficiency.value)
        climate, curve = bank.climate, bank.curve
        coldest = min(bank.cell_c, climate.coldest(self.now_ms, bound_ms))
        end = bank.charge - per_ms * (bound_ms - self.now_ms)
        if end > max(reserve, curve.at(coldest)):
            return None
        at_ms = self.now_ms
        while at_ms < bound_ms:
            step_ends = min(bound_ms, at_ms + ROW_MS)
            from_c = climate.after(bank.cell_c, self.now_ms, at_ms)
            start = bank.charge - per_ms * (at_ms - self.now_ms)
            spread = abs(from_c - climate.coldest(at_ms, step_ends))
            slope = per_ms + curve.steepest * spread / climate.lag_ms
            if slope > 0.0:

                def left(
                    at: float, began: int = at_ms, held: float = start, fall: float = slope
                ) -> tuple[float, float]:
                    cell_c = climate.after(bank.cell_c, self.now_ms, began + round(at))
                    return held - per_ms * at - max(reserve, curve.at(cell_c)), fall

                found = first_zero(left, step_ends - at_ms)
                if found is not None:
                    return at_ms + found
            at_ms = step_ends
        return None


def _feeds(consumer: Consumer | None) -> bool:
    """Whether a camera runs on the port."""
    return isinstance(consumer, CameraRun) and consumer.draw_w > 0.0


def _id(consumer: Consumer) -> str:
    return consumer.camera.id if isinstance(consumer, CameraRun) else consumer.id


def _ports(source: Source) -> list[Consumer | None]:
    return [None for _ in source.ports]


def _bank(bank: Bank, document: PlanDocument, timeline: Timeline, defaults: Defaults) -> BankRun:
    warmth = next((p.warmth for p in document.kit.pockets if p.id == bank.pocket), "bag")
    climate = place_climate(
        timeline.conditions,
        warmth,
        defaults.inside_pocket_c.value,
        defaults.tau_bank_s.value,
    )
    first = next((s.id for s in document.kit.sources if s.kind == "bank"), None)
    loads_w = sum(
        load.wh_per_day / 24.0 for load in document.kit.loads if (load.bank or first) == bank.id
    )
    wh = nominal_wh(bank.mah, defaults.bank_v.value, bank.health)
    run = BankRun(
        bank,
        wh,
        bank.charge,
        cold_curve(defaults.available),
        climate,
        climate.base_c[0],
        loads_w,
    )
    run.rows.append((0, run.charge, run.cell_c))
    return run
