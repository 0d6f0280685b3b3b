"""Stores on the grid: banks, modules that ride on cameras, and things with a battery.

Source: model/charging#bank, model/charging#chains, model/energy#gear.
"""

from __future__ import annotations

from typing import Final

from mypy_extensions import mypyc_attr

from ...charging import MS_PER_HOUR
from ...cold import ColdCurve
from ...parameters import Defaults
from ..state.append_log import Log
from ..stock.batteries import refusal_of
from ..trip.climate import PlaceClimate
from ..trip.scene import BankAtStart, GearAtStart
from .consumer import Consumer

TOPPED: Final = 1e-6


@mypyc_attr(serializable=True)
class StoreRun(Consumer):
    """A store of energy with a temperature: charge [0..1] of `wh`, why it takes none, its course.

    `dry` says that nothing more comes out of it, `topped` that it is full.
    """

    __slots__ = (
        "_port_wh",
        "cell_c",
        "charge",
        "climate",
        "curve",
        "defaults",
        "dry",
        "into_w",
        "lost_wh",
        "refused",
        "reserve",
        "rows",
        "topped",
        "turns_as",
        "turns_ms",
        "used_wh",
        "wh",
    )

    def __init__(
        self,
        key: str,
        name: str,
        wh: float,
        charge: float,
        curve: ColdCurve,
        climate: PlaceClimate,
        defaults: Defaults,
        *,
        on_banks: bool,
    ) -> None:
        super().__init__(key, name, on_banks=on_banks)
        self.wh = wh
        self.charge = charge
        self.curve = curve
        self.climate = climate
        self.cell_c = climate.base_c[0]
        self.defaults = defaults
        self.reserve = 0.0
        self.into_w = 0.0
        self.refused = refusal_of(self.cell_c, "", defaults)
        self.dry = self.topped = False
        self.turns_as, self.turns_ms = "", 0
        self._port_wh = self.used_wh = self.lost_wh = 0.0
        self.rows: Log[tuple[int, float, float]] = Log()
        self.rows.append((0, self.charge, self.cell_c))

    @property
    def unit(self) -> str:
        """The store itself."""
        return self.id

    @property
    def port_wh(self) -> float:
        """What it has taken from ports so far [W h]."""
        return self._port_wh

    @property
    def takes_charge(self) -> bool:
        """Whether it takes charge now."""
        return not self.refused and not self.topped

    def floor(self) -> float:
        """Charge below which nothing comes out: the cold's line, or the reserve.

        Source: model/charging#reserve.
        """
        return max(self.curve.at(self.cell_c), self.reserve)

    def review(self) -> bool:
        """Whether it is refused, full or dry now; true when that has changed."""
        before = (self.refused, self.topped, self.dry)
        self.refused = refusal_of(self.cell_c, self.refused, self.defaults)
        if self.charge >= self.defaults.full.value - TOPPED:  # loads take some as it fills
            self.topped = True
        elif self.charge < self.defaults.chargeable_below.value:
            self.topped = False
        floor = self.floor()
        if self.charge <= floor + 1e-7:
            self.dry = True
        elif self.dry and self.charge >= floor + self.defaults.revival.value - 1e-7:
            self.dry = False
        return (self.refused, self.topped, self.dry) != before

    def fills_long(self, watts: float) -> bool:
        """Whether what a port gives goes on for so long that a bank stays on for it."""
        room_wh = (self.defaults.full.value - self.charge) * self.wh
        long_wh = watts * self.defaults.charge_efficiency.value
        return (
            self.takes_charge and room_wh * 3600.0 >= long_wh * self.defaults.bank_off_after_s.value
        )

    def store(self, port_wh: float, out_wh: float = 0.0) -> None:
        """Put in what a port gives, up to full, while something goes out [W h]."""
        efficiency = self.defaults.charge_efficiency.value
        room_wh = (self.defaults.full.value - self.charge) * self.wh + out_wh
        into_wh = min(port_wh * efficiency, max(0.0, room_wh))
        self.charge += into_wh / self.wh
        self._port_wh += into_wh / efficiency
        self.lost_wh += into_wh / efficiency - into_wh

    def note(self, at_ms: int, row_ms: int) -> None:
        """Add a point to its course, where the last is old enough."""
        if not self.rows or at_ms - self.rows[-1][0] >= row_ms:
            self.rows.append((at_ms, self.charge, self.cell_c))

    def unplug(self) -> None:
        """Its cable comes out."""
        self.into_w = 0.0


