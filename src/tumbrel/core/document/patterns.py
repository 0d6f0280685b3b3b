"""How a camera records on a leg: the six patterns."""

from __future__ import annotations

from datetime import time
from typing import Annotated, Literal

from pydantic import Field, model_validator

from .base import Part

MOST_TAKES = 2000
Seconds = Annotated[int, Field(ge=1, le=86_400)]
Count = Annotated[int, Field(ge=1, le=MOST_TAKES)]
PerHour = Annotated[float, Field(gt=0.0, le=240.0)]
SunEvent = Literal["sunrise", "sunset", "dawn", "dusk"]


class Counted(Part):
    """So many on a leg, or so many an hour."""

    count: Count | None = None
    per_hour: PerHour | None = None

    @model_validator(mode="after")
    def _one_way_of_counting(self) -> Counted:
        if (self.count is None) == (self.per_hour is None):
            raise ValueError("give either count or per_hour, not both and not neither")
        return self


class Roll(Part):
    """Record from start to end."""

    kind: Literal["roll"] = "roll"


class Takes(Counted):
    """Short takes spread evenly."""

    kind: Literal["takes"] = "takes"
    seconds: Seconds


class Loop(Part):
    """Overwrite the oldest; what is on the card is kept on a word or a press.

    Saves: so many, so many an hour, or (neither given) at the leg's moments.
    """

    kind: Literal["loop"] = "loop"
    length_s: Annotated[int, Field(ge=10, le=86_400)]
    segments: Annotated[int, Field(ge=2, le=100)] = 5
    saves: Annotated[int, Field(ge=0, le=MOST_TAKES)] | None = None
    saves_per_hour: PerHour | None = None

    @model_validator(mode="after")
    def _one_way_of_counting(self) -> Loop:
        if self.saves is not None and self.saves_per_hour is not None:
            raise ValueError("give saves or saves_per_hour, or neither: then at moments")
        return self


class ClockEdge(Part):
    """An edge of a window by the local clock."""

    kind: Literal["clock"] = "clock"
    at: time = Field(description="Local clock time, no offset.")

    @model_validator(mode="after")
    def _local(self) -> ClockEdge:
        if self.at.tzinfo is not None:
            raise ValueError("write the local clock time without an offset")
        return self


class SunEdge(Part):
    """An edge of a window by the sun, so many minutes after (before: negative)."""

    kind: Literal["sun"] = "sun"
    event: SunEvent
    plus_min: Annotated[int, Field(ge=-720, le=720)] = 0


Edge = Annotated[ClockEdge | SunEdge, Field(discriminator="kind")]


class Window(Part):
    """From one edge to the next, each day."""

    opens: Edge
    closes: Edge


class Windows(Part):
    """Only within windows of the clock or the sun."""

    kind: Literal["windows"] = "windows"
    windows: Annotated[tuple[Window, ...], Field(min_length=1, max_length=12)]


class Interval(Part):
    """A frame every so often."""

    kind: Literal["interval"] = "interval"
    every_s: Annotated[float, Field(ge=0.1, le=86_400.0)]
    frame_mb: Annotated[float, Field(gt=0.0, le=500.0)] | None = Field(
        default=None, description="Size of one still; none: frames become video of the mode."
    )
    playback_fps: Annotated[float, Field(ge=1.0, le=240.0)] = 25.0
    exposure_s: Annotated[float, Field(ge=0.0, le=3600.0)] | None = Field(
        default=None, description="How long a frame is exposed; none: typical, writing included."
    )
    writing_s: Annotated[float, Field(ge=0.0, le=600.0)] | None = Field(
        default=None, description="How long it is written after; none: typical."
    )


class Armed(Counted):
    """Alive and waiting; a trigger records a clip with what came before it."""

    kind: Literal["armed"] = "armed"
    seconds: Seconds
    pre_record_s: Annotated[int, Field(ge=0, le=600)] = 0
    trigger: Literal["motion", "speed", "voice", "press", "power"] = Field(
        default="motion",
        description="What a person says or presses follows the leg's moments, where it has any.",
    )


Pattern = Annotated[Roll | Takes | Loop | Windows | Interval | Armed, Field(discriminator="kind")]
