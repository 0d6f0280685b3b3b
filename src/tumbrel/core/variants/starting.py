"""The starting set: the four schools and three kits, on the same trip."""

from __future__ import annotations

from typing import Literal

from ..cures import Play
from ..document import PlanDocument
from .kits import lighter, safer, sharper
from .schools import in_school

Start = Literal["roll", "takes", "loop", "leave", "lighter", "safer", "sharper"]

STARTING: dict[Start, tuple[str, str]] = {
    "roll": ("Let it roll", "every stretch from start to end"),
    "takes": ("Short takes", "every stretch in short takes"),
    "loop": ("Loop and keep", "every stretch looped, kept at its moments"),
    "leave": ("Set and leave", "armed on legs, an interval at stops"),
    "lighter": ("Lighter kit", "what is carried for nothing left at home"),
    "safer": ("Safer kit", "one more battery of each family and card, spares warm, early swaps"),
    "sharper": ("Sharper picture", "each camera's most pixels a second, and what that takes more"),
}


def made(document: PlanDocument, start: Start, play: Play) -> PlanDocument:
    """One of the starting set from a document. Raises BadDocument as the rehearsal does."""
    if start == "lighter":
        return lighter(document, play)
    if start == "safer":
        return safer(document, play)
    if start == "sharper":
        return sharper(document, play)
    return in_school(document, start)
