"""One camera through the trip: what it is asked, what it films, and why not."""

from __future__ import annotations

from enum import IntEnum, auto
from typing import TYPE_CHECKING

from ...document import BatteryFamily, Between, Camera
from ...parameters import Defaults
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..stock.clips import NEVER_MS
from ..trip.asked import Asked, Recording, Way
from ..trip.climate import climate_of
from ..trip.timeline import Conditions
from .causes import COPYING, FILMING, GAVE_OUT, OFF, RECORDING, STANDBY, Cause, Priority
from .starting import Starting

if TYPE_CHECKING:
    from .schedule import Sum


OVER_WITH_IT = (
    Cause.PLAN,
    Cause.CARD_UNFIT,
    Cause.CLIP_LIMIT,
    Cause.NO_HAND,
    Cause.NO_START,
    Cause.SAVE,
)


class Due(IntEnum):
    """What a camera meets next."""

    NOTHING = auto()
    PREPARE = auto()
    ASK = auto()
    UNASK = auto()
    BOOTED = auto()
    BEAT = auto()
    BY_ITSELF = auto()


class CameraRun(Starting):
    """A camera's behaviour on top of its physical state."""

    __slots__ = (
        "asked_list",
        "asked_starts",
        "between",
        "due",
        "due_kind",
        "enough",
        "index",
        "next_asked",
        "sums",
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
        self.next_asked = 0
        self.enough: tuple[int, int, str, str, float] | None = None
        self.sums: dict[tuple[int, int], Sum] = {}
        self.asked_starts = [span.start_ms for span in asked_list]
        self.open_account()
        self.open_filming(boot_ms, end_ms)
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
            early_ms = following.prepare_ms if self.state is OFF else None
            if early_ms is not None and self.wanted is not following and early_ms >= self.now_ms:
                first, kind = (early_ms, int(Priority.STARTS)), Due.PREPARE
            else:
                first, kind = (following.start_ms, int(Priority.STARTS)), Due.ASK
        if self.boot_ends_ms is not None and (self.boot_ends_ms, int(Priority.STARTS)) < first:
            first, kind = (self.boot_ends_ms, int(Priority.STARTS)), Due.BOOTED
        if self.beat_ms < first[0]:
            first, kind = (self.beat_ms, int(Priority.PATTERN_ENDS)), Due.BEAT
        waits = self.hot or (self.dead and self.wanted is not None)
        if self.state is not OFF or waits or self.feed_w > 0.0 or self.drain_w > 0.0:
            own = self.own_event(min(first[0], self.end_ms))
            if own is not None and own < first:
                first, kind = (own[0], int(own[1])), Due.BY_ITSELF
        self.due, self.due_kind = first, kind

    def happen(self) -> bool:
        """Let what is due happen; True when hands may want to look (E8.2).

        So when something gave out or may be restarted, and when a start failed.
        """
        at_ms, priority = self.due
        self.advance(at_ms)
        kind = self.due_kind
        decides = False
        if kind is Due.ASK:
            self.ask(self.asked_list[self.next_asked])
            if self.boot_ends_ms == at_ms:  # booted just in time: no event of its own
                self.record()
            decides = self.state is OFF
        elif kind is Due.UNASK:
            self.unask()
        elif kind is Due.BOOTED:
            self.record()
        elif kind is Due.PREPARE:
            self._want(self.asked_list[self.next_asked])
            decides = self.state is OFF
        elif kind is Due.BEAT:
            self.beat()
        else:
            self._by_itself(Priority(priority))
            decides = True
        return decides

    def after_take(self) -> None:
        """A take was played in one piece: look at the next one."""
        self.last_wanted = self.asked_list[self.next_asked]
        self.next_asked += 1
        if self.next_asked < len(self.asked_list):
            following = self.asked_list[self.next_asked]
            early = following.prepare_ms is not None
            self.due_kind = Due.PREPARE if early else Due.ASK
        else:
            self.due_kind = Due.NOTHING

    def _by_itself(self, what: Priority) -> None:
        if what is Priority.CONDITIONS:
            self.review_refusal()
        elif what is Priority.HEAT and self.hot:
            self.cooled()
        elif what is Priority.HEAT:
            self.stop_hot()
        elif what is Priority.EMPTY and self.dead and self.state is OFF:
            self.thaw()
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
            self.save()
        self.asked = None
        follower = self._follower()
        touching = follower is not None and follower.start_ms == span.end_ms
        if touching and span.way is Way.STREAM:
            return
        self.wanted = None
        self.beat_ms = NEVER_MS
        for cause in OVER_WITH_IT:
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
            self.holds[Cause.PLAN] = -1  # before all else: no kit would film what cannot be chosen
            return
        self.holds.pop(Cause.PLAN, None)
        if self.recording is not span.recording or span.way is not Way.STREAM:
            self.take_settings(span, span.recording)
        self._check_card(span.recording)
        self._look_who_starts(span)
        self.try_begin()

    def _look_who_starts(self, span: Asked) -> None:
        """A free hand that starts it brings back what gave out; without any, it is not begun.

        A stretch that touches the one before wants no new press (E1.6): what gave out there stays
        off until a hand sees to it.
        """
        place = self.next_asked if self.asked is None else self.next_asked - 1
        touches = place > 0 and self.asked_list[place - 1].end_ms == span.start_ms
        if span.by_hand and not touches:
            self.spent = False
            self.holds.pop(Cause.NO_HAND, None)
        self.holds.pop(Cause.NO_START, None)
        if not span.begun and self.state in (OFF, STANDBY):
            self.holds[Cause.NO_START] = self.now_ms

    def take_settings(self, span: Asked, recording: Recording) -> None:
        """Change mode, features or set-up; a running camera goes on in a new clip."""
        running = self.state in FILMING
        if running:
            self.close_clip()
        self.recording = recording
        self.wear(recording.body)
        self.set_curve()
        if running and self.has_room():
            self.write(span)
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

    def adopt(self, fresh: CameraRun) -> None:
        """Go on in a new document that was the same until now."""
        old = self.asked_list
        self.conditions, self.climate = fresh.conditions, climate_of(self.body, fresh.conditions)
        self.asked_list, self.end_ms = fresh.asked_list, fresh.end_ms
        self.asked_starts, self.sums = fresh.asked_starts, {}
        for name in ("asked", "wanted", "last_wanted"):
            span = getattr(self, name)
            if span is not None:
                place = next(n for n, one in enumerate(old) if one is span)
                setattr(self, name, self.asked_list[place])
        if self.last_wanted is not None and self.last_wanted.recording is not None:
            self.recording = self.last_wanted.recording

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
        self.spent = False
        for over in (cause, Cause.NO_HAND, Cause.NO_START, Cause.CLIP_LIMIT):
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

    @property
    def rest_rise_k(self) -> float:
        """Rise between stretches [K], of whatever it does there (E3.2)."""
        if self.between == "standby":
            return self.body.resistance_k_per_w * self.standby_w
        return self.recording.rise_k if self.between == "on" and self.recording else 0.0

    @property
    def next_start_ms(self) -> int:
        """When it is wanted next: now, or once it can begin to boot; NEVER_MS when it is not."""
        if self.wanted is not None:
            return self.now_ms
        follower = self._follower()
        if follower is None:
            return NEVER_MS
        return follower.start_ms if follower.prepare_ms is None else follower.prepare_ms

    @property
    def may_copy(self) -> bool:
        """Whether it can be switched on to copy: it is off, not asked, and has power (E6.5)."""
        powered = self.cell is not None and not self.dead and self.cell.charge > self.line()
        return self.asked is None and self.state is OFF and (powered or self.feed_w > 0.0)

    @property
    def lets_go(self) -> bool:
        """Whether a hand may take its battery for another camera: it is off, and not wanted."""
        return self.camera.battery_comes_out and self.state is OFF and self.wanted is None

    def fit_cell(self, cell: Cell | None) -> Cell | None:
        """Put a battery in, or start without one; gives back the one that was in."""
        old = self.cell
        if old is not None:
            old.move(old.home, self.now_ms)
        self.cell = cell
        self.dead = self.spent = False
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
