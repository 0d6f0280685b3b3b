"""A camera's physical state between events: charge, temperatures and bytes in closed form."""

from __future__ import annotations

from math import exp

from ...charging import MS_PER_HOUR
from ...cold import ColdCurve, cold_curve, curve_at, points_of
from ...document import BatteryFamily, Camera
from ...energy import self_discharge_wh
from ...heat import Body, body_of
from ...parameters import Defaults
from ...two_lags import NEARLY_EQUAL
from ..state.append_log import Log
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..stock.clips import Clip, Kept
from ..trip.asked import Recording
from ..trip.climate import Climate, climate_of
from ..trip.timeline import Conditions
from .causes import ARMED, BETWEEN_FRAMES, BOOTING, COPYING, OFF, RECORDING, STANDBY
from .trace import Trace

COARSE_K = 0.5
COARSE_CHARGE = 0.002
FAR_K = 3.0
SEEN_AT_MS = (600_000, 1_500_000, 3_000_000)
LONG_REST_MS = 3_600_000
THAW_HAIR = 1e-7  # a whole millisecond may fall this short of the root that is foretold


class BodyState:
    """Charge, heat and bytes of one camera, advanced from event to event."""

    __slots__ = (
        "body",
        "body_c",
        "body_pause",
        "camera",
        "card",
        "cell",
        "cell_lag_ms",
        "climate",
        "clip",
        "conditions",
        "curve",
        "dead",
        "defaults",
        "drain_w",
        "draw_w",
        "drawn_wh",
        "family",
        "feed_w",
        "files",
        "frames",
        "hot",
        "hottest_c",
        "hung_on",
        "into_w",
        "kept",
        "lost_wh",
        "now_ms",
        "off_w",
        "port_w",
        "port_wh",
        "recording",
        "refusals",
        "rigged_out",
        "rigged_w",
        "rise_k",
        "spent",
        "standby_w",
        "state",
        "step",
        "trace",
        "train_rise_k",
        "train_w",
        "used_wh",
        "written",
    )

    def __init__(
        self,
        camera: Camera,
        family: BatteryFamily,
        conditions: Conditions,
        defaults: Defaults,
        radio_left_on: bool,
    ) -> None:
        self.camera = camera
        self.family = family
        self.conditions = conditions
        self.defaults = defaults
        self.cell_lag_ms = defaults.tau_cell_s.value * 1000.0
        self.wear(body_of(camera, camera.set_ups[0], defaults))
        self.body_c = conditions.ambient_c[0]
        self.hottest_c = self.body_c
        self.off_w = defaults.radio_left_on_w.value if radio_left_on else 0.0
        standby = camera.standby_w
        self.standby_w = standby if standby is not None else defaults.standby_w.value
        self.state = OFF
        self.recording: Recording | None = None
        self.curve: ColdCurve = cold_curve(points_of(family, defaults))
        self.cell: Cell | None = None
        self.card: CardRun | None = None
        self.clip: Clip | None = None
        self.hot = False
        self.dead = False
        self.spent = False
        self.body_pause = False
        self.feed_w = 0.0
        self.rigged_w = 0.0
        self.train_w = self.train_rise_k = 0.0
        self.hung_on: int | None = None
        self.rigged_out = False
        self.draw_w = self.rise_k = self.drain_w = self.into_w = self.port_w = 0.0
        self.port_wh = 0.0
        self.drawn_wh = 0.0
        self.now_ms = 0
        self.step = 0
        self.files = 0
        self.frames = 0
        self.written = 0
        self.used_wh = 0.0
        self.lost_wh = 0.0
        self.kept: Log[Kept] = Log()
        self.refusals: Log[tuple[int, str, str]] = Log()
        self.trace = Trace()

    def wear(self, body: Body) -> None:
        """Take on the thermal figures of a set-up."""
        self.body = body
        self.climate: Climate = climate_of(body, self.conditions)

    # -- what holds now -------------------------------------------------------------

    @property
    def battery_out(self) -> bool:
        """Whether it runs on outside power alone now, its battery beside it (E1.3)."""
        return self.rigged_out

    def settle(self) -> None:
        """Bring power and heat into line with what holds now; constant until the next event.

        The source feeds the draw, what is left charges, what is short drains the cell (E4.7).
        """
        draw_w, rise_k = self._in_state()
        if self.state is OFF and self.dead and self.feed_w <= 0.0:
            draw_w = 0.0
        self.draw_w = draw_w
        self.drain_w, self.into_w, self.port_w = draw_w, 0.0, 0.0
        if self.feed_w > 0.0:
            through = self.defaults.feed_efficiency.value
            self.port_w = min(self.feed_w, draw_w / through)
            short_w = draw_w - self.feed_w * through
            self.drain_w = short_w if short_w > 1e-9 else 0.0
            heat_w = self.port_w * (1.0 - through)
            surplus_w = self.feed_w - self.port_w
            cell = self.cell
            if surplus_w > 0.0 and cell is not None and self.charges(cell):
                into = self.defaults.charge_efficiency.value
                self.into_w = surplus_w * into
                heat_w += cell.intake.heating_w(cell.charge, self.into_w) * (1.0 / into - 1.0)
            rise_k += self.body.resistance_k_per_w * self.body.charge_heat * heat_w
        if self.battery_out:
            self.drain_w = 0.0
        self.rise_k = rise_k

    def state_w(self) -> float:
        """What it draws in its state [W]."""
        return self._in_state()[0]

    def _in_state(self) -> tuple[float, float]:
        """Draw [W] and rise above still air without sun [K] of the state; off, no rise (E5.1)."""
        state, recording = self.state, self.recording
        if recording is not None and state is RECORDING:
            return recording.draw_w, recording.rise_k
        if recording is not None and state is BOOTING:
            return recording.boot_w, recording.boot_rise_k
        if recording is not None and state is ARMED:
            return recording.armed_w, recording.armed_rise_k
        if state in (STANDBY, COPYING):
            return self.standby_w, self.body.resistance_k_per_w * self.standby_w
        if state is BETWEEN_FRAMES:
            return self.train_w or self.off_w, self.train_rise_k
        return self.off_w, 0.0

    def charges(self, cell: Cell) -> bool:
        """Whether the cell takes charge now: not full, not refused, its battery in (E4.2)."""
        refused = cell.refused or self.body_pause
        return not refused and cell.takes_charge() and not self.battery_out

    def wants_w(self, *, to_come: bool = True) -> float:
        """What it would take from a port [W]: its draw, with what is due, and its charging."""
        draw_w = max(self.draw_w, self.rigged_w) if to_come else self.draw_w
        wanted = draw_w / self.defaults.feed_efficiency.value
        if self.cell is not None and self.charges(self.cell):
            wanted += self.cell.intake.most_w / self.defaults.charge_efficiency.value
        most = self.camera.charges_in_w
        return wanted if most is None else min(most, wanted)

    def taking_w(self) -> float:
        """What it takes from its port now [W]."""
        if self.into_w <= 0.0 or self.cell is None:
            return self.port_w
        into = min(self.into_w, self.cell.intake.taper_w(self.cell.charge))
        return self.port_w + into / self.defaults.charge_efficiency.value

    def line(self) -> float:
        """The charge at which the cell gives no more, at its temperature (E3.4)."""
        return self.curve.at(self.cell.cell_c) if self.cell is not None else 0.0

    def set_curve(self) -> None:
        """The cold curve at the present draw: a hard one costs charge where that was measured."""
        if self.family.cold_k == 0.0 or self.cell is None or self.recording is None:
            return
        draw_w = self.recording.draw_w
        self.curve = curve_at(self.family, draw_w, self.cell.wh, self.defaults)

    def review_refusal(self) -> None:
        """Whether the cell in the camera takes charge at its temperatures (E4.2, E5.3)."""
        cell, d = self.cell, self.defaults
        if cell is None or self.battery_out:
            return
        before = cell.refused, self.body_pause
        cell.refused = refusal_of(cell.cell_c, cell.refused, d)
        turn_c = d.resume_body_c.value if self.body_pause else d.pause_body_c.value
        self.body_pause = self.body_c > turn_c + (1e-6 if self.body_pause else -1e-6)
        if self.feed_w > 0.0 and (cell.refused, self.body_pause) != before:
            why = cell.refused or ("body" if self.body_pause else "")
            if why:
                self.refusals.append((self.now_ms, cell.id, why))

    # -- advancing ------------------------------------------------------------------

    def advance(self, to_ms: int) -> None:
        """Move to a time; nothing else may happen to the camera before it.

        Power and byte rate are constant until then, so only temperatures are followed by step.
        """
        elapsed_ms = to_ms - self.now_ms
        if elapsed_ms <= 0:
            return
        if self.state is OFF and elapsed_ms > LONG_REST_MS and self._far_from_rest():
            start_ms = self.now_ms
            for part_ms in SEEN_AT_MS:  # how it cools or warms is to be seen, not a straight line
                self._go(start_ms + part_ms, part_ms - (self.now_ms - start_ms))
            elapsed_ms = to_ms - self.now_ms
        self._go(to_ms, elapsed_ms)

    def _far_from_rest(self) -> bool:
        """Whether body or cell is far from where it will settle."""
        level_c = self.climate.base_c[self.step]
        cell_c = self.cell.cell_c if self.cell is not None else level_c
        return abs(self.body_c - level_c) > FAR_K or abs(cell_c - level_c) > FAR_K

    def _go(self, to_ms: int, elapsed_ms: int) -> None:
        beside = self.cell if self.rigged_out else None
        beside_c = beside.cell_c if beside is not None else 0.0
        self._warm_or_cool(to_ms)
        if beside is not None:  # it lies beside the camera
            beside.cell_c = beside.bag_climate.after(beside_c, self.now_ms, to_ms)
        self._take_and_give(elapsed_ms)
        self.now_ms = to_ms
        if self.clip is not None and self.card is not None:
            self.card.used = self.clip.used_before + self.clip.length_at(to_ms)
        self.note()

    def _warm_or_cool(self, to_ms: int) -> None:
        """Follow body and cell through the steps of the conditions; note each while it is on.

        `march.chained`, written out: this is the innermost loop of a rehearsal.
        """
        starts, climate, rise_k = self.conditions.starts_ms, self.climate, self.rise_k
        base_c, g, lags_ms = climate.base_c, climate.g, climate.lag_ms
        at_ms, step, body_c = self.now_ms, self.step, self.body_c
        hottest_c, on = self.hottest_c, self.state is not OFF or self.into_w > 0.0
        cell, cell_lag = self.cell, self.cell_lag_ms
        cell_c = cell.cell_c if cell is not None else body_c
        final = len(starts) - 1
        seen_c = cell_c
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
                self._note_between(at_ms, body_c, cell_c)
            elif abs(cell_c - seen_c) > FAR_K:  # rests keep a corner where they begin to change
                if before is not None:
                    self._note_between(*before)
                self._note_between(at_ms, body_c, cell_c)
                seen_c, before = cell_c, None
            else:
                before = (at_ms, body_c, cell_c)
        self.step, self.body_c, self.hottest_c = step, body_c, hottest_c
        if cell is not None:
            cell.cell_c = cell_c

    def thawed(self) -> bool:
        """Whether a dead cell may start again, with some charge above its line (E3.4)."""
        cell = self.cell
        revival = self.defaults.revival.value
        return cell is not None and cell.charge >= self.line() + revival - 3 * THAW_HAIR

    def _charge_after(self, cell: Cell, elapsed_ms: int) -> float:
        """Charge after elapsed ms of the present power, without self-discharge."""
        if self.into_w > 0.0:
            return cell.intake.charge_after(cell.charge, self.into_w, elapsed_ms)
        return max(0.0, cell.charge - self.drain_w * elapsed_ms / MS_PER_HOUR / cell.wh)

    def _take_and_give(self, elapsed_ms: int) -> None:
        """Energy of a stretch: from the port, into or out of the cell, used and lost."""
        if self.port_w > 0.0:
            fed_wh = self.port_w * elapsed_ms / MS_PER_HOUR
            through_wh = fed_wh * self.defaults.feed_efficiency.value
            self.port_wh += fed_wh
            self.used_wh += through_wh
            self.lost_wh += fed_wh - through_wh
        if self.state is not OFF:
            self.drawn_wh += self.draw_w * elapsed_ms / MS_PER_HOUR
        cell = self.cell
        if cell is None:
            return
        before = cell.charge
        cell.charge = self._charge_after(cell, elapsed_ms)
        moved_wh = (cell.charge - before) * cell.wh
        if self.into_w > 0.0:
            charging_wh = moved_wh / self.defaults.charge_efficiency.value
            self.port_wh += charging_wh
            self.lost_wh += charging_wh - moved_wh
            return
        self.used_wh -= moved_wh
        if self.state is OFF:
            share = self.defaults.self_discharge_per_month.value
            lost_wh = self_discharge_wh(cell.wh, cell.charge, elapsed_ms, share)
            self.lost_wh += lost_wh
            cell.charge -= lost_wh / cell.wh

    def _note_between(self, at_ms: int, body_c: float, cell_c: float) -> None:
        """A point of the trace on the way, before charge and bytes are brought up to date."""
        charge = self._charge_after(self.cell, at_ms - self.now_ms) if self.cell else 0.0
        used = self.card.used if self.card else 0
        if self.clip is not None:
            used = self.clip.used_before + self.clip.length_at(at_ms)
        self.trace.add(at_ms, charge, body_c, cell_c, used, self.state)

    def note(self) -> None:
        """Add a point to the trace; long rests are kept coarse."""
        trace = self.trace
        charge = self.cell.charge if self.cell else 0.0
        cell_c = self.cell.cell_c if self.cell else self.body_c
        used = self.card.used if self.card else 0
        state = self.state
        if (
            state is OFF
            and len(trace.t_ms) >= trace.floor + 2
            and trace.state[-1] == trace.state[-2] == OFF
            and trace.used_bytes[-2] == used
            and abs(trace.charge[-2] - charge) < COARSE_CHARGE
            and abs(trace.body_c[-2] - self.body_c) < COARSE_K
        ):
            trace.drop_last()
        trace.add(self.now_ms, charge, self.body_c, cell_c, used, state)


def refusal_of(cell_c: float, before: str, defaults: Defaults) -> str:
    """Why a cell takes no charge at a temperature: "cold", "hot" or "" (E4.2, with hysteresis)."""
    cold = defaults.resume_cold_c.value - 1e-6 if before == "cold" else defaults.refuse_cold_c.value
    hot = defaults.resume_hot_c.value + 1e-6 if before == "hot" else defaults.refuse_hot_c.value
    if (before == "cold" and cell_c < cold) or (before != "cold" and cell_c <= cold + 1e-6):
        return "cold"
    if (before == "hot" and cell_c > hot) or (before != "hot" and cell_c > hot - 1e-6):
        return "hot"
    return ""
