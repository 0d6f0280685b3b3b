"""What a pair of hands does: one thing at a time (E8)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ...document import Copy, PlanDocument
from ..camera.camera_run import CameraRun
from ..power.loads import BankRun, Consumer, Supply
from ..stock.batteries import Cell
from ..stock.cards import CardRun

TaskKind = Literal["restart", "swap", "card", "plug", "wake", "copy", "copy_end"]
PLUG_RANK, COPY_RANK = 3, 4


@dataclass(frozen=True, slots=True)
class Task:
    """One thing for the hands to do; the first three fields are the order of doing (E8.1)."""

    importance: int
    lasts_ms: int
    order: int
    kind: TaskKind
    takes_ms: int
    camera: int = -1
    cell: Cell | None = None
    card: CardRun | None = None
    consumer: Consumer | None = None
    bay: int | None = None
    supply: Supply | None = None
    copy: Copy | None = None
    number: int = -1
    by_hand_of_plan: bool = False

    @property
    def unit(self) -> str:
        """Key of the battery or bank that it is about, else empty."""
        if self.cell is not None:
            return self.cell.id
        if isinstance(self.consumer, CameraRun) and self.consumer.cell is not None:
            return self.consumer.cell.id
        return self.consumer.id if isinstance(self.consumer, BankRun) else ""

    def rank(self) -> tuple[int, int, int]:
        """Importance, then least time to give out, then document."""
        return (self.importance, self.lasts_ms, self.order)


@dataclass(frozen=True, slots=True)
class Done:
    """A task that was done, for the board."""

    start_ms: int
    end_ms: int
    camera: int
    kind: TaskKind
    out_name: str
    in_name: str
    unit: str = ""


@dataclass(frozen=True, slots=True)
class Skipped:
    """A task for which the free hands did not last."""

    at_ms: int
    camera: int
    kind: TaskKind
    takes_ms: int


def holder_of(cameras: list[CameraRun], cell: Cell | None) -> CameraRun | None:
    """The camera that a battery is in, if it is in one."""
    if cell is None or not cell.in_camera:
        return None
    return next((run for run in cameras if run.cell is cell), None)


def links_of(document: PlanDocument, cameras: list[CameraRun]) -> dict[int, tuple[int, ...]]:
    """For each linked camera, the others of its link."""
    index = {run.camera.id: run.index for run in cameras}
    return {
        index[name]: tuple(index[other] for other in link.cameras if other != name)
        for link in document.plan.links
        for name in link.cameras
    }
