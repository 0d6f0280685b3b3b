"""The plan: which camera records what on which leg, and how batteries are swapped."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from .base import Key, Part
from .kit import FeatureName
from .references import refuse_repeats

Importance = Literal["must", "want", "nice"]
Angle = Literal["sight", "hands", "face", "shoulder", "behind", "ground", "under_water", "camp"]
Between = Literal["off", "standby", "on"]
SwapPolicy = Literal["early", "run_flat"]
MOST_TAKES = 2000


class Roll(Part):
    """Record from start to end."""

    kind: Literal["roll"] = "roll"


class Takes(Part):
    """Short takes spread evenly: a count, or so many an hour (E7)."""

    kind: Literal["takes"] = "takes"
    seconds: Annotated[int, Field(ge=1, le=86_400)]
    count: Annotated[int, Field(ge=1, le=MOST_TAKES)] | None = None
    per_hour: Annotated[float, Field(gt=0.0, le=240.0)] | None = None

    @model_validator(mode="after")
    def _one_way_of_counting(self) -> Takes:
        if (self.count is None) == (self.per_hour is None):
            raise ValueError("give either count or per_hour, not both and not neither")
        return self


Pattern = Annotated[Roll | Takes, Field(discriminator="kind")]


class Assignment(Part):
    """One camera on one leg or stop."""

    camera: Key
    item: Key = Field(description="The leg or stop.")
    mode: Key
    set_up: Key
    features: tuple[FeatureName, ...] = ()
    pattern: Pattern = Roll()
    importance: Importance = "want"
    angle: Angle | None = None


class CameraPlan(Part):
    """What a camera starts with, and what it does between assignments."""

    camera: Key
    battery: Key | None = None
    card: Key | None = None
    angle: Angle = "sight"
    between: Between = "off"
    radio_left_on: bool = False


class ManualSwap(Part):
    """A swap the person decided. Without a battery: leave the one in at this stop."""

    camera: Key
    item: Key
    battery: Key | None = None


class Plan(Part):
    """All decisions of one trip."""

    cameras: tuple[CameraPlan, ...] = ()
    assignments: Annotated[tuple[Assignment, ...], Field(max_length=8000)] = ()
    swaps: Annotated[tuple[ManualSwap, ...], Field(max_length=2000)] = ()
    swap_policy: SwapPolicy = "early"

    @model_validator(mode="after")
    def _said_once(self) -> Plan:
        refuse_repeats("camera plan", (c.camera for c in self.cameras))
        refuse_repeats("assignment", (f"{a.camera} on {a.item}" for a in self.assignments))
        refuse_repeats("manual swap", (f"{s.camera} at {s.item}" for s in self.swaps))
        refuse_repeats("battery fitted", (c.battery for c in self.cameras if c.battery))
        refuse_repeats("card fitted", (c.card for c in self.cameras if c.card))
        return self
