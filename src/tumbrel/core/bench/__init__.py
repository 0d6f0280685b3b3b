"""What a camera really does: runs to the end, and the figures that they teach (E13)."""

from .fit import Learned, learn
from .outlook import Outlook, outlook
from .runs import BenchRun, RunEnd

__all__ = ["BenchRun", "Learned", "Outlook", "RunEnd", "learn", "outlook"]
