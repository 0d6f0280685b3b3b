"""One formatter per unit."""

from __future__ import annotations

from datetime import datetime

from ..document import Trip
from ..local_time import local_at


def hours(whole: int) -> str:
    """Whole minutes as "35 min" or "2 h 05"."""
    return f"{whole} min" if whole < 60 else f"{whole // 60} h {whole % 60:02d}"


def clock(trip: Trip, start_utc: datetime, at_ms: int, with_day: bool = True) -> str:
    """Local clock time of a moment, with the day when the trip has more than one."""
    moment = local_at(start_utc, trip.time_zone, at_ms)
    first = trip.start.date()
    day = (moment.date() - first).days + 1
    hour = f"{moment:%H:%M}"
    return f"day {day}, {hour}" if with_day and day > 1 else hour


def opening(text: str) -> str:
    """Words that begin a sentence."""
    return text[:1].upper() + text[1:]


def counted(count: int, one: str, many: str = "") -> str:
    """How many of something, in its number: "1 clip", "3 clips"."""
    return f"{count} {one if count == 1 else many or one + 's'}"


def gigabytes(size: int) -> str:
    """Bytes in GB, with a digit behind the point below ten."""
    gb = size / 1e9
    return f"{gb:.1f}" if gb < 10.0 else f"{gb:.0f}"


def number_of(count: float) -> str:
    """A number of things of which some are only expected: "3", "1.4"."""
    return f"{round(count, 1):g}"


def kept_of(whole: float, count: int) -> str:
    """What is not expected of moments: "to be kept: 0 of 3", "to be kept every time: 3.2 of 4"."""
    number = number_of(whole)
    often = " every time" if count > 1 and number != "0" else ""
    return f"to be kept{often}: {number} of {count}"


def per_cent(share: float) -> str:
    """A share as whole per cent."""
    return f"{round(share * 100)} %"
