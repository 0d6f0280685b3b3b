"""A trip played through, before it is told."""

from __future__ import annotations

from dataclasses import dataclass

from ..document import PlanDocument
from ..light import SunDays, sun_heights_of_day
from ..parameters import DEFAULTS, Defaults
from .camera_run import CameraRun
from .engine import Rehearser
from .hands import Hands
from .pools import CardRun, Cell
from .power import Grid
from .timeline import Timeline, lay_out
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


def play(
    document: PlanDocument,
    defaults: Defaults = DEFAULTS,
    sun_days: SunDays = sun_heights_of_day,
) -> Played:
    """Play a document through.

    Raises BadDocument when its times make no trip or it asks for too many takes.
    """
    timeline = lay_out(document.trip, sun_days)
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
