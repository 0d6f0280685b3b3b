"""A simulated camera on a bench, with true figures that a fit does not know.

Its model is richer than the fitted one: two thermal nodes, the electronics inside the shell, a draw
that grows with temperature, and figures that differ from a small camera's typical ones.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from random import Random
from typing import Literal

from tumbrel.core.document import BatteryFamily, Camera, SetUp
from tumbrel.core.energy import mode_w, nominal_wh, with_draws
from tumbrel.core.parameters import DEFAULTS

STEP_S = 4.0
LONGEST_S = 6 * 3600.0
FULL = 0.99
INNER_SHARE = 0.2

Reason = Literal["", "empty", "hot", "card_full", "stopped"]


@dataclass(frozen=True)
class Truth:
    """What the camera truly is. Watts at 40 degC inside; kelvins a watt, seconds, degC."""

    mass_g: float
    wh: float
    draw_w: tuple[float, ...]
    draw_per_k: float
    inner_k_per_w: float
    shell_k_per_w: float
    tau_s: float
    air_a: float
    case_factor: float
    charge_heat: float
    stop_c: float
    warn_c: float
    mbps: tuple[float, ...]
    card_bytes: float


def some_truth(draw: Random) -> Truth:
    """A camera at random, around the typical ones of its mass."""
    mass_g = draw.uniform(40.0, 160.0)
    ratio = mass_g / 70.0
    low_w = draw.uniform(2.2, 3.2)
    middle_w = low_w * draw.uniform(1.15, 1.5)
    high_w = middle_w * draw.uniform(1.1, 1.35)
    rise = 14.0 * ratio ** (-2.0 / 3.0) * math.exp(draw.gauss(0.0, 0.25))
    inner = draw.uniform(0.10, 0.25)
    stop_c = draw.gauss(70.0, 4.0)
    return Truth(
        mass_g=mass_g,
        wh=draw.uniform(3.5, 8.0) * math.exp(draw.gauss(-0.03, 0.07)),
        draw_w=(low_w, middle_w, high_w),
        draw_per_k=draw.uniform(0.0, 0.003),
        inner_k_per_w=rise * inner,
        shell_k_per_w=rise * (1.0 - inner),
        tau_s=900.0 * ratio ** (1.0 / 3.0) * math.exp(draw.gauss(0.0, 0.2)),
        air_a=0.8 * math.exp(draw.gauss(0.0, 0.2)),
        case_factor=draw.uniform(1.1, 1.5),
        charge_heat=math.exp(draw.gauss(0.0, 0.25)),
        stop_c=stop_c,
        warn_c=stop_c - draw.uniform(4.0, 9.0),
        mbps=(45.0, 60.0, 100.0),
        card_bytes=128e9,
    )


def truth_like(camera: Camera, family: BatteryFamily, set_up: SetUp, seed: str) -> Truth:
    """What such a camera may truly be: its typed figures, each as far off as real ones are.

    The same camera and seed always give the same truth, whatever the set-up.
    """
    draw = Random(seed)  # noqa: S311 - a make-believe camera, no secret
    typical = some_truth(draw)
    ratio = camera.mass_g / 70.0
    rise = 14.0 * ratio ** (-2.0 / 3.0) * math.exp(draw.gauss(0.15, 0.15))
    inner = draw.uniform(0.10, 0.25)
    stop_c = (camera.limits.stop_c if camera.limits else 70.0) + draw.gauss(0.0, 2.0)
    camera = with_draws(camera, family, DEFAULTS)
    watts = tuple(mode_w(m, family) * math.exp(draw.gauss(0.05, 0.06)) for m in camera.modes)
    return replace(
        typical,
        mass_g=camera.mass_g,
        wh=nominal_wh(family.mah, family.nominal_v) * math.exp(draw.gauss(-0.03, 0.04)),
        draw_w=watts,
        inner_k_per_w=rise * inner,
        shell_k_per_w=rise * (1.0 - inner),
        tau_s=900.0 * ratio ** (1.0 / 3.0) * math.exp(draw.gauss(0.0, 0.15)),
        air_a=typical.air_a * set_up.case_a,
        case_factor=set_up.case_factor * math.exp(draw.gauss(0.0, 0.1)),
        stop_c=stop_c,
        warn_c=stop_c - draw.uniform(4.0, 9.0),
        mbps=tuple(m.video_mbps * draw.uniform(0.85, 1.05) for m in camera.modes),
    )


@dataclass(frozen=True)
class Room:
    """Where the camera stands and how it is built and fed."""

    ambient_c: float
    air_mps: float = 0.0
    cased: bool = False
    plugged: bool = False


class Rig:
    """A camera that can be started, stopped and read like a real one, as time is let pass."""

    def __init__(self, truth: Truth) -> None:
        self.truth = truth
        self.charge = 1.0
        self.used_bytes = 0.0
        self.reason: Reason = ""
        self.recording = False
        self.elapsed_s = 0.0
        self.warned_s: float | None = None
        self._mode = 0
        self._room = Room(20.0)
        self._inner_c = self._shell_c = 20.0

    def start(self, mode: int, room: Room, charge: float = 1.0) -> None:
        """Begin to record from the room's temperature. Raises ValueError while it records."""
        if self.recording:
            raise ValueError("the camera records already; stop it first")
        self._mode, self._room = mode, room
        self._inner_c = self._shell_c = room.ambient_c
        self.charge, self.elapsed_s, self.warned_s = charge, 0.0, None
        self.reason, self.recording = "", True

    def stop(self) -> None:
        """Stop by hand."""
        if self.recording:
            self._end("stopped")

    def battery(self) -> float:
        """Charge left, as the camera shows it [0..1], in whole per cent."""
        return round(self.charge, 2)

    def warns(self) -> bool:
        """Whether it shows its temperature warning."""
        return self._inner_c >= self.truth.warn_c

    def free_bytes(self) -> int:
        """Room left on its card."""
        return int(max(0.0, self.truth.card_bytes - self.used_bytes))

    def let_pass(self, seconds: float) -> None:
        """Let time pass, as fast as the machine can; it may stop by itself."""
        left_s = seconds
        while self.recording and left_s > 0.0:
            self._step(min(STEP_S, left_s))
            left_s -= STEP_S

    def run_down(self, mode: int, room: Room, charge: float = 1.0) -> tuple[float, Reason]:
        """Record until it stops, six hours at most: minutes and why."""
        self.start(mode, room, charge)
        self.let_pass(LONGEST_S)
        self.stop()
        return self.elapsed_s / 60.0, self.reason

    def _step(self, step_s: float) -> None:
        truth, room = self.truth, self._room
        watts = truth.draw_w[self._mode] * (1.0 + truth.draw_per_k * (self._inner_c - 40.0))
        heat_w = watts
        into_w = 0.0
        if room.plugged:
            if self.charge < FULL:
                into_w = truth.wh * min(1.0, (1.0 - self.charge) / 0.2)
            lost_w = watts * (1.0 / 0.95 - 1.0) + into_w * (1.0 / 0.90 - 1.0)
            heat_w += truth.charge_heat * lost_w
        sheds = (truth.case_factor if room.cased else 1.0) / (
            1.0 + truth.air_a * math.sqrt(room.air_mps)
        )
        capacity = truth.tau_s / (truth.inner_k_per_w + truth.shell_k_per_w)
        across_w = (self._inner_c - self._shell_c) / truth.inner_k_per_w
        out_w = (self._shell_c - room.ambient_c) / (truth.shell_k_per_w * sheds)
        self._inner_c += (heat_w - across_w) * step_s / (capacity * INNER_SHARE)
        self._shell_c += (across_w - out_w) * step_s / (capacity * (1.0 - INNER_SHARE))
        self.elapsed_s += step_s
        self.used_bytes += truth.mbps[self._mode] * 1e6 / 8.0 * step_s
        spent_w = 0.0 if room.plugged else watts
        self.charge += (into_w - spent_w) * step_s / 3600.0 / truth.wh
        if self.warned_s is None and self.warns():
            self.warned_s = self.elapsed_s
        if self._inner_c >= truth.stop_c:
            self._end("hot")
        elif self.charge <= 0.0:
            self.charge = 0.0
            self._end("empty")
        elif self.used_bytes >= truth.card_bytes:
            self._end("card_full")

    def _end(self, reason: Reason) -> None:
        self.reason, self.recording = reason, False
