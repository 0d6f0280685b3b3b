"""One-line questions, with sensible first values."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from pydantic import Field, model_validator

from ..document.base import Celsius, Part, Share

MilliampHours = Annotated[float, Field(ge=1.0, le=200_000.0)]
Volts = Annotated[float, Field(ge=0.5, le=60.0)]
DrawWatts = Annotated[float, Field(ge=0.001, le=60.0)]
PortWatts = Annotated[float, Field(ge=0.01, le=2000.0)]
Bitrate = Annotated[float, Field(ge=0.001, le=2000.0, description="Mean video bitrate, Mbit/s.")]
Rate = Annotated[float, Field(ge=1.0, le=1000.0, description="Frames a second.")]
FilmRate = Annotated[float, Field(ge=1.0, le=240.0, description="Frames a second.")]
MegabytesPerSecond = Annotated[float, Field(ge=0.001, le=5000.0)]


class Lasts(Part):
    """How long a mode records on a full battery in given air, and what ends it."""

    kind: Literal["lasts"] = "lasts"
    mah: MilliampHours = 1500.0
    volts: Volts = 3.8
    watts: DrawWatts = 4.0
    temp_c: Celsius = 20.0
    air_mps: Annotated[float, Field(ge=0.0, le=100.0)] = 0.0
    mass_g: Annotated[float, Field(ge=5.0, le=5000.0)] = 70.0


class OnCard(Part):
    """How long a card holds out, or which card is wanted."""

    kind: Literal["card"] = "card"
    wanted: Literal["hours", "card"] = "hours"
    mbps: Bitrate = 100.0
    gb: Annotated[float, Field(ge=1.0, le=8192.0)] = 128.0
    hours: Annotated[float, Field(ge=0.01, le=1000.0)] = 4.0


class LoopFor(Part):
    """The shortest loop that keeps an event whole."""

    kind: Literal["loop"] = "loop"
    event_s: Annotated[float, Field(ge=1.0, le=7200.0)] = 60.0
    reaction_s: Annotated[float, Field(ge=0.0, le=7200.0)] = 20.0
    segments: Annotated[int, Field(ge=2, le=100)] = 5
    mbps: Bitrate = 60.0


class TimeLapse(Part):
    """Two of event, interval and playback give the third."""

    kind: Literal["timelapse"] = "timelapse"
    wanted: Literal["playback", "interval", "event"] = "playback"
    event_min: Annotated[float, Field(ge=0.01, le=50_000.0)] = 120.0
    every_s: Annotated[float, Field(ge=0.1, le=86_400.0)] = 10.0
    playback_s: Annotated[float, Field(ge=0.001, le=36_000.0)] = 20.0
    fps: FilmRate = 25.0


class Charge(Part):
    """How long a battery takes from one charge to another at a port."""

    kind: Literal["charge"] = "charge"
    mah: MilliampHours = 1500.0
    volts: Volts = 3.8
    from_pct: Annotated[float, Field(ge=0.0, le=98.0)] = 20.0
    to_pct: Annotated[float, Field(ge=1.0, le=99.0)] = 80.0
    port_w: PortWatts = 5.0
    to_80_min: Annotated[float, Field(ge=8.0, le=600.0)] = Field(
        default=80.0, description="From empty to 80 %, were there no other bound; as typical."
    )

    @model_validator(mode="after")
    def _upwards(self) -> Charge:
        if self.to_pct <= self.from_pct:
            raise ValueError("to_pct: must be more than it has already")
        return self


class FromBank(Part):
    """What a power bank really gives, and how many batteries that fills."""

    kind: Literal["bank"] = "bank"
    bank_mah: MilliampHours = 10_000.0
    health: Annotated[float, Field(ge=0.01, le=1.2)] = 1.0
    temp_c: Celsius = 20.0
    mah: MilliampHours = 1500.0
    volts: Volts = 3.8


class FromPanel(Part):
    """What a solar panel gives on a day."""

    kind: Literal["panel"] = "panel"
    rated_w: PortWatts = 20.0
    latitude: Annotated[float, Field(ge=-90.0, le=90.0)] = 45.0
    day: date = date(2027, 6, 21)
    sky: Share = 0.8
    tilt_deg: Annotated[float, Field(ge=0.0, le=90.0)] = 0.0


class Slowing(Part):
    """How many times slower a rate can be shown."""

    kind: Literal["slowing"] = "slowing"
    fps: Rate = 120.0
    film_fps: FilmRate = 25.0


class Density(Part):
    """The neutral density that a light wants at the half-interval shutter."""

    kind: Literal["density"] = "density"
    sun_deg: Annotated[float, Field(ge=-18.0, le=90.0)] = 45.0
    sky: Annotated[float, Field(ge=0.01, le=1.0)] = 1.0
    f_number: Annotated[float, Field(ge=0.7, le=32.0)] = 2.8
    fps: Rate = 30.0
    iso: Annotated[float, Field(ge=25.0, le=25_600.0)] = 100.0


class Transfer(Part):
    """How long footage takes to a phone, drive or computer."""

    kind: Literal["transfer"] = "transfer"
    gb: Annotated[float, Field(ge=0.001, le=100_000.0)] = 64.0
    read_mb_s: MegabytesPerSecond = 60.0
    link_mb_s: MegabytesPerSecond = 30.0
    write_mb_s: MegabytesPerSecond = 60.0


class Shown(Part):
    """What a camera's own "minutes left" say of its card, or of its bitrate."""

    kind: Literal["shown"] = "shown"
    wanted: Literal["room", "bitrate"] = "room"
    shown_min: Annotated[float, Field(ge=0.02, le=50_000.0)] = 41.5
    mbps: Bitrate = 60.0
    gb: Annotated[float, Field(ge=0.001, le=8192.0)] = 28.0


Question = Annotated[
    Lasts
    | OnCard
    | LoopFor
    | TimeLapse
    | Charge
    | FromBank
    | FromPanel
    | Slowing
    | Density
    | Transfer
    | Shown,
    Field(discriminator="kind"),
]
