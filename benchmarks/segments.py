"""How many segments a rehearsal has, counted where the core runs as plain Python.

A segment is a stretch of constant power and conditions: of a camera, of a charging battery, of a
bank.
"""

from __future__ import annotations

import json
import sys
from bisect import bisect_left, bisect_right

import tumbrel
from benchmarks.trips import DAYS, demo, month
from tumbrel.core.document import PlanDocument
from tumbrel.core.rehearsal.camera.thermal import Thermal
from tumbrel.core.rehearsal.engine.played import play
from tumbrel.core.rehearsal.power.grid import Grid
from tumbrel.core.rehearsal.stock.batteries import Cell
from tumbrel.core.rehearsal.trip.prepare import prepare


def segments_of(document: PlanDocument) -> int:
    """Played with the two functions counted that follow time."""
    count = 0
    follow, advance = Thermal.follow, Grid.advance

    def counting(
        self: Thermal, from_ms: int, to_ms: int, cell: Cell | None, *, on: bool
    ) -> list[tuple[int, float, float]]:
        nonlocal count
        starts = self.conditions.starts_ms
        count += 1 + bisect_left(starts, to_ms) - bisect_right(starts, from_ms)
        return follow(self, from_ms, to_ms, cell, on=on)

    def counting_grid(self: Grid, to_ms: int) -> None:
        nonlocal count
        if to_ms > self.now_ms:
            count += sum(one.bank is not None for one in self.supplies)
            count += sum(bay.cell is not None for one in self.chargers for bay in one.bays)
        advance(self, to_ms)

    Thermal.follow = counting  # type: ignore[method-assign]
    Grid.advance = counting_grid  # type: ignore[method-assign]
    try:
        play(prepare(document))
    finally:
        Thermal.follow = follow  # type: ignore[method-assign]
        Grid.advance = advance  # type: ignore[method-assign]
    return count


def main() -> None:
    """The main demo's segments, and those of the long trips by their days, as JSON."""
    if tumbrel.BUILT:
        sys.exit("segments are counted in plain Python: set TUMBREL_PURE=1")
    main_demo = demo()
    long = {str(days): segments_of(month(main_demo, days)) for days in DAYS}
    print(json.dumps({"demo": segments_of(main_demo), **long}))


if __name__ == "__main__":
    main()
