"""What a camera will be asked until the next time hands are free (E8.3)."""

from __future__ import annotations

from dataclasses import dataclass

from ..energy import spent_wh
from .camera_run import CameraRun

NEVER_MS = 2**53


@dataclass(frozen=True, slots=True)
class Need:
    """Watt-hours and bytes asked over a horizon, heat ignored; boot and standby included."""

    wh: float
    bytes: int
    peak_rate: int | None
    importance: int
    lasts_ms: int


def need_of(run: CameraRun, now_ms: int, horizon_ms: int) -> Need:
    """Need of a camera from now to a horizon, and how long what it holds would last."""
    wh, written, peak, importance = 0.0, 0, 0, 9
    draw_w, rate = 0.0, 0
    last_end_ms: int | None = None
    for place in range(max(0, run.next_asked - 1), len(run.asked_list)):
        span = run.asked_list[place]
        if span.start_ms >= horizon_ms:
            break
        if span.end_ms <= now_ms or span.recording is None:
            continue
        recording = span.recording
        start_ms = max(now_ms, span.start_ms)
        film_ms = min(horizon_ms, span.end_ms) - start_ms
        wh += spent_wh(recording.draw_w, film_ms)
        written += recording.byte_rate * film_ms // 1000
        fresh = span.start_ms >= now_ms and span.start_ms != last_end_ms
        if fresh and run.between == "off":
            wh += spent_wh(recording.draw_w, run.boot_ms)
        elif fresh and last_end_ms is not None:
            rest_ms = start_ms - last_end_ms
            wh += spent_wh(draw_w if run.between == "on" else run.standby_w, rest_ms)
            written += rate * rest_ms // 1000 if run.between == "on" else 0
        peak = max(peak, recording.peak_rate)
        importance = min(importance, span.importance)
        draw_w, rate = recording.draw_w, recording.byte_rate
        last_end_ms = span.end_ms
    return Need(wh, written, peak or None, importance, _lasts_ms(run, draw_w, rate))


def _lasts_ms(run: CameraRun, draw_w: float, rate: int) -> int:
    """Time until the battery or the card gives out at a draw and a byte rate [ms]."""
    by_battery = by_card = NEVER_MS
    if draw_w > 0.0:
        held = run.cell.wh * run.cell.charge if run.cell else 0.0
        by_battery = int(held / draw_w * 3_600_000)
    if rate > 0:
        by_card = (run.card.free if run.card else 0) * 1000 // rate
    return min(by_battery, by_card)
