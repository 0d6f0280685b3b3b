"""A new trip, on a kit or on one of its own."""

from __future__ import annotations

from datetime import datetime

from django.contrib.auth.models import User
from django.db import transaction

from tumbrel.core.document import Plan, Stop, Trip
from tumbrel.kit.actions import make_kit
from tumbrel.kit.queries import kit_row

from .actions import keep_new
from .files import kit_name
from .models import Trip as TripRow

FIRST_STOP = Stop(id="start", name="Start", duration_s=1800)


@transaction.atomic
def make_trip(owner: User, kit_id: int | None, name: str, start: datetime) -> TripRow:
    """A new trip with one stop to start from, on a kit or on an empty one of its own.

    Raises NotThere, or pydantic's ValidationError for a name or start that cannot be; then no kit
    is left behind.
    """
    trip = Trip(name=name, start=start.replace(tzinfo=None), items=(FIRST_STOP,))
    kit = make_kit(owner, kit_name(name)) if kit_id is None else kit_row(owner, kit_id)
    return keep_new(owner, kit.pk, trip, Plan())
