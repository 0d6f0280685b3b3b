"""The verdict: does it last, what gives out first, when, and by how much."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from ..document import PlanDocument
from ..rehearsal.causes import Cause
from ..rehearsal.result import FirstToGiveOut, LeastLeft, Minutes
from .gaps import CAUSE_WORDS
from .units import clock, hours, per_cent

NUMBERS = ("No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine")


@dataclass(frozen=True)
class Told:
    """What the verdict is made from."""

    document: PlanDocument
    minutes: Minutes
    broken_musts: int
    first: FirstToGiveOut | None
    least_left: LeastLeft | None
    start_utc: datetime


def verdict_words(told: Told) -> tuple[str, str]:
    """The headline and the sentences below it."""
    if told.minutes.asked == 0:
        return (
            "Nothing is asked yet.",
            "Choose a camera on a leg of the board and say how it records.",
        )
    if told.first is None:
        headline = "Everything you asked is filmed."
        return headline, " ".join(filter(None, [_least(told), _sum(told)]))
    return _broken(told.broken_musts), f"{_first(told, told.first)} {_sum(told)}"


def _broken(musts: int) -> str:
    if musts == 0:
        return "Every must is filmed, not all you asked."
    number = NUMBERS[musts] if musts < len(NUMBERS) else str(musts)
    return f"{number} must is broken." if musts == 1 else f"{number} musts are broken."


def _first(told: Told, first: FirstToGiveOut) -> str:
    trip = told.document.trip
    name = _camera(told, first.camera)
    place = _item(told, first.item)
    when = clock(trip, told.start_utc, first.at_ms)
    why = CAUSE_WORDS[Cause(first.cause)]
    return f"First to give out: {name}, {why} at {when}, {place}, for {hours(first.minutes)}."


def _least(told: Told) -> str:
    least = told.least_left
    if least is None:
        return ""
    where = _item(told, least.item)
    return f"Least left: {_camera(told, least.camera)}, {per_cent(least.left)} at {where}."


def _sum(told: Told) -> str:
    m = told.minutes
    text = f"Of {hours(m.asked)} camera time asked, {hours(m.filmed)} is filmed"
    if m.watched:
        text += f" ({hours(m.watched)} of it watched by a loop and let go)"
    if m.missing:
        text += f", {hours(m.missing)} is missing"
    if m.starting:
        text += f", {hours(m.starting)} goes in starting up"
    return text + "."


def _camera(told: Told, key: str) -> str:
    return next(c.name for c in told.document.kit.cameras if c.id == key)


def _item(told: Told, key: str) -> str:
    return next((i.name for i in told.document.trip.items if i.id == key), "the wait")
