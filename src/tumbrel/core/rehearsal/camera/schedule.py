"""What a camera is asked, in order; how far it has come; and what stretches of it add up to."""

from __future__ import annotations

from bisect import bisect_left
from dataclasses import dataclass

from mypy_extensions import mypyc_attr

from ..trip.asked import Asked


@dataclass(frozen=True, slots=True)
class AskedSum:
    """What some asked stretches add up to."""

    wh: float
    bytes: float
    peak_rate: int
    importance: int
    asked_ms: int
    last_w: float
    last_rate: float


@mypyc_attr(serializable=True)
class Schedule:
    """Asked intervals in order of time.

    `current` is the one that holds, `wanted` the one that the camera is or should be up for (it may
    begin to boot before it is asked), `last_wanted` the last such, and `next` the place of the
    first that has not begun. `sums` keeps what runs of whole stretches come to, by their places.
    """

    __slots__ = ("current", "last_wanted", "next", "spans", "starts_ms", "sums", "wanted")

    def __init__(self, spans: list[Asked]) -> None:
        self.spans = spans
        self.starts_ms = [span.start_ms for span in spans]
        self.sums: dict[tuple[int, int], AskedSum] = {}
        self.next = 0
        self.current: Asked | None = None
        self.wanted: Asked | None = None
        self.last_wanted: Asked | None = None

    def following(self) -> Asked | None:
        """What is asked next."""
        return self.spans[self.next] if self.next < len(self.spans) else None

    def begin(self) -> Asked:
        """The next interval begins to hold."""
        self.current = span = self.spans[self.next]
        self.next += 1
        return span

    def pass_over(self) -> Asked:
        """The next interval was played in one piece."""
        self.last_wanted = span = self.spans[self.next]
        self.next += 1
        return span

    def touches_before(self) -> bool:
        """Whether what is now wanted follows at once on the interval before it."""
        place = self.next if self.current is None else self.next - 1
        return place > 0 and self.spans[place - 1].end_ms == self.spans[place].start_ms

    def first_after(self, now_ms: int) -> int:
        """Place of the first interval that ends after now."""
        place, spans = max(0, self.next - 1), self.spans
        while place < len(spans) and spans[place].end_ms <= now_ms:
            place += 1
        return place

    def within(self, now_ms: int, until_ms: int) -> list[Asked]:
        """What can be filmed between now and then, in order."""
        place, spans = self.first_after(now_ms), self.spans
        found = []
        while place < len(spans) and spans[place].start_ms < until_ms:
            if spans[place].recording is not None:
                found.append(spans[place])
            place += 1
        return found

    def is_asked_before(self, horizon_ms: int) -> bool:
        """Whether anything is asked now or will be before a time."""
        if self.current is not None:
            return True
        following = self.following()
        return following is not None and following.start_ms < horizon_ms

    def asked_at(self, at_ms: int) -> Asked | None:
        """What is asked next after a time, else the last; None when nothing is ever asked."""
        place = bisect_left(self.starts_ms, at_ms)
        return self.spans[min(place, len(self.spans) - 1)] if self.spans else None

    def adopt(self, fresh: Schedule) -> None:
        """Go on with the intervals of a new document that were the same until now."""
        old = self.spans
        self.spans, self.starts_ms, self.sums = fresh.spans, fresh.starts_ms, {}
        self.current = self._same(old, self.current)
        self.wanted = self._same(old, self.wanted)
        self.last_wanted = self._same(old, self.last_wanted)

    def _same(self, old: list[Asked], span: Asked | None) -> Asked | None:
        if span is None:
            return None
        return self.spans[next(n for n, one in enumerate(old) if one is span)]
