"""Clips in a folder, read by PyAV: what each file says of itself, and why others are skipped."""

from __future__ import annotations

from datetime import UTC, datetime
from pathlib import Path
from typing import TYPE_CHECKING

from ..bench.clips import LONGEST_NAME, Clip, SkippedFile
from ..document.base import whole_text

if TYPE_CHECKING:
    from av.container import InputContainer
    from av.video.stream import VideoStream

VIDEO_ENDINGS = {".mp4", ".mov", ".m4v", ".mkv", ".avi", ".mts", ".m2ts", ".ts", ".webm", ".3gp"}
# what a spoiled file makes a reader stumble over, beside its own errors
SPOILED = (ValueError, ArithmeticError, LookupError, TypeError, AttributeError, OSError)
KNOWN_WHOLE_IF = 0.98  # of the frames that the index names, those that the file still holds


def read_folder(folder: Path) -> tuple[list[Clip], list[SkippedFile]]:
    """Every file under a folder. Raises OSError when the folder cannot be read."""
    clips: list[Clip] = []
    skipped: list[SkippedFile] = []
    for path in sorted(one for one in folder.rglob("*") if one.is_file()):
        found = read_clip(path, str(path.relative_to(folder)))
        if isinstance(found, Clip):
            clips.append(found)
        else:
            skipped.append(found)
    return clips, skipped


def read_clip(path: Path, name: str) -> Clip | SkippedFile:
    """One file: its size, length, picture and start, or why it is skipped."""
    import av  # noqa: PLC0415 - slow to import, and wanted here alone

    name = whole_text(name)[-LONGEST_NAME:]
    try:
        size = path.stat().st_size
    except OSError as error:
        return SkippedFile(name=name, why=f"cannot be read ({error.strerror})")
    if size == 0:
        return SkippedFile(name=name, why="has no bytes: it was never written")
    if path.suffix.lower() not in VIDEO_ENDINGS:
        return SkippedFile(name=name, why="is no video")
    try:
        with av.open(str(path)) as container:
            return _clip_in(container, name, size)
    except (av.error.FFmpegError, *SPOILED) as error:
        what = getattr(error, "strerror", None) or type(error).__name__
        return SkippedFile(name=name, why=f"is damaged or cut off ({what})")


def _clip_in(container: InputContainer, name: str, size: int) -> Clip | SkippedFile:
    video = next(iter(container.streams.video), None)
    if video is None:
        return SkippedFile(name=name, why="holds no picture")
    seconds = float(container.duration or 0) / 1_000_000.0
    if seconds <= 0.0:
        return SkippedFile(name=name, why="has no length: its index was never written")
    if _is_cut(container, video):
        return SkippedFile(name=name, why="is cut off: it ends before its index says")
    return Clip(
        name=name,
        bytes=size,
        duration_s=seconds,
        width_px=video.width,
        height_px=video.height,
        fps=float(video.average_rate or video.guessed_rate or 0),
        started_at=_started(container.metadata.get("creation_time")),
    )


def _is_cut(container: InputContainer, video: VideoStream) -> bool:
    """Whether the last frames that the index names are not there any more."""
    if not video.duration:
        return False
    container.seek(int(video.duration * 0.999), stream=video)
    ends = (
        packet.pts + (packet.duration or 0)
        for packet in container.demux(video)
        if packet.pts is not None and packet.size > 0
    )
    return max(ends, default=0) < KNOWN_WHOLE_IF * video.duration


def _started(text: str | None) -> datetime | None:
    """The clock at the start of the recording; a camera with no clock set gives none of use."""
    if text is None:
        return None
    try:
        moment = datetime.fromisoformat(text.replace("Z", "+00:00"))
    except ValueError:
        return None
    moment = moment if moment.tzinfo is not None else moment.replace(tzinfo=UTC)
    return moment if moment.year > 1990 else None
