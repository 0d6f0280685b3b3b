"""Cards and fixed memories as they fill, are swapped and wiped."""

from __future__ import annotations

from dataclasses import dataclass, field

from ...memory import Store
from ..state.append_log import Log
from .stays import BAG, Stay


@dataclass(slots=True)
class CardRun:
    """A card or fixed memory during the rehearsal."""

    store: Store
    used: int
    gb: int
    read_bytes_s: float
    place: str = BAG
    written: int = 0
    overwritten: int = 0
    wiped: int = 0
    came_ms: int = 0
    came_used: int = 0
    stays: Log[Stay] = field(default_factory=Log)

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
                Stay(self.place, self.came_ms, float(self.came_used), at_ms, float(self.used))
            )
