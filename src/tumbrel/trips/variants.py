"""Variants of a trip: kept, made by rule, compared, and thrown away."""

from __future__ import annotations

from collections.abc import Iterator

from django.contrib.auth.models import User
from django.db import transaction

from tumbrel.core.document import BadDocument, FieldFault, PlanDocument
from tumbrel.core.variants import STARTING, Compared, Start, ledger_of, made
from tumbrel.history.refusals import NotThere
from tumbrel.working.desks import heavy
from tumbrel.working.worker import Gone

from .models import Trip, Variant
from .queries import trip_row
from .rehearsing import Breathe, player_of, told_of
from .schemas import VariantCompared, VariantKept, VariantLine
from .to_core import document_of, variant_from, without_ways

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


def made_text(breathe: Breathe, document: str, start: Start) -> Iterator[bytes]:
    """A document changed by the rule of a starting variant, both as JSON."""
    bare = PlanDocument.model_validate_json(document)
    yield made(bare, start, player_of(bare, breathe)).model_dump_json().encode("utf-8")


def make_variant(owner: User, trip_id: int, start: Start, gone: Gone) -> VariantLine:
    """One of the starting set, made from the trip as it is; an older one of its name goes.

    Raises NotThere, BadDocument.
    """
    trip = trip_row(owner, trip_id)
    document = document_of(trip)
    bare = without_ways(document)
    text = b"".join(heavy(made_text, bare.model_dump_json(), start, gone=gone))
    changed = PlanDocument.model_validate_json(text)
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
    return VariantKept(variant=_line(row), document=variant_from(row.document))


def compared(owner: User, trip_id: int, ids: tuple[int, ...], gone: Gone) -> Iterator[bytes]:
    """Up to four states side by side, each rehearsed, as JSON; 0 is the trip as it is now.

    Raises NotThere, BadDocument.
    """
    if not 1 <= len(ids) <= MOST_COMPARED:
        raise BadDocument((FieldFault("of", f"compare one to {MOST_COMPARED} states"),))
    trip = trip_row(owner, trip_id)
    states: list[tuple[str | None, str]] = []
    for number in ids:
        if number == 0:
            states.append((None, without_ways(document_of(trip)).model_dump_json()))
        else:
            row = variant_row(owner, trip_id, number)
            bare = without_ways(variant_from(row.document))
            states.append((_line(row).model_dump_json(), bare.model_dump_json()))
    return heavy(compared_text, tuple(states), gone=gone)


def compared_text(breathe: Breathe, states: tuple[tuple[str | None, str], ...]) -> Iterator[bytes]:
    """States (a variant's line, or none, and a document, as JSON), rehearsed one by one."""
    for line, text in states:
        bare = PlanDocument.model_validate_json(text)
        told = told_of(bare, breathe)
        state = Compared(document=bare, rehearsal=told, ledger=ledger_of(bare, told))
        variant = None if line is None else VariantLine.model_validate_json(line)
        yield VariantCompared(variant=variant, state=state).model_dump_json().encode("utf-8")


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
