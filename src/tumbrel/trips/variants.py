"""Variants of a trip: kept, made by rule, compared, and thrown away."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction

from tumbrel.core.document import BadDocument, FieldFault, PlanDocument
from tumbrel.core.parameters import DEFAULTS
from tumbrel.core.rehearsal.checkpoints import play_from
from tumbrel.core.rehearsal.outcome import tell
from tumbrel.core.variants import STARTING, Compared, Start, ledger_of, made
from tumbrel.keeping.refusals import NotThere

from .models import Trip, Variant
from .queries import trip_row
from .rehearsing import rehearser_of
from .schemas import VariantCompared, VariantKept, VariantLine
from .to_core import document_of, sun_days, without_ways

MOST_VARIANTS = 40
MOST_COMPARED = 4
LONGEST_NAME = 60


def variant_lines(owner: User, trip_id: int) -> list[VariantLine]:
    """All variants of a trip, the oldest first. Raises NotThere."""
    trip = trip_row(owner, trip_id)
    return [_line(row) for row in Variant.objects.of(owner).filter(trip=trip)]


@transaction.atomic
def keep_variant(owner: User, trip_id: int, name: str, words: str = "") -> VariantLine:
    """The trip as it is kept now, under a name. Raises NotThere, BadDocument."""
    trip = trip_row(owner, trip_id)
    return _keep(trip, name.strip(), words, document_of(trip))


def make_variant(owner: User, trip_id: int, start: Start) -> VariantLine:
    """One of the starting set, made from the trip as it is; an older one of its name goes.

    Raises NotThere, BadDocument.
    """
    trip = trip_row(owner, trip_id)
    document = document_of(trip)
    bare = without_ways(document)
    changed = made(bare, start, rehearser_of(bare))
    whole = document.model_copy(update={"kit": changed.kit, "plan": changed.plan})
    name, words = STARTING[start]
    with transaction.atomic():
        Variant.objects.of(owner).filter(trip=trip, name=name).delete()
        return _keep(trip, name, words, whole)


@transaction.atomic
def rename_variant(owner: User, trip_id: int, variant_id: int, name: str) -> VariantLine:
    """Give a variant another name. Raises NotThere, BadDocument."""
    row = variant_row(owner, trip_id, variant_id)
    _refuse_name(row.trip, name.strip(), row)
    row.name = name.strip()
    row.save()
    return _line(row)


@transaction.atomic
def delete_variant(owner: User, trip_id: int, variant_id: int) -> None:
    """Throw a variant away. Raises NotThere."""
    variant_row(owner, trip_id, variant_id).delete()


def variant_row(owner: User, trip_id: int, variant_id: int) -> Variant:
    """One variant of a trip. Raises NotThere."""
    row = Variant.objects.of(owner).filter(pk=variant_id, trip_id=trip_id).first()
    if not isinstance(row, Variant):
        raise NotThere("variant")
    return row


def variant_kept(owner: User, trip_id: int, variant_id: int) -> VariantKept:
    """A variant with its whole document. Raises NotThere."""
    row = variant_row(owner, trip_id, variant_id)
    return VariantKept(variant=_line(row), document=PlanDocument.model_validate(row.document))


def compared(owner: User, trip_id: int, ids: tuple[int, ...]) -> list[VariantCompared]:
    """Up to four states side by side, each rehearsed; 0 is the trip as it is now.

    Raises NotThere, BadDocument.
    """
    if not 1 <= len(ids) <= MOST_COMPARED:
        raise BadDocument((FieldFault("of", f"compare one to {MOST_COMPARED} states"),))
    trip = trip_row(owner, trip_id)
    lines = []
    for number in ids:
        if number == 0:
            lines.append(_compared(None, document_of(trip)))
        else:
            row = variant_row(owner, trip_id, number)
            lines.append(_compared(_line(row), PlanDocument.model_validate(row.document)))
    return lines


def _compared(line: VariantLine | None, document: PlanDocument) -> VariantCompared:
    bare = without_ways(document)
    played, _ = play_from(bare, None, DEFAULTS, sun_days)
    told = tell(played, DEFAULTS)
    state = Compared(document=bare, rehearsal=told, ledger=ledger_of(bare, told))
    return VariantCompared(variant=line, state=state)


def _keep(trip: Trip, name: str, words: str, document: PlanDocument) -> VariantLine:
    _refuse_name(trip, name, None)
    if trip.variants.count() >= MOST_VARIANTS:
        why = f"a trip keeps up to {MOST_VARIANTS} variants; delete one first"
        raise BadDocument((FieldFault("name", why),))
    body = document.model_dump(mode="json")
    owner = trip.owner
    row = Variant.objects.create(owner=owner, trip=trip, name=name, words=words, document=body)
    return _line(row)


def _refuse_name(trip: Trip, name: str, row: Variant | None) -> None:
    if not name or len(name) > LONGEST_NAME:
        why = f"give it a name of up to {LONGEST_NAME} characters"
        raise BadDocument((FieldFault("name", why),))
    others = trip.variants.filter(name=name)
    if row is not None:
        others = others.exclude(pk=row.pk)
    if others.exists():
        why = f"a variant '{name}' is kept already; choose another name"
        raise BadDocument((FieldFault("name", why),))


def _line(row: Variant) -> VariantLine:
    return VariantLine(id=row.pk, name=row.name, words=row.words, made_at=row.made_at)
