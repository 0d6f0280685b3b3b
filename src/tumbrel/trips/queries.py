"""Reading trips, always in an owner's scope."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db.models import Count

from tumbrel.history.refusals import NotThere
from tumbrel.history.steps import ways_from
from tumbrel.kit.to_core import kit_of

from .models import Trip
from .schemas import TripLine, TripState
from .to_core import trip_and_plan


def trip_row(owner: User, trip_id: int) -> Trip:
    """One trip. Raises NotThere."""
    rows = Trip.objects.of(owner).select_related("kit", "card_made").defer("card_made__card")
    row = rows.filter(pk=trip_id).first()
    if not isinstance(row, Trip):
        raise NotThere("trip")
    return row


def trips_of_kit(owner: User, kit_id: int) -> list[Trip]:
    """Trips on a kit."""
    return list(Trip.objects.of(owner).filter(kit_id=kit_id).order_by("pk"))


def trip_lines(owner: User) -> list[TripLine]:
    """All trips, the oldest first."""
    rows = Trip.objects.of(owner).select_related("kit").annotate(held=Count("variants"))
    return [
        TripLine(id=r.pk, name=r.name, kit=r.kit.name, variants=r.held, saved_at=r.saved_at)
        for r in rows.order_by("pk")
    ]


def trip_state(row: Trip) -> TripState:
    """A trip with its kit."""
    kept = trip_and_plan(row)
    made = getattr(row, "card_made", None)  # the row at the other end, where there is one
    return TripState(
        id=row.pk,
        version=row.version,
        kit_id=row.kit.pk,
        kit_name=row.kit.name,
        kit=kit_of(row.kit),
        trip=kept.trip,
        plan=kept.plan,
        saved_at=row.saved_at,
        **ways_from(row, row.steps).model_dump(),
        card_made=None if made is None else made.made_at,
    )
