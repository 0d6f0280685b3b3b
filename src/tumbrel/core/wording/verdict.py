"""The verdict: does it last, what gives out first, when, and by how much."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime

from ..rehearsal.camera.causes import Cause
from ..rehearsal.result.result import (
    Caught,
    FirstToGiveOut,
    LeastLeft,
    Minutes,
    MomentsWhole,
    Resource,
)
from ..rehearsal.trip.scene import Written
from .gaps import CAUSE_WORDS
from .units import clock, hours, kept_of, number_of, opening, per_cent

NUMBERS = ("No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine")


RESOURCES: Mapping[Resource, str] = {
    "battery": "charge",
    "heat": "warmth below its limit",
    "card": "room on its card",
    "bank": "charge above its reserve",
    "module": "charge above the cold's line",
    "port": "watts of its port",
}


@dataclass(frozen=True)
class Told:
    """What the verdict is made from."""

    document: Written
    minutes: Minutes
    broken_musts: int
    first: FirstToGiveOut | None
    least_left: LeastLeft | None
    start_utc: datetime
    moments: tuple[MomentsWhole, ...] = ()
    missed: tuple[Caught, ...] = ()
    stops: tuple[str, ...] = ()
    unplayed: str = ""


def verdict_words(told: Told) -> tuple[str, str]:
    """The headline and the sentences below it."""
    if told.unplayed == "failed":
        return "Not rehearsed: Tumbrel failed at this plan.", told.stops[0]
    if told.unplayed:
        return "Not rehearsed: a figure of the kit is to be mended first.", told.stops[0]
    if told.minutes.asked == 0 and not told.stops:
        return (
            "Nothing is asked yet.",
            "Choose a camera on a leg of the board and say how it records.",
        )
    parts = [
        *([_first(told, told.first)] if told.first else []),
        *told.stops[:1],
        *(_missed(told, one) for one in told.missed[:1]),
        _least(told),
        _sum(told),
        _moments(told),
    ]
    return _headline(told), " ".join(filter(None, parts))


def musts_broken(count: int) -> str:
    """How many musts are broken, the number as a word."""
    number = NUMBERS[count].lower() if count < len(NUMBERS) else str(count)
    return f"{number} must is broken" if count == 1 else f"{number} musts are broken"


def _headline(told: Told) -> str:
    musts = told.broken_musts
    if musts:
        return f"{opening(musts_broken(musts))}."
    asked = any(one.importance == "must" for one in told.document.plan.assignments)
    every = "Every must is filmed, " if asked else ""
    if told.stops:
        return f"{every or 'It is filmed, '}but not all of it can be trusted."
    if told.first is None:
        return "Everything you asked is filmed."
    return f"{every}not all you asked." if asked else "Not all you asked is filmed."


def _missed(told: Told, moment: Caught) -> str:
    """A must moment that is not expected to be kept."""
    place = _item(told, moment.item)
    kept = kept_of(moment.whole, moment.count)
    return f"{opening(moment.moment)} on {place} is not expected {kept}."


def _moments(told: Told) -> str:
    """How many moments are whole, by importance."""
    if not told.moments:
        return ""
    rows = [f"{number_of(m.whole)} of {m.count} ({m.importance})" for m in told.moments]
    return f"Moments whole: {', '.join(rows)}."


def _first(told: Told, first: FirstToGiveOut) -> str:
    trip = told.document.trip
    name = _camera(told, first.camera)
    place = _item(told, first.item)
    when = clock(trip, told.start_utc, first.at_ms)
    camera = next(c for c in told.document.kit.cameras if c.id == first.camera)
    fixed = first.cause == Cause.CARD_FULL and camera.memory.kind == "fixed"
    why = "memory full" if fixed else CAUSE_WORDS[Cause(first.cause)]
    return f"First to give out: {name}, {why} at {when}, {place}, for {lasting(first)}."


def lasting(first: FirstToGiveOut) -> str:
    """How long something is missing: whole minutes, less than one in seconds."""
    return hours(first.minutes) if first.minutes else f"{round(first.lost_ms / 1000)} s"


def _least(told: Told) -> str:
    least = told.least_left
    if least is None:
        return ""
    where = _item(told, least.item)
    of = f", {RESOURCES[least.resource]}" if least.resource != "battery" else ""
    return f"Least left: {least.name}{of}, {per_cent(least.left)} at {where}."


def _sum(told: Told) -> str:
    m = told.minutes
    if m.asked == 0:
        return ""
    text = f"Of {hours(m.asked)} camera time asked, {hours(m.filmed)} is filmed"
    if m.watched:
        text += f" ({hours(m.watched)} of it watched by a loop and let go)"
    if m.missing:
        text += f", {hours(m.missing)} is missing"
    if m.starting:
        text += f", {hours(m.starting)} goes in starting up and short breaks"
    return text + "."


def _camera(told: Told, key: str) -> str:
    return next(c.name for c in told.document.kit.cameras if c.id == key)


def _item(told: Told, key: str) -> str:
    return next((i.name for i in told.document.trip.items if i.id == key), "the wait")
