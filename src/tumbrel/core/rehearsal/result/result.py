"""What a rehearsal tells: frozen, typed, the API's own answer. Times: ms from trip start."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import Field

from ...document import Importance
from ...document.base import Part
from ..camera.causes import Cause
from .gear_results import GearTold
from .stretch_results import HomeTold, LapseTold, LoopAdvice, ReachTold, RunRate

MoveKind = Literal[
    "start", "stop", "swap", "card", "module", "move", "restart", "plug", "wake", "copy", "copy_end"
]
Severity = Literal["stop", "warn", "note"]
CoverageBy = Literal["item", "angle", "importance", "camera"]


class LaidItem(Part):
    """A leg, a stop or a wait on the clock."""

    id: str
    name: str
    kind: Literal["leg", "stop", "wait"]
    start_ms: int
    end_ms: int
    hands_free: bool


class Light(Part):
    """Night, twilight or day between two times."""

    start_ms: int
    end_ms: int
    kind: Literal["night", "twilight", "day"]


class Course(Part):
    """A camera's course as columns of equal length; between two rows everything is near linear.

    A row's state is that of the stretch which ends there.
    """

    t_ms: tuple[int, ...]
    charge: tuple[float, ...]
    body_c: tuple[float, ...]
    cell_c: tuple[float, ...]
    held: tuple[float, ...]
    used_bytes: tuple[int, ...]
    state: tuple[int, ...]


class Filmed(Part):
    """Asked and filmed."""

    start_ms: int
    end_ms: int
    assignment: int
    item: str
    card: str
    battery: str


class Gap(Part):
    """Asked and not filmed. A note is a gap too short to count."""

    start_ms: int
    end_ms: int
    cause: Cause
    assignment: int
    item: str
    importance: Importance
    note: bool
    text: str


class Loss(Part):
    """All counted gaps of one camera on one leg with one cause; minutes add up by camera."""

    camera: str
    item: str
    cause: Cause
    importance: Importance
    assignment: int
    start_ms: int
    end_ms: int
    lost_ms: int
    minutes: int
    text: str


class Minutes(Part):
    """Whole camera minutes: asked = filmed + missing + starting, here and in every sum.

    `watched` are filmed minutes that a loop overwrote: they are in `filmed`.
    """

    asked: int
    filmed: int
    missing: int
    starting: int
    watched: int = 0


class Stay(Part):
    """A battery or card in one place; level is charge [0..1] or bytes used."""

    place: str
    start_ms: int
    end_ms: int
    level_start: float
    level_end: float


class Pooled(Part):
    """A battery or card through the trip; size in W h or usable bytes.

    A battery's charge [0..1] and temperature [degC] at times outside a camera stand beside;
    inside one, the camera's course tells them.
    """

    id: str
    name: str
    size: float
    stays: tuple[Stay, ...]
    t_ms: tuple[int, ...] = ()
    charge: tuple[float, ...] = ()
    cell_c: tuple[float, ...] = ()


class BankCourse(Part):
    """A bank's store [W h], its emergency reserve [0..1], and its course."""

    wh: float
    reserve: float
    t_ms: tuple[int, ...]
    charge: tuple[float, ...]
    cell_c: tuple[float, ...]


class Hung(Part):
    """Something put on a port, or (no unit) taken off it."""

    at_ms: int
    port: int
    unit: str


class SourceTold(Part):
    """A source through the trip: what it gave [W h] and what hung on its ports."""

    id: str
    name: str
    kind: str
    ports: int
    given_wh: float
    bank: BankCourse | None
    hung: tuple[Hung, ...]


class Caught(Part):
    """One kind of moment on one leg: how many, how many whole, seconds caught of seconds.

    `whole` counts those that what is kept follows, and expects the others; `missed` are those of
    which less than half a one is expected.
    """

    item: str
    moment: str
    importance: Importance
    count: int
    whole: float
    missed: int
    caught_s: float
    of_s: float


class AtRisk(Part):
    """Footage that exists in one place only, at the start of every hour of the trip [ms]."""

    place: str
    by_hour_ms: tuple[int, ...]


class Copied(Part):
    """A copying as it went."""

    number: int
    start_ms: int
    end_ms: int
    store: str
    drive: str
    clips: int
    bytes: int
    left_clips: int


class Margins(Part):
    """How near a camera came to each of its ends while on: shares, kelvins, bytes.

    `charge` is what was left above what the cold held back; `room` on the card in it at the end.
    """

    charge: float
    heat_k: float
    room: int


