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

RunEnd = Literal["empty", "hot", "card_full", "clip_limit", "stopped"]
Minutes = Annotated[float, Field(gt=0.0, le=2880.0)]


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
        if self.charge_paused_min > self.minutes:
            raise ValueError("charging paused for longer than the run")
        if self.plugged and self.end == "empty":
            raise ValueError("a run on outside power cannot end with an empty battery")
        if self.charge_end is not None and not self.plugged and self.charge_end > self.charge_start:
            raise ValueError("the charge at the end is above the charge at the start")
        return self
