"""Answers, each with its arithmetic and a small rope to draw."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ..document.base import Part

RopeKind = Literal["charge", "room", "light", "frames"]


class Rope(Part):
    """What narrows or grows, downwards: minutes from the top, and the level there [0..1]."""

    kind: RopeKind
    minutes: tuple[float, ...]
    level: tuple[float, ...]
    top: str
    bottom: str


class SumTold(Part):
    """An answer in a sentence, its value, how it was reckoned, and what is assumed."""

    answer: str
    value: float | None = Field(description="None where nothing ends it.")
    unit: str
    lines: tuple[str, ...]
    assumed: tuple[str, ...]
    rope: Rope
