"""What was measured and not taken, of all cameras of a kit."""

from __future__ import annotations

from django.contrib.auth.models import User

from tumbrel.core.bench.beside import AirThere, MeasuredBeside, measured_beside
from tumbrel.kit.to_core import kit_of

from .learning import learned_of
from .queries import notebook_seen
from .to_core import notebook_of, question_of


def beside_of(owner: User, kit_id: int, there: AirThere) -> list[MeasuredBeside]:
    """Of each camera with runs, the modes of which the kit foretells something else.

    Raises NotThere.
    """
    row = notebook_seen(owner, kit_id)
    run = {one.camera for one in notebook_of(row).runs}
    found: list[MeasuredBeside] = []
    for camera in kit_of(row.kit).cameras:
        if camera.id in run:
            question = question_of(row, camera.id)
            found += measured_beside(question, learned_of(question), there)
    return found
