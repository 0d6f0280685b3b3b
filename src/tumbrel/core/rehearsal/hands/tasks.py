"""What a pair of hands does, one class a kind of task, and what was done (model/hands#tasks)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from mypy_extensions import mypyc_attr

from ...document import Copy
from ..camera.camera_run import CameraRun
from ..power.loads import ChargerRun, Consumer, Supply
from ..stock.batteries import Cell
from ..stock.cards import CardRun

TaskKind = Literal["restart", "swap", "card", "plug", "wake", "copy", "copy_end"]
PLUG_RANK, COPY_RANK = 3, 4
NO_CAMERA = -1


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class Task:
    """One thing for the hands to do; the first three fields are the order of doing.

    Source: model/hands#tasks.
    """

    importance: int
    lasts_ms: int
    order: int
    takes_ms: int

    def rank(self) -> tuple[int, int, int]:
        """Importance, then least time to give out, then document."""
        return (self.importance, self.lasts_ms, self.order)

    @property
    def kind(self) -> TaskKind:
        """Under which word it is told."""
        raise NotImplementedError

    @property
    def handled(self) -> CameraRun | None:
        """The camera that is in the hands meanwhile, if any."""
        return None

    @property
    def camera(self) -> int:
        """Number of that camera, or NO_CAMERA."""
        return NO_CAMERA if self.handled is None else self.handled.index

    @property
    def unit(self) -> str:
        """Key of the battery or bank that it is about, else empty."""
        return ""

    @property
    def of_power(self) -> bool:
        """Whether grants of sources are made anew after it."""
        return False


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class Restart(Task):
    """Press again on a camera that went off."""

    run: CameraRun

    @property
    def kind(self) -> TaskKind:
        """A restart."""
        return "restart"

    @property
    def handled(self) -> CameraRun | None:
        """The camera."""
        return self.run


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class SwapBattery(Task):
    """Another battery into a camera; `said_at` is the leg or stop at which the plan says so."""

    run: CameraRun
    cell: Cell
    said_at: str = ""

    @property
    def kind(self) -> TaskKind:
        """A swap."""
        return "swap"

    @property
    def handled(self) -> CameraRun | None:
        """The camera."""
        return self.run

    @property
    def unit(self) -> str:
        """The battery that goes in."""
        return self.cell.id

    @property
    def of_power(self) -> bool:
        """Whether it comes out of a charger."""
        return self.cell.in_charger


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class SwapCard(Task):
    """Another card into a camera."""

    run: CameraRun
    card: CardRun

    @property
    def kind(self) -> TaskKind:
        """A card."""
        return "card"

    @property
    def handled(self) -> CameraRun | None:
        """The camera."""
        return self.run


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class PlugIn(Task):
    """A camera, charger or bank onto a port of a source."""

    consumer: Consumer
    supply: Supply
    run: CameraRun | None = None

    @property
    def kind(self) -> TaskKind:
        """A plug."""
        return "plug"

    @property
    def handled(self) -> CameraRun | None:
        """The camera, where one is plugged."""
        return self.run

    @property
    def unit(self) -> str:
        """The battery or bank that is charged."""
        return self.consumer.unit

    @property
    def of_power(self) -> bool:
        """Always."""
        return True


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class LayInCharger(Task):
    """A battery into a bay, out of a camera perhaps; the charger onto a source, if it hangs not."""

    cell: Cell
    charger: ChargerRun
    bay: int
    supply: Supply | None
    run: CameraRun | None = None

    @property
    def kind(self) -> TaskKind:
        """A plug."""
        return "plug"

    @property
    def handled(self) -> CameraRun | None:
        """The camera that it comes out of."""
        return self.run

    @property
    def unit(self) -> str:
        """The battery."""
        return self.cell.id

    @property
    def of_power(self) -> bool:
        """Always."""
        return True


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class WakeBank(Task):
    """Press the button of a bank that has switched itself off."""

    supply: Supply

    @property
    def kind(self) -> TaskKind:
        """A waking."""
        return "wake"

    @property
    def of_power(self) -> bool:
        """Always."""
        return True


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class BeginCopy(Task):
    """The cable of a copying goes in."""

    number: int
    copy: Copy
    run: CameraRun | None = None

    @property
    def kind(self) -> TaskKind:
        """A copying."""
        return "copy"

    @property
    def handled(self) -> CameraRun | None:
        """The camera that it is copied from."""
        return self.run


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class EndCopy(Task):
    """The cable of a copying comes off."""

    number: int
    run: CameraRun | None = None

    @property
    def kind(self) -> TaskKind:
        """The end of a copying."""
        return "copy_end"

    @property
    def handled(self) -> CameraRun | None:
        """The camera that it was copied from."""
        return self.run


AnyTask = Restart | SwapBattery | SwapCard | PlugIn | LayInCharger | WakeBank | BeginCopy | EndCopy


@dataclass(frozen=True, slots=True)
class TaskDone:
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
