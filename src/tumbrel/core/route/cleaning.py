"""Defects of recorders mended: doubled points, lone jumps, missing heights, clocks that go back."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ..document import BadDocument, FieldFault
from .ground import apart_m, plan_of
from .track import RawTrack, Track

if TYPE_CHECKING:
    from .track import Array

SAME_M = 0.5  # a recorder's last digits; closer points are one
WAITED_S = 60.0
JUMP_M = 200.0
JUMP_TIMES = 8.0  # the usual step
LONE = 0.5  # of the way out and back, the way without the point
CLOCK_FAULTS = 0.05  # more clock faults than this and no time is believed


def cleaned(raw: RawTrack) -> Track:
    """The track without what a recorder got wrong. Raises BadDocument when no way is left."""
    import numpy as np  # noqa: PLC0415 - slow to import

    notes: list[str] = []
    keep = _distinct(raw.latitude, raw.longitude, raw.time_s)
    doubled = len(raw.latitude) - len(keep)
    if doubled:
        notes.append(f"{doubled} doubled {_points(doubled)} joined")
    steady = keep[_steady(raw.latitude[keep], raw.longitude[keep])]
    if len(steady) < len(keep):
        jumps = len(keep) - len(steady)
        notes.append(f"{jumps} lone {_points(jumps)} far off the way left out")
    if len(steady) < 2:
        raise BadDocument((FieldFault("(file)", "stays in one place: there is no way in it"),))
    latitude, longitude = raw.latitude[steady], raw.longitude[steady]
    steps_m = apart_m(latitude[:-1], longitude[:-1], latitude[1:], longitude[1:])
    along_m = np.concatenate([[0.0], np.cumsum(steps_m)])
    x_m, y_m = plan_of(latitude, longitude)
    return Track(
        name=raw.name,
        latitude=latitude,
        longitude=longitude,
        along_m=along_m,
        x_m=x_m,
        y_m=y_m,
        height_m=_filled(raw.height_m[steady], along_m, notes),
        time_s=_forward(raw.time_s[steady], along_m, notes),
        notes=tuple(notes),
        waypoints=raw.waypoints,
    )


def _points(count: int) -> str:
    return "point" if count == 1 else "points"


def _distinct(latitude: Array, longitude: Array, time_s: Array) -> Array:
    """Places of points that are not the one before again; where one stood, the last one too.

    Without the last, a wait would be told of the way to the next point, which may be far.
    """
    import numpy as np  # noqa: PLC0415 - slow to import

    steps_m = apart_m(latitude[:-1], longitude[:-1], latitude[1:], longitude[1:])
    moves = np.concatenate([[True], steps_m > SAME_M])
    first = np.maximum.accumulate(np.where(moves, np.arange(len(moves)), 0))
    leaves = np.concatenate([moves[1:], [True]])
    waited = time_s - time_s[first] >= WAITED_S
    kept: Array = np.flatnonzero(moves | (leaves & waited)).astype(np.int64)
    return kept


def _steady(latitude: Array, longitude: Array) -> Array:
    """Which points are no lone jump: far out and back again at the next one."""
    import numpy as np  # noqa: PLC0415 - slow to import

    steady = np.ones(len(latitude), dtype=bool)
    if len(latitude) < 4:
        return steady
    steps_m = apart_m(latitude[:-1], longitude[:-1], latitude[1:], longitude[1:])
    past_m = apart_m(latitude[:-2], longitude[:-2], latitude[2:], longitude[2:])
    far_m = max(JUMP_M, JUMP_TIMES * float(np.median(steps_m)))
    out, back = steps_m[:-1], steps_m[1:]
    steady[1:-1] = ~((out > far_m) & (back > far_m) & (past_m < LONE * (out + back) / 2.0))
    return steady


def _filled(height_m: Array, along_m: Array, notes: list[str]) -> Array | None:
    """Heights with the missing ones laid between their neighbours; None when there are none."""
    import numpy as np  # noqa: PLC0415 - slow to import

    known = np.isfinite(height_m) & (np.abs(height_m) < 9500.0)
    missing = len(height_m) - int(known.sum())
    if missing == len(height_m):
        notes.append("no heights: slopes are not known")
        return None
    if missing:
        notes.append(f"{missing} missing {'height' if missing == 1 else 'heights'} filled in")
    filled: Array = np.interp(along_m, along_m[known], height_m[known])
    return filled


def _forward(time_s: Array, along_m: Array, notes: list[str]) -> Array | None:
    """Times that only go forward; None when they are missing or mostly wrong."""
    import numpy as np  # noqa: PLC0415 - slow to import

    known = np.isfinite(time_s)
    if known.sum() < 2:
        return None
    latest = np.maximum.accumulate(np.where(known, time_s, -np.inf))
    back = known & (time_s < latest)
    faults = int(back.sum())
    if faults > CLOCK_FAULTS * len(time_s):
        notes.append(f"{faults} times go backwards: the clock is not believed")
        return None
    if faults:
        notes.append(f"{faults} {'time' if faults == 1 else 'times'} that went backwards mended")
    good = known & ~back
    if good.sum() < 2 or time_s[good][-1] <= time_s[good][0]:
        return None
    mended: Array = np.interp(along_m, along_m[good], time_s[good])
    return mended
