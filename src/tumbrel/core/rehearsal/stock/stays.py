"""Where a battery or card was, and for how long."""

from __future__ import annotations

from dataclasses import dataclass

BAG = "bag"


@dataclass(frozen=True, slots=True)
class Stay:
    """A battery or card in one place for a while; level is charge [0..1] or bytes used."""

    place: str
    from_ms: int
    level_from: float
    to_ms: int = 0
    level_to: float = 0.0


def stay_start(stay: Stay) -> int:
    """When it began [ms]."""
    return stay.from_ms


def stay_end(stay: Stay) -> int:
    """When it ended [ms]."""
    return stay.to_ms
