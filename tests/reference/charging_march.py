"""Batteries in a dock on a bank, a panel or a socket, marched second by second from the rules."""

from __future__ import annotations

from dataclasses import dataclass, field
from math import exp
from typing import Any

from tests.reference.second.physics import (
    CELL_LAG_S,
    COLD_BANK,
    IDLE_W,
    INTO,
    RATE_PER_H,
    hidden,
)

BANK_OUT = 0.85
BANK_LAG_S = 2400.0
PLUG_S = 15


@dataclass
class Docked:
    """A battery in a bay."""

    wh: float
    charge: float
    cell_c: float
    refused: str = ""
    cool: bool = False

    def most_w(self) -> float:
        """Half of it while cool."""
        self.cool = self.cell_c < 12 if self.cool else self.cell_c <= 10
        return self.wh * RATE_PER_H * (0.5 if self.cool else 1.0)


@dataclass
class Store:
    """A bank."""

    wh: float
    charge: float
    cell_c: float
    floor: float
    loads_w: float

    def line(self) -> float:
        """What the cold holds back."""
        return hidden(self.cell_c, 1.0, COLD_BANK)


@dataclass
class Dock:
    """A charger whose bays are filled from the start, one plug after the other."""

    cells: list[Docked]
    in_w: float
    together: bool
    port_w: float
    bank: Store | None = None
    given_wh: float = 0.0
    log: list[tuple[int, str]] = field(default_factory=list)

    def march(self, ambient: list[float], source_w: list[float]) -> None:
        """One entry a second: air of the place, and what the source can give."""
        for second, (air_c, watts) in enumerate(zip(ambient, source_w, strict=True)):
            inside = self.cells[: max(0, second // PLUG_S)]
            live = watts
            if self.bank is not None:
                gives = self.bank.charge > max(self.bank.floor, self.bank.line())
                live = watts if gives else 0.0
                if gives and second >= PLUG_S:
                    self.bank.charge -= IDLE_W / 3600 / self.bank.wh
            self._second(second, inside, min(live, self.port_w))
            for cell in self.cells:
                cell.cell_c += (air_c - cell.cell_c) * (1 - exp(-1 / CELL_LAG_S))
            if self.bank is not None:
                self.bank.cell_c += (air_c - self.bank.cell_c) * (1 - exp(-1 / BANK_LAG_S))
                if self.bank.charge > self.bank.line():
                    self.bank.charge -= self.bank.loads_w / BANK_OUT / 3600 / self.bank.wh

    def _second(self, second: int, inside: list[Docked], port: float) -> None:
        left = min(port, self.in_w)
        for cell in inside:
            self._refuse(second, cell)
        taking = [c for c in inside if not c.refused and c.charge < 0.99]
        for cell in taking if self.together else taking[:1]:
            wanted = cell.most_w() * min(1.0, (1 - cell.charge) / 0.2) / INTO
            given = min(left, wanted)
            left -= given
            cell.charge += given * INTO / 3600 / cell.wh
            self.given_wh += given / 3600
            if self.bank is not None:
                self.bank.charge -= given / BANK_OUT / 3600 / self.bank.wh

    def _refuse(self, second: int, cell: Docked) -> None:
        before = cell.refused
        if before == "cold":
            cell.refused = "cold" if cell.cell_c < 2 else ""
        elif before == "hot":
            cell.refused = "hot" if cell.cell_c > 43 else ""
        else:
            cell.refused = "cold" if cell.cell_c <= 0 else "hot" if cell.cell_c > 45 else ""
        if cell.refused and not before:
            self.log.append((second, cell.refused))


def ambient_by_second(items: list[dict[str, Any]]) -> list[float]:
    """Air of each second, constant over ten minutes from a trip's start at a full hour."""
    air, start_s = [], 0
    for item in items:
        for second in range(item["duration_s"]):
            middle = (start_s + second) // 600 * 600 + 300 - start_s
            way = min(1.0, max(0.0, middle / item["duration_s"]))
            low, high = item["temp_start_c"], item["temp_end_c"]
            air.append(low + (high - low) * way)
        start_s += item["duration_s"]
    return air
