"""Cells, banks, memories and bodies, marched by their rates."""

from __future__ import annotations

from dataclasses import dataclass, field
from itertools import pairwise
from math import exp
from typing import Any

Doc = dict[str, Any]
STEP_S = 0.5
STEP_H = STEP_S / 3600
SELF_DISCHARGE_PER_S = 0.025 / (30 * 86_400)
CELL_LAG_S, BANK_LAG_S = 720.0, 2400.0
THROUGH, INTO, BANK_OUT = 0.95, 0.90, 0.85
K_PER_W, LAG_S, AIRFLOW = 14.0, 900.0, 0.8
REVIVAL = 0.03
COLD = ((25, 1.0), (10, 0.97), (0, 0.90), (-10, 0.78), (-20, 0.60), (-30, 0.35))


def hidden(cell_c: float, c_rate: float = 0.0, k: float = 0.0) -> float:
    """Share of the charge that the cold holds back, more at a hard draw."""
    given = COLD[-1][1]
    if cell_c >= COLD[0][0]:
        given = 1.0
    else:
        for (warm, more), (cool, less) in pairwise(COLD):
            if cell_c >= cool:
                given = less + (more - less) * (cell_c - cool) / (warm - cool)
                break
    if k and c_rate > 0.7:
        given *= (0.7 / c_rate) ** k
    return 1.0 - given


@dataclass
class Cell:
    """A labelled battery."""

    name: str
    family: str
    wh: float
    charge: float
    cell_c: float
    home: str
    k: float = 0.0
    refused: str = ""
    inside: int | None = None

    def line(self, watts: float) -> float:
        """Charge at which it gives out at a draw."""
        return hidden(self.cell_c, watts / self.wh, self.k)

    def refuses(self) -> bool:
        """Whether it takes no charge for cold or heat; a latch."""
        if self.refused == "cold":
            self.refused = "cold" if self.cell_c < 2 else ""
        elif self.refused == "hot":
            self.refused = "hot" if self.cell_c > 43 else ""
        else:
            self.refused = "cold" if self.cell_c <= 0 else "hot" if self.cell_c > 45 else ""
        return bool(self.refused)


@dataclass
class Store:
    """A source: a bank with what is in it, or a plug or vehicle that gives while it is live."""

    doc: Doc
    wh: float = 0.0
    charge: float = 0.0
    cell_c: float = 0.0
    home: str = "bag"
    awake: bool = True
    idle_s: float = 0.0
    dead: bool = False
    load_w: float = 0.0
    hung: list[int | None] = field(default_factory=list)

    def __post_init__(self) -> None:
        """Nothing hangs on it yet."""
        self.hung = [None for _ in self.doc["ports"]]

    @property
    def is_bank(self) -> bool:
        """Whether it can be empty."""
        return bool(self.doc["kind"] == "bank")

    def floor(self) -> float:
        """Charge below which it gives cameras nothing."""
        reserve = self.doc.get("reserve_wh", 0.0) / (self.wh * BANK_OUT)
        return max(reserve, hidden(self.cell_c))

    def live(self, item: Doc, second: int) -> float:
        """Watts that all ports together can give now."""
        kind = self.doc["kind"]
        total: float = self.doc.get("total_w") or sum(self.doc["ports"])
        if kind == "bank":
            return total if self.awake and not self.dead else 0.0
        if kind == "vehicle":
            return total if item.get("vehicle_runs") else 0.0
        socket = item.get("socket")
        if not socket:
            return 0.0
        opens = socket.get("start_s", 0)
        length = socket.get("duration_s") or item["duration_s"] - opens
        return min(total, socket["watts"]) if opens <= second < opens + length else 0.0

    def drain(self, place_c: float) -> None:
        """Half a second of what hung on it; it may sleep, and give out."""
        if not self.is_bank:
            return
        self.charge -= self.load_w / BANK_OUT * STEP_H / self.wh
        self.cell_c += (place_c - self.cell_c) * (1 - exp(-STEP_S / BANK_LAG_S))
        self.idle_s = self.idle_s + STEP_S if self.load_w < 0.25 else 0.0
        if self.idle_s >= 30 and not self.doc.get("stays_on"):
            self.awake = False
        if self.charge <= self.floor():
            self.dead = True
        elif self.dead and self.charge >= self.floor() + REVIVAL:
            self.dead = False


@dataclass
class Memory:
    """A card or fixed memory."""

    name: str
    room: float
    used: float = 0.0
    inside: int | None = None
