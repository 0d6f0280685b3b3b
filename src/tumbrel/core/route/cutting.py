"""A way cut into stretches by slope and by what is done there, and its halts."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import TYPE_CHECKING, Literal

if TYPE_CHECKING:
    from .profile import Profile
    from .track import Array, Track

Ground = Literal["climb", "flat", "descent", "air"]

STEEP = 0.05  # slopes from here on climb or descend
SHORTEST_SHARE, SHORTEST_M, LONG_ENOUGH_M = 0.025, 300.0, 2500.0
FLIES_MPS = 6.0  # nobody walks this fast
FLIES_S = 120.0
STANDS_MPS = 0.25
HALT_S = 300.0
WINDOW_S = 60.0


@dataclass(frozen=True, slots=True)
class Piece:
    """A stretch of one kind of ground, in metres along the way."""

    ground: Ground
    from_m: float
    to_m: float

    @property
    def length_m(self) -> float:
        """How long it is."""
        return self.to_m - self.from_m


@dataclass(frozen=True, slots=True)
class Halt:
    """Where someone stood still, and for how long."""

    at_m: float
    seconds: float


def pieces_of(profile: Profile, in_air: Array | None) -> list[Piece]:
    """Stretches of climb, flat, descent and flight; short ones join the neighbour most like them.

    `in_air` [steps] says where a timed track went faster than feet.
    """
    import numpy as np  # noqa: PLC0415 - slow to import

    kind = np.where(profile.slope > STEEP, 1, np.where(profile.slope < -STEEP, -1, 0))
    if in_air is not None:
        kind = np.where(in_air, 2, kind)
    edges = [0, *(np.flatnonzero(np.diff(kind)) + 1).tolist(), len(kind)]
    runs = [[int(kind[a]), a, b] for a, b in pairwise(edges)]
    total_m = len(kind) * profile.step_m
    shortest_m = min(LONG_ENOUGH_M, max(SHORTEST_M, SHORTEST_SHARE * total_m))
    rises = np.concatenate([[0.0], np.cumsum(profile.slope)])
    _join_short(runs, shortest_m / profile.step_m, rises)
    names: dict[int, Ground] = {1: "climb", 0: "flat", -1: "descent", 2: "air"}
    last_m = (len(kind) - 1) * profile.step_m
    return [
        Piece(names[k], a * profile.step_m, min(b * profile.step_m, last_m)) for k, a, b in runs
    ]


def _join_short(runs: list[list[int]], shortest: float, rises: Array) -> None:
    """Join the shortest run that is too short, again and again, and name it by its own slope."""
    while len(runs) > 1:
        place = min(range(len(runs)), key=lambda n: runs[n][2] - runs[n][1])
        _, start, end = runs[place]
        if end - start >= shortest:
            return
        sides = [n for n in (place - 1, place + 1) if 0 <= n < len(runs)]
        into = min(sides, key=lambda n: _unlike(runs[n], runs[place], rises))
        first, second = sorted((into, place))
        joined_kind = max((runs[first], runs[second]), key=lambda run: run[2] - run[1])[0]
        if joined_kind != 2:
            mean = (rises[runs[second][2]] - rises[runs[first][1]]) / (
                runs[second][2] - runs[first][1]
            )
            joined_kind = 1 if mean > STEEP else -1 if mean < -STEEP else 0
        runs[first : second + 1] = [[joined_kind, runs[first][1], runs[second][2]]]
        _join_alike(runs)


def _join_alike(runs: list[list[int]]) -> None:
    place = 1
    while place < len(runs):
        if runs[place][0] == runs[place - 1][0]:
            runs[place - 1][2] = runs[place][2]
            del runs[place]
        else:
            place += 1


def _unlike(one: list[int], other: list[int], rises: Array) -> float:
    """How different two runs are: by their mean slope, flight from ground most of all."""
    means = [float(rises[run[2]] - rises[run[1]]) / (run[2] - run[1]) for run in (one, other)]
    return abs(means[0] - means[1]) + (10.0 if (one[0] == 2) != (other[0] == 2) else 0.0)


def in_air_of(track: Track, profile: Profile) -> Array | None:
    """At which steps of the profile a timed track moved faster than feet do, two minutes on end."""
    import numpy as np  # noqa: PLC0415 - slow to import

    if track.time_s is None:
        return None
    at_m = np.arange(len(profile.slope)) * profile.step_m
    at_s = np.interp(at_m, track.along_m, track.time_s)
    ahead_m = np.interp(at_s + WINDOW_S / 2.0, track.time_s, track.along_m)
    behind_m = np.interp(at_s - WINDOW_S / 2.0, track.time_s, track.along_m)
    fast: Array = (ahead_m - behind_m) / WINDOW_S > FLIES_MPS
    edges = np.flatnonzero(np.diff(np.concatenate([[0], fast.astype(int), [0]])))
    for start, end in zip(edges[::2], edges[1::2], strict=True):
        if at_s[min(end, len(at_s) - 1)] - at_s[start] < FLIES_S:
            fast[start:end] = False
    return fast


def halts_of(track: Track) -> list[Halt]:
    """Where a timed track stood still for five minutes and more."""
    import numpy as np  # noqa: PLC0415 - slow to import

    if track.time_s is None:
        return []
    seconds = np.diff(track.time_s)
    still = np.diff(track.along_m) < STANDS_MPS * seconds
    edges = np.flatnonzero(np.diff(np.concatenate([[0], still.astype(int), [0]])))
    found = []
    for start, end in zip(edges[::2], edges[1::2], strict=True):
        stood_s = float(seconds[start:end].sum())
        if stood_s >= HALT_S:
            found.append(Halt(float(track.along_m[start]), stood_s))
    return found
