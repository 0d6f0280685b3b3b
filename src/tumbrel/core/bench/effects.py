"""What a changed kit does to a trip's answer, in minutes and words."""

from __future__ import annotations

from ..document import PlanDocument
from ..document.base import Part
from ..rehearsal.result.result import FirstToGiveOut, Rehearsal
from ..wording.units import clock, hours
from .taking import Change


class TripEffect(Part):
    """One trip's answer before and after."""

    trip_id: int
    trip: str
    before: str
    after: str
    missing_before: int
    missing_after: int
    broken_musts_before: int
    broken_musts_after: int
    words: str


class Effects(Part):
    """What taking figures would change: in the kit, and on each of its trips."""

    changes: tuple[Change, ...]
    trips: tuple[TripEffect, ...]


def effect_of(
    trip_id: int, document: PlanDocument, before: Rehearsal, after: Rehearsal
) -> TripEffect:
    """Two rehearsals of a trip, with the kit before and after."""
    old, new = before.verdict, after.verdict
    return TripEffect(
        trip_id=trip_id,
        trip=document.trip.name,
        before=old.headline,
        after=new.headline,
        missing_before=old.minutes.missing,
        missing_after=new.minutes.missing,
        broken_musts_before=old.broken_musts,
        broken_musts_after=new.broken_musts,
        words=_words(document, before, after),
    )


def _words(document: PlanDocument, before: Rehearsal, after: Rehearsal) -> str:
    old, new = before.verdict, after.verdict
    more = new.minutes.missing - old.minutes.missing
    parts = ["The same minutes are filmed."]
    if more:
        change = "more" if more > 0 else "fewer"
        parts = [f"{hours(abs(more))} {change} are missing ({hours(new.minutes.missing)} in all)."]
    if new.broken_musts != old.broken_musts:
        parts.append(f"Broken musts: {old.broken_musts} before, {new.broken_musts} after.")
    first = new.first
    if first is not None and (old.first is None or _when(old.first) != _when(first)):
        name = next(c.name for c in document.kit.cameras if c.id == first.camera)
        when = clock(document.trip, after.start_utc, first.at_ms)
        parts.append(f"First to give out is then {name} at {when}.")
    return " ".join(parts)


def _when(first: FirstToGiveOut) -> tuple[str, int]:
    return first.camera, first.at_ms // 60_000
