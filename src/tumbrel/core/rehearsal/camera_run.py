"""One camera through the trip: what it is asked, what it films, and why not."""

from __future__ import annotations

from dataclasses import dataclass
from enum import IntEnum, auto

from ..document import BatteryFamily, Between, Camera
from ..parameters import Defaults
from .asked import Asked, Recording, Way
from .body_state import BodyState
from .causes import (
    ARMED,
    BETWEEN_FRAMES,
    BOOTING,
    CAUSE_ORDER,
    COPYING,
    FILMING,
    GAVE_OUT,
    OFF,
    RECORDING,
    STANDBY,
    Cause,
    Priority,
    State,
)
from .clips import NEVER_MS, Frames, Loop, Stream
from .log import Log
from .pools import CardRun, Cell
from .timeline import Conditions

COLD_NOT_EMPTY = 0.03


class Due(IntEnum):
    """What a camera meets next."""

    NOTHING = auto()
    PREPARE = auto()
    ASK = auto()
    UNASK = auto()
    BOOTED = auto()
    BEAT = auto()
    BY_ITSELF = auto()


@dataclass(frozen=True, slots=True)
class GapSpan:
    """Asked and not filmed."""

    start_ms: int
    end_ms: int
    cause: Cause
    assignment: int


@dataclass(frozen=True, slots=True)
class FilmedSpan:
    """Asked and filmed, on one card and one battery."""

    start_ms: int
    end_ms: int
    assignment: int
    card: str
    battery: str


