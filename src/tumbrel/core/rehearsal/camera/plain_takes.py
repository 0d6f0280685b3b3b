"""Takes in which nothing can go wrong, played in one piece each (E7.1).

Boot and recording draw alike, so a take is one stretch. It is played so only when, by bounds that
cannot fail, no level of heat, cold, card or clip limit lies in it and nothing else happens
meanwhile; any other take is opened and played event by event.
"""

from __future__ import annotations

from ...charging import MS_PER_HOUR
from ...memory import clip_bytes, files_of, largest_file
from ..stock.clips import Kept
from ..trip.asked import Asked, Recording, Way
from .asked_time import FilmedSpan, GapSpan
from .camera_run import CameraRun, Due
from .causes import BOOTING, OFF, RECORDING, Cause


def play_takes(run: CameraRun, limit_ms: int) -> None:
    """Play takes that end before a limit, until one might meet something."""
    played = False
    while run.due_kind in (Due.ASK, Due.PREPARE) and _is_plain(run):
        span = run.asked_list[run.next_asked]
        recording = span.recording
        if recording is None or span.end_ms >= limit_ms or not _stands_alone(run, span):
            break
        on_ms = span.prepare_ms if span.prepare_ms is not None else span.start_ms
        if on_ms < run.now_ms:
            break
        run.advance(on_ms)
        if run.recording is not recording:
            run.take_settings(span, recording)
        if not _surely_whole(run, span, recording, on_ms):
            break
        _film(run, span, recording, on_ms)
        played = True
        run.after_take()
    if played:
        run.plan_next()


def _is_plain(run: CameraRun) -> bool:
    """Whether the camera is off, with a battery and a card in it, and nothing holds it back."""
    ready = run.state is OFF and not run.holds and run.wanted is None and run.asked is None
    bare = run.feed_w == 0.0 and run.off_w == 0.0 and run.between == "off"
    return ready and bare and not (run.hot or run.dead or run.spent) and run.cell is not None


def _stands_alone(run: CameraRun, span: Asked) -> bool:
    """Whether it is a stream of its own that somebody starts, with nothing that follows at once."""
    if span.way is not Way.STREAM or not span.begun:
        return False
    place = run.next_asked + 1
    return place >= len(run.asked_list) or run.asked_list[place].start_ms > span.end_ms


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
    climate = run.climate
    coldest_c = min(cell.cell_c, run.body_c, climate.coldest_base_c)
    spent = recording.draw_w * length_ms / MS_PER_HOUR / cell.wh
    if cell.charge - spent <= run.curve.at(coldest_c):
        return False
    level_c = climate.hottest_base_c + climate.largest_g * recording.rise_k
    way = min(1.0, length_ms / climate.least_lag_ms)
    hottest_c = run.body_c + max(0.0, level_c - run.body_c) * way
    return hottest_c < run.body.limits.stop_c


def _film(run: CameraRun, span: Asked, recording: Recording, on_ms: int) -> None:
    """Boot, record, and go off again; one stretch, since both draw alike."""
    cell, card = run.cell, run.card
    assert cell is not None
    assert card is not None
    up_ms = max(on_ms + run.boot_ms, span.start_ms)
    end_ms, number = span.end_ms, span.assignment
    if up_ms > span.start_ms:
        run.gaps.append(GapSpan(span.start_ms, min(up_ms, end_ms), Cause.BOOT, number))
    run.state = RECORDING if up_ms < end_ms else BOOTING
    run.settle()
    if up_ms < end_ms:
        length = clip_bytes(recording.byte_rate, end_ms - up_ms)
        files = files_of(length, largest_file(card.gb, run.camera)) if length else 0
        card.used += length
        card.written += length
        run.written += length
        run.files += files
        store = card.store.id
        if length:
            run.kept.append(Kept(up_ms, end_ms, number, store, length, files))
        run.filmed.append(FilmedSpan(up_ms, end_ms, number, store, cell.id))
    run.advance(end_ms)
    run.state = OFF
    run.settle()
