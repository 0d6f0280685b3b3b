"""Weather by the hour, and the air that it means for each leg and stop (model/time#steps)."""

from __future__ import annotations

import math
from bisect import bisect_right
from datetime import datetime, timedelta
from itertools import pairwise
from typing import Annotated

from pydantic import AwareDatetime, Field, model_validator

from ..document import BadDocument, FieldFault, Leg, Stop, Trip
from ..document.base import Celsius, Label, Part, Share
from ..light import SunDays, sun_heights_of_day
from ..rehearsal.trip.timeline import Laid, lay_out
from .on_way import LAPSE_K_PER_M

CLOUD_SHARE, CLOUD_POWER = 0.75, 3.4  # Kasten and Czeplak (1980), eq. 3: global radiation by cloud


class WeatherHour(Part):
    """One hour, at its beginning."""

    at: AwareDatetime
    temp_c: Celsius
    doubt_k: Annotated[float, Field(ge=0.0, le=30.0)] = Field(
        default=0.0, description="Eight times in ten the temperature lies within this, up and down."
    )
    wind_mps: Annotated[float, Field(ge=0.0, le=60.0)] = 0.0
    wind_doubt_mps: Annotated[float, Field(ge=0.0, le=50.0)] = 0.0
    cloud: Share = 0.0
    cloud_doubt: Share = 0.0


class Weather(Part):
    """Hours in order, of a place at a height, and where they come from."""

    source: Label
    height_m: float
    hours: Annotated[tuple[WeatherHour, ...], Field(min_length=2, max_length=2000)]

    @model_validator(mode="after")
    def _in_order(self) -> Weather:
        times = [hour.at for hour in self.hours]
        if any(after <= before for before, after in pairwise(times)):
            raise ValueError("the hours are not in order, each later than the one before")
        return self


class AirTold(Part):
    """The air of one leg or stop by the weather."""

    item: str
    name: str
    temp_start_c: float
    temp_end_c: float
    temp_doubt_k: float
    sky: Share
    sky_doubt: Share
    air_mps: float | None = Field(
        description="Speed and wind together; none on a stop, or where the speed is not known."
    )
    air_doubt_mps: float


def air_by(
    trip: Trip, weather: Weather, sun_days: SunDays = sun_heights_of_day
) -> tuple[AirTold, ...]:
    """Temperature, sky and airflow of every leg and stop, by its hours and height.

    Temperature is carried to the height of its start and end by 6.5 K/km. Airflow is the root of
    speed squared and mean wind squared, since the wind's direction to the way is not known; without
    a speed the airflow that was typed stands. Raises BadDocument when the weather does not reach
    over the whole trip.
    """
    line = lay_out(trip, sun_days)
    return tuple(
        _air(part, part.item, line.start_utc, weather)
        for part in line.laid
        if part.item is not None
    )


def _air(part: Laid, item: Leg | Stop, start_utc: datetime, weather: Weather) -> AirTold:
    begins, ends = (start_utc + timedelta(milliseconds=ms) for ms in (part.start_ms, part.end_ms))
    if isinstance(item, Leg):
        low_m, high_m = item.height_start_m, item.height_end_m
    else:
        low_m = high_m = item.height_m
    hours = [_at(weather, part.name, begins + (ends - begins) * n / 4.0) for n in range(5)]
    first, last = hours[0], hours[-1]
    wind = sum(hour.wind_mps for hour in hours) / len(hours)
    cloud = sum(hour.cloud for hour in hours) / len(hours)
    most_cloud = min(1.0, cloud + max(hour.cloud_doubt for hour in hours))
    least_cloud = max(0.0, cloud - max(hour.cloud_doubt for hour in hours))
    blows = isinstance(item, Leg) and item.speed_mps > 0.0
    return AirTold(
        item=item.id,
        name=item.name,
        temp_start_c=_carried_c(first.temp_c, weather.height_m, low_m),
        temp_end_c=_carried_c(last.temp_c, weather.height_m, high_m),
        temp_doubt_k=round(max(hour.doubt_k for hour in hours), 1),
        sky=round(sky_share(cloud), 2),
        sky_doubt=round((sky_share(least_cloud) - sky_share(most_cloud)) / 2.0, 2),
        air_mps=round(min(100.0, math.hypot(item.speed_mps, wind)), 1)
        if isinstance(item, Leg) and blows
        else None,
        air_doubt_mps=round(max(hour.wind_doubt_mps for hour in hours), 1) if blows else 0.0,
    )


def _carried_c(temp_c: float, from_m: float, to_m: float | None) -> float:
    height = from_m if to_m is None else to_m
    return round(min(70.0, max(-60.0, temp_c - LAPSE_K_PER_M * (height - from_m))), 1)


def sky_share(cloud: float) -> float:
    """Share of the clear sky's light under a share of cloud: 1 - 0.75 n^3.4 (Kasten, Czeplak)."""
    return 1.0 - CLOUD_SHARE * float(cloud**CLOUD_POWER)


def _at(weather: Weather, name: str, moment: datetime) -> WeatherHour:
    """The weather at a moment, between two hours. Raises BadDocument outside them."""
    hours = weather.hours
    place = bisect_right([hour.at for hour in hours], moment) - 1
    if place < 0 or (place == len(hours) - 1 and moment > hours[-1].at + timedelta(hours=1)):
        reach = f"{hours[0].at:%Y-%m-%d %H:%M} to {hours[-1].at:%Y-%m-%d %H:%M} UTC"
        why = f"says nothing of {name}, {moment:%Y-%m-%d %H:%M} UTC: it reaches from {reach}"
        raise BadDocument((FieldFault(weather.source, why),))
    before, after = hours[place], hours[min(place + 1, len(hours) - 1)]
    span_s = (after.at - before.at).total_seconds()
    part = (moment - before.at).total_seconds() / span_s if span_s else 0.0

    def between(one: float, other: float) -> float:
        return one + (other - one) * min(1.0, part)

    return WeatherHour(
        at=moment,
        temp_c=between(before.temp_c, after.temp_c),
        doubt_k=between(before.doubt_k, after.doubt_k),
        wind_mps=between(before.wind_mps, after.wind_mps),
        wind_doubt_mps=between(before.wind_doubt_mps, after.wind_doubt_mps),
        cloud=between(before.cloud, after.cloud),
        cloud_doubt=between(before.cloud_doubt, after.cloud_doubt),
    )
