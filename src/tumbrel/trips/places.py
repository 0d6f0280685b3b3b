"""The time zone of a place."""

from __future__ import annotations

from functools import lru_cache
from typing import Any


def zone_at(latitude: float, longitude: float) -> str:
    """The time zone of a place by the boundaries of the time zone database (timezonefinder)."""
    found = _finder().timezone_at(lat=latitude, lng=longitude)
    return str(found) if found is not None else "UTC"


@lru_cache(maxsize=1)
def _finder() -> Any:
    from timezonefinder import TimezoneFinder  # noqa: PLC0415 - slow to import

    return TimezoneFinder()
