"""What taking the fitted figures of a camera would change, rehearsed on every trip of its kit."""

from __future__ import annotations

from django.contrib.auth.models import User

from tumbrel.core.bench.effects import Effects, effect_of
from tumbrel.core.bench.look import BenchQuestion
from tumbrel.core.bench.taking import changes, with_learned
from tumbrel.core.rehearsal.outcome import rehearse
from tumbrel.kit.to_core import kit_of
from tumbrel.trips.queries import trips_of_kit
from tumbrel.trips.to_core import document_of, sun_days

from .actions import taken_of, with_camera
from .learning import learned_of
from .queries import notebook_row
from .to_core import camera_and_family, notebook_of


def effects_of(owner: User, kit_id: int, camera: str) -> Effects:
    """Figures of the kit before and after, and each trip's answer. Keeps nothing.

    Raises NotThere.
    """
    row = notebook_row(owner, kit_id)
    kit, notebook = kit_of(row.kit), notebook_of(row)
    now, family = camera_and_family(kit, camera)
    taken = taken_of(notebook, camera)
    question = BenchQuestion(camera=now, family=family, runs=notebook.runs, taken=taken)
    after = with_learned(question.assumed(), learned_of(question))
    found = []
    for trip in trips_of_kit(owner, kit_id):
        document = document_of(trip)
        changed = document.model_copy(update={"kit": with_camera(document.kit, after)})
        old, new = (rehearse(one, sun_days=sun_days) for one in (document, changed))
        found.append(effect_of(trip.pk, document, old, new))
    return Effects(changes=changes(now, after, family), trips=tuple(found))
