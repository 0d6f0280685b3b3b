"""The trip: legs and stops in order, with their times, air, light and hands."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from pydantic import Field, field_validator, model_validator

from .angles import Activity
from .base import LONGEST_TRIP_S, Celsius, Key, Label, Part, Share
from .kit import Wet
from .patterns import Counted, Seconds
from .power import PortWatts
from .references import refuse_repeats, refuse_unknown
from .way import HeightM, OnWay, Way

Importance = Literal["must", "want", "nice"]
IMPORTANCES: tuple[Importance, ...] = ("must", "want", "nice")  # the gravest first

Hands = Literal["free", "stops", "never"]
DurationS = Annotated[int, Field(ge=1, le=LONGEST_TRIP_S)]
AirValue = Literal["temp", "sky", "wind"]


class Place(Part):
    """Where the trip is, for light and sun."""

    latitude: Annotated[float, Field(ge=-90.0, le=90.0)]
    longitude: Annotated[float, Field(ge=-180.0, le=180.0)]
    height_m: HeightM = 0.0


class Spot(Part):
    """Where a leg or stop lies, for its own sun."""

    latitude: Annotated[float, Field(ge=-90.0, le=90.0)]
    longitude: Annotated[float, Field(ge=-180.0, le=180.0)]


class Moment(Counted):
    """Something worth having on a leg, before anyone knows when."""

    name: Label
    seconds: Seconds
    reaction_s: Annotated[int, Field(ge=0, le=3600)] = 5
    importance: Importance = "want"


class Stretch(Part):
    """What a leg and a stop share: a name, a length in time, and the air around the kit."""

    id: Key
    name: Label
    duration_s: DurationS
    not_before: datetime | None = Field(default=None, description="Local clock time, no offset.")
    temp_start_c: Celsius = 15.0
    temp_end_c: Celsius = 15.0
    temp_doubt_k: Annotated[float, Field(ge=0.0, le=30.0)] = Field(
        default=0.0, description="Eight times in ten it lies within this, up and down."
    )
    air_from: Annotated[str, Field(max_length=60)] = Field(
        default="", description="Where temperature, sky and airflow came from; empty: typed."
    )
    typed: Annotated[tuple[AirValue, ...], Field(max_length=3)] = Field(
        default=(), description="Of these, what was typed over it; no weather takes it away."
    )
    timed_by: Literal["hand", "track", "pace"] = Field(
        default="hand", description="Where its length in time came from."
    )
    on_way: OnWay | None = None
    spot: Spot | None = Field(default=None, description="None: where the trip is.")
    snow: bool = Field(default=False, description="Snow around, that throws the sun back.")
    sun_share: Share = Field(default=0.0, description="Share of the clear-sky sun on the kit.")
    gloves: bool = False
    sky: Share = Field(default=1.0, description="Share of the clear sky's light on a panel.")
    sky_doubt: Share = Field(default=0.0, description="Eight times in ten, up and down.")
    moments: Annotated[tuple[Moment, ...], Field(max_length=20)] = ()

    @field_validator("not_before")
    @classmethod
    def _local(cls, value: datetime | None) -> datetime | None:
        return refuse_offset(value)


class Leg(Stretch):
    """One activity, from one stop to the next."""

    kind: Literal["leg"] = "leg"
    activity: Activity = "other"
    hands: Hands = "stops"
    air_mps: Annotated[float, Field(ge=0.0, le=100.0)] = 0.0
    air_doubt_mps: Annotated[float, Field(ge=0.0, le=50.0)] = Field(
        default=0.0, description="Eight times in ten, up and down."
    )
    speed_mps: Annotated[float, Field(ge=0.0, le=100.0)] = Field(
        default=0.0, description="Over the ground, for a dynamo."
    )
    vehicle_runs: bool = False
    wet: Wet = "dry"
    depth_m: Annotated[float, Field(gt=0.0, le=300.0)] | None = Field(
        default=None, description="How deep the kit goes under water; none: not said."
    )
    one_angle_always: bool = Field(
        default=False, description="Never two angles off together for an optional swap."
    )
    height_start_m: HeightM | None = None
    height_end_m: HeightM | None = None


class Asleep(Part):
    """Hours asleep inside a stop, from its start; asleep hands are not free."""

    start_s: Annotated[int, Field(ge=0, le=LONGEST_TRIP_S)]
    duration_s: DurationS


class Socket(Part):
    """Mains or a hut's socket at a stop: what it gives, and in which hours from its start."""

    watts: PortWatts
    start_s: Annotated[int, Field(ge=0, le=LONGEST_TRIP_S)] = 0
    duration_s: DurationS | None = Field(default=None, description="None: to the stop's end.")


class Stop(Stretch):
    """A place where hands are free."""

    kind: Literal["stop"] = "stop"
    asleep: Asleep | None = None
    socket: Socket | None = None
    height_m: HeightM | None = None

    @model_validator(mode="after")
    def _sleep_fits(self) -> Stop:
        if self.asleep and self.asleep.start_s + self.asleep.duration_s > self.duration_s:
            raise ValueError(f"stop '{self.id}': the hours asleep end after the stop does")
        return self


Item = Annotated[Leg | Stop, Field(discriminator="kind")]


class Trip(Part):
    """Legs and stops in order from a start on the local clock."""

    name: Label
    start: datetime = Field(description="Local clock time, no offset.")
    time_zone: str = "UTC"
    place: Place | None = None
    items: Annotated[tuple[Item, ...], Field(min_length=1, max_length=1000)]
    ways: Annotated[tuple[Way, ...], Field(max_length=12)] = ()

    @field_validator("start")
    @classmethod
    def _local(cls, value: datetime) -> datetime:
        refuse_offset(value)
        if not 1990 <= value.year <= 2100:
            raise ValueError("start must lie between the years 1990 and 2100")
        return value

    @field_validator("time_zone")
    @classmethod
    def _known_zone(cls, value: str) -> str:
        try:
            ZoneInfo(value)
        except (ZoneInfoNotFoundError, ValueError, OSError):
            raise ValueError(
                f"time zone '{value}' is not known; write it like 'Etc/GMT-2' or 'UTC'"
            ) from None
        return value

    @model_validator(mode="after")
    def _order(self) -> Trip:
        refuse_repeats("leg or stop", (i.id for i in self.items))
        total_s = sum(i.duration_s for i in self.items)
        if total_s > LONGEST_TRIP_S:
            raise ValueError("legs and stops together last more than 31 days")
        self._check_ways()
        return self

    def item(self, key: str) -> Item:
        """A leg or stop by its key. Raises StopIteration when there is none."""
        return next(one for one in self.items if one.id == key)

    def _check_ways(self) -> None:
        refuse_repeats("way", (way.id for way in self.ways))
        lengths = {way.id: way.length_m for way in self.ways}
        for item in self.items:
            if item.on_way is None:
                continue
            refuse_unknown(f"{item.kind} '{item.id}': way", item.on_way.way, set(lengths))
            if item.on_way.to_m > lengths[item.on_way.way] + 1.0:
                raise ValueError(f"{item.kind} '{item.id}' lies beyond the end of its way")


def refuse_offset(value: datetime | None) -> datetime | None:
    """Clock times in a trip are local; the time zone stands once, on the trip."""
    if value is not None and value.tzinfo is not None:
        raise ValueError("write the local clock time without an offset")
    return value
