"""From the plan to what each camera is asked, interval by interval."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from ...charging import NEVER_MS
from ...document import (
    IMPORTANCES,
    Armed,
    Assignment,
    Camera,
    Interval,
    Loop,
    Moment,
    Mount,
    PlanDocument,
    Roll,
    SetUp,
    Takes,
    Windows,
)
from ...energy import features_w, mode_w
from ...heat import Body, body_of
from ...memory import byte_rate, clip_bytes, longest_clip_s, peak_byte_rate
from ...parameters import Defaults
from ...patterns import (
    Span,
    armed_spans,
    counted,
    frame_every_ms,
    frame_on_ms,
    merged,
    middles,
    save_count,
    segment_ms,
    take_spans,
)
from ...serving import carried, mount_and_angle
from .asked import Arming, Asked, Framing, Looping, Recording, Worn
from .timeline import Laid, Timeline
from .triggers import answers, never_comes
from .windows import window_spans


class Asking:
    """Makes the asked intervals of one camera."""

    def __init__(
        self,
        camera: Camera,
        document: PlanDocument,
        timeline: Timeline,
        defaults: Defaults,
    ) -> None:
        self.camera = camera
        self.document = document
        self.timeline = timeline
        self.defaults = defaults
        self.answering = bool(answers(camera, document))
        self.carried = carried(document.plan, camera.id)
        boot_s = camera.boot_s if camera.boot_s is not None else defaults.boot_s.value
        self.boot_ms = round(boot_s * 1000)
        self._bodies: dict[str, Body] = {}
        self._pressed: dict[Mount, bool] = {}
        self._sits: dict[int, Worn] = {}
        self._known: dict[tuple[str, str, tuple[str, ...], bool, bool], Recording | None] = {}

    def all(self) -> list[Asked]:
        """All asked intervals in order of time."""
        asked: list[Asked] = []
        for number, assignment in enumerate(self.document.plan.assignments):
            if assignment.camera == self.camera.id:
                asked += self._of(number, assignment)
        asked.sort(key=lambda span: span.start_ms)
        before_ms = 0
        for span in asked:
            span.worn = self._worn(span.assignment)
            self._say_who_starts(span, max(before_ms, span.start_ms - self.boot_ms))
            before_ms = span.end_ms
        return asked

    def _worn(self, number: int) -> Worn:
        """Where it is to sit, the mount its own or as it is carried (model/hands#moving)."""
        if number not in self._sits:
            assignment = self.document.plan.assignments[number]
            mount, _ = mount_and_angle(self.carried, assignment)
            self._sits[number] = Worn(assignment.set_up, mount)
        return self._sits[number]

    def _say_who_starts(self, span: Asked, early_ms: int) -> None:
        """When it can begin to boot, by schedule or a free hand; and who starts it.

        Just before is soon enough: whoever leaves a stop has pressed at the stop, and before the
        trip begins hands are free. Source: model/energy#boot, model/hands#who-presses.

        Source: model/energy#boot.
        """
        timeline, at_ms = self.timeline, span.start_ms
        alone = self.camera.starts_itself
        if not alone and not timeline.hands_free_at(early_ms):
            early_ms = timeline.next_free_ms(early_ms)
        if early_ms < at_ms:
            span.prepare_ms = early_ms
        moments = [at_ms, max(0, at_ms - 1)]
        if span.prepare_ms is not None:
            moments.append(span.prepare_ms)
        span.by_hand = at_ms == 0 or any(timeline.hands_free_at(one) for one in moments)
        pattern = self.document.plan.assignments[span.assignment].pattern
        by_power = isinstance(pattern, Armed) and pattern.trigger == "power"
        says = self.answering and timeline.awake_at(at_ms)
        span.begun = alone or by_power or span.by_hand or says
        if not span.begun:
            span.begun = any(self._hand_at(one, span.worn.mount) for one in moments)

    def _of(self, number: int, assignment: Assignment) -> list[Asked]:
        waits = isinstance(assignment.pattern, Armed) and assignment.pattern.pre_record_s > 0
        features = tuple(sorted(assignment.features))
        lapses = isinstance(assignment.pattern, Interval)
        key = (assignment.mode, assignment.set_up, features, waits, lapses)
        if key not in self._known:
            self._known[key] = self._recording(assignment)
        part = self.timeline.by_id[assignment.item]
        whole = Asked(
            part.start_ms,
            part.end_ms,
            number,
            ends_leg=True,
            importance=IMPORTANCES.index(assignment.importance),
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
                return [self._armed(whole, whole.recording, pattern, part)]

    def _recording(self, assignment: Assignment) -> Recording | None:
        set_up = self.camera.built(assignment.set_up)
        if set_up is None:
            return None
        if set_up.id not in self._bodies:
            self._bodies[set_up.id] = body_of(self.camera, set_up, self.defaults)
        body = self._bodies[set_up.id]
        return recording_of(self.camera, set_up, body, assignment, self.document, self.defaults)

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
            need_rise_k=recording.rise_k,
            need_bytes_s=recording.byte_rate,
        )

    def _loop(self, whole: Asked, recording: Recording, pattern: Loop, part: Laid) -> Asked:
        mount = self._worn(whole.assignment).mount
        presses, lost = self._presses(pattern, part, mount)
        each_ms = segment_ms(pattern)
        held = clip_bytes(recording.byte_rate, each_ms * pattern.segments)
        seconds = (whole.end_ms - whole.start_ms) / 1000.0
        return replace(
            whole,
            how=Looping(each_ms, pattern.segments, presses, lost),
            need_w=recording.draw_w,
            need_rise_k=recording.rise_k,
            need_bytes_s=min(recording.byte_rate, held * (len(presses) + 1) / seconds),
        )

    def _answered(self, whole: Asked, pattern: Armed, part: Laid) -> list[Span]:
        """Clips that a word or a press starts, each so long after a moment as one reacts.

        Where nobody can say or press it then, there is none. Source: model/patterns#asked.
        """
        mount = self._worn(whole.assignment).mount
        found = []
        for moment, at_ms in moments_on(part):
            said_ms = min(at_ms + moment.reaction_s * 1000, part.end_ms - 1)
            by_word = pattern.trigger == "voice" and self.timeline.awake_at(said_ms)
            if by_word or (pattern.trigger == "press" and self._hand_at(said_ms, mount)):
                first_ms = max(whole.start_ms, said_ms - pattern.pre_record_s * 1000)
                last_ms = min(whole.end_ms, said_ms + pattern.seconds * 1000)
                found.append((first_ms, last_ms))
        return merged(found)

    def _hand_at(self, at_ms: int, mount: Mount) -> bool:
        """Whether a hand presses its button: out of reach on the mount, only a free one does.

        Source: model/hands#who-presses.
        """
        if mount not in self._pressed:
            known = self.camera.mounted(mount)
            self._pressed[mount] = known is None or known.pressed
        if self._pressed[mount]:
            return self.timeline.presses_at(at_ms)
        return self.timeline.hands_free_at(at_ms)

    def _presses(self, pattern: Loop, part: Laid, mount: Mount) -> tuple[tuple[int, ...], int]:
        """When the loop is saved: evenly, or d + r after each moment begins; else lost."""
        duration_ms = part.end_ms - part.start_ms
        count = save_count(pattern, duration_ms)
        if count is not None:
            times = middles(count, part.start_ms, duration_ms) if count else []
            wanted = [(at_ms, at_ms) for at_ms in times]
        else:
            wanted = [
                (at_ms + (moment.seconds + moment.reaction_s) * 1000, at_ms)
                for moment, at_ms in moments_on(part)
            ]
        kept, lost = set(), 0
        for at_ms, begins_ms in wanted:
            pressed_ms = self._pressed_ms(min(at_ms, part.end_ms), part, mount)
            if pressed_ms is not None:
                kept.add(pressed_ms)
            waited = pressed_ms is None or pressed_ms > at_ms
            if waited and (pressed_ms or NEVER_MS) - begins_ms > pattern.length_s * 1000:
                lost += 1  # by then the loop has overwritten its beginning
        return tuple(sorted(kept)), lost

    def _pressed_ms(self, wanted_ms: int, part: Laid, mount: Mount) -> int | None:
        """When a save that is wanted is pressed: at once, at the next free hand, or too late."""
        there_ms = min(wanted_ms, part.end_ms - 1)
        says = self.answering and self.timeline.awake_at(there_ms)
        if says or self._hand_at(there_ms, mount):
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
        )
        return replace(
            whole,
            recording=used,
            how=Framing(
                every_ms,
                max(1, frame_bytes),
                0 if at_mean else on_ms,
                stills=pattern.frame_mb is not None,
            ),
            need_w=recording.draw_w * duty,
            need_rise_k=recording.rise_k * duty,
            need_bytes_s=frame_bytes * 1000.0 / every_ms,
        )

    def _armed(self, whole: Asked, recording: Recording, pattern: Armed, part: Laid) -> Asked:
        if never_comes(pattern, self.camera, self.document, part, self.timeline, self.defaults):
            clips = []
        elif pattern.trigger in ("voice", "press") and part.item and part.item.moments:
            clips = self._answered(whole, pattern, part)
        else:
            clips = armed_spans(pattern, whole.start_ms, whole.end_ms)
        share = sum(end - start for start, end in clips) / (whole.end_ms - whole.start_ms)
        return replace(
            whole,
            how=Arming(tuple(clips)),
            need_w=recording.draw_w * share + recording.armed_w * (1.0 - share),
            need_rise_k=recording.rise_k * share + recording.armed_rise_k * (1.0 - share),
            need_bytes_s=recording.byte_rate * share,
        )


