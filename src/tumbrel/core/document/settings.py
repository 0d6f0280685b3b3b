"""Presets of a camera, and the computer on which the film is made."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import Key, Label, Part

Stabilised = Literal["off", "on", "strong"]
ShutterIs = Literal["exact", "or_shorter", "or_longer", "follows"]
Codec = Literal["avc", "hevc", "av1", "mjpeg", "raw"]
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
    shutter_is: ShutterIs = Field(
        default="exact",
        description="That very time; it or shorter; it or longer; or half the frame's interval.",
    )
    exposure_ev: Annotated[float, Field(ge=-5.0, le=5.0)] = Field(
        default=0.0, description="Exposure bias."
    )
    exposure_to_ev: Annotated[float, Field(ge=-5.0, le=5.0)] | None = Field(
        default=None, description="The bias may reach from the one to this; none: the one alone."
    )
    white_balance_k: Annotated[int, Field(ge=1500, le=15_000)] | None = Field(
        default=None, description="Colour temperature, kelvins; none: left to the camera."
    )
    least_gain_iso: Gain | None = Field(default=None, description="None: as the camera's least.")
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
    field_of_view: Annotated[str, Field(max_length=30)] = Field(
        default="", description="In the camera's own word; empty: as it is."
    )
    codec: Codec | None = Field(default=None, description="None: as the camera has it.")
    turned: bool = Field(default=False, description="The picture is turned by 180 degrees.")
    note: Annotated[str, Field(max_length=200)] = Field(
        default="", description="Whatever else is set, in the person's words."
    )


class Steadied(Part):
    """The largest frame at which a camera steadies the picture so."""

    stabilised: Stabilised
    width_px: Annotated[int, Field(ge=160, le=16_000)]
    height_px: Annotated[int, Field(ge=120, le=16_000)]
    fps: Annotated[float, Field(ge=1.0, le=1000.0)]


class HomeWork(Part):
    """The person's work at home: hours an hour of footage, minutes a clip and a camera."""

    hours_per_hour: Annotated[float, Field(ge=0.05, le=100.0)] | None = Field(
        default=None, description="None: typical."
    )
    clip_min: Annotated[float, Field(ge=0.0, le=120.0)] = 0.0
    camera_min: Annotated[float, Field(ge=0.0, le=1440.0)] = 0.0
    lead_s: Annotated[float, Field(ge=0.0, le=600.0)] = Field(
        default=0.0, description="Left before each shot."
    )
    tail_s: Annotated[float, Field(ge=0.0, le=600.0)] = Field(
        default=0.0, description="Left after each shot."
    )
    marks: bool = Field(
        default=False, description="Moments are marked while filming: only they are looked for."
    )


class EditingComputer(Part):
    """What the computer at home plays without stuttering, as its owner tried it."""

    width_px: Annotated[int, Field(ge=160, le=16_000)]
    height_px: Annotated[int, Field(ge=120, le=16_000)]
    fps: Annotated[float, Field(ge=1.0, le=1000.0)]
    mbps: Annotated[float, Field(gt=0.0, le=4000.0)] | None = None
    codecs: Annotated[tuple[Codec, ...], Field(max_length=5)] = Field(
        default=(), description="What it plays; empty: any."
    )
