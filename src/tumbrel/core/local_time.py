"""Between the trip's own milliseconds and its local clock."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo


def local_at(start_utc: datetime, time_zone: str, at_ms: int) -> datetime:
    """The local time at so many milliseconds from the trip's start."""
    moment = start_utc.astimezone(UTC) + timedelta(milliseconds=at_ms)
    return moment.astimezone(ZoneInfo(time_zone))


def ms_at(start_utc: datetime, time_zone: str, local: datetime) -> int:
    """Milliseconds from the trip's start at a local clock time without an offset."""
    at = local.replace(tzinfo=ZoneInfo(time_zone)).astimezone(UTC)
    return round((at - start_utc) / timedelta(milliseconds=1))
