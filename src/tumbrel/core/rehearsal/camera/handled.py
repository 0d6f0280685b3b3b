"""What hands do to a camera: open its door, put a battery or a card in, copy from it."""

from __future__ import annotations

from ...charging import NEVER_MS
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..trip.scene import BAG
from .camera_run import CameraRun
from .causes import GAVE_OUT, Cause
from .turns import COPYING, OFF


def begin_handling(run: CameraRun, cause: Cause) -> None:
    """A hand opens a door; the camera films nothing unless it hot-swaps."""
    if cause is Cause.SWAP and run.recording is not None and run.recording.set_up.hot_swap:
        return
    if run.state != OFF:
        run.halt(OFF)
    run.holds[cause] = run.now_ms
    run.account()


def end_handling(run: CameraRun, cause: Cause) -> None:
    """The door is shut; whoever handled the camera also starts it again."""
    run.spent = False
    for over in (cause, Cause.NO_HAND, Cause.NO_START, Cause.CLIP_LIMIT):
        run.holds.pop(over, None)
    run.try_begin()
    run.account()


def begin_copying(run: CameraRun, *, by_radio: bool = False) -> None:
    """On, giving its footage to a drive; it films nothing meanwhile (model/memory#copies)."""
    run.energy.copies_by_radio = by_radio
    run.halt(COPYING)
    run.holds[Cause.COPYING] = run.now_ms
    run.account()


def end_copying(run: CameraRun) -> None:
    """The cable is off."""
    run.halt(OFF)
    run.holds.pop(Cause.COPYING, None)
    run.try_begin()
    run.account()


def next_start_ms(run: CameraRun) -> int:
    """When it is wanted next: now, or once it can begin to boot; NEVER_MS when it is not."""
    if run.schedule.wanted is not None:
        return run.now_ms
    following = run.schedule.following()
    if following is None:
        return NEVER_MS
    return following.start_ms if following.prepare_ms is None else following.prepare_ms


def may_copy(run: CameraRun) -> bool:
    """Whether it can be switched on to copy: it is off, not asked, and has power.

    Source: model/memory#copies.
    """
    powered = run.cell is not None and not run.dead and run.cell.charge > run.line()
    idle = run.schedule.current is None and run.state == OFF
    return idle and (powered or run.energy.feed_w > 0.0)


def lets_go(run: CameraRun) -> bool:
    """Whether a hand may take its battery for another camera: it is off, and not wanted."""
    return run.camera.battery_comes_out and run.state == OFF and run.schedule.wanted is None


def fit_cell(run: CameraRun, cell: Cell | None) -> Cell | None:
    """Put a battery in, or start without one; gives back the one that was in."""
    old = run.cell
    if old is not None:
        old.move(old.home, run.now_ms)
    run.cell = cell
    run.dead = run.spent = False
    for over in GAVE_OUT:
        run.holds.pop(over, None)
    if cell is None:
        run.holds[Cause.NO_BATTERY] = run.now_ms
    else:
        cell.move(run.camera.id, run.now_ms, in_camera=True)
        run.energy.set_curve(run.now_ms, run.recording, cell)
        run.review_refusal()
    run.note()
    return old


def fit_card(run: CameraRun, card: CardRun | None) -> None:
    """Put a card in, or start without one; beside its own memory, where it writes to that."""
    if run.writes_own and run.camera.slot is not None:
        if run.beside is not None:
            run.beside.move(BAG, run.now_ms)
        run.beside = card
        if card is not None:
            card.move(run.camera.id, run.now_ms)
        return
    if run.card is not None:
        run.card.move(BAG, run.now_ms)
    run.card = card
    for over in (Cause.NO_CARD, Cause.CARD_FULL, Cause.CARD_UNFIT):
        run.holds.pop(over, None)
    if card is None:
        run.holds[Cause.NO_CARD] = run.now_ms
    else:
        card.move(run.camera.id, run.now_ms)
    run.note()
