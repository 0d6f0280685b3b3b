"""Legs and stops from a track: what is done where, how long it takes, where hands are free."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from itertools import pairwise
from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field

from ..document import Activity, Going, Hands, Item, Leg, OnWay, Place, Stop, Way
from ..document.base import Part
from ..document.rows import free_key
from ..document.trip import Socket
from ..document.way import MOST_COLUMNS
from .cutting import Ground, Piece, halts_of, in_air_of, pieces_of
from .ground import apart_m
from .nights import asleep_in, night_s
from .on_way import AIR_FROM, air_c, at, leg_on, spot_at
from .pace import speed_mps
from .profile import profile_of
from .track import EPOCH

if TYPE_CHECKING:
    from .profile import Profile
    from .track import Array, Track

Offer = Literal["hut", "camp", "water", "socket"]

OFFERS: dict[Offer, tuple[str, ...]] = {
    "socket": ("socket", "charging", "mains", "power"),
    "hut": ("hut", "shelter", "refuge", "cabin", "bothy", "inn"),
    "camp": ("camp", "bivouac", "tent", "byre"),
    "water": ("water", "spring", "well", "fountain", "tap"),
}
STOP_S: dict[Offer, int] = {"hut": 2700, "camp": 1800, "water": 600, "socket": 3600}
SOCKET_W = 10.0
NEAR_M = 250.0
SUN_SHARE = 0.5  # of the sun on a kit that moves about, until someone says
SHORT_HALT_S = 600.0  # a halt below this is part of its leg
WALKS: dict[Ground, Activity] = {
    "climb": "climb",
    "flat": "walk",
    "descent": "descent",
    "air": "flight",
}
HANDS: dict[Activity, Hands] = {"flight": "never", "sail": "never", "drive": "never"}
LONGEST_DAY_S, ENOUGH_DAY = 9 * 3600.0, 0.6


class TrackQuestion(Part):
    """How a track is to be laid out."""

    way: Going = "foot"
    factor: Annotated[float, Field(ge=0.2, le=5.0)] = Field(
        default=1.0, description="The person's pace: 1.2 goes a fifth faster."
    )
    start: datetime = Field(description="Local clock time, no offset.")
    taken: tuple[str, ...] = Field(default=(), description="Keys that the trip has already.")
    taken_ways: tuple[str, ...] = Field(default=(), description="Keys of ways that it has already.")


class TrackLaid(Part):
    """Legs and stops from a track, and what was made of it."""

    name: str
    items: tuple[Item, ...]
    place: Place
    started_at: datetime | None = Field(description="When the track began, UTC; none: no times.")
    way: Way
    notes: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Stand:
    """A stop on the way."""

    at_m: float
    name: str
    seconds: float
    offer: Offer | None
    night: bool = False


def lay_track(track: Track, question: TrackQuestion) -> TrackLaid:
    """Legs cut by activity and slope, stops at halts and named places, times of the track or pace.

    Without times, days end at the last hut or camp within nine hours of moving. Air cools by
    6.5 K/km from 15 degC at sea level until someone types what it is.
    """
    profile = profile_of(track)
    foot = question.way == "foot"
    pieces = pieces_of(profile, in_air_of(track, profile) if foot else None)
    places = _places(track)
    rests = _rests(track, places)
    clock = _clock(track, profile, question, rests)
    stands = rests if track.time_s is not None else _offered(places, clock, track)
    stands = _on_edges(sorted(stands, key=lambda stand: stand.at_m), pieces)
    cut = _cut_at(pieces, [stand.at_m for stand in stands])
    way = _way(track, profile, clock, question)
    begun = None if track.time_s is None else EPOCH + timedelta(seconds=float(track.time_s[0]))
    return TrackLaid(
        name=track.name or "Track",
        items=tuple(_items(cut, stands, way, question)),
        place=_place(track, profile),
        started_at=begun,
        way=way,
        notes=track.notes,
    )


def way_again(track: Track, old: Way, question: TrackQuestion) -> Way:
    """The way of a track that a trip has already, at another pace or from a better recording."""
    profile = profile_of(track)
    clock = _clock(track, profile, question, _rests(track, _places(track)))
    fresh = _way(track, profile, clock, question)
    return fresh.model_copy(update={"id": old.id, "name": old.name})


def _way(track: Track, profile: Profile, clock: Array, question: TrackQuestion) -> Way:
    """The track's columns thinned to even steps, at most as many as a document holds."""
    import numpy as np  # noqa: PLC0415 - slow to import

    count = min(MOST_COLUMNS, len(profile.height_m))
    shown_m = np.linspace(0.0, float(track.along_m[-1]), count)
    steps_m: Array = np.arange(len(profile.height_m), dtype=np.float64) * profile.step_m

    def column(places: Array, values: Array, digits: int) -> tuple[float, ...]:
        return tuple(np.round(np.interp(shown_m, places, values), digits).tolist())

    turned = np.degrees(np.unwrap(np.radians(track.longitude)))
    longitude = column(track.along_m, turned, 9)
    return Way(
        id=free_key(track.name or "way", set(question.taken_ways), "way"),
        name=(track.name or "Way")[:60],
        going=question.way,
        factor=question.factor,
        clock="pace" if track.time_s is None else "track",
        length_m=round(float(track.along_m[-1]), 1),
        ascent_m=round(profile.ascent_m, 1),
        descent_m=round(profile.descent_m, 1),
        latitude=column(track.along_m, track.latitude, 6),
        longitude=tuple(round((each + 180.0) % 360.0 - 180.0, 6) for each in longitude),
        height_m=()
        if track.height_m is None
        else column(steps_m, np.clip(profile.height_m, -500.0, 9000.0), 1),
        moved_s=column(steps_m, np.maximum.accumulate(clock), 1),
    )


