"""What hangs on sources, and the sources themselves, as they go through a trip.

Source: model/charging#cell.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from mypy_extensions import mypyc_attr

from ...document import Charger
from ...parameters import Defaults
from ..stock.batteries import CHARGER_MARK, Cell
from ..trip.scene import SourceAtStart
from .consumer import Consumer
from .stores import BankRun

SHARE_MS: Final = 120_000


@mypyc_attr(serializable=True)
@dataclass(slots=True)
class Bay:
    """One place of a charger."""

    cell: Cell | None = None
    into_w: float = 0.0


@mypyc_attr(serializable=True)
class ChargerRun(Consumer):
    """A charger with what lies in it."""

    __slots__ = (
        "_port_wh",
        "bay_w",
        "bays",
        "charger",
        "efficiency",
        "in_w",
        "lost_wh",
        "short",
        "stay_ms",
    )

    def __init__(self, charger: Charger, defaults: Defaults) -> None:
        super().__init__(charger.id, charger.name)
        self.charger = charger
        self.in_w = charger.in_w
        self.bay_w = charger.bay_w or charger.in_w
        self.efficiency = defaults.charge_efficiency.value
        self.bays = [Bay() for _ in range(charger.bays)]
        self.stay_ms = round(defaults.bank_off_after_s.value * 1000)
        self._port_wh = 0.0
        self.lost_wh = 0.0
        self.short = False

    @property
    def port_wh(self) -> float:
        """What it has taken from ports so far [W h]."""
        return self._port_wh

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
            if bay.cell and not bay.cell.refused and bay.cell.takes_charge()
        ]
        return taking if self.charger.together else taking[:1]

    def wants_w(self) -> float:
        """What it would take from its port [W]."""
        wanted = 0.0
        for bay in self.active():
            if bay.cell is not None:
                taken_w = bay.cell.intake.taper_w(bay.cell.charge) / self.efficiency
                wanted += min(self.bay_w, taken_w)
        return min(self.in_w, wanted)

    def would_take_w(self) -> float:
        """What it would take for a while, were a bank switched on for it [W]."""
        wanted = 0.0
        for bay in self.active():
            if bay.cell is not None:
                later_w = bay.cell.intake.taper_later_w(bay.cell.charge, self.stay_ms)
                wanted += min(self.bay_w, later_w / self.efficiency)
        return min(self.in_w, wanted)

    def grant(self, most_w: float) -> float:
        """Take what it wants of what its port gives; how much that is [W]."""
        wanted = self.wants_w()
        given = min(most_w, wanted)
        self._share(given)
        self.short = self.short or given < wanted - 1e-9
        return given

    def unplug(self) -> None:
        """Its cable comes out."""
        self._share(0.0)

    def _share(self, watts: float) -> None:
        """Share out what the port gives, bay by bay.

        What a bay in its taper leaves over goes on to the next, at its mean over the time for
        which the grant holds while anything is short.
        """
        left, efficiency = watts, self.efficiency
        self.short = False
        most = self.bay_w
        for bay in self.bays:
            bay.into_w = 0.0
        for bay in self.active():
            assert bay.cell is not None
            wanted = min(most, bay.cell.intake.taper_w(bay.cell.charge) / efficiency)
            given = min(left, wanted)
            bay.into_w = given * efficiency
            self.short = self.short or given < wanted - 1e-9
            soon = bay.cell.intake.charge_after(bay.cell.charge, bay.into_w, SHARE_MS / 2)
            left -= min(given, bay.cell.intake.taper_w(soon) / efficiency)

    def bring_in(self, bay: Bay, elapsed_ms: int) -> None:
        """Charge the cell of a bay over a stretch."""
        cell = bay.cell
        if cell is None or bay.into_w <= 0.0:
            return
        before = cell.charge
        cell.charge = cell.intake.charge_after(before, bay.into_w, elapsed_ms)
        into_wh = (cell.charge - before) * cell.wh
        self._port_wh += into_wh / self.efficiency
        self.lost_wh += into_wh / self.efficiency - into_wh

    def tapers(self) -> bool:
        """Whether a bay takes less and less."""
        return any(
            bay.cell.charge >= bay.cell.intake.kink_for(bay.into_w) - 1e-9
            for bay in self.bays
            if bay.cell is not None and bay.into_w > 0.0
        )

    def taking_w(self) -> float:
        """What it takes from its port now [W]."""
        taken = 0.0
        for bay in self.bays:
            if bay.cell is not None and bay.into_w > 0.0:
                taken += min(bay.into_w, bay.cell.intake.taper_w(bay.cell.charge)) / self.efficiency
        return taken


@mypyc_attr(serializable=True)
class Supply:
    """A source with what hangs on its ports, and what each has taken as last seen [W h]."""

    __slots__ = ("bank", "given_wh", "on_w", "ports", "seen_wh", "source", "table")

    def __init__(self, carried: SourceAtStart, defaults: Defaults) -> None:
        self.source = carried.source
        self.table = carried.table
        self.bank = None if carried.bank is None else BankRun(carried.bank, defaults)
        self.ports: list[Consumer | None] = [None for _ in carried.source.ports]
        self.seen_wh = [0.0 for _ in carried.source.ports]
        self.given_wh = 0.0
        idles = self.bank is not None and not self.bank.module
        self.on_w = defaults.bank_idle_w.value if idles else 0.0

    def idle_w(self) -> float:
        """What a bank takes of its own while it is on for what hangs on it [W].

        Source: model/charging#bank.
        """
        bank = self.bank
        if bank is None or bank.dry or bank.switched_off:
            return 0.0
        for one in self.ports:
            if one is not None:
                return self.on_w
        return 0.0

    def tapers(self) -> bool:
        """Whether anything on it takes less and less."""
        return any(one.tapers() for one in self.ports if one is not None)

    def adopt(self, carried: SourceAtStart) -> None:
        """Go on in a trip that was the same until now."""
        self.table = carried.table
        if self.bank is not None and carried.bank is not None:
            self.bank.climate = carried.bank.climate

    def port_of(self, consumer: Consumer) -> int | None:
        """The port on which something hangs."""
        return next((n for n, one in enumerate(self.ports) if one is consumer), None)

    def free_port(self) -> int | None:
        """The first port with nothing on it."""
        return next((n for n, one in enumerate(self.ports) if one is None), None)

    def is_free(self, port: int) -> bool:
        """Whether there is a port of a number, from 0, with nothing on it."""
        return 0 <= port < len(self.ports) and self.ports[port] is None

    def gives_w(self, at_ms: int) -> float:
        """What it can give in all at a time [W]; a dry module what is passed through it."""
        bank = self.bank
        if bank is not None and (bank.dry or bank.switched_off):
            return min(bank.granted_w, self.table.at(at_ms)) if bank.module else 0.0
        return self.table.at(at_ms)
