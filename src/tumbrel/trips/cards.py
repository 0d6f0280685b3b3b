"""The card of a trip: looked at, taken along, and what comes back from it."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from datetime import UTC, datetime
from pathlib import Path

from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction

from tumbrel.core.card import TripCard, card_of, changes_between
from tumbrel.core.document import BadDocument, FieldFault, PlanDocument
from tumbrel.core.formats.card_out import CardForm, page_parts, write_csv, write_ics, write_page
from tumbrel.working.desks import edit
from tumbrel.working.worker import Gone

from .files import stem_of
from .models import CardMade, CardTick, Trip
from .queries import trip_row
from .rehearsing import told_of
from .schemas import CardState, Tick
from .to_core import document_of

KINDS = {"html": "text/html", "ics": "text/calendar", "csv": "text/csv"}
MOST_KEPT = 5000


def card_text(breathe: Callable[[], None], document: str) -> Iterator[bytes]:
    """The card of a document (as JSON), as JSON."""
    asked = PlanDocument.model_validate_json(document)
    told = told_of(asked, breathe)
    yield card_of(asked, told).model_dump_json().encode("utf-8")


def _card(row: Trip, gone: Gone) -> TripCard:
    text = document_of(row).model_dump_json()
    return TripCard.model_validate_json(edit(card_text, text, gone=gone))


def card_state(owner: User, trip_id: int, gone: Gone) -> CardState:
    """The card as the plan is now, with what was ticked and what changed since it was made."""
    row = trip_row(owner, trip_id)
    card = _card(row, gone)
    made = CardMade.objects.of(owner).filter(trip=row).first()
    changed = changes_between(TripCard.model_validate(made.card), card) if made else ()
    return CardState(
        card=card,
        ticks=ticks_of(row),
        made=made.made_at if made else None,
        changed=list(changed),
    )


def card_file(owner: User, trip_id: int, form: CardForm, gone: Gone) -> tuple[str, bytes, str]:
    """Name, bytes and kind of a card that goes along; it is kept, to tell later what changed."""
    row = trip_row(owner, trip_id)
    card = _card(row, gone)
    made = datetime.now(UTC)
    if form == "html":
        data = write_page(card, made, *page_parts(Path(settings.WEB))).encode("utf-8")
    else:
        data = write_ics(card, made) if form == "ics" else write_csv(card).encode("utf-8")
    _keep_made(owner, row, card, made)
    return f"{stem_of(row)}-card.{form}", data, KINDS[form]


@transaction.atomic
def _keep_made(owner: User, row: Trip, card: TripCard, made: datetime) -> None:
    CardMade.objects.of(owner).filter(trip=row).delete()
    body = card.model_dump(mode="json")
    CardMade.objects.create(owner=owner, trip=row, card=body, made_at=made)


def ticks_of(row: Trip) -> list[Tick]:
    """All ticks of a trip, in order of time."""
    return [
        Tick.model_validate(
            {"id": one.ident, "move": one.move, "kind": one.kind, "at": one.at, "text": one.text}
        )
        for one in row.ticks.all()
    ]


@transaction.atomic
def add_ticks(owner: User, trip_id: int, ticks: Iterable[Tick]) -> list[Tick]:
    """Add what is not there yet; all that are there then. Raises BadDocument on too many."""
    row = trip_row(owner, trip_id)
    known = set(row.ticks.values_list("ident", flat=True))
    fresh = {one.id: one for one in ticks if one.id not in known}
    if len(known) + len(fresh) > MOST_KEPT:
        why = f"a trip keeps up to {MOST_KEPT} ticks; these would be more"
        raise BadDocument((FieldFault("ticks", why),))
    CardTick.objects.of(owner).bulk_create(
        CardTick(
            owner=owner,
            trip=row,
            ident=one.id,
            move=one.move,
            kind=one.kind,
            at=one.at,
            text=one.text,
        )
        for one in fresh.values()
    )
    return ticks_of(row)
