"""What happens to a camera: it is asked, its pattern does something, or it gives out by itself."""

from __future__ import annotations

from math import exp
from typing import Final

from ...charging import NEVER_MS
from ..stock.clips import Frames
from ..trip.asked import Arming, Asked, Framing, Looping, Recording, Streaming
from .camera_run import CameraRun
from .causes import Cause
from .starting import gives_out, ran_out
from .turns import BETWEEN_FRAMES, BOOTING, COPYING, FILMING, OFF, RECORDING, STANDBY, Due, Priority

OPENED_CYCLES: Final = 3
LEAST_TRAIN: Final = 4
OVER_WITH_IT: Final = (
    Cause.PLAN,
    Cause.CARD_UNFIT,
    Cause.CLIP_LIMIT,
    Cause.NO_HAND,
    Cause.NO_START,
    Cause.SAVE,
)


def happen(run: CameraRun) -> bool:
    """Let what is due happen; True when hands may want to look (model/hands#instants).

    So when something gave out or may be restarted, when a start failed, and when a cell is full or
    begins or ceases to be refused; not where a camera goes on by itself after its longest clip.
    """
    at_ms, priority = run.due
    run.advance(at_ms)
    kind = run.due_kind
    if kind == Due.ASK:
        _ask(run)
        if run.boot_ends_ms == at_ms:  # booted just in time: no event of its own
            run.record()
        return run.state == OFF
    if kind == Due.UNASK:
        _unask(run)
    elif kind == Due.BOOTED:
        run.record()
    elif kind == Due.PREPARE:
        _want(run, run.schedule.spans[run.schedule.next])
        return run.state == OFF
    elif kind == Due.BEAT:
        _beat(run)
    elif priority == Priority.CONDITIONS:
        return _charges_otherwise(run)
    else:
        _by_itself(run, priority)
        return not (priority == Priority.CLIP_LIMIT and run.state == BOOTING)
    return False


# -- asked intervals ------------------------------------------------------------------


def _ask(run: CameraRun) -> None:
    """An asked interval begins."""
    span = run.schedule.begin()
    if run.schedule.wanted is not span:
        _want(run, span)
    run.account()


def _unask(run: CameraRun) -> None:
    """An asked interval ends; a neighbour that follows at once is carried into."""
    schedule = run.schedule
    span = schedule.current
    assert span is not None
    run.close_spans()
    how = span.how
    if isinstance(how, Looping) and how.presses and how.presses[-1] == run.now_ms:
        run.recorder.save(run.card, run.now_ms)
    schedule.current = None
    follower = schedule.following()
    streams = isinstance(how, Streaming)
    if streams and follower is not None and follower.start_ms == span.end_ms:
        return
    schedule.wanted = None
    run.recorder.beat_ms = NEVER_MS
    for cause in OVER_WITH_IT:
        run.holds.pop(cause, None)
    stays_on = run.between == "on" and streams
    if stays_on and run.state == RECORDING and follower is not None:
        return
    if run.state not in (OFF, COPYING):
        standby = run.between == "standby" and follower is not None
        run.halt(STANDBY if standby else OFF)


def _want(run: CameraRun, span: Asked) -> None:
    run.schedule.wanted = run.schedule.last_wanted = span
    if span.recording is None:
        run.halt(OFF)
        run.holds[Cause.PLAN] = -1  # before all else: no kit would film what cannot be chosen
        return
    run.holds.pop(Cause.PLAN, None)
    if run.recording is not span.recording or not isinstance(span.how, Streaming):
        take_settings(run, span, span.recording)
    if run.lacks_power():
        run.lose_power()
    _check_card(run, span.recording)
    _look_who_starts(run, span)
    run.try_begin()


def _look_who_starts(run: CameraRun, span: Asked) -> None:
    """A free hand that starts it brings back what gave out; without any, it is not begun.

    A stretch that touches the one before wants no new press (model/hands#who-presses): what gave
    out there stays off
    until a hand sees to it.
    """
    if span.by_hand and not run.schedule.touches_before():
        run.spent = False
        run.holds.pop(Cause.NO_HAND, None)
    run.holds.pop(Cause.NO_START, None)
    if not span.begun and run.state in (OFF, STANDBY):
        run.holds[Cause.NO_START] = run.now_ms


def take_settings(run: CameraRun, span: Asked, recording: Recording) -> None:
    """Change mode, features or set-up; a running camera goes on in a new clip."""
    running = run.state in FILMING
    if running:
        run.recorder.close(run.card, run.now_ms)
    run.recording = recording
    run.use_store(recording)
    run.thermal.use_set_up(recording.body)
    run.energy.set_curve(run.now_ms, recording, run.cell)
    if not running:
        return
    assert run.card is not None
    if run.recorder.has_room(run.card, run.schedule.wanted):
        run.write(span)
    else:
        run.halt(OFF)


def _check_card(run: CameraRun, recording: Recording) -> None:
    run.holds.pop(Cause.CARD_UNFIT, None)
    if run.card is None:
        run.holds.setdefault(Cause.NO_CARD, run.now_ms)
    elif run.card.store.sustained_bytes_s < recording.peak_rate:
        run.holds[Cause.CARD_UNFIT] = run.now_ms
        if run.state in FILMING:
            run.halt(OFF)


