"""Windows of the clock and of the sun on the trip's own time (model/patterns#asked)."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import UTC, date, datetime, timedelta
from functools import lru_cache
from typing import Final
from zoneinfo import ZoneInfo

from ...document import ClockEdge, Edge, Place, Trip, Windows
from ...document.patterns import Window
from ...light import DAWN_DEG, SUNRISE_DEG, SunDays, crossings, sun_table
from ...patterns import Span, merged
from .timeline import Timeline, place_of

EVENTS: Final = {
    "sunrise": (SUNRISE_DEG, True),
    "sunset": (SUNRISE_DEG, False),
    "dawn": (DAWN_DEG, True),
    "dusk": (DAWN_DEG, False),
}
DAY_STEPS: Final = 144
STEP_MS: Final = 600_000
DAY_MS: Final = 86_400_000


def window_spans(windows: Windows, trip: Trip, timeline: Timeline, within: Span) -> list[Span]:
    """Times [ms] in which a leg and any of the windows hold together."""
    spans = []
    place = place_of(trip, timeline.laid_at(within[0]).item)
    for day in days_of(trip, timeline, within):
        for window in windows.windows:
            found = span_of(window, trip, timeline, day, place)
            if found is not None:
                spans.append((max(within[0], found[0]), min(within[1], found[1])))
    return merged(spans)


def days_of(trip: Trip, timeline: Timeline, within: Span) -> Iterator[date]:
    """Local days that a window touching a span may begin on."""
    zone = ZoneInfo(trip.time_zone)
    first = (timeline.start_utc + timedelta(milliseconds=within[0])).astimezone(zone).date()
    last = (timeline.start_utc + timedelta(milliseconds=within[1])).astimezone(zone).date()
    day = first - timedelta(days=1)
    while day <= last:
        yield day
        day += timedelta(days=1)


def span_of(
    window: Window, trip: Trip, timeline: Timeline, day: date, place: Place | None
) -> Span | None:
    """A window that opens on a local day at a place; None when an edge does not happen."""
    opens = edge_ms(window.opens, trip, timeline, day, place)
    closes = edge_ms(window.closes, trip, timeline, day, place)
    if opens is not None and closes is not None and closes <= opens:
        closes = edge_ms(window.closes, trip, timeline, day + timedelta(days=1), place)
    if opens is None or closes is None or closes <= opens:
        return None
    return opens, closes


def edge_ms(
    edge: Edge, trip: Trip, timeline: Timeline, day: date, place: Place | None
) -> int | None:
    """When an edge falls on a local day, ms from the trip's start; None: no such sun that day."""
    zone = ZoneInfo(trip.time_zone)
    if isinstance(edge, ClockEdge):
        at = datetime.combine(day, edge.at, zone).astimezone(UTC)
        return round((at - timeline.start_utc) / timedelta(milliseconds=1))
    if place is None:
        return None
    level_deg, rising = EVENTS[edge.event]
    midnight = datetime.combine(day, datetime.min.time(), zone).astimezone(UTC)
    first_step = int(midnight.timestamp() * 1000) // STEP_MS - 1
    where = (place.latitude, place.longitude, place.height_m)
    start_ms = round(timeline.start_utc.timestamp() * 1000)
    from_ms = round(midnight.timestamp() * 1000) - start_ms
    for epoch_ms, upwards in _sun_passes(where, first_step, level_deg, timeline.sun_days):
        at_ms = epoch_ms - start_ms
        if upwards == rising and from_ms <= at_ms < from_ms + DAY_MS:
            return at_ms + edge.plus_min * 60_000
    return None


@lru_cache(maxsize=512)
def _sun_passes(
    where: tuple[float, float, float], first_step: int, level_deg: float, sun_days: SunDays
) -> tuple[tuple[int, bool], ...]:
    """When the sun passes a height in the day from a step on, ms from 1970, and if upwards."""
    table = sun_table(*where, first_step, DAY_STEPS + 3, sun_days)
    first_middle_ms = first_step * STEP_MS + STEP_MS // 2
    return tuple(crossings(table.height_deg, level_deg, first_middle_ms))
