"""What a camera writes, as each pattern wants it, and when the pattern does something next.

Source: model/patterns#asked.
"""

from __future__ import annotations

from mypy_extensions import mypyc_attr

from ...charging import NEVER_MS
from ...document import Camera
from ...memory import files_of, largest_file, loop_files
from ..state.append_log import Log
from ..stock.cards import CardRun
from ..stock.clips import Clip, Frames, Kept, LoopClip, Stream
from ..trip.asked import Arming, Asked, Framing, Looping, Recording
from .turns import ARMED, RECORDING, State


@mypyc_attr(serializable=True)
class Recorder:
    """The clip being written; footage kept, and files, frames and bytes so far.

    `beat_ms` is when the pattern does something next: a save, a frame, a clip of an armed camera;
    `shortened` are loops for which the card had less room: when [ms], for what, what it held [ms].
    """

    __slots__ = ("beat_ms", "camera", "clip", "files", "frames", "kept", "shortened", "written")

    def __init__(self, camera: Camera) -> None:
        self.camera = camera
        self.clip: Clip | None = None
        self.files = self.frames = self.written = 0
        self.kept: Log[Kept] = Log()
        self.shortened: Log[tuple[int, int, int]] = Log()
        self.beat_ms = NEVER_MS

    @staticmethod
    def has_room(card: CardRun, wanted: Asked | None) -> bool:
        """Whether another byte fits; for a loop, a second a segment (model/patterns#asked)."""
        if wanted is None or wanted.recording is None:
            return card.free > 0
        how = wanted.how
        if isinstance(how, Looping):
            return card.free >= wanted.recording.byte_rate * how.segments
        if isinstance(how, Framing):
            return card.free >= how.frame_bytes
        return card.free > 0

    def used_at(self, at_ms: int, card: CardRun | None) -> int:
        """Bytes used on the card at a time, with what is being written."""
        clip = self.clip
        if clip is not None:
            return clip.used_before + clip.length_at(at_ms)
        return card.used if card is not None else 0

    # -- patterns -------------------------------------------------------------------

    def begin(
        self, span: Asked, recording: Recording, card: CardRun, now_ms: int, boot_ms: int
    ) -> State:
        """Begin to write as the pattern wants, and find its first beat; what it does then."""
        how, used, number = span.how, card.used, span.assignment
        self.beat_ms = NEVER_MS
        if isinstance(how, Looping):
            rate = recording.byte_rate
            segment_ms = self._segment_ms(how, rate, card, now_ms, span)
            self.clip = LoopClip(now_ms, used, rate, segment_ms, how.segments, number)
            later = [at_ms for at_ms in how.presses if now_ms < at_ms < span.end_ms]
            self.beat_ms = later[0] if later else NEVER_MS
        elif isinstance(how, Framing):
            size = how.frame_bytes
            self.clip = Frames(now_ms, used, card.free, how.every_ms, size, number, how.stills)
            if how.on_ms:
                self.beat_ms = now_ms + max(1, how.on_ms - boot_ms)
        elif isinstance(how, Arming):
            return self.arm(span, how, recording, card, now_ms)
        else:
            self.clip = Stream(now_ms, used, card.free, recording.byte_rate, number)
        return RECORDING

    def _segment_ms(self, how: Looping, rate: int, card: CardRun, now_ms: int, span: Asked) -> int:
        """The length of a loop's segments [ms]: as asked, or shorter where the card holds less.

        It overwrites and never stops; what it holds less is remembered where that is missed.
        Source: model/patterns#asked.
        """
        holds_ms = NEVER_MS if rate <= 0 else card.free * 1000 // rate
        if holds_ms >= how.segment_ms * how.segments:
            return how.segment_ms
        if holds_ms < span.end_ms - now_ms:
            self.shortened.append((now_ms, span.assignment, holds_ms))
        return max(1, holds_ms // how.segments)

    def arm(
        self, span: Asked, how: Arming, recording: Recording, card: CardRun | None, now_ms: int
    ) -> State:
        """Record inside a clip of the armed pattern, wait between them."""
        for start_ms, end_ms in how.clips:
            if start_ms <= now_ms < end_ms:
                assert card is not None
                if not isinstance(self.clip, Stream):
                    rate = recording.byte_rate
                    self.clip = Stream(now_ms, card.used, card.free, rate, span.assignment)
                self.beat_ms = end_ms if end_ms < span.end_ms else NEVER_MS
                return RECORDING
        self.close(card, now_ms)
        later = [start_ms for start_ms, _ in how.clips if start_ms > now_ms]
        self.beat_ms = later[0] if later else NEVER_MS
        return ARMED

    def save(self, card: CardRun | None, now_ms: int) -> None:
        """Keep what a loop holds; the card keeps those bytes."""
        if isinstance(self.clip, LoopClip):
            self.close(card, now_ms, save=True)

    # -- clips ----------------------------------------------------------------------

    def close(self, card: CardRun | None, now_ms: int, *, save: bool = False) -> None:
        """End what is being written, count its bytes and files; a loop is kept only if saved."""
        clip = self.clip
        self.clip = None
        if clip is None or card is None:
            return
        length = card.used - clip.used_before
        start_ms = clip.start_ms
        rate = 0 if isinstance(clip, Frames) else clip.rate
        largest = largest_file(card.gb, self.camera, rate)
        if isinstance(clip, LoopClip):
            over = clip.overwritten_at(now_ms)
            start_ms = now_ms - clip.held_ms(now_ms)
            if not save:
                card.used = clip.used_before
                over += length
            card.overwritten += over
            self._count(card, length + clip.overwritten_at(now_ms))
            length = length if save else 0
        else:
            self._count(card, length)
        if length == 0:
            return
        taken = clip.taken_at(now_ms) if isinstance(clip, Frames) else 0
        stills = isinstance(clip, Frames) and clip.stills
        if isinstance(clip, LoopClip):  # each of its segments is a file
            files = loop_files(clip.held_ms(now_ms), clip.segment_ms, clip.rate, largest)
        else:
            files = taken if stills else files_of(length, largest)
        self.frames += taken
        self._keep(
            Kept(start_ms, now_ms, clip.assignment, card.store.id, length, files, taken),
        )

    def take(self, card: CardRun, start_ms: int, end_ms: int, assignment: int, rate: int) -> None:
        """A take that was filmed in one piece."""
        length = Stream(start_ms, card.used, card.free, rate, assignment).length_at(end_ms)
        card.used += length
        self._count(card, length)
        if length:
            files = files_of(length, largest_file(card.gb, self.camera, rate))
            self._keep(Kept(start_ms, end_ms, assignment, card.store.id, length, files))

    def _keep(self, kept: Kept) -> None:
        self.files += kept.files
        self.kept.append(kept)

    def _count(self, card: CardRun, length: int) -> None:
        card.written += length
        self.written += length
