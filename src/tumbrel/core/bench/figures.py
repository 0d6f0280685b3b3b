"""The figures of a camera that bench runs can teach, and what is believed before any run."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ..document import BatteryFamily, Camera
from ..energy import mode_w
from ..heat import body_of
from ..parameters import Defaults

Kind = Literal[
    "draw_w",
    "energy",
    "rise_k_per_w",
    "mode_heat",
    "tau_s",
    "air_a",
    "case",
    "charge_heat",
    "stop_c",
    "warn_below_k",
]
# What a kit keeps of them: minutes of a full battery in a mode, kelvins in still air.
Told = Literal["lasts_min", "rise_k"]

# Spreads before any run, as standard deviations of the logarithm.
DRAW_SPREAD = 0.15
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
    """All figures of a camera, in the order of the fitted vector of logarithms."""

    camera: Camera
    family: BatteryFamily
    all: tuple[Figure, ...]
    place: dict[tuple[Kind | Told, str], int]

    def means(self) -> list[float]:
        """Logarithms of the values before any run."""
        return [math.log(figure.value) for figure in self.all]

    def spreads(self) -> list[float]:
        """Their standard deviations."""
        return [figure.spread for figure in self.all]


def figures_of(camera: Camera, family: BatteryFamily, defaults: Defaults) -> Figures:
    """What is believed of a camera before any run, by mass and typed figures.

    Source: model/heat#priors.
    """
    figures = tuple(_figures(camera, family, defaults))
    place = {(figure.kind, figure.of): number for number, figure in enumerate(figures)}
    return Figures(camera, family, figures, place)


def _figures(camera: Camera, family: BatteryFamily, defaults: Defaults) -> Iterator[Figure]:
    body = body_of(camera, camera.set_ups[0], defaults)
    rise = body.resistance_k_per_w
    for mode in camera.modes:
        yield Figure("draw_w", mode.id, mode_w(mode, family), DRAW_SPREAD)
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
