"""Cells, banks, gear and memories, marched by their rates."""

from __future__ import annotations

from dataclasses import dataclass, field
from itertools import pairwise
from math import exp, radians, sin
from typing import Any

Doc = dict[str, Any]
STEP_S = 0.5
STEP_H = STEP_S / 3600
SELF_DISCHARGE_PER_S = 0.025 / (30 * 86_400)
CELL_LAG_S, BANK_LAG_S = 720.0, 2400.0
THROUGH, INTO, BANK_OUT, STORED = 0.95, 0.90, 0.85, 0.92
K_PER_W, LAG_S, AIRFLOW = 14.0, 900.0, 0.8
REVIVAL = 0.03
DAY_S = 86_400
FULL, CHARGEABLE = 0.99, 0.95
RATE_PER_H, TAIL, IDLE_W = 0.6, 0.2, 0.06
Curve = tuple[tuple[float, float], ...]
COLD: Curve = ((25, 1.0), (10, 0.96), (0, 0.87), (-10, 0.72), (-20, 0.52), (-30, 0.28))
COLD_BANK: Curve = ((25, 1.0), (0, 0.95), (-10, 0.88), (-20, 0.75))


def hidden(
    cell_c: float, health: float, curve: Curve = COLD, c_rate: float = 0.0, k: float = 0.0
) -> float:
    """Share of the charge that the cold holds back: of a worn cell more, at a hard draw too."""
    given = curve[-1][1]
    if cell_c >= curve[0][0]:
        given = 1.0
    else:
        for (warm, more), (cool, less) in pairwise(curve):
            if cell_c >= cool:
                given = less + (more - less) * (cell_c - cool) / (warm - cool)
                break
    reached = 1.0 - min(1.0, (1.0 - given) / health)
    if k and c_rate > 0.7:
        reached *= (0.7 / c_rate) ** k
    return 1.0 - reached


def clear_sky_w_m2(height_deg: float) -> float:
    """Haurwitz, from the height of the sun."""
    up = sin(radians(height_deg))
    return 0.0 if up <= 0 else 1098.0 * up * exp(-0.057 / up)


@dataclass
class Cell:
    """A labelled battery."""

    name: str
    family: str
    wh: float
    charge: float
    cell_c: float
    home: str | float
    k: float = 0.0
    health: float = 1.0
    rate: float = RATE_PER_H
    tail: float = TAIL
    refused: str = ""
    cool: bool = False
    inside: int | None = None
    topped: bool = False
    left: tuple[int, int, float] | None = None  # which camera, when, and what it held then

    def held_wh(self) -> float:
        """What it holds above what the cold keeps back, as warm as it is."""
        return self.wh * max(0.0, self.charge - hidden(self.cell_c, self.health, COLD))

    def takes_w(self) -> float:
        """What it takes in a charger now: nothing when full, until a thousandth has gone."""
        self.topped = self.charge >= FULL - 1e-9 or (self.topped and self.charge >= FULL - 0.001)
        if self.refuses() or self.topped:
            return 0.0
        return self.most_w(fed=True) * min(1.0, (1 - self.charge) / self.tail)

    def line(self, watts: float) -> float:
        """Charge at which it gives out at a draw."""
        return hidden(self.cell_c, self.health, COLD, watts / self.wh, self.k)

    def most_w(self, *, fed: bool) -> float:
        """What it takes at most: half of it while cool, which is told anew with each cable."""
        self.cool = fed and self.cell_c < 12 if self.cool else self.cell_c <= 10
        return self.wh * self.rate * (0.5 if self.cool else 1.0)

    def refuses(self) -> bool:
        """Whether it takes no charge for cold or heat; a latch."""
        self.refused = refusal(self.cell_c, self.refused)
        return bool(self.refused)


def refusal(cell_c: float, before: str) -> str:
    """Why no charge is taken, for cold or heat; a latch."""
    if before == "cold":
        return "cold" if cell_c < 2 else ""
    if before == "hot":
        return "hot" if cell_c > 43 else ""
    return "cold" if cell_c <= 0 else "hot" if cell_c > 45 else ""


@dataclass(eq=False)
class Holds:
    """What holds energy and may hang on a port: how full and warm it is, and what it is given."""

    doc: Doc
    wh: float = 0.0
    charge: float = 0.0
    cell_c: float = 0.0
    home: str | float = "bag"
    dead: bool = False
    refused: str = ""
    topped: bool = False
    on: Store | None = None
    stays: bool = False
    granted_w: float = 0.0

    def accepts(self) -> bool:
        """Whether it takes charge now: not refused, and not full until a good part is gone."""
        self.refused = refusal(self.cell_c, self.refused)
        self.topped = self.charge >= FULL - 1e-6 or (self.topped and self.charge >= CHARGEABLE)
        return not self.refused and not self.topped

    def charging_w(self) -> float:
        """What it would take from a port to be charged."""
        return float(self.doc.get("in_w", 10.0)) if self.accepts() else 0.0

    def take(self, watts: float) -> float:
        """Half a second of what a port gives; what it took of that."""
        if watts <= 0 or not self.accepts():
            return 0.0
        self.charge = min(FULL, self.charge + watts * INTO * STEP_H / self.wh)
        self.topped = self.charge >= FULL - 1e-9
        return watts

    def loose(self) -> None:
        """Off its cable."""
        self.on, self.stays, self.granted_w = None, False, 0.0

    def low(self) -> bool:
        """Whether it wants a port and could be charged."""
        self.accepts()
        return self.charge < CHARGEABLE and not self.refused and self.on is None


