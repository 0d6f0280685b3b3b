"""A camera's physical state between events: charge, body temperature and bytes in closed form."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import lru_cache
from math import exp

from ..document import Camera
from ..energy import ms_to_empty, self_discharge_wh, spent_wh
from ..heat import Body, body_of, ms_to_level, shedding, temperature_after
from ..memory import clip_bytes, files_of, largest_file, ms_to_full
from ..parameters import Defaults
from .asked import Recording
from .causes import BOOTING, OFF, STANDBY, Priority, State
from .pools import CardRun, Cell
from .timeline import Conditions

COARSE_K = 0.5
COARSE_CHARGE = 0.002


@dataclass(slots=True)
class Trace:
    """A camera's course as columns: time [ms], charge [0..1], body [degC], bytes used, state.

    A row's state is that of the stretch which ends there.
    """

    t_ms: list[int] = field(default_factory=list)
    charge: list[float] = field(default_factory=list)
    body_c: list[float] = field(default_factory=list)
    used_bytes: list[int] = field(default_factory=list)
    state: list[int] = field(default_factory=list)

    def add(self, at_ms: int, charge: float, body_c: float, used: int, state: State) -> None:
        """Append a point."""
        self.t_ms.append(at_ms)
        self.charge.append(charge)
        self.body_c.append(body_c)
        self.used_bytes.append(used)
        self.state.append(state)

    def drop_last(self) -> None:
        """Take the last point out."""
        self.t_ms.pop()
        self.charge.pop()
        self.body_c.pop()
        self.used_bytes.pop()
        self.state.pop()


@dataclass(slots=True)
class Clip:
    """A continuous recording on one card."""

    start_ms: int
    used_before: int
    room: int
    rate: int


@dataclass(frozen=True, slots=True)
class Climate:
    """A body in the trip's conditions, step by step: level without its own heat, g, and lag."""

    base_c: tuple[float, ...]
    g: tuple[float, ...]
    lag_ms: tuple[float, ...]
    hottest_base_c: float
    largest_g: float
    least_lag_ms: float


@lru_cache(maxsize=256)
def climate_of(body: Body, conditions: Conditions) -> Climate:
    """Tabulate E5.1 for a body: `T_eq = base + g * rise`."""
    by_air = {
        air: shedding(body.case_factor, body.air_a, air * body.air_share)
        for air in set(conditions.air_mps)
    }
    g = tuple(by_air[air] for air in conditions.air_mps)
    rows = zip(conditions.ambient_c, conditions.sun_w_m2, g, strict=True)
    base_c = tuple(ambient + each * body.sun_k_per_w_m2 * sun for ambient, sun, each in rows)
    lag_ms = tuple(1000.0 * body.tau_s * each for each in g)
    return Climate(base_c, g, lag_ms, max(base_c), max(g), min(lag_ms))


