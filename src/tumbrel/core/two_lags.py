"""A cell behind a body: two lags in a row, and the first time that a falling value reaches zero."""

from __future__ import annotations

from collections.abc import Callable
from math import ceil, exp
from typing import Final

NEARLY_EQUAL: Final = 1e-6  # farther apart, the difference of the two still has ten digits
LEAST_MS: Final = 0.5
CLOSE_ENOUGH: Final = 1e-7


def chained(
    body_c: float, cell_c: float, level_c: float, body_lag: float, cell_lag: float, elapsed: float
) -> tuple[float, float]:
    """Body and cell temperature [degC] after some time; both lags in the unit of the time.

    The body relaxes to a level, the cell to the body (model/cold#cell, model/heat#node). When the
    two lags are nearly equal the limit `t exp(-t / tau)` is taken (model/cold#crossing).
    """
    over_c = body_c - level_c
    cell_decay = exp(-elapsed / cell_lag)
    if abs(body_lag - cell_lag) <= NEARLY_EQUAL * cell_lag:
        body_now_c = level_c + over_c * exp(-elapsed / body_lag)
        lag = (body_lag + cell_lag) / 2.0
        return body_now_c, level_c + (cell_c - level_c + over_c * elapsed / lag) * cell_decay
    body_decay = exp(-elapsed / body_lag)
    share = over_c * body_lag / (body_lag - cell_lag)
    cell_now_c = level_c + share * body_decay + (cell_c - level_c - share) * cell_decay
    return level_c + over_c * body_decay, cell_now_c


def following(
    body_c: float, level_c: float, body_lag: float, cell_lag: float, elapsed: float
) -> tuple[float, float, float]:
    """Body temperature [degC] after some time, and the two figures of any cell that follows it.

    A cell goes from `c` to `c * decay + shift`; the same as `chained`, for many cells.
    """
    over_c = body_c - level_c
    decay = exp(-elapsed / cell_lag)
    body_decay = exp(-elapsed / body_lag)
    if abs(body_lag - cell_lag) <= NEARLY_EQUAL * cell_lag:
        shift = level_c + (2.0 * over_c * elapsed / (body_lag + cell_lag) - level_c) * decay
    else:
        share = over_c * body_lag / (body_lag - cell_lag)
        shift = level_c + share * body_decay - (level_c + share) * decay
    return level_c + over_c * body_decay, decay, shift


def first_zero(value_and_slope: Callable[[float], tuple[float, float]], end_ms: int) -> int | None:
    """First whole ms in (0, end] at which a value has fallen to zero; None when it does not.

    `value_and_slope(t)` gives the value and a bound on how fast it may fall from there on [1/ms].
    Walks by steps in which the value cannot reach zero, so no crossing is stepped over
    (model/cold#crossing).
    """
    at = 0.0
    while True:
        value, slope = value_and_slope(at)
        if value <= CLOSE_ENOUGH:
            return max(1, ceil(at - 1e-6))
        if at >= end_ms or slope <= 0.0:
            return None
        at = min(float(end_ms), at + max(LEAST_MS, value / slope))
