"""What serves where, and what a picture wants, for the page."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import suppress

from tumbrel.core.cures import Cure, Outcome, cures_of
from tumbrel.core.document import BadDocument, FieldFault, PlanDocument
from tumbrel.core.picture import PictureTold, picture_told
from tumbrel.core.rehearsal.trip.timeline import lay_out
from tumbrel.core.serving import matrix_of, served
from tumbrel.working.watch import Abandoned, OutOfBounds

from .rehearsing import Breathe, player_of
from .schemas import CureLine, CuresAsked, ServingTold
from .to_core import sun_days


def serving_of(document: PlanDocument) -> ServingTold:
    """All cameras on all legs, and the matrix that this is by."""
    return ServingTold(legs=served(document), matrix=matrix_of(document.kit))


def picture_of(document: PlanDocument, camera: str, item: str) -> PictureTold:
    """Light, shutter, filter and slowing of one camera on one leg. Raises BadDocument."""
    cameras = {one.id: one for one in document.kit.cameras}
    items = {one.id: one for one in document.trip.items}
    for name, what, known in ((camera, "camera", cameras), (item, "item", items)):
        if name not in known:
            raise BadDocument((FieldFault(what, f"'{name}' is not in the document"),))
    line = lay_out(document.trip, sun_days)
    return picture_told(document, line, cameras[camera], items[item])


def cure_lines(breathe: Breathe, asked: str) -> Iterator[bytes]:
    """Cures as they are found, a line of JSON each, the outcome last. Raises BadDocument at once.

    A search that takes too long ends with what it has found, and says so.
    """
    question = CuresAsked.model_validate_json(asked)
    found = cures_of(question.document, question.target, player_of(question.document, breathe))
    count = 0
    try:
        for each in found:
            count += isinstance(each, Cure)
            yield _line(each)
    except OutOfBounds as error:
        if not count:
            raise
        why = f"The search {error.faults[0].why.split(';', maxsplit=1)[0]}; there may be more."
        yield _line(Outcome(tried=count, order=tuple(range(count)), why=why))


def begun(lines: Iterator[bytes]) -> Iterator[bytes]:
    """The same lines, with the first one there already: what is refused is refused at once."""
    first = next(lines)

    def rest() -> Iterator[bytes]:
        yield first
        with suppress(Abandoned):  # whoever asked has gone
            yield from lines

    return rest()


def _line(each: Cure | Outcome) -> bytes:
    told = CureLine(cure=each) if isinstance(each, Cure) else CureLine(outcome=each)
    return told.model_dump_json().encode("utf-8") + b"\n"
