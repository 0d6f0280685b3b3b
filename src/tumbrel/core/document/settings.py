"""Presets of a camera, and the computer on which the film is made."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import Key, Label, Part

Stabilised = Literal["off", "on", "strong"]
Gain = Annotated[int, Field(ge=25, le=409_600)]


class Preset(Part):
    """Settings that a camera keeps in a named slot, set at home and chosen by one gesture."""

    id: Key
    slot: Annotated[int, Field(ge=1, le=20)]
    name: Label
    mode: Key
    stabilised: Stabilised = "on"
    shutter_per_s: Annotated[float, Field(ge=0.01, le=64_000.0)] | None = Field(
        default=None, description="200 is 1/200 s; none: left to the camera."
    )
    exposure_ev: Annotated[float, Field(ge=-5.0, le=5.0)] = Field(
        default=0.0, description="Exposure bias."
    )
    white_balance_k: Annotated[int, Field(ge=1500, le=15_000)] | None = Field(
        default=None, description="Colour temperature, kelvins; none: left to the camera."
    )
    most_gain_iso: Gain | None = Field(default=None, description="None: as the camera's most.")
    microphone_db: Annotated[float, Field(ge=-60.0, le=60.0)] | None = Field(
        default=None, description="Gain; none: left to the camera."
    )
    filter_stops: Annotated[float, Field(ge=0.0, le=20.0)] = Field(
        default=0.0, description="Neutral density in front of the lens."
    )
    slowing: Annotated[float, Field(ge=1.0, le=100.0)] | None = Field(
        default=None, description="How many times slower it is to be shown."
    )


class EditingComputer(Part):
    """What the computer at home plays without stuttering, as its owner tried it."""

    width_px: Annotated[int, Field(ge=160, le=16_000)]
    height_px: Annotated[int, Field(ge=120, le=16_000)]
    fps: Annotated[float, Field(ge=1.0, le=1000.0)]
    mbps: Annotated[float, Field(gt=0.0, le=4000.0)] | None = None
