"""The registry of checks and what they are given."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Final

from ..document import Angle, Assignment, Camera, Interval, Item, Mode, Mount
from ..local_time import ms_at
from ..parameters import Defaults
from ..parameters.serving import Rule
from ..rehearsal.result.record import TripRecord
from ..rehearsal.result.result import CameraResult, Caught, Finding, Severity
from ..rehearsal.result.risk import Single
from ..rehearsal.result.stretch_results import LoopAdvice
from ..serving import against, carried, mount_and_angle
from ..wording.findings import finding_words

Value = str | float | int
Values = Mapping[str, Value]


@dataclass(frozen=True, slots=True)
class Placed:
    """An assignment on its leg or stop, where the camera is there, and what speaks against that."""

    number: int
    assignment: Assignment
    camera: Camera
    item: Item
    mount: Mount
    angle: Angle
    against: tuple[Rule, ...]


@dataclass(frozen=True)
class Seen:
    """What a check may look at; `filmed` is every assignment but stills, with number and mode."""

    record: TripRecord
    cameras: tuple[CameraResult, ...]
    defaults: Defaults
    singles: list[Single] = field(default_factory=list)
    loops: tuple[LoopAdvice, ...] = ()
    moments: tuple[Caught, ...] = ()
    placed: tuple[Placed, ...] = ()
    filmed: tuple[tuple[int, Assignment, Camera, Mode], ...] = ()

    def assignments(self) -> Iterator[tuple[int, Assignment, Camera]]:
        """Every assignment with its number and its camera."""
        cameras = {camera.id: camera for camera in self.record.written.kit.cameras}
        for number, assignment in enumerate(self.record.written.plan.assignments):
            yield number, assignment, cameras[assignment.camera]

    def camera(self, key: str) -> Camera:
        """A camera by its key."""
        return next(c for c in self.record.written.kit.cameras if c.id == key)

    def item_of(self, assignment: int) -> str:
        """The leg or stop of an assignment."""
        return self.record.written.plan.assignments[assignment].item

    def item_number(self, key: str) -> int:
        """Where a leg or stop stands in the trip."""
        return [item.id for item in self.record.written.trip.items].index(key)

    def battery_number(self, key: str) -> int | None:
        """Where a battery stands in the kit; None for what is none."""
        keys = [battery.id for battery in self.record.written.kit.batteries]
        return keys.index(key) if key in keys else None

    def source_number(self, key: str) -> int:
        """Where a source stands in the kit."""
        return [source.id for source in self.record.written.kit.sources].index(key)

    def at_ms(self, local: datetime) -> int:
        """A local clock time, ms from the trip's start."""
        trip = self.record.written.trip
        return ms_at(self.record.timeline.start_utc, trip.time_zone, local)


@dataclass(frozen=True)
class Found:
    """One thing found: where it stands and the values of its sentence."""

    path: str
    values: Values = field(default_factory=dict)
    camera: str | None = None
    item: str | None = None


@dataclass(frozen=True)
class Check:
    """A class of findings: against some there are cures, and no cure brings one of harm.

    Source: model/cures#weighed.
    """

    code: str
    severity: Severity
    look: Callable[[Seen], Iterator[Found]]
    curable: bool
    harm: bool


CHECKS: dict[str, Check] = {}
SEVERITY_ORDER: Final = {"stop": 0, "warn": 1, "note": 2}


def check(
    code: str, severity: Severity, *, curable: bool = False, harm: bool = False
) -> Callable[..., Callable[[Seen], Iterator[Found]]]:
    """Register a generator function as the check of a code."""

    def register(look: Callable[[Seen], Iterator[Found]]) -> Callable[[Seen], Iterator[Found]]:
        if code in CHECKS:
            raise ValueError(f"two checks are called {code}")
        CHECKS[code] = Check(code, severity, look, curable, harm)
        return look

    return register


def findings_of(
    record: TripRecord,
    cameras: tuple[CameraResult, ...],
    defaults: Defaults,
    singles: list[Single],
    loops: tuple[LoopAdvice, ...],
    moments: tuple[Caught, ...],
) -> tuple[Finding, ...]:
    """Everything that the registered checks find, the gravest first."""
    placed, filmed = tuple(_placed(record)), tuple(_filmed(record))
    seen = Seen(record, cameras, defaults, singles, loops, moments, placed, filmed)
    found = [
        Finding(
            code=one.code,
            severity=one.severity,
            path=each.path,
            camera=each.camera,
            item=each.item,
            values=dict(each.values),
            harm=one.harm,
            curable=one.curable,
            text=finding_words(one.code, each.values),
        )
        for one in CHECKS.values()
        for each in one.look(seen)
    ]
    return tuple(sorted(found, key=lambda f: SEVERITY_ORDER[f.severity]))


def _placed(record: TripRecord) -> Iterator[Placed]:
    """Every assignment with its leg or stop, and mount and angle on it."""
    kit, plan = record.written.kit, record.written.plan
    cameras = {camera.id: camera for camera in kit.cameras}
    plans = {camera: carried(plan, camera) for camera in cameras}
    for number, assignment in enumerate(plan.assignments):
        item = record.timeline.by_id[assignment.item].item
        if item is not None:
            mount, angle = mount_and_angle(plans[assignment.camera], assignment)
            rules = tuple(against(kit, item, mount, angle))
            camera = cameras[assignment.camera]
            yield Placed(number, assignment, camera, item, mount, angle, rules)


def _filmed(record: TripRecord) -> Iterator[tuple[int, Assignment, Camera, Mode]]:
    cameras = {camera.id: camera for camera in record.written.kit.cameras}
    for number, assignment in enumerate(record.written.plan.assignments):
        camera = cameras[assignment.camera]
        mode = next((m for m in camera.modes if m.id == assignment.mode), None)
        if mode is not None and not isinstance(assignment.pattern, Interval):
            yield number, assignment, camera, mode
