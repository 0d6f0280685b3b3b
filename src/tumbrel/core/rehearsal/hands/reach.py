"""What a battery will give over what is asked, by the course that it will take (model/hands#swap).

The body goes on from where it is towards the level of what is asked, or of rest; the cell, from
the warmth of where it lay, follows the body. It gives what it has given when its falling charge
meets what the cold holds back at that instant, the hard-draw factor included.
"""

from __future__ import annotations

from bisect import bisect_left
from math import log
from typing import Final

from mypy_extensions import mypyc_attr

from ...charging import MS_PER_HOUR
from ...cold import ColdCurve, curve_at
from ...energy import spent_wh
from ...two_lags import NEARLY_EQUAL, chained, following
from ..camera.camera_run import CameraRun
from ..camera.pieces import EvenPiece
from ..stock.batteries import Cell
from ..trip.asked import Asked
from ..trip.climate import Climate, climate_of

BodyPiece = tuple[float, float, float, float, float]  # body, then, level [degC], lag, length [ms]
WARM_C: Final = 70.0
DECIDES: Final = 0.01


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
        return self._until_met_wh(cell, line)

    def cold_decides(self, cell: Cell, wanted_wh: float) -> bool:
        """Whether a cell would not suffice as cold as it may get, and gives more in the warm."""
        spans, line = self.spans, _Line(self.run, cell)
        if not spans:
            return False
        held = line.at(spans, min(cell.cell_c, self._met_c()))
        gives_more = held > line.at(spans, WARM_C) + DECIDES
        return gives_more and cell.wh * (cell.charge - held) < wanted_wh

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

    def _until_met_wh(self, cell: Cell, line: _Line) -> float:
        """What a cell has given as its charge meets its line, or held above that at last [W h]."""
        if not self._course:
            self._course = _course(self.run, self.spans, self.now_ms, self.last_ms)
        charge, cell_c, held = cell.charge, cell.cell_c, 0.0
        for stretch in self._course:
            charge -= stretch.boot_wh / cell.wh
            curve = None if stretch.span is None else line.of(stretch.span)
            for number, piece in enumerate(stretch.pieces):
                then_c = cell_c * stretch.decays[number] + stretch.shifts[number]
                fall = stretch.draw_w / MS_PER_HOUR / cell.wh
                if curve is not None:
                    lowest_c = stretch.lowest_c(number, cell_c, then_c)
                    if charge - fall * piece[4] <= curve.at(lowest_c):
                        course = EvenPiece(0, round(piece[4]), piece[0], cell_c, piece[2], piece[3])
                        met_ms = course.line_met(charge, fall, curve, stretch.cell_lag_ms)
                        if met_ms is not None:
                            return cell.wh * max(0.0, cell.charge - charge + fall * met_ms)
                charge -= fall * piece[4]
                cell_c = then_c
            held = held if curve is None else curve.at(cell_c)
        return cell.wh * max(0.0, cell.charge - held)


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

    A cell in it ends a piece at `cell * decay + shift`; `boot_wh` goes as it begins, `draw_w` is
    drawn all the while.
    """

    def __init__(self, span: Asked | None, cell_lag_ms: float, draw_w: float) -> None:
        self.span, self.cell_lag_ms = span, cell_lag_ms
        self.draw_w, self.boot_wh = draw_w, 0.0
        self.decays: list[float] = []
        self.shifts: list[float] = []
        self.pieces: list[BodyPiece] = []

    def lowest_c(self, number: int, cell_c: float, then_c: float) -> float:
        """The lowest temperature of a cell in a piece, from where it begins to where it ends."""
        lowest_c = min(cell_c, then_c)
        body_c, body_then_c, level_c, body_lag, length_ms = self.pieces[number]
        if body_c < cell_c and body_then_c > then_c:  # it fell first, and rose then
            lag = self.cell_lag_ms
            turn_ms = _turn_ms(body_c, cell_c, level_c, body_lag, lag)
            if 0.0 < turn_ms < length_ms:
                turned = chained(body_c, cell_c, level_c, body_lag, lag, turn_ms)
                lowest_c = min(lowest_c, turned[1])
        return lowest_c


def _course(run: CameraRun, spans: list[Asked], now_ms: int, until_ms: int) -> list[_Stretch]:
    """The course of a camera's body through what is asked until a time, and the rests between."""
    thermal, climate = run.thermal, run.thermal.climate
    at_ms, step, body_c, worn = now_ms, thermal.step, thermal.body_c, thermal.body
    found: list[_Stretch] = []
    last: Asked | None = None
    for span in spans:
        assert span.recording is not None
        if span.start_ms > at_ms:
            rest = _Stretch(None, thermal.cell_lag_ms, _rest_w(run, last))
            found.append(rest)
            rise_k = _rest_rise_k(run)
            step, body_c = _go(run, rest, climate, step, body_c, at_ms, span.start_ms, rise_k)
            at_ms = span.start_ms
        if span.recording.body is not worn:
            worn = span.recording.body
            climate = climate_of(worn, thermal.conditions)
        asked = _Stretch(span, thermal.cell_lag_ms, span.need_w)
        fresh = span.start_ms >= now_ms and (last is None or last.end_ms != span.start_ms)
        if fresh and run.between == "off":
            asked.boot_wh = spent_wh(span.recording.boot_w, run.boot_ms)
        found.append(asked)
        end_ms = min(span.end_ms, until_ms)
        step, body_c = _go(run, asked, climate, step, body_c, at_ms, end_ms, span.need_rise_k)
        at_ms, last = max(at_ms, end_ms), span
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


def _rest_w(run: CameraRun, last: Asked | None) -> float:
    """What it draws between stretches [W]; nothing is counted before the first."""
    if last is None or run.between == "off":
        return 0.0
    return last.need_w if run.between == "on" else run.energy.standby_w


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
