"""Answers, each with its arithmetic and a small rope to draw."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ..document.base import Part
from ..parameters import DEFAULTS, Defaults
from .questions import (
    Charge,
    Density,
    FromBank,
    FromPanel,
    Lasts,
    LoopFor,
    OnCard,
    Question,
    Slowing,
    TimeLapse,
    Transfer,
)

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


def told(question: Question, defaults: Defaults = DEFAULTS) -> SumTold:  # noqa: PLR0911 - a table
    """The answer to a question."""
    from . import footage, light, power  # noqa: PLC0415 - they build on what stands here

    match question:
        case Lasts():
            return power.lasts(question, defaults)
        case Charge():
            return power.charge(question, defaults)
        case FromBank():
            return power.from_bank(question, defaults)
        case FromPanel():
            return light.from_panel(question, defaults)
        case Slowing():
            return light.slowed(question)
        case Density():
            return light.density(question)
        case OnCard():
            return footage.on_card(question, defaults)
        case LoopFor():
            return footage.loop_for(question, defaults)
        case TimeLapse():
            return footage.time_lapse(question)
        case Transfer():
            return footage.transfer(question)
