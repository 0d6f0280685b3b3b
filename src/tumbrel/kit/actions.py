"""Changes of kits: check, transaction, record, return."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction

from tumbrel.core.document import BadDocument
from tumbrel.core.document import Kit as KitDocument
from tumbrel.core.mistakes import mistakes_of
from tumbrel.history import steps
from tumbrel.history.bin import throw_away
from tumbrel.history.models import Step
from tumbrel.history.refusals import InUse

from .models import Kit
from .queries import kit_row, kit_state
from .to_core import as_kept, kit_of
from .uses import Followed, Move, users


@transaction.atomic
def make_kit(owner: User, name: str, document: KitDocument | None = None) -> Kit:
    """A new kit."""
    body = as_kept(document or KitDocument())
    row = Kit.objects.create(owner=owner, name=name.strip()[:60] or "Kit", document=body)
    steps.begin(row, row.steps)
    return row


@transaction.atomic
def save_kit(
    owner: User, kit_id: int, version: int, name: str, document: KitDocument
) -> tuple[Kit, Followed]:
    """Keep a kit; what names units that go, goes along. Raises NotThere, Stale."""
    row = _fresh(owner, kit_id, version)
    _refuse_mistakes(document, kit_of(row))
    left = steps.step_now(row, row.steps)
    reached = steps.record(row, row.steps, as_kept(document), name.strip()[:60] or row.name)
    return row, _followed(row, left, reached)


@transaction.atomic
def step_kit(owner: User, kit_id: int, version: int, by: int) -> tuple[Kit, Followed]:
    """Undo (-1) or redo (+1), with what went along. Raises NotThere, Stale, NothingToUndo."""
    row = _fresh(owner, kit_id, version)
    return row, stepped(row, by)


def stepped(row: Kit, by: int) -> Followed:
    """A kit's step back or forward, whatever its version; in a transaction."""
    left = steps.step_now(row, row.steps)
    reached = steps.step_at(row, row.steps, by)
    steps.move_to(row, reached, row.name)
    return _followed(row, left, reached)


@transaction.atomic
def delete_kit(owner: User, kit_id: int) -> None:
    """Put a kit that no trip uses into the bin. Raises NotThere, InUse."""
    row = kit_row(owner, kit_id)
    trips = users().by_kit(owner).get(kit_id)
    if trips:
        raise InUse(f"Kit {row.name}", tuple(trips))
    throw_away(row)


def find_same(owner: User, name: str, document: KitDocument) -> Kit | None:
    """A kit of the owner with the same name and contents."""
    for row in Kit.objects.of(owner).filter(name=name):
        if isinstance(row, Kit) and kit_of(row) == document:
            return row
    return None


def _followed(row: Kit, left: Step, reached: Step) -> Followed:
    return users().follow(row.owner, row.pk, Move(left, reached))


def _refuse_mistakes(document: KitDocument, was: KitDocument) -> None:
    """Refuse figures that only a mistake makes, but for those that a kept kit holds already."""
    known = {one.known_by for one in mistakes_of(was)}
    fresh = tuple(one.fault for one in mistakes_of(document) if one.known_by not in known)
    if fresh:
        raise BadDocument(fresh)


def _fresh(owner: User, kit_id: int, version: int) -> Kit:
    row = kit_row(owner, kit_id)
    steps.refuse_stale(row, version, lambda: kit_state(row))
    return row
