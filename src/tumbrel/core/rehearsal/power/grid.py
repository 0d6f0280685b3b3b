"""Sources, banks and chargers: who gets how much, until when (model/charging#cell).

What a port grants is fixed from one event of the grid to the next; a cell in its taper takes
less than was granted. Grants are made anew at every plug, start, stop, full cell, refusal and
change of a source, and every two minutes while one bay tapers and another is short.
"""

from __future__ import annotations

from dataclasses import dataclass

from mypy_extensions import mypyc_attr

from ...charging import MS_PER_HOUR, NEVER_MS
from ..state.append_log import Log
from ..stock.batteries import Cell
from ..trip.scene import Scene
from .consumer import Consumer
from .loads import ChargerRun, Supply
from .next_event import ROW_MS, GridWatch
from .stores import BankRun, GearRun


@dataclass(frozen=True, slots=True)
class Switched:
    """Something about a source or a charging cell that the person should know."""

    at_ms: int
    unit: str
    what: str


@dataclass(frozen=True, slots=True)
class HungOn:
    """Something that was put on a port, or (no unit) taken off it."""

    at_ms: int
    source: str
    port: int
    unit: str


@mypyc_attr(serializable=True)
class Grid(GridWatch):
    """All sources and chargers of a trip, advanced from event to event.

    `rides` says which module is on a camera, by the camera's number. Of a chain the last store is
    booked first: what one takes from its own source is known once what hangs on it has been fed.
    """

    def __init__(self, scene: Scene) -> None:
        defaults = scene.defaults
        super().__init__(
            defaults,
            [ChargerRun(charger, defaults) for charger in scene.chargers],
            [Supply(source, defaults) for source in scene.sources],
        )
        self.downstream_first = list(self.supplies)
        self.banks = [supply.bank for supply in self.supplies if supply.bank is not None]
        self.gears = [GearRun(one, defaults) for one in scene.gear]
        self.rides: dict[int, str] = {}
        self.due_ms = NEVER_MS
        self.low = {bank.id for bank in self.banks}
        self.hung_count = 0
        self.log: Log[Switched] = Log()
        self.hung: Log[HungOn] = Log()

    # -- who hangs where ------------------------------------------------------------

    def supply_of(self, consumer: Consumer) -> Supply | None:
        """The source on which something hangs."""
        return None if consumer.hung_on is None else self.supplies[consumer.hung_on]

    def attach(self, consumer: Consumer, supply: Supply, wanted: int = -1) -> None:
        """Put something on a free port, or that which is wanted. Raises ValueError without one."""
        port = wanted if supply.is_free(wanted) else supply.free_port()
        if port is None:
            raise ValueError(f"no port of {supply.source.id} is free")
        self.detach(consumer)
        supply.ports[port] = consumer
        consumer.hung_on = self.supplies.index(supply)
        self.hung_count += 1
        self.hung.append(HungOn(self.now_ms, supply.source.id, port, consumer.id))
        supply.seen_wh[port] = consumer.port_wh
        bank = supply.bank
        sleeps = bank is not None and not bank.bank.stays_on
        consumer.on_store(module=bank is not None and bank.module, sleeps=sleeps)
        if supply.bank is not None:
            supply.bank.switched_off = False
        self._order(consumer)

    def detach(self, consumer: Consumer) -> None:
        """Take something off its port."""
        supply = self.supply_of(consumer)
        if supply is None:
            return
        port = supply.port_of(consumer)
        assert port is not None
        supply.ports[port] = None
        consumer.hung_on = None
        self.hung_count -= 1
        self.hung.append(HungOn(self.now_ms, supply.source.id, port, ""))
        consumer.unplug()
        self._order(consumer)

    def _order(self, consumer: Consumer) -> None:
        """Of chains of stores the last first, once one of them hangs elsewhere."""
        if isinstance(consumer, BankRun):
            self.downstream_first = sorted(
                self.supplies, key=lambda one: len(self.behind(one)), reverse=True
            )

    def behind(self, supply: Supply | None) -> list[BankRun]:
        """The stores of a chain, from a source on to the first of it."""
        found, at = [], supply
        while at is not None and at.bank is not None:
            found.append(at.bank)
            at = self.supply_of(at.bank)
        return found

    def wake_behind(self, consumer: Consumer) -> bool:
        """Switch on the banks on whose chain something hangs; whether any was off."""
        off = [bank for bank in self.behind(self.supply_of(consumer)) if bank.switched_off]
        for bank in off:
            bank.switched_off = False
        return bool(off)

    def charger_of(self, cell: Cell) -> ChargerRun | None:
        """The charger in which a cell lies."""
        return next((c for c in self.chargers for bay in c.bays if bay.cell is cell), None)

    # -- advancing ------------------------------------------------------------------

    @property
    def idle(self) -> bool:
        """Whether nothing hangs on any source, so that no grant is to be made."""
        return self.hung_count == 0

    def advance(self, to_ms: int) -> None:
        """Move everything that is not a camera to a time; cameras on a port are moved too."""
        elapsed_ms = to_ms - self.now_ms
        if elapsed_ms <= 0:
            return
        for charger in self.chargers:
            self._advance_charger(charger, to_ms)
        for supply in self.supplies:
            for consumer in supply.ports:
                if consumer is not None:
                    consumer.advance(to_ms)
        for gear in self.gears:
            gear.go(to_ms)
            gear.note(to_ms, ROW_MS)
        for supply in self.downstream_first:
            self._give(supply, elapsed_ms)
        for bank in self.banks:
            bank.cell_c = bank.climate.after(bank.cell_c, self.now_ms, to_ms)
            bank.note(to_ms, ROW_MS)
        self.now_ms = to_ms

    def _advance_charger(self, charger: ChargerRun, to_ms: int) -> None:
        for bay in charger.bays:
            cell = bay.cell
            if cell is None:
                continue
            charger.bring_in(bay, to_ms - self.now_ms)
            cell.cell_c = cell.bag_climate.after(cell.cell_c, self.now_ms, to_ms)
            cell.since_ms = to_ms
            filled = bay.into_w > 0.0 and cell.charge >= cell.intake.full - 1e-9
            if filled or not cell.rows or to_ms - cell.rows[-1][0] >= ROW_MS:
                cell.rows.append((to_ms, cell.charge, cell.cell_c))

    def _give(self, supply: Supply, elapsed_ms: int) -> None:
        """Book what its ports took since it was last looked at, and a bank's other loads."""
        taken_wh = 0.0
        seen_wh = supply.seen_wh
        for port, consumer in enumerate(supply.ports):
            if consumer is not None:
                taken_wh += consumer.port_wh - seen_wh[port]
                seen_wh[port] = consumer.port_wh
        supply.given_wh += taken_wh
        bank = supply.bank
        if bank is None:
            return
        passed_wh = bank.passed_on(taken_wh, elapsed_ms)
        taken_wh -= passed_wh
        efficiency = bank.efficiency
        loads_wh = bank.loads_w * elapsed_ms / MS_PER_HOUR
        idle_wh = supply.idle_w() * elapsed_ms / MS_PER_HOUR
        bank.bring_in(passed_wh, (taken_wh + loads_wh) / efficiency + idle_wh, elapsed_ms)
        line = bank.curve.at(bank.cell_c)
        loads_wh = min(loads_wh, max(0.0, (bank.charge - line) * bank.wh * efficiency - taken_wh))
        bank.used_wh += loads_wh
        out_wh = (taken_wh + loads_wh) / efficiency
        reserve = bank.reserve
        before = bank.charge
        bank.charge = max(0.0, bank.charge - (out_wh + idle_wh) / bank.wh)
        bank.lost_wh += (before - bank.charge) * bank.wh - taken_wh - loads_wh
        if bank.reserve_touched_ms is None and bank.charge < reserve - 1e-9 <= before + 1e-6:
            bank.reserve_touched_ms = self.now_ms + elapsed_ms

    def standing(self) -> tuple[object, ...]:
        """What hands would look at: full and refused cells, banks, and sources that give."""
        cells = [bay.cell for charger in self.chargers for bay in charger.bays if bay.cell]
        return (
            [(cell.id, cell.topped, cell.refused) for cell in cells],
            [(bank.dry, bank.switched_off, bank.topped, bank.refused) for bank in self.banks],
            [(gear.dry, gear.topped, gear.refused, gear.in_use()) for gear in self.gears],
            [supply.gives_w(self.now_ms) > 0.0 for supply in self.supplies],
        )

    def newly_low(self) -> bool:
        """Whether a bank has fallen so low, since this was last asked, that it is worth a hand."""
        below = self.defaults.chargeable_below.value
        low = {bank.id for bank in self.banks if bank.charge < below}
        before, self.low = self.low, low
        return not low <= before

    def only_banks_fed(self, at_ms: int) -> bool:
        """Do all that is due where sources that only feed banks have changed, and nothing else.

        False, and nothing done, when more than that is due.
        """
        changed = [s for s in self.supplies if s.table.next_change(self.now_ms) == at_ms]
        fed = [one for supply in changed for one in supply.ports if one is not None]
        plain = all(isinstance(one, BankRun) and not one.module for one in fed)
        if at_ms >= self.others_due_ms or not plain:
            return False
        self.advance(at_ms)
        for one in fed:
            assert isinstance(one, BankRun)
            if self._review_bank(one):
                self.settle()
                return True
        for supply in changed:
            self._grant(supply)
        self.due_ms = self.next_of_banks_ms()
        return True

    # -- grants ---------------------------------------------------------------------

    def settle(self) -> None:
        """Review refusals, make every grant anew, and find when to look again."""
        for charger in self.chargers:
            for bay in charger.bays:
                if bay.cell is not None:
                    self._review(bay.cell, charger)
        for bank in self.banks:
            self._review_bank(bank)
        for gear in self.gears:
            self._review_gear(gear)
        for supply in reversed(self.downstream_first):
            if any(one is not None for one in supply.ports):
                self._grant(supply)
            bank_run = supply.bank
            if bank_run is not None and bank_run.module:
                bank_run.flow(self.taken_w(supply))
        self._watch_low_load()
        self.due_ms = self.next_ms()

    def _review(self, cell: Cell, charger: ChargerRun) -> None:
        before = cell.refused
        cell.review(self.defaults)
        live = self.supply_of(charger) is not None
        if live and cell.refused and cell.refused != before:
            self.log.append(Switched(self.now_ms, cell.id, f"refused_{cell.refused}"))

    def _review_bank(self, bank: BankRun) -> bool:
        """Whether it is refused, full or dry now; true when that has changed."""
        dry = bank.dry
        changed = bank.review()
        if changed:
            bank.note(self.now_ms, 1)
        if bank.dry and not dry:
            self.log.append(Switched(self.now_ms, bank.id, "dry"))
        return changed

    def _review_gear(self, gear: GearRun) -> None:
        """Used now, it comes off its cable; it is told when it dies."""
        dry, drain_w = gear.dry, gear.drain_w
        changed = gear.settle()
        if gear.in_use():
            self.detach(gear)
            changed = gear.settle() or changed
        if changed or gear.drain_w != drain_w:
            gear.note(self.now_ms, 1)
        if gear.dry and not dry:
            self.log.append(Switched(self.now_ms, gear.id, "dry"))

    def _grant(self, supply: Supply) -> None:
        """Feeding cameras first, then port by port; none more than its port gives.

        Source: model/hands#plug.
        """
        left = supply.gives_w(self.now_ms)
        order = [n for n, one in enumerate(supply.ports) if one is not None]
        if len(order) > 1:
            order.sort(key=lambda n: (not _draws(supply.ports[n]), n))
        for port in order:
            consumer = supply.ports[port]
            assert consumer is not None
            if isinstance(consumer, BankRun) and consumer.module:
                consumer.below_w = self._wanted_below(consumer)
            left -= consumer.grant(min(left, supply.source.ports[port]))

    def _wanted_below(self, module: BankRun) -> float:
        """What the camera on a module would take of it [W]."""
        own = next(one for one in self.supplies if one.bank is module)
        wanted = [one.wants_w() for one in own.ports if one is not None]
        return min(own.source.ports[0], sum(wanted, 0.0))

    def _watch_low_load(self) -> None:
        """A bank with too little to do switches itself off after a while (model/charging#bank)."""
        low_w = self.defaults.bank_off_below_w.value
        after_ms = round(self.defaults.bank_off_after_s.value * 1000)
        for supply in self.supplies:
            bank = supply.bank
            if bank is None or bank.bank.stays_on:
                continue
            hung = any(one is not None for one in supply.ports)
            if not hung or bank.dry or bank.switched_off or self.taken_w(supply) >= low_w:
                bank.low_since_ms = None
            elif bank.low_since_ms is None:
                bank.low_since_ms = self.now_ms
            elif self.now_ms >= bank.low_since_ms + after_ms:
                bank.switched_off = True
                bank.low_since_ms = None
                camera = any(one is not None and one.runs for one in supply.ports)
                what = "switched_off_camera" if camera else "switched_off"
                self.log.append(Switched(self.now_ms, bank.id, what))
                self._grant(supply)


def _draws(consumer: Consumer | None) -> bool:
    """Whether a camera runs on the port now."""
    return consumer is not None and consumer.draws
