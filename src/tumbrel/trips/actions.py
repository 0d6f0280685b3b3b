"""Changes of trips: check, transaction, record, return."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction

from tumbrel.core.document import (
    BadDocument,
    FieldFault,
    Plan,
    Trip,
    check_references,
)
from tumbrel.history import steps
from tumbrel.history.bin import throw_away
from tumbrel.kit.actions import stepped
from tumbrel.kit.to_core import kit_of

from .following import led_by_kit
from .models import Trip as TripRow
from .queries import trip_row, trip_state
from .to_core import as_kept, trip_from


@transaction.atomic
def keep_new(owner: User, kit_id: int, trip: Trip, plan: Plan) -> TripRow:
    """A new trip from a document's trip and plan."""
    body = as_kept(trip, plan)
    row = TripRow.objects.create(owner=owner, kit_id=kit_id, name=trip.name, document=body)
    steps.begin(row, row.steps)
    return trip_row(owner, row.pk)


@transaction.atomic
def save_trip(owner: User, trip_id: int, version: int, trip: Trip, plan: Plan) -> TripRow:
    """Keep a trip. Raises NotThere, Stale, or BadDocument when the plan names what is not there."""
    row = _fresh(owner, trip_id, version)
    _check(row, trip, plan)
    steps.record(row, row.steps, as_kept(trip, plan), trip.name)
    return row


@transaction.atomic
def step_trip(owner: User, trip_id: int, version: int, by: int) -> TripRow:
    """Undo (-1) or redo (+1); a step that its kit led to is taken with the kit.

    Raises NotThere, Stale, NothingToUndo, BadDocument.
    """
    row = _fresh(owner, trip_id, version)
    way = led_by_kit(row, by)
    if way:
        stepped(row.kit, way)
        return trip_row(owner, trip_id)
    found = steps.step_at(row, row.steps, by)
    kept = trip_from(found.document)
    _check(row, kept.trip, kept.plan)
    steps.move_to(row, found, kept.trip.name)
    return row


@transaction.atomic
def delete_trip(owner: User, trip_id: int) -> None:
    """Put a trip, with its variants, into the bin; its kit stays. Raises NotThere."""
    throw_away(trip_row(owner, trip_id))


def _fresh(owner: User, trip_id: int, version: int) -> TripRow:
    row = trip_row(owner, trip_id)
    steps.refuse_stale(row, version, lambda: trip_state(row))
    return row


def _check(row: TripRow, trip: Trip, plan: Plan) -> None:
    try:
        check_references(kit_of(row.kit), trip, plan)
    except ValueError as error:
        path, _, why = str(error).partition(": ")
        raise BadDocument((FieldFault(path, why),)) from None
