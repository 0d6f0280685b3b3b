"""Changes of the bench: check, transaction, record, return."""

from __future__ import annotations

from datetime import datetime

from django.contrib.auth.models import User
from django.db import transaction

from tumbrel.core.bench.notebook import Notebook, Taken
from tumbrel.core.bench.taking import family_with_learned, with_learned
from tumbrel.core.document import BadDocument, BatteryFamily, Camera, FieldFault, Kit
from tumbrel.history import steps
from tumbrel.history.refusals import NotThere
from tumbrel.kit.actions import save_kit
from tumbrel.kit.models import Kit as KitRow
from tumbrel.kit.to_core import kit_of

from .learning import learned_of
from .models import BenchNotebook
from .queries import notebook_row, notebook_state
from .to_core import as_kept, notebook_from, notebook_of, question_of


@transaction.atomic
def save_notebook(owner: User, kit_id: int, version: int, notebook: Notebook) -> BenchNotebook:
    """Keep a notebook. Raises NotThere, Stale."""
    row = _fresh(owner, kit_id, version)
    _record(row, notebook)
    return row


@transaction.atomic
def step_notebook(owner: User, kit_id: int, version: int, by: int) -> BenchNotebook:
    """Undo (-1) or redo (+1) of runs and tests. Raises NotThere, Stale, NothingToUndo.

    What is said to be in the kit from here stays said: the kit has steps of its own.
    """
    row = _fresh(owner, kit_id, version)
    found = steps.step_at(row, row.steps, by)
    there = notebook_from(found.document)
    found.document = as_kept(_revised(there, {"taken": notebook_of(row).taken}))
    found.save()
    steps.move_to(row, found, row.name)
    return row


@transaction.atomic
def take_figures(
    owner: User, kit_id: int, version: int, kit_version: int, camera: str, at: datetime
) -> tuple[KitRow, BenchNotebook]:
    """Put what the runs taught of a camera into the kit: one step there.

    Raises NotThere, Stale (of either), BadDocument when the runs taught nothing.
    """
    row = _fresh(owner, kit_id, version)
    question = question_of(row, camera)
    before, family = question.assumed(), question.assumed_family()
    learned = learned_of(question)
    after, family_after = with_learned(before, learned), family_with_learned(family, learned)
    if (after, family_after) == (before, family):
        why = "no run has taught a figure of this camera yet"
        raise BadDocument((FieldFault("camera", why),))
    saved = _save_figures(owner, row, kit_version, after, family_after)
    taken = Taken(
        camera=camera,
        at=at,
        before=before,
        after=after,
        family_before=family,
        family_after=family_after,
    )
    _say_taken(row, camera, taken)
    return saved, row


@transaction.atomic
def put_back_figures(
    owner: User, kit_id: int, version: int, kit_version: int, camera: str
) -> tuple[KitRow, BenchNotebook]:
    """Put figures of a camera back as they were before they were taken from the bench.

    Raises NotThere, Stale (of either).
    """
    row = _fresh(owner, kit_id, version)
    question = question_of(row, camera)
    if question.taken is None:
        raise NotThere("figure taken from the bench")
    camera_before, family_before = question.assumed(), question.assumed_family()
    saved = _save_figures(owner, row, kit_version, camera_before, family_before)
    _say_taken(row, camera, None)
    return saved, row


def with_figures(kit: Kit, camera: Camera, family: BatteryFamily) -> Kit:
    """The kit with one camera and its battery family in another state."""
    cameras = tuple(camera if one.id == camera.id else one for one in kit.cameras)
    families = tuple(family if one.id == family.id else one for one in kit.families)
    return kit.model_copy(update={"cameras": cameras, "families": families})


def _save_figures(
    owner: User, row: BenchNotebook, version: int, camera: Camera, family: BatteryFamily
) -> KitRow:
    changed = with_figures(kit_of(row.kit), camera, family)
    kept, _ = save_kit(owner, row.kit.pk, version, row.kit.name, changed)
    return kept


def _revised(notebook: Notebook, update: dict[str, object]) -> Notebook:
    return Notebook.model_validate(notebook.model_copy(update=update).model_dump())


def _say_taken(row: BenchNotebook, camera: str, mine: Taken | None) -> None:
    notebook = notebook_of(row)
    others = tuple(one for one in notebook.taken if one.camera != camera)
    now = _revised(notebook, {"taken": (*others, mine) if mine else others})
    steps.amend(row, row.steps, as_kept(now))


def _record(row: BenchNotebook, notebook: Notebook) -> None:
    steps.record(row, row.steps, as_kept(notebook), row.kit.name)


def _fresh(owner: User, kit_id: int, version: int) -> BenchNotebook:
    row = notebook_row(owner, kit_id)
    steps.refuse_stale(row, version, lambda: notebook_state(row))
    return row