class BodyState:
    """Charge, heat and bytes of one camera, advanced from event to event."""

    __slots__ = (
        "body",
        "body_c",
        "camera",
        "card",
        "cell",
        "climate",
        "clip",
        "conditions",
        "defaults",
        "files",
        "hot",
        "hottest_c",
        "lost_wh",
        "now_ms",
        "off_w",
        "recording",
        "standby_w",
        "state",
        "step",
        "trace",
        "used_wh",
        "written",
    )

    def __init__(
        self, camera: Camera, conditions: Conditions, defaults: Defaults, radio_left_on: bool
    ) -> None:
        self.camera = camera
        self.conditions = conditions
        self.defaults = defaults
        self.wear(body_of(camera, camera.set_ups[0], defaults))
        self.body_c = conditions.ambient_c[0]
        self.hottest_c = self.body_c
        self.off_w = defaults.radio_left_on_w.value if radio_left_on else 0.0
        standby = camera.standby_w
        self.standby_w = standby if standby is not None else defaults.standby_w.value
        self.state = OFF
        self.recording: Recording | None = None
        self.cell: Cell | None = None
        self.card: CardRun | None = None
        self.clip: Clip | None = None
        self.hot = False
        self.now_ms = 0
        self.step = 0
        self.files = 0
        self.written = 0
        self.used_wh = 0.0
        self.lost_wh = 0.0
        self.trace = Trace()

    def wear(self, body: Body) -> None:
        """Take on the thermal figures of a set-up."""
        self.body = body
        self.climate = climate_of(body, self.conditions)

    # -- what holds now -------------------------------------------------------------

    def draw_w(self) -> float:
        """What the camera drinks in its state [W]."""
        if self.state >= BOOTING and self.recording is not None:
            return self.recording.draw_w
        return self.standby_w if self.state is STANDBY else self.off_w

    def _rise_k(self) -> float:
        """Rise above still air without sun [K]; off there is none (E5.1)."""
        if self.state >= BOOTING and self.recording is not None:
            return self.recording.rise_k
        if self.state is STANDBY:
            return self.body.resistance_k_per_w * self.standby_w
        return 0.0

    # -- advancing ------------------------------------------------------------------

    def advance(self, to_ms: int) -> None:
        """Move to a time; nothing else may happen to the camera before it.

        Draw and byte rate are constant until then, so only the body is followed step by step.
        """
        elapsed_ms = to_ms - self.now_ms
        if elapsed_ms <= 0:
            return
        self._warm_or_cool(to_ms)
        if self.cell is not None:
            self._drain(self.cell, elapsed_ms)
        self.now_ms = to_ms
        if self.clip is not None and self.card is not None:
            self.card.used = self._used_at(to_ms)
        self.note()

    def _warm_or_cool(self, to_ms: int) -> None:
        """Follow the body through the steps of the conditions; note each while the camera is on."""
        starts, climate, rise_k = self.conditions.starts_ms, self.climate, self._rise_k()
        base_c, g, lags_ms = climate.base_c, climate.g, climate.lag_ms
        at_ms, step, body_c = self.now_ms, self.step, self.body_c
        hottest_c, on = self.hottest_c, self.state is not OFF
        final = len(starts) - 1
        while True:
            end_ms = to_ms
            passes = step < final and starts[step + 1] <= to_ms
            if passes:
                end_ms = starts[step + 1]
            level_c = base_c[step] + g[step] * rise_k
            body_c = level_c + (body_c - level_c) * exp((at_ms - end_ms) / lags_ms[step])
            at_ms = end_ms
            if passes:
                step += 1
            if body_c > hottest_c:  # noqa: PLR1730 - max() costs a tenth of the whole loop
                hottest_c = body_c
            if at_ms >= to_ms:
                break
            if on:
                self._note_between(at_ms, body_c)
        self.step, self.body_c, self.hottest_c = step, body_c, hottest_c

    def _used_at(self, at_ms: int) -> int:
        """Bytes on the card at a time during the clip."""
        assert self.clip is not None
        length = clip_bytes(self.clip.rate, at_ms - self.clip.start_ms)
        return self.clip.used_before + min(self.clip.room, length)

    def _drain(self, cell: Cell, elapsed_ms: int) -> None:
        spent = min(spent_wh(self.draw_w(), elapsed_ms), cell.charge * cell.wh)
        self.used_wh += spent
        cell.charge = max(0.0, cell.charge - spent / cell.wh)
        if self.state is OFF:
            share = self.defaults.self_discharge_per_month.value
            lost = self_discharge_wh(cell.wh, cell.charge, elapsed_ms, share)
            self.lost_wh += lost
            cell.charge -= lost / cell.wh

    def _note_between(self, at_ms: int, body_c: float) -> None:
        """A point of the trace on the way, before charge and bytes are brought up to date."""
        charge = 0.0
        if self.cell is not None:
            spent = spent_wh(self.draw_w(), at_ms - self.now_ms) / self.cell.wh
            charge = max(0.0, self.cell.charge - spent)
        used = self.card.used if self.card else 0
        self.trace.add(
            at_ms, charge, body_c, self._used_at(at_ms) if self.clip else used, self.state
        )

    def note(self) -> None:
        """Add a point to the trace; long rests are kept coarse."""
        trace = self.trace
        charge = self.cell.charge if self.cell else 0.0
        used = self.card.used if self.card else 0
        resting = (
            len(trace.t_ms) >= 2
            and self.state is OFF
            and trace.state[-1] == trace.state[-2] == OFF
            and trace.used_bytes[-2] == used
            and abs(trace.charge[-2] - charge) < COARSE_CHARGE
            and abs(trace.body_c[-2] - self.body_c) < COARSE_K
        )
        if resting:
            trace.drop_last()
        trace.add(self.now_ms, charge, self.body_c, used, self.state)

    # -- what will happen by itself -------------------------------------------------

    def next_event(self, bound_ms: int) -> tuple[int, Priority] | None:
        """What the camera meets first by itself before a bound: heat, empty, full, clip limit."""
        if self.state is OFF and not self.hot and self.off_w == 0.0:
            return None
        first_ms, what = bound_ms, None
        cell, clip = self.cell, self.clip
        if clip is not None:
            limit_ms = self.recording.clip_limit_ms if self.recording else None
            if limit_ms is not None and clip.start_ms + limit_ms <= first_ms:
                first_ms, what = clip.start_ms + limit_ms, Priority.CLIP_LIMIT
            full = ms_to_full(clip.rate, clip.room)
            if full is not None and clip.start_ms + full <= first_ms:
                first_ms, what = clip.start_ms + full, Priority.CARD_FULL
        if cell is not None and cell.charge > 0.0:
            empty = ms_to_empty(cell.charge, 0.0, cell.wh, self.draw_w())
            if empty is not None and self.now_ms + empty <= first_ms:
                first_ms, what = self.now_ms + empty, Priority.EMPTY
        if self.state is not OFF or self.hot:
            heat_ms = self._heat_event(first_ms)
            if heat_ms is not None:
                first_ms, what = heat_ms, Priority.HEAT
        return None if what is None else (first_ms, what)

    def _heat_event(self, bound_ms: int) -> int | None:
        """When the body reaches its stop level (after a heat stop: restart), if before a bound."""
        limits = self.body.limits
        target_c = limits.restart_c if self.hot else limits.stop_c
        rise_k, climate = self._rise_k(), self.climate
        at_ms, step, body_c = self.now_ms, self.step, self.body_c
        starts = self.conditions.starts_ms
        if (self.hot and body_c <= target_c) or (not self.hot and body_c >= target_c):
            return at_ms + 1
        if not self.hot and self._stays_below(target_c, rise_k, bound_ms - at_ms):
            return None
        while True:
            last = step + 1 >= len(starts)
            end_ms = bound_ms if last else min(bound_ms, starts[step + 1])
            level_c = climate.base_c[step] + climate.g[step] * rise_k
            lag_s = climate.lag_ms[step] / 1000.0
            reached = ms_to_level(body_c, level_c, target_c, lag_s)
            if reached is not None and at_ms + reached <= end_ms:
                return at_ms + reached
            if last or end_ms >= bound_ms:
                return None
            body_c = temperature_after(body_c, level_c, lag_s, end_ms - at_ms)
            at_ms, step = end_ms, step + 1

    def _stays_below(self, target_c: float, rise_k: float, within_ms: int) -> bool:
        """Whether even the hottest air and sun of the trip would not bring the body there in time.

        By 1 - exp(-x) <= x: it rises at most by x of the way to the hottest level.
        """
        climate = self.climate
        level_c = climate.hottest_base_c + climate.largest_g * rise_k
        way = min(1.0, within_ms / climate.least_lag_ms)
        return self.body_c + max(0.0, level_c - self.body_c) * way < target_c

    # -- clips ----------------------------------------------------------------------

    def open_clip(self) -> None:
        """Begin writing a clip on the card that is in."""
        assert self.card is not None
        assert self.recording is not None
        self.clip = Clip(self.now_ms, self.card.used, self.card.free, self.recording.byte_rate)

    def close_clip(self) -> None:
        """End the clip, if one runs, and count its bytes and files."""
        if self.clip is None or self.card is None:
            return
        length = self.card.used - self.clip.used_before
        self.card.written += length
        self.written += length
        if length:
            self.files += files_of(length, largest_file(self.card.gb, self.camera))
        self.clip = None
