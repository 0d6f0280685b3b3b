"""The only door from trip rows to the core."""

from __future__ import annotations

import logging
from contextlib import suppress
from functools import lru_cache

from django.core.cache import cache

from tumbrel.core.document import Kit, Plan, PlanDocument, Trip
from tumbrel.core.document.base import Part
from tumbrel.core.light import SunDays, sun_azimuths_of_day, sun_heights_of_day

from .models import Trip as TripRow

log = logging.getLogger(__name__)


class TripAndPlan(Part):
    """What a trip's row keeps."""

    trip: Trip
    plan: Plan


def trip_and_plan(row: TripRow) -> TripAndPlan:
    """Trip and plan of a row."""
    return TripAndPlan.model_validate(row.document)


def document_of(row: TripRow) -> PlanDocument:
    """The whole document: the row's trip and plan with its kit as it is now."""
    kept = trip_and_plan(row)
    kit = Kit.model_validate(row.kit.document)
    return PlanDocument(kit=kit, trip=kept.trip, plan=kept.plan)


def without_ways(document: PlanDocument) -> PlanDocument:
    """A document as it is rehearsed: the courses of its ways matter to the route alone."""
    trip = document.trip
    items = tuple(item.model_copy(update={"on_way": None}) for item in trip.items)
    bare = trip.model_copy(update={"items": items, "ways": ()})
    return document.model_copy(update={"trip": bare})


def kept_by_day(name: str, compute: SunDays) -> SunDays:
    """The same table of a place's days, kept on disk: computing one loads a slow library."""

    @lru_cache(maxsize=2048)
    def of_day(latitude: float, longitude: float, height_m: float, day: int) -> tuple[float, ...]:
        key = f"{name}:{latitude:.4f}:{longitude:.4f}:{height_m:.0f}:{day}"
        known = _kept(key)
        if isinstance(known, tuple):
            return known
        found = compute(latitude, longitude, height_m, day)
        with suppress(OSError):  # a full disk keeps nothing, and stops nothing
            cache.set(key, found)
        return found

    return of_day


def _kept(key: str) -> object:
    """What the cache holds; a spoiled one is thrown away and made anew."""
    try:
        return cache.get(key)
    except Exception:  # whatever a file that is none of ours unpickles to
        log.warning("the cache was spoiled; it is made anew")
        cache.clear()
        return None


sun_days = kept_by_day("sun-1", sun_heights_of_day)
sun_azimuths = kept_by_day("sun-azimuth-1", sun_azimuths_of_day)
