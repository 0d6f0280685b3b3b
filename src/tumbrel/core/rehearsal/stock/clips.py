"""What is being written: a stream, frames, or a loop. Bytes and times are integers.

Source: model/memory#rate, model/patterns#asked.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from mypy_extensions import mypyc_attr

from ...charging import NEVER_MS
from ...memory import clip_bytes, ms_to_full
from ...shared import Shared


@mypyc_attr(serializable=True)
@dataclass(slots=True)
class Stream:
    """A continuous recording on one card."""

    start_ms: int
    used_before: int
    room: int
    rate: int
    assignment: int

    def length_at(self, at_ms: int) -> int:
        """Bytes that it takes on the card at a time."""
        return min(self.room, clip_bytes(self.rate, at_ms - self.start_ms))

    def full_ms(self) -> int:
        """When the next byte does not fit."""
        full = ms_to_full(self.rate, self.room)
        return NEVER_MS if full is None else self.start_ms + full


@mypyc_attr(serializable=True)
@dataclass(slots=True)
class Frames:
    """Frames at start + k x every, while before the end."""

    start_ms: int
    used_before: int
    room: int
    every_ms: int
    frame_bytes: int
    assignment: int
    stills: bool = True

    def taken_at(self, at_ms: int) -> int:
        """Frames begun before a time that fit."""
        begun = -(-(at_ms - self.start_ms) // self.every_ms)
        return min(begun, self.room // self.frame_bytes)

    def length_at(self, at_ms: int) -> int:
        """Bytes that they take on the card at a time."""
        return self.taken_at(at_ms) * self.frame_bytes

    def full_ms(self) -> int:
        """When the next frame does not fit."""
        return max(1, self.room // self.frame_bytes) * self.every_ms + self.start_ms


@mypyc_attr(serializable=True)
@dataclass(slots=True)
class LoopClip:
    """A loop of N segments that overwrites its oldest when segment N + 1 would begin."""

    start_ms: int
    used_before: int
    rate: int
    segment_ms: int
    segments: int
    assignment: int

    def dropped_ms(self, at_ms: int) -> int:
        """Length that has been overwritten at a time."""
        begun = (at_ms - self.start_ms) // self.segment_ms
        return max(0, begun - self.segments + 1) * self.segment_ms if begun >= self.segments else 0

    def held_ms(self, at_ms: int) -> int:
        """Length on the card at a time: from N - 1 to N segments, once it has run that long."""
        return at_ms - self.start_ms - self.dropped_ms(at_ms)

    def overwritten_at(self, at_ms: int) -> int:
        """Bytes overwritten at a time."""
        return clip_bytes(self.rate, self.dropped_ms(at_ms))

    def length_at(self, at_ms: int) -> int:
        """Bytes that it takes on the card at a time."""
        return clip_bytes(self.rate, at_ms - self.start_ms) - self.overwritten_at(at_ms)

    def full_ms(self) -> int:
        """It never fills a card: it is no longer than the card has room for."""
        return NEVER_MS


Clip = Stream | Frames | LoopClip


class Kept(Shared):
    """Footage that was finally kept, in one piece on one card."""

    __slots__ = ("assignment", "bytes", "end_ms", "files", "frames", "start_ms", "store")

    def __init__(
        self,
        start_ms: int,
        end_ms: int,
        assignment: int,
        store: str,
        size: int,
        files: int,
        frames: int = 0,
    ) -> None:
        self.start_ms: Final = start_ms
        self.end_ms: Final = end_ms
        self.assignment: Final = assignment
        self.store: Final = store
        self.bytes: Final = size
        self.files: Final = files
        self.frames: Final = frames
