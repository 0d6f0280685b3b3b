"""When the grid must be looked at again: a full, empty or refused cell, a bank, a source.

Source: model/charging#cell.
"""

from __future__ import annotations

from typing import Final

from mypy_extensions import mypyc_attr

from ...charging import MS_PER_HOUR, NEVER_MS
from ...parameters import Defaults
from ...two_lags import first_zero
from ..stock.batteries import Cell
from .loads import SHARE_MS, BankRun, Bay, ChargerRun, Supply

SOON_MS: Final = 24 * 3_600_000
ROW_MS: Final = 600_000


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

    def taken_w(self, supply: Supply) -> float:
        """What its ports take now [W]."""
        total = 0.0
        for one in supply.ports:
            if one is not None:
                total += one.taking_w()
        return total

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
            first = min(first, self._bank_ms(supply, bank, min(first, self.now_ms + SOON_MS)))
        self.others_due_ms = first
        for supply in self.supplies:
            if any(one is not None for one in supply.ports):
                first = min(first, supply.table.next_change(self.now_ms))
        return max(self.now_ms + 1, first)

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
        levels = [d.refuse_cold_c.value, d.refuse_hot_c.value]
        if cell.refused == "cold":
            levels = [d.resume_cold_c.value]
        elif cell.refused == "hot":
            levels = [d.resume_hot_c.value]
        for level_c in levels:
            crossing = cell.bag_climate.crossing(cell.cell_c, self.now_ms, level_c, first)
            if crossing is not None:
                first = min(first, crossing)
        return first

    def _bank_ms(self, supply: Supply, bank: BankRun, bound_ms: int) -> int:
        """When a bank may be dry or full, at the earliest: what hangs on it only takes less."""
        d = self.defaults
        first = bound_ms
        out_w = (self.taken_w(supply) + bank.loads_w) / d.bank_efficiency.value
        per_ms = (out_w - bank.into_w) / MS_PER_HOUR / bank.wh
        if bank.into_w > 0.0 and bank.charge < d.full.value - 1e-6 and per_ms < 0.0:
            first = min(first, self.now_ms + int((d.full.value - bank.charge) / -per_ms) + 1)
        if bank.into_w > 0.0 or bank.refused:
            turns = (d.refuse_cold_c, d.refuse_hot_c, d.resume_cold_c, d.resume_hot_c)
            for level_c in (turn.value for turn in turns):
                crossing = bank.climate.crossing(bank.cell_c, self.now_ms, level_c, first)
                first = min(first, crossing) if crossing is not None else first
        if bank.dry:
            first = min(first, self.now_ms + ROW_MS) if bank.into_w > 0.0 else first
            return min(first, self._wakes_ms(bank, first))
        dry = self._dry_ms(bank, max(0.0, per_ms), first)
        return first if dry is None else dry

    def _wakes_ms(self, bank: BankRun, bound_ms: int) -> int:
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

    def _dry_ms(self, bank: BankRun, per_ms: float, bound_ms: int) -> int | None:
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
