"""The trip laid out in integer milliseconds: items, hands, air around the kit.

Source: model/time#items, model/time#ties.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from functools import lru_cache
from types import MappingProxyType
from typing import Final, Literal
from zoneinfo import ZoneInfo

from ...document import BadDocument, FieldFault, Item, Leg, Place, Stop, Trip
from ...document.base import LONGEST_TRIP_S
from ...light import (
    STEP_MS,
    SunDays,
    SunTable,
    light_kind,
    on_body_w_m2,
    sun_heights_of_day,
    sun_table,
)
from ...parameters import DEFAULTS, Defaults

WAIT_ID: Final = "wait"
SPOT_DEG: Final = 0.1  # places of legs are told apart so far: 24 s of the sun's way


@dataclass(frozen=True)
class Laid:
    """A leg, a stop, or a wait (no item), with its times in ms from trip start."""

    item: Item | None
    id: str
    name: str
    kind: Literal["leg", "stop", "wait"]
    start_ms: int
    end_ms: int


@dataclass(frozen=True)
class FreeHands:
    """An unbroken interval in which hands are free."""

    start_ms: int
    end_ms: int


@dataclass(frozen=True, eq=False)
class Conditions:
    """Air and sun as piecewise constant steps; step i holds from starts_ms[i] on.

    `under` says where it is water, not air, that is around the kit.

    Compared by identity: one trip is laid out once, and what is derived from it is kept by it.
    """

    starts_ms: tuple[int, ...]
    ambient_c: tuple[float, ...]
    sun_w_m2: tuple[float, ...]
    air_mps: tuple[float, ...]
    height_m: tuple[float, ...]
    under: tuple[bool, ...]


@dataclass(frozen=True)
class LightBand:
    """Night, twilight or day between two times."""

    start_ms: int
    end_ms: int
    kind: Literal["night", "twilight", "day"]


@dataclass(frozen=True, eq=False)
class Timeline:
    """Everything of the trip that does not depend on the cameras."""

    start_utc: datetime
    duration_ms: int
    laid: tuple[Laid, ...]
    by_id: Mapping[str, Laid]
    free_hands: tuple[FreeHands, ...]
    conditions: Conditions
    light: tuple[LightBand, ...]
    sun: SunTable | None
    into_ms: int
    sun_days: SunDays
    laid_starts_ms: tuple[int, ...]
    free_starts_ms: tuple[int, ...]

    def hands_free_at(self, at_ms: int) -> bool:
        """Whether hands are free at a time (a task may keep them busy)."""
        return self.free_interval(at_ms) is not None

    def free_interval(self, at_ms: int) -> FreeHands | None:
        """The unbroken interval of free hands that holds at a time."""
        place = bisect_right(self.free_starts_ms, at_ms) - 1
        free = self.free_hands[place] if place >= 0 else None
        return free if free and at_ms < free.end_ms else None

    def hands_free_within(self, start_ms: int, end_ms: int) -> bool:
        """Whether hands are free at any time in [start, end)."""
        return self.hands_free_at(start_ms) or self.next_free_ms(start_ms) < end_ms

    def next_free_ms(self, at_ms: int) -> int:
        """Start of the next interval of free hands after a time, else the trip's end.

        Source: model/hands#swap.
        """
        place = bisect_right(self.free_starts_ms, at_ms)
        return self.free_hands[place].start_ms if place < len(self.free_hands) else self.duration_ms

    def next_free_end_ms(self, at_ms: int) -> int:
        """End of the next interval of free hands after a time, else the trip's end."""
        place = bisect_right(self.free_starts_ms, at_ms)
        return self.free_hands[place].end_ms if place < len(self.free_hands) else self.duration_ms

    def awake_at(self, at_ms: int) -> bool:
        """Whether the person is awake at a time; asleep they press and say nothing.

        Source: model/hands#who-presses.
        """
        part = self.laid_at(at_ms)
        item = part.item
        if not isinstance(item, Stop) or item.asleep is None:
            return True
        asleep_ms = part.start_ms + item.asleep.start_s * 1000
        return not asleep_ms <= at_ms < asleep_ms + item.asleep.duration_s * 1000

    def presses_at(self, at_ms: int) -> bool:
        """Whether a hand can press at a time: awake, and not where hands are never free.

        Source: model/hands#who-presses.
        """
        item = self.laid_at(at_ms).item
        if item is None or (isinstance(item, Leg) and item.hands == "never"):
            return False
        return self.awake_at(at_ms)

    def sleeps_from(self, at_ms: int) -> bool:
        """Whether the person falls asleep then, at the stop where they are.

        Source: model/hands#overnight.
        """
        return not self.awake_at(at_ms) and self.laid_at(at_ms) is self.laid_at(at_ms - 1)

    def places(self, from_ms: int, to_ms: int) -> set[str]:
        """Keys of the legs and stops that lie in [from, to)."""
        first = max(0, bisect_right(self.laid_starts_ms, from_ms) - 1)
        last = bisect_left(self.laid_starts_ms, to_ms)
        return {part.id for part in self.laid[first:last]}

    def laid_at(self, at_ms: int) -> Laid:
        """The leg, stop or wait that holds at a time; the last one at the end."""
        place = bisect_right(self.laid_starts_ms, at_ms) - 1
        return self.laid[max(0, place)]


