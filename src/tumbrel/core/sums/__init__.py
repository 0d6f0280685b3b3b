"""Quick sums: one question without a trip, answered by the core's own functions."""

from .questions import Question
from .told import Rope, SumTold, told

__all__ = ["Question", "Rope", "SumTold", "told"]
