"""Small clips made by an encoder, and the ways in which a card spoils them."""

from __future__ import annotations

from datetime import datetime
from pathlib import Path

import av
import numpy as np


def make_clip(
    path: Path,
    seconds: float,
    at: datetime | None = None,
    size: tuple[int, int] = (320, 180),
    fps: int = 30,
    index_first: bool = False,
) -> Path:
    """A clip of moving noise."""
    options = {"movflags": "faststart"} if index_first else {}
    with av.open(str(path), "w", options=options) as container:
        if at is not None:
            container.metadata["creation_time"] = at.isoformat()
        stream = container.add_stream("mpeg4", rate=fps)
        stream.width, stream.height, stream.pix_fmt = *size, "yuv420p"
        draw = np.random.default_rng(3)
        for _ in range(round(seconds * fps)):
            picture = draw.integers(0, 255, (size[1], size[0], 3), dtype=np.uint8)
            container.mux(stream.encode(av.VideoFrame.from_ndarray(picture, format="rgb24")))
        container.mux(stream.encode())
    return path


def make_sound(path: Path) -> Path:
    """A film without a picture."""
    with av.open(str(path), "w") as container:
        stream = container.add_stream("aac", rate=48000)
        frame = av.AudioFrame.from_ndarray(
            np.zeros((1, 1024), dtype=np.float32), format="fltp", layout="mono"
        )
        frame.sample_rate = 48000
        for number in range(40):
            frame.pts = number * 1024
            container.mux(stream.encode(frame))
        container.mux(stream.encode())
    return path


def cut(path: Path, share: float) -> None:
    """Only the first part of a file was written."""
    whole = path.read_bytes()
    path.write_bytes(whole[: int(len(whole) * share)])


def spoiled_card(folder: Path) -> None:
    """A card with a recording of three chapters, two single ones, and five files that are none."""
    first = datetime.fromisoformat("2026-06-12T09:00:00+00:00")
    for number, start in enumerate((0, 2, 4)):
        make_clip(folder / f"CH0001_{number + 1}.mp4", 2.0, first.replace(second=start))
    make_clip(folder / "CH0002_1.mp4", 3.0, first.replace(minute=10))
    make_clip(folder / "CH0003_1.mp4", 1.0, first.replace(minute=20), (192, 108), 60)
    make_clip(folder / "late.mp4", 2.0)
    cut(folder / "late.mp4", 0.5)
    make_clip(folder / "early.mp4", 2.0, index_first=True)
    cut(folder / "early.mp4", 0.6)
    (folder / "nothing.mp4").write_bytes(b"")
    (folder / "notes.txt").write_text("lens was wet", encoding="utf-8")
    make_sound(folder / "voice.mp4")
