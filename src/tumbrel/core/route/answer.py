"""The route as one picture: plan, ground, air and sun of each leg and stop, for drawing."""

from __future__ import annotations

from bisect import bisect_right
from datetime import datetime

from ..document import Item, Leg, Trip, Way
from ..document.base import Part
from ..light import STEP_MS, STEPS_A_DAY, SunDays, sun_azimuths_of_day, sun_heights_of_day
from ..rehearsal.trip.timeline import Laid, Timeline, lay_out, place_of
from .on_way import at, course_deg, way_of

SAMPLE_MS, MOST_SAMPLES = 300_000, 72


class WayPlan(Part):
    """A way from above: metres east and north in one plan of all ways, at the way's columns."""

    way: str
    x_m: tuple[float, ...]
    y_m: tuple[float, ...]


class ItemTold(Part):
    """One leg or stop in time: columns at even times from its start to its end."""

    item: str
    start_ms: int
    end_ms: int
    at_ms: tuple[int, ...]
    along_m: tuple[float, ...]
    height_m: tuple[float, ...]
    sun_deg: tuple[float, ...]
    level_w_m2: tuple[float, ...]
    kit_w_m2: tuple[float, ...]
    sun_from_deg: tuple[float, ...]


class RouteTold(Part):
    """What the route's picture draws. Columns that are not known are empty.

    `along_m` metres along the item's way; `sun_deg` height of the sun; `level_w_m2` its light on
    level ground under the item's sky; `kit_w_m2` that on the kit, by its share of sun;
    `sun_from_deg` where the sun stands from the direction of travel, clockwise, -180 to 180.
    """

    start_utc: datetime
    plans: tuple[WayPlan, ...]
    items: tuple[ItemTold, ...]


def route_told(
    trip: Trip,
    sun_days: SunDays = sun_heights_of_day,
    azimuth_days: SunDays = sun_azimuths_of_day,
) -> RouteTold:
    """Lay out a trip for its picture. Raises BadDocument when it grows too long."""
    line = lay_out(trip, sun_days)
    told = tuple(
        _item(trip, line, part, part.item, azimuth_days)
        for part in line.laid
        if part.item is not None
    )
    return RouteTold(start_utc=line.start_utc, plans=_plans(trip.ways), items=told)


def _azimuths(
    trip: Trip, line: Timeline, item: Item, steps: list[int], azimuth_days: SunDays
) -> list[float]:
    """Azimuths of the sun over a leg or stop, at steps of the timeline; none without a place."""
    place = place_of(trip, item)
    if place is None:
        return []
    first = round(line.start_utc.timestamp() * 1000) // STEP_MS
    where = (place.latitude, place.longitude, place.height_m)
    return [
        azimuth_days(*where, (first + step) // STEPS_A_DAY)[(first + step) % STEPS_A_DAY]
        for step in steps
    ]


def _item(trip: Trip, line: Timeline, part: Laid, item: Item, azimuth_days: SunDays) -> ItemTold:
    length_ms = part.end_ms - part.start_ms
    count = max(1, min(MOST_SAMPLES, round(length_ms / SAMPLE_MS)))
    shares = [number / count for number in range(count + 1)]
    times = [part.start_ms + round(length_ms * share) for share in shares]
    found = way_of(trip, item)
    along: list[float] = []
    if found is not None:
        way, lies = found
        along = [along_at(way, lies.from_m, lies.to_m, share) for share in shares]
    sun = line.sun
    heights: list[float] = []
    level: list[float] = []
    steps: list[int] = []
    if sun is not None:
        most = len(sun.height_deg) - 1
        steps = [min((ms + line.into_ms) // STEP_MS, most) for ms in times]
        heights = [sun.height_deg[step] for step in steps]
        level = [sun.irradiance_w_m2[step] for step in steps]
    side: list[float] = []
    if found is not None and sun is not None and isinstance(item, Leg):
        courses = [course_deg(found[0], metres) for metres in along]
        azimuths = _azimuths(trip, line, item, steps, azimuth_days)
        side = [
            (azimuth - course + 180.0) % 360.0 - 180.0
            for azimuth, course in zip(azimuths, courses, strict=False)
        ]
    return ItemTold(
        item=item.id,
        start_ms=part.start_ms,
        end_ms=part.end_ms,
        at_ms=tuple(times),
        along_m=tuple(round(each, 1) for each in along),
        height_m=tuple(_ground(item, found[0] if found else None, along, shares)),
        sun_deg=tuple(round(each, 1) for each in heights),
        level_w_m2=tuple(round(each * item.sky, 1) for each in level),
        kit_w_m2=tuple(round(each * item.sun_share, 1) for each in level),
        sun_from_deg=tuple(round(each, 1) for each in side),
    )


def along_at(way: Way, from_m: float, to_m: float, share: float) -> float:
    """Where on its way one is after a share of a leg's time, by the way's own moving time."""
    low, high = at(way, way.moved_s, from_m), at(way, way.moved_s, to_m)
    if high - low < 1.0:
        return from_m + (to_m - from_m) * share
    moved = low + (high - low) * share
    place = min(max(1, bisect_right(way.moved_s, moved)), len(way.moved_s) - 1)
    before, after = way.moved_s[place - 1], way.moved_s[place]
    part = (moved - before) / (after - before) if after > before else 0.0
    return min(to_m, max(from_m, (place - 1 + part) * way.step_m))


def _ground(item: Item, way: Way | None, along: list[float], shares: list[float]) -> list[float]:
    if way is not None and way.height_m:
        return [round(at(way, way.height_m, metres), 1) for metres in along]
    if isinstance(item, Leg):
        low, high = item.height_start_m, item.height_end_m
    else:
        low = high = item.height_m
    if low is None or high is None:
        return []
    return [round(low + (high - low) * share, 1) for share in shares]


def _plans(ways: tuple[Way, ...]) -> tuple[WayPlan, ...]:
    if not ways:
        return ()
    import numpy as np  # noqa: PLC0415 - slow to import

    from .ground import plan_of  # noqa: PLC0415 - the same

    latitude = np.concatenate([way.latitude for way in ways])
    longitude = np.concatenate([way.longitude for way in ways])
    x_m, y_m = plan_of(latitude, longitude)
    ends = np.cumsum([len(way.latitude) for way in ways])
    return tuple(
        WayPlan(
            way=way.id,
            x_m=tuple(np.round(x_m[end - len(way.latitude) : end], 1).tolist()),
            y_m=tuple(np.round(y_m[end - len(way.latitude) : end], 1).tolist()),
        )
        for way, end in zip(ways, ends.tolist(), strict=True)
    )
