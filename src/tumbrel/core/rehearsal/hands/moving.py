"""Which camera is to be moved to another mount, and when (model/hands#moving)."""

from __future__ import annotations

from itertools import pairwise

from ...document import Camera
from ..camera.camera_run import CameraRun
from ..camera.causes import Cause
from ..camera.handled import end_handling
from ..camera.turns import COPYING
from ..trip.asked import Asked, move_ms
from ..trip.timeline import FreeHands, Timeline
from .tasks import Remount


def move_due(
    run: CameraRun, now_ms: int, interval: FreeHands, timeline: Timeline
) -> Remount | None:
    """The move that a camera wants now, in the last free hands before its stretch.

    Not while it films another stretch; where free hands have held since its own began, it is moved
    in that, and films nothing meanwhile. Source: model/hands#moving.
    """
    span = run.schedule.current or run.schedule.following()
    if span is None or run.state == COPYING or Cause.COPYING in run.holds:
        return None
    begun = run.schedule.current is span
    if begun and span.start_ms < interval.start_ms:
        return None
    if not begun and span.start_ms > timeline.next_free_ms(now_ms):
        return None
    if run.sits() == span.worn:
        return None
    takes_ms = move_ms(run.camera, span.worn, gloves=gloved(timeline, now_ms))
    if takes_ms == 0:
        return None
    left_ms = max(0, span.start_ms - now_ms)
    return Remount(span.importance, left_ms, run.index, takes_ms, run, span)


def gloved(timeline: Timeline, at_ms: int) -> bool:
    """Whether hands wear gloves at a time."""
    item = timeline.laid_at(at_ms).item
    return item is not None and item.gloves


def changes(run: CameraRun) -> list[tuple[Asked, Asked]]:
    """Pairs of stretches, one after the other, between which a camera is moved."""
    pairs = pairwise(run.schedule.spans)
    return [(a, b) for a, b in pairs if a.worn is not b.worn and a.worn != b.worn]


def moved_before_ms(
    camera: Camera, changed: list[tuple[Asked, Asked]], interval: FreeHands, timeline: Timeline
) -> int:
    """How long a move takes that is due in an interval for what follows it [ms]."""
    until_ms = timeline.next_free_ms(interval.start_ms)
    for one, other in changed:
        if interval.end_ms <= other.start_ms <= until_ms and one.end_ms <= interval.end_ms:
            return move_ms(camera, other.worn, gloves=gloved(timeline, interval.end_ms - 1))
    return 0


def looks_ms(camera: Camera, changed: list[tuple[Asked, Asked]]) -> set[int]:
    """When hands look whether a camera is to be moved: where one stretch ends, one begins."""
    found: set[int] = set()
    for one, other in changed:
        if move_ms(camera, other.worn, gloves=True):
            found |= {one.end_ms, other.start_ms}
    return found


def moved(task: Remount) -> tuple[str, str]:
    """From mount to mount, by their keys; or from nothing to the set-up, where that is all."""
    run, old, new = task.run, task.run.sits(), task.span.worn
    run.close_spans()
    run.worn = new
    end_handling(run, Cause.MOVE)
    other = old is not None and old.mount != new.mount
    return (old.mount, new.mount) if old is not None and other else ("", new.set_up)
