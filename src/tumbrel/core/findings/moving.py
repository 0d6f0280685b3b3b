"""Stretches for which a camera could not be moved to where it is to sit (model/hands#moving)."""

from __future__ import annotations

from collections.abc import Iterator

from ..rehearsal.hands.moving import gloved
from ..rehearsal.result.record import CameraRecord
from ..rehearsal.trip.asked import Asked, Worn, move_ms
from ..rehearsal.trip.timeline import Timeline
from ..wording.moves import MOUNT_WORDS, set_up_words
from .registry import Found, Seen, Values, check


@check("no_time_to_move", "stop", curable=True)
def no_time_to_move(seen: Seen) -> Iterator[Found]:
    """A camera that is still on another mount, or built another way, as its stretch begins."""
    record = seen.record
    for number, run in enumerate(record.cameras):
        moves = [one.end_ms for one in record.done if one.kind == "move" and one.camera == number]
        said: set[int] = set()
        for before_ms, old, span in _unmoved(run, moves):
            if span.assignment in said:
                continue
            said.add(span.assignment)
            ends_ms = (before_ms, max(before_ms, span.start_ms - 1))
            gloves = any(gloved(record.timeline, at_ms) for at_ms in ends_ms)
            takes_ms = move_ms(run.camera, span.worn, gloves=gloves)
            if takes_ms == 0:
                continue  # what takes no time is no task
            free_ms = _free_ms(record.timeline, before_ms, span.start_ms)
            camera, worn = run.camera, span.worn
            was, to = MOUNT_WORDS[old.mount], MOUNT_WORDS[worn.mount]
            if old.mount == worn.mount:
                was, to = (set_up_words(camera, key) for key in (old.set_up, worn.set_up))
            short_s = -(-(takes_ms - free_ms) // 1000)
            values: Values = {
                "camera": camera.name,
                "was": was,
                "to": to,
                "leg": record.timeline.laid_at(span.start_ms).name,
                "takes_s": round(takes_ms / 1000),
                "short": f"{short_s} s are wanting" if short_s > 0 else "the hands are busy then",
            }
            path = f"plan.assignments[{span.assignment}].mount"
            yield Found(path, values, camera.id, seen.item_of(span.assignment))


def _unmoved(run: CameraRecord, moves: list[int]) -> Iterator[tuple[int, Worn, Asked]]:
    """Stretches begun where the camera did not yet sit: from when, where it sat, the stretch."""
    spans, sits = run.spans, run.spans[0].worn if run.spans else None
    if all(span.worn is sits or span.worn == sits for span in spans):
        return
    left = sorted(moves)
    before_ms = 0
    for place, span in enumerate(spans):
        until_ms = spans[place + 1].start_ms if place + 1 < len(spans) else span.end_ms
        moved = False
        while left and left[0] <= min(until_ms, span.end_ms):
            left.pop(0)
            sits, moved = span.worn, True
        elsewhere = sits is not None and sits != span.worn and not moved
        if sits and elsewhere and move_ms(run.camera, span.worn, gloves=True) > 0:
            yield before_ms, sits, span
        before_ms = span.end_ms


def _free_ms(timeline: Timeline, from_ms: int, to_ms: int) -> int:
    """The longest that hands are free at a stretch between two times [ms]."""
    inside = (
        min(to_ms, one.end_ms) - max(from_ms, one.start_ms)
        for one in timeline.free_hands
        if one.start_ms < to_ms and one.end_ms > from_ms
    )
    return max(inside, default=0)
