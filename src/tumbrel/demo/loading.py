"""The demo trips that ship with the application."""

from __future__ import annotations

from pathlib import Path

from django.contrib.auth.models import User
from django.db import transaction

from tumbrel.bench.queries import notebook_row
from tumbrel.core.bench.notebook import Notebook
from tumbrel.core.document import PlanDocument, read_document
from tumbrel.core.formats.runs_table import read_runs
from tumbrel.kit.models import Kit
from tumbrel.kit.to_core import kit_of

from ..trips.files import kit_name, open_plan_file
from ..trips.models import Trip

DEMOS = Path(__file__).resolve().parents[1] / "demo"
MAIN = "ostrel-crossing.json"


@transaction.atomic  # two that ask at once load each demo once
def load_demos(owner: User, *, reset: bool = False) -> tuple[Trip, list[PlanDocument]]:
    """Open each demo that the owner lacks; returns the main one and those opened.

    With `reset` the owner's demo trips are first deleted, and their kits where no other trip
    uses them.
    """
    opened: list[PlanDocument] = []
    main: Trip | None = None
    for path in sorted(DEMOS.glob("*.json"), key=lambda one: (one.name != MAIN, one.name)):
        text = path.read_bytes()
        document = read_document(text)
        mine = Trip.objects.of(owner).filter(name=document.trip.name)
        if reset:
            mine.delete()
            name = kit_name(document.trip.name)
            Kit.objects.of(owner).filter(name=name, trips__isnull=True).delete()
        found = mine.first()
        if found is None:
            found = open_plan_file(owner, text)
            _begin_notebook(owner, found, path.with_suffix(".runs.csv"))
            opened.append(document)
        if path.name == MAIN:
            main = found
    assert main is not None
    return main, opened


def _begin_notebook(owner: User, trip: Trip, path: Path) -> None:
    """A notebook of the bench runs that ship with a demo's kit, unless it has one."""
    if path.exists():
        runs = read_runs(path.read_text(encoding="utf-8"), kit_of(trip.kit).cameras).runs
        notebook_row(owner, trip.kit.pk, Notebook(runs=runs))
