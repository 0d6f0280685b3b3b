"""When the grid must be looked at again: a full, empty or refused cell, a bank, a source.

Source: model/charging#cell.
"""

from __future__ import annotations

from math import log
from typing import Final

from mypy_extensions import mypyc_attr

from ...charging import MS_PER_HOUR, NEVER_MS
from ...parameters import Defaults
from ...two_lags import first_zero
from ..stock.batteries import Cell
from ..trip.climate import PlaceClimate
from .consumer import Consumer
from .loads import SHARE_MS, Bay, ChargerRun, Supply
from .stores import TOPPED, BankRun, GearRun, StoreRun

SOON_MS: Final = 24 * 3_600_000
ROW_MS: Final = 600_000
SECOND_MS: Final = 1000
LOOK_MS: Final = 10_000


@mypyc_attr(serializable=True)
class GridWatch:
    """Finds the grid's next event from what hangs where."""

    def __init__(
        self, defaults: Defaults, chargers: list[ChargerRun], supplies: list[Supply]
    ) -> None:
        self.defaults = defaults
        self.now_ms = 0
        self.bays_due_ms = self.others_due_ms = NEVER_MS
        self.chargers = chargers
        self.supplies = supplies
        self.gears: list[GearRun] = []

    def taken_w(self, supply: Supply) -> float:
        """What its ports take now [W]."""
        total = 0.0
        for one in supply.ports:
            if isinstance(one, BankRun) and one.module:  # it passes on what its camera takes now
                total += one.takes_with_w(self.taken_w(self._own(one)))
            elif one is not None:
                total += one.taking_w()
        return total

    def _own(self, module: BankRun) -> Supply:
        return next(one for one in self.supplies if one.bank is module)

    def _taper_ms(self, one: Consumer) -> float:
        """The lag with which what it takes falls, or what its camera takes of it [ms]."""
        if not isinstance(one, BankRun) or not one.module:
            return one.taper_ms()
        return max(
            (each.taper_ms() for each in self._own(one).ports if each is not None), default=0.0
        )

    def next_ms(self) -> int:
        """When to look again [ms]."""
        first = NEVER_MS
        for charger in self.chargers:
            if charger.hung_on is None:
                continue
            for bay in charger.bays:
                if bay.cell is not None:
                    first = min(first, self._bay_ms(bay, bay.cell))
        if any(c.short for c in self.chargers) and any(c.tapers() for c in self.chargers):
            first = min(first, self.now_ms + SHARE_MS)
        self.bays_due_ms = first
        return self.next_of_banks_ms()

    def next_of_banks_ms(self) -> int:
        """When to look again [ms], where nothing has changed for chargers."""
        first = self.bays_due_ms
        after_ms = round(self.defaults.bank_off_after_s.value * 1000)
        for supply in self.supplies:
            bank = supply.bank
            if bank is None:
                continue
            if bank.low_since_ms is not None:
                first = min(first, bank.low_since_ms + after_ms)
            elif not (bank.bank.stays_on or bank.switched_off or bank.dry):
                first = min(first, self._low_load_ms(supply))
            first = min(first, self._bank_ms(supply, bank, min(first, self.now_ms + SOON_MS)))
        for gear in self.gears:
            first = min(first, self._gear_ms(gear, min(first, self.now_ms + SOON_MS)))
        self.others_due_ms = first
        for supply in self.supplies:
            if any(one is not None for one in supply.ports):
                first = min(first, supply.table.next_change(self.now_ms))
        return max(self.now_ms + 1, first)

    def _low_load_ms(self, supply: Supply) -> int:
        """When what cameras take as they fill may be too little for a bank, at the earliest."""
        lags_ms = [self._taper_ms(one) for one in supply.ports if one is not None]
        tapering = [lag_ms for lag_ms in lags_ms if lag_ms > 0.0]
        low_w, taken_w = self.defaults.bank_off_below_w.value, self.taken_w(supply)
        if not tapering or taken_w < low_w:
            return NEVER_MS
        return self.now_ms + max(SECOND_MS, int(min(tapering) * log(taken_w / low_w)) + 1)

    def _bay_ms(self, bay: Bay, cell: Cell) -> int:
        """When a charging cell is full, draws too little, or is refused; or may go on again.

        At most a day ahead: so far temperatures are searched.
        """
        d = self.defaults
        first = self.now_ms + SOON_MS
        if bay.into_w > 0.0:
            full_ms = cell.intake.ms_to(cell.charge, bay.into_w, cell.intake.full)
            first = min(first, self.now_ms + full_ms)
            kink = cell.intake.kink_for(bay.into_w)
            if cell.charge < kink - 1e-9:
                first = min(first, self.now_ms + cell.intake.ms_to(cell.charge, bay.into_w, kink))
            low_into_w = d.bank_off_below_w.value * d.charge_efficiency.value
            low_at = 1.0 - (1.0 - cell.intake.kink) * low_into_w / cell.intake.most_w
            if cell.charge < low_at - 1e-9 < cell.intake.full:
                first = min(
                    first, self.now_ms + cell.intake.ms_to(cell.charge, bay.into_w, low_at) + 1
                )
        return min(first, self._turns_ms(cell))

    def _turns_ms(self, cell: Cell) -> int:
        """When a charging cell is refused, or no more, or fills at another rate; found once."""
        d = self.defaults
        if cell.turns_ms > self.now_ms and cell.turns_as == (cell.refused, cell.cool):
            return cell.turns_ms
        turn = d.warm_above_c if cell.cool else d.cool_below_c
        also = [] if cell.refused else [turn.value]
        first = self._first_turn_ms(cell.bag_climate, cell.cell_c, cell.refused, also)
        cell.turns_as, cell.turns_ms = (cell.refused, cell.cool), first
        return first

    def _bank_ms(self, supply: Supply, bank: BankRun, bound_ms: int) -> int:
        """When a bank may be dry or full, at the earliest: what hangs on it only takes less."""
        taken_w, room = self.taken_w(supply), self.defaults.full.value - bank.charge
        if bank.into_w > 0.0 and room > TOPPED and supply.tapers():
            alone_ms = int(room * bank.wh / bank.into_w * MS_PER_HOUR) + 1
            bound_ms = min(bound_ms, self.now_ms + max(LOOK_MS, alone_ms))
        if bank.module:
            taken_w -= min(taken_w, bank.granted_w)
        out_w = (taken_w + bank.loads_w) / bank.efficiency
        return self._store_ms(bank, out_w + supply.idle_w() - bank.into_w, bound_ms)

    def _gear_ms(self, gear: GearRun, bound_ms: int) -> int:
        """When something with a battery is used next or no more, or may be dead or full."""
        turn_ms = gear.turn_ms()
        first = bound_ms if turn_ms is None else min(bound_ms, turn_ms)
        if gear.drain_w <= 0.0 and gear.into_w <= 0.0 and not gear.dry:
            return min(first, self._refused_ms(gear))
        gives = gear.drain_w > 0.0  # what is off does not give out, however little is in it
        return self._store_ms(gear, gear.drain_w - gear.into_w, first, gives=gives)

    def _store_ms(self, bank: StoreRun, out_w: float, bound_ms: int, *, gives: bool = True) -> int:
        """When a store from which some watts go is dry, full or refused, or wakes."""
        d = self.defaults
        first = bound_ms
        per_ms = out_w / MS_PER_HOUR / bank.wh
        if bank.into_w > 0.0 and bank.charge < d.full.value - TOPPED and per_ms < 0.0:
            first = min(first, self.now_ms + int((d.full.value - bank.charge) / -per_ms) + 1)
        spare = bank.charge - d.chargeable_below.value
        if spare >= 0.0 and per_ms > 0.0:  # then it takes charge again, or is worth a hand
            first = min(first, self.now_ms + int(spare / per_ms) + 1)
        first = min(first, self._refused_ms(bank))
        if bank.dry:
            if per_ms < 0.0:  # looked at again and again, as the cold's line moves
                short = bank.floor() + d.revival.value - bank.charge
                first = min(first, self.now_ms + min(ROW_MS, max(0, int(short / -per_ms)) + 1))
            return min(first, self._wakes_ms(bank, first))
        if not gives:
            return first
        dry = self._dry_ms(bank, max(0.0, per_ms), first)
        return first if dry is None else dry

    def _refused_ms(self, store: StoreRun) -> int:
        """When a store is too cold or hot to be charged, or no more; found once."""
        if store.turns_ms > self.now_ms and store.turns_as == store.refused:
            return store.turns_ms
        first = self._first_turn_ms(store.climate, store.cell_c, store.refused, [])
        store.turns_as, store.turns_ms = store.refused, first
        return first

    def _first_turn_ms(
        self, climate: PlaceClimate, cell_c: float, refused: str, also: list[float]
    ) -> int:
        """When charging is refused, or no more, or another level is met; at most a day ahead."""
        d, first = self.defaults, self.now_ms + SOON_MS
        levels = [d.refuse_cold_c.value, d.refuse_hot_c.value]
        if refused:
            levels = [d.resume_cold_c.value if refused == "cold" else d.resume_hot_c.value]
        for level_c in (*levels, *also):
            crossing = climate.crossing(cell_c, self.now_ms, level_c, first)
            first = first if crossing is None else min(first, crossing)
        return first

    def _wakes_ms(self, bank: StoreRun, bound_ms: int) -> int:
        """When a dry bank has warmed enough to give again, at or before a bound.

        Source: model/cold#reach.
        """
        spare = bank.charge - self.defaults.revival.value
        if spare < bank.reserve:
            return bound_ms
        level_c = bank.curve.warmth_for(spare)
        if level_c is None or level_c <= bank.cell_c:
            return bound_ms
        crossing = bank.climate.crossing(bank.cell_c, self.now_ms, level_c, bound_ms)
        return bound_ms if crossing is None else crossing

    def _dry_ms(self, bank: StoreRun, per_ms: float, bound_ms: int) -> int | None:
        """When charge falling at a rate [1/ms] meets the floor, at or before a bound."""
        reserve = bank.reserve
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
