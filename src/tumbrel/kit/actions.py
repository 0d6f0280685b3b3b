"""Changes of kits: check, transaction, record, return."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction

from tumbrel.core.document import BadDocument
from tumbrel.core.document import Kit as KitDocument
from tumbrel.core.mistakes import mistakes_of
from tumbrel.keeping import steps
from tumbrel.keeping.bin import throw_away
from tumbrel.keeping.refusals import InUse, Stale
from tumbrel.trips.actions import release_units
from tumbrel.trips.queries import trips_of_kit
from tumbrel.trips.uses import broken_by

from .models import Kit
from .queries import kit_row, kit_state
from .to_core import kit_of


@transaction.atomic
def make_kit(owner: User, name: str, document: KitDocument | None = None) -> Kit:
    """A new kit."""
    body = (document or KitDocument()).model_dump(mode="json")
    row = Kit.objects.create(owner=owner, name=name.strip()[:60] or "Kit", document=body)
    steps.begin(row, row.steps)
    return row


@transaction.atomic
def save_kit(
    owner: User, kit_id: int, version: int, name: str, document: KitDocument, *, release: bool
) -> Kit:
    """Keep a kit. Raises NotThere, Stale, or InUse when trips use what goes."""
    row = _fresh(owner, kit_id, version)
    _refuse_mistakes(document, kit_of(row))
    _let_go(owner, row, document, release=release)
    steps.record(row, row.steps, document.model_dump(mode="json"), name.strip()[:60] or row.name)
    return row


@transaction.atomic
def step_kit(owner: User, kit_id: int, version: int, by: int, *, release: bool) -> Kit:
    """Undo (-1) or redo (+1). Raises NotThere, Stale, NothingToUndo, InUse."""
    row = _fresh(owner, kit_id, version)
    found = steps.step_at(row, row.steps, by)
    _let_go(owner, row, KitDocument.model_validate(found.document), release=release)
    steps.move_to(row, found, row.name)
    return row


@transaction.atomic
def delete_kit(owner: User, kit_id: int) -> None:
    """Put a kit that no trip uses into the bin. Raises NotThere, InUse."""
    row = kit_row(owner, kit_id)
    trips = trips_of_kit(owner, kit_id)
    if trips:
        raise InUse(f"Kit {row.name}", tuple(trip.name for trip in trips))
    throw_away(row)


def find_same(owner: User, name: str, document: KitDocument) -> Kit | None:
    """A kit of the owner with the same name and contents."""
    for row in Kit.objects.of(owner).filter(name=name):
        if isinstance(row, Kit) and kit_of(row) == document:
            return row
    return None


def _refuse_mistakes(document: KitDocument, was: KitDocument) -> None:
    """Refuse figures that only a mistake makes, but for those that a kept kit holds already."""
    known = {one.known_by for one in mistakes_of(was)}
    fresh = tuple(one.fault for one in mistakes_of(document) if one.known_by not in known)
    if fresh:
        raise BadDocument(fresh)


def _fresh(owner: User, kit_id: int, version: int) -> Kit:
    row = kit_row(owner, kit_id)
    if row.version != version:
        raise Stale(kit_state(row), f"{row.saved_at:%H:%M:%S} UTC")
    return row


def _let_go(owner: User, row: Kit, document: KitDocument, *, release: bool) -> None:
    """Take units that go out of the trips that name them, or refuse."""
    broken = broken_by(document, trips_of_kit(owner, row.pk))
    if not broken:
        return
    if not release:
        units = sorted({unit for use in broken for unit in use.units})
        raise InUse(", ".join(units), tuple(use.trip.name for use in broken))
    for use in broken:
        release_units(use.trip, document)
