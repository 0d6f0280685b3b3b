"""The only door from trip rows to the core."""

from __future__ import annotations

import logging
from collections.abc import Mapping
from contextlib import suppress
from functools import lru_cache
from typing import Any

from django.core.cache import cache

from tumbrel.core.document import Kit, Plan, PlanDocument, Trip
from tumbrel.core.document.base import Part
from tumbrel.core.document.versions import brought_up, numbered
from tumbrel.core.light import SunDays, sun_azimuths_of_day, sun_heights_of_day
from tumbrel.kit.to_core import kit_of

from .models import Trip as TripRow

log = logging.getLogger(__name__)


class TripAndPlan(Part):
    """What a trip's row keeps."""

    trip: Trip
    plan: Plan


def trip_from(kept: Mapping[str, Any]) -> TripAndPlan:
    """Trip and plan of a row or step, whatever schema they were kept in."""
    return TripAndPlan.model_validate(brought_up(kept, "trip"))


def trip_and_plan(row: TripRow) -> TripAndPlan:
    """Trip and plan of a row."""
    return trip_from(row.document)


def plan_as_kept(row: TripRow) -> dict[str, Any]:
    """The plan of a row, brought up but not read through."""
    plan: dict[str, Any] = brought_up(row.document, "trip")["plan"]
    return plan


def as_kept(trip: Trip, plan: Plan) -> dict[str, Any]:
    """Trip and plan as a row keeps them."""
    return numbered(TripAndPlan(trip=trip, plan=plan).model_dump(mode="json"))


def variant_from(kept: Mapping[str, Any]) -> PlanDocument:
    """The whole document of a variant, whatever schema it was kept in."""
    return PlanDocument.model_validate(numbered(brought_up(kept, "file")))


def document_of(row: TripRow) -> PlanDocument:
    """The whole document: the row's trip and plan with its kit as it is now."""
    return on_kit(row, kit_of(row.kit))


def on_kit(row: TripRow, kit: Kit) -> PlanDocument:
    """The row's trip and plan with a kit that was read already."""
    kept = trip_and_plan(row)
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
