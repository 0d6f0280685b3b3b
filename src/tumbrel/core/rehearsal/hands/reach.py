"""What a battery will give over what is asked, by the course that it will take (model/hands#swap).

The body goes on from where it is towards the level of what is asked, or of rest; the cell, from
the warmth of where it lay, follows the body. What counts is the most that the cold holds back at
any instant that is asked, the hard-draw factor included.
"""

from __future__ import annotations

from bisect import bisect_left
from math import log
from typing import Final

from ...cold import ColdCurve, curve_at
from ...two_lags import NEARLY_EQUAL, chained
from ..camera.camera_run import CameraRun
from ..stock.batteries import Cell
from ..trip.asked import Asked
from ..trip.climate import climate_of

WARM_C: Final = 70.0


def reachable_wh(run: CameraRun, cell: Cell, enough_wh: float, now_ms: int, until_ms: int) -> float:
    """Watt-hours that a cell, in a camera from now on, gives over what is asked until then.

    Found without its course where even the coldest that it could meet leaves enough.
    """
    line = _Line(run, cell)
    spans = run.schedule.within(now_ms, until_ms)
    if not spans:
        return cell.wh * max(0.0, cell.charge - line.at(spans, cell.cell_c))
    last_ms = min(until_ms, spans[-1].end_ms)
    held = line.at(spans, _hull_c(run, cell, spans, last_ms))
    surely_wh = cell.wh * max(0.0, cell.charge - held)
    if surely_wh >= enough_wh or held <= line.at(spans, WARM_C):
        return surely_wh
    return cell.wh * max(0.0, cell.charge - _held_back(run, cell, line, spans, now_ms, last_ms))


def gives_now(run: CameraRun, now_ms: int, until_ms: int) -> bool:
    """Whether the battery in it would start what is asked next, as cold as it is.

    Source: model/cold#reach.
    """
    cell = run.cell
    if cell is None or run.dead:
        return False
    spans = run.schedule.within(now_ms, until_ms)
    line = _Line(run, cell).of(spans[0]).at(cell.cell_c) if spans else run.line()
    return cell.charge > line


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
            self.by_draw[draw_w] = curve_at(run.energy.family, draw_w, self.cell.wh, run.defaults)
        return self.by_draw[draw_w]

    def at(self, spans: list[Asked], cell_c: float) -> float:
        """The highest of some stretches at one temperature."""
        if self.run.energy.family.cold_k == 0.0:
            return self.cell.curve.at(cell_c)
        return max((self.of(span).at(cell_c) for span in spans), default=self.cell.curve.at(cell_c))


def _hull_c(run: CameraRun, cell: Cell, spans: list[Asked], until_ms: int) -> float:
    """A cell stays above the coldest of itself, the body and every level that this meets."""
    first = run.thermal.step
    last = max(first + 1, bisect_left(run.thermal.conditions.starts_ms, until_ms))
    coldest_c = min(run.thermal.climate.base_c[first:last])
    lowest = min(cell.cell_c, run.thermal.body_c, coldest_c)
    worn = run.thermal.body
    for span in spans:
        assert span.recording is not None
        if span.recording.body is not worn:
            worn = span.recording.body
            coldest_c = min(climate_of(worn, run.thermal.conditions).base_c[first:last])
            lowest = min(lowest, coldest_c)
    return lowest


def _held_back(
    run: CameraRun, cell: Cell, line: _Line, spans: list[Asked], now_ms: int, until_ms: int
) -> float:
    """The most that the cold holds back at any instant asked [0..1]."""
    course = _Course(run, cell.cell_c, now_ms)
    held = 0.0
    for span in spans:
        assert span.recording is not None
        if span.start_ms > course.at_ms:
            course.go(span.start_ms, _rest_rise_k(run))
        curve = line.of(span)
        course.use_set_up(span)
        held = max(held, curve.at(course.cell_c))
        lowest_c = course.go(min(span.end_ms, until_ms), span.need_rise_k)
        held = max(held, curve.at(lowest_c))
    return held


def _rest_rise_k(run: CameraRun) -> float:
    """Rise between stretches [K], of whatever it does there (model/energy#draw)."""
    if run.between == "standby":
        return run.thermal.body.resistance_k_per_w * run.energy.standby_w
    return run.recording.rise_k if run.between == "on" and run.recording else 0.0


class _Course:
    """Body and cell marched ahead through the steps of the conditions."""

    def __init__(self, run: CameraRun, cell_c: float, now_ms: int) -> None:
        self.run, self.at_ms = run, now_ms
        self.body_c, self.cell_c = run.thermal.body_c, cell_c
        self.climate, self.step = run.thermal.climate, run.thermal.step
        self.worn = run.thermal.body

    def use_set_up(self, span: Asked) -> None:
        """Go on in the set-up of a stretch."""
        assert span.recording is not None
        if span.recording.body is not self.worn:
            self.worn = span.recording.body
            self.climate = climate_of(self.worn, self.run.thermal.conditions)

    def go(self, to_ms: int, rise_k: float) -> float:
        """Go on to a time; the lowest temperature of the cell on the way [degC]."""
        starts, climate = self.run.thermal.conditions.starts_ms, self.climate
        base_c, g, lags_ms = climate.base_c, climate.g, climate.lag_ms
        lag, final = self.run.thermal.cell_lag_ms, len(starts) - 1
        at_ms, step, body_c, cell_c = self.at_ms, self.step, self.body_c, self.cell_c
        lowest_c = cell_c
        while at_ms < to_ms:
            passes = step < final and starts[step + 1] <= to_ms
            end_ms = starts[step + 1] if passes else to_ms
            level_c, body_lag = base_c[step] + g[step] * rise_k, lags_ms[step]
            length_ms = float(end_ms - at_ms)
            body_then_c, cell_then_c = chained(body_c, cell_c, level_c, body_lag, lag, length_ms)
            if cell_then_c < lowest_c:  # noqa: PLR1730 - min() costs more than the comparison
                lowest_c = cell_then_c
            if body_c < cell_c and body_then_c > cell_then_c:  # it fell first, and rose then
                turn_ms = _turn_ms(body_c, cell_c, level_c, body_lag, lag)
                if 0.0 < turn_ms < length_ms:
                    turned = chained(body_c, cell_c, level_c, body_lag, lag, turn_ms)
                    lowest_c = min(lowest_c, turned[1])
            at_ms, body_c, cell_c = end_ms, body_then_c, cell_then_c
            if passes:
                step += 1
        self.at_ms, self.step, self.body_c, self.cell_c = at_ms, step, body_c, cell_c
        return lowest_c


def _turn_ms(body_c: float, cell_c: float, level_c: float, body_lag: float, lag: float) -> float:
    """When the cell is as warm as the body, which is where it turns [ms] (model/cold#crossing)."""
    over_c, gap_c = body_c - level_c, cell_c - body_c
    if abs(body_lag - lag) <= NEARLY_EQUAL * lag:
        return lag * gap_c / -over_c if over_c else 0.0
    share = over_c * lag / (body_lag - lag)
    ratio = (gap_c - share) / -share if share else 0.0
    return log(ratio) / (1.0 / lag - 1.0 / body_lag) if ratio > 0.0 else 0.0
