"""What serves where, and what a picture wants, for the page."""

from __future__ import annotations

from collections.abc import Iterator

from tumbrel.core.cures import Cure, Outcome, cures_of
from tumbrel.core.document import BadDocument, FieldFault, PlanDocument
from tumbrel.core.picture import PictureTold, picture_told
from tumbrel.core.rehearsal.timeline import lay_out
from tumbrel.core.serving import matrix_of, served

from .rehearsing import rehearser_of
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


def cure_lines(asked: CuresAsked) -> Iterator[str]:
    """Cures as they are found, a line of JSON each, the outcome last. Raises BadDocument at once.

    The search goes on as the lines are read, and ends when nobody reads them any more.
    """
    found = cures_of(asked.document, asked.target, rehearser_of(asked.document))
    first = next(found)

    def lines() -> Iterator[str]:
        yield _line(first)
        for each in found:
            yield _line(each)

    return lines()


def _line(each: Cure | Outcome) -> str:
    told = CureLine(cure=each) if isinstance(each, Cure) else CureLine(outcome=each)
    return told.model_dump_json() + "\n"
