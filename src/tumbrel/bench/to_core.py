"""The only door from notebook rows to the core."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from tumbrel.core.bench.notebook import Notebook, Taken
from tumbrel.core.bench.predict import BenchQuestion
from tumbrel.core.document import BatteryFamily, Camera, Kit
from tumbrel.core.document.versions import brought_up, numbered
from tumbrel.history.refusals import NotThere
from tumbrel.kit.to_core import kit_of

from .models import BenchNotebook


def notebook_of(row: BenchNotebook) -> Notebook:
    """The notebook of a row."""
    return notebook_from(row.document)


def notebook_from(kept: Mapping[str, Any]) -> Notebook:
    """The notebook of a row or step, whatever schema it was kept in."""
    return Notebook.model_validate(brought_up(kept, "notebook"))


def as_kept(notebook: Notebook) -> dict[str, Any]:
    """A notebook as a row keeps it."""
    return numbered(notebook.model_dump(mode="json"))


def camera_and_family(kit: Kit, camera: str) -> tuple[Camera, BatteryFamily]:
    """A camera of a kit with its battery family. Raises NotThere."""
    found = next((one for one in kit.cameras if one.id == camera), None)
    if found is None:
        raise NotThere("camera")
    return found, next(one for one in kit.families if one.id == found.battery_family)


def taken_of(notebook: Notebook, camera: str) -> Taken | None:
    """The figures of a camera that are in the kit from the bench."""
    return next((one for one in notebook.taken if one.camera == camera), None)


def question_of(row: BenchNotebook, camera: str) -> BenchQuestion:
    """A camera as it is in the kit now, with all its runs. Raises NotThere."""
    now, family = camera_and_family(kit_of(row.kit), camera)
    notebook = notebook_of(row)
    taken = taken_of(notebook, camera)
    return BenchQuestion(camera=now, family=family, runs=notebook.runs, taken=taken)
