"""Sun height, daylight and clear-sky irradiance at a place, tabulated once for a trip.

Source: model/time#steps, model/light#sun, model/light#irradiance.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from threading import Lock
from types import ModuleType
from typing import Any, Literal

STEP_MS = 600_000
SUNRISE_DEG = -0.833
LAST_BEAM_DEG = 87.0  # zenith
LEAST_COS_ZENITH = 0.065
DAWN_DEG = -6.0

LightKind = Literal["night", "twilight", "day"]


STEPS_A_DAY = 144


@dataclass(frozen=True)
class SunTable:
    """Sun height [deg] and level clear-sky irradiance [W/m2] at the middle of each 600 s step."""

    height_deg: tuple[float, ...]
    irradiance_w_m2: tuple[float, ...]


SunDays = Callable[[float, float, float, int], tuple[float, ...]]


_LOADING = Lock()


def _pvlib() -> ModuleType:
    """The library, loaded by one thread at a time: its parts import each other in a circle."""
    with _LOADING:
        import pvlib.irradiance  # noqa: PLC0415 - slow to import, only trips with a place need it
        import pvlib.spa  # noqa: PLC0415 - the same

    return pvlib  # type: ignore[no-any-return]


@lru_cache(maxsize=512)
def sun_heights_of_day(
    latitude: float, longitude: float, height_m: float, day: int
) -> tuple[float, ...]:
    """Sun heights [deg], without refraction, at the 144 steps of a UTC day counted from 1970.

    Position by pvlib's numpy form of the NREL algorithm.
    """
    true_elevation = _sun_of_day(latitude, longitude, height_m, day)[3]
    # true, since the horizon of -0.833 deg already holds refraction
    return tuple(round(float(height), 4) for height in true_elevation)


@lru_cache(maxsize=64)
def sun_azimuths_of_day(
    latitude: float, longitude: float, height_m: float, day: int
) -> tuple[float, ...]:
    """Where the sun stands [deg from north by east] at the 144 steps of a UTC day from 1970."""
    azimuth = _sun_of_day(latitude, longitude, height_m, day)[4]
    return tuple(round(float(each), 2) for each in azimuth)


def _sun_of_day(latitude: float, longitude: float, height_m: float, day: int) -> Sequence[Any]:
    """The rows of pvlib's position of the sun at the middles of a day's steps."""
    import numpy as np  # noqa: PLC0415 - slow to import, only trips with a place need it

    steps = np.arange(day * STEPS_A_DAY, (day + 1) * STEPS_A_DAY, dtype=float)
    middles_s = (steps + 0.5) * STEP_MS / 1000.0
    delta_t_s = 69.0  # seconds between terrestrial and universal time in the 2020s
    found: Sequence[Any] = _pvlib().spa.solar_position(
        middles_s, latitude, longitude, height_m, 1013.25, 12.0, delta_t_s, 0.5667, numthreads=1
    )
    return found


def sun_table(
    latitude: float,
    longitude: float,
    height_m: float,
    first_step: int,
    steps: int,
    sun_days: SunDays = sun_heights_of_day,
) -> SunTable:
    """Sun over `steps` steps of 600 s from `first_step`, counted from 1970; Haurwitz.

    Source: model/sources#gives.
    """
    first_day, last_day = first_step // STEPS_A_DAY, (first_step + steps - 1) // STEPS_A_DAY
    heights: list[float] = []
    watts: list[float] = []
    for day in range(first_day, last_day + 1):
        of_day = sun_days(latitude, longitude, height_m, day)
        heights += of_day
        watts += _watts_of_day(of_day)
    into = first_step - first_day * STEPS_A_DAY
    wanted = slice(into, into + steps)
    return SunTable(tuple(heights[wanted]), tuple(watts[wanted]))


@lru_cache(maxsize=512)
def _watts_of_day(heights_deg: tuple[float, ...]) -> tuple[float, ...]:
    return tuple(haurwitz_w_m2(height) for height in heights_deg)


def crossings(
    heights_deg: Sequence[float], level_deg: float, first_middle_ms: int
) -> list[tuple[int, bool]]:
    """When the sun passes a height: times [ms] on the scale of `first_middle_ms`, and if upwards.

    Heights [deg] stand 600 s apart; a cubic through four of them is within a second of the sun.
    """
    found = []
    for n in range(len(heights_deg) - 1):
        before, after = heights_deg[n] - level_deg, heights_deg[n + 1] - level_deg
        if (before < 0.0) == (after < 0.0):
            continue
        first = min(max(0, n - 1), max(0, len(heights_deg) - 4))
        near = heights_deg[first : first + 4]
        low, high = float(n - first), float(n - first + 1)
        for _ in range(24):
            middle = (low + high) / 2.0
            if (_cubic(near, middle) - level_deg < 0.0) == (before < 0.0):
                low = middle
            else:
                high = middle
        found.append((round(first_middle_ms + (first + low) * STEP_MS), after >= 0.0))
    return found


def _cubic(values: Sequence[float], at: float) -> float:
    """Lagrange's polynomial through values at 0, 1, 2 and so on."""
    total = 0.0
    for n, value in enumerate(values):
        term = value
        for m in range(len(values)):
            if m != n:
                term *= (at - m) / (n - m)
        total += term
    return total


