"""What the cold hides of a cell's charge (model/cold#reach)."""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

from .document import BatteryFamily
from .parameters import Defaults
from .shared import Shared


@dataclass(frozen=True, slots=True)
class ColdCurve(Shared):
    """Share of the charge that is out of reach, by cell temperature; steepest slope [1/K]."""

    cells_c: tuple[float, ...]
    unreachable: tuple[float, ...]
    steepest: float

    def at(self, cell_c: float) -> float:
        """Unreachable share at a cell temperature [degC]: linear between knots, flat outside."""
        cells_c, shares = self.cells_c, self.unreachable
        if cell_c >= cells_c[-1]:
            return shares[-1]
        if cell_c <= cells_c[0]:
            return shares[0]
        place = bisect_right(cells_c, cell_c)
        low_c, high_c = cells_c[place - 1], cells_c[place]
        low, high = shares[place - 1], shares[place]
        return low + (high - low) * (cell_c - low_c) / (high_c - low_c)

    def warmth_for(self, share: float) -> float | None:
        """The lowest temperature [degC] from which on at most a share is out of reach, if any."""
        knots = list(zip(self.cells_c, self.unreachable, strict=True))
        if knots[-1][1] > share:
            return None
        warmest = knots[-1][0]
        for (low_c, low), (high_c, high) in reversed(list(pairwise(knots))):
            if low > share:
                return low_c + (high_c - low_c) * (low - share) / (low - high)
            warmest = low_c
        return warmest


@lru_cache(maxsize=256)
def cold_curve(points: tuple[tuple[float, float], ...], health: float = 1.0) -> ColdCurve:
    """A curve from available shares by temperature [degC], any order, of a cell of some health.

    What the cold hides is energy of a new cell, so a worn one has less beside it: hidden is
    `min(1, (1 - share) / health)` (model/cold#worn).
    """
    rows: list[tuple[float, float]] = []
    for cell_c, share in sorted(points):
        hidden = (1.0 - share) / health
        if rows and (rows[-1][1] > 1.0) != (hidden > 1.0):  # where nothing begins to be left
            before_c, before = rows[-1]
            way = (1.0 - before) / (hidden - before)
            rows.append((before_c + (cell_c - before_c) * way, 1.0))
        rows.append((cell_c, hidden))
    cells_c, shares = zip(*rows, strict=True)
    return _with_slope(cells_c, tuple(min(1.0, hidden) for hidden in shares))


def _with_slope(cells_c: tuple[float, ...], hidden: tuple[float, ...]) -> ColdCurve:
    pairs = zip(cells_c, cells_c[1:], hidden, hidden[1:], strict=False)
    slopes = [abs((b - a) / (warm - cold)) for cold, warm, a, b in pairs if warm > cold]
    return ColdCurve(cells_c, hidden, max(slopes, default=0.0))


def hard_draw_factor(draw_w: float, wh: float, cold_k: float, reference_c_rate: float) -> float:
    """`min(1, (0.7/C))^k` with C = draw/wh [1/h] (model/cold#reach); 1 while k is unmeasured."""
    if cold_k == 0.0 or draw_w <= reference_c_rate * wh:
        return 1.0
    return float((reference_c_rate * wh / draw_w) ** cold_k)


def curve_at(
    curve: ColdCurve, cold_k: float, draw_w: float, wh: float, defaults: Defaults
) -> ColdCurve:
    """A cell's curve at a draw [W], its energy wh [W h]: a hard one takes of what is in reach.

    Source: model/cold#reach.
    """
    factor = hard_draw_factor(draw_w, wh, cold_k, defaults.cold_reference_c_rate.value)
    return _with_slope(
        curve.cells_c, tuple(1.0 - (1.0 - held) * factor for held in curve.unreachable)
    )


def points_of(family: BatteryFamily, defaults: Defaults) -> tuple[tuple[float, float], ...]:
    """A family's own measured curve, else the typical one, as (degC, share)."""
    own = tuple((point.cell_c, point.share) for point in family.available)
    return own or defaults.available
