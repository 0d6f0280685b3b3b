"""Cards and fixed memories as they fill, are swapped and wiped."""

from __future__ import annotations

from mypy_extensions import mypyc_attr

from ..state.append_log import Log
from ..trip.scene import BAG, CardAtStart
from .stays import PlaceStay


@mypyc_attr(serializable=True)
class CardRun:
    """A card or fixed memory during the rehearsal, in bytes; nominal size in GB."""

    __slots__ = (
        "came_ms",
        "came_used",
        "gb",
        "overwritten",
        "place",
        "read_bytes_s",
        "stays",
        "store",
        "used",
        "wiped",
        "written",
    )

    def __init__(self, carried: CardAtStart) -> None:
        self.store = carried.store
        self.used = self.came_used = carried.used
        self.gb = carried.gb
        self.read_bytes_s = carried.read_bytes_s
        self.place = BAG
        self.written = self.overwritten = self.wiped = 0
        self.came_ms = 0
        self.stays: Log[PlaceStay] = Log()

    @property
    def free(self) -> int:
        """Bytes that still fit."""
        return max(0, self.store.usable_bytes - self.used)

    def move(self, place: str, at_ms: int) -> None:
        """Close the stay and begin one elsewhere."""
        self.close(at_ms)
        self.place = place
        self.came_ms, self.came_used = at_ms, self.used

    def close(self, at_ms: int) -> None:
        """End the stay."""
        if at_ms > self.came_ms:
            self.stays.append(
                PlaceStay(self.place, self.came_ms, float(self.came_used), at_ms, float(self.used))
            )
