"""Takes in which nothing can go wrong, played in one piece each (model/patterns#trains).

Boot and recording draw alike, so a take is one stretch. It is played so only when, by bounds that
cannot fail, no level of heat, cold, card or clip limit lies in it and nothing else happens
meanwhile; any other take is opened and played event by event.
"""

from __future__ import annotations

from ...charging import MS_PER_HOUR
from ...memory import clip_bytes
from ..trip.asked import Asked, Recording, Streaming
from .asked_time import FilmedSpan, GapSpan
from .camera_run import CameraRun
from .causes import Cause
from .events import take_settings
from .turns import BOOTING, OFF, RECORDING, Due


def play_takes(run: CameraRun, limit_ms: int) -> None:
    """Play takes that end before a limit, until one might meet something."""
    played = False
    while run.due_kind in (Due.ASK, Due.PREPARE) and _is_plain(run):
        span = run.schedule.spans[run.schedule.next]
        recording = span.recording
        if recording is None or span.end_ms >= limit_ms or not _stands_alone(run, span):
            break
        on_ms = span.prepare_ms if span.prepare_ms is not None else span.start_ms
        if on_ms < run.now_ms:
            break
        run.advance(on_ms)
        if run.recording is not recording:
            take_settings(run, span, recording)
        if not _surely_whole(run, span, recording, on_ms):
            break
        _film(run, span, recording, on_ms)
        played = True
        _look_at_next(run)
    if played:
        run.plan_next()


def _look_at_next(run: CameraRun) -> None:
    run.schedule.pass_over()
    following = run.schedule.following()
    if following is None:
        run.due_kind = Due.NOTHING
    else:
        run.due_kind = Due.ASK if following.prepare_ms is None else Due.PREPARE


def _is_plain(run: CameraRun) -> bool:
    """Whether the camera is off, with a battery and a card in it, and nothing holds it back."""
    schedule, energy = run.schedule, run.energy
    idle = schedule.wanted is None and schedule.current is None
    bare = energy.feed_w == 0.0 and energy.off_w == 0.0 and run.between == "off"
    ready = run.state == OFF and not run.holds and idle and bare
    return ready and not (run.hot or run.dead or run.spent) and run.cell is not None


def _stands_alone(run: CameraRun, span: Asked) -> bool:
    """Whether it is a stream of its own that somebody starts, with nothing that follows at once."""
    if not isinstance(span.how, Streaming) or not span.begun:
        return False
    place = run.schedule.next + 1
    spans = run.schedule.spans
    return place >= len(spans) or spans[place].start_ms > span.end_ms


def _surely_whole(run: CameraRun, span: Asked, recording: Recording, on_ms: int) -> bool:
    """Whether charge, body, card and clip limit surely last to the end of the take."""
    cell, card = run.cell, run.card
    if cell is None or card is None or recording.set_up.power != "battery":
        return False
    length_ms = span.end_ms - on_ms
    limit_ms = recording.clip_limit_ms
    if limit_ms is not None and length_ms >= limit_ms:
        return False
    if card.store.sustained_bytes_s < recording.peak_rate:
        return False
    if clip_bytes(recording.byte_rate, length_ms) >= card.free:
        return False
    thermal, climate = run.thermal, run.thermal.climate
    coldest_c = min(cell.cell_c, thermal.body_c, climate.coldest_base_c)
    spent = recording.draw_w * length_ms / MS_PER_HOUR / cell.wh
    if cell.charge - spent <= run.energy.curve.at(coldest_c):
        return False
    level_c = climate.hottest_base_c + climate.largest_g * recording.rise_k
    way = min(1.0, length_ms / climate.least_lag_ms)
    hottest_c = thermal.body_c + max(0.0, level_c - thermal.body_c) * way
    return hottest_c < thermal.body.limits.stop_c


def _film(run: CameraRun, span: Asked, recording: Recording, on_ms: int) -> None:
    """Boot, record, and go off again; one stretch, since both draw alike."""
    cell, card = run.cell, run.card
    assert cell is not None
    assert card is not None
    up_ms = max(on_ms + run.boot_ms, span.start_ms)
    end_ms, number = span.end_ms, span.assignment
    if up_ms > span.start_ms:
        boot = GapSpan(span.start_ms, min(up_ms, end_ms), Cause.BOOT, number)
        run.time.gaps.append(boot)
    run.state = RECORDING if up_ms < end_ms else BOOTING
    run.settle()
    if up_ms < end_ms:
        run.recorder.take(card, up_ms, end_ms, number, recording.byte_rate)
        run.time.filmed.append(FilmedSpan(up_ms, end_ms, number, card.store.id, cell.id))
    run.advance(end_ms)
    run.state = OFF
    run.settle()
