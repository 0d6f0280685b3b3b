"""The plan: which camera records what on which leg, and how batteries are swapped."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field, field_validator, model_validator

from .angles import Angle, Mount
from .base import Key, Part
from .kit import FeatureName
from .patterns import Pattern, Roll
from .references import refuse_repeats
from .settings import EditingComputer, HomeWork
from .trip import Importance, refuse_offset

Between = Literal["off", "standby", "on"]
SwapPolicy = Literal["early", "run_flat"]


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
    mount: Mount | None = Field(default=None, description="None: as the camera is carried.")
    preset: Key | None = None
    reason: Annotated[str, Field(max_length=200)] = Field(
        default="", description="Why it is done so all the same; advice against it becomes a note."
    )


class CameraPlan(Part):
    """What a camera starts with, and what it does between assignments."""

    camera: Key
    battery: Key | None = None
    card: Key | None = None
    angle: Angle = "sight"
    mount: Mount = "other"
    tethered: bool = Field(default=False, description="On a tether of its own.")
    source: Key | None = Field(
        default=None, description="What feeds it in set-ups on outside power."
    )
    between: Between = "off"
    radio_left_on: bool = False


class ManualSwap(Part):
    """A swap the person decided. Without a battery: leave the one in at this stop."""

    camera: Key
    item: Key
    battery: Key | None = None
    when: Literal["arrival", "leaving"] = Field(
        default="arrival", description="As hands become free there, or at the last chance."
    )


class ManualCardSwap(Part):
    """A card the person decided on. Without a card: leave the one in at this stop."""

    camera: Key
    item: Key
    card: Key | None = None
    when: Literal["arrival", "leaving"] = "arrival"


class ManualPlug(Part):
    """Plugging in that the person decided: a unit that is plugged in at a stop, or is not there."""

    unit: Key = Field(description="A battery, bank, module or thing with a battery.")
    item: Key
    plug: bool = True
    to: Key | None = Field(
        default=None,
        description="A source or charger, or for a module its camera; none: the best.",
    )
    place: Annotated[int, Field(ge=1, le=16)] | None = Field(
        default=None, description="Its port or bay, from 1; none: the first that is free."
    )
    at: datetime | None = Field(default=None, description="Not before this local clock time.")

    @field_validator("at")
    @classmethod
    def _local(cls, value: datetime | None) -> datetime | None:
        return refuse_offset(value)


class GearUse(Part):
    """A leg or stop on which something with a battery is used, besides what its camera asks."""

    gear: Key
    item: Key


class FullBy(Part):
    """A battery or bank that must be full at a time."""

    unit: Key
    at: datetime = Field(description="Local clock time, no offset.")

    @field_validator("at")
    @classmethod
    def _local(cls, value: datetime) -> datetime:
        refuse_offset(value)
        return value


class Copy(Part):
    """Footage copied at a stop, and perhaps wiped after."""

    item: Key = Field(description="The stop.")
    camera: Key | None = Field(default=None, description="What is in this camera, or …")
    card: Key | None = Field(default=None, description="… a card in the bag.")
    drive: Key | None = Field(default=None, description="None: to the card in the same camera.")
    by: Literal["cable", "radio"] = "cable"
    side_files: bool = Field(default=True, description="The small files beside clips go too.")
    wipe: Literal["no", "with_two_copies", "anyway"] = "no"

    @model_validator(mode="after")
    def _one_place(self) -> Copy:
        if (self.camera is None) == (self.card is None):
            raise ValueError("copy either a camera's memory or a card, not both and not neither")
        if self.drive is None and self.camera is None:
            raise ValueError("say the drive that a card is copied to")
        if self.by == "radio" and self.camera is None:
            raise ValueError("only a camera copies by radio; a card in the bag wants a cable")
        return self


class Link(Part):
    """Cameras that one action starts or stops together."""

    cameras: Annotated[tuple[Key, ...], Field(min_length=2, max_length=8)]


class Plan(Part):
    """All decisions of one trip."""

    cameras: tuple[CameraPlan, ...] = ()
    assignments: Annotated[tuple[Assignment, ...], Field(max_length=8000)] = ()
    swaps: Annotated[tuple[ManualSwap, ...], Field(max_length=2000)] = ()
    card_swaps: Annotated[tuple[ManualCardSwap, ...], Field(max_length=2000)] = ()
    plugs: Annotated[tuple[ManualPlug, ...], Field(max_length=2000)] = ()
    swap_policy: SwapPolicy = "early"
    charging: Literal["auto", "never"] = Field(
        default="auto", description="Whether free hands plug in what is low."
    )
    gear: Annotated[tuple[GearUse, ...], Field(max_length=2000)] = ()
    full_by: Annotated[tuple[FullBy, ...], Field(max_length=60)] = ()
    copies: Annotated[tuple[Copy, ...], Field(max_length=500)] = ()
    links: Annotated[tuple[Link, ...], Field(max_length=8)] = ()
    editing: EditingComputer | None = None
    home: HomeWork | None = Field(default=None, description="None: typical.")
    delivery_fps: Annotated[float, Field(ge=1.0, le=240.0)] = 25.0
    by_air: bool = Field(default=False, description="The kit is carried on an aircraft.")

    def _refuse_circles(self) -> None:
        """Banks and modules plugged into one another at a stop must not close a circle."""
        for number, plug in enumerate(self.plugs):
            into = {p.unit: p.to for p in self.plugs if p.item == plug.item and p.plug and p.to}
            seen, at = {plug.unit}, into.get(plug.unit)
            while at is not None and at not in seen:
                seen.add(at)
                at = into.get(at)
            if at == plug.unit:
                raise ValueError(
                    f"plan.plugs[{number}].to: '{plug.unit}' would charge itself at '{plug.item}', "
                    f"by way of '{plug.to}'; plug one of them elsewhere"
                )

    def said_at(self) -> set[str]:
        """Legs and stops at which the hands are told to swap, plug or copy."""
        told = {swap.item for swap in self.swaps} | {plug.item for plug in self.plugs}
        told |= {swap.item for swap in self.card_swaps}
        return told | {copy.item for copy in self.copies}

    @model_validator(mode="after")
    def _said_once(self) -> Plan:
        refuse_repeats("camera plan", (c.camera for c in self.cameras))
        refuse_repeats("assignment", (f"{a.camera} on {a.item}" for a in self.assignments))
        refuse_repeats("manual swap", (f"{s.camera} at {s.item}" for s in self.swaps))
        refuse_repeats("card swap", (f"{s.camera} at {s.item}" for s in self.card_swaps))
        refuse_repeats("manual plug", (f"{p.unit} at {p.item}" for p in self.plugs))
        refuse_repeats("battery fitted", (c.battery for c in self.cameras if c.battery))
        refuse_repeats("card fitted", (c.card for c in self.cameras if c.card))
        refuse_repeats("gear", (f"{g.gear} on {g.item}" for g in self.gear))
        self._refuse_circles()
        refuse_repeats("full by", (f.unit for f in self.full_by))
        refuse_repeats("linked camera", (c for link in self.links for c in link.cameras))
        return self
