"""What a battery will give over what is asked, by the course that it will take (model/hands#swap).

The body goes on from where it is towards the level of what is asked, or of rest; the cell, from
the warmth of where it lay, follows the body. What counts is the most that the cold holds back at
any instant that is asked, the hard-draw factor included.
"""

from __future__ import annotations

from bisect import bisect_left
from math import log
from typing import Final

from mypy_extensions import mypyc_attr

from ...cold import ColdCurve, curve_at
from ...two_lags import NEARLY_EQUAL, chained, following
from ..camera.camera_run import CameraRun
from ..stock.batteries import Cell
from ..trip.asked import Asked
from ..trip.climate import Climate, climate_of

WARM_C: Final = 70.0


@mypyc_attr(serializable=True)
class Reachable:
    """What batteries would give in a camera from now on, over what is asked until a time.

    The course of its body is found once, and only where a battery needs it.
    """

    def __init__(self, run: CameraRun, now_ms: int, until_ms: int) -> None:
        self.run, self.now_ms = run, now_ms
        self.spans = run.schedule.within(now_ms, until_ms)
        self.last_ms = min(until_ms, self.spans[-1].end_ms) if self.spans else now_ms
        self._coldest_c: float | None = None
        self._course: list[_Stretch] = []

    def starts(self) -> bool:
        """Whether the battery in it would start what is asked next, as cold as it is.

        Source: model/cold#reach.
        """
        run, cell = self.run, self.run.cell
        if cell is None or run.dead:
            return False
        spans = self.spans
        line = _Line(run, cell).of(spans[0]).at(cell.cell_c) if spans else run.line()
        return cell.charge > line

    def gives_wh(self, cell: Cell, enough_wh: float) -> float:
        """Watt-hours that a cell gives.

        Found without its course where even the coldest that it could meet leaves enough.
        """
        line, spans = _Line(self.run, cell), self.spans
        if not spans:
            return cell.wh * max(0.0, cell.charge - line.at(spans, cell.cell_c))
        held = line.at(spans, min(cell.cell_c, self._met_c()))
        surely_wh = cell.wh * max(0.0, cell.charge - held)
        if surely_wh >= enough_wh or held <= line.at(spans, WARM_C):
            return surely_wh
        return cell.wh * max(0.0, cell.charge - self._held_back(cell.cell_c, line))

    def _met_c(self) -> float:
        """The coldest of the body and every level that it meets; a cell in it stays above."""
        if self._coldest_c is None:
            thermal = self.run.thermal
            first = thermal.step
            last = max(first + 1, bisect_left(thermal.conditions.starts_ms, self.last_ms))
            lowest_c = min(thermal.body_c, *thermal.climate.base_c[first:last])
            worn = thermal.body
            for span in self.spans:
                assert span.recording is not None
                if span.recording.body is not worn:
                    worn = span.recording.body
                    base_c = climate_of(worn, thermal.conditions).base_c
                    lowest_c = min(lowest_c, *base_c[first:last])
            self._coldest_c = lowest_c
        return self._coldest_c

    def _held_back(self, cell_c: float, line: _Line) -> float:
        """The most that the cold holds back at any instant asked [0..1]."""
        if not self._course:
            self._course = _course(self.run, self.spans, self.now_ms, self.last_ms)
        held = 0.0
        for stretch in self._course:
            lowest_c, end_c = stretch.through(cell_c)
            if stretch.span is not None:
                curve = line.of(stretch.span)
                held = max(held, curve.at(cell_c), curve.at(lowest_c))
            cell_c = end_c
        return held


class _Line:
    """The charge at which a cell gives no more, at a temperature and a stretch's draw."""

    def __init__(self, run: CameraRun, cell: Cell) -> None:
        self.run, self.cell = run, cell
        self.by_draw: dict[float, ColdCurve] = {}

    def of(self, span: Asked) -> ColdCurve:
        """The cold curve at a stretch's draw."""
        run, recording = self.run, span.recording
        if run.energy.family.cold_k == 0.0 or recording is None:
            return self.cell.curve
        draw_w = recording.draw_w
        if draw_w not in self.by_draw:
            cell, cold_k = self.cell, run.energy.family.cold_k
            self.by_draw[draw_w] = curve_at(cell.curve, cold_k, draw_w, cell.wh, run.defaults)
        return self.by_draw[draw_w]

    def at(self, spans: list[Asked], cell_c: float) -> float:
        """The highest of some stretches at one temperature."""
        if self.run.energy.family.cold_k == 0.0:
            return self.cell.curve.at(cell_c)
        return max((self.of(span).at(cell_c) for span in spans), default=self.cell.curve.at(cell_c))


