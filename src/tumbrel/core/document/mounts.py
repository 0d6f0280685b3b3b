"""What a person knows of one camera on one mount: how fast it is there, how long it holds."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .angles import Angle, Mount
from .base import Celsius, HandSeconds, Part

Covered = Literal["door", "port"]
Tether = Literal["none", "own", "body", "vehicle"]


class Mounted(Part):
    """A camera on a mount, or carried in a pocket (`other`), as the person knows it."""

    mount: Mount
    move_s: HandSeconds | None = Field(
        default=None, description="To put it there; none: the camera's own."
    )
    move_gloved_s: HandSeconds | None = None
    reach_s: HandSeconds | None = Field(
        default=None, description="Until it films, from there, boot included; none: not said."
    )
    pressed: bool = Field(default=True, description="Whether a hand reaches its button there.")
    holds_min: Annotated[float, Field(gt=0.0, le=44_640.0)] | None = Field(
        default=None, description="How long it holds without a look at it, minutes."
    )
    holds_to_c: Celsius | None = Field(default=None, description="The warmest it holds in.")
    sees: Angle | None = Field(default=None, description="The angle that it gives; none: any.")
    seen_over: Annotated[str, Field(max_length=60)] = Field(
        default="", description="What of the picture it covers, in the person's words."
    )
    covers: Annotated[tuple[Covered, ...], Field(max_length=2)] = Field(
        default=(), description="Which of its doors and ports it blocks."
    )
    tether: Tether = Field(default="none", description="What its tether goes to.")
