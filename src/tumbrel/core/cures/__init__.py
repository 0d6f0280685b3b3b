"""Cures (E11): edits of plan, kit or trip, each rehearsed before it is shown."""

from .judging import Cure, CureTarget, Outcome, cures_of

__all__ = ["Cure", "CureTarget", "Outcome", "cures_of"]
