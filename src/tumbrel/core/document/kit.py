"""The kit: cameras with set-ups and modes, and labelled batteries and cards."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from .base import HandSeconds, Key, Label, Part, Share, Watts
from .references import refuse_repeats

FeatureName = Literal["screen", "radio", "positioning", "microphone", "light"]
SpeedClass = Literal["C10", "U1", "U3", "V6", "V10", "V30", "V60", "V90"]


class DrawInWatts(Part):
    """What a mode drinks, measured at the battery."""

    kind: Literal["watts"] = "watts"
    watts: Annotated[float, Field(gt=0.0, le=60.0)]


class DrawByRunTime(Part):
    """What a mode drinks, known by how long a full battery of the camera's family lasts."""

    kind: Literal["lasts"] = "lasts"
    minutes: Annotated[float, Field(gt=0.0, le=10_000.0)]


Draw = Annotated[DrawInWatts | DrawByRunTime, Field(discriminator="kind")]


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


class SetUp(Part):
    """How a camera is built for use (E1.3)."""

    id: Key
    name: Label
    case_factor: Annotated[float, Field(gt=0.0, le=5.0)] = 1.0
    case_a: Annotated[float, Field(ge=0.0, le=2.0)] = 1.0
    air_share: Share = Field(default=1.0, description="The mount's share of the airflow.")
    tau_s: Annotated[float, Field(gt=0.0, le=36_000.0)] | None = Field(
        default=None, description="Measured time constant of the body, seconds."
    )
    swap_s: HandSeconds = 30.0
    swap_gloved_s: HandSeconds = 60.0
    door_blocked_s: HandSeconds = Field(
        default=0.0, description="Added when the mount blocks the battery or card door."
    )
    hot_swap: bool = Field(default=False, description="Swaps power without stopping.")


class Limits(Part):
    """Body temperatures at which a camera stops and may restart (E5.3)."""

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
    speed_mb_s: Annotated[float, Field(gt=0.0, le=5000.0)] = 90.0


Memory = Annotated[CardSlot | FixedMemory, Field(discriminator="kind")]


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
    battery_family: Key
    battery_comes_out: bool = True
    memory: Memory
    boot_s: Annotated[float, Field(ge=0.0, le=120.0)] | None = None
    standby_w: Watts | None = None
    feature_draws: tuple[FeatureDraw, ...] = ()
    starts_itself: bool = Field(default=False, description="Scheduled start without a hand.")
    continues_after_clip: bool = True
    chapter_gb: Annotated[float, Field(gt=0.0, le=1024.0)] | None = None
    limits: Limits | None = None
    start_gesture: str = Field(default="", max_length=200)
    set_ups: Annotated[tuple[SetUp, ...], Field(min_length=1, max_length=12)]
    modes: Annotated[tuple[Mode, ...], Field(min_length=1, max_length=40)]

    @model_validator(mode="after")
    def _own_names_once(self) -> Camera:
        refuse_repeats("set-up", (s.id for s in self.set_ups))
        refuse_repeats("mode", (m.id for m in self.modes))
        refuse_repeats("feature", (f.feature for f in self.feature_draws))
        return self


class BatteryFamily(Part):
    """Batteries that fit the same cameras."""

    id: Key
    name: Label
    mah: Annotated[float, Field(gt=0.0, le=200_000.0)]
    nominal_v: Annotated[float, Field(gt=0.0, le=60.0)]
    mass_g: Annotated[float, Field(ge=0.0, le=5000.0)] = 30.0


class Battery(Part):
    """One labelled battery and its state."""

    id: Key
    name: Label
    family: Key
    health: Annotated[float, Field(gt=0.0, le=1.2)] = 1.0
    charge: Share = 1.0


class Card(Part):
    """One labelled memory card and its state."""

    id: Key
    name: Label
    gb: Annotated[int, Field(ge=1, le=8192)]
    speed_class: SpeedClass = "V30"
    used_bytes: Annotated[int, Field(ge=0, le=8192 * 10**9)] = 0
    mass_g: Annotated[float, Field(ge=0.0, le=50.0)] = 0.5


class Kit(Part):
    """Everything carried, in the order of the shelf."""

    families: Annotated[tuple[BatteryFamily, ...], Field(max_length=20)] = ()
    cameras: Annotated[tuple[Camera, ...], Field(max_length=8)] = ()
    batteries: Annotated[tuple[Battery, ...], Field(max_length=60)] = ()
    cards: Annotated[tuple[Card, ...], Field(max_length=60)] = ()

    @model_validator(mode="after")
    def _names_once_and_families_known(self) -> Kit:
        families = {f.id for f in self.families}
        refuse_repeats("battery family", (f.id for f in self.families))
        refuse_repeats("camera", (c.id for c in self.cameras))
        refuse_repeats("battery", (b.id for b in self.batteries))
        refuse_repeats("card", (c.id for c in self.cards))
        for owner, family in [
            *((f"camera '{c.id}'", c.battery_family) for c in self.cameras),
            *((f"battery '{b.id}'", b.family) for b in self.batteries),
        ]:
            if family not in families:
                raise ValueError(
                    f"{owner} names battery family '{family}', which is not in the kit"
                )
        return self
