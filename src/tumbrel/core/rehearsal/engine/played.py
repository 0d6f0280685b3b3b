"""A trip played through, before it is told."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ...document import PlanDocument
from ...light import SunDays, sun_heights_of_day
from ...mistakes import Mistake, idle, mistakes_of
from ...parameters import DEFAULTS, Defaults
from ..camera.camera_run import CameraRun
from ..hands.hands import Hands
from ..power.grid import Grid
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..trip.timeline import Timeline, lay_out
from .engine import Rehearser
from .too_many import refuse_too_many


@dataclass(frozen=True)
class Played:
    """The trip played through, before it is told."""

    document: PlanDocument
    timeline: Timeline
    cameras: list[CameraRun]
    cells: list[Cell]
    cards: list[CardRun]
    hands: Hands
    grid: Grid
    start_wh: float
    start_bytes: int
    end_wh: float
    mistakes: tuple[Mistake, ...] = ()


def play(
    document: PlanDocument,
    defaults: Defaults = DEFAULTS,
    sun_days: SunDays = sun_heights_of_day,
) -> Played:
    """Play a document through; one with figures that cannot be meant is laid out alone.

    Raises BadDocument when its times make no trip or it asks for too much.
    """
    timeline = lay_out(document.trip, sun_days)
    mistakes = mistakes_of(document.kit)
    if mistakes:
        return unplayed(document, timeline, mistakes, defaults)
    refuse_too_many(document, timeline)
    rehearser = Rehearser(document, timeline, defaults)
    rehearser.play()
    rehearser.close()
    return played_of(rehearser)


def played_of(rehearser: Rehearser) -> Played:
    """What a rehearser that is through leaves to be told."""
    return Played(
        rehearser.document,
        rehearser.timeline,
        rehearser.cameras,
        rehearser.cells,
        rehearser.cards,
        rehearser.hands,
        rehearser.grid,
        rehearser.start_wh,
        rehearser.start_bytes,
        rehearser.held_wh(),
    )


def unplayed(
    document: PlanDocument, timeline: Timeline, mistakes: tuple[Mistake, ...], defaults: Defaults
) -> Played:
    """A trip that is laid out with nothing asked, until figures of the kit are mended."""
    rehearser = Rehearser(idle(document), timeline, defaults)
    rehearser.close()
    return replace(played_of(rehearser), mistakes=mistakes)
