"""What one rehearsal may cost: what would never end is stopped with its reason."""

from __future__ import annotations

from typing import Final

from mypy_extensions import mypyc_attr

from ...document import BadDocument, FieldFault
from ...document.base import DAY_S

MOST_EVENTS: Final = 600_000
MOST_BYTES: Final = 400_000_000
BYTES_A_ROW: Final = 220  # six columns of numbers
BYTES_A_CLIP: Final = 200
EVENTS_BETWEEN: Final = 1024


class TooMuch(BadDocument):
    """A rehearsal that costs more than it may; says when in the trip, and what to do."""

    def __init__(self, why: str, at_ms: int) -> None:
        day = at_ms // (DAY_S * 1000) + 1
        told = f"day {day} of the trip {why}; ask for fewer or longer clips, or make it shorter"
        super().__init__((FieldFault("plan", told),))


@mypyc_attr(serializable=True)
class Budget:
    """Events played and bytes written down so far, against the most that there may be."""

    __slots__ = ("events",)

    def __init__(self) -> None:
        self.events = 0

    def spend(self, at_ms: int) -> bool:
        """Count one event; True when bytes should be looked at. Raises TooMuch."""
        self.events += 1
        if self.events > MOST_EVENTS:
            raise TooMuch(f"takes over {MOST_EVENTS:,} events", at_ms)
        return self.events % EVENTS_BETWEEN == 0

    @staticmethod
    def hold(rows: int, clips: int, at_ms: int) -> None:
        """Raise TooMuch when what is written down would hold more memory than it may."""
        held = rows * BYTES_A_ROW + clips * BYTES_A_CLIP
        if held > MOST_BYTES:
            raise TooMuch(f"would write down over {MOST_BYTES // 1_000_000} MB", at_ms)
