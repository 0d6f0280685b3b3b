"""What a pair of hands does, one class a kind of task, and what was done (model/hands#tasks)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal

from mypy_extensions import mypyc_attr

from ...document import Copy
from ..camera.camera_run import CameraRun
from ..power.consumer import Consumer
from ..power.loads import ChargerRun, Supply
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..trip.asked import Asked

TaskKind = Literal["restart", "swap", "card", "module", "move", "plug", "wake", "copy", "copy_end"]
PLUG_RANK: Final = 3
COPY_RANK: Final = 4
NO_CAMERA: Final = -1


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

    @property
    def kind(self) -> TaskKind:
        """What it is, in the board's word."""
        raise NotImplementedError

    def rank(self) -> tuple[int, int, int]:
        """Importance, then least time to give out, then document."""
        return (self.importance, self.lasts_ms, self.order)

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


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class OnCamera(Task):
    """A task on a camera."""

    run: CameraRun

    @property
    def handled(self) -> CameraRun | None:
        """The camera."""
        return self.run


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class PerhapsOnCamera(Task):
    """A task on a camera, or on things that lie about."""

    run: CameraRun | None

    @property
    def handled(self) -> CameraRun | None:
        """The camera, where there is one."""
        return self.run


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class Restart(OnCamera):
    """Press again on a camera that went off."""

    @property
    def kind(self) -> TaskKind:
        """In the board's word."""
        return "restart"


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class SwapBattery(OnCamera):
    """Another battery into a camera; `said_at` is the leg or stop at which the plan says so."""

    cell: Cell
    said_at: str = ""

    @property
    def kind(self) -> TaskKind:
        """In the board's word."""
        return "swap"

    @property
    def unit(self) -> str:
        """The battery that goes in."""
        return self.cell.id


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class SwapCard(OnCamera):
    """Another card into a camera; `said_at` is the leg or stop at which the plan says so."""

    card: CardRun
    said_at: str = ""

    @property
    def kind(self) -> TaskKind:
        """In the board's word."""
        return "card"


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class SwapModule(OnCamera):
    """Another module onto a camera; `said_at` is the leg or stop at which the plan says so."""

    supply: Supply
    said_at: str = ""

    @property
    def kind(self) -> TaskKind:
        """In the board's word."""
        return "module"

    @property
    def unit(self) -> str:
        """The module that goes on."""
        return self.supply.source.id


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class Remount(OnCamera):
    """A camera onto another mount, or built another way, for a stretch (model/hands#moving)."""

    span: Asked

    @property
    def kind(self) -> TaskKind:
        """In the board's word."""
        return "move"


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class PlugIn(PerhapsOnCamera):
    """A camera, charger or bank onto a port of a source."""

    consumer: Consumer
    supply: Supply
    port: int = -1
    stays: bool = False

    @property
    def kind(self) -> TaskKind:
        """In the board's word."""
        return "plug"

    @property
    def unit(self) -> str:
        """The battery or bank that is charged."""
        return self.consumer.unit


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class LayInCharger(PerhapsOnCamera):
    """A battery into a bay, out of a camera perhaps; the charger onto a source, if it hangs not."""

    cell: Cell
    charger: ChargerRun
    bay: int
    supply: Supply | None

    @property
    def kind(self) -> TaskKind:
        """In the board's word."""
        return "plug"

    @property
    def unit(self) -> str:
        """The battery."""
        return self.cell.id


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class WakeBank(Task):
    """Press the button of a bank that has switched itself off."""

    supply: Supply

    @property
    def kind(self) -> TaskKind:
        """In the board's word."""
        return "wake"


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class BeginCopy(PerhapsOnCamera):
    """The cable of a copying goes in."""

    number: int
    copy: Copy

    @property
    def kind(self) -> TaskKind:
        """In the board's word."""
        return "copy"


@mypyc_attr(serializable=True)
@dataclass(slots=True, eq=False)
class EndCopy(PerhapsOnCamera):
    """The cable of a copying comes off."""

    number: int

    @property
    def kind(self) -> TaskKind:
        """In the board's word."""
        return "copy_end"


AnyTask = (
    Restart
    | SwapBattery
    | SwapCard
    | SwapModule
    | Remount
    | PlugIn
    | LayInCharger
    | WakeBank
    | BeginCopy
    | EndCopy
)


def changes_power(task: AnyTask) -> bool:
    """Whether grants of sources are made anew after a task; a battery may leave a charger."""
    if isinstance(task, SwapBattery):
        return task.cell.in_charger
    return isinstance(task, PlugIn | LayInCharger | WakeBank | SwapModule)


@dataclass(frozen=True, slots=True)
class TaskDone:
    """A task that was done, for the board; a copy with its cable, or by radio."""

    start_ms: int
    end_ms: int
    camera: int
    kind: TaskKind
    out_name: str
    in_name: str
    unit: str = ""
    cable: bool = True


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
