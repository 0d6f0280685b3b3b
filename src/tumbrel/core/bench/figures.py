"""The figures of a camera that bench runs can teach, and what is believed before any run."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from ..charging import intake_of
from ..document import BatteryFamily, Camera, DrawByRunTime, DrawNotKnown, Mode
from ..energy import mode_w, with_draws
from ..heat import body_of
from ..parameters import Defaults
from .runs import BenchRun

Kind = Literal[
    "draw_w",
    "box",
    "energy",
    "rise_k_per_w",
    "mode_heat",
    "tau_s",
    "air_a",
    "case",
    "charge_heat",
    "stop_c",
    "warn_below_k",
    "store_gives",
    "rate_per_h",
    "taper",
    "cold_hold",
    "fan",
    "pause_c",
    "resume_c",
]
# What a kit keeps of them: minutes of a full battery in a mode, kelvins in still air.
Told = Literal["lasts_min", "rise_k"]

# Spreads before any run, as standard deviations of the logarithm.
DRAW_SPREAD = 0.25
BOX_SPREAD, BOXED_SPREAD = 0.20, 0.15  # what all boxes of a camera share, and each beside it
UNKNOWN_SPREAD = 0.5  # of a draw that nobody knows
ENERGY_SPREAD = 0.08
RISE_SPREAD = 0.35
MODE_HEAT_SPREAD = 0.05
TAU_SPREAD = 0.30
AIR_SPREAD = 0.25
CASE_SPREAD = 0.20
CHARGE_HEAT_SPREAD = 0.40
STOP_SPREAD = 0.08
WARN_SPREAD = 0.35
WARN_BELOW_K = 7.0  # a camera warns this far below where it stops
STORE_SPREAD = 0.08
RATE_SPREAD = 0.45
TAPER_SPREAD = 0.30  # of what is left to fill where the taper begins
COLD_SPREAD = 0.40
FAN_SPREAD = 0.25  # of what is typed of a fan: nobody measures that
PAUSE_SPREAD = 0.10
COLD_BELOW_C = 5.0
TYPED_SPREAD = 0.10  # of a rise that someone measured and typed in


@dataclass(frozen=True, slots=True)
class Figure:
    """One figure: what it is of, its value before any run, and the spread of its logarithm."""

    kind: Kind | Told
    of: str
    value: float
    spread: float


@dataclass(frozen=True)
class Figures:
    """All figures of a camera, in the order of the fitted vector of logarithms.

    `boxed` are the modes of which only their box says what they draw: it shares one factor.
    """

    camera: Camera
    family: BatteryFamily
    all: tuple[Figure, ...]
    place: dict[tuple[Kind | Told, str], int]
    boxed: frozenset[str]

    def means(self) -> list[float]:
        """Logarithms of the values before any run."""
        return [math.log(figure.value) for figure in self.all]

    def spreads(self) -> list[float]:
        """Their standard deviations."""
        return [figure.spread for figure in self.all]


def figures_of(
    camera: Camera,
    family: BatteryFamily,
    defaults: Defaults,
    runs: Sequence[BenchRun] = (),
) -> Figures:
    """What is believed of a camera before any run, by mass and typed figures.

    Of stores, charging, the cold, fans and pauses where there are runs of that.
    Source: model/heat#priors, model/learning#special.
    """
    boxed = frozenset(mode.id for mode in camera.modes if _only_box_says(camera, mode))
    unknown = {mode.id for mode in camera.modes if isinstance(mode.draw, DrawNotKnown)}
    camera = with_draws(camera, family, defaults)
    figures = (
        *_figures(camera, family, defaults, boxed, unknown),
        *_special(family, defaults, runs),
    )
    place = {(figure.kind, figure.of): number for number, figure in enumerate(figures)}
    return Figures(camera, family, figures, place, boxed)


def _only_box_says(camera: Camera, mode: Mode) -> bool:
    """Whether what a mode draws is what its box claims, and no more."""
    draw = mode.draw
    if isinstance(draw, DrawByRunTime):
        return mode.box_minutes is not None and draw.minutes == mode.box_minutes
    alone = all(isinstance(one.draw, DrawNotKnown) for one in camera.modes)
    return isinstance(draw, DrawNotKnown) and alone and mode.box_minutes is not None


def _figures(
    camera: Camera,
    family: BatteryFamily,
    defaults: Defaults,
    boxed: frozenset[str],
    unknown: set[str],
) -> Iterator[Figure]:
    body = body_of(camera, camera.set_ups[0], defaults)
    rise = body.resistance_k_per_w
    if boxed:
        yield Figure("box", "", 1.0, BOX_SPREAD)
    for mode in camera.modes:
        spread = UNKNOWN_SPREAD if mode.id in unknown else DRAW_SPREAD
        spread = BOXED_SPREAD if mode.id in boxed else spread
        yield Figure("draw_w", mode.id, mode_w(mode, family), spread)
    yield Figure("energy", "", 1.0, ENERGY_SPREAD)
    yield Figure("rise_k_per_w", "", rise, RISE_SPREAD)
    for mode in camera.modes:
        if mode.rise_k:
            heat = mode.rise_k / (rise * mode_w(mode, family))
            yield Figure("mode_heat", mode.id, heat, TYPED_SPREAD)
        else:
            yield Figure("mode_heat", mode.id, 1.0, MODE_HEAT_SPREAD)
    yield Figure("tau_s", "", body.tau_s, TAU_SPREAD)
    yield Figure("air_a", "", defaults.airflow_a.value, AIR_SPREAD)
    for set_up in camera.set_ups[1:]:
        yield Figure("case", set_up.id, set_up.case_factor, CASE_SPREAD)
    yield Figure("charge_heat", "", body.charge_heat, CHARGE_HEAT_SPREAD)
    yield Figure("stop_c", "", body.limits.stop_c, STOP_SPREAD)
    yield Figure("warn_below_k", "", WARN_BELOW_K, WARN_SPREAD)


def _special(
    family: BatteryFamily, defaults: Defaults, runs: Sequence[BenchRun]
) -> Iterator[Figure]:
    through = {"module": defaults.store_efficiency.value, "bank": defaults.bank_efficiency.value}
    for kind in sorted({run.store_kind for run in runs if run.store_wh is not None}):
        yield Figure("store_gives", kind, through[kind], STORE_SPREAD)
    if any(run.charging for run in runs):
        intake = intake_of(1.0, family, defaults)
        yield Figure("rate_per_h", "", intake.rate_per_h, RATE_SPREAD)
        yield Figure("taper", "", 1.0 - intake.kink, TAPER_SPREAD)
    if any(run.ambient_c < COLD_BELOW_C and not run.plugged for run in runs):
        yield Figure("cold_hold", "", 1.0, COLD_SPREAD)
    for air in sorted({run.air_mps for run in runs if run.air_mps > 0.0}):
        yield Figure("fan", fan_key(air), 1.0, FAN_SPREAD)
    if any(run.paused_from_min is not None for run in runs):
        yield Figure("pause_c", "", defaults.pause_body_c.value, PAUSE_SPREAD)
        yield Figure("resume_c", "", defaults.resume_body_c.value, PAUSE_SPREAD)


def fan_key(air_mps: float) -> str:
    """Runs in the same typed air stood before the same fan."""
    return f"{air_mps:g}"
