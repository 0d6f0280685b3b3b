"""Cures (model/cures#weighed): edits of plan, kit or trip, each rehearsed before it is shown."""

from .judging import Cure, Outcome, Play, cures_of
from .target import CureTarget

__all__ = ["Cure", "CureTarget", "Outcome", "Play", "cures_of"]
