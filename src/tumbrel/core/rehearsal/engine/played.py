"""A scene played through, before it is told."""

from __future__ import annotations

from dataclasses import dataclass

from ...mistakes import Mistake
from ..camera.camera_run import CameraRun
from ..hands.hands import Hands
from ..power.grid import Grid
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..trip.scene import Scene, Written
from ..trip.timeline import Timeline
from .engine import Rehearser


@dataclass(frozen=True)
class Played:
    """The trip played through, before it is told; energy in all batteries and banks [W h].

    `failed` is the kind of the fault of ours for which nothing was played.
    """

    scene: Scene
    cameras: list[CameraRun]
    cells: list[Cell]
    cards: list[CardRun]
    hands: Hands
    grid: Grid
    start_wh: float
    start_bytes: int
    end_wh: float
    failed: str = ""

    @property
    def timeline(self) -> Timeline:
        """The trip laid out."""
        return self.scene.timeline

    @property
    def written(self) -> Written:
        """What the person wrote."""
        return self.scene.written

    @property
    def mistakes(self) -> tuple[Mistake, ...]:
        """Figures that cannot be meant, for which nothing was played."""
        return self.scene.mistakes


def play(scene: Scene) -> Played:
    """Play a scene through; where a figure cannot be meant nothing is asked in it.

    Raises TooMuch when that would cost more than it may.
    """
    rehearser = Rehearser(scene)
    if not scene.mistakes:
        rehearser.play()
    rehearser.close()
    return played_of(rehearser)


def begun(scene: Scene) -> Rehearser:
    """A scene played through its first millisecond: what starts at once has started."""
    rehearser = Rehearser(scene)
    rehearser.play(1)
    return rehearser


def played_of(rehearser: Rehearser) -> Played:
    """What a rehearser that is through leaves to be told."""
    return Played(
        rehearser.scene,
        rehearser.cameras,
        rehearser.cells,
        rehearser.cards,
        rehearser.hands,
        rehearser.grid,
        rehearser.start_wh,
        rehearser.start_bytes,
        rehearser.held_wh(),
    )
