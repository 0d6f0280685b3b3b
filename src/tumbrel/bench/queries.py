"""Reading notebooks, always in an owner's scope."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction

from tumbrel.core.bench.notebook import Notebook
from tumbrel.history import steps
from tumbrel.kit.models import Kit
from tumbrel.kit.queries import kit_row

from .models import BenchNotebook
from .schemas import NotebookState
from .to_core import as_kept, notebook_of


@transaction.atomic
def notebook_row(owner: User, kit_id: int, first: Notebook | None = None) -> BenchNotebook:
    """The notebook of a kit; made from `first`, else empty, when there is none. Raises NotThere."""
    kit = kit_row(owner, kit_id)
    row = BenchNotebook.objects.of(owner).select_related("kit").filter(kit=kit).first()
    if isinstance(row, BenchNotebook):
        return row
    row = _empty(owner, kit, first or Notebook())
    row.save()
    steps.begin(row, row.steps)
    return row


def notebook_seen(owner: User, kit_id: int) -> BenchNotebook:
    """The notebook of a kit to look at: an empty one that is kept nowhere when there is none.

    Raises NotThere.
    """
    kit = kit_row(owner, kit_id)
    row = BenchNotebook.objects.of(owner).select_related("kit").filter(kit=kit).first()
    return row if isinstance(row, BenchNotebook) else _empty(owner, kit, Notebook())


def _empty(owner: User, kit: Kit, first: Notebook) -> BenchNotebook:
    return BenchNotebook(owner=owner, kit=kit, name=kit.name, document=as_kept(first))


def notebook_state(row: BenchNotebook) -> NotebookState:
    """A notebook as the page gets it."""
    ways = steps.ways_from(row, row.steps) if row.pk else steps.NO_WAY
    return NotebookState(
        kit_id=row.kit.pk,
        version=row.version,
        notebook=notebook_of(row),
        **ways.model_dump(),
    )
