"""Starting a camera when nothing holds it back, and how it gives out (E3.3, E3.4, E5, E6)."""

from __future__ import annotations

from ..stock.clips import NEVER_MS
from .causes import BOOTING, GAVE_OUT, OFF, RECORDING, STANDBY, Cause, State
from .filming import Filming

COLD_NOT_EMPTY = 0.03


class Starting(Filming):
    """Starts, and stops by itself."""

    __slots__ = ()

    def try_begin(self) -> None:
        """Start recording when it is wanted and nothing holds it back."""
        if self.wanted is None or self.state >= BOOTING:
            return
        if self._held_back():
            self._stays_out()
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

    def _stays_out(self) -> None:
        """A start that fails for want of charge leaves it dead, for a hand to see to (E3.4)."""
        if Cause.COLD in self.holds or Cause.EMPTY in self.holds:
            self.dead = True
            self.spent = not self.camera.starts_itself

    def _held_back(self) -> bool:
        if self.spent and self.dead and self._fed_enough():
            self.spent = False  # power that returns starts it (E3.4)
        if self.spent:
            self.holds.setdefault(Cause.NO_HAND, self.now_ms)
        power = self._power_missing()
        for cause in GAVE_OUT:
            if cause is not power:
                self.holds.pop(cause, None)
        if power is not None:
            self.holds.setdefault(power, self.now_ms)
        if self.card is None or self.has_room():
            self.holds.pop(Cause.CARD_FULL, None)
        else:
            self.holds.setdefault(Cause.CARD_FULL, self.now_ms)
        return any(cause is not Cause.BOOT for cause in self.holds)

    def _power_missing(self) -> Cause | None:
        """Why there is no power to start with; a dead cell wants some charge above its line."""
        if self._fed_enough():
            return None
        if self.battery_out:
            return Cause.NO_POWER
        if self.cell is None:
            return Cause.NO_BATTERY
        if self.dead and self.thawed():
            self.dead = False
        if self.dead or self.cell.charge <= self.line():
            return self._ran_out()
        return None

    def _fed_enough(self) -> bool:
        """Whether what its port grants covers what it would draw."""
        recording = self.wanted.recording if self.wanted else None
        draw_w = recording.draw_w if recording else 0.0
        return self.feed_w * self.defaults.feed_efficiency.value >= draw_w - 1e-9 > 0.0

    def _ran_out(self) -> Cause:
        """Empty; or held back by the cold, when a warm cell would still give something."""
        held = self.cell.charge if self.cell else 0.0
        return Cause.COLD if held >= COLD_NOT_EMPTY else Cause.EMPTY

    def record(self) -> None:
        """The camera is up and films as it was asked."""
        self.boot_ends_ms = None
        for over in (Cause.BOOT, Cause.CLIP_LIMIT, Cause.SAVE):
            self.holds.pop(over, None)
        assert self.last_wanted is not None
        self.state = RECORDING
        self.write(self.last_wanted)
        self.account()

    def halt(self, state: State) -> None:
        """Stop recording or booting and go off or on standby."""
        self.close_clip()
        self.train_w = self.train_rise_k = 0.0
        self.state = state
        self.boot_ends_ms = None
        self.beat_ms = NEVER_MS
        self.holds.pop(Cause.BOOT, None)
        self.holds.pop(Cause.SAVE, None)

    # -- giving out -----------------------------------------------------------------

    def stop_hot(self) -> None:
        """Too hot: off until cool, and then for a hand unless it starts itself (E5.3, E5.4)."""
        self.halt(OFF)
        self.hot = True
        self.spent = not self.camera.starts_itself
        self.holds[Cause.HOT] = self.now_ms
        if self.spent and self.wanted is not None:
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
        self.spent = not self.camera.starts_itself
        if self.line() <= 0.0:
            self.lost_wh += cell.charge * cell.wh
            cell.charge = 0.0
        self.holds[self._ran_out()] = self.now_ms
        self.account()

    def thaw(self) -> None:
        """Its cell has warmed or taken charge enough: by itself where it can, else by a hand."""
        self.try_begin()
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
        short = watts * self.defaults.feed_efficiency.value < self.state_w() - 1e-9
        if self.battery_out and short and self.state is not OFF:
            self.stop_unpowered()
        elif self.wanted is not None and self.state is OFF and self._waits_for_power():
            self.try_begin()
            self.account()

    def _waits_for_power(self) -> bool:
        """Whether power that returns may start it again (E3.4)."""
        return Cause.NO_POWER in self.holds or (self.dead and self._fed_enough())
