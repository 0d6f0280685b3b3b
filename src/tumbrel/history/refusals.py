"""Why a change is refused; each is told by the site's one problem module."""

from __future__ import annotations

from pydantic import BaseModel


class NotThere(Exception):
    """Nothing of that number belongs to the owner."""

    def __init__(self, what: str) -> None:
        super().__init__(what)
        self.what = what


class Stale(Exception):
    """Someone saved in between; carries what is kept now."""

    def __init__(self, current: BaseModel, saved_at: str) -> None:
        super().__init__("stale")
        self.current = current
        self.saved_at = saved_at


class InUse(Exception):
    """A unit that goes is used by trips."""

    def __init__(self, what: str, trips: tuple[str, ...]) -> None:
        super().__init__(what)
        self.what = what
        self.trips = trips


class NothingToUndo(Exception):
    """There is no step back (or forward)."""

    def __init__(self, what: str) -> None:
        super().__init__(what)
        self.what = what
