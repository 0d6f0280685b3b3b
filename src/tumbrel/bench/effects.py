"""What taking the fitted figures of a camera would change, rehearsed on every trip of its kit."""

from __future__ import annotations

from django.contrib.auth.models import User

from tumbrel.core.bench.effects import Effects, effect_of
from tumbrel.core.bench.taking import changes, with_learned
from tumbrel.core.rehearsal.outcome import rehearse
from tumbrel.trips.queries import trips_of_kit
from tumbrel.trips.to_core import document_of, sun_days

from .actions import with_camera
from .learning import learned_of
from .queries import notebook_row
from .to_core import question_of


def effects_of(owner: User, kit_id: int, camera: str) -> Effects:
    """Figures of the kit before and after, and each trip's answer. Keeps nothing.

    Raises NotThere.
    """
    row = notebook_row(owner, kit_id)
    question = question_of(row, camera)
    after = with_learned(question.assumed(), learned_of(question))
    found = []
    for trip in trips_of_kit(owner, kit_id):
        document = document_of(trip)
        changed = document.model_copy(update={"kit": with_camera(document.kit, after)})
        old, new = (rehearse(one, sun_days=sun_days) for one in (document, changed))
        found.append(effect_of(trip.pk, document, old, new))
    return Effects(changes=changes(question.camera, after, question.family), trips=tuple(found))
