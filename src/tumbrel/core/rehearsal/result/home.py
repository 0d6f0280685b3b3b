"""The work that waits at home: looking through, cutting, and each camera's own handling.

Source: model/results#home.
"""

from __future__ import annotations

from ...document import HomeWork
from ...parameters import Defaults
from ..engine.played import Played
from .result import Caught
from .stretch_results import HomeTold

MS_PER_MINUTE = 60_000


def home_told(
    played: Played, footage_ms: int, moments: tuple[Caught, ...], defaults: Defaults
) -> HomeTold:
    """Hours at home, by the person's own figures, else by what is typical."""
    work = played.written.plan.home or HomeWork()
    typical = defaults.looking_through.value
    factor = typical if work.hours_per_hour is None else work.hours_per_hour
    clips = sum(len(run.recorder.kept) for run in played.cameras)
    cameras = sum(bool(run.recorder.kept) for run in played.cameras)
    searched_ms = footage_ms
    if work.marks:
        marked_ms = sum(
            one.caught_s * 1000.0 + one.whole * (work.lead_s + work.tail_s) * 1000.0
            for one in moments
        )
        searched_ms = min(footage_ms, round(marked_ms))
    looking_ms = round(searched_ms * factor)
    clips_ms = round(clips * work.clip_min * MS_PER_MINUTE)
    cameras_ms = round(cameras * work.camera_min * MS_PER_MINUTE)
    return HomeTold(
        searched_ms=searched_ms,
        looking_ms=looking_ms,
        clips=clips,
        clips_ms=clips_ms,
        cameras=cameras,
        cameras_ms=cameras_ms,
        own=played.written.plan.home is not None,
    )
