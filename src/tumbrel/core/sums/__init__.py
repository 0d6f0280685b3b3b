"""Quick sums: one question without a trip, answered by the core's own functions."""

from .answer import Rope, SumTold
from .answering import answer_of
from .questions import Question

__all__ = ["Question", "Rope", "SumTold", "answer_of"]
