"""Variants: other states of a plan, made by rule or by hand, and what each gives and costs."""

from .kits import lighter, safer, sharper
from .ledger import Compared, Ledger, StretchTold, ledger_of
from .schools import in_school
from .starting import STARTING, Start, made

__all__ = [
    "STARTING",
    "Compared",
    "Ledger",
    "Start",
    "StretchTold",
    "in_school",
    "ledger_of",
    "lighter",
    "made",
    "safer",
    "sharper",
]