# -- patterns -------------------------------------------------------------------------


def _beat(run: CameraRun) -> None:
    """Do what the pattern does now."""
    span = run.schedule.wanted
    assert span is not None
    assert span.recording is not None
    how, recorder = span.how, run.recorder
    if isinstance(how, Looping):
        recorder.save(run.card, run.now_ms)
        run.holds[Cause.SAVE] = run.now_ms
        run.state = BOOTING
        recorder.beat_ms = NEVER_MS
        run.boot_ends_ms = run.now_ms + round(run.defaults.save_s.value * 1000)
        run.account()
    elif isinstance(how, Framing):
        _frame(run, span, span.recording, how)
    elif isinstance(how, Arming):
        run.state = recorder.arm(span, how, span.recording, run.card, run.now_ms)


def _frame(run: CameraRun, span: Asked, recording: Recording, how: Framing) -> None:
    """On for a frame, off until the next (model/patterns#asked)."""
    clip = run.recorder.clip
    assert isinstance(clip, Frames)
    if run.state == RECORDING:
        run.state = BETWEEN_FRAMES
        past = (run.now_ms - clip.start_ms) // how.every_ms + 1
        run.recorder.beat_ms = clip.start_ms + past * how.every_ms
    elif not _frame_train(run, span, recording, how):
        run.state = RECORDING
        run.recorder.beat_ms = run.now_ms + how.on_ms


def _frame_train(run: CameraRun, span: Asked, recording: Recording, how: Framing) -> bool:
    """Take many frames in one piece, where no level lies in it (model/patterns#trains).

    Charge is linear by cycle; the body at the start of each cycle relaxes to
    `level + g rise (e^((on - c)/tau') - e^(-c/tau')) / (1 - e^(-c/tau'))`. The cycles before a
    level is met are opened.
    """
    energy, every_ms = run.energy, how.every_ms
    if energy.on_sleeper and run.hung_on is not None:
        return False  # between frames a bank may fall asleep: its mean tells nothing of that
    if energy.train_w > 0.0:  # a piece has just ended: the next cycle is opened
        energy.train_w = energy.train_rise_k = 0.0
        return False
    lag_ms = run.thermal.climate.lag_ms[run.thermal.step]
    cycle = exp(-every_ms / lag_ms)
    heated = (exp((how.on_ms - every_ms) / lag_ms) - cycle) / (1.0 - cycle)
    rest_w = energy.off_w * (1.0 - how.on_ms / every_ms)
    energy.train_w = recording.draw_w * how.on_ms / every_ms + rest_w
    energy.train_rise_k = recording.rise_k * heated
    run.state = BETWEEN_FRAMES
    run.settle()
    bound_ms = min(span.end_ms, run.end_ms)
    met = run.own_event(bound_ms)
    until_ms = bound_ms if met is None else met[0] - OPENED_CYCLES * every_ms
    cycles = (until_ms - run.now_ms) // every_ms
    if cycles < LEAST_TRAIN:
        energy.train_w = energy.train_rise_k = 0.0
        return False
    run.recorder.beat_ms = run.now_ms + cycles * every_ms
    return True


# -- by itself ------------------------------------------------------------------------


def _charges_otherwise(run: CameraRun) -> bool:
    """Look at what charges in it; whether it is full now, or refused, or no more."""
    cell, energy = run.cell, run.energy
    if cell is None:
        return False
    before = (cell.refused, energy.body_pause, cell.topped)
    run.review_refusal()
    cell.takes_charge()
    return (cell.refused, energy.body_pause, cell.topped) != before


def _by_itself(run: CameraRun, what: int) -> None:
    if what == Priority.HEAT:
        _cooled(run) if run.hot else run.stop_hot()
    elif what == Priority.EMPTY and run.dead and run.state == OFF:
        run.try_begin()  # its cell has warmed or taken charge enough
        run.account()
    elif what == Priority.EMPTY:
        _stop_empty(run)
    elif what == Priority.CARD_FULL:
        _stop(run, Cause.CARD_FULL)
    else:
        _stop_at_clip_limit(run)


def _cooled(run: CameraRun) -> None:
    """Below the restart level (model/heat#restart)."""
    run.hot = False
    run.holds.pop(Cause.HOT, None)
    run.try_begin()
    run.account()


def _stop(run: CameraRun, cause: Cause) -> None:
    run.halt(OFF)
    run.holds[cause] = run.now_ms
    run.account()


def _stop_empty(run: CameraRun) -> None:
    """The battery gives no more at its temperature; dead until a hand restarts it.

    Source: model/cold#reach.
    """
    cell = run.cell
    assert cell is not None
    run.halt(OFF)
    run.dead = True
    run.spent = not run.camera.starts_itself
    if run.line() <= 0.0:
        run.energy.lost_wh += cell.charge * cell.wh
        cell.charge = 0.0
    gives_out(run, ran_out(run))
    run.account()


def _stop_at_clip_limit(run: CameraRun) -> None:
    """The longest clip is over; the camera goes on by itself after a boot, or waits.

    Source: model/memory#clips.
    """
    run.halt(OFF)
    run.holds[Cause.CLIP_LIMIT] = run.now_ms
    if run.camera.continues_after_clip:
        run.state = BOOTING
        run.boot_ends_ms = run.now_ms + run.boot_ms
    run.account()
