"""What each camera is asked, interval by interval, with the figures that filming it needs."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ...document import Camera, Mode, Mount, SetUp
from ...heat import Body
from ...patterns import Span
from ...shared import Shared


@dataclass(frozen=True, slots=True)
class Recording(Shared):
    """How a camera records under one assignment: power, heat, bytes and hands."""

    mode: Mode
    set_up: SetUp
    draw_w: float
    rise_k: float
    byte_rate: int
    peak_rate: int
    clip_limit_ms: int | None
    body: Body
    armed_w: float
    armed_rise_k: float
    boot_w: float
    boot_rise_k: float


@dataclass(frozen=True, slots=True)
class Worn(Shared):
    """Where a camera sits: how it is built, and on what."""

    set_up: str
    mount: Mount


def move_ms(camera: Camera, to: Worn, *, gloves: bool) -> int:
    """How long it takes to put a camera there [ms], bare or gloved (model/hands#moving)."""
    bare_s, gloved_s = camera.move_s, camera.move_gloved_s
    known = camera.mounted(to.mount)
    if known is not None and known.move_s is not None:
        bare_s = known.move_s
        gloved_s = bare_s if known.move_gloved_s is None else known.move_gloved_s
    return round((max(bare_s, gloved_s) if gloves else bare_s) * 1000)


NOT_WORN: Final = Worn("", "other")


@dataclass(frozen=True, slots=True)
class Streaming:
    """Filmed in one piece: a roll, a take or a window."""


@dataclass(frozen=True, slots=True)
class Looping:
    """A loop: its segments, and when it is saved."""

    segment_ms: int
    segments: int
    presses: tuple[int, ...]
    lost_presses: int


@dataclass(frozen=True, slots=True)
class Framing:
    """Frames: how often, how large, and how long the camera is on for one (0: all the time).

    Stills are a file each; else they become one video.
    """

    every_ms: int
    frame_bytes: int
    on_ms: int
    stills: bool


@dataclass(frozen=True, slots=True)
class Arming:
    """Armed, and filming in some clips (start, end) [ms]."""

    clips: tuple[Span, ...]


How = Streaming | Looping | Framing | Arming
STREAMING: Final = Streaming()


@dataclass(slots=True, eq=False)
class Asked(Shared):
    """One asked interval [start, end); `recording` is None when the mode is missing.

    `prepare_ms` is when it can begin to boot; `need_w`, `need_rise_k` and `need_bytes_s` are means
    over it. `by_hand` says that a free hand is there when it begins, `begun` that anybody or
    anything is there to start it (model/hands#who-presses); `worn` where the camera is to sit.
    """

    start_ms: int
    end_ms: int
    assignment: int
    ends_leg: bool
    importance: int
    recording: Recording | None
    prepare_ms: int | None = None
    how: How = STREAMING
    need_w: float = 0.0
    need_rise_k: float = 0.0
    need_bytes_s: float = 0.0
    by_hand: bool = False
    begun: bool = True
    worn: Worn = NOT_WORN
