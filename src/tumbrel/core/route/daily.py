"""A day's temperatures from its low and high, where there is no weather by the hour."""

from __future__ import annotations

import math
from datetime import UTC, datetime, timedelta
from typing import Annotated
from zoneinfo import ZoneInfo

from pydantic import Field, model_validator

from ..document import Place, Trip
from ..document.base import Celsius, Part, Share
from ..document.way import HeightM
from ..light import STEP_MS, SUNRISE_DEG, SunDays, crossings, sun_heights_of_day
from .weather import Weather, WeatherHour

LATE_H = 1.86  # a: from the sun's highest to the warmest hour
COOLS = 2.2  # b: how fast a night cools
HOUR_MS = 3_600_000


class DailyRange(Part):
    """What one knows of the days: lows and highs at some height, and how sure that is."""

    low_c: Celsius
    high_c: Celsius
    height_m: HeightM | None = Field(default=None, description="None: the trip's place.")
    doubt_k: Annotated[float, Field(ge=0.0, le=30.0)] = 3.0
    wind_mps: Annotated[float, Field(ge=0.0, le=60.0)] = 0.0
    wind_doubt_mps: Annotated[float, Field(ge=0.0, le=50.0)] = 0.0
    cloud: Share = 0.0
    cloud_doubt: Share = 0.0

    @model_validator(mode="after")
    def _ordered(self) -> DailyRange:
        if self.low_c > self.high_c:
            raise ValueError("the low must not be above the high")
        return self

    @property
    def source(self) -> str:
        """How the trip tells where its air came from."""
        return f"a day of {self.low_c:g} to {self.high_c:g} °C"


def daily_weather(
    trip: Trip, place: Place, days: DailyRange, hours: int, sun_days: SunDays = sun_heights_of_day
) -> Weather:
    """Hours from the trip's start on by a daily curve (Parton and Logan 1981, air at 1.5 m).

    By day a sine from sunrise, T = low + (high - low) sin(pi m / (day + 2 a)); by night an
    exponential from sunset's temperature towards the low, exp(-b n / night); a = 1.86 h,
    b = 2.20. Where the sun does not rise or set, a sine over 24 hours with the high at three by
    the sun stands instead (no published curve covers that).
    """
    start = trip.start.replace(tzinfo=ZoneInfo(trip.time_zone)).astimezone(UTC)
    first = start.replace(minute=0, second=0, microsecond=0)
    ups, downs = _rises(place, first, hours, sun_days)
    told = []
    for n in range(hours):
        moment = first + timedelta(hours=n)
        at_ms = round(moment.timestamp() * 1000)
        share = _share(at_ms, ups, downs)
        if share is None:
            solar_h = (moment.hour + place.longitude / 15.0) % 24.0
            share = 0.5 + 0.5 * math.cos(2.0 * math.pi * (solar_h - 15.0) / 24.0)
        told.append(
            WeatherHour(
                at=moment,
                temp_c=round(days.low_c + (days.high_c - days.low_c) * share, 2),
                doubt_k=days.doubt_k,
                wind_mps=days.wind_mps,
                wind_doubt_mps=days.wind_doubt_mps,
                cloud=days.cloud,
                cloud_doubt=days.cloud_doubt,
            )
        )
    height_m = place.height_m if days.height_m is None else days.height_m
    return Weather(source=days.source, height_m=height_m, hours=tuple(told))


def _rises(
    place: Place, first: datetime, hours: int, sun_days: SunDays
) -> tuple[list[int], list[int]]:
    """Sunrises and sunsets [ms since 1970] from two days before to two after."""
    day0 = int(first.timestamp() // 86_400) - 2
    count = hours // 24 + 6
    heights: list[float] = []
    for day in range(day0, day0 + count):
        heights += sun_days(place.latitude, place.longitude, place.height_m, day)
    first_middle_ms = day0 * 86_400_000 + STEP_MS // 2
    found = crossings(heights, SUNRISE_DEG, first_middle_ms)
    return [ms for ms, up in found if up], [ms for ms, up in found if not up]


def _share(at_ms: int, ups: list[int], downs: list[int]) -> float | None:
    """How far from the low (0) to the high (1) a time is; None in a polar day or night."""
    rose = max((ms for ms in ups if ms <= at_ms), default=None)
    if rose is None or at_ms - rose > 24 * HOUR_MS:
        return None
    sets = min((ms for ms in downs if ms > rose), default=None)
    rises = min((ms for ms in ups if ms > rose), default=None)
    if sets is None or rises is None or rises - rose > 36 * HOUR_MS:
        return None
    day_h = (sets - rose) / HOUR_MS
    if at_ms < sets:
        return _by_day((at_ms - rose) / HOUR_MS, day_h)
    night_h = (rises - sets) / HOUR_MS
    return _by_day(day_h, day_h) * _by_night((at_ms - sets) / HOUR_MS, night_h)


def _by_day(since_h: float, day_h: float) -> float:
    return math.sin(math.pi * since_h / (day_h + 2.0 * LATE_H))


def _by_night(since_h: float, night_h: float) -> float:
    """Parton and Logan's exponential, taken on so that it ends at the low at sunrise."""
    end = math.exp(-COOLS)
    return (math.exp(-COOLS * since_h / night_h) - end) / (1.0 - end)
