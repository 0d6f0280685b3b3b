"""One formatter per unit."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

from ..document import Trip


def hours(whole: int) -> str:
    """Whole minutes as "35 min" or "2 h 05"."""
    return f"{whole} min" if whole < 60 else f"{whole // 60} h {whole % 60:02d}"


def clock(trip: Trip, start_utc: datetime, at_ms: int, with_day: bool = True) -> str:
    """Local clock time of a moment, with the day when the trip has more than one."""
    moment = (start_utc.astimezone(UTC) + timedelta(milliseconds=at_ms)).astimezone(
        ZoneInfo(trip.time_zone)
    )
    first = trip.start.date()
    day = (moment.date() - first).days + 1
    hour = f"{moment:%H:%M}"
    return f"day {day}, {hour}" if with_day and day > 1 else hour


def per_cent(share: float) -> str:
    """A share as whole per cent."""
    return f"{round(share * 100)} %"
