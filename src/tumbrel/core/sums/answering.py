"""Each question and what answers it."""

from __future__ import annotations

from ..parameters import DEFAULTS, Defaults
from . import footage, light, power
from .answer import SumTold
from .questions import (
    Charge,
    Density,
    FromBank,
    FromPanel,
    Lasts,
    LoopFor,
    OnCard,
    Question,
    Shown,
    Slowing,
    TimeLapse,
    Transfer,
)


def answer_of(question: Question, defaults: Defaults = DEFAULTS) -> SumTold:  # noqa: PLR0911 - a table
    """The answer to a question."""
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
        case Shown():
            return footage.shown(question, defaults)
        case TimeLapse():
            return footage.time_lapse(question)
        case Transfer():
            return footage.transfer(question)
