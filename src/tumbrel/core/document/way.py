"""The ways of a trip over ground, as their tracks gave them, thinned to even steps."""

from __future__ import annotations

from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field, model_validator

from .base import LONGEST_TRIP_S, Key, Label, Part

Going = Literal["foot", "sled", "sail", "ride", "paddle", "drive"]
HeightM = Annotated[float, Field(ge=-500.0, le=9000.0)]
Metres = Annotated[float, Field(ge=0.0, le=40_000_000.0)]
MOST_COLUMNS = 1000

Latitude = Annotated[float, Field(ge=-90.0, le=90.0)]
Longitude = Annotated[float, Field(ge=-180.0, le=180.0)]
MovedS = Annotated[float, Field(ge=0.0, le=4.0 * LONGEST_TRIP_S)]


class Way(Part):
    """One way over ground: columns of places at even steps from its start to its end."""

    id: Key
    name: Label
    going: Going = "foot"
    factor: Annotated[float, Field(ge=0.2, le=5.0)] = Field(
        default=1.0, description="The person's pace: 1.2 goes a fifth faster."
    )
    clock: Literal["track", "pace"] = Field(
        default="pace", description="Whether `moved_s` is the track's own time or a pace."
    )
    length_m: Annotated[float, Field(gt=0.0, le=40_000_000.0)]
    ascent_m: Metres = 0.0
    descent_m: Metres = 0.0
    latitude: Annotated[tuple[Latitude, ...], Field(min_length=2, max_length=MOST_COLUMNS)]
    longitude: Annotated[tuple[Longitude, ...], Field(min_length=2, max_length=MOST_COLUMNS)]
    height_m: Annotated[tuple[HeightM, ...], Field(max_length=MOST_COLUMNS)] = Field(
        default=(), description="Smoothed; empty when the track had none."
    )
    moved_s: Annotated[tuple[MovedS, ...], Field(min_length=2, max_length=MOST_COLUMNS)] = Field(
        description="Seconds of moving from the start, rests left out."
    )

    @property
    def step_m(self) -> float:
        """From one column to the next."""
        return self.length_m / (len(self.latitude) - 1)

    @model_validator(mode="after")
    def _columns_agree(self) -> Way:
        count = len(self.latitude)
        if {count, len(self.longitude), len(self.moved_s)} != {count}:
            raise ValueError(f"way '{self.id}': its columns are not equally long")
        if self.height_m and len(self.height_m) != count:
            raise ValueError(f"way '{self.id}': its columns are not equally long")
        if any(after < before for before, after in pairwise(self.moved_s)):
            raise ValueError(f"way '{self.id}': moved_s goes backwards")
        return self


class OnWay(Part):
    """Where on a way a leg or stop lies, in metres from the way's start; a stop at one place."""

    way: Key
    from_m: Metres
    to_m: Metres

    @model_validator(mode="after")
    def _forward(self) -> OnWay:
        if self.to_m < self.from_m:
            raise ValueError("to_m must not lie before from_m")
        return self
