"""What is to be cured."""

from __future__ import annotations

from pydantic import Field

from ..document.base import Part


class CureTarget(Part):
    """What is to be cured: minutes of a camera on a leg, or a finding by its code and path."""

    camera: str | None = None
    item: str | None = None
    code: str | None = Field(default=None, description="None: the minutes that are not filmed.")
    path: str = ""
