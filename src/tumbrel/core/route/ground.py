"""Distances on the ground, and a plan of it, on a sphere of the Earth's mean radius."""

from __future__ import annotations

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from .track import Array

EARTH_M = 6_371_008.8  # IUGG mean radius; off by up to 0.5 % from the ellipsoid


def apart_m(lat_a: Array, lon_a: Array, lat_b: Array, lon_b: Array) -> Array:
    """Great-circle distance [m] between places in degrees (haversine: exact for small ones)."""
    import numpy as np  # noqa: PLC0415 - slow to import

    phi_a, phi_b = np.radians(lat_a), np.radians(lat_b)
    half_lon = np.radians(lon_b - lon_a) / 2.0
    chord = np.sin((phi_b - phi_a) / 2.0) ** 2
    chord = chord + np.cos(phi_a) * np.cos(phi_b) * np.sin(half_lon) ** 2
    found: Array = 2.0 * EARTH_M * np.arcsin(np.sqrt(np.clip(chord, 0.0, 1.0)))
    return found


def plan_of(latitude: Array, longitude: Array) -> tuple[Array, Array]:
    """Metres east and north of the middle of the points: azimuthal equidistant about it.

    True in distance and direction from the middle; fit for the poles and the antimeridian.
    """
    import numpy as np  # noqa: PLC0415 - slow to import

    phi, lam = np.radians(latitude), np.radians(longitude)
    sums = [
        np.sum(np.cos(phi) * np.cos(lam)),
        np.sum(np.cos(phi) * np.sin(lam)),
        np.sum(np.sin(phi)),
    ]
    lat0 = float(np.degrees(np.arctan2(sums[2], np.hypot(sums[0], sums[1]))))
    lon0 = float(np.degrees(np.arctan2(sums[1], sums[0])))
    from_middle = apart_m(np.array(lat0), np.array(lon0), latitude, longitude)
    phi0, turned = np.radians(lat0), np.radians(longitude - lon0)
    east = np.sin(turned) * np.cos(phi)
    north = np.cos(phi0) * np.sin(phi) - np.sin(phi0) * np.cos(phi) * np.cos(turned)
    bearing = np.arctan2(east, north)
    return from_middle * np.sin(bearing), from_middle * np.cos(bearing)
