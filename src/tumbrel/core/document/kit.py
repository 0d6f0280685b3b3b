"""Cameras with their set-ups and modes, and the kit as a whole."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field, model_validator

from .angles import Mount, Serving
from .base import HandSeconds, Key, Label, Money, Part, Share, Watts
from .mounts import Mounted
from .power import (
    Battery,
    BatteryFamily,
    Charger,
    Gear,
    Module,
    OtherLoad,
    Pocket,
    PortWatts,
    Source,
)
from .references import refuse_repeats
from .settings import Gain, Preset, Steadied
from .storage import Card, Drive, MegabytesPerSecond, SpeedClass

FeatureName = Literal["screen", "radio", "positioning", "microphone", "light"]


class DrawInWatts(Part):
    """What a mode drinks, measured at the battery."""

    kind: Literal["watts"] = "watts"
    watts: Annotated[float, Field(gt=0.0, le=60.0)]


class DrawByRunTime(Part):
    """What a mode drinks, known by how long a full battery of the camera's family lasts."""

    kind: Literal["lasts"] = "lasts"
    minutes: Annotated[float, Field(gt=0.0, le=10_000.0)]


class DrawNotKnown(Part):
    """Nobody knows what a mode drinks: it is assumed by what is known of its camera.

    Source: model/energy#not-known.
    """

    kind: Literal["not_known"] = "not_known"


Wet = Literal["dry", "splash", "under"]
Draw = Annotated[DrawInWatts | DrawByRunTime | DrawNotKnown, Field(discriminator="kind")]


class Mode(Part):
    """One way a camera records."""

    id: Key
    name: Label
    width_px: Annotated[int, Field(ge=160, le=16_000)]
    height_px: Annotated[int, Field(ge=120, le=16_000)]
    fps: Annotated[float, Field(ge=1.0, le=1000.0)]
    video_mbps: Annotated[float, Field(gt=0.0, le=2000.0, description="Mean video bitrate.")]
    peak_mbps: Annotated[float, Field(gt=0.0, le=4000.0)] | None = None
    audio_mbps: Annotated[float, Field(ge=0.0, le=20.0)] = 0.192
    draw: Draw
    rise_k: Annotated[float, Field(ge=0.0, le=200.0)] | None = Field(
        default=None, description="Measured rise of the body above still air, kelvins."
    )
    clip_limit_s: Annotated[int, Field(ge=1, le=86_400)] | None = None
    features: tuple[FeatureName, ...] = Field(default=(), description="Features it allows.")
    box_minutes: Annotated[float, Field(gt=0.0, le=10_000.0)] | None = Field(
        default=None, description="The run time that the box claims."
    )
    proxy_share: Share = Field(default=0.0, description="Size of a proxy file beside the clip.")
    loops: bool = Field(default=True, description="Whether it can overwrite itself.")
    sound: bool = Field(default=True, description="Whether it records sound.")


class SetUp(Part):
    """How a camera is built for use."""

    id: Key
    name: Label
    case_factor: Annotated[float, Field(gt=0.0, le=5.0)] = 1.0
    case_a: Annotated[float, Field(ge=0.0, le=2.0)] = 1.0
    air_share: Share = Field(default=1.0, description="The mount's share of the airflow.")
    tau_s: Annotated[float, Field(gt=0.0, le=36_000.0)] | None = Field(
        default=None, description="Measured time constant of the body, seconds."
    )
    lag_factor: Annotated[float, Field(gt=0.0, le=20.0)] = Field(
        default=1.0, description="What its case and mount do to the time constant."
    )
    charges_recording: bool = Field(
        default=True, description="Whether the battery in it charges while it records."
    )
    swap_s: HandSeconds = 30.0
    swap_gloved_s: HandSeconds = 60.0
    door_blocked_s: HandSeconds = Field(
        default=0.0, description="Added when the mount blocks the battery or card door."
    )
    clip_limit_s: Annotated[int, Field(ge=1, le=86_400)] | None = Field(
        default=None, description="Its longest clip so built; none: as the mode has it."
    )
    lapse_limit_s: Annotated[int, Field(ge=1, le=864_000)] | None = Field(
        default=None, description="Its longest run of frames so built."
    )
    writes_to: Literal["own", "card"] = Field(
        default="own",
        description="Of a camera with fixed memory and a slot: where it writes so built.",
    )
    hot_swap: bool = Field(default=False, description="Swaps power without stopping.")
    power: Literal["battery", "outside", "outside_only"] = Field(
        default="battery",
        description="On its battery; on outside power with the battery in; with it out.",
    )
    water: Wet = Field(default="dry", description="The most water it stands so built.")
    depth_m: Annotated[float, Field(gt=0.0, le=300.0)] | None = Field(
        default=None, description="How deep it may go so built; none: not said."
    )
    under_min: Annotated[float, Field(gt=0.0, le=10_000.0)] | None = Field(
        default=None, description="How long it may stay under water; none: not said."
    )