def recording_of(
    camera: Camera,
    set_up: SetUp,
    body: Body,
    assignment: Assignment,
    document: PlanDocument,
    defaults: Defaults,
) -> Recording | None:
    """Power, heat and bytes of an assignment in a set-up; None when the camera lacks its mode."""
    mode = next((m for m in camera.modes if m.id == assignment.mode), None)
    if mode is None:
        return None
    family = next(f for f in document.kit.families if f.id == camera.battery_family)
    own_w = mode_w(mode, family)
    allowed = tuple(name for name in assignment.features if name in mode.features)
    extra_w = features_w(camera, allowed, defaults)
    own_rise = mode.rise_k if mode.rise_k is not None else body.resistance_k_per_w * own_w
    rise_k = own_rise + body.resistance_k_per_w * extra_w
    frames = isinstance(assignment.pattern, Interval)
    longest_s = longest_clip_s(mode, set_up, frames=frames)
    armed_w = _armed_w(camera, assignment, own_w + extra_w, defaults)
    as_recording = armed_w == own_w + extra_w
    return Recording(
        mode=mode,
        set_up=set_up,
        draw_w=own_w + extra_w,
        rise_k=rise_k,
        byte_rate=byte_rate(mode, defaults),
        peak_rate=peak_byte_rate(mode, defaults),
        clip_limit_ms=None if longest_s is None else longest_s * 1000,
        body=body,
        armed_w=armed_w,
        armed_rise_k=rise_k if as_recording else body.resistance_k_per_w * armed_w,
        boot_w=own_w + extra_w,
        boot_rise_k=rise_k,
    )


