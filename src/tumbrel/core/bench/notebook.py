"""The bench notebook of a kit: runs done, tests that run now, figures taken into the kit.

Source: model/learning#fit.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AwareDatetime, Field, model_validator

from ..document import BatteryFamily, Camera
from ..document.base import Celsius, Key, Part
from ..document.kit import FeatureName
from ..document.references import refuse_repeats
from .runs import BenchRun


class Pause(Part):
    """Charging paused, as the camera's lamp or screen told; without `until` it still does."""

    since: AwareDatetime
    until: AwareDatetime | None = None

    @model_validator(mode="after")
    def _forward(self) -> Pause:
        if self.until is not None and self.until < self.since:
            raise ValueError("a pause of charging ends before it begins")
        return self


class RunningTest(Part):
    """A test whose clock runs: kept by instants, so that it goes on while nobody looks."""

    id: Key
    camera: Key
    set_up: Key
    mode: Key
    features: tuple[FeatureName, ...] = ()
    ambient_c: Celsius
    air_mps: Annotated[float, Field(ge=0.0, le=60.0)] = 0.0
    plugged: bool = False
    charge_start: Annotated[float, Field(gt=0.0, le=1.0)] = 1.0
    firmware: Annotated[str, Field(max_length=40)] = ""
    started_at: AwareDatetime
    warned_at: AwareDatetime | None = None
    pauses: Annotated[tuple[Pause, ...], Field(max_length=200)] = ()
    device: Literal["by_hand", "simulated"] = Field(
        default="by_hand", description="Watched by a person, or the simulated camera."
    )
    speed: Annotated[int, Field(ge=1, le=600)] = Field(
        default=1, description="Minutes of the test for each minute of the clock (simulated only)."
    )

    @model_validator(mode="after")
    def _real_time_by_hand(self) -> RunningTest:
        if self.device == "by_hand" and self.speed != 1:
            raise ValueError("only the simulated camera runs faster than the clock")
        return self


class Taken(Part):
    """Figures of a camera that were taken into the kit, and what stood there before.

    Of its battery family too, where the runs taught any.
    """

    camera: Key
    at: AwareDatetime
    before: Camera
    after: Camera
    family_before: BatteryFamily | None = None
    family_after: BatteryFamily | None = None


class Notebook(Part):
    """Everything kept of the bench for one kit."""

    runs: Annotated[tuple[BenchRun, ...], Field(max_length=600)] = ()
    running: Annotated[tuple[RunningTest, ...], Field(max_length=8)] = ()
    taken: Annotated[tuple[Taken, ...], Field(max_length=8)] = ()

    @model_validator(mode="after")
    def _said_once(self) -> Notebook:
        refuse_repeats("bench run", [r.id for r in self.runs] + [t.id for t in self.running])
        refuse_repeats("running test of camera", (t.camera for t in self.running))
        refuse_repeats("taken figures of camera", (t.camera for t in self.taken))
        return self
