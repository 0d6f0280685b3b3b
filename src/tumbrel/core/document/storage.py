"""Where footage lies: cards, and the phones and drives that copies go to."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import Key, Label, Money, Part

SpeedClass = Literal["C10", "U1", "U3", "V6", "V10", "V30", "V60", "V90"]
MegabytesPerSecond = Annotated[float, Field(gt=0.0, le=5000.0)]


class Card(Part):
    """One labelled memory card and its state."""

    id: Key
    name: Label
    gb: Annotated[int, Field(ge=1, le=8192)]
    speed_class: SpeedClass = "V30"
    used_bytes: Annotated[int, Field(ge=0, le=8192 * 10**9)] = 0
    read_mb_s: MegabytesPerSecond | None = None
    mass_g: Annotated[float, Field(ge=0.0, le=50.0)] = 0.5
    cost: Money = None


class Drive(Part):
    """A phone, drive or computer that takes copies."""

    id: Key
    name: Label
    kind: Literal["phone", "drive", "computer"] = "drive"
    free_gb: Annotated[float, Field(ge=0.0, le=100_000.0)]
    write_mb_s: MegabytesPerSecond = 60.0
    link_mb_s: MegabytesPerSecond = 30.0
    radio_mb_s: MegabytesPerSecond | None = Field(
        default=None, description="By the camera's radio; none: typical."
    )
    mass_g: Annotated[float, Field(ge=0.0, le=10_000.0)] = 50.0
    cost: Money = None
