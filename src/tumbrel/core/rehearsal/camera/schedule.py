"""What a camera is asked, in order, and what stretches of it add up to."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Sum:
    """What some asked stretches add up to."""

    wh: float
    bytes: float
    peak_rate: int
    importance: int
    asked_ms: int
    last_w: float
    last_rate: float
