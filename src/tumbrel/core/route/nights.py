"""How long a night at a stop is: from the arrival to the morning, asleep until an hour before."""

from __future__ import annotations

from datetime import datetime, timedelta

from ..document import Item, Stop, Trip
from ..document.trip import Asleep

DAY_STARTS_H, SLEEPS_S, RISES_S = 8, 8 * 3600, 3600


def night_s(arrives: datetime) -> int:
    """Seconds from an arrival on the local clock to the next morning that leaves time to sleep."""
    morning = (arrives + timedelta(hours=12)).replace(hour=DAY_STARTS_H, minute=0, second=0)
    if morning <= arrives + timedelta(seconds=SLEEPS_S):
        morning += timedelta(days=1)
    return round((morning - arrives).total_seconds())


def asleep_in(duration_s: int) -> Asleep:
    """Eight hours asleep that end an hour before the stop does."""
    return Asleep(start_s=max(0, duration_s - SLEEPS_S - RISES_S), duration_s=SLEEPS_S)


def nights_from(items: tuple[Item, ...], start: datetime) -> tuple[Item, ...]:
    """Legs and stops from a local time on, nights ending in the morning but where timed by hand."""
    now = start
    found: list[Item] = []
    for item in items:
        if item.not_before is not None and item.not_before > now:
            now = item.not_before
        again = item
        if isinstance(item, Stop) and item.asleep is not None and item.timed_by != "hand":
            duration_s = night_s(now)
            changed = {"duration_s": duration_s, "asleep": asleep_in(duration_s)}
            again = item.model_copy(update=changed)
        found.append(again)
        now += timedelta(seconds=again.duration_s)
    return tuple(found)


def nights_again(trip: Trip) -> Trip:
    """The trip with its nights ending in the morning again; those timed by hand stay."""
    return trip.model_copy(update={"items": nights_from(trip.items, trip.start)})
