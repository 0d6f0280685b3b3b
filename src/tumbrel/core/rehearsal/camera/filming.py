"""How each pattern films once the camera is up: what it writes, and its beats (E7)."""

from __future__ import annotations

from math import exp

from ...memory import files_of, largest_file
from ..stock.cards import CardRun
from ..stock.clips import NEVER_MS, Frames, Kept, Loop, Stream
from ..trip.asked import Asked, FramePlan, Way
from .asked_time import Account
from .causes import ARMED, BETWEEN_FRAMES, BOOTING, RECORDING, Cause

OPENED_CYCLES = 3
LEAST_TRAIN = 4


class Filming(Account):
    """Writes clips, frames and loops."""

    __slots__ = ("beat_ms", "boot_ends_ms", "boot_ms", "end_ms", "last_wanted", "wanted")

    def open_filming(self, boot_ms: int, end_ms: int) -> None:
        """Nothing wanted yet."""
        self.boot_ms = boot_ms
        self.end_ms = end_ms
        self.wanted: Asked | None = None
        self.last_wanted: Asked | None = None
        self.boot_ends_ms: int | None = None
        self.beat_ms = NEVER_MS

    @property
    def battery_out(self) -> bool:
        """Whether it runs on outside power alone: on its source, or wanted so (E1.3)."""
        recording = self.recording if self.wanted is not None else None
        return self.rigged_out or (
            recording is not None and recording.set_up.power == "outside_only"
        )

    def has_room(self) -> bool:
        """Whether another byte fits; for a loop, whether all of it does (E7)."""
        assert self.card is not None
        wanted = self.wanted
        if wanted is not None and wanted.loop is not None and wanted.recording is not None:
            length_ms = wanted.loop.segment_ms * wanted.loop.segments
            return self.card.free >= wanted.recording.byte_rate * length_ms // 1000
        if wanted is not None and wanted.frames is not None:
            return self.card.free >= wanted.frames.frame_bytes
        return self.card.free > 0

    def write(self, span: Asked) -> None:
        """Begin to write as the pattern wants, and find its first beat."""
        card, recording = self.card, span.recording
        assert card is not None
        assert recording is not None
        now, used, number = self.now_ms, card.used, span.assignment
        self.beat_ms = NEVER_MS
        self.train_w = self.train_rise_k = 0.0
        if span.loop is not None:
            plan = span.loop
            self.clip = Loop(now, used, recording.byte_rate, plan.segment_ms, plan.segments, number)
            self._next_press(span)
        elif span.frames is not None:
            every, size = span.frames.every_ms, span.frames.frame_bytes
            self.clip = Frames(now, used, card.free, every, size, number, span.frames.stills)
            if span.frames.on_ms:
                self.beat_ms = now + max(1, span.frames.on_ms - self.boot_ms)
        elif span.way is Way.ARMED:
            self._armed_now(span)
        else:
            self.clip = Stream(now, used, card.free, recording.byte_rate, number)

    def beat(self) -> None:
        """Do what the pattern does now."""
        span = self.wanted
        assert span is not None
        if span.loop is not None:
            self.save()
            self.holds[Cause.SAVE] = self.now_ms
            self.state = BOOTING
            self.beat_ms = NEVER_MS
            self.boot_ends_ms = self.now_ms + round(self.defaults.save_s.value * 1000)
            self.account()
        elif span.frames is not None:
            self._frame_beat(span)
        else:
            self._armed_now(span)

    def save(self) -> None:
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
        elif not self._frame_train(span, frames):
            self.state = RECORDING
            self.beat_ms = self.now_ms + frames.on_ms

    def _frame_train(self, span: Asked, frames: FramePlan) -> bool:
        """Take many frames in one piece, where no level lies in it (E7.1).

        Charge is linear by cycle; the body at the start of each cycle relaxes to
        `level + g rise (e^((on - c)/tau') - e^(-c/tau')) / (1 - e^(-c/tau'))`. The cycles before a
        level is met are opened.
        """
        if self.train_w > 0.0:  # a piece has just ended: the next cycle is opened
            self.train_w = self.train_rise_k = 0.0
            return False
        recording = span.recording
        assert recording is not None
        every_ms, on_ms = frames.every_ms, frames.on_ms
        lag_ms = self.climate.lag_ms[self.step]
        cycle = exp(-every_ms / lag_ms)
        heated = (exp((on_ms - every_ms) / lag_ms) - cycle) / (1.0 - cycle)
        rest_w = self.off_w * (1.0 - on_ms / every_ms)
        self.train_w = recording.draw_w * on_ms / every_ms + rest_w
        self.train_rise_k = recording.rise_k * heated
        self.state = BETWEEN_FRAMES
        self.settle()
        bound_ms = min(span.end_ms, self.end_ms)
        met = self.own_event(bound_ms)
        until_ms = bound_ms if met is None else met[0] - OPENED_CYCLES * every_ms
        cycles = (until_ms - self.now_ms) // every_ms
        if cycles < LEAST_TRAIN:
            self.train_w = self.train_rise_k = 0.0
            return False
        self.beat_ms = self.now_ms + cycles * every_ms
        return True

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

    # -- clips ----------------------------------------------------------------------

    def close_clip(self, *, save: bool = False) -> None:
        """End what is being written, count its bytes and files; a loop is kept only if saved."""
        clip, card = self.clip, self.card
        self.clip = None
        if clip is None or card is None:
            return
        at_ms = self.now_ms
        length = card.used - clip.used_before
        start_ms = clip.start_ms
        if isinstance(clip, Loop):
            over = clip.overwritten_at(at_ms)
            start_ms = at_ms - clip.held_ms(at_ms)
            if not save:
                card.used = clip.used_before
                over += length
            card.overwritten += over
            self._count(card, length + clip.overwritten_at(at_ms))
            length = length if save else 0
        else:
            self._count(card, length)
        if length == 0:
            return
        taken = clip.taken_at(at_ms) if isinstance(clip, Frames) else 0
        stills = isinstance(clip, Frames) and clip.stills
        files = taken if stills else files_of(length, largest_file(card.gb, self.camera))
        self.files += files
        self.frames += taken
        self.kept.append(
            Kept(start_ms, at_ms, clip.assignment, card.store.id, length, files, taken)
        )

    def _count(self, card: CardRun, length: int) -> None:
        card.written += length
        self.written += length
