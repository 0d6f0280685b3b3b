"""What a camera will meet by itself: heat, an empty or cold cell, a full card, a refusal.

Source: model/cold#crossing.
"""

from __future__ import annotations

from typing import Final

from ...charging import MS_PER_HOUR, NEVER_MS
from ...energy import self_discharge_wh
from ...heat import ms_to_level
from ...two_lags import chained, first_zero
from ..stock.batteries import Cell
from ..stock.clips import Clip, LoopClip
from .energy import Energy
from .pieces import EvenPiece
from .thermal import Thermal
from .turns import Priority

THAW_HAIR: Final = 1e-7  # a whole millisecond may fall this short of the root that is foretold
Event = tuple[int, int]


class Forecast:
    """Finds the next of a camera's own events from how it stands now."""

    __slots__ = (
        "battery_out",
        "cell",
        "dead",
        "energy",
        "hot",
        "now_ms",
        "off",
        "refused",
        "thermal",
    )

    def __init__(
        self,
        now_ms: int,
        thermal: Thermal,
        energy: Energy,
        cell: Cell | None,
        *,
        off: bool,
        hot: bool,
        dead: bool,
        battery_out: bool,
        refused: bool,
    ) -> None:
        self.now_ms = now_ms
        self.thermal = thermal
        self.energy = energy
        self.cell = cell
        self.off = off
        self.hot = hot
        self.dead = dead
        self.battery_out = battery_out
        self.refused = refused

    def next_event(
        self, bound_ms: int, clip: Clip | None, clip_limit_ms: int | None
    ) -> Event | None:
        """What it meets first by itself, at or before a bound: heat, an empty cell, a limit."""
        first_ms, what = bound_ms, None
        if clip is not None:
            limited = clip_limit_ms is not None and not isinstance(clip, LoopClip)
            limit_ms = clip.start_ms + clip_limit_ms if clip_limit_ms is not None else NEVER_MS
            if limited and limit_ms <= first_ms:
                first_ms, what = limit_ms, Priority.CLIP_LIMIT
            full_ms = clip.full_ms()
            if full_ms <= first_ms:
                first_ms, what = full_ms, Priority.CARD_FULL
        charging = self._charging_event()
        if charging <= first_ms:
            first_ms, what = charging, Priority.CONDITIONS
        found = self._scan(first_ms)
        if found is not None and (what is None or found < (first_ms, what)):
            first_ms, what = found
        return None if what is None else (max(self.now_ms + 1, first_ms), what)

    def heat_ms(self, bound_ms: int) -> int | None:
        """When heat would stop it, whatever else ends it before; None: not before a bound."""
        found = self._scan(bound_ms, only=Priority.HEAT)
        return None if found is None else found[0]

    def empty_ms(self, bound_ms: int) -> int | None:
        """When its cell would give no more, whatever else ends it before; None: not by a bound."""
        found = self._scan(bound_ms, only=Priority.EMPTY)
        return None if found is None else found[0]

    def _charging_event(self) -> int:
        """When the taper begins to heat less, or the cell is full [ms]."""
        cell = self.cell
        if self.energy.into_w <= 0.0 or cell is None:
            return NEVER_MS
        kink = cell.intake.kink_for(self.energy.into_w)
        target = kink if cell.charge < kink - 1e-9 else cell.intake.full
        left_ms = cell.intake.ms_to(cell.charge, self.energy.into_w, target)
        return NEVER_MS if left_ms >= NEVER_MS else self.now_ms + left_ms

    def _scan(self, bound_ms: int, only: int = 0) -> Event | None:
        """The first level that body or cell reaches at or before a bound; of one kind alone."""
        heat = (not self.off or self.hot) and not self._stays_below(bound_ms)
        heat = heat and only in (0, Priority.HEAT)
        cold = self._may_run_out(bound_ms) and only in (0, Priority.EMPTY)
        cell, thermal = self.cell, self.thermal
        thaw = self.dead and self.off and cell is not None and not thawed(self.energy, cell)
        refusal = cell is not None and not self.battery_out
        refusal = refusal and (self.energy.feed_w > 0.0 or self.refused)
        if not (heat or cold or refusal or thaw):
            return None
        starts, climate = thermal.conditions.starts_ms, thermal.climate
        at_ms, step, body_c = self.now_ms, thermal.step, thermal.body_c
        cell_c = cell.cell_c if cell is not None else body_c
        while True:
            last = step + 1 >= len(starts)
            end_ms = bound_ms if last else min(bound_ms, starts[step + 1])
            piece = EvenPiece(
                at_ms,
                end_ms,
                body_c,
                cell_c,
                climate.base_c[step] + climate.g[step] * thermal.rise_k,
                climate.lag_ms[step],
            )
            found = [self._heat_in(piece)] if heat else []
            found += [self._empty_in(piece)] if cold else []
            found += [self._thaw_in(piece)] if thaw else []
            found += self._refusals_in(piece) if refusal else []
            events = [event for event in found if event is not None]
            if events:
                return min(events)
            if last or end_ms >= bound_ms:
                return None
            body_c, cell_c = chained(
                body_c, cell_c, piece.level_c, piece.lag_ms, thermal.cell_lag_ms, end_ms - at_ms
            )
            at_ms, step = end_ms, step + 1

    def _heat_in(self, piece: EvenPiece) -> Event | None:
        limits = self.thermal.body.limits
        target_c = limits.restart_c if self.hot else limits.stop_c
        past = piece.body_c <= target_c if self.hot else piece.body_c >= target_c
        if past:
            return piece.at_ms + 1, Priority.HEAT
        reached = ms_to_level(piece.body_c, piece.level_c, target_c, piece.lag_ms / 1000.0)
        if reached is None or piece.at_ms + reached > piece.end_ms:
            return None
        return piece.at_ms + reached, Priority.HEAT

    def _empty_in(self, piece: EvenPiece) -> Event | None:
        """When the falling charge meets what the cold holds back.

        Source: model/cold#reach, model/cold#crossing.
        """
        cell, curve = self.cell, self.energy.curve
        assert cell is not None
        fall = self.energy.drain_w / MS_PER_HOUR / cell.wh
        charge = cell.charge - fall * (piece.at_ms - self.now_ms)
        if charge - fall * (piece.end_ms - piece.at_ms) > curve.at(piece.coldest_c()):
            return None
        found = piece.line_met(charge, fall, curve, self.thermal.cell_lag_ms)
        return None if found is None else (piece.at_ms + found, Priority.EMPTY)

    def _thaw_in(self, piece: EvenPiece) -> Event | None:
        """When a dead cell, warmed or charged, has enough above its line to go on.

        Source: model/cold#reach.
        """
        cell, curve = self.cell, self.energy.curve
        assert cell is not None
        lag, steepest = self.thermal.cell_lag_ms, curve.steepest
        most = self.energy.into_w / MS_PER_HOUR / cell.wh
        revival = self.energy.defaults.revival.value - THAW_HAIR
        by_itself = self.energy.defaults.self_discharge_per_month.value

        def missing(at: float) -> tuple[float, float]:
            body_c, cell_c = piece.after(at, lag)
            warming = (max(body_c, piece.level_c) - cell_c) / lag
            elapsed_ms = round(piece.at_ms + at) - self.now_ms
            charge = self.energy.charge_after(cell, elapsed_ms)
            charge -= self_discharge_wh(cell.wh, charge, elapsed_ms, by_itself) / cell.wh
            return curve.at(cell_c) + revival - charge, most + steepest * max(0.0, warming) + 1e-15

        found = first_zero(missing, piece.end_ms - piece.at_ms)
        return None if found is None else (piece.at_ms + found, Priority.EMPTY)

    def _refusals_in(self, piece: EvenPiece) -> list[Event | None]:
        """When charging is refused for cell or body, or may go on again.

        Source: model/charging#refusal, model/heat#limits.
        """
        cell, d = self.cell, self.energy.defaults
        assert cell is not None
        if cell.refused == "cold":
            sides = [(-1.0, d.resume_cold_c.value)]
        elif cell.refused == "hot":
            sides = [(1.0, d.resume_hot_c.value)]
        else:
            sides = [(1.0, d.refuse_cold_c.value), (-1.0, d.refuse_hot_c.value)]
            cool = (-1.0, d.warm_above_c.value) if cell.cool else (1.0, d.cool_below_c.value)
            sides.append(cool)
        found = [self._cell_at(piece, sign, level_c) for sign, level_c in sides]
        turn_c = d.resume_body_c.value if self.energy.body_pause else d.pause_body_c.value
        reached = ms_to_level(piece.body_c, piece.level_c, turn_c, piece.lag_ms / 1000.0)
        if reached is not None and piece.at_ms + reached <= piece.end_ms:
            found.append((piece.at_ms + reached, Priority.CONDITIONS))
        return found

    def _cell_at(self, piece: EvenPiece, sign: float, level_c: float) -> Event | None:
        """When the cell falls (sign 1) or rises (sign -1) to a level from the other side."""
        lag = self.thermal.cell_lag_ms

        def left(at: float) -> tuple[float, float]:
            body_c, cell_c = piece.after(at, lag)
            temps = (body_c, cell_c, piece.level_c)
            return sign * (cell_c - level_c), (max(temps) - min(temps)) / lag + 1e-12

        if sign * (piece.cell_c - level_c) <= 0.0:
            return None
        found = first_zero(left, piece.end_ms - piece.at_ms)
        return None if found is None else (piece.at_ms + found, Priority.CONDITIONS)

    def _may_run_out(self, bound_ms: int) -> bool:
        """Whether the charge may meet the cold's line before a bound (model/cold#crossing)."""
        cell = self.cell
        if cell is None or self.energy.drain_w <= 0.0 or (self.dead and self.off):
            return False
        climate = self.thermal.climate
        coldest_c = min(cell.cell_c, self.thermal.body_c, climate.coldest_base_c)
        spent = self.energy.drain_w * (bound_ms - self.now_ms) / MS_PER_HOUR / cell.wh
        return cell.charge - spent <= self.energy.curve.at(coldest_c)

    def _stays_below(self, bound_ms: int) -> bool:
        """Whether even the hottest air and sun of the trip would not bring the body there in time.

        By 1 - exp(-x) <= x: it rises at most by x of the way to the hottest level.
        """
        if self.hot:
            return False
        thermal, climate = self.thermal, self.thermal.climate
        level_c = climate.hottest_base_c + climate.largest_g * thermal.rise_k
        way = min(1.0, (bound_ms - self.now_ms) / climate.least_lag_ms)
        return (
            thermal.body_c + max(0.0, level_c - thermal.body_c) * way < thermal.body.limits.stop_c
        )


def thawed(energy: Energy, cell: Cell) -> bool:
    """Whether a dead cell may start again, with some charge above its line (model/cold#reach)."""
    revival = energy.defaults.revival.value
    return cell.charge >= energy.line(cell) + revival - 3 * THAW_HAIR
