"""The ground along a track at even steps, smoothed, with its slopes and its ascent."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from .track import Array, Track

STEP_M = 20.0
MOST_STEPS = 60_000
MEDIAN_OF = 5  # steps; takes away lone spikes
SIGMA_M = 40.0  # a Gaussian's width; takes away a receiver's noise, hardly a hill
SLOPE_OVER_M = 200.0
TURN_M = 5.0  # ascent counts from here on: less is noise


@dataclass(frozen=True)
class Profile:
    """Heights [m] and slopes [m/m] every `step_m` along the way; all zero when none are known."""

    step_m: float
    height_m: Array
    slope: Array
    ascent_m: float
    descent_m: float


def profile_of(track: Track) -> Profile:
    """The ground of a track.

    Heights are laid on even steps of 20 m (more on very long ways), freed of lone spikes by a
    median of five and smoothed by a Gaussian of 40 m; ascent is summed over turns of 5 m and more.
    """
    import numpy as np  # noqa: PLC0415 - slow to import

    length_m = float(track.along_m[-1])
    steps = min(MOST_STEPS, max(2, round(length_m / STEP_M) + 1))
    step_m = length_m / (steps - 1)
    if track.height_m is None:
        return Profile(step_m, np.zeros(steps), np.zeros(steps), 0.0, 0.0)
    even = np.interp(np.arange(steps) * step_m, track.along_m, track.height_m)
    smooth = _gaussian(_median(even), SIGMA_M / step_m)
    span = max(1, round(SLOPE_OVER_M / step_m / 2.0))
    padded = np.pad(smooth, span, mode="edge")
    run_m = np.minimum(np.arange(steps) + span, steps - 1) - np.maximum(np.arange(steps) - span, 0)
    slope = (padded[2 * span :] - padded[: -2 * span]) / np.maximum(run_m * step_m, step_m)
    ascent_m, descent_m = turns(smooth)
    return Profile(step_m, smooth, slope, ascent_m, descent_m)


def _median(values: Array) -> Array:
    import numpy as np  # noqa: PLC0415 - slow to import

    half = MEDIAN_OF // 2
    windows = np.lib.stride_tricks.sliding_window_view(np.pad(values, half, "edge"), MEDIAN_OF)
    middle: Array = np.median(windows, axis=1)
    return middle


def _gaussian(values: Array, sigma: float) -> Array:
    import numpy as np  # noqa: PLC0415 - slow to import

    half = min(len(values) - 1, max(1, round(3.0 * sigma)))
    weights = np.exp(-0.5 * (np.arange(-half, half + 1) / max(sigma, 1e-6)) ** 2)
    padded = np.pad(values, half, "reflect", reflect_type="odd")  # keeps a slope at the ends
    smooth: Array = np.convolve(padded, weights / weights.sum(), "valid")
    return smooth


def turns(height_m: Array) -> tuple[float, float]:
    """Ascent and descent [m] summed over turns of at least 5 m: a smaller wave is noise."""
    sums = {1: 0.0, -1: 0.0}
    low = high = pivot = extreme = float(height_m[0])
    way = 0
    for value in map(float, height_m):
        if way == 0:
            low, high = min(low, value), max(high, value)
            if value - low >= TURN_M or high - value >= TURN_M:
                way = 1 if value - low >= TURN_M else -1
                pivot, extreme = (low if way == 1 else high), value
        elif (value - extreme) * way > 0.0:
            extreme = value
        elif (extreme - value) * way >= TURN_M:
            sums[way] += abs(extreme - pivot)
            pivot, extreme, way = extreme, value, -way
    if way:
        sums[way] += abs(extreme - pivot)
    return sums[1], sums[-1]
