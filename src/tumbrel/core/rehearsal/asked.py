"""What each camera is asked, interval by interval, with the figures that filming it needs."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from enum import Enum, auto

from ..document import (
    Armed,
    Assignment,
    BadDocument,
    Camera,
    FieldFault,
    Interval,
    Leg,
    Loop,
    Mode,
    PlanDocument,
    Roll,
    SetUp,
    Stop,
    Takes,
    Windows,
)
from ..energy import features_w, mode_w
from ..heat import Body, body_of
from ..memory import byte_rate, clip_bytes, peak_byte_rate
from ..parameters import Defaults
from ..patterns import (
    Span,
    armed_spans,
    counted,
    frame_every_ms,
    frame_on_ms,
    how_many,
    middles,
    save_count,
    segment_ms,
    take_spans,
)
from ..shared import Shared
from .timeline import Laid, Timeline
from .windows import window_spans

MOST_ASKED = 40_000
IMPORTANCE_RANK = {"must": 0, "want": 1, "nice": 2}


class Way(Enum):
    """How what is asked is filmed."""

    STREAM = auto()
    LOOP = auto()
    FRAMES = auto()
    ARMED = auto()


@dataclass(frozen=True, slots=True)
class Recording(Shared):
    """How a camera records under one assignment: power, heat, bytes and hands."""

    mode: Mode
    set_up: SetUp
    draw_w: float
    rise_k: float
    byte_rate: int
    peak_rate: int
    clip_limit_ms: int | None
    body: Body
    armed_w: float
    armed_rise_k: float
    boot_w: float
    boot_rise_k: float


@dataclass(frozen=True, slots=True)
class FramePlan:
    """Frames: how often, how large, and how long the camera is on for one (0: all the time)."""

    every_ms: int
    frame_bytes: int
    on_ms: int


@dataclass(frozen=True, slots=True)
class LoopPlan:
    """A loop: its segments, and when it is saved."""

    segment_ms: int
    segments: int
    presses: tuple[int, ...]
    lost_presses: int


@dataclass(slots=True, eq=False)
class Asked(Shared):
    """One asked interval [start, end); `recording` is None when the mode is missing.

    `prepare_ms` is when it can begin to boot; `need_w` and `need_bytes_s` are means over it.
    """

    start_ms: int
    end_ms: int
    assignment: int
    ends_leg: bool
    importance: int
    recording: Recording | None
    prepare_ms: int | None = None
    way: Way = Way.STREAM
    clips: tuple[Span, ...] = ()
    frames: FramePlan | None = None
    loop: LoopPlan | None = None
    need_w: float = 0.0
    need_bytes_s: float = 0.0

    def sure_rise_k(self) -> float:
        """The rise that filming it surely gives [K]; none where the camera waits or rests."""
        if self.recording is None or self.way is Way.ARMED:
            return 0.0
        rests = self.frames is not None and self.frames.on_ms > 0
        return 0.0 if rests else self.recording.rise_k


def refuse_too_many(document: PlanDocument, timeline: Timeline) -> None:
    """Raise BadDocument when the plan asks for more pieces than can be played in a few seconds."""
    asked = 0
    for assignment in document.plan.assignments:
        part = timeline.by_id[assignment.item]
        duration_ms = part.end_ms - part.start_ms
        pattern = assignment.pattern
        if isinstance(pattern, Takes | Armed):
            asked += counted(pattern, duration_ms)
        elif isinstance(pattern, Loop):
            asked += save_count(pattern, duration_ms) or 0
        elif isinstance(pattern, Interval):
            asked += _bursts(pattern, duration_ms)
    if asked > MOST_ASKED:
        why = f"ask for {asked} takes, clips and frames; up to {MOST_ASKED} can be rehearsed"
        raise BadDocument((FieldFault("plan.assignments", why),))


def _bursts(interval: Interval, duration_ms: int) -> int:
    """Frames that are played one by one; faster ones run at mean power (E7.1)."""
    every_ms = frame_every_ms(interval)
    return duration_ms // every_ms if every_ms > 45_000 else 0


class Asking:
    """Makes the asked intervals of one camera."""

    def __init__(
        self,
        camera: Camera,
        document: PlanDocument,
        timeline: Timeline,
        defaults: Defaults,
        between_off: bool,
    ) -> None:
        self.camera = camera
        self.document = document
        self.timeline = timeline
        self.defaults = defaults
        self.between_off = between_off
        boot_s = camera.boot_s if camera.boot_s is not None else defaults.boot_s.value
        self.boot_ms = round(boot_s * 1000)
        self._known: dict[tuple[str, str, tuple[str, ...], bool], Recording | None] = {}

    def all(self) -> list[Asked]:
        """All asked intervals in order of time."""
        asked: list[Asked] = []
        for number, assignment in enumerate(self.document.plan.assignments):
            if assignment.camera == self.camera.id:
                asked += self._of(number, assignment)
        asked.sort(key=lambda span: span.start_ms)
        if self.between_off and self.boot_ms > 0:
            self._boot_early(asked)
        return asked

    def _boot_early(self, asked: list[Asked]) -> None:
        """Note when each can begin to boot: scheduled, or by a free hand (E3.3)."""
        before_ms = 0
        for span in asked:
            early_ms = max(before_ms, span.start_ms - self.boot_ms)
            before_ms = span.end_ms
            may = self.camera.starts_itself or self.timeline.hands_free_at(early_ms)
            if may and early_ms < span.start_ms:
                span.prepare_ms = early_ms

    def _of(self, number: int, assignment: Assignment) -> list[Asked]:
        waits = isinstance(assignment.pattern, Armed) and assignment.pattern.pre_record_s > 0
        features = tuple(sorted(assignment.features))
        key = (assignment.mode, assignment.set_up, features, waits)
        if key not in self._known:
            self._known[key] = recording_of(self.camera, assignment, self.document, self.defaults)
        part = self.timeline.by_id[assignment.item]
        whole = Asked(
            part.start_ms,
            part.end_ms,
            number,
            ends_leg=True,
            importance=IMPORTANCE_RANK[assignment.importance],
            recording=self._known[key],
        )
        if whole.recording is None:
            return [whole]
        pattern = assignment.pattern
        match pattern:
            case Roll() | Takes() | Windows():
                return [self._stream(whole, span) for span in self._spans(pattern, part)]
            case Loop():
                return [self._loop(whole, whole.recording, pattern, part)]
            case Interval():
                return [self._frames(whole, whole.recording, pattern)]
            case Armed():
                return [self._armed(whole, whole.recording, pattern)]

    def _spans(self, pattern: Roll | Takes | Windows, part: Laid) -> list[Span]:
        within = (part.start_ms, part.end_ms)
        if isinstance(pattern, Takes):
            return take_spans(pattern, *within)
        if isinstance(pattern, Windows):
            return window_spans(pattern, self.document.trip, self.timeline, within)
        return [within]

    def _stream(self, whole: Asked, span: Span) -> Asked:
        recording = whole.recording
        assert recording is not None
        return Asked(
            span[0],
            span[1],
            whole.assignment,
            span[1] == whole.end_ms,
            whole.importance,
            recording,
            need_w=recording.draw_w,
            need_bytes_s=recording.byte_rate,
        )

    def _loop(self, whole: Asked, recording: Recording, pattern: Loop, part: Laid) -> Asked:
        presses, lost = self._presses(pattern, part)
        each_ms = segment_ms(pattern)
        held = clip_bytes(recording.byte_rate, each_ms * pattern.segments)
        seconds = (whole.end_ms - whole.start_ms) / 1000.0
        return replace(
            whole,
            way=Way.LOOP,
            loop=LoopPlan(each_ms, pattern.segments, presses, lost),
            need_w=recording.draw_w,
            need_bytes_s=min(recording.byte_rate, held * (len(presses) + 1) / seconds),
        )

    def _presses(self, pattern: Loop, part: Laid) -> tuple[tuple[int, ...], int]:
        """When the loop is saved: evenly, or d + r after each moment begins; else lost."""
        duration_ms = part.end_ms - part.start_ms
        count = save_count(pattern, duration_ms)
        if count is not None:
            wanted = middles(count, part.start_ms, duration_ms) if count else []
        else:
            wanted = sorted(
                at_ms + (moment.seconds + moment.reaction_s) * 1000
                for moment in (part.item.moments if part.item else ())
                for at_ms in middles(counted(moment, duration_ms), part.start_ms, duration_ms)
            )
        pressed = [self._pressed_ms(min(at_ms, part.end_ms), part) for at_ms in wanted]
        kept = sorted({at_ms for at_ms in pressed if at_ms is not None})
        return tuple(kept), len(pressed) - sum(at_ms is not None for at_ms in pressed)

    def _pressed_ms(self, wanted_ms: int, part: Laid) -> int | None:
        """When a save that is wanted is pressed: at once, at the next free hand, or too late."""
        item = part.item
        if self.camera.answers_to or (isinstance(item, Leg) and item.hands != "never"):
            return wanted_ms
        if isinstance(item, Stop) and self.timeline.hands_free_at(wanted_ms):
            return wanted_ms
        next_ms = self.timeline.next_free_ms(wanted_ms)
        free = next_ms < self.timeline.duration_ms or self.timeline.hands_free_at(next_ms)
        return next_ms if free and next_ms <= part.end_ms else None

    def _frames(self, whole: Asked, recording: Recording, pattern: Interval) -> Asked:
        every_ms = frame_every_ms(pattern)
        on_ms = frame_on_ms(
            pattern,
            self.boot_ms,
            round(self.defaults.frame_s.value * 1000),
            round(self.defaults.off_above_boot_s.value * 1000),
        )
        if pattern.frame_mb is not None:
            frame_bytes = round(pattern.frame_mb * 1e6)
        else:
            frame_bytes = -(-recording.byte_rate // max(1, round(pattern.playback_fps)))
        duty = min(1.0, on_ms / every_ms)
        at_mean = every_ms <= self.defaults.mean_power_below_s.value * 1000
        used = replace(
            recording,
            draw_w=recording.draw_w * duty if at_mean else recording.draw_w,
            rise_k=recording.rise_k * duty if at_mean else recording.rise_k,
            byte_rate=0,
            peak_rate=0,
            clip_limit_ms=None,
        )
        return replace(
            whole,
            recording=used,
            way=Way.FRAMES,
            frames=FramePlan(every_ms, max(1, frame_bytes), 0 if at_mean else on_ms),
            need_w=recording.draw_w * duty,
            need_bytes_s=frame_bytes * 1000.0 / every_ms,
        )

    def _armed(self, whole: Asked, recording: Recording, pattern: Armed) -> Asked:
        clips = armed_spans(pattern, whole.start_ms, whole.end_ms)
        share = sum(end - start for start, end in clips) / (whole.end_ms - whole.start_ms)
        return replace(
            whole,
            way=Way.ARMED,
            clips=tuple(clips),
            need_w=recording.draw_w * share + recording.armed_w * (1.0 - share),
            need_bytes_s=recording.byte_rate * share,
        )


def recording_of(
    camera: Camera, assignment: Assignment, document: PlanDocument, defaults: Defaults
) -> Recording | None:
    """Power, heat and bytes of an assignment; None when its mode or set-up is not on the camera."""
    mode = next((m for m in camera.modes if m.id == assignment.mode), None)
    set_up = next((s for s in camera.set_ups if s.id == assignment.set_up), None)
    if mode is None or set_up is None:
        return None
    family = next(f for f in document.kit.families if f.id == camera.battery_family)
    body = body_of(camera, set_up, defaults)
    own_w = mode_w(mode, family)
    allowed = tuple(name for name in assignment.features if name in mode.features)
    extra_w = features_w(camera, allowed, defaults)
    own_rise = mode.rise_k if mode.rise_k is not None else body.resistance_k_per_w * own_w
    rise_k = own_rise + body.resistance_k_per_w * extra_w
    armed_w = _armed_w(camera, assignment, own_w + extra_w, defaults)
    as_recording = armed_w == own_w + extra_w
    return Recording(
        mode=mode,
        set_up=set_up,
        draw_w=own_w + extra_w,
        rise_k=rise_k,
        byte_rate=byte_rate(mode, defaults),
        peak_rate=peak_byte_rate(mode, defaults),
        clip_limit_ms=mode.clip_limit_s * 1000 if mode.clip_limit_s else None,
        body=body,
        armed_w=armed_w,
        armed_rise_k=rise_k if as_recording else body.resistance_k_per_w * armed_w,
        boot_w=own_w + extra_w,
        boot_rise_k=rise_k,
    )


def _armed_w(
    camera: Camera, assignment: Assignment, recording_w: float, defaults: Defaults
) -> float:
    """What an armed camera drinks [W]: its own figure, else standby; all of it to pre-record."""
    if camera.armed_w is not None:
        return camera.armed_w
    pattern = assignment.pattern
    if isinstance(pattern, Armed) and pattern.pre_record_s:
        return recording_w
    return camera.standby_w if camera.standby_w is not None else defaults.standby_w.value


def moment_times(timeline: Timeline) -> Iterator[tuple[str, int, int, int]]:
    """Every moment of the trip: leg or stop, number on it, start and end [ms] (E1.4)."""
    for part in timeline.laid:
        if part.item is None:
            continue
        duration_ms = part.end_ms - part.start_ms
        for number, moment in enumerate(part.item.moments):
            count = how_many(moment.count, moment.per_hour, duration_ms)
            for at_ms in middles(count, part.start_ms, duration_ms) if count else ():
                yield part.id, number, at_ms, at_ms + moment.seconds * 1000