@mypyc_attr(serializable=True)
class BankRun(StoreRun):
    """A power bank, or a module that rides on a camera (model/charging#chains).

    Of what a module is granted (`granted_w`) its camera takes first, and only what is left goes
    into the store; `below_w` is what its camera would take.
    """

    __slots__ = (
        "bank",
        "below_w",
        "efficiency",
        "granted_w",
        "loads_w",
        "low_since_ms",
        "module",
        "reserve_touched_ms",
        "switched_off",
        "woken_ms",
    )

    def __init__(self, carried: BankAtStart, defaults: Defaults) -> None:
        bank = carried.bank
        super().__init__(
            bank.id,
            bank.name,
            carried.wh,
            bank.charge,
            carried.curve,
            carried.climate,
            defaults,
            on_banks=carried.module,
        )
        self.bank = bank
        self.module = carried.module
        self.efficiency = 1.0 if carried.module else defaults.bank_efficiency.value
        self.loads_w = carried.loads_w
        self.reserve = bank.reserve_wh / (self.wh * self.efficiency)
        self.switched_off = False
        self.below_w = self.granted_w = 0.0
        self.low_since_ms: int | None = None
        self.reserve_touched_ms: int | None = None
        self.woken_ms: int | None = None

    def wants_w(self) -> float:
        """What it would take from its port [W]."""
        charging_w = self.bank.in_w if self.takes_charge else 0.0
        return min(self.bank.in_w, charging_w + self.below_w)

    def would_take_w(self) -> float:
        """What it would take for a while, were a bank switched on for it [W]."""
        charging_w = self.bank.in_w if self.fills_long(self.bank.in_w) else 0.0
        return min(self.bank.in_w, charging_w + self.below_w)

    def taking_w(self) -> float:
        """What it takes from its port now [W]."""
        return self.takes_with_w(self.below_w)

    def takes_with_w(self, below_w: float) -> float:
        """What it takes while its camera takes some watts of it [W]."""
        passed_w = min(self.granted_w, below_w)
        return passed_w + self.into_w / self.defaults.charge_efficiency.value

    def grant(self, most_w: float) -> float:
        """Take what it wants of what its port gives; how much that is [W]."""
        self.granted_w = min(most_w, self.wants_w())
        self.flow(self.below_w)
        return self.granted_w

    def flow(self, taken_w: float) -> None:
        """What goes into the store beside what is passed on to its camera [W]."""
        self.below_w = taken_w if self.module else 0.0
        left_w = max(0.0, self.granted_w - self.below_w) if self.takes_charge else 0.0
        self.into_w = left_w * self.defaults.charge_efficiency.value

    def unplug(self) -> None:
        """Its cable comes out."""
        super().unplug()
        self.granted_w = 0.0
        self.stays_hung = False

    def passed_on(self, taken_wh: float, elapsed_ms: int) -> float:
        """Of what a module's port was granted: how much its camera took of it [W h]."""
        if not self.module or self.granted_w <= 0.0:
            return 0.0
        passed_wh = min(self.granted_w * elapsed_ms / MS_PER_HOUR, taken_wh)
        self._port_wh += passed_wh
        return passed_wh

    def bring_in(self, passed_wh: float, out_wh: float, elapsed_ms: int) -> None:
        """Put in what its port gives beside what is passed on, while as much goes out."""
        if self.module and self.takes_charge and self.granted_w > 0.0:
            self.store(self.granted_w * elapsed_ms / MS_PER_HOUR - passed_wh, out_wh)
        elif not self.module and self.into_w > 0.0:
            port_w = self.into_w / self.defaults.charge_efficiency.value
            self.store(port_w * elapsed_ms / MS_PER_HOUR, out_wh)


