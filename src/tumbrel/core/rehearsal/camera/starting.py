"""What keeps a camera from starting: no power, no charge, no room, no hand."""

from __future__ import annotations

from typing import TYPE_CHECKING, Final

from ...charging import MS_PER_HOUR
from .causes import GAVE_OUT, Cause

if TYPE_CHECKING:
    from .camera_run import CameraRun

WARM_C: Final = 20.0
CARRIES_ON_MS: Final = 60_000


def held_back(run: CameraRun) -> bool:
    """Whether anything keeps it from starting; what no longer does is dropped."""
    if run.spent and run.dead and fed_enough(run):
        run.spent = False  # power that returns starts it (model/cold#reach)
    if run.spent:
        run.holds.setdefault(Cause.NO_HAND, run.now_ms)
    power = power_missing(run)
    for cause in GAVE_OUT:
        if cause is not power:
            run.holds.pop(cause, None)
    if power is not None and power not in run.holds:
        gives_out(run, power)
    if run.card is None or run.recorder.has_room(run.card, run.schedule.wanted):
        run.holds.pop(Cause.CARD_FULL, None)
    else:
        run.holds.setdefault(Cause.CARD_FULL, run.now_ms)
    return any(cause is not Cause.BOOT for cause in run.holds)


def power_missing(run: CameraRun) -> Cause | None:
    """Why there is no power to start with; a dead cell wants some charge above its line."""
    if fed_enough(run):
        return None
    if run.battery_out:
        return Cause.NO_POWER
    if run.cell is None:
        return Cause.NO_BATTERY
    if run.dead and run.thawed():
        run.dead = False
    if run.dead or run.cell.charge <= run.line():
        return ran_out(run)
    return None


def fed_enough(run: CameraRun) -> bool:
    """Whether what its port grants covers what it would draw, booting and recording."""
    wanted = run.schedule.wanted
    recording = wanted.recording if wanted is not None else None
    if recording is None:
        return False
    return run.energy.feeds_enough(max(recording.draw_w, recording.boot_w))


def ran_out(run: CameraRun) -> Cause:
    """Empty; or held back by the cold, where warmth would have carried it on by a minute.

    Source: model/results#gaps.
    """
    return Cause.COLD if _warm_ms(run) >= CARRIES_ON_MS else Cause.EMPTY


def gives_out(run: CameraRun, cause: Cause) -> None:
    """It has no power from now on; of the gap that warmth would have carried it through is cold."""
    run.holds[cause] = run.now_ms
    if cause is Cause.COLD:
        run.time.cold_left_ms = _warm_ms(run)


def _warm_ms(run: CameraRun) -> int:
    """How much longer what is in it would last, as charged as it is, were it warm [ms]."""
    return 0 if run.cell is None else carries_on_ms(run, run.cell.charge)


def carries_on_ms(run: CameraRun, charge: float) -> int:
    """How much longer the battery in a camera would last at a charge [0..1], were it warm [ms]."""
    wanted = run.schedule.wanted or run.schedule.last_wanted
    if run.cell is None or wanted is None or wanted.need_w <= 0.0:
        return 0
    held_wh = run.cell.wh * (charge - run.energy.curve.at(WARM_C))
    return max(0, round(held_wh / wanted.need_w * MS_PER_HOUR))
