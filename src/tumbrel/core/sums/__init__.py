"""Quick sums: one question without a trip, answered by the core's own functions."""

from .answering import told
from .questions import Question
from .told import Rope, SumTold

__all__ = ["Question", "Rope", "SumTold", "told"]