@lru_cache(maxsize=512)
def tilted_w_m2(
    latitude: float,
    longitude: float,
    height_m: float,
    first_step: int,
    steps: int,
    tilt_deg: float,
    azimuth_deg: float,
) -> tuple[float, ...]:
    """Clear-sky irradiance on a tilted plane [W/m2] at the middles of 600 s steps from 1970.

    Haurwitz on the level, split by Erbs, turned onto the plane with an isotropic sky (pvlib).
    """
    import numpy as np  # noqa: PLC0415 - slow to import, only tilted panels need it

    pvlib = _pvlib()
    middles_s = (np.arange(first_step, first_step + steps, dtype=float) + 0.5) * STEP_MS / 1000.0
    sun = pvlib.spa.solar_position(
        middles_s, latitude, longitude, height_m, 1013.25, 12.0, 69.0, 0.5667, numthreads=1
    )
    zenith, height, azimuth = 90.0 - sun[3], sun[3], sun[4]
    level = np.array([haurwitz_w_m2(float(each)) for each in height])
    days = middles_s.astype("datetime64[s]")
    days_of_year = (days - days.astype("datetime64[Y]")) / np.timedelta64(1, "D") // 1 + 1
    split = pvlib.irradiance.erbs(level, zenith, days_of_year)
    on_plane = pvlib.irradiance.get_total_irradiance(
        tilt_deg, azimuth_deg, zenith, azimuth, split["dni"], level, split["dhi"]
    )["poa_global"]
    return tuple(round(float(each), 3) if each > 0.0 else 0.0 for each in np.asarray(on_plane))


def haurwitz_w_m2(sun_height_deg: float) -> float:
    """Clear-sky irradiance on level ground [W/m2] by Haurwitz: 1098 cos z exp(-0.057 / cos z)."""
    cos_zenith = math.sin(math.radians(sun_height_deg))
    if cos_zenith <= 0.0:
        return 0.0
    return 1098.0 * cos_zenith * math.exp(-0.057 / cos_zenith)


@lru_cache(maxsize=64)
def extraterrestrial_w_m2(day_of_year: int) -> float:
    """Sun's irradiance [W/m2] above the air on a day of the year, 1 to 366, by Spencer's series."""
    b = 2.0 * math.pi * (day_of_year - 1) / 365.0
    series = 1.00011 + 0.034221 * math.cos(b) + 0.00128 * math.sin(b)
    series += 0.000719 * math.cos(2.0 * b) + 0.000077 * math.sin(2.0 * b)
    return 1366.1 * series


def on_body_w_m2(
    level_w_m2: float, sun_height_deg: float, day_of_year: int, albedo: float
) -> float:
    """What strikes a small body [W/m2]: the beam, half the sky's light, and what the ground throws.

    Level irradiance [W/m2] is parted by Erbs; beyond a zenith of 87 degrees there is no beam.
    Written out, since a leg asks for it step by step; pvlib's `erbs` gives the same.
    Source: model/heat#sun.
    """
    if level_w_m2 <= 0.0:
        return 0.0
    cos_zenith = math.sin(math.radians(sun_height_deg))
    above = extraterrestrial_w_m2(day_of_year) * max(cos_zenith, LEAST_COS_ZENITH)
    clear = min(1.0, level_w_m2 / above)
    if clear <= 0.22:
        share = 1.0 - 0.09 * clear
    elif clear <= 0.8:
        share = 0.9511 - 0.1604 * clear + 4.388 * clear**2 - 16.638 * clear**3 + 12.336 * clear**4
    else:
        share = 0.165
    beam = 0.0
    if sun_height_deg >= 90.0 - LAST_BEAM_DEG:
        beam = (1.0 - share) * level_w_m2 / cos_zenith
    diffuse = share * level_w_m2 if beam else level_w_m2
    return beam + 0.5 * diffuse + albedo * level_w_m2


def light_kind(sun_height_deg: float) -> LightKind:
    """Night below -6 degrees, day above -0.833, twilight between (model/patterns#asked)."""
    if sun_height_deg < DAWN_DEG:
        return "night"
    return "twilight" if sun_height_deg < SUNRISE_DEG else "day"
