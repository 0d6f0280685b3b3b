"""Batteries and cards as they go from bag to camera and back."""

from __future__ import annotations

from dataclasses import dataclass, field

from ..energy import self_discharge_wh
from ..memory import Store

BAG = "bag"


@dataclass(slots=True)
class Stay:
    """A battery or card in one place for a while; level is charge [0..1] or bytes used."""

    place: str
    from_ms: int
    level_from: float
    to_ms: int = 0
    level_to: float = 0.0


@dataclass(slots=True)
class Cell:
    """A battery during the rehearsal."""

    id: str
    name: str
    family: str
    wh: float
    charge: float
    place: str = BAG
    since_ms: int = 0
    lost_wh: float = 0.0
    stays: list[Stay] = field(default_factory=list)

    def rest_until(self, at_ms: int, share_per_month: float) -> None:
        """Bring a spare up to date: it only loses by self-discharge."""
        if self.place == BAG and at_ms > self.since_ms:
            lost = self_discharge_wh(self.wh, self.charge, at_ms - self.since_ms, share_per_month)
            self.charge -= lost / self.wh
            self.lost_wh += lost
            self.since_ms = at_ms

    def move(self, place: str, at_ms: int) -> None:
        """Close the stay and begin one elsewhere."""
        close_stay(self.stays, at_ms, self.charge)
        self.place = place
        self.since_ms = at_ms
        self.stays.append(Stay(place, at_ms, self.charge))


@dataclass(slots=True)
class CardRun:
    """A card or fixed memory during the rehearsal."""

    store: Store
    used: int
    gb: int
    place: str = BAG
    written: int = 0
    stays: list[Stay] = field(default_factory=list)

    @property
    def free(self) -> int:
        """Bytes that still fit."""
        return max(0, self.store.usable_bytes - self.used)

    def move(self, place: str, at_ms: int) -> None:
        """Close the stay and begin one elsewhere."""
        close_stay(self.stays, at_ms, float(self.used))
        self.place = place
        self.stays.append(Stay(place, at_ms, float(self.used)))


def close_stay(stays: list[Stay], at_ms: int, level: float) -> None:
    """End the last stay at a time with a level."""
    if stays:
        stays[-1].to_ms = at_ms
        stays[-1].level_to = level