@mypyc_attr(serializable=True)
class GearRun(StoreRun):
    """Something with a battery that is no camera (model/energy#gear).

    `uses` are when it is used [ms], in order; `missing` when it was wanted and dead.
    """

    __slots__ = (
        "drain_w",
        "gear",
        "in_w",
        "missing",
        "missing_ms",
        "next_use",
        "now_ms",
        "use_w",
        "uses",
    )

    def __init__(self, carried: GearAtStart, defaults: Defaults) -> None:
        gear = carried.gear
        super().__init__(
            gear.id,
            gear.name,
            gear.wh,
            gear.charge,
            carried.curve,
            carried.climate,
            defaults,
            on_banks=True,
        )
        self.gear = gear
        self.in_w, self.use_w = gear.in_w, gear.use_w
        self.uses = carried.uses
        self.next_use = self.now_ms = 0
        self.drain_w = 0.0
        self.missing: Log[tuple[int, int]] = Log()
        self.missing_ms: int | None = None

    def adopt(self, carried: GearAtStart) -> None:
        """Go on in a trip that was the same until now."""
        self.climate, self.uses = carried.climate, carried.uses
        self.next_use = sum(end_ms <= self.now_ms for _, end_ms in self.uses)

    def in_use(self) -> bool:
        """Whether it is used now."""
        use = self.uses[self.next_use] if self.next_use < len(self.uses) else None
        return use is not None and use[0] <= self.now_ms < use[1]

    def turn_ms(self) -> int | None:
        """When its use begins or ends next [ms]."""
        if self.next_use >= len(self.uses):
            return None
        start_ms, end_ms = self.uses[self.next_use]
        return start_ms if self.now_ms < start_ms else end_ms

    def next_use_ms(self) -> int | None:
        """When it is used next: now, or as that begins [ms]."""
        return self.uses[self.next_use][0] if self.next_use < len(self.uses) else None

    def _draw_w(self) -> float:
        return self.use_w if self.in_use() and not self.dry else 0.0

    def wants_w(self) -> float:
        """What it would take from its port [W]."""
        return self.in_w if self.takes_charge else 0.0

    def would_take_w(self) -> float:
        """What it would take for a while, were a bank switched on for it [W]."""
        return self.in_w if self.fills_long(self.in_w) else 0.0

    def taking_w(self) -> float:
        """What it takes from its port now [W]."""
        return self.into_w / self.defaults.charge_efficiency.value

    def grant(self, most_w: float) -> float:
        """Take what it wants of what its port gives; how much that is [W]."""
        given = min(most_w, self.wants_w())
        self.into_w = given * self.defaults.charge_efficiency.value
        return given

    def settle(self) -> bool:
        """See whether it is used, dead, full or refused now; true when that has changed."""
        dry = self.dry
        changed = self.review()
        self.dry = self.dry and (dry or self.in_use())  # what is off does not give out
        self.drain_w = self._draw_w()
        return changed

    def go(self, to_ms: int) -> None:
        """What goes in and out until a time, and what is missed."""
        elapsed_ms = to_ms - self.now_ms
        if not (self.in_use() and self.dry):
            self.account()
        elif self.missing_ms is None:
            self.missing_ms = self.now_ms
        if self.into_w > 0.0:
            self.store(self.taking_w() * elapsed_ms / MS_PER_HOUR)
        if self.drain_w > 0.0:
            used_wh = min(self.wh * self.charge, self.drain_w * elapsed_ms / MS_PER_HOUR)
            self.charge -= used_wh / self.wh
            self.used_wh += used_wh
        self.cell_c = self.climate.after(self.cell_c, self.now_ms, to_ms)
        self.now_ms = to_ms
        while self.next_use < len(self.uses) and self.uses[self.next_use][1] <= to_ms:
            self.account()
            self.next_use += 1

    def account(self) -> None:
        """End what is missed."""
        if self.missing_ms is not None and self.missing_ms < self.now_ms:
            self.missing.append((self.missing_ms, self.now_ms))
        self.missing_ms = None
