"""A track as columns of points, in one or more segments, with its waypoints."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]

EPOCH = datetime(2000, 1, 1, tzinfo=UTC)
EPOCH_S = EPOCH.timestamp()


@dataclass(frozen=True, slots=True)
class Waypoint:
    """A named place beside the track."""

    latitude: float
    longitude: float
    name: str


@dataclass(frozen=True)
class RawTrack:
    """What a file holds: points in order, NaN where a height [m] or time [s since 2000] is missing.

    Its segments follow each other, joined by straight lines.
    """

    name: str
    latitude: Array
    longitude: Array
    height_m: Array
    time_s: Array
    waypoints: tuple[Waypoint, ...]


@dataclass(frozen=True)
class Track:
    """A cleaned track: distinct points, metres along it and in a plan of its own, heights filled.

    `height_m` and `time_s` are None when the file had none to rely on. `notes` say what was mended.
    """

    name: str
    latitude: Array
    longitude: Array
    along_m: Array
    x_m: Array
    y_m: Array
    height_m: Array | None
    time_s: Array | None
    notes: tuple[str, ...]
    waypoints: tuple[Waypoint, ...]


def seconds_of(moment: datetime) -> float:
    """Seconds since 2000 of a moment; without a zone it is taken as UTC."""
    aware = moment if moment.tzinfo is not None else moment.replace(tzinfo=UTC)
    return aware.timestamp() - EPOCH_S
