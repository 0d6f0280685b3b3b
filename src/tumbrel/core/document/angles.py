"""Activities, angles and mounts, and what serves where."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import Part

Activity = Literal[
    "climb", "walk", "descent", "flight", "sled", "sail", "ride", "paddle", "drive", "other"
]
Angle = Literal["sight", "hands", "face", "shoulder", "behind", "ground", "under_water", "camp"]
Mount = Literal["helmet", "chest", "hand_held", "vehicle", "tripod", "wing", "other"]
Where = Activity | Literal["stop"]
Verdict = Literal["well", "poorly", "never"]


class Serving(Part):
    """What a person knows of an angle or mount in an activity, over what is usual."""

    what: Angle | Mount
    where: Where
    verdict: Verdict
    why: Annotated[str, Field(max_length=120)] = ""