def _place(track: Track, profile: Profile) -> Place:
    height = min(9000.0, max(-500.0, float(profile.height_m[0])))
    return Place(
        latitude=float(track.latitude[0]), longitude=float(track.longitude[0]), height_m=height
    )


def _clock(track: Track, profile: Profile, question: TrackQuestion, rests: list[_Stand]) -> Array:
    """Seconds of moving at each step of the profile: the track's own less its rests, or by pace."""
    import numpy as np  # noqa: PLC0415 - slow to import

    at_m = np.arange(len(profile.slope)) * profile.step_m
    if track.time_s is None:
        each_s = profile.step_m / speed_mps(question.way, profile.slope, question.factor)
        paced: Array = np.concatenate([[0.0], np.cumsum(each_s)[:-1]])
        return paced
    moving_s = track.time_s - track.time_s[0]
    for rest in rests:
        moving_s = moving_s - np.where(track.along_m > rest.at_m, rest.seconds, 0.0)
    moved: Array = np.interp(at_m, track.along_m, np.maximum.accumulate(moving_s))
    return moved


def _places(track: Track) -> list[_Stand]:
    """Waypoints that lie beside the way, where it comes nearest to them."""
    import numpy as np  # noqa: PLC0415 - slow to import

    found = []
    for point in track.waypoints:
        lat, lon = np.array(point.latitude), np.array(point.longitude)
        apart = apart_m(lat, lon, track.latitude, track.longitude)
        nearest = int(np.argmin(apart))
        if apart[nearest] <= NEAR_M:
            offer = offer_of(point.name)
            found.append(_Stand(float(track.along_m[nearest]), point.name, 0.0, offer))
    return found


def _rests(track: Track, places: list[_Stand]) -> list[_Stand]:
    """Halts of a timed track that are stops: ten minutes and more, or beside a named place."""
    found = []
    for halt in halts_of(track):
        near = next((one for one in places if abs(one.at_m - halt.at_m) <= NEAR_M), None)
        if near is not None:
            found.append(replace(near, at_m=halt.at_m, seconds=halt.seconds))
        elif halt.seconds >= SHORT_HALT_S:
            found.append(_Stand(halt.at_m, "halt", halt.seconds, None))
    return found


def _offered(places: list[_Stand], clock: Array, track: Track) -> list[_Stand]:
    """Places that offer something, and nights where days end (for a way without times)."""
    stands = [replace(one, seconds=STOP_S[one.offer]) for one in places if one.offer]
    return _nights(stands, clock, float(track.along_m[-1]))


def _on_edges(stands: list[_Stand], pieces: list[Piece]) -> list[_Stand]:
    """Stops moved to where the ground changes, when that is near: else a scrap of leg is left."""
    edges = [piece.from_m for piece in pieces] + [pieces[-1].to_m]
    moved = []
    for stand in stands:
        edge = min(edges, key=lambda one: abs(one - stand.at_m))
        moved.append(replace(stand, at_m=edge) if abs(edge - stand.at_m) <= NEAR_M else stand)
    return moved


