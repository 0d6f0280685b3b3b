"""The account of asked time: filmed, or a gap with its cause.

Source: model/time#ties, model/results#verdict, model/results#gaps.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final

from mypy_extensions import mypyc_attr

from ..state.append_log import Log
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..trip.asked import Asked
from .causes import CAUSE_ORDER, Cause


class GapSpan:
    """Asked and not filmed."""

    __slots__ = ("assignment", "cause", "end_ms", "start_ms")

    def __init__(self, start_ms: int, end_ms: int, cause: Cause, assignment: int) -> None:
        self.start_ms: Final = start_ms
        self.end_ms: Final = end_ms
        self.cause: Final = cause
        self.assignment: Final = assignment


class FilmedSpan:
    """Asked and filmed, on one card and one battery."""

    __slots__ = ("assignment", "battery", "card", "end_ms", "start_ms")

    def __init__(
        self, start_ms: int, end_ms: int, assignment: int, card: str, battery: str
    ) -> None:
        self.start_ms: Final = start_ms
        self.end_ms: Final = end_ms
        self.assignment: Final = assignment
        self.card: Final = card
        self.battery: Final = battery


@mypyc_attr(serializable=True)
class AskedTime:
    """Keeps asked = filmed + gaps, to the millisecond.

    Of a gap by cold, what lasts longer than warmth would have carried it on (`cold_left_ms`) is
    told as empty (model/results#gaps).
    """

    __slots__ = (
        "_film_since_ms",
        "_gap_cause",
        "_gap_since_ms",
        "cold_left_ms",
        "filmed",
        "gaps",
    )

    def __init__(self) -> None:
        self._gap_since_ms: int | None = None
        self._gap_cause = Cause.BOOT
        self._film_since_ms: int | None = None
        self.cold_left_ms = 0
        self.gaps: Log[GapSpan] = Log()
        self.filmed: Log[FilmedSpan] = Log()

    def account(
        self,
        now_ms: int,
        asked: Asked | None,
        holds: Mapping[Cause, int] | None,
        card: CardRun | None,
        cell: Cell | None,
    ) -> None:
        """Bring spans into line with what holds now: it films (no `holds`), or is held by those.

        A gap goes on while its cause holds, else another begins. `cell` is the battery that it ran
        on, None where that was outside power alone.
        """
        if asked is None:
            return
        if holds is None:
            self._close_gap(now_ms, asked)
            if self._film_since_ms is None:
                self._film_since_ms = now_ms
            return
        self._close_film(now_ms, asked, card, cell)
        if self._gap_since_ms is not None and self._gap_cause in holds:
            return
        self._close_gap(now_ms, asked)
        self._gap_since_ms = now_ms
        self._gap_cause = first_of(holds)

    def close(
        self, now_ms: int, asked: Asked | None, card: CardRun | None, cell: Cell | None
    ) -> None:
        """End whatever span is open."""
        if asked is not None:
            self._close_film(now_ms, asked, card, cell)
            self._close_gap(now_ms, asked)

    def _close_film(
        self, now_ms: int, asked: Asked, card: CardRun | None, cell: Cell | None
    ) -> None:
        since_ms = self._film_since_ms
        self._film_since_ms = None
        if since_ms is None or since_ms >= now_ms or card is None:
            return
        battery = cell.id if cell is not None else ""
        self.filmed.append(FilmedSpan(since_ms, now_ms, asked.assignment, card.store.id, battery))

    def _close_gap(self, now_ms: int, asked: Asked) -> None:
        since_ms = self._gap_since_ms
        self._gap_since_ms = None
        if since_ms is None or since_ms >= now_ms:
            return
        cause, number = self._gap_cause, asked.assignment
        if cause is Cause.COLD:
            until_ms = min(now_ms, since_ms + self.cold_left_ms)
            self.cold_left_ms -= until_ms - since_ms
            if until_ms > since_ms:
                self.gaps.append(GapSpan(since_ms, until_ms, cause, number))
            since_ms, cause = until_ms, Cause.EMPTY
        if since_ms < now_ms:
            self.gaps.append(GapSpan(since_ms, now_ms, cause, number))


def first_of(holds: Mapping[Cause, int]) -> Cause:
    """The cause that has held longest, the graver one first; a boot where none holds."""
    first, since = Cause.BOOT, None
    for cause, at_ms in holds.items():
        rank = (at_ms, CAUSE_ORDER[cause])
        if since is None or rank < since:
            first, since = cause, rank
    return first