@mypyc_attr(serializable=True)
class _Stretch:
    """A body's course over what is asked, or over rest before it, in pieces of constant level.

    A cell in it ends a piece at `cell * decay + shift`.
    """

    def __init__(self, span: Asked | None, cell_lag_ms: float) -> None:
        self.span, self.cell_lag_ms = span, cell_lag_ms
        self.decays: list[float] = []
        self.shifts: list[float] = []
        self.pieces: list[tuple[float, float, float, float, float]] = []

    def through(self, cell_c: float) -> tuple[float, float]:
        """The lowest temperature of a cell on the way, and its last [degC]."""
        lowest_c, pieces, shifts = cell_c, self.pieces, self.shifts
        for number, decay in enumerate(self.decays):
            then_c = cell_c * decay + shifts[number]
            if then_c < lowest_c:  # noqa: PLR1730 - min() costs more than the comparison
                lowest_c = then_c
            body_c, body_then_c, level_c, body_lag, length_ms = pieces[number]
            if body_c < cell_c and body_then_c > then_c:  # it fell first, and rose then
                lag = self.cell_lag_ms
                turn_ms = _turn_ms(body_c, cell_c, level_c, body_lag, lag)
                if 0.0 < turn_ms < length_ms:
                    turned = chained(body_c, cell_c, level_c, body_lag, lag, turn_ms)
                    lowest_c = min(lowest_c, turned[1])
            cell_c = then_c
        return lowest_c, cell_c


def _course(run: CameraRun, spans: list[Asked], now_ms: int, until_ms: int) -> list[_Stretch]:
    """The course of a camera's body through what is asked until a time, and the rests between."""
    thermal, climate = run.thermal, run.thermal.climate
    at_ms, step, body_c, worn = now_ms, thermal.step, thermal.body_c, thermal.body
    found: list[_Stretch] = []
    for span in spans:
        assert span.recording is not None
        if span.start_ms > at_ms:
            rest = _Stretch(None, thermal.cell_lag_ms)
            found.append(rest)
            rise_k = _rest_rise_k(run)
            step, body_c = _go(run, rest, climate, step, body_c, at_ms, span.start_ms, rise_k)
            at_ms = span.start_ms
        if span.recording.body is not worn:
            worn = span.recording.body
            climate = climate_of(worn, thermal.conditions)
        asked = _Stretch(span, thermal.cell_lag_ms)
        found.append(asked)
        end_ms = min(span.end_ms, until_ms)
        step, body_c = _go(run, asked, climate, step, body_c, at_ms, end_ms, span.need_rise_k)
        at_ms = max(at_ms, end_ms)
    return found


def _go(
    run: CameraRun,
    stretch: _Stretch,
    climate: Climate,
    step: int,
    body_c: float,
    at_ms: int,
    to_ms: int,
    rise_k: float,
) -> tuple[int, float]:
    """Add the pieces of a stretch; the step of the conditions and the body [degC] at its end."""
    starts = run.thermal.conditions.starts_ms
    base_c, g, lags_ms = climate.base_c, climate.g, climate.lag_ms
    lag, final = run.thermal.cell_lag_ms, len(starts) - 1
    while at_ms < to_ms:
        passes = step < final and starts[step + 1] <= to_ms
        end_ms = starts[step + 1] if passes else to_ms
        level_c, body_lag = base_c[step] + g[step] * rise_k, lags_ms[step]
        length_ms = float(end_ms - at_ms)
        then_c, decay, shift = following(body_c, level_c, body_lag, lag, length_ms)
        stretch.decays.append(decay)
        stretch.shifts.append(shift)
        stretch.pieces.append((body_c, then_c, level_c, body_lag, length_ms))
        at_ms, body_c = end_ms, then_c
        if passes:
            step += 1
    return step, body_c


def _rest_rise_k(run: CameraRun) -> float:
    """Rise between stretches [K], of whatever it does there (model/energy#draw)."""
    if run.between == "standby":
        return run.thermal.body.resistance_k_per_w * run.energy.standby_w
    return run.recording.rise_k if run.between == "on" and run.recording else 0.0


def _turn_ms(body_c: float, cell_c: float, level_c: float, body_lag: float, lag: float) -> float:
    """When the cell is as warm as the body, which is where it turns [ms] (model/cold#crossing)."""
    over_c, gap_c = body_c - level_c, cell_c - body_c
    if abs(body_lag - lag) <= NEARLY_EQUAL * lag:
        return lag * gap_c / -over_c if over_c else 0.0
    share = over_c * lag / (body_lag - lag)
    ratio = (gap_c - share) / -share if share else 0.0
    return log(ratio) / (1.0 / lag - 1.0 / body_lag) if ratio > 0.0 else 0.0
