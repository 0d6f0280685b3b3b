"""A camera's body and the cell in it, followed through air and sun in closed form."""

from __future__ import annotations

from math import exp
from typing import Final

from mypy_extensions import mypyc_attr

from ...heat import Body
from ...parameters import Defaults
from ...two_lags import NEARLY_EQUAL
from ..stock.batteries import Cell
from ..trip.climate import Climate, climate_of
from ..trip.scene import CameraAtStart
from ..trip.timeline import Conditions

FAR_K: Final = 3.0


@mypyc_attr(serializable=True)
class Thermal:
    """Temperature of a body [degC], its place in the conditions, and its rise of its own [K]."""

    __slots__ = (
        "body",
        "body_c",
        "cell_lag_ms",
        "climate",
        "conditions",
        "hottest_c",
        "rise_k",
        "step",
    )

    def __init__(self, carried: CameraAtStart, conditions: Conditions, defaults: Defaults) -> None:
        self.conditions = conditions
        self.cell_lag_ms = defaults.tau_cell_s.value * 1000.0
        first = carried.asked[0].recording if carried.asked else None
        body = first.body if first is not None else carried.body
        self.body = body
        self.climate: Climate = climate_of(body, conditions)
        self.body_c = conditions.ambient_c[0]
        self.hottest_c = self.body_c
        self.rise_k = 0.0
        self.step = 0

    def use_set_up(self, body: Body) -> None:
        """Take on the thermal figures of a set-up."""
        if body is self.body:
            return
        self.body = body
        self.climate = climate_of(body, self.conditions)

    def adopt(self, conditions: Conditions) -> None:
        """Go on in conditions that were the same until now."""
        self.conditions = conditions
        self.climate = climate_of(self.body, conditions)

    @property
    def too_hot(self) -> bool:
        """Whether it is as hot as it may be."""
        return self.body_c >= self.body.limits.stop_c

    def far_from_rest(self, cell: Cell | None) -> bool:
        """Whether body or cell is far from where it will settle."""
        level_c = self.climate.base_c[self.step]
        cell_c = cell.cell_c if cell is not None else level_c
        return abs(self.body_c - level_c) > FAR_K or abs(cell_c - level_c) > FAR_K

    def follow(
        self, from_ms: int, to_ms: int, cell: Cell | None, *, on: bool
    ) -> list[tuple[int, float, float]]:
        """Follow body and cell through the steps of the conditions.

        Gives back the points on the way that are to be seen (time, body, cell): each step while it
        is on; at rest, corners where temperatures begin to change. This is `two_lags.chained`,
        written out: the innermost loop of a rehearsal.
        """
        starts, climate, rise_k = self.conditions.starts_ms, self.climate, self.rise_k
        base_c, g, lags_ms = climate.base_c, climate.g, climate.lag_ms
        at_ms, step, body_c = from_ms, self.step, self.body_c
        hottest_c, cell_lag = self.hottest_c, self.cell_lag_ms
        cell_c = cell.cell_c if cell is not None else body_c
        final = len(starts) - 1
        seen_c = cell_c
        seen: list[tuple[int, float, float]] = []
        before: tuple[int, float, float] | None = None
        while True:
            end_ms = to_ms
            passes = step < final and starts[step + 1] <= to_ms
            if passes:
                end_ms = starts[step + 1]
            level_c, lag = base_c[step] + g[step] * rise_k, lags_ms[step]
            back_ms = at_ms - end_ms
            body_decay, cell_decay = exp(back_ms / lag), exp(back_ms / cell_lag)
            over_c = body_c - level_c
            if abs(lag - cell_lag) > NEARLY_EQUAL * cell_lag:
                share = over_c * lag / (lag - cell_lag)
                cell_c = level_c + share * body_decay + (cell_c - level_c - share) * cell_decay
            else:
                late = over_c * -2.0 * back_ms / (lag + cell_lag)
                cell_c = level_c + (cell_c - level_c + late) * cell_decay
            body_c = level_c + over_c * body_decay
            at_ms = end_ms
            if passes:
                step += 1
            if body_c > hottest_c:  # noqa: PLR1730 - max() costs a tenth of the whole loop
                hottest_c = body_c
            if at_ms >= to_ms:
                break
            if on:
                seen.append((at_ms, body_c, cell_c))
            elif abs(cell_c - seen_c) > FAR_K:
                if before is not None:
                    seen.append(before)
                seen.append((at_ms, body_c, cell_c))
                seen_c, before = cell_c, None
            else:
                before = (at_ms, body_c, cell_c)
        self.step, self.body_c, self.hottest_c = step, body_c, hottest_c
        if cell is not None:
            cell.cell_c = cell_c
        return seen
