"""Changes of trips: check, transaction, record, return."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction

from tumbrel.core.document import (
    BadDocument,
    FieldFault,
    Kit,
    Plan,
    Trip,
    check_references,
)
from tumbrel.core.document.units import without_missing
from tumbrel.keeping import steps
from tumbrel.keeping.bin import throw_away
from tumbrel.keeping.refusals import Stale

from .models import Trip as TripRow
from .queries import trip_row, trip_state
from .to_core import TripAndPlan, trip_and_plan


@transaction.atomic
def keep_new(owner: User, kit_id: int, trip: Trip, plan: Plan) -> TripRow:
    """A new trip from a document's trip and plan."""
    body = TripAndPlan(trip=trip, plan=plan).model_dump(mode="json")
    row = TripRow.objects.create(owner=owner, kit_id=kit_id, name=trip.name, document=body)
    steps.begin(row, row.steps)
    return trip_row(owner, row.pk)


@transaction.atomic
def save_trip(owner: User, trip_id: int, version: int, trip: Trip, plan: Plan) -> TripRow:
    """Keep a trip. Raises NotThere, Stale, or BadDocument when the plan names what is not there."""
    row = _fresh(owner, trip_id, version)
    _check(row, trip, plan)
    body = TripAndPlan(trip=trip, plan=plan).model_dump(mode="json")
    steps.record(row, row.steps, body, trip.name)
    return row


@transaction.atomic
def step_trip(owner: User, trip_id: int, version: int, by: int) -> TripRow:
    """Undo (-1) or redo (+1). Raises NotThere, Stale, NothingToUndo, BadDocument."""
    row = _fresh(owner, trip_id, version)
    found = steps.step_at(row, row.steps, by)
    kept = TripAndPlan.model_validate(found.document)
    _check(row, kept.trip, kept.plan)
    steps.move_to(row, found, kept.trip.name)
    return row


@transaction.atomic
def delete_trip(owner: User, trip_id: int) -> None:
    """Put a trip, with its variants, into the bin; its kit stays. Raises NotThere."""
    throw_away(trip_row(owner, trip_id))


def release_units(row: TripRow, kit: Kit) -> None:
    """Take out of a trip's plan what names units that a kit no longer has; a step of its own."""
    kept = trip_and_plan(row)
    after = TripAndPlan(trip=kept.trip, plan=without_missing(kept.plan, kit))
    steps.record(row, row.steps, after.model_dump(mode="json"), row.name)


def _fresh(owner: User, trip_id: int, version: int) -> TripRow:
    row = trip_row(owner, trip_id)
    if row.version != version:
        raise Stale(trip_state(row), f"{row.saved_at:%H:%M:%S} UTC")
    return row


def _check(row: TripRow, trip: Trip, plan: Plan) -> None:
    try:
        check_references(Kit.model_validate(row.kit.document), trip, plan)
    except ValueError as error:
        path, _, why = str(error).partition(": ")
        raise BadDocument((FieldFault(path, why),)) from None