def offer_of(name: str) -> Offer | None:
    """What a place offers, by a word in its name; None when it says nothing."""
    words = name.lower().replace(",", " ").split()
    return next((o for o, known in OFFERS.items() if any(word in known for word in words)), None)


def _nights(stands: list[_Stand], clock: Array, length_m: float) -> list[_Stand]:
    """A night at the last hut or camp within a day's moving; in the open where there is none."""
    import numpy as np  # noqa: PLC0415 - slow to import

    at_m = np.linspace(0.0, length_m, len(clock))
    moved_s = {stand: float(np.interp(stand.at_m, at_m, clock)) for stand in stands}
    ended_s, total_s = 0.0, float(clock[-1])
    nights: list[_Stand] = []
    while total_s - ended_s > LONGEST_DAY_S:
        within = [
            stand
            for stand, at in moved_s.items()
            if stand.offer in ("hut", "camp")
            and ENOUGH_DAY * LONGEST_DAY_S <= at - ended_s <= LONGEST_DAY_S
        ]
        if within:
            last = max(within, key=lambda stand: moved_s[stand])
            nights.append(last)
            ended_s = moved_s[last]
        else:
            ended_s += LONGEST_DAY_S
            where = float(np.interp(ended_s, clock, at_m))
            nights.append(_Stand(where, "bivouac", 0.0, "camp"))
    others = [stand for stand in stands if stand not in nights]
    return others + [replace(night, night=True) for night in nights]


def _cut_at(pieces: list[Piece], at_m: list[float]) -> list[Piece]:
    """The same stretches, cut once more where one stops."""
    cut = []
    for piece in pieces:
        inside = sorted(m for m in at_m if piece.from_m < m < piece.to_m)
        edges = pairwise([piece.from_m, *inside, piece.to_m])
        cut += [Piece(piece.ground, start, end) for start, end in edges if end > start]
    return cut


def _items(
    pieces: list[Piece], stands: list[_Stand], way: Way, question: TrackQuestion
) -> list[Item]:
    names = set(question.taken)
    items: list[Item] = []
    waiting = list(stands)
    passed_s = 0.0
    for piece in pieces:
        while waiting and waiting[0].at_m <= piece.from_m + 1e-6:
            items.append(_stop(waiting.pop(0), way, question.start, passed_s, names))
            passed_s += items[-1].duration_s
        items.append(_leg(piece, way, question, names))
        passed_s += items[-1].duration_s
    for stand in waiting:
        items.append(_stop(stand, way, question.start, passed_s, names))
        passed_s += items[-1].duration_s
    return items


def _leg(piece: Piece, way: Way, question: TrackQuestion, names: set[str]) -> Leg:
    on_foot: Activity = WALKS[piece.ground]
    activity: Activity = on_foot if question.way == "foot" else question.way
    what = {"flat": "flat", "air": "flight"}.get(piece.ground, piece.ground)
    count = sum(name.startswith(what) for name in names) + 1
    key = free_key(f"{what}-{count}", names, "leg")
    names.add(key)
    bare = Leg(
        id=key,
        name=key.replace("-", " "),
        activity=activity,
        hands=HANDS.get(activity, "stops"),
        duration_s=60,
        timed_by=way.clock,
        air_from=AIR_FROM,
        sun_share=SUN_SHARE,
    )
    return leg_on(bare, way, piece.from_m, piece.to_m)


def _stop(stand: _Stand, way: Way, start: datetime, passed_s: float, names: set[str]) -> Stop:
    height_m = at(way, way.height_m, stand.at_m) if way.height_m else 0.0
    key = free_key(stand.name, names, "stop")
    names.add(key)
    seconds = round(stand.seconds)
    if stand.night:
        seconds = night_s(start + timedelta(seconds=passed_s))
    return Stop(
        id=key,
        name=stand.name,
        duration_s=max(60, seconds),
        timed_by=way.clock,
        on_way=OnWay(way=way.id, from_m=round(stand.at_m, 1), to_m=round(stand.at_m, 1)),
        spot=spot_at(way, stand.at_m),
        height_m=round(height_m, 1) if way.height_m else None,
        air_from=AIR_FROM,
        temp_start_c=air_c(height_m),
        temp_end_c=air_c(height_m),
        socket=Socket(watts=SOCKET_W) if stand.offer == "socket" else None,
        asleep=asleep_in(seconds) if stand.night else None,
    )
