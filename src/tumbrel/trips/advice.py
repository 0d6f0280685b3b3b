"""What serves where, and what a picture wants, for the page."""

from __future__ import annotations

from tumbrel.core.document import BadDocument, FieldFault, PlanDocument
from tumbrel.core.picture import PictureTold, picture_told
from tumbrel.core.rehearsal.timeline import lay_out
from tumbrel.core.serving import matrix_of, served

from .schemas import ServingTold
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