@dataclass(eq=False)
class Store(Holds):
    """A source: a bank with what is in it, or a plug or vehicle that gives while it is live."""

    awake: bool = True
    idle_s: float = 0.0
    woken_s: int = -DAY_S
    load_w: float = 0.0
    hung: list[object] = field(default_factory=list)
    given: list[float] = field(default_factory=list)

    def __post_init__(self) -> None:
        """Nothing hangs on it yet."""
        self.hung = [None for _ in self.ports()]

    def ports(self) -> list[float]:
        """What each of its ports gives."""
        return list(self.doc.get("ports") or [self.doc.get("out_w", 10.0)])

    @property
    def is_bank(self) -> bool:
        """Whether it can be empty."""
        return self.doc["kind"] in ("bank", "module")

    @property
    def is_module(self) -> bool:
        """Whether it rides on a camera."""
        return bool(self.doc["kind"] == "module")

    def floor(self) -> float:
        """Charge below which it gives cameras nothing."""
        reserve = self.doc.get("reserve_wh", 0.0) / (self.wh * BANK_OUT)
        curve = COLD if self.is_module else COLD_BANK
        return max(reserve, hidden(self.cell_c, self.doc.get("health", 1.0), curve))

    def gives_wh(self) -> float:
        """What it still gives its camera, to a hundredth."""
        held = 0.0 if self.dead else self.wh * max(0.0, self.charge - self.floor())
        return round(held * STORED, 2)

    def live(self, item: Doc, second: int, at_s: int) -> float:
        """Watts that all ports together can give now; a dry module passes on what it is given."""
        kind = self.doc["kind"]
        total: float = self.doc.get("total_w") or sum(self.ports())
        if kind in ("bank", "module"):
            on = self.awake and not self.dead
            return total if on else min(total, self.granted_w) if self.is_module else 0.0
        if self.given:  # by light or speed, second by second
            return self.given[min(at_s, len(self.given) - 1)]
        if kind == "vehicle":
            return total if item.get("vehicle_runs") else 0.0
        socket = item.get("socket")
        if not socket:
            return 0.0
        opens = socket.get("start_s", 0)
        length = socket.get("duration_s") or item["duration_s"] - opens
        return min(total, socket["watts"]) if opens <= second < opens + length else 0.0

    def fill(self) -> None:
        """Half a second of what its port gives: of a module's first what its camera takes."""
        if self.on is None:
            return
        passed = min(self.granted_w, self.load_w) if self.is_module else 0.0
        self.load_w -= passed
        self.on.load_w += passed + self.take(self.granted_w - passed)

    def drain(self, place_c: float) -> None:
        """Half a second of what hung on it; it may sleep, and give out."""
        if not self.is_bank:
            return
        on = self.awake and not self.dead and any(one is not None for one in self.hung)
        out, idle = (1.0, 0.0) if self.is_module else (BANK_OUT, IDLE_W * on)
        self.charge -= (self.load_w / out + idle) * STEP_H / self.wh
        self.cell_c += (place_c - self.cell_c) * (1 - exp(-STEP_S / BANK_LAG_S))
        self.idle_s = self.idle_s + STEP_S if self.load_w < 0.25 else 0.0
        sleeps = not (self.doc.get("stays_on") or self.is_module or self.dead)
        if self.idle_s >= 30 and sleeps:
            self.awake = False
        if self.charge <= self.floor():
            self.dead = True
        elif self.dead and self.charge >= self.floor() + REVIVAL:
            self.dead = False


@dataclass(eq=False)
class Gear(Holds):
    """Something with a battery: used at some seconds, dead at some of them."""

    used: list[bool] = field(default_factory=list)
    missing_s: float = 0.0

    def charging_w(self) -> float:
        """What it would take from a port to be charged."""
        return float(self.doc.get("in_w", 5.0)) if self.accepts() else 0.0

    def march(self, at_s: int, place_c: float) -> None:
        """Half a second."""
        line = hidden(self.cell_c, 1.0)
        if self.used[at_s] and self.charge <= line + 1e-9:
            self.dead = True
        elif self.dead and self.charge >= line + REVIVAL:
            self.dead = False
        if self.on is not None:
            self.on.load_w += self.take(self.granted_w)
        if self.used[at_s] and self.dead:
            self.missing_s += STEP_S
        elif self.used[at_s]:
            self.charge -= self.doc["use_w"] * STEP_H / self.doc["wh"]
        self.cell_c += (place_c - self.cell_c) * (1 - exp(-STEP_S / CELL_LAG_S))


@dataclass(eq=False)
class Dock:
    """A charger with what lies in its bays."""

    doc: Doc
    cells: list[Cell | None]
    on: Store | None = None
    granted_w: float = 0.0

    def shares(self, watts: float) -> list[tuple[Cell, float]]:
        """What each bay gets of what comes, bay by bay; in turn, all for the first."""
        taking = [(cell, cell.takes_w() / INTO) for cell in self.cells if cell]
        taking = [(cell, wanted) for cell, wanted in taking if wanted > 0]
        found, left = [], min(watts, float(self.doc.get("in_w", 10.0)))
        for cell, wanted in taking if self.doc.get("together", True) else taking[:1]:
            most = self.doc.get("bay_w") or self.doc.get("in_w", 10.0)
            found.append((cell, min(left, most, wanted)))
            left -= found[-1][1]
        return found

    def wants(self) -> float:
        """What it would take from its port."""
        return sum(given for _, given in self.shares(1e9))

    def march(self) -> None:
        """Half a second."""
        if self.on is None:
            return
        for cell, given in self.shares(self.granted_w):
            cell.charge = min(FULL, cell.charge + given * INTO * STEP_H / cell.wh)
            self.on.load_w += given

    def loose(self) -> None:
        """Off its cable."""
        self.on, self.granted_w = None, 0.0


@dataclass
class Memory:
    """A card or fixed memory."""

    name: str
    room: float
    used: float = 0.0
    inside: int | None = None