Albedos = tuple[float, float]  # of plain ground and of snow


def albedos_of(defaults: Defaults) -> Albedos:
    """What ground throws back, plain and under snow, by the parameters."""
    return defaults.albedo.value, defaults.albedo_snow.value


TYPICAL: Final = albedos_of(DEFAULTS)


@lru_cache(maxsize=16)
def lay_out(
    trip: Trip,
    sun_days: SunDays = sun_heights_of_day,
    albedos: Albedos = TYPICAL,
) -> Timeline:
    """Times of all items, hands and conditions. Raises BadDocument when the trip grows too long."""
    zone = ZoneInfo(trip.time_zone)
    start_utc = trip.start.replace(tzinfo=zone).astimezone(UTC)
    laid = _lay_items(trip, start_utc, zone)
    duration_ms = laid[-1].end_ms
    if duration_ms > LONGEST_TRIP_S * 1000:
        raise BadDocument(
            (FieldFault("trip.items", "with the waits, the trip lasts over 31 days"),)
        )
    sun = _sun(trip, laid, start_utc, duration_ms, sun_days)
    free_hands = tuple(_free_hands(laid))
    return Timeline(
        start_utc=start_utc,
        duration_ms=duration_ms,
        laid=tuple(laid),
        by_id=MappingProxyType({part.id: part for part in laid}),
        free_hands=free_hands,
        conditions=_conditions(trip, laid, start_utc, sun, albedos),
        light=tuple(_light(sun, start_utc, duration_ms)),
        sun=sun,
        into_ms=_first_step(start_utc)[1],
        sun_days=sun_days,
        laid_starts_ms=tuple(part.start_ms for part in laid),
        free_starts_ms=tuple(free.start_ms for free in free_hands),
    )


def _lay_items(trip: Trip, start_utc: datetime, zone: ZoneInfo) -> list[Laid]:
    laid: list[Laid] = []
    now_ms = 0
    for item in trip.items:
        if item.not_before is not None:
            earliest = item.not_before.replace(tzinfo=zone).astimezone(UTC)
            earliest_ms = round((earliest - start_utc) / timedelta(milliseconds=1))
            if earliest_ms > now_ms:
                _wait_until(laid, now_ms, earliest_ms)
                now_ms = earliest_ms
        end_ms = now_ms + item.duration_s * 1000
        laid.append(Laid(item, item.id, item.name, item.kind, now_ms, end_ms))
        now_ms = end_ms
    return laid


