"""What the API takes and gives for the bench."""

from __future__ import annotations

from typing import Annotated

from ninja import Schema
from pydantic import Field

from tumbrel.core.bench.notebook import Notebook
from tumbrel.core.bench.runs import RunEnd
from tumbrel.history.steps import Ways
from tumbrel.kit.schemas import KitState

MOST_TEXT = 8_000_000


class NotebookState(Ways):
    """A notebook as it is kept."""

    kit_id: int
    version: int
    notebook: Notebook


class NotebookSave(Schema):
    """A notebook to keep."""

    version: int
    notebook: Notebook


class NotebookStepAsked(Schema):
    """A step back or forward, from a version."""

    version: int


class RunsText(Schema):
    """A pasted table or CSV file of runs; `camera` where no column names one."""

    text: Annotated[str, Field(max_length=MOST_TEXT)]
    camera: str | None = None


class MeterText(Schema):
    """A power meter's log."""

    text: Annotated[str, Field(max_length=MOST_TEXT)]


class OfCamera(Schema):
    """A camera of the kit."""

    camera: str


class TakeAsked(Schema):
    """Take fitted figures of a camera into the kit, or put back those that were taken."""

    camera: str
    version: int
    kit_version: int


class TakenState(Schema):
    """Kit and notebook after figures went from one to the other."""

    kit: KitState
    bench: NotebookState


class Reading(Schema):
    """What a device shows: minutes recorded, battery, warning, room, and why it stopped."""

    minutes: float
    battery: float
    warns: bool
    warned_min: float | None
    used_bytes: int
    free_bytes: int
    recording: bool
    end: RunEnd | None
