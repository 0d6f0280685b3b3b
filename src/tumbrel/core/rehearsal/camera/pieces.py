"""A stretch of even conditions: how body and cell go through it, and when the cold wins."""

from __future__ import annotations

from ...cold import ColdCurve
from ...two_lags import chained, first_zero


class EvenPiece:
    """Temperatures where it begins [degC], the level that the body goes to, and its lag [ms]."""

    __slots__ = ("at_ms", "body_c", "cell_c", "end_ms", "lag_ms", "level_c")

    def __init__(
        self,
        at_ms: int,
        end_ms: int,
        body_c: float,
        cell_c: float,
        level_c: float,
        lag_ms: float,
    ) -> None:
        self.at_ms = at_ms
        self.end_ms = end_ms
        self.body_c = body_c
        self.cell_c = cell_c
        self.level_c = level_c
        self.lag_ms = lag_ms

    def after(self, elapsed_ms: float, cell_lag_ms: float) -> tuple[float, float]:
        """Body and cell after some ms."""
        return chained(self.body_c, self.cell_c, self.level_c, self.lag_ms, cell_lag_ms, elapsed_ms)

    def coldest_c(self) -> float:
        """The cell stays above this (model/cold#crossing)."""
        return min(self.body_c, self.cell_c, self.level_c)

    def line_met(
        self, charge: float, fall: float, curve: ColdCurve, cell_lag_ms: float
    ) -> int | None:
        """How long [ms] until a charge, falling by `fall` a ms, meets what the cold holds back.

        None: not in it. Source: model/cold#reach, model/cold#crossing.
        """
        steepest = curve.steepest

        def left(at: float) -> tuple[float, float]:
            body_c, cell_c = self.after(at, cell_lag_ms)
            warmest_c = max(body_c, cell_c, self.level_c)
            cooling = (warmest_c - min(body_c, self.level_c)) / cell_lag_ms
            return charge - fall * at - curve.at(cell_c), fall + steepest * cooling

        return first_zero(left, self.end_ms - self.at_ms)
