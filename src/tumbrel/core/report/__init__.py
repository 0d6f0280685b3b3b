"""A trip as it was played, told: `rehearse` is the way in."""

from .outcome import not_rehearsed, rehearse, tell

__all__ = ["not_rehearsed", "rehearse", "tell"]
