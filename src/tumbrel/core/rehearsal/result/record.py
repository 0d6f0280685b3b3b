"""What happened on a trip, as those see it who judge it: nothing of it goes on changing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ...document import Camera, Gear
from ...memory import Store
from ...mistakes import Mistake
from ..camera.asked_time import FilmedSpan, GapSpan
from ..camera.camera_run import CameraRun
from ..camera.trace import Trace
from ..engine.played import Played
from ..hands.copying import CopyDone
from ..hands.tasks import Skipped, TaskDone
from ..power.grid import HungOn, Switched
from ..stock.batteries import Cell
from ..stock.stays import PlaceStay
from ..trip.asked import Asked
from ..trip.climate import PlaceClimate
from ..trip.outside_power import OutsidePower
from ..trip.scene import Written
from ..trip.timeline import Timeline
from .ledgers import Breach

Row = tuple[int, float, float]


@dataclass(frozen=True, slots=True)
class CameraRecord:
    """A camera: what it was asked, filmed and missed, its course, and what was in it at the end."""

    index: int
    camera: Camera
    spans: Sequence[Asked]
    gaps: Sequence[GapSpan]
    filmed: Sequence[FilmedSpan]
    trace: Trace
    store: Store | None
    refusals: Sequence[tuple[int, str, str]]
    off_w: float
    hottest_c: float
    shortened: Sequence[tuple[int, int, int]]


@dataclass(frozen=True, slots=True)
class BatteryRecord:
    """A battery: where it lay, and its rows of time [ms], charge [0..1], temperature [degC]."""

    id: str
    name: str
    family: str
    charge: float
    home: str
    home_climate: PlaceClimate
    stays: Sequence[PlaceStay]
    rows: Sequence[Row]


@dataclass(frozen=True, slots=True)
class BankRecord:
    """A bank: when its reserve was touched [ms], and its rows as those of a battery."""

    id: str
    name: str
    reserve_touched_ms: int | None
    rows: Sequence[Row]


@dataclass(frozen=True, slots=True)
class GearRecord:
    """Something with a battery: when it was wanted and dead [ms]."""

    gear: Gear
    missing: Sequence[tuple[int, int]]


@dataclass(frozen=True, slots=True)
class TripRecord:
    """A trip as it went, with what was written for names and places."""

    written: Written
    timeline: Timeline
    mistakes: tuple[Mistake, ...]
    cameras: tuple[CameraRecord, ...]
    batteries: tuple[BatteryRecord, ...]
    banks: tuple[BankRecord, ...]
    gear: tuple[GearRecord, ...]
    done: Sequence[TaskDone]
    skipped: Sequence[Skipped]
    copied: Sequence[CopyDone]
    copies_begun: frozenset[int]
    switched: Sequence[Switched]
    hung: Sequence[HungOn]
    outside: Sequence[OutsidePower]
    breaches: tuple[Breach, ...]
    failed: str


def record_of(played: Played, breaches: tuple[Breach, ...] = ()) -> TripRecord:
    """What happened on a trip that was played, with what does not balance of it."""
    hands = played.hands
    return TripRecord(
        written=played.written,
        timeline=played.timeline,
        mistakes=played.mistakes,
        cameras=tuple(_camera(run) for run in played.cameras),
        batteries=tuple(_battery(cell) for cell in played.cells),
        banks=tuple(
            BankRecord(bank.id, bank.name, bank.reserve_touched_ms, bank.rows)
            for bank in played.grid.banks
        ),
        gear=tuple(GearRecord(one.gear, one.missing) for one in played.grid.gears),
        done=hands.done,
        skipped=hands.skipped,
        copied=hands.copying.copied,
        copies_begun=frozenset(hands.copying.begun),
        switched=played.grid.log,
        hung=played.grid.hung,
        outside=played.scene.outside,
        breaches=breaches,
        failed=played.failed,
    )


def _camera(run: CameraRun) -> CameraRecord:
    return CameraRecord(
        index=run.index,
        camera=run.camera,
        spans=run.schedule.spans,
        gaps=run.time.gaps,
        filmed=run.time.filmed,
        trace=run.trace,
        store=run.card.store if run.card is not None else None,
        refusals=run.energy.refusals,
        off_w=run.energy.off_w,
        hottest_c=run.thermal.hottest_c,
        shortened=run.recorder.shortened,
    )


def _battery(cell: Cell) -> BatteryRecord:
    return BatteryRecord(
        id=cell.id,
        name=cell.name,
        family=cell.family,
        charge=cell.charge,
        home=cell.home,
        home_climate=cell.home_climate,
        stays=cell.stays,
        rows=cell.rows,
    )
