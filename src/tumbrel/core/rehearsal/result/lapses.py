"""What frames on a stretch come to: how many, how much film, how many times as fast.

Source: model/patterns#asked.
"""

from __future__ import annotations

from ...document import Interval
from ...patterns import frame_every_ms
from ..engine.played import Played
from .stretch_results import LapseTold


def lapses_told(played: Played) -> tuple[LapseTold, ...]:
    """Every stretch of frames, asked and kept."""
    told = []
    for number, assignment in enumerate(played.written.plan.assignments):
        pattern = assignment.pattern
        if not isinstance(pattern, Interval):
            continue
        part = played.timeline.by_id[assignment.item]
        every_ms = frame_every_ms(pattern)
        kept = [
            one
            for run in played.cameras
            if run.camera.id == assignment.camera
            for one in run.recorder.kept
            if one.assignment == number
        ]
        frames = sum(one.frames for one in kept)
        told.append(
            LapseTold(
                assignment=number,
                asked=-(-(part.end_ms - part.start_ms) // every_ms),
                frames=frames,
                film_s=frames / pattern.playback_fps,
                bytes=sum(one.bytes for one in kept),
                files=sum(one.files for one in kept),
                times_as_fast=every_ms * pattern.playback_fps / 1000.0,
            )
        )
    return tuple(told)
