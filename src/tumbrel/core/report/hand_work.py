"""The hands' work in order: the plan's starts and stops, the hands' swaps and restarts.

Source: model/hands#tasks.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from ..document import Assignment, Kit, Leg
from ..rehearsal.engine.played import Played
from ..rehearsal.hands.tasks import TaskDone
from ..rehearsal.result.result import Move
from ..rehearsal.trip.scene import Written
from ..rehearsal.trip.timeline import Laid
from ..wording.moves import (
    MOUNT_WORDS,
    again_words,
    set_up_words,
    start_words,
    stop_words,
    task_words,
    together_words,
)

SOON_MS: Final = 3_600_000


def moves_of(played: Played) -> tuple[Move, ...]:
    """All moves in order of time."""
    moves = [*_tasks(played), *_starts_and_stops(played)]
    return tuple(sorted(moves, key=lambda move: (move.at_ms, move.end_ms, move.camera)))


def _tasks(played: Played) -> list[Move]:
    return [_task(played, number, done) for number, done in enumerate(played.hands.done)]


def _task(played: Played, number: int, done: TaskDone) -> Move:
    lane = _lane(played, done)
    names = (done.out_name, done.in_name)
    if done.kind == "move":
        names = _seats(played.written.kit, lane, *names)
    return Move(
        at_ms=done.start_ms,
        end_ms=done.end_ms,
        item=played.timeline.laid_at(done.start_ms).id,
        camera=lane,
        kind=done.kind,
        takes_out=names[0],
        puts_in=names[1],
        unit=done.unit,
        alone=done.camera < 0,
        text=task_words(done.kind, *names, cable=done.cable) + again(played.hands.done, number),
    )


def _seats(kit: Kit, camera: str, was: str, to: str) -> tuple[str, str]:
    """Mounts by their words; a set-up, which comes from nothing, by its name."""
    if was:
        return MOUNT_WORDS[was], MOUNT_WORDS[to]
    return "", set_up_words(next(one for one in kit.cameras if one.id == camera), to)


def again(done: Sequence[TaskDone], number: int) -> str:
    """What is added to a swap that puts in what went in less than an hour before: why."""
    swap = done[number]
    if swap.kind != "swap":
        return ""
    for place in range(number - 1, -1, -1):
        before = done[place]
        if before.end_ms < swap.start_ms - SOON_MS:
            return ""
        if before.kind == "swap" and before.in_name == swap.in_name:
            since = done[place + 1 : number]
            charged = any(one.kind == "plug" and one.out_name == swap.in_name for one in since)
            return again_words(charged, swap.out_name)
    return ""


def _lane(played: Played, done: TaskDone) -> str:
    """The camera that a task is for; a spare's is the first of its family, a bank's the first."""
    cameras = [run.camera for run in played.cameras]
    if done.camera >= 0:
        return cameras[done.camera].id
    family = next((cell.family for cell in played.cells if cell.name == done.out_name), None)
    mine = (camera.id for camera in cameras if camera.battery_family == family)
    return next(mine, cameras[0].id if cameras else "")


def _starts_and_stops(played: Played) -> list[Move]:
    """A start where a stretch begins, a stop where it ends; stretches that touch are one."""
    document = played.written
    laid = played.timeline.laid
    order = {part.id: number for number, part in enumerate(laid)}
    moves = []
    for camera in document.kit.cameras:
        mine = [a for a in document.plan.assignments if a.camera == camera.id]
        mine.sort(key=lambda a: order[a.item])
        for number, assignment in enumerate(mine):
            place = order[assignment.item]
            before = mine[number - 1] if number else None
            touches = before is not None and order[before.item] == place - 1
            if not (touches and before is not None and _same_way(before, assignment)):
                moves.append(_start(document.kit, laid, place, assignment))
            after = mine[number + 1] if number + 1 < len(mine) else None
            if after is None or order[after.item] != place + 1:
                moves.append(_stop(laid, place, assignment))
    return _pressed_once(document, moves)


def _pressed_once(document: Written, moves: list[Move]) -> list[Move]:
    """One action starts all cameras that are linked: one move, which names them.

    Source: model/hands#links.
    """
    names = {camera.id: camera.name for camera in document.kit.cameras}
    groups = [link.cameras for link in document.plan.links]
    by_press: dict[tuple[int, int], list[Move]] = {}
    for move in moves:
        group = next((n for n, one in enumerate(groups) if move.camera in one), None)
        if move.kind == "start" and group is not None:
            by_press.setdefault((move.at_ms, group), []).append(move)
    merged = [one for press in by_press.values() for one in press]
    kept = [move for move in moves if all(move is not one for one in merged)]
    for first, *others in by_press.values():
        told = {names[one.camera]: one.text for one in others}
        kept.append(first.model_copy(update={"text": together_words(first.text, told)}))
    return kept


def _same_way(one: Assignment, other: Assignment) -> bool:
    return (one.mode, one.set_up, one.features, one.pattern) == (
        other.mode,
        other.set_up,
        other.features,
        other.pattern,
    )


def _start(kit: Kit, laid: tuple[Laid, ...], place: int, assignment: Assignment) -> Move:
    part = laid[place]
    from_stop = place > 0 and laid[place - 1].kind == "stop" and isinstance(part.item, Leg)
    return Move(
        at_ms=part.start_ms,
        end_ms=part.start_ms,
        item=laid[place - 1].id if from_stop else part.id,
        camera=assignment.camera,
        kind="start",
        text=start_words(kit, assignment),
    )


def _stop(laid: tuple[Laid, ...], place: int, assignment: Assignment) -> Move:
    part = laid[place]
    into_stop = place + 1 < len(laid) and laid[place + 1].kind == "stop"
    return Move(
        at_ms=part.end_ms,
        end_ms=part.end_ms,
        item=laid[place + 1].id if into_stop else part.id,
        camera=assignment.camera,
        kind="stop",
        text=stop_words(),
    )
