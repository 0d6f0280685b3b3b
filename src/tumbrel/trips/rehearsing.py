"""Rehearsals asked for by the page, from a checkpoint of the one before where that is the same.

Each of these is done in a process of its own when Tumbrel is served (tumbrel.working).
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from cachetools import LRUCache
from pydantic import ValidationError

from tumbrel.core.document import BadDocument, PlanDocument
from tumbrel.core.document.plan_file import faults_of
from tumbrel.core.parameters import DEFAULTS
from tumbrel.core.rehearsal.engine.checkpoints import Earlier, play_from, play_once
from tumbrel.core.rehearsal.engine.played import Played
from tumbrel.core.rehearsal.result.result import Rehearsal
from tumbrel.core.report import not_rehearsed, tell
from tumbrel.working.watch import Abandoned

from .kept_plans import keep_plan
from .to_core import sun_days

MOST_TRIPS = 4
Breathe = Callable[[], None]

_earlier: LRUCache[str, Earlier] = LRUCache(MOST_TRIPS)


def rehearse_again(breathe: Breathe, document: PlanDocument) -> Rehearsal:
    """Rehearse a document; an edit of a late day starts from the morning before it.

    The last few trips are kept in memory by name and start. Nothing leans on them: a trip that is
    not there is played from its start, with the same result. Raises BadDocument as the core does.
    """
    key = f"{document.trip.name}|{document.trip.start.isoformat()}"

    def play() -> Rehearsal:
        played, now = play_from(document, _earlier.get(key), DEFAULTS, sun_days, breathe)
        told = tell(played, strict=False)
        _earlier[key] = now
        return told

    def afresh() -> Rehearsal:
        _earlier.pop(key, None)
        return tell(play_once(document, None, DEFAULTS, sun_days, breathe), strict=False)

    return _told(document, play, afresh)


def told_of(document: PlanDocument, breathe: Breathe | None = None) -> Rehearsal:
    """A document rehearsed from its start. Raises BadDocument as the core does."""

    def play() -> Rehearsal:
        return tell(play_once(document, None, DEFAULTS, sun_days, breathe), strict=False)

    return _told(document, play)


def _told(document: PlanDocument, *ways: Callable[[], Rehearsal]) -> Rehearsal:
    """What the first way tells that does not fail; a plan at which one does is kept for us.

    No answer is never the answer: where none does, a rehearsal that says so.
    """
    kind = ""
    for way in ways:
        try:
            told = way()
        except (BadDocument, Abandoned):
            raise
        except Exception as error:
            kind = type(error).__name__
            keep_plan(document, kind, error)
            continue
        broken = [one.values["ledger"] for one in told.findings if one.code == "does_not_balance"]
        if broken:
            keep_plan(document, f"{broken[0]} does not balance")
        return told
    return not_rehearsed(document, kind, DEFAULTS, sun_days)


def rehearsal_text(breathe: Breathe, document: str | bytes) -> Iterator[bytes]:
    """A document's rehearsal, both as JSON. Raises BadDocument where it is none."""
    try:
        asked = PlanDocument.model_validate_json(document)
    except ValidationError as error:
        raise BadDocument(faults_of(error)) from error
    told = rehearse_again(breathe, asked)
    yield told.model_dump_json().encode("utf-8")


def player_of(document: PlanDocument, breathe: Breathe) -> Callable[[PlanDocument], Played]:
    """Plays changes of a document from its checkpoints, one after the other."""
    _, known = play_from(document, None, DEFAULTS, sun_days, breathe)

    def again(changed: PlanDocument) -> Played:
        return play_once(changed, known, DEFAULTS, sun_days, breathe)

    return again
