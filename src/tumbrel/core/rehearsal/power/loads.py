"""What hangs on sources, and the sources themselves, as they go through a trip (E4)."""

from __future__ import annotations

from dataclasses import dataclass, field

from ...cold import ColdCurve
from ...document import Bank, Charger, Source
from ..camera.camera_run import CameraRun
from ..state.append_log import Log
from ..stock.batteries import CHARGER_MARK, Cell
from ..trip.climate import PlaceClimate
from ..trip.supply_table import SupplyTable

SHARE_MS = 120_000


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
    port_wh: float = 0.0
    lost_wh: float = 0.0
    short: bool = False
    hung_on: int | None = None

    @property
    def id(self) -> str:
        """Of the charger."""
        return self.charger.id

    @property
    def name(self) -> str:
        """Of the charger."""
        return self.charger.name

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
        """Share out what the port gives, bay by bay.

        What a bay in its taper leaves over goes on to the next, at its mean over the time for
        which the grant holds while anything is short.
        """
        left = watts
        self.short = False
        most = self.charger.bay_w or self.charger.in_w
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

    def tapers(self) -> bool:
        """Whether a bay takes less and less."""
        return any(
            bay.cell.charge >= bay.cell.intake.kink_for(bay.into_w) - 1e-9
            for bay in self.bays
            if bay.cell is not None and bay.into_w > 0.0
        )

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
    into_w: float = 0.0
    refused: str = ""
    dry: bool = False
    topped: bool = False
    hung_on: int | None = None
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

    @property
    def name(self) -> str:
        """Of the bank."""
        return self.bank.name

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
    seen_wh: list[float] = field(default_factory=list)
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


def id_of(consumer: Consumer) -> str:
    """The key of whatever hangs on a port."""
    return consumer.camera.id if isinstance(consumer, CameraRun) else consumer.id


def name_of(consumer: Consumer) -> str:
    """The name of whatever hangs on a port."""
    return consumer.camera.name if isinstance(consumer, CameraRun) else consumer.name
