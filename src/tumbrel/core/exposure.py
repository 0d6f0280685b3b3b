"""Light, shutter and filters: what a frame gets, and what it wants.

Exposure values are for ISO 100: EV = log2(N^2 / t) of a lens and shutter, and log2(E / 2.5) of
light that falls on the scene (ISO 2720, incident-light constant 250 lx s).

Source: model/light#exposure.
"""

from __future__ import annotations

import math
from functools import lru_cache

INCIDENT_LX = 2.5  # lx at EV 0 and ISO 100: the constant 250 over 100
DARKEST_DEG = -18.0

# log10 of lux = l0 + l1 x + l2 x^2 + l3 x^3, x = sun height / 90: Janiczek and DeYoung (1987),
# US Naval Observatory Circular 171, clear sky, level ground; from the height [deg] on
ILLUMINANCE: tuple[tuple[float, tuple[float, float, float, float]], ...] = (
    (20.0, (3.74, 3.97, -4.07, 1.47)),
    (5.0, (3.05, 13.28, -45.98, 64.33)),
    (-0.8, (2.88, 22.26, -207.64, 1034.30)),
    (-5.0, (2.88, 21.81, -258.11, -858.36)),
    (-12.0, (2.70, 12.17, -431.69, -1899.83)),
    (DARKEST_DEG, (13.84, 262.72, 1447.42, 2797.93)),
)
STARLIGHT_LX = 6.5e-4  # what the last line gives at -18 degrees
COMMON_FILTERS = (1, 2, 3, 4, 5, 6, 8, 10)  # stops; sold as density 2^stops


@lru_cache(maxsize=32_768)
def daylight_lx(sun_deg: float, sky: float = 1.0) -> float:
    """Light on level ground [lx] by the sun's height [deg] and the share the sky lets through."""
    for lowest, (l0, l1, l2, l3) in ILLUMINANCE:
        if sun_deg >= lowest:
            x = sun_deg / 90.0
            return float(10.0 ** (l0 + l1 * x + l2 * x**2 + l3 * x**3)) * sky
    return STARLIGHT_LX * sky


def light_ev(lux: float) -> float:
    """Exposure value at ISO 100 of light on the scene [lx]."""
    return math.log2(lux / INCIDENT_LX)


def lens_ev(f_number: float, shutter_s: float) -> float:
    """Exposure value that a lens and shutter take at ISO 100."""
    return math.log2(f_number**2 / shutter_s)


def half_interval_s(fps: float) -> float:
    """The shutter of half a frame's interval [s]: movement smears as the eye expects it."""
    return 0.5 / fps


def filter_stops(ev: float, taken_ev: float, base_iso: float) -> float:
    """Stops of light more than a lens and shutter take at the least gain; below 0 it wants gain."""
    return ev - taken_ev + math.log2(base_iso / 100.0)


def nearest_filter(stops: float) -> int:
    """The nearest filter that is commonly sold [stops]; 0: none. Ties go to the weaker."""
    if stops < 0.5:
        return 0
    return min(COMMON_FILTERS, key=lambda one: (abs(one - stops), one))


def gain_iso(ev: float, f_number: float, shutter_s: float) -> float:
    """The gain [ISO] at which a frame is as bright as it should be."""
    return float(100.0 * 2.0 ** (lens_ev(f_number, shutter_s) - ev))


def dark_below_lx(f_number: float, shutter_s: float, most_iso: float) -> float:
    """The least light [lx] at which a gain still makes a frame bright enough."""
    return float(INCIDENT_LX * 2.0 ** (lens_ev(f_number, shutter_s) - math.log2(most_iso / 100.0)))


def slowing(fps: float, delivery_fps: float) -> float:
    """How many times slower than life a take can be shown: capture rate over delivery rate."""
    return fps / delivery_fps
