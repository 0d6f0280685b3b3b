"""What is believed of each figure after the runs: its value, its range, whether they taught it."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING

from ..energy import nominal_wh
from .figures import Figure, Figures, Kind, Told

if TYPE_CHECKING:
    from .model import Array

KNOWN_BELOW = 0.7
ROOMS_APART_K = 5.0  # in rooms closer than this a limit and a rise look alike


@dataclass(frozen=True, slots=True)
class LearnedFigure:
    """A figure after the runs: its value, the middle 80 % of its range, whether runs taught it."""

    figure: Figure
    value: float
    low: float
    high: float
    known: bool


def figures_learned(
    figures: Figures, logs: Array, draws: Array, rooms_apart_k: float
) -> tuple[LearnedFigure, ...]:
    """Every fitted figure, and those that a kit keeps: minutes of a mode, its rise.

    `logs` [figures] are the mean logarithms, `draws` [draws, figures] as probable as they are.
    Figures whose spread has shrunk below 0.7 of what was believed before are known; a limit
    only from heat in rooms that lie apart.
    """
    import numpy as np  # noqa: PLC0415 - slow to import

    found = []
    for figure, weights in [*_own(figures), *_kept(figures)]:
        sampled = draws @ weights
        low, high = np.quantile(sampled, (0.1, 0.9))
        centre = float(weights @ logs)
        before = float(weights @ np.array(figures.means()))
        known = bool(sampled.std() < KNOWN_BELOW * figure.spread)
        if figure.kind == "stop_c":
            known = known and rooms_apart_k >= ROOMS_APART_K
        by = figure.value / math.exp(before)
        found.append(
            LearnedFigure(
                figure,
                by * math.exp(centre),
                by * math.exp(float(low)),
                by * math.exp(float(high)),
                known,
            )
        )
    return tuple(found)


def _own(figures: Figures) -> Iterator[tuple[Figure, Array]]:
    import numpy as np  # noqa: PLC0415 - slow to import

    for number, figure in enumerate(figures.all):
        weights = np.zeros(len(figures.all))
        weights[number] = 1.0
        yield figure, weights


def _kept(figures: Figures) -> Iterator[tuple[Figure, Array]]:
    """Products and ratios of fitted figures: known well even when their parts are not."""
    family = figures.family
    full_min = nominal_wh(family.mah, family.nominal_v) * 60.0
    for mode in figures.camera.modes:
        draw: tuple[Kind, str] = ("draw_w", mode.id)
        lasts = {("energy", ""): 1.0, draw: -1.0}
        rise = {("rise_k_per_w", ""): 1.0, draw: 1.0, ("mode_heat", mode.id): 1.0}
        if mode.id in figures.boxed:
            lasts["box", ""], rise["box", ""] = -1.0, 1.0
        yield _product(figures, "lasts_min", mode.id, full_min, lasts)
        yield _product(figures, "rise_k", mode.id, 1.0, rise)


def _product(
    figures: Figures, kind: Told, of: str, scale: float, powers: Mapping[tuple[Kind, str], float]
) -> tuple[Figure, Array]:
    """A figure that is a product of powers of fitted ones, and those powers as weights."""
    import numpy as np  # noqa: PLC0415 - slow to import

    weights = np.zeros(len(figures.all))
    for (part, name), power in powers.items():
        weights[figures.place[part, name]] = power
    value = scale * math.exp(float(weights @ np.array(figures.means())))
    spread = float(np.sqrt(np.sum((weights * np.array(figures.spreads())) ** 2)))
    return Figure(kind, of, value, spread), weights
