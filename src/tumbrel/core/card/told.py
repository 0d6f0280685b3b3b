"""What a card tells: frozen, typed, the same for page, paper, calendar and table.

Times: ms from trip start; `clock` and `day` are local.
"""

from __future__ import annotations

from datetime import datetime

from ..document import Importance
from ..document.base import Part
from ..local_time import local_at
from ..rehearsal.result.result import MoveKind


class CardMove(Part):
    """One thing that the hands do; `key` stays the same while the plan asks the same of it.

    `say` is what to do, `where` where things come from and go, `how` slot and gesture, `why` what
    it is for. `dear` says that it must not be missed. No `camera` where none is in the hands.
    """

    key: str
    number: int
    at_ms: int
    clock: str
    camera: str
    kind: MoveKind
    say: str
    where: str
    how: str
    why: str
    takes_s: int
    importance: Importance | None
    dear: bool

    @property
    def told(self) -> str:
        """To which camera, and what: "Chin: A3 out, A2 in"."""
        return f"{self.camera}: {self.say}" if self.camera else self.say


class Filming(Part):
    """A camera at a stop and on what follows it, or on a leg: what it films, and until when."""

    camera: str
    what: str
    until_ms: int
    until: str
    ends: str


class Shot(Part):
    """A moment wanted on the next leg."""

    name: str
    count: int
    importance: Importance
    on: str


class CardPlace(Part):
    """A stop, leg or wait: its work, what films then, what is wanted next, and what to mind.

    `spare_s` is what is left of free hands when all is done; negative when it is short.
    `leave_out` names moves by key, what to leave out first.
    """

    item: str
    name: str
    kind: str
    day: str
    start_ms: int
    end_ms: int
    start: str
    end: str
    hands_free: bool
    asleep: str
    moves: tuple[CardMove, ...]
    spare_s: int
    leave_out: tuple[str, ...]
    films: tuple[Filming, ...]
    shots: tuple[Shot, ...]
    cautions: tuple[str, ...]


class FullUnit(Part):
    """A battery or bank that must be full at a time, as the plan says."""

    unit: str
    at_ms: int
    say: str


class TripCard(Part):
    """A whole trip for the pocket. `revision` names the plan that it tells."""

    trip: str
    revision: str
    start_utc: datetime
    time_zone: str
    duration_ms: int
    places: tuple[CardPlace, ...]
    full_by: tuple[FullUnit, ...] = ()

    def local(self, at_ms: int) -> datetime:
        """A time on the trip's own clock."""
        return local_at(self.start_utc, self.time_zone, at_ms)


class StopChanged(Part):
    """A stop whose work another plan changes, with what is said of it."""

    stop: str
    said: tuple[str, ...]
