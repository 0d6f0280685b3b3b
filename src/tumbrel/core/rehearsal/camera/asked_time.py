"""The account of asked time: filmed, or a gap with its cause (E2.2, E9)."""

from __future__ import annotations

from dataclasses import dataclass

from ..state.append_log import Log
from ..trip.asked import Asked
from .causes import CAUSE_ORDER, FILMING, Cause
from .forecast import Forecast


@dataclass(frozen=True, slots=True)
class GapSpan:
    """Asked and not filmed."""

    start_ms: int
    end_ms: int
    cause: Cause
    assignment: int


@dataclass(frozen=True, slots=True)
class FilmedSpan:
    """Asked and filmed, on one card and one battery."""

    start_ms: int
    end_ms: int
    assignment: int
    card: str
    battery: str


class Account(Forecast):
    """Keeps asked = filmed + gaps, to the millisecond."""

    __slots__ = (
        "asked",
        "film_since_ms",
        "filmed",
        "gap_cause",
        "gap_since_ms",
        "gaps",
        "holds",
    )

    def open_account(self) -> None:
        """Nothing asked yet, nothing held back."""
        self.asked: Asked | None = None
        self.holds: dict[Cause, int] = {}
        self.gap_since_ms: int | None = None
        self.gap_cause = Cause.BOOT
        self.film_since_ms: int | None = None
        self.gaps: Log[GapSpan] = Log()
        self.filmed: Log[FilmedSpan] = Log()

    def account(self) -> None:
        """Bring filmed and gap spans into line with what holds now."""
        if self.asked is None:
            self.close_spans()
            return
        if self.state in FILMING:
            self._close_gap()
            if self.film_since_ms is None:
                self.film_since_ms = self.now_ms
            return
        self._close_film()
        if self.gap_since_ms is not None and self.gap_cause in self.holds:
            return
        self._close_gap()
        self.gap_since_ms = self.now_ms
        self.gap_cause = min(
            self.holds, key=lambda c: (self.holds[c], CAUSE_ORDER[c]), default=Cause.BOOT
        )

    def close_spans(self) -> None:
        """End whatever span is open."""
        self._close_film()
        self._close_gap()

    def _close_film(self) -> None:
        if self.film_since_ms is None or self.asked is None:
            return
        if self.film_since_ms < self.now_ms and self.card:
            battery = self.cell.id if self.cell and not self.battery_out else ""
            number = self.asked.assignment
            self.filmed.append(
                FilmedSpan(self.film_since_ms, self.now_ms, number, self.card.store.id, battery)
            )
        self.film_since_ms = None

    def _close_gap(self) -> None:
        if self.gap_since_ms is None or self.asked is None:
            return
        if self.gap_since_ms < self.now_ms:
            span = GapSpan(self.gap_since_ms, self.now_ms, self.gap_cause, self.asked.assignment)
            self.gaps.append(span)
        self.gap_since_ms = None
