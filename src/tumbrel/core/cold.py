"""What the cold hides of a cell's charge (model/cold#reach)."""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass
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


def cold_curve(points: tuple[tuple[float, float], ...], factor: float = 1.0) -> ColdCurve:
    """A curve from available shares by temperature [degC], any order, times a factor [0..1]."""
    ordered = sorted(points)
    cells_c = tuple(cell_c for cell_c, _ in ordered)
    hidden = tuple(1.0 - share * factor for _, share in ordered)
    pairs = zip(cells_c, cells_c[1:], hidden, hidden[1:], strict=False)
    slopes = [abs((b - a) / (warm - cold)) for cold, warm, a, b in pairs]
    return ColdCurve(cells_c, hidden, max(slopes, default=0.0))


def hard_draw_factor(draw_w: float, wh: float, cold_k: float, reference_c_rate: float) -> float:
    """`min(1, (0.7/C))^k` with C = draw/wh [1/h] (model/cold#reach); 1 while k is unmeasured."""
    if cold_k == 0.0 or draw_w <= reference_c_rate * wh:
        return 1.0
    return float((reference_c_rate * wh / draw_w) ** cold_k)


def curve_at(family: BatteryFamily, draw_w: float, wh: float, defaults: Defaults) -> ColdCurve:
    """A family's curve for a cell of wh [W h] at a draw [W] (model/cold#reach)."""
    reference = defaults.cold_reference_c_rate.value
    factor = hard_draw_factor(draw_w, wh, family.cold_k, reference)
    return cold_curve(points_of(family, defaults), factor)


def points_of(family: BatteryFamily, defaults: Defaults) -> tuple[tuple[float, float], ...]:
    """A family's own measured curve, else the typical one, as (degC, share)."""
    own = tuple((point.cell_c, point.share) for point in family.available)
    return own or defaults.available