def _wait_until(laid: list[Laid], now_ms: int, earliest_ms: int) -> None:
    """A stop before is lengthened; after a leg, or at the very start, there is a wait."""
    if laid and laid[-1].kind == "stop":
        last = laid.pop()
        laid.append(Laid(last.item, last.id, last.name, "stop", last.start_ms, earliest_ms))
    else:
        laid.append(Laid(None, WAIT_ID, "wait", "wait", now_ms, earliest_ms))


def _free_hands(laid: list[Laid]) -> list[FreeHands]:
    """Stops less the hours asleep, and legs with free hands; neighbours are one interval."""
    spans: list[tuple[int, int]] = []
    for part in laid:
        item = part.item
        if isinstance(item, Stop) and item.asleep:
            asleep_ms = part.start_ms + item.asleep.start_s * 1000
            awake_ms = asleep_ms + item.asleep.duration_s * 1000
            spans += [(part.start_ms, asleep_ms), (awake_ms, part.end_ms)]
        elif isinstance(item, Stop) or (isinstance(item, Leg) and item.hands == "free"):
            spans.append((part.start_ms, part.end_ms))
    joined: list[FreeHands] = []
    for start_ms, end_ms in spans:
        if start_ms == end_ms:
            continue
        if joined and joined[-1].end_ms == start_ms:
            joined[-1] = FreeHands(joined[-1].start_ms, end_ms)
        else:
            joined.append(FreeHands(start_ms, end_ms))
    return joined


def _first_step(start_utc: datetime) -> tuple[int, int]:
    """The 600 s step that holds the start, and how far into it the start lies [ms]."""
    start_ms = round(start_utc.timestamp() * 1000)
    return start_ms // STEP_MS, start_ms % STEP_MS


def place_of(trip: Trip, item: Item | None) -> Place | None:
    """Where a leg or stop is, for its sun: its own spot, else the trip's place, else unknown.

    Spots are held to a tenth of a degree, so that legs near each other share a table of the sun.
    """
    spot = None if item is None else item.spot
    if spot is None:
        return trip.place
    height_m = trip.place.height_m if trip.place else 0.0
    latitude, longitude = (
        round(at / SPOT_DEG) * SPOT_DEG for at in (spot.latitude, spot.longitude)
    )
    return Place(
        latitude=round(min(90.0, max(-90.0, latitude)), 4),
        longitude=round(min(180.0, max(-180.0, longitude)), 4),
        height_m=height_m,
    )


def first_place(trip: Trip) -> Place | None:
    """The first place that is known; what comes before it is taken to be there."""
    places = (place_of(trip, item) for item in trip.items)
    return next((place for place in places if place is not None), None)