class CameraRun(BodyState):
    """A camera's behaviour on top of its physical state."""

    __slots__ = (
        "asked",
        "asked_list",
        "beat_ms",
        "beat_number",
        "between",
        "boot_ends_ms",
        "boot_ms",
        "due",
        "due_kind",
        "end_ms",
        "film_since_ms",
        "filmed",
        "gap_cause",
        "gap_since_ms",
        "gaps",
        "holds",
        "index",
        "last_wanted",
        "next_asked",
        "wanted",
    )

    def __init__(
        self,
        index: int,
        camera: Camera,
        family: BatteryFamily,
        asked_list: list[Asked],
        conditions: Conditions,
        defaults: Defaults,
        between: Between,
        radio_left_on: bool,
        boot_ms: int,
        end_ms: int,
    ) -> None:
        super().__init__(camera, family, conditions, defaults, radio_left_on)
        self.index = index
        self.asked_list = asked_list
        self.between = between
        self.boot_ms = boot_ms
        self.end_ms = end_ms
        self.next_asked = 0
        self.asked: Asked | None = None
        self.wanted: Asked | None = None
        self.last_wanted: Asked | None = None
        self.holds: dict[Cause, int] = {}
        self.gap_since_ms: int | None = None
        self.gap_cause = Cause.BOOT
        self.film_since_ms: int | None = None
        self.gaps: Log[GapSpan] = Log()
        self.filmed: Log[FilmedSpan] = Log()
        self.boot_ends_ms: int | None = None
        self.beat_ms = NEVER_MS
        self.beat_number = 0
        self.due: tuple[int, int] = (NEVER_MS, 0)
        self.due_kind = Due.NOTHING
        if asked_list and asked_list[0].recording:
            self.wear(asked_list[0].recording.body)

    # -- from event to event --------------------------------------------------------

    def plan_next(self) -> None:
        """Find what it meets next: what is asked, a boot's end, a beat, or a level of its own."""
        self.settle()
        first, kind = (NEVER_MS, 0), Due.NOTHING
        asked = self.asked
        if asked is not None:
            ends = Priority.ENDS if asked.ends_leg else Priority.PATTERN_ENDS
            first, kind = (asked.end_ms, int(ends)), Due.UNASK
        elif self.next_asked < len(self.asked_list):
            following = self.asked_list[self.next_asked]
            early_ms = following.prepare_ms
            if early_ms is not None and self.wanted is not following and early_ms >= self.now_ms:
                first, kind = (early_ms, int(Priority.STARTS)), Due.PREPARE
            else:
                first, kind = (following.start_ms, int(Priority.STARTS)), Due.ASK
        if self.boot_ends_ms is not None and (self.boot_ends_ms, int(Priority.STARTS)) < first:
            first, kind = (self.boot_ends_ms, int(Priority.STARTS)), Due.BOOTED
        if self.beat_ms < first[0]:
            first, kind = (self.beat_ms, int(Priority.PATTERN_ENDS)), Due.BEAT
        if self.state is not OFF or self.hot or self.feed_w > 0.0 or self.drain_w > 0.0:
            own = self.own_event(min(first[0], self.end_ms))
            if own is not None and own < first:
                first, kind = (own[0], int(own[1])), Due.BY_ITSELF
        self.due, self.due_kind = first, kind

    def happen(self) -> bool:
        """Let what is due happen; True when something gave out or may be restarted (E8.2)."""
        at_ms, priority = self.due
        self.advance(at_ms)
        kind = self.due_kind
        decides = False
        if kind is Due.ASK:
            self.ask(self.asked_list[self.next_asked])
            if self.boot_ends_ms == at_ms:  # booted just in time: no event of its own
                self.record()
        elif kind is Due.UNASK:
            self.unask()
        elif kind is Due.BOOTED:
            self.record()
        elif kind is Due.PREPARE:
            self._want(self.asked_list[self.next_asked])
        elif kind is Due.BEAT:
            self._beat()
        else:
            self._by_itself(Priority(priority))
            decides = True
        return decides

    def _by_itself(self, what: Priority) -> None:
        if what is Priority.CONDITIONS:
            self.review_refusal()
        elif what is Priority.HEAT and self.hot:
            self.cooled()
        elif what is Priority.HEAT:
            self.stop_hot()
        elif what is Priority.EMPTY:
            self.stop_empty()
        elif what is Priority.CARD_FULL:
            self.stop_full()
        else:
            self.stop_at_clip_limit()

    # -- asked intervals ------------------------------------------------------------

    def ask(self, span: Asked) -> None:
        """An asked interval begins."""
        self.next_asked += 1
        self.asked = span
        if self.wanted is not span:
            self._want(span)
        self.account()

    def unask(self) -> None:
        """An asked interval ends; a neighbour that follows at once is carried into."""
        span = self.asked
        assert span is not None
        self.close_spans()
        if span.loop is not None and span.loop.presses and span.loop.presses[-1] == self.now_ms:
            self._save()
        self.asked = None
        follower = self._follower()
        touching = follower is not None and follower.start_ms == span.end_ms
        if touching and span.way is Way.STREAM:
            return
        self.wanted = None
        self.beat_ms = NEVER_MS
        for cause in (Cause.PLAN, Cause.CARD_UNFIT, Cause.CLIP_LIMIT, Cause.NO_HAND, Cause.SAVE):
            self.holds.pop(cause, None)
        stays_on = self.between == "on" and span.way is Way.STREAM
        if stays_on and self.state is RECORDING and follower is not None:
            return
        if self.state is not OFF and self.state is not COPYING:
            standby = self.between == "standby" and follower is not None
            self.halt(STANDBY if standby else OFF)

    def _follower(self) -> Asked | None:
        if self.next_asked < len(self.asked_list):
            return self.asked_list[self.next_asked]
        return None

    def is_asked_before(self, horizon_ms: int) -> bool:
        """Whether the camera is asked now or will be before a time."""
        if self.asked is not None:
            return True
        follower = self._follower()
        return follower is not None and follower.start_ms < horizon_ms

    def _want(self, span: Asked) -> None:
        self.wanted = self.last_wanted = span
        if span.recording is None:
            self.halt(OFF)
            self.holds[Cause.PLAN] = self.now_ms
            return
        self.holds.pop(Cause.PLAN, None)
        if self.recording is not span.recording or span.way is not Way.STREAM:
            self._take_settings(span, span.recording)
        self._check_card(span.recording)
        self.try_begin()

    def _take_settings(self, span: Asked, recording: Recording) -> None:
        """Change mode, features or set-up; a running camera goes on in a new clip."""
        running = self.state in FILMING
        if running:
            self.close_clip()
        self.recording = recording
        self.wear(recording.body)
        self.set_curve()
        if running and self._has_room():
            self._write(span)
        elif running:
            self.halt(OFF)

    def _check_card(self, recording: Recording) -> None:
        self.holds.pop(Cause.CARD_UNFIT, None)
        if self.card is None:
            self.holds.setdefault(Cause.NO_CARD, self.now_ms)
        elif self.card.store.sustained_bytes_s < recording.peak_rate:
            self.holds[Cause.CARD_UNFIT] = self.now_ms
            if self.state in FILMING:
                self.halt(OFF)

    # -- starting and stopping ------------------------------------------------------

    def try_begin(self) -> None:
        """Start recording when it is wanted and nothing holds it back."""
        if self.wanted is None or self.state >= BOOTING or self._held_back():
            return
        if self.body_c >= self.body.limits.stop_c:
            self.stop_hot()
            return
        if self.state is STANDBY or self.boot_ms == 0:
            self.record()
            return
        self.state = BOOTING
        self.boot_ends_ms = self.now_ms + self.boot_ms
        self.holds[Cause.BOOT] = self.now_ms

    def _held_back(self) -> bool:
        power = self._power_missing()
        for cause in GAVE_OUT:
            if cause is not power:
                self.holds.pop(cause, None)
        if power is not None:
            self.holds.setdefault(power, self.now_ms)
        if self.card is None or self._has_room():
            self.holds.pop(Cause.CARD_FULL, None)
        else:
            self.holds.setdefault(Cause.CARD_FULL, self.now_ms)
        return any(cause is not Cause.BOOT for cause in self.holds)

    def _power_missing(self) -> Cause | None:
        """Why there is no power to start with; a dead cell wants some charge above its line."""
        recording = self.wanted.recording if self.wanted else None
        draw_w = recording.draw_w if recording else 0.0
        if self.feed_w * self.defaults.feed_efficiency.value >= draw_w - 1e-9 > 0.0:
            return None
        if self.battery_out:
            return Cause.NO_POWER
        if self.cell is None:
            return Cause.NO_BATTERY
        line = self.line()
        if self.dead and self.cell.charge >= line + self.defaults.revival.value - 1e-9:
            self.dead = False
        if self.dead or self.cell.charge <= line:
            return self._ran_out()
        return None

    def _ran_out(self) -> Cause:
        """Empty; or held back by the cold, when a warm cell would still give something."""
        held = self.cell.charge if self.cell else 0.0
        return Cause.COLD if held >= COLD_NOT_EMPTY else Cause.EMPTY

    def _has_room(self) -> bool:
        """Whether another byte fits; for a loop, whether all of it does (E7)."""
        assert self.card is not None
        wanted = self.wanted
        if wanted is not None and wanted.loop is not None and wanted.recording is not None:
            length_ms = wanted.loop.segment_ms * wanted.loop.segments
            return self.card.free >= wanted.recording.byte_rate * length_ms // 1000
        if wanted is not None and wanted.frames is not None:
            return self.card.free >= wanted.frames.frame_bytes
        return self.card.free > 0

    def record(self) -> None:
        """The camera is up and films as it was asked."""
        self.boot_ends_ms = None
        for over in (Cause.BOOT, Cause.CLIP_LIMIT, Cause.SAVE):
            self.holds.pop(over, None)
        assert self.last_wanted is not None
        self.state = RECORDING
        self._write(self.last_wanted)
        self.account()

    def _write(self, span: Asked) -> None:
        """Begin to write as the pattern wants, and find its first beat."""
        card, recording = self.card, span.recording
        assert card is not None
        assert recording is not None
        now, used, number = self.now_ms, card.used, span.assignment
        self.beat_ms = NEVER_MS
        if span.loop is not None:
            plan = span.loop
            self.clip = Loop(now, used, recording.byte_rate, plan.segment_ms, plan.segments, number)
            self._next_press(span)
        elif span.frames is not None:
            every, size = span.frames.every_ms, span.frames.frame_bytes
            self.clip = Frames(now, used, card.free, every, size, number)
            if span.frames.on_ms:
                self.beat_ms = now + max(1, span.frames.on_ms - self.boot_ms)
        elif span.way is Way.ARMED:
            self._armed_now(span)
        else:
            self.clip = Stream(now, used, card.free, recording.byte_rate, number)

    def halt(self, state: State) -> None:
        """Stop recording or booting and go off or on standby."""
        self.close_clip()
        self.state = state
        self.boot_ends_ms = None
        self.beat_ms = NEVER_MS
        self.holds.pop(Cause.BOOT, None)
        self.holds.pop(Cause.SAVE, None)

    # -- beats: what a pattern does by itself ---------------------------------------

    def _beat(self) -> None:
        span = self.wanted
        assert span is not None
        if span.loop is not None:
            self._save()
            self.holds[Cause.SAVE] = self.now_ms
            self.state = BOOTING
            self.beat_ms = NEVER_MS
            self.boot_ends_ms = self.now_ms + round(self.defaults.save_s.value * 1000)
            self.account()
        elif span.frames is not None:
            self._frame_beat(span)
        else:
            self._armed_now(span)

    def _save(self) -> None:
        """Keep what the loop holds; the card keeps those bytes."""
        if isinstance(self.clip, Loop):
            self.close_clip(save=True)

    def _next_press(self, span: Asked) -> None:
        presses = span.loop.presses if span.loop else ()
        later = (at_ms for at_ms in presses if self.now_ms < at_ms < span.end_ms)
        self.beat_ms = next(later, NEVER_MS)

    def _frame_beat(self, span: Asked) -> None:
        """On for a frame, off until the next (E7 Interval)."""
        assert span.frames is not None
        assert isinstance(self.clip, Frames)
        frames = span.frames
        if self.state is RECORDING:
            self.state = BETWEEN_FRAMES
            past = (self.now_ms - self.clip.start_ms) // frames.every_ms + 1
            self.beat_ms = self.clip.start_ms + past * frames.every_ms
        else:
            self.state = RECORDING
            self.beat_ms = self.now_ms + frames.on_ms

    def _armed_now(self, span: Asked) -> None:
        """Record inside a clip of the armed pattern, wait between them."""
        now = self.now_ms
        inside = next((clip for clip in span.clips if clip[0] <= now < clip[1]), None)
        if inside is not None:
            card, recording = self.card, span.recording
            assert card is not None
            assert recording is not None
            if not isinstance(self.clip, Stream):
                rate = recording.byte_rate
                self.clip = Stream(now, card.used, card.free, rate, span.assignment)
            self.state = RECORDING
            self.beat_ms = inside[1] if inside[1] < span.end_ms else NEVER_MS
            return
        self.close_clip()
        self.state = ARMED
        self.beat_ms = next((start for start, _ in span.clips if start > now), NEVER_MS)

    # -- giving out -----------------------------------------------------------------

    def stop_hot(self) -> None:
        """Too hot: off until cool, and then for a hand unless it starts itself (E5.3, E5.4)."""
        self.halt(OFF)
        self.hot = True
        self.holds[Cause.HOT] = self.now_ms
        if not self.camera.starts_itself and self.wanted is not None:
            self.holds[Cause.NO_HAND] = self.now_ms
        self.account()

    def cooled(self) -> None:
        """Below the restart level."""
        self.hot = False
        self.holds.pop(Cause.HOT, None)
        self.try_begin()
        self.account()

    def stop_empty(self) -> None:
        """The battery gives no more at its temperature; dead until a hand restarts it (E3.4)."""
        cell = self.cell
        assert cell is not None
        self.halt(OFF)
        self.dead = True
        if self.line() <= 0.0:
            self.lost_wh += cell.charge * cell.wh
            cell.charge = 0.0
        self.holds[self._ran_out()] = self.now_ms
        self.account()

    def stop_unpowered(self) -> None:
        """The outside source stopped and no battery is in (E4.7)."""
        self.halt(OFF)
        self.holds[Cause.NO_POWER] = self.now_ms
        self.account()

    def stop_full(self) -> None:
        """The next byte does not fit."""
        self.halt(OFF)
        self.holds[Cause.CARD_FULL] = self.now_ms
        self.account()

    def stop_at_clip_limit(self) -> None:
        """The longest clip is over; the camera goes on by itself after a boot, or waits (E6.4)."""
        self.halt(OFF)
        self.holds[Cause.CLIP_LIMIT] = self.now_ms
        if self.camera.continues_after_clip:
            self.state = BOOTING
            self.boot_ends_ms = self.now_ms + self.boot_ms
        self.account()

    def feed(self, watts: float) -> None:
        """Take what a port grants; with the battery out, losing it stops the camera (E4.7)."""
        self.feed_w = watts
        self.review_refusal()
        short = watts * self.defaults.feed_efficiency.value < self.draw_w - 1e-9
        if self.battery_out and short and self.state is not OFF:
            self.stop_unpowered()
        elif self.wanted is not None and Cause.NO_POWER in self.holds:
            self.try_begin()
            self.account()

    # -- hands ----------------------------------------------------------------------

    def begin_handling(self, cause: Cause) -> None:
        """A hand opens a door; the camera films nothing unless it hot-swaps."""
        if cause is Cause.SWAP and self.recording and self.recording.set_up.hot_swap:
            return
        if self.state is not OFF:
            self.halt(OFF)
        self.holds[cause] = self.now_ms
        self.account()

    def end_handling(self, cause: Cause) -> None:
        """The door is shut; whoever handled the camera also starts it again."""
        for over in (cause, Cause.NO_HAND, Cause.CLIP_LIMIT):
            self.holds.pop(over, None)
        self.try_begin()
        self.account()

    def begin_copying(self) -> None:
        """On, giving its footage to a drive; it films nothing meanwhile (E6.5)."""
        self.halt(COPYING)
        self.holds[Cause.COPYING] = self.now_ms
        self.account()

    def end_copying(self) -> None:
        """The cable is off."""
        self.halt(OFF)
        self.holds.pop(Cause.COPYING, None)
        self.try_begin()
        self.account()

    def fit_cell(self, cell: Cell | None) -> Cell | None:
        """Put a battery in, or start without one; gives back the one that was in."""
        old = self.cell
        if old is not None:
            old.move(old.home, self.now_ms)
        self.cell = cell
        self.dead = False
        for over in GAVE_OUT:
            self.holds.pop(over, None)
        if cell is None:
            self.holds[Cause.NO_BATTERY] = self.now_ms
        else:
            cell.move(self.camera.id, self.now_ms, in_camera=True)
            self.set_curve()
            self.review_refusal()
        self.note()
        return old

    def fit_card(self, card: CardRun | None) -> None:
        """Put a card in, or start without one."""
        if self.card is not None:
            self.card.move("bag", self.now_ms)
        self.card = card
        for over in (Cause.NO_CARD, Cause.CARD_FULL, Cause.CARD_UNFIT):
            self.holds.pop(over, None)
        if card is None:
            self.holds[Cause.NO_CARD] = self.now_ms
        else:
            card.move(self.camera.id, self.now_ms)
        self.note()

    # -- the account of asked time --------------------------------------------------

    def account(self) -> None:
        """Bring filmed and gap spans into line with what holds now."""
        if self.asked is None:
            self.close_spans()
            return
        if self.state in FILMING:
            self._close_gap()
            if self.film_since_ms is None:
                self.film_since_ms = self.now_ms
            return
        self._close_film()
        if self.gap_since_ms is not None and self.gap_cause in self.holds:
            return
        self._close_gap()
        self.gap_since_ms = self.now_ms
        self.gap_cause = min(
            self.holds, key=lambda c: (self.holds[c], CAUSE_ORDER[c]), default=Cause.BOOT
        )

    def close_spans(self) -> None:
        """End whatever span is open."""
        self._close_film()
        self._close_gap()

    def _close_film(self) -> None:
        if self.film_since_ms is None or self.asked is None:
            return
        if self.film_since_ms < self.now_ms and self.card:
            battery = self.cell.id if self.cell else ""
            number = self.asked.assignment
            self.filmed.append(
                FilmedSpan(self.film_since_ms, self.now_ms, number, self.card.store.id, battery)
            )
        self.film_since_ms = None

    def _close_gap(self) -> None:
        if self.gap_since_ms is None or self.asked is None:
            return
        if self.gap_since_ms < self.now_ms:
            span = GapSpan(self.gap_since_ms, self.now_ms, self.gap_cause, self.asked.assignment)
            self.gaps.append(span)
        self.gap_since_ms = None
