"""Rehearsals asked for by the page, from a checkpoint of the one before where that is the same."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from threading import Condition, Lock

from tumbrel.core.document import PlanDocument
from tumbrel.core.parameters import DEFAULTS
from tumbrel.core.rehearsal.checkpoints import Earlier, play_from
from tumbrel.core.rehearsal.outcome import tell
from tumbrel.core.rehearsal.result import Rehearsal

from .to_core import sun_days

MOST_TRIPS = 4
LONGEST_WAIT_S = 2.0

_lock = Lock()
_earlier: OrderedDict[str, Earlier] = OrderedDict()
_first_ones = Condition()
_first_count = 0


@contextmanager
def _going_first() -> Iterator[None]:
    """While it lasts, rehearsals that are only made aside wait."""
    global _first_count  # noqa: PLW0603 - one number for all threads of the server
    with _first_ones:
        _first_count += 1
    try:
        yield
    finally:
        with _first_ones:
            _first_count -= 1
            _first_ones.notify_all()


def _let_others_first() -> None:
    """Wait until no edit is being rehearsed: threads would share one processor with it."""
    if _first_count:
        with _first_ones:
            _first_ones.wait_for(lambda: _first_count == 0, LONGEST_WAIT_S)


def rehearse_again(document: PlanDocument, *, aside: bool = False) -> Rehearsal:
    """Rehearse a document; an edit of a late day starts from the morning before it.

    What is asked aside (what another choice would change) lets edits go first.

    The last few trips are kept in memory by name and start. Nothing leans on them: a trip that is
    not there is played from its start, with the same result. Raises BadDocument as the core does.
    """
    if aside:
        return _rehearse(document, _let_others_first)
    with _going_first():
        return _rehearse(document, None)


def _rehearse(document: PlanDocument, breathe: Callable[[], None] | None) -> Rehearsal:
    key = f"{document.trip.name}|{document.trip.start.isoformat()}"
    with _lock:
        known = _earlier.get(key)
    played, now = play_from(document, known, DEFAULTS, sun_days, breathe)
    with _lock:
        _earlier[key] = now
        _earlier.move_to_end(key)
        while len(_earlier) > MOST_TRIPS:
            _earlier.popitem(last=False)
    return tell(played, DEFAULTS)


def rehearser_of(document: PlanDocument) -> Callable[[PlanDocument], Rehearsal]:
    """Rehearses changes of a document from its checkpoints, one after the other; edits go first."""
    _, known = play_from(document, None, DEFAULTS, sun_days, _let_others_first)

    def again(changed: PlanDocument) -> Rehearsal:
        played, _ = play_from(changed, known, DEFAULTS, sun_days, _let_others_first)
        return tell(played, DEFAULTS)

    return again
