"""What can start a camera that waits: a word that it hears, power that appears."""

from __future__ import annotations

from ...document import Armed, Camera, Module, PlanDocument
from ...parameters import Defaults
from .scene import Written
from .supply_table import supply_table
from .timeline import Laid, Timeline


def answers(camera: Camera, document: PlanDocument | Written) -> set[str]:
    """What starts the camera, or one that is linked with it: a word, a remote.

    Source: model/hands#links.
    """
    link = next((one.cameras for one in document.plan.links if camera.id in one.cameras), ())
    together = {camera.id, *link}
    return {how for one in document.kit.cameras if one.id in together for how in one.answers_to}


def never_comes(
    pattern: Armed,
    camera: Camera,
    document: PlanDocument | Written,
    part: Laid,
    timeline: Timeline,
    defaults: Defaults,
) -> bool:
    """Whether what an armed camera waits for on a leg or stop cannot come.

    A word that it does not hear; power that no source gives there: the one that the plan names for
    it, else any of the kit, a module only on its own camera. Source: model/patterns#asked.
    """
    if pattern.trigger == "voice":
        return "voice" not in answers(camera, document)
    if pattern.trigger != "power":
        return False
    named = next((c.source for c in document.plan.cameras if c.camera == camera.id), None)
    for source in document.kit.sources:
        if named is not None and source.id != named:
            continue
        if isinstance(source, Module) and source.fits != camera.id:
            continue
        table = supply_table(source, document.trip, timeline, defaults)
        if table.ever(part.start_ms, part.end_ms):
            return False
    return True
