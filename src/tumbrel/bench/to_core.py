"""The only door from notebook rows to the core."""

from __future__ import annotations

from tumbrel.core.bench.notebook import Notebook
from tumbrel.core.document import BatteryFamily, Camera, Kit
from tumbrel.keeping.refusals import NotThere

from .models import BenchNotebook


def notebook_of(row: BenchNotebook) -> Notebook:
    """The notebook of a row."""
    return Notebook.model_validate(row.document)


def camera_and_family(kit: Kit, camera: str) -> tuple[Camera, BatteryFamily]:
    """A camera of a kit with its battery family. Raises NotThere."""
    found = next((one for one in kit.cameras if one.id == camera), None)
    if found is None:
        raise NotThere("camera")
    return found, next(one for one in kit.families if one.id == found.battery_family)