def _armed_w(
    camera: Camera, assignment: Assignment, recording_w: float, defaults: Defaults
) -> float:
    """What an armed camera drinks [W]: all of it to pre-record; else its own figure, or standby."""
    pattern = assignment.pattern
    if isinstance(pattern, Armed) and pattern.pre_record_s:
        return recording_w
    if camera.armed_w is not None:
        return camera.armed_w
    return camera.standby_w if camera.standby_w is not None else defaults.standby_w.value


def moments_on(part: Laid) -> Iterator[tuple[Moment, int]]:
    """Every moment of a leg or stop, kind by kind, with when it begins [ms]."""
    duration_ms = part.end_ms - part.start_ms
    for moment in part.item.moments if part.item else ():
        for at_ms in middles(counted(moment, duration_ms), part.start_ms, duration_ms):
            yield moment, at_ms


def moment_times(timeline: Timeline) -> Iterator[tuple[str, int, int, int]]:
    """Every moment of the trip: leg or stop, number on it, start and end [ms].

    Source: model/results#moments.
    """
    for part in timeline.laid:
        kinds = part.item.moments if part.item else ()
        for moment, at_ms in moments_on(part):
            number = next(n for n, one in enumerate(kinds) if one is moment)
            yield part.id, number, at_ms, at_ms + moment.seconds * 1000