class CameraResult(Part):
    """One camera through the trip."""

    camera: str
    asked_ms: int
    filmed_ms: int
    gap_ms: int
    note_ms: int
    hottest_c: float
    stop_c: float
    margins: Margins
    bytes_written: int
    files: int
    frames: int
    kept_ms: int
    watched_ms: int
    minutes: Minutes
    course: Course
    filmed: tuple[Filmed, ...]
    gaps: tuple[Gap, ...]
    losses: tuple[Loss, ...]


class Move(Part):
    """The hands' work, in the order of doing; `unit` is the battery or bank that it is about.

    `alone` where no camera is in the hands: then `camera` only says beside which it is drawn.
    """

    at_ms: int
    end_ms: int
    item: str
    camera: str
    kind: MoveKind
    takes_out: str = ""
    puts_in: str = ""
    unit: str = ""
    alone: bool = False
    text: str


class Finding(Part):
    """Something the person should know, and the field it comes from."""

    code: str
    severity: Severity
    path: str
    camera: str | None = None
    item: str | None = None
    values: dict[str, str | float | int]
    harm: bool = Field(default=False, description="No advice ever brings it about.")
    curable: bool = Field(default=False, description="Whether cures are looked for.")
    text: str


class Coverage(Part):
    """Asked and filmed ms of one leg, angle, importance or camera.

    Of what was filmed `kept_ms` is left; a loop or an armed camera lets the rest go.
    """

    by: CoverageBy
    key: str
    asked_ms: int
    filmed_ms: int
    kept_ms: int


class FirstToGiveOut(Part):
    """The first thing that gives out and costs asked minutes."""

    camera: str
    cause: Cause
    at_ms: int
    item: str
    before_end_ms: int
    minutes: int
    lost_ms: int


Resource = Literal["battery", "heat", "card", "bank", "module", "port"]


class LeastLeft(Part):
    """The narrowest margin of a camera or source, as a share of what there is [0..1].

    Of a battery or bank what lies above the cold's line and the reserve; of heat the way from a
    room's warmth to the limit; of a port what it could give beyond the draw that it feeds.
    """

    unit: str
    name: str
    resource: Resource
    left: float
    at_ms: int
    item: str


class LargestLoss(Part):
    """The most filmed minutes that would go with one card or camera."""

    store: str
    name: str
    filmed_ms: int
    at_ms: int


class MomentsWhole(Part):
    """Moments of one importance: how many, and how many are kept or expected whole."""

    importance: Importance
    count: int
    whole: float


class Verdict(Part):
    """The plain answer.

    `covered` only where it can be trusted: nothing missing, no finding that stops, every must
    moment expected. `trusted_ms` is what is filmed outside the stretches that a stop is about.
    """

    covered: bool
    asked_ms: int
    filmed_ms: int
    trusted_ms: int
    gap_ms: int
    note_ms: int
    minutes: Minutes
    broken_musts: int
    stops: int
    moments: tuple[MomentsWhole, ...]
    headline: str
    detail: str
    first: FirstToGiveOut | None
    least_left: LeastLeft | None


class Ledgers(Part):
    """The three ledgers, checked before a rehearsal is told."""

    energy_start_wh: float
    energy_brought_wh: float = 0.0
    energy_end_wh: float
    energy_used_wh: float
    energy_lost_wh: float
    bytes_start: int
    bytes_written: int
    bytes_overwritten: int = 0
    bytes_wiped: int = 0
    bytes_end: int
    asked_ms: int
    filmed_ms: int
    gap_ms: int


class Rehearsal(Part):
    """A whole rehearsal."""

    start_utc: datetime
    duration_ms: int
    items: tuple[LaidItem, ...]
    light: tuple[Light, ...]
    cameras: tuple[CameraResult, ...]
    batteries: tuple[Pooled, ...]
    cards: tuple[Pooled, ...]
    sources: tuple[SourceTold, ...]
    least: tuple[LeastLeft, ...]
    gear: tuple[GearTold, ...]
    moments: tuple[Caught, ...]
    loops: tuple[LoopAdvice, ...]
    lapses: tuple[LapseTold, ...] = ()
    rates: tuple[RunRate, ...] = ()
    reaches: tuple[ReachTold, ...] = ()
    at_risk: tuple[AtRisk, ...]
    copies: tuple[Copied, ...]
    moves: tuple[Move, ...]
    findings: tuple[Finding, ...]
    coverage: tuple[Coverage, ...]
    verdict: Verdict
    largest_loss: LargestLoss | None
    footage_ms: int
    looking_through_ms: int
    home: HomeTold
    files: int
    ledgers: Ledgers

    def kept_of(self, importance: Importance) -> int:
        """Milliseconds of one importance that are filmed and kept."""
        rows = (one for one in self.coverage if (one.by, one.key) == ("importance", importance))
        return sum(one.kept_ms for one in rows)
