"""Rehearsals asked for by the page, from a checkpoint of the one before where that is the same."""

from __future__ import annotations

from collections import OrderedDict
from threading import Lock

from tumbrel.core.document import PlanDocument
from tumbrel.core.parameters import DEFAULTS
from tumbrel.core.rehearsal.checkpoints import Earlier, play_from
from tumbrel.core.rehearsal.outcome import tell
from tumbrel.core.rehearsal.result import Rehearsal

from .to_core import sun_days

MOST_TRIPS = 4

_lock = Lock()
_earlier: OrderedDict[str, Earlier] = OrderedDict()


def rehearse_again(document: PlanDocument) -> Rehearsal:
    """Rehearse a document; an edit of a late day starts from the morning before it.

    The last few trips are kept in memory by name and start. Nothing leans on them: a trip that is
    not there is played from its start, with the same result. Raises BadDocument as the core does.
    """
    key = f"{document.trip.name}|{document.trip.start.isoformat()}"
    with _lock:
        known = _earlier.get(key)
    played, now = play_from(document, known, DEFAULTS, sun_days)
    with _lock:
        _earlier[key] = now
        _earlier.move_to_end(key)
        while len(_earlier) > MOST_TRIPS:
            _earlier.popitem(last=False)
    return tell(played, DEFAULTS)