def _sun(
    trip: Trip, laid: list[Laid], start_utc: datetime, duration_ms: int, sun_days: SunDays
) -> SunTable | None:
    """The sun by step over each leg and stop where it is; None when no place is known at all."""
    known = first_place(trip)
    if known is None:
        return None
    first, into_ms = _first_step(start_utc)
    steps = -(-(duration_ms + into_ms) // STEP_MS)
    heights: list[float] = []
    watts: list[float] = []
    for part in laid:
        known = place_of(trip, part.item) or known
        last = part is laid[-1]
        end = steps if last else _steps_before(part.end_ms + into_ms)
        if end > len(heights):
            where = (known.latitude, known.longitude, known.height_m)
            table = sun_table(*where, first + len(heights), end - len(heights), sun_days)
            heights += table.height_deg
            watts += table.irradiance_w_m2
    return SunTable(tuple(heights), tuple(watts))


def _steps_before(at_ms: int) -> int:
    """How many steps have their midpoint before a time."""
    return (at_ms + STEP_MS // 2) // STEP_MS


def _conditions(
    trip: Trip,
    laid: list[Laid],
    start_utc: datetime,
    sun: SunTable | None,
    albedos: Albedos,
) -> Conditions:
    """Ambient, height and sun by step (at its midpoint), airflow and sun share by item.

    Steps that are alike are one.
    """
    first, into_ms = _first_step(start_utc)
    base_m = trip.place.height_m if trip.place else 0.0
    rows: list[tuple[int, float, float, float, float, bool]] = []
    for part in laid:
        item = part.item
        under = isinstance(item, Leg) and item.wet == "under"
        share = item.sun_share if item and not under else 0.0
        air_mps = item.air_mps if isinstance(item, Leg) else 0.0
        at_ms = part.start_ms
        while at_ms < part.end_ms:
            step = (at_ms + into_ms) // STEP_MS
            middle_ms = step * STEP_MS + STEP_MS // 2 - into_ms
            ambient_c = _ambient_c(laid, part, middle_ms)
            sun_w_m2 = (
                share * _on_kit_w_m2(item, sun, step, first, albedos) if item and sun else 0.0
            )
            air = (ambient_c, sun_w_m2, air_mps, _height_m(part, middle_ms, base_m), under)
            if not rows or rows[-1][1:] != air:
                rows.append((at_ms, *air))
            at_ms = min(part.end_ms, (step + 1) * STEP_MS - into_ms)
    return Conditions(*zip(*rows, strict=True))


def _on_kit_w_m2(item: Item, sun: SunTable, step: int, first: int, albedos: Albedos) -> float:
    """What strikes a small body in full sun there [W/m2] (model/heat#sun)."""
    level = sun.irradiance_w_m2[step] * item.sky
    if level <= 0.0:
        return 0.0
    day = datetime.fromtimestamp((first + step) * STEP_MS / 1000, UTC).timetuple().tm_yday
    plain, snow = albedos
    return on_body_w_m2(level, sun.height_deg[step], day, snow if item.snow else plain)


def _height_m(part: Laid, at_ms: int, base_m: float) -> float:
    """Height over the sea [m] at a time: along the leg, at the stop, else of the trip's place."""
    item = part.item
    if isinstance(item, Stop):
        return base_m if item.height_m is None else item.height_m
    if item is None or (item.height_start_m is None and item.height_end_m is None):
        return base_m
    start_m, end_m = item.height_start_m, item.height_end_m
    if start_m is None or end_m is None:
        return start_m if end_m is None else end_m  # type: ignore[return-value]
    way = (at_ms - part.start_ms) / (part.end_ms - part.start_ms)
    return start_m + (end_m - start_m) * min(1.0, max(0.0, way))


def _ambient_c(laid: list[Laid], part: Laid, at_ms: int) -> float:
    """Air temperature [degC] at a time: linear along the item, clamped at its ends."""
    item = part.item
    if item is None:
        place = laid.index(part)
        before = laid[place - 1].item if place else None
        after = laid[place + 1].item
        assert after is not None
        return before.temp_end_c if before else after.temp_start_c
    if item.temp_start_c == item.temp_end_c:
        return item.temp_start_c
    way = (at_ms - part.start_ms) / (part.end_ms - part.start_ms)
    return item.temp_start_c + (item.temp_end_c - item.temp_start_c) * min(1.0, max(0.0, way))


def _light(sun: SunTable | None, start_utc: datetime, duration_ms: int) -> list[LightBand]:
    if sun is None:
        return []
    _, into_ms = _first_step(start_utc)
    bands: list[LightBand] = []
    for number, height in enumerate(sun.height_deg):
        start_ms = max(0, number * STEP_MS - into_ms)
        end_ms = min(duration_ms, (number + 1) * STEP_MS - into_ms)
        kind = light_kind(height)
        if bands and bands[-1].kind == kind:
            bands[-1] = LightBand(bands[-1].start_ms, end_ms, kind)
        else:
            bands.append(LightBand(start_ms, end_ms, kind))
    return bands
