"""A bench run: a camera recorded until it stopped, in known air, with what was seen.

Source: model/learning#fit.
"""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field, field_validator, model_validator

from ..document.base import Celsius, Key, Part, Share
from ..document.kit import FeatureName
from ..document.trip import refuse_offset

RunEnd = Literal["empty", "hot", "card_full", "clip_limit", "stopped", "both_empty", "full"]
Minutes = Annotated[float, Field(gt=0.0, le=2880.0)]


class ShareRead(Part):
    """A per cent that was read on the way: when, and the share [0..1]."""

    at_min: Minutes
    share: Share


Readings = Annotated[tuple[ShareRead, ...], Field(max_length=60)]


class BenchRun(Part):
    """One run. A run that did not end by heat still says "not hot before": it counts."""

    id: Key
    camera: Key
    set_up: Key
    mode: Key
    features: tuple[FeatureName, ...] = ()
    ambient_c: Celsius
    air_mps: Annotated[float, Field(ge=0.0, le=60.0)] = Field(
        default=0.0, description="Airflow at the camera: still 0, a light fan 1 to 2."
    )
    plugged: bool = Field(default=False, description="On outside power while it recorded.")
    charge_start: Annotated[float, Field(gt=0.0, le=1.0)] = 1.0
    charge_end: Share | None = None
    minutes: Minutes
    end: RunEnd
    warned_min: Minutes | None = Field(default=None, description="When it warned of heat.")
    charge_paused_min: Annotated[float, Field(ge=0.0, le=2880.0)] = Field(
        default=0.0, description="Minutes plugged in, but not charging."
    )
    paused_from_min: Minutes | None = Field(
        default=None, description="When charging first paused for warmth."
    )
    resumed_min: Minutes | None = Field(default=None, description="When it went on.")
    store_wh: Annotated[float, Field(gt=0.0, le=1000.0)] | None = Field(
        default=None, description="It ran on a module or bank that holds so much, by its label."
    )
    store_kind: Literal["module", "bank"] = "module"
    store_read: Readings = Field(default=(), description="The module's per cent at times.")
    charging: bool = Field(default=False, description="It was off and only charged.")
    port_w: Annotated[float, Field(gt=0.0, le=200.0)] | None = Field(
        default=None, description="What the port of a charging run gives at most."
    )
    charge_read: Readings = Field(default=(), description="The battery's per cent at times.")
    cell_start_c: Celsius | None = Field(
        default=None, description="How warm the battery was at the start; none: as the room."
    )
    mean_w: Annotated[float, Field(gt=0.0, le=60.0)] | None = Field(
        default=None, description="Mean power over the run, by a meter."
    )
    metered: Literal["battery", "port"] = Field(
        default="battery", description="Where the meter sat: at the cell, or at the camera's port."
    )
    bytes: Annotated[int, Field(ge=0)] | None = None
    at: datetime | None = Field(default=None, description="Local clock time, no offset.")
    firmware: Annotated[str, Field(max_length=40)] = ""
    excluded: Annotated[str, Field(max_length=200)] | None = Field(
        default=None, description="Why it does not count."
    )

    @field_validator("at")
    @classmethod
    def _local(cls, value: datetime | None) -> datetime | None:
        if value is not None:
            refuse_offset(value)
        return value

    @model_validator(mode="after")
    def _holds_together(self) -> BenchRun:
        if self.warned_min is not None and self.warned_min > self.minutes:
            raise ValueError("the warning comes after the end of the run")
        if (self.resumed_min or self.minutes) < (self.paused_from_min or 0.0):
            raise ValueError("charging went on before it paused")
        if self.resumed_min is not None and self.paused_from_min is None:
            raise ValueError("charging went on, but no minute is said at which it paused")
        if self.end == "both_empty" and self.store_wh is None:
            raise ValueError("both were empty: say how much the module or bank holds")
        if (self.end == "full") != (self.charging and self.end == "full"):
            raise ValueError("only a run that charges ends full")
        if self.charging and self.end not in ("full", "stopped"):
            raise ValueError("a run that only charges ends full, or is stopped")
        if self.charging and self.end != "full" and self.charge_end is None:
            raise ValueError("say the charge at the end of charging")
        if self.charge_paused_min > self.minutes:
            raise ValueError("charging paused for longer than the run")
        if self.plugged and self.end == "empty":
            raise ValueError("a run on outside power cannot end with an empty battery")
        fed = self.plugged or self.charging
        if self.charge_end is not None and not fed and self.charge_end > self.charge_start:
            raise ValueError("the charge at the end is above the charge at the start")
        return self
