"""Where weather comes from: a service behind a small interface, or a file."""

from __future__ import annotations

import math
from datetime import UTC, datetime
from typing import Protocol
from zoneinfo import ZoneInfo

from tumbrel.core.document import BadDocument, FieldFault, Place, Trip
from tumbrel.core.formats.weather_table import read_weather
from tumbrel.core.rehearsal.trip.timeline import lay_out
from tumbrel.core.route.daily import DailyRange, daily_weather
from tumbrel.core.route.weather import AirTold, Weather, air_by
from tumbrel.simulators.weather import made_up

from .to_core import sun_days


class WeatherService(Protocol):
    """What a weather service does: hours of a place from a start on, with their doubt."""

    def __call__(self, place: Place, start: datetime, hours: int) -> Weather:
        """Weather from the hour of `start` on. Raises BadDocument when it has none."""


def air_of_service(trip: Trip, service: WeatherService = made_up) -> tuple[AirTold, ...]:
    """The air of every leg and stop by a weather service. Raises BadDocument without a place."""
    place = _place(trip)
    start = trip.start.replace(tzinfo=ZoneInfo(trip.time_zone)).astimezone(UTC)
    return air_by(trip, service(place, start, _hours(trip)), sun_days)


def air_of_days(trip: Trip, days: DailyRange) -> tuple[AirTold, ...]:
    """The same by the low and high of its days. Raises BadDocument without a place."""
    return air_by(trip, daily_weather(trip, _place(trip), days, _hours(trip), sun_days), sun_days)


def _hours(trip: Trip) -> int:
    return math.ceil(lay_out(trip, sun_days).duration_ms / 3_600_000) + 2


def air_of_file(trip: Trip, text: str, name: str) -> tuple[AirTold, ...]:
    """The same by a CSV of hours. Raises BadDocument."""
    weather = read_weather(text, name, _place(trip).height_m, trip.time_zone)
    return air_by(trip, weather, sun_days)


def _place(trip: Trip) -> Place:
    if trip.place is None:
        why = "is not given: weather belongs to a place and its height"
        raise BadDocument((FieldFault("trip.place", why),))
    return trip.place
