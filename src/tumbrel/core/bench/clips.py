"""Clips that a camera wrote: chapters joined into recordings, rates and lengths by mode.

Source: model/memory#rate.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Sequence
from itertools import pairwise
from typing import Annotated, Any

from pydantic import AwareDatetime, Field, ValidationError, model_validator

from ..document import Camera, Mode
from ..document.base import Part

MOST_FILES = 20_000
LONGEST_NAME = 400
NEXT_CHAPTER_WITHIN_S = 3.0
SAME_RATE = 0.02  # frame rates of 29.97 and 30 are one
FULL_CHAPTER = 0.9  # a chapter that has another one after it is nearly as large as the largest


class Clip(Part):
    """What one file says of itself."""

    name: Annotated[str, Field(max_length=LONGEST_NAME)]
    bytes: Annotated[int, Field(ge=0)]
    duration_s: Annotated[float, Field(ge=0.0, le=1e6)]
    width_px: Annotated[int, Field(ge=0, le=100_000)] = 0
    height_px: Annotated[int, Field(ge=0, le=100_000)] = 0
    fps: Annotated[float, Field(ge=0.0, le=10_000.0)] = 0.0
    started_at: AwareDatetime | None = None


class SkippedFile(Part):
    """A file that is no clip, or a damaged one, and why."""

    name: Annotated[str, Field(max_length=LONGEST_NAME)]
    why: Annotated[str, Field(max_length=LONGEST_NAME)]


class ClipsQuestion(Part):
    """A camera and the files of its card."""

    camera: Camera
    clips: Annotated[tuple[Clip, ...], Field(max_length=MOST_FILES)] = ()
    skipped: Annotated[tuple[SkippedFile, ...], Field(max_length=MOST_FILES)] = ()

    @model_validator(mode="before")
    @classmethod
    def _spoiled_ones_skipped(cls, told: Any) -> Any:
        """One file that says what cannot be is told as skipped; it does not stop the card."""
        if not isinstance(told, dict) or not isinstance(told.get("clips"), list | tuple):
            return told
        good: list[object] = []
        skipped = [_short(one) for one in told.get("skipped") or ()]
        for clip in told["clips"][:MOST_FILES]:
            try:
                good.append(Clip.model_validate(clip))
            except ValidationError as error:
                name = clip.get("name") if isinstance(clip, dict) else None
                found = error.errors(include_url=False, include_input=False)[0]
                field = ".".join(str(step) for step in found["loc"])
                why = f"says of itself what cannot be: {field}: {found['msg']}"
                skipped.append(_short({"name": str(name), "why": why}))
        return {**told, "clips": good, "skipped": skipped}


def _short(told: Any) -> Any:
    """A skipped file as it is told, its name and reason no longer than they may be."""
    if not isinstance(told, dict):
        return told
    texts = {name: text[:LONGEST_NAME] for name, text in told.items() if isinstance(text, str)}
    return {**told, **texts}


class ClipRecording(Part):
    """Chapters of one recording, from start to stop."""

    names: tuple[str, ...]
    mode: str | None
    minutes: float
    bytes: int
    mbps: float
    started_at: AwareDatetime | None


class ModeRate(Part):
    """What a mode writes, measured: all bytes of a file over its time."""

    mode: str
    recordings: int
    minutes: float
    mbps: float
    assumed_mbps: float
    longest_min: float


class ClipsTold(Part):
    """Recordings in order, rates by mode, and what was skipped."""

    recordings: tuple[ClipRecording, ...]
    rates: tuple[ModeRate, ...]
    skipped: tuple[SkippedFile, ...]


def tell_clips(question: ClipsQuestion) -> ClipsTold:
    """Recordings, measured rates and lengths; a clip without length or bytes is told as skipped."""
    good, skipped = [], list(question.skipped)
    for clip in question.clips:
        why = _fault(clip)
        if why is None:
            good.append(clip)
        else:
            skipped.append(SkippedFile(name=clip.name, why=why))
    recordings = [_recording(chapters, question.camera) for chapters in joined(good)]
    return ClipsTold(
        recordings=tuple(recordings),
        rates=tuple(_rates(recordings, question.camera)),
        skipped=tuple(sorted(skipped, key=lambda one: one.name)),
    )


def _fault(clip: Clip) -> str | None:
    if clip.bytes == 0:
        return "has no bytes: it was never written"
    if clip.duration_s <= 0.0:
        return "has no length: it was cut off before its index was written"
    if clip.width_px == 0 or clip.height_px == 0:
        return "holds no picture"
    return None


def joined(clips: Iterable[Clip]) -> list[list[Clip]]:
    """Clips as recordings, each a list of chapters in order.

    A chapter goes on where the one before it stopped, within three seconds, in the same picture;
    where no start times are known, by the number in its name after a chapter that was full.
    """
    timed = sorted(clips, key=_order)
    largest = max((clip.bytes for clip in timed), default=0)
    found: list[list[Clip]] = []
    for before, clip in pairwise([None, *timed]):
        assert clip is not None
        if before is not None and _goes_on(before, clip, largest):
            found[-1].append(clip)
        else:
            found.append([clip])
    return found


def _order(clip: Clip) -> tuple[bool, float, str]:
    at = clip.started_at
    return at is None, at.timestamp() if at is not None else 0.0, clip.name


def _goes_on(before: Clip, clip: Clip, largest: int) -> bool:
    if (before.width_px, before.height_px) != (clip.width_px, clip.height_px):
        return False
    if abs(before.fps - clip.fps) > SAME_RATE * max(before.fps, 1.0):
        return False
    if before.started_at is not None and clip.started_at is not None:
        apart_s = (clip.started_at - before.started_at).total_seconds() - before.duration_s
        if abs(apart_s) <= NEXT_CHAPTER_WITHIN_S:
            return True
        # some cameras stamp every chapter with the start of the recording
        same_start = clip.started_at == before.started_at
        return same_start and _numbered(before, clip)
    return before.bytes >= FULL_CHAPTER * largest and _numbered(before, clip)


def _numbered(before: Clip, clip: Clip) -> bool:
    """Whether two names differ by one in one of their numbers."""
    old, new = re.split(r"(\d+)", before.name), re.split(r"(\d+)", clip.name)
    if len(old) != len(new):
        return False
    differs = [(a, b) for a, b in zip(old, new, strict=True) if a != b]
    return (
        len(differs) == 1
        and all(text.isdigit() for text in differs[0])
        and int(differs[0][1]) - int(differs[0][0]) == 1
    )


def _recording(chapters: Sequence[Clip], camera: Camera) -> ClipRecording:
    seconds = sum(clip.duration_s for clip in chapters)
    size = sum(clip.bytes for clip in chapters)
    mode = mode_of(chapters[0], camera.modes, size * 8.0 / seconds / 1e6)
    return ClipRecording(
        names=tuple(clip.name for clip in chapters),
        mode=mode.id if mode else None,
        minutes=seconds / 60.0,
        bytes=size,
        mbps=size * 8.0 / seconds / 1e6,
        started_at=chapters[0].started_at,
    )


def mode_of(clip: Clip, modes: Sequence[Mode], mbps: float) -> Mode | None:
    """The mode with the clip's picture and rate; of several, the nearest in bits. None: unknown."""
    alike = [
        mode
        for mode in modes
        if {mode.width_px, mode.height_px} == {clip.width_px, clip.height_px}
        and abs(mode.fps - clip.fps) <= SAME_RATE * mode.fps
    ]
    return min(alike, key=lambda mode: abs(mode.video_mbps - mbps), default=None)


def _rates(recordings: Sequence[ClipRecording], camera: Camera) -> Iterator[ModeRate]:
    for mode in camera.modes:
        own = [one for one in recordings if one.mode == mode.id]
        if own:
            minutes = sum(one.minutes for one in own)
            yield ModeRate(
                mode=mode.id,
                recordings=len(own),
                minutes=minutes,
                mbps=sum(one.bytes for one in own) * 8.0 / (minutes * 60.0) / 1e6,
                assumed_mbps=mode.video_mbps + mode.audio_mbps,
                longest_min=max(one.minutes for one in own),
            )
