"""Bytes written, what a card holds, and the files that come out (model/memory#rate)."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from .document import Camera, Card, FixedMemory, Mode, SetUp
from .parameters import Defaults
from .shared import Shared

FAT32_LARGEST_FILE: Final = 4 * 2**30 - 1
LARGEST_FAT32_GB: Final = 32
GB: Final = 10**9


@dataclass(frozen=True)
class Store(Shared):
    """Where a camera writes: a card or its fixed memory."""

    id: str
    name: str
    usable_bytes: int
    used_bytes: int
    sustained_bytes_s: float


def byte_rate(mode: Mode, defaults: Defaults) -> int:
    """Bytes a second at the mean bitrate, rounded up (model/memory#rate)."""
    return _bytes_s(mode.video_mbps, mode, defaults)


def peak_byte_rate(mode: Mode, defaults: Defaults) -> int:
    """Bytes a second that the card must sustain (model/memory#rate, model/memory#speed)."""
    peak = mode.peak_mbps or mode.video_mbps * defaults.peak_over_mean.value
    return _bytes_s(peak, mode, defaults)


def _bytes_s(video_mbps: float, mode: Mode, defaults: Defaults) -> int:
    mean = (video_mbps + mode.audio_mbps) * 1e6 / 8.0
    whole = mean * (1.0 + defaults.container_overhead.value) * (1.0 + mode.proxy_share)
    return math.ceil(round(whole, 6))


def clip_bytes(rate: int, elapsed_ms: int) -> int:
    """Bytes of a clip after elapsed ms (model/memory#rate)."""
    return rate * elapsed_ms // 1000


def ms_to_full(rate: int, free_bytes: int) -> int | None:
    """Length of clip [ms] that uses up `free_bytes`, rounded up; None when nothing is written."""
    if rate <= 0:
        return None
    return -(-free_bytes * 1000 // rate)


def usable_bytes(gb: int, reserved_gb: float, defaults: Defaults) -> int:
    """Room for clips on an empty card or memory of a label size [GB] (model/memory#room)."""
    return max(0, math.floor(gb * GB * defaults.usable_share.value + 0.5) - round(reserved_gb * GB))


def card_store(card: Card, defaults: Defaults) -> Store:
    """A card as something to write on."""
    return Store(
        id=card.id,
        name=card.name,
        usable_bytes=usable_bytes(card.gb, 0.0, defaults),
        used_bytes=card.used_bytes,
        sustained_bytes_s=defaults.class_mb_s[card.speed_class]
        * 1e6
        * defaults.sustained_share.value,
    )


def memory_key(camera: Camera) -> str:
    """Key of a camera's own memory."""
    return f"{camera.id}:memory"


def fixed_store(camera: Camera, memory: FixedMemory, defaults: Defaults) -> Store:
    """A camera's own memory."""
    return Store(
        id=memory_key(camera),
        name=f"{camera.name} memory",
        usable_bytes=usable_bytes(memory.gb, memory.reserved_gb, defaults),
        used_bytes=0,
        sustained_bytes_s=memory.speed_mb_s * 1e6 * defaults.sustained_share.value,
    )


def largest_file(gb: int, camera: Camera, rate: int = 0) -> int | None:
    """Largest file before a new chapter [bytes]: the camera's own, or that of FAT32.

    By its minutes too, at a rate [bytes/s]. Source: model/memory#clips.
    """
    own = round(camera.chapter_gb * GB) if camera.chapter_gb else None
    if camera.chapter_min is not None and rate > 0:
        by_time = max(1, round(rate * camera.chapter_min * 60.0))
        own = by_time if own is None else min(own, by_time)
    if gb <= LARGEST_FAT32_GB:
        return min(own, FAT32_LARGEST_FILE) if own else FAT32_LARGEST_FILE
    return own


def files_of(clip: int, largest: int | None) -> int:
    """Files that a clip of `clip` bytes is cut into (model/memory#clips)."""
    return 1 if largest is None or clip == 0 else -(-clip // largest)


def longest_clip_s(mode: Mode, set_up: SetUp | None, *, frames: bool = False) -> int | None:
    """The longest clip, or run of frames, of a mode so built [s]; None: as long as one likes.

    Source: model/memory#clips.
    """
    if frames:
        return None if set_up is None else set_up.lapse_limit_s
    limits = [mode.clip_limit_s, None if set_up is None else set_up.clip_limit_s]
    return min((one for one in limits if one is not None), default=None)


def loop_files(held_ms: int, segment_ms: int, rate: int, largest: int | None) -> int:
    """Files of a loop that is kept: one a segment begun, longer ones in chapters.

    Source: model/memory#clips.
    """
    whole, rest_ms = divmod(held_ms, segment_ms)
    files = whole * files_of(clip_bytes(rate, segment_ms), largest)
    return files + (files_of(clip_bytes(rate, rest_ms), largest) if rest_ms else 0)


def card_is_too_large(card: Card, camera: Camera) -> bool:
    """Whether the camera does not take cards of this size (model/memory#speed)."""
    slot = camera.card_slot
    return slot is not None and card.gb > slot.largest_gb


def store_keeps_up(store: Store, mode: Mode, defaults: Defaults) -> bool:
    """Whether the store sustains the mode's peak (model/memory#speed)."""
    return store.sustained_bytes_s >= peak_byte_rate(mode, defaults)