class Limits(Part):
    """Body temperatures at which a camera stops and may restart."""

    stop_c: Annotated[float, Field(ge=30.0, le=120.0)]
    restart_c: Annotated[float, Field(ge=0.0, le=119.0)]

    @model_validator(mode="after")
    def _restart_is_cooler(self) -> Limits:
        if self.restart_c >= self.stop_c:
            raise ValueError("restart_c must be below stop_c")
        return self


class CardSlot(Part):
    """Where cards go in and come out."""

    kind: Literal["slot"] = "slot"
    largest_gb: Annotated[int, Field(ge=1, le=8192)]
    slowest_class: SpeedClass | None = None


class FixedMemory(Part):
    """Memory that cannot be taken out."""

    kind: Literal["fixed"] = "fixed"
    gb: Annotated[int, Field(ge=1, le=8192)]
    reserved_gb: Annotated[float, Field(ge=0.0, le=4096.0)] = 0.0
    speed_mb_s: MegabytesPerSecond = 90.0
    read_mb_s: MegabytesPerSecond | None = None


Memory = Annotated[CardSlot | FixedMemory, Field(discriminator="kind")]


class LoopOffered(Part):
    """A loop as a camera has it: its length and that of its segments, seconds."""

    length_s: Annotated[int, Field(ge=10, le=86_400)]
    segment_s: Annotated[int, Field(ge=1, le=43_200)]

    @model_validator(mode="after")
    def _two_segments(self) -> LoopOffered:
        if self.segment_s * 2 > self.length_s:
            raise ValueError("segment_s must be at most half of length_s")
        return self

    @property
    def segments(self) -> int:
        """How many segments it has."""
        return -(-self.length_s // self.segment_s)


class FeatureDraw(Part):
    """What one feature adds to a camera's draw."""

    feature: FeatureName
    watts: Watts


class Camera(Part):
    """One camera: what it is, its set-ups and the modes it has."""

    id: Key
    name: Label
    model: str = Field(default="", max_length=60)
    mass_g: Annotated[float, Field(ge=5.0, le=5000.0)] = 70.0
    cost: Money = None
    battery_family: Key
    battery_comes_out: bool = True
    memory: Memory
    slot: CardSlot | None = Field(
        default=None, description="A slot beside its fixed memory, as a module may bring one."
    )
    inside_mb_s: MegabytesPerSecond | None = Field(
        default=None, description="From its own memory to its card; none: typical."
    )
    boot_s: Annotated[float, Field(ge=0.0, le=120.0)] | None = None
    standby_w: Watts | None = None
    feature_draws: tuple[FeatureDraw, ...] = ()
    armed_w: Watts | None = None
    charges_in_w: PortWatts | None = Field(
        default=None, description="The most its own port takes; none: it has no port for power."
    )
    starts_itself: bool = Field(default=False, description="Scheduled start without a hand.")
    continues_after_clip: bool = True
    move_s: HandSeconds = Field(
        default=60.0, description="To move it to another mount or set-up, bare hands."
    )
    move_gloved_s: HandSeconds = Field(default=120.0, description="The same in gloves.")
    mounts: Annotated[tuple[Mounted, ...], Field(max_length=12)] = Field(
        default=(), description="What the person knows of it on its mounts."
    )
    chapter_gb: Annotated[float, Field(gt=0.0, le=1024.0)] | None = None
    chapter_min: Annotated[float, Field(gt=0.0, le=1440.0)] | None = Field(
        default=None, description="Minutes before a new chapter; none: by size alone."
    )
    loops: Annotated[tuple[LoopOffered, ...], Field(max_length=12)] = Field(
        default=(), description="The loops it offers; empty: any."
    )
    limits: Limits | None = None
    resistance_k_per_w: Annotated[float, Field(gt=0.0, le=200.0)] | None = Field(
        default=None,
        description="Measured rise of the body a watt, still air; none: by mass.",
    )
    charge_heat: Annotated[float, Field(gt=0.0, le=10.0)] = Field(
        default=1.0, description="Measured heat of charging and feeding through, over the typical."
    )
    start_gesture: str = Field(default="", max_length=200)
    answers_to: tuple[Literal["voice", "remote"], ...] = Field(
        default=(), description="How a loop can be kept without a hand on it."
    )
    clock_set: bool = True
    clock_drift_s_per_day: Annotated[float, Field(ge=-600.0, le=600.0)] = 0.0
    file_prefix: str = Field(default="", max_length=12, description="How its files begin.")
    f_number: Annotated[float, Field(ge=0.7, le=32.0)] | None = Field(
        default=None, description="Its lens's aperture; none: typical."
    )
    base_iso: Gain | None = Field(default=None, description="Its least gain; none: typical.")
    most_iso: Gain | None = Field(
        default=None, description="The most gain that still looks right; none: typical."
    )
    set_ups: Annotated[tuple[SetUp, ...], Field(min_length=1, max_length=12)]
    modes: Annotated[tuple[Mode, ...], Field(min_length=1, max_length=40)]
    presets: Annotated[tuple[Preset, ...], Field(max_length=20)] = ()
    steadies: Annotated[tuple[Steadied, ...], Field(max_length=3)] = Field(
        default=(), description="Up to which frame it steadies the picture; empty: any."
    )

    @property
    def card_slot(self) -> CardSlot | None:
        """Where its cards go, if it takes any."""
        return self.memory if isinstance(self.memory, CardSlot) else self.slot

    def writes_own(self, set_up: SetUp | None) -> bool:
        """Whether it writes to its fixed memory, built so."""
        if isinstance(self.memory, CardSlot):
            return False
        return self.slot is None or set_up is None or set_up.writes_to == "own"

    def built(self, set_up: str) -> SetUp | None:
        """One of its set-ups by its key; None when it has it no more."""
        return next((one for one in self.set_ups if one.id == set_up), None)

    def mounted(self, mount: Mount) -> Mounted | None:
        """What is known of it on a mount; None when nothing is."""
        return next((one for one in self.mounts if one.mount == mount), None)

    @model_validator(mode="after")
    def _own_names_once(self) -> Camera:
        if self.slot is not None and isinstance(self.memory, CardSlot):
            raise ValueError("slot: it has a slot already; say fixed memory, or leave one out")
        if self.card_slot is None and any(s.writes_to == "card" for s in self.set_ups):
            raise ValueError("set_ups: one writes to a card, but the camera has no slot")
        refuse_repeats("set-up", (s.id for s in self.set_ups))
        refuse_repeats("mode", (m.id for m in self.modes))
        refuse_repeats("feature", (f.feature for f in self.feature_draws))
        refuse_repeats("preset", (p.id for p in self.presets))
        refuse_repeats("mount", (m.mount for m in self.mounts))
        refuse_repeats("steadying", (s.stabilised for s in self.steadies))
        refuse_repeats("preset's slot", (str(p.slot) for p in self.presets))
        return self


class Kit(Part):
    """Everything carried, in the order of the shelf."""

    families: Annotated[tuple[BatteryFamily, ...], Field(max_length=20)] = ()
    cameras: Annotated[tuple[Camera, ...], Field(max_length=8)] = ()
    batteries: Annotated[tuple[Battery, ...], Field(max_length=60)] = ()
    cards: Annotated[tuple[Card, ...], Field(max_length=60)] = ()
    pockets: Annotated[tuple[Pocket, ...], Field(max_length=20)] = ()
    chargers: Annotated[tuple[Charger, ...], Field(max_length=12)] = ()
    sources: Annotated[tuple[Source, ...], Field(max_length=12)] = ()
    loads: Annotated[tuple[OtherLoad, ...], Field(max_length=12)] = ()
    gear: Annotated[tuple[Gear, ...], Field(max_length=12)] = Field(
        default=(), description="Things with a battery that are no camera."
    )
    drives: Annotated[tuple[Drive, ...], Field(max_length=12)] = ()
    serving: Annotated[tuple[Serving, ...], Field(max_length=200)] = Field(
        default=(), description="What serves where, as the person knows it."
    )

    @model_validator(mode="after")
    def _names_once_and_known(self) -> Kit:
        for what, units in (
            ("battery family", self.families),
            ("camera", self.cameras),
            ("battery", self.batteries),
            ("card", self.cards),
            ("pocket", self.pockets),
            ("charger", self.chargers),
            ("source", self.sources),
            ("other load", self.loads),
            ("thing with a battery", self.gear),
            ("drive", self.drives),
        ):
            refuse_repeats(what, (unit.id for unit in units))
        refuse_repeats("what serves where", (f"{s.what} on {s.where}" for s in self.serving))
        for owner, what, name, known in self._names_used():
            if name not in known:
                raise ValueError(f"{owner} names {what} '{name}', which is not in the kit")
        return self

    def _names_used(self) -> Iterator[tuple[str, str, str, set[str]]]:
        """Every name by which one part of the kit leans on another."""
        families = {f.id for f in self.families}
        pockets = {p.id for p in self.pockets}
        banks = {s.id for s in self.sources if s.kind == "bank"}
        family = "battery family"
        for camera in self.cameras:
            yield f"camera '{camera.id}'", family, camera.battery_family, families
        for battery in self.batteries:
            yield f"battery '{battery.id}'", family, battery.family, families
            if battery.pocket is not None:
                yield f"battery '{battery.id}'", "pocket", battery.pocket, pockets
        for charger in self.chargers:
            for name in charger.families:
                yield f"charger '{charger.id}'", family, name, families
        for source in self.sources:
            if source.kind == "bank" and source.pocket is not None:
                yield f"bank '{source.id}'", "pocket", source.pocket, pockets
        yield from self._gear_names(pockets)
        for load in self.loads:
            if load.bank is not None:
                yield f"other load '{load.id}'", "bank", load.bank, banks

    def _gear_names(self, pockets: set[str]) -> Iterator[tuple[str, str, str, set[str]]]:
        """The names by which modules and things with a battery lean on cameras and pockets."""
        cameras = {c.id for c in self.cameras}
        for source in self.sources:
            if isinstance(source, Module):
                yield f"module '{source.id}'", "camera", source.fits, cameras
        for gear in self.gear:
            if gear.serves is not None:
                yield f"'{gear.id}'", "camera", gear.serves, cameras
            if gear.pocket is not None:
                yield f"'{gear.id}'", "pocket", gear.pocket, pockets
