"""A trip as it was played, told: `rehearse` is the way in."""

from .outcome import rehearse, tell

__all__ = ["rehearse", "tell"]
