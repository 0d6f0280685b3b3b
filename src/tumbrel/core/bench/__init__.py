"""What a camera really does: runs to the end, and the figures that they teach.

Source: model/learning#fit.
"""

from .fit import Learned, learn
from .outlook import Outlook, outlook
from .runs import BenchRun, RunEnd
from .worth import Wanted, Worth, worth_doing

__all__ = [
    "BenchRun",
    "Learned",
    "Outlook",
    "RunEnd",
    "Wanted",
    "Worth",
    "learn",
    "outlook",
    "worth_doing",
]
