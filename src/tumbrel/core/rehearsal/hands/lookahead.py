"""What a camera will be asked until the next time hands are free (model/hands#swap)."""

from __future__ import annotations

from bisect import bisect_left
from typing import Final

from ...charging import MS_PER_HOUR, NEVER_MS
from ...energy import spent_wh
from ..camera.camera_run import CameraRun
from ..camera.schedule import AskedSum

LEAST_GAIN_MS: Final = 60_000.0
LEAST_GAIN_SHARE: Final = 0.02


class Need:
    """Watt-hours and bytes asked over a horizon, heat ignored; boot, armed and standby included.

    `lasts_ms` is how long what it holds would last; `mean_w` what it draws while it is asked, which
    is for `asked_ms`.
    """

    __slots__ = ("asked_ms", "bytes", "importance", "lasts_ms", "mean_w", "peak_rate", "rate", "wh")

    def __init__(
        self,
        wh: float,
        size: int,
        peak_rate: int | None,
        importance: int,
        lasts_ms: int,
        mean_w: float,
        rate: float,
        asked_ms: int,
    ) -> None:
        self.wh: Final = wh
        self.bytes: Final = size
        self.peak_rate: Final = peak_rate
        self.importance: Final = importance
        self.lasts_ms: Final = lasts_ms
        self.mean_w: Final = mean_w
        self.rate: Final = rate
        self.asked_ms: Final = asked_ms

    def least_gain_ms(self) -> float:
        """What a swap must gain at least: a minute, or 2 % of what is asked (model/hands#swap)."""
        return min(LEAST_GAIN_MS, LEAST_GAIN_SHARE * self.asked_ms)

    def least_gain_wh(self) -> float:
        """The same as energy [W h]."""
        return self.mean_w * self.least_gain_ms() / MS_PER_HOUR

    def without(self, wh: float) -> Need:
        """What is left of it once a module gives some of the energy."""
        return Need(
            max(0.0, self.wh - wh),
            self.bytes,
            self.peak_rate,
            self.importance,
            self.lasts_ms,
            self.mean_w,
            self.rate,
            self.asked_ms,
        )


def need_of(run: CameraRun, now_ms: int, horizon_ms: int) -> Need:
    """Need of a camera from now to a horizon, and how long what it holds would last.

    The sum over whole stretches is the same at every stop before them, so it is kept.
    """
    schedule = run.schedule
    spans, first = schedule.spans, schedule.first_after(now_ms)
    last = bisect_left(schedule.starts_ms, horizon_ms)
    whole = (
        first < last and spans[first].start_ms >= now_ms and spans[last - 1].end_ms <= horizon_ms
    )
    known = schedule.sums.get((first, last)) if whole else None
    if known is None:
        known = _sum(run, first, last, now_ms, horizon_ms)
        if whole:
            schedule.sums[first, last] = known
    lasts_ms = _lasts_ms(run, known.last_w, known.last_rate)
    peak = known.peak_rate or None
    mean_w = known.wh * MS_PER_HOUR / known.asked_ms if known.asked_ms else 0.0
    rate = max(1.0, known.last_rate)
    size, asked_ms = round(known.bytes), known.asked_ms
    return Need(known.wh, size, peak, known.importance, lasts_ms, mean_w, rate, asked_ms)


def _sum(run: CameraRun, first: int, last: int, now_ms: int, horizon_ms: int) -> AskedSum:
    wh, written, peak, importance, asked_ms = 0.0, 0.0, 0, 9, 0
    draw_w, rate = 0.0, 0.0
    last_end_ms: int | None = None
    for place in range(first, last):
        span = run.schedule.spans[place]
        if span.recording is None:
            continue
        start_ms = max(now_ms, span.start_ms)
        film_ms = min(horizon_ms, span.end_ms) - start_ms
        asked_ms += film_ms
        wh += spent_wh(span.need_w, film_ms)
        written += span.need_bytes_s * film_ms / 1000.0
        fresh = span.start_ms >= now_ms and span.start_ms != last_end_ms
        if fresh and run.between == "off":
            wh += spent_wh(span.recording.boot_w, run.boot_ms)
        elif fresh and last_end_ms is not None:
            rest_ms = start_ms - last_end_ms
            wh += spent_wh(draw_w if run.between == "on" else run.energy.standby_w, rest_ms)
            written += rate * rest_ms / 1000.0 if run.between == "on" else 0.0
        peak = max(peak, span.recording.peak_rate)
        importance = min(importance, span.importance)
        draw_w, rate = span.need_w, span.need_bytes_s
        last_end_ms = span.end_ms
    return AskedSum(wh, written, peak, importance, asked_ms, draw_w, rate)


def _lasts_ms(run: CameraRun, draw_w: float, rate: float) -> int:
    """Time until the battery or the card gives out at a draw and a byte rate [ms]."""
    by_battery = by_card = NEVER_MS
    if draw_w > 0.0:
        held = run.cell.wh * max(0.0, run.cell.charge - run.line()) if run.cell else 0.0
        by_battery = 0 if run.dead else int(held / draw_w * MS_PER_HOUR)
    if rate > 0:
        by_card = int((run.card.free if run.card else 0) * 1000 / rate)
    return min(by_battery, by_card)
