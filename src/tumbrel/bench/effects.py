"""What taking the fitted figures of a camera would change, rehearsed on every trip of its kit."""

from __future__ import annotations

from collections.abc import Iterator

from django.contrib.auth.models import User

from tumbrel.core.bench.effects import Effects, TripEffect, effect_of
from tumbrel.core.bench.taking import (
    changes,
    family_changes,
    family_with_learned,
    with_learned,
)
from tumbrel.core.document import PlanDocument
from tumbrel.kit.to_core import kit_of
from tumbrel.trips.queries import trips_of_kit
from tumbrel.trips.rehearsing import Breathe, rehearse_again
from tumbrel.trips.to_core import on_kit, without_ways
from tumbrel.working.desks import heavy
from tumbrel.working.worker import Gone

from .actions import with_figures
from .learning import learned_of
from .queries import notebook_seen
from .to_core import question_of


def effects_of(owner: User, kit_id: int, camera: str, gone: Gone) -> Effects:
    """Figures of the kit before and after, and each trip's answer. Keeps nothing.

    Raises NotThere.
    """
    row = notebook_seen(owner, kit_id)
    question = question_of(row, camera)
    learned = learned_of(question)
    after = with_learned(question.assumed(), learned)
    family = family_with_learned(question.assumed_family(), learned)
    found = []
    kit = kit_of(row.kit)
    for trip in trips_of_kit(owner, kit_id):
        document = without_ways(on_kit(trip, kit))
        changed = document.model_copy(update={"kit": with_figures(document.kit, after, family)})
        before, after_it = (one.model_dump_json() for one in (document, changed))
        text = b"".join(heavy(effect_text, trip.pk, before, after_it, gone=gone))
        found.append(TripEffect.model_validate_json(text))
    told = (
        *changes(question.camera, after, question.family),
        *family_changes(question.family, family),
    )
    return Effects(changes=told, trips=tuple(found))


def effect_text(breathe: Breathe, trip: int, before: str, after: str) -> Iterator[bytes]:
    """What a changed kit does to one trip: documents before and after, and the effect, as JSON."""
    document = PlanDocument.model_validate_json(before)
    old = rehearse_again(breathe, document)
    new = rehearse_again(breathe, PlanDocument.model_validate_json(after))
    yield effect_of(trip, document, old, new).model_dump_json().encode("utf-8")
