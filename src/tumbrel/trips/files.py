"""Plan files in and out."""

from __future__ import annotations

import re

from django.contrib.auth.models import User
from django.db import transaction

from tumbrel.core.document import read_document, write_document
from tumbrel.core.rehearsal.trip.timeline import lay_out
from tumbrel.kit.actions import find_same, make_kit

from .actions import keep_new
from .models import Trip
from .to_core import document_of, sun_days


def kit_name(trip: str) -> str:
    """What the kit of an opened trip is called."""
    return f"Kit of {trip}"[:60]


@transaction.atomic
def open_plan_file(owner: User, text: bytes) -> Trip:
    """A new trip (and its kit, unless the same one is there) from a file. Raises BadDocument.

    Nothing is kept when anything in the file is wrong.
    """
    document = read_document(text)
    lay_out(document.trip, sun_days)
    name = kit_name(document.trip.name)
    kit = find_same(owner, name, document.kit) or make_kit(owner, name, document.kit)
    return keep_new(owner, kit.pk, document.trip, document.plan)


def stem_of(row: Trip) -> str:
    """A trip's name as the beginning of a file's."""
    return re.sub(r"[^a-z0-9]+", "-", row.name.lower()).strip("-") or "trip"


def plan_file(row: Trip) -> tuple[str, str]:
    """Name and text of a trip's plan file."""
    return f"{stem_of(row)}.tumbrel.json", write_document(document_of(row))
