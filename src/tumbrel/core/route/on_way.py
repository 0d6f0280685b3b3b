"""What a way says of a stretch of it: heights, moving time, course, and the legs laid on it."""

from __future__ import annotations

import math

from ..document import Activity, Item, Leg, OnWay, Spot, Trip, Way
from .pace import pace_of, speed_mps

AIR_FROM = "height alone"
LAPSE_K_PER_M = 0.0065  # ISO 2533, the standard atmosphere
SEA_C = 15.0
SLOPE_OVER_M = 200.0
LEAST_S = 60


def at(way: Way, column: tuple[float, ...], metres: float) -> float:
    """A column's value at some metres along the way, between its neighbours."""
    place = min(max(0.0, metres / way.step_m), len(column) - 1.0)
    before = min(int(place), len(column) - 2)
    return column[before] + (column[before + 1] - column[before]) * (place - before)


def height_at(way: Way, metres: float) -> float | None:
    """Height above the sea [m]; None where the track knew none."""
    return round(at(way, way.height_m, metres), 1) if way.height_m else None


def place_at(way: Way, metres: float) -> tuple[float, float]:
    """Latitude and longitude [deg], over the antimeridian too."""
    place = min(max(0.0, metres / way.step_m), len(way.latitude) - 1.0)
    before = min(int(place), len(way.latitude) - 2)
    turn = (way.longitude[before + 1] - way.longitude[before] + 180.0) % 360.0 - 180.0
    longitude = way.longitude[before] + turn * (place - before)
    return at(way, way.latitude, metres), (longitude + 180.0) % 360.0 - 180.0


def spot_at(way: Way, metres: float) -> Spot:
    """The place of a leg or stop on a way, as its document keeps it."""
    latitude, longitude = place_at(way, metres)
    return Spot(latitude=round(latitude, 4), longitude=round(longitude, 4))


def course_deg(way: Way, metres: float) -> float:
    """Direction of travel from north by east [deg], over two steps of the way (flat triangle)."""
    lat_a, lon_a = place_at(way, metres - way.step_m)
    lat_b, lon_b = place_at(way, metres + way.step_m)
    east = ((lon_b - lon_a + 180.0) % 360.0 - 180.0) * math.cos(math.radians((lat_a + lat_b) / 2))
    return math.degrees(math.atan2(east, lat_b - lat_a)) % 360.0


def moving_s(way: Way, from_m: float, to_m: float, activity: Activity) -> float:
    """Seconds from one place to another: the track's own, else by the activity's pace and slope."""
    if way.clock == "track" or pace_of(activity, way.going) == way.going:
        return at(way, way.moved_s, to_m) - at(way, way.moved_s, from_m)
    import numpy as np  # noqa: PLC0415 - slow to import

    steps = max(1, math.ceil((to_m - from_m) / way.step_m))
    each_m = (to_m - from_m) / steps
    middles = [from_m + (n + 0.5) * each_m for n in range(steps)]
    slopes = np.array([slope_at(way, middle) for middle in middles])
    paces = speed_mps(pace_of(activity, way.going), slopes, way.factor)
    return float(np.sum(each_m / paces))


def along_after(way: Way, from_m: float, to_m: float, activity: Activity, share: float) -> float:
    """How far along the way one is after a share of the moving time of a stretch [m]; bisected."""
    whole_s = moving_s(way, from_m, to_m, activity)
    low_m, high_m = from_m, to_m
    while high_m - low_m > 1.0:
        middle_m = (low_m + high_m) / 2.0
        if moving_s(way, from_m, middle_m, activity) < share * whole_s:
            low_m = middle_m
        else:
            high_m = middle_m
    return round((low_m + high_m) / 2.0, 1)


def slope_at(way: Way, metres: float) -> float:
    """Slope [m/m], up positive, over 200 m around a place; 0 where heights are not known."""
    if not way.height_m:
        return 0.0
    low = max(0.0, metres - SLOPE_OVER_M / 2.0)
    high = min(way.length_m, metres + SLOPE_OVER_M / 2.0)
    return (at(way, way.height_m, high) - at(way, way.height_m, low)) / max(1.0, high - low)


def way_of(trip: Trip, item: Item) -> tuple[Way, OnWay] | None:
    """The way that a leg or stop lies on, and where; None when it lies on none."""
    if item.on_way is None:
        return None
    way = next(way for way in trip.ways if way.id == item.on_way.way)
    return way, item.on_way


def leg_on(leg: Leg, way: Way, from_m: float, to_m: float) -> Leg:
    """A leg laid on a stretch of a way: its heights, speed, and what follows from them.

    A length in time that was typed stays; air that was typed or came from weather stays too.
    """
    lies = OnWay(way=way.id, from_m=round(from_m, 1), to_m=round(to_m, 1))
    duration_s = leg.duration_s
    timed_by = leg.timed_by
    if timed_by != "hand":
        duration_s = max(LEAST_S, round(moving_s(way, from_m, to_m, leg.activity)))
        timed_by = way.clock
    heights = height_at(way, from_m), height_at(way, to_m)
    speed = min(100.0, (to_m - from_m) / duration_s)
    air: dict[str, float | str] = {}
    if leg.air_from == AIR_FROM:
        air["air_mps"] = leg.air_mps if "wind" in leg.typed else round(min(60.0, speed), 1)
        if "temp" not in leg.typed:
            air |= {"temp_start_c": air_c(heights[0]), "temp_end_c": air_c(heights[1])}
    return leg.model_copy(
        update={
            "on_way": lies,
            "duration_s": duration_s,
            "timed_by": timed_by,
            "speed_mps": round(speed, 1),
            "spot": spot_at(way, (from_m + to_m) / 2.0),
            "height_start_m": heights[0],
            "height_end_m": heights[1],
            **air,
        }
    )


def air_c(height_m: float | None) -> float:
    """The standard atmosphere's temperature at a height [degC]: 15 at the sea, 6.5 K/km less."""
    return round(min(70.0, max(-60.0, SEA_C - LAPSE_K_PER_M * (height_m or 0.0))), 1)
