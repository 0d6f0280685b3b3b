"""The time zone of a place."""

from __future__ import annotations


def zone_at(latitude: float, longitude: float) -> str:
    """The time zone of a place by the boundaries of the time zone database (timezonefinder)."""
    from timezonefinder import TimezoneFinder  # noqa: PLC0415 - slow to import

    with TimezoneFinder() as finder:
        found = finder.timezone_at(lat=latitude, lng=longitude)
    return "UTC" if found is None else str(found)
