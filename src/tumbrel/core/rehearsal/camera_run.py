"""One camera through the trip: what it is asked, what it films, and why not."""

from __future__ import annotations

from dataclasses import dataclass

from ..document import Between, Camera
from ..parameters import Defaults
from .asked import Asked, Recording
from .body_state import BodyState
from .causes import BOOTING, CAUSE_ORDER, OFF, RECORDING, STANDBY, Cause, State
from .pools import CardRun, Cell
from .timeline import Conditions


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
        "between",
        "boot_ends_ms",
        "boot_ms",
        "epoch",
        "film_since_ms",
        "filmed",
        "gap_cause",
        "gap_since_ms",
        "gaps",
        "holds",
        "index",
        "next_asked",
        "wanted",
    )

    def __init__(
        self,
        index: int,
        camera: Camera,
        asked_list: list[Asked],
        conditions: Conditions,
        defaults: Defaults,
        between: Between,
        radio_left_on: bool,
    ) -> None:
        super().__init__(camera, conditions, defaults, radio_left_on)
        self.index = index
        self.asked_list = asked_list
        self.between = between
        boot_s = camera.boot_s if camera.boot_s is not None else defaults.boot_s.value
        self.boot_ms = round(boot_s * 1000)
        self.next_asked = 0
        self.asked: Asked | None = None
        self.wanted: Asked | None = None
        self.holds: dict[Cause, int] = {}
        self.gap_since_ms: int | None = None
        self.gap_cause = Cause.BOOT
        self.film_since_ms: int | None = None
        self.gaps: list[GapSpan] = []
        self.filmed: list[FilmedSpan] = []
        self.boot_ends_ms: int | None = None
        self.epoch = 0
        if asked_list and asked_list[0].recording:
            self.wear(asked_list[0].recording.body)

    # -- asked intervals ------------------------------------------------------------

    def prepare(self, span: Asked) -> None:
        """The moment to begin booting for a start that is due."""
        if self.asked is None:
            self._want(span)

    def ask(self, span: Asked) -> None:
        """An asked interval begins."""
        self.next_asked += 1
        self.asked = span
        if self.wanted is not span:
            self._want(span)
        self.account()

    def unask(self, span: Asked) -> None:
        """An asked interval ends; a neighbour that follows at once is carried into."""
        self.close_spans()
        self.asked = None
        follower = self._follower()
        if follower is not None and follower.start_ms == span.end_ms:
            return
        self.wanted = None
        for cause in (Cause.PLAN, Cause.CARD_UNFIT, Cause.CLIP_LIMIT, Cause.NO_HAND):
            self.holds.pop(cause, None)
        recording = self.state is RECORDING
        if self.between == "on" and recording and follower is not None:
            return
        if self.state is not OFF:
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
        self.wanted = span
        if span.recording is None:
            self.halt(OFF)
            self.holds[Cause.PLAN] = self.now_ms
            return
        self.holds.pop(Cause.PLAN, None)
        if self.recording is not span.recording:
            self._take_settings(span.recording)
        self._check_card()
        self.try_begin()

    def _take_settings(self, recording: Recording) -> None:
        """Change mode, features or set-up; a running camera goes on in a new clip."""
        running = self.state is RECORDING
        if running:
            self.close_clip()
        self.recording = recording
        self.wear(recording.body)
        if running and self.card is not None:
            self.open_clip()

    def _check_card(self) -> None:
        self.holds.pop(Cause.CARD_UNFIT, None)
        if self.card is None:
            self.holds.setdefault(Cause.NO_CARD, self.now_ms)
        elif self.recording and self.card.store.sustained_bytes_s < self.recording.peak_rate:
            self.holds[Cause.CARD_UNFIT] = self.now_ms
            if self.state is RECORDING:
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
        if self.cell is None:
            self.holds.setdefault(Cause.NO_BATTERY, self.now_ms)
        elif self.cell.charge <= 0.0:
            self.holds.setdefault(Cause.EMPTY, self.now_ms)
        if self.card is not None and self.card.free <= 0:
            self.holds.setdefault(Cause.CARD_FULL, self.now_ms)
        return any(cause is not Cause.BOOT for cause in self.holds)

    def record(self) -> None:
        """The camera is up and writes."""
        self.state = RECORDING
        self.boot_ends_ms = None
        self.holds.pop(Cause.BOOT, None)
        self.holds.pop(Cause.CLIP_LIMIT, None)
        self.open_clip()
        self.account()

    def halt(self, state: State) -> None:
        """Stop recording or booting and go off or on standby."""
        self.close_clip()
        self.state = state
        self.boot_ends_ms = None
        self.holds.pop(Cause.BOOT, None)

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
        """The battery gives no more."""
        assert self.cell is not None
        self.halt(OFF)
        self.cell.charge = 0.0
        self.holds[Cause.EMPTY] = self.now_ms
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

    def fit_cell(self, cell: Cell | None) -> None:
        """Put a battery in, or start without one."""
        if self.cell is not None:
            self.cell.move("bag", self.now_ms)
        self.cell = cell
        self.holds.pop(Cause.NO_BATTERY, None)
        self.holds.pop(Cause.EMPTY, None)
        if cell is None:
            self.holds[Cause.NO_BATTERY] = self.now_ms
        else:
            cell.move(self.camera.id, self.now_ms)
        self.note()

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
        if self.state is RECORDING:
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
        if self.film_since_ms < self.now_ms and self.cell and self.card:
            self.filmed.append(
                FilmedSpan(
                    self.film_since_ms,
                    self.now_ms,
                    self.asked.assignment,
                    self.card.store.id,
                    self.cell.id,
                )
            )
        self.film_since_ms = None

    def _close_gap(self) -> None:
        if self.gap_since_ms is None or self.asked is None:
            return
        if self.gap_since_ms < self.now_ms:
            span = GapSpan(self.gap_since_ms, self.now_ms, self.gap_cause, self.asked.assignment)
            self.gaps.append(span)
        self.gap_since_ms = None
