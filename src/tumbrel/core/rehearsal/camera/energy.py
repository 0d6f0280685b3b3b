"""A camera's power: what it draws, what a port feeds it, what goes into and out of its cell."""

from __future__ import annotations

from typing import Final

from mypy_extensions import mypyc_attr

from ...charging import MS_PER_HOUR
from ...cold import ColdCurve, cold_curve, curve_at, points_of
from ...energy import features_w, self_discharge_wh
from ...heat import Body
from ...parameters import Defaults
from ..state.append_log import Log
from ..stock.batteries import Cell
from ..trip.asked import Recording
from ..trip.scene import CameraAtStart
from .turns import ARMED, BETWEEN_FRAMES, BOOTING, COPYING, FILMING, RECORDING, STANDBY, State

LEAST_W: Final = 1e-9


@mypyc_attr(serializable=True)
class Energy:
    """Power [W] that holds until the next event, and energy [W h] that has gone which way.

    `outside_w` and `outside_alone` are what the set-up wants of outside power now; `barred` says
    that it takes no charge while it records as it does; `on_sleeper` that what it hangs on may
    switch itself off; `train_w` and `train_rise_k` are the means of a train of frames.
    """

    __slots__ = (
        "barred",
        "body_pause",
        "camera",
        "copies_by_radio",
        "curve",
        "curves",
        "defaults",
        "drain_w",
        "draw_w",
        "drawn_wh",
        "family",
        "feed_w",
        "into_w",
        "lost_wh",
        "off_w",
        "on_sleeper",
        "outside_alone",
        "outside_w",
        "port_w",
        "port_wh",
        "radio_w",
        "refusals",
        "standby_w",
        "stay_ms",
        "through",
        "train_rise_k",
        "train_w",
        "used_wh",
    )

    def __init__(self, carried: CameraAtStart, defaults: Defaults) -> None:
        self.camera = carried.camera
        self.family = carried.family
        self.defaults = defaults
        self.off_w = defaults.radio_left_on_w.value if carried.radio_left_on else 0.0
        standby = carried.camera.standby_w
        self.standby_w = standby if standby is not None else defaults.standby_w.value
        self.radio_w = features_w(carried.camera, ("radio",), defaults)
        self.copies_by_radio = False
        self.through = defaults.feed_efficiency.value
        self.stay_ms = round(defaults.bank_off_after_s.value * 1000)
        self.curve: ColdCurve = cold_curve(points_of(carried.family, defaults))
        self.curves: Log[tuple[int, ColdCurve]] = Log()
        self.curves.append((0, self.curve))
        self.body_pause = self.barred = self.on_sleeper = False
        self.feed_w = self.outside_w = 0.0
        self.outside_alone = False
        self.train_w = self.train_rise_k = 0.0
        self.draw_w = self.drain_w = self.into_w = self.port_w = 0.0
        self.port_wh = self.drawn_wh = self.used_wh = self.lost_wh = 0.0
        self.refusals: Log[tuple[int, str, str]] = Log()

    # -- what holds now -------------------------------------------------------------

    def of_state(
        self, state: State, recording: Recording | None, body: Body
    ) -> tuple[float, float]:
        """Draw [W] and rise above still air without sun [K] of a state; off, no rise.

        Source: model/heat#node.
        """
        if recording is not None and state == RECORDING:
            return recording.draw_w, recording.rise_k
        if recording is not None and state == BOOTING:
            return recording.boot_w, recording.boot_rise_k
        if recording is not None and state == ARMED:
            return recording.armed_w, recording.armed_rise_k
        if state in (STANDBY, COPYING):
            radio_w = self.radio_w if state == COPYING and self.copies_by_radio else 0.0
            on_w = self.standby_w + radio_w
            return on_w, body.resistance_k_per_w * on_w
        if state == BETWEEN_FRAMES:
            return self.train_w or self.off_w, self.train_rise_k
        return self.off_w, 0.0

    def look(self, state: State, recording: Recording | None) -> None:
        """Whether the cell takes no charge for what the camera does (model/charging#recording)."""
        bars = recording is not None and not recording.set_up.charges_recording
        self.barred = bars and state in FILMING

    def settle(
        self, drawn: tuple[float, float], body: Body, cell: Cell | None, *, battery_out: bool
    ) -> float:
        """Bring power into line with a draw; the rise [K] that it makes with what charges.

        The source feeds the draw, what is left charges, what is short drains the cell
        (model/charging#through).
        """
        draw_w, rise_k = drawn
        self.draw_w = draw_w
        self.drain_w, self.into_w, self.port_w = draw_w, 0.0, 0.0
        if self.feed_w > 0.0:
            through = self.through
            self.port_w = min(self.feed_w, draw_w / through)
            short_w = draw_w - self.feed_w * through
            self.drain_w = short_w if short_w > LEAST_W else 0.0
            heat_w = self.port_w * (1.0 - through)
            surplus_w = self.feed_w - self.port_w
            if surplus_w > 0.0 and cell is not None and self.charges(cell, battery_out=battery_out):
                into = self.defaults.charge_efficiency.value
                self.into_w = surplus_w * into
                heat_w += cell.intake.heating_w(cell.charge, self.into_w) * (1.0 / into - 1.0)
            rise_k += body.resistance_k_per_w * body.charge_heat * heat_w
        if battery_out:
            self.drain_w = 0.0
        return rise_k

    def charges(self, cell: Cell, *, battery_out: bool) -> bool:
        """Whether the cell takes charge now: not full, refused or barred, and its battery in.

        Source: model/charging#refusal, model/charging#recording.
        """
        refused = cell.refused or self.body_pause or self.barred
        return not refused and cell.takes_charge() and not battery_out

    def wants_w(self, cell: Cell | None, *, battery_out: bool, to_come: bool, most: bool) -> float:
        """What it would take from a port [W]: its draw, with what is due, and its charging.

        At most, as a grant holds, or as full as the cell is once a bank has stayed on for it.
        """
        draw_w = max(self.draw_w, self.outside_w) if to_come else self.draw_w
        wanted = draw_w / self.through
        if cell is not None and self.charges(cell, battery_out=battery_out):
            into_w = (
                cell.intake.most_w if most else cell.intake.taper_later_w(cell.charge, self.stay_ms)
            )
            wanted += into_w / self.defaults.charge_efficiency.value
        port_w = self.camera.charges_in_w
        return wanted if port_w is None else min(port_w, wanted)

    def taking_w(self, cell: Cell | None) -> float:
        """What it takes from its port now [W]."""
        if self.into_w <= 0.0 or cell is None:
            return self.port_w
        into = min(self.into_w, cell.intake.taper_w(cell.charge))
        return self.port_w + into / self.defaults.charge_efficiency.value

    def feeds_enough(self, draw_w: float) -> bool:
        """Whether what its port grants covers a draw."""
        return self.feed_w * self.through >= draw_w - LEAST_W > 0.0

    def line(self, cell: Cell | None) -> float:
        """The charge at which the cell gives no more, at its temperature (model/cold#reach)."""
        return self.curve.at(cell.cell_c) if cell is not None else 0.0

    def set_curve(self, now_ms: int, recording: Recording | None, cell: Cell | None) -> None:
        """The cold curve at the present draw: a hard one costs charge where that was measured.

        `curves` keeps which held from when on [ms].
        """
        if cell is None:
            return
        before = self.curve
        cold_k = self.family.cold_k
        if cold_k == 0.0 or recording is None:
            self.curve = cell.curve
        else:
            self.curve = curve_at(cell.curve, cold_k, recording.draw_w, cell.wh, self.defaults)
        if self.curve is not before and self.curve != before:
            self.curves.append((now_ms, self.curve))

    def review_refusal(self, now_ms: int, cell: Cell, body_c: float) -> None:
        """Whether the cell in the camera takes charge at its temperatures.

        Source: model/charging#refusal, model/heat#limits.
        """
        d = self.defaults
        before = cell.refused, self.body_pause
        cell.review(d)
        turn_c = d.resume_body_c.value if self.body_pause else d.pause_body_c.value
        self.body_pause = body_c > turn_c + (1e-6 if self.body_pause else -1e-6)
        if self.feed_w > 0.0 and (cell.refused, self.body_pause) != before:
            why = cell.refused or ("body" if self.body_pause else "")
            if why:
                self.refusals.append((now_ms, cell.id, why))

    # -- over a stretch -------------------------------------------------------------

    def charge_after(self, cell: Cell, elapsed_ms: int) -> float:
        """Charge after elapsed ms of the present power, without self-discharge."""
        if self.into_w > 0.0:
            return cell.intake.charge_after(cell.charge, self.into_w, elapsed_ms)
        return max(0.0, cell.charge - self.drain_w * elapsed_ms / MS_PER_HOUR / cell.wh)

    def take_and_give(self, cell: Cell | None, elapsed_ms: int, *, off: bool) -> None:
        """Energy of a stretch: from the port, into or out of the cell, used and lost."""
        if self.port_w > 0.0:
            fed_wh = self.port_w * elapsed_ms / MS_PER_HOUR
            through_wh = fed_wh * self.through
            self.port_wh += fed_wh
            self.used_wh += through_wh
            self.lost_wh += fed_wh - through_wh
        if not off:
            self.drawn_wh += self.draw_w * elapsed_ms / MS_PER_HOUR
        if cell is None:
            return
        before = cell.charge
        cell.charge = self.charge_after(cell, elapsed_ms)
        moved_wh = (cell.charge - before) * cell.wh
        if self.into_w > 0.0:
            charging_wh = moved_wh / self.defaults.charge_efficiency.value
            self.port_wh += charging_wh
            self.lost_wh += charging_wh - moved_wh
            return
        self.used_wh -= moved_wh
        if off:
            share = self.defaults.self_discharge_per_month.value
            lost_wh = self_discharge_wh(cell.wh, cell.charge, elapsed_ms, share)
            self.lost_wh += lost_wh
            cell.charge -= lost_wh / cell.wh
