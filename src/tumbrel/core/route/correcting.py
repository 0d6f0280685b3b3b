"""Corrections of a route by hand on its way, and the same way laid out again under them."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from ..document import Activity, BadDocument, FieldFault, Item, Leg, OnWay, Plan, Stop, Trip, Way
from ..document.base import DAY_S, Key, Label, Part
from ..document.references import named_in, without_missing
from ..document.rows import free_key
from .ground import apart_m
from .laying import HANDS, TrackQuestion, way_again
from .nights import nights_again
from .on_way import AIR_FROM, air_c, along_after, height_at, leg_on, place_at, spot_at, way_of
from .parting import asked_on_both, halt_after, parted
from .track import Track

LEAST_M = 20.0  # no leg gets shorter by hand
TOUCHES_M = 1.0
SAME_LENGTH, SAME_PLACE_M, LOOKED_AT = 0.02, 40.0, 60

Along = Annotated[float, Field(ge=0.0, le=40_000_000.0, description="Metres along the way.")]


class EdgeMoved(Part):
    """The end of a leg, and the start of the next one, moved along the way."""

    kind: Literal["edge"] = "edge"
    item: Key
    to_m: Along


class Merged(Part):
    """A leg and the next one made one; stops between them go."""

    kind: Literal["merge"] = "merge"
    item: Key


class Parting(Part):
    """Where a leg is parted: so far along its way, or so long after it begins."""

    item: Key
    at_m: Along | None = None
    after_s: Annotated[int, Field(ge=1, le=40 * DAY_S)] | None = None

    @model_validator(mode="after")
    def _one_place(self) -> Parting:
        if (self.at_m is None) == (self.after_s is None):
            raise ValueError("say either how far along or how long after its start, not both")
        return self


class Cut(Parting):
    """A leg cut in two."""

    kind: Literal["cut"] = "cut"


class Halted(Parting):
    """A stop put on a leg, which is cut there."""

    kind: Literal["halt"] = "halt"
    name: Label = "Halt"
    duration_s: Annotated[int, Field(ge=60, le=2 * DAY_S)] = 900


class Done(Part):
    """What is done on a leg, changed."""

    kind: Literal["activity"] = "activity"
    item: Key
    activity: Activity


Correction = Annotated[EdgeMoved | Merged | Cut | Halted | Done, Field(discriminator="kind")]


@dataclass(frozen=True, slots=True)
class Corrected:
    """A trip and its plan after a correction."""

    trip: Trip
    plan: Plan


def corrected(trip: Trip, plan: Plan, correction: Correction) -> Corrected:
    """Trip and plan after one correction. Raises BadDocument where it cannot be made.

    What was asked on a leg that is cut is asked on both parts; what was asked on either of two
    merged legs is asked on the whole, by the first where both ask a camera.
    """
    place = _place_of(trip, correction.item)
    if isinstance(correction, EdgeMoved):
        done = Corrected(_edge_moved(trip, place, correction.to_m), plan)
    elif isinstance(correction, Merged):
        done = _merged(trip, plan, place)
    elif isinstance(correction, Done):
        done = Corrected(_done(trip, place, correction.activity), plan)
    else:
        done = _cut(trip, plan, place, correction)
    return Corrected(nights_again(done.trip), done.plan)


def same_way(track: Track, way: Way) -> bool:
    """Whether a track goes the way that a trip has: as long within 2 %, and never far from it.

    Sixty places of both are compared; on average they may lie 40 m apart, so that another
    recording, or one thinned by another program, counts as the same.
    """
    import numpy as np  # noqa: PLC0415 - slow to import

    length_m = float(track.along_m[-1])
    if abs(length_m - way.length_m) > SAME_LENGTH * way.length_m:
        return False
    shares = np.linspace(0.0, 1.0, LOOKED_AT)
    mine = np.array([place_at(way, float(share) * way.length_m) for share in shares])
    turned = np.degrees(np.unwrap(np.radians(track.longitude)))
    theirs = [np.interp(shares * length_m, track.along_m, one) for one in (track.latitude, turned)]
    apart = apart_m(mine[:, 0], mine[:, 1], theirs[0], theirs[1])
    return float(np.mean(apart)) < SAME_PLACE_M


def laid_again(trip: Trip, track: Track, question: TrackQuestion) -> Trip | None:
    """The trip with the same way laid out again by the new pace or clock; None when it has none.

    Every leg stays where it was cut by hand, with its name, activity, air, moments and plan.
    """
    old = next((way for way in trip.ways if same_way(track, way)), None)
    if old is None:
        return None
    way = way_again(track, old, question)
    stretch = way.length_m / old.length_m
    items = tuple(_again(item, way, stretch) for item in trip.items)
    ways = tuple(way if one.id == way.id else one for one in trip.ways)
    return nights_again(trip.model_copy(update={"items": items, "ways": ways}))


def _again(item: Item, way: Way, stretch: float) -> Item:
    if item.on_way is None or item.on_way.way != way.id:
        return item
    from_m, to_m = item.on_way.from_m * stretch, min(way.length_m, item.on_way.to_m * stretch)
    return leg_on(item, way, from_m, to_m) if isinstance(item, Leg) else _stop_on(item, way, to_m)


def _stop_on(stop: Stop, way: Way, at_m: float) -> Stop:
    height = height_at(way, at_m)
    warm = air_c(height)
    air = {"temp_start_c": warm, "temp_end_c": warm}
    if stop.air_from != AIR_FROM or "temp" in stop.typed:
        air = {}
    lies = OnWay(way=way.id, from_m=round(at_m, 1), to_m=round(at_m, 1))
    return stop.model_copy(
        update={"on_way": lies, "spot": spot_at(way, at_m), "height_m": height, **air}
    )


def _refused(place: int, why: str) -> BadDocument:
    return BadDocument((FieldFault(f"trip.items[{place}]", why),))


def _place_of(trip: Trip, key: str) -> int:
    keys = [item.id for item in trip.items]
    if key not in keys:
        why = f"leg '{key}' is not in the trip any more"
        raise BadDocument((FieldFault("trip.items", why),))
    return keys.index(key)


def _leg_at(trip: Trip, place: int) -> tuple[Leg, Way, OnWay]:
    leg = trip.items[place]
    found = way_of(trip, leg)
    if not isinstance(leg, Leg) or found is None:
        raise _refused(place, f"'{leg.name}' is no leg on a way: open a track first, or type it")
    return leg, *found


def _next_leg(trip: Trip, place: int, way: Way, ends_m: float) -> int:
    """Where the next leg on the same way stands. Raises BadDocument when there is none."""
    for number in range(place + 1, len(trip.items)):
        item = trip.items[number]
        if item.on_way is None or item.on_way.way != way.id:
            break
        if isinstance(item, Leg):
            if abs(item.on_way.from_m - ends_m) > TOUCHES_M:
                why = f"'{item.name}' does not begin where '{trip.items[place].name}' ends"
                raise _refused(place, f"{why} on their way: put them in order first")
            return number
    raise _refused(place, f"no leg of the same way follows '{trip.items[place].name}'")


def _with_items(trip: Trip, items: list[Item]) -> Trip:
    if len(items) > 1000:
        raise BadDocument((FieldFault("trip.items", "a trip has at most 1000 legs and stops"),))
    return trip.model_copy(update={"items": tuple(items)})


def _edge_moved(trip: Trip, place: int, to_m: float) -> Trip:
    leg, way, lies = _leg_at(trip, place)
    after = _next_leg(trip, place, way, lies.to_m)
    follower, _, ends = _leg_at(trip, after)
    if ends.to_m - lies.from_m < 2.0 * LEAST_M:
        raise _refused(place, "both legs together are too short to be parted elsewhere")
    edge_m = min(max(to_m, lies.from_m + LEAST_M), ends.to_m - LEAST_M)
    items = list(trip.items)
    items[place] = leg_on(leg, way, lies.from_m, edge_m)
    for number in range(place + 1, after):
        stop = items[number]
        assert isinstance(stop, Stop)
        items[number] = _stop_on(stop, way, edge_m)
    items[after] = leg_on(follower, way, edge_m, ends.to_m)
    return _with_items(trip, items)


def _merged(trip: Trip, plan: Plan, place: int) -> Corrected:
    found = way_of(trip, trip.items[place])
    if found is None:
        after, leg, follower = _typed_legs(trip, place)
        joined = _joined(leg, follower, "hand")
    else:
        leg, way, lies = _leg_at(trip, place)
        after = _next_leg(trip, place, way, lies.to_m)
        follower, _, ends = _leg_at(trip, after)
        by_hand = leg.timed_by == follower.timed_by == "hand"
        whole = _joined(leg, follower, "hand" if by_hand else way.clock)
        joined = leg_on(whole, way, lies.from_m, ends.to_m)
    items = [*trip.items[:place], joined]
    gone = {item.id for item in trip.items[place + 1 : after + 1]}
    items += trip.items[after + 1 :]
    return Corrected(_with_items(trip, items), _asked_on(plan, follower.id, leg.id, gone))


def _typed_legs(trip: Trip, place: int) -> tuple[int, Leg, Leg]:
    """A leg that lies on no way and the next one, with only stops between."""
    leg = trip.items[place]
    if not isinstance(leg, Leg):
        raise _refused(place, f"'{leg.name}' is a stop: only legs are made one")
    for number in range(place + 1, len(trip.items)):
        item = trip.items[number]
        if isinstance(item, Leg):
            if item.on_way is not None:
                break
            return number, leg, item
    raise _refused(place, f"no leg that was typed follows '{leg.name}'")


def _joined(leg: Leg, follower: Leg, timed_by: str) -> Leg:
    """Two legs as one: done as the longer is, in the air of both ends."""
    longer = max((leg, follower), key=lambda one: one.duration_s)
    return longer.model_copy(
        update={
            "id": leg.id,
            "name": leg.name,
            "not_before": leg.not_before,
            "timed_by": timed_by,
            "duration_s": leg.duration_s + follower.duration_s,
            "temp_start_c": leg.temp_start_c,
            "temp_end_c": follower.temp_end_c,
            "height_start_m": leg.height_start_m,
            "height_end_m": follower.height_end_m,
            "moments": (*leg.moments, *follower.moments)[:20],
        }
    )


def _asked_on(plan: Plan, from_id: str, to_id: str, gone: set[str]) -> Plan:
    """The plan with what was asked on a leg that is now part of another, less all that is gone.

    What hands were told to do at the second leg's start goes: that place is gone.
    """
    moved = plan.model_copy(
        update={
            "assignments": _moved(plan.assignments, "camera", from_id, to_id),
            "gear": _moved(plan.gear, "gear", from_id, to_id),
        }
    )
    named = {one.name for one in named_in(moved) if one.by.names == "item"}
    return without_missing(moved, {"item": named - gone})


def _moved(rows: Iterable[Any], of: str, from_id: str, to_id: str) -> tuple[Any, ...]:
    """Rows with those of one leg on another, where that has none of the same camera or thing."""
    rows = tuple(rows)
    there = {getattr(one, of) for one in rows if one.item == to_id}
    return tuple(
        one.model_copy(update={"item": to_id})
        if one.item == from_id and getattr(one, of) not in there
        else one
        for one in rows
    )


def _cut(trip: Trip, plan: Plan, place: int, correction: Cut | Halted) -> Corrected:
    leg = trip.items[place]
    if not isinstance(leg, Leg):
        raise _refused(place, f"'{leg.name}' is a stop: only a leg can be cut")
    taken = {item.id for item in trip.items}
    key = free_key(leg.id, taken, "leg")
    found = way_of(trip, leg)
    at_m = 0.0 if found is None else _cut_at_m(place, leg, *found, correction)
    first, second = parted(leg, _cut_share(place, leg, found, at_m, correction), key)
    between: list[Item] = []
    if isinstance(correction, Halted):
        halt_key = free_key(correction.name, taken | {key}, "halt")
        halt = halt_after(first, halt_key, correction.name, correction.duration_s)
        between = [halt if found is None else _stop_on(halt, found[0], at_m)]
    if found is not None:
        way, lies = found
        first = leg_on(first, way, lies.from_m, at_m)
        second = leg_on(second, way, at_m, lies.to_m)
    items = [*trip.items[:place], first, *between, second, *trip.items[place + 1 :]]
    return Corrected(_with_items(trip, items), asked_on_both(plan, leg.id, key))


def _cut_at_m(place: int, leg: Leg, way: Way, lies: OnWay, correction: Cut | Halted) -> float:
    """Where on its way a leg is cut [m]."""
    at_m = correction.at_m
    if at_m is None:
        share = min(1.0, (correction.after_s or 0) / leg.duration_s)
        at_m = along_after(way, lies.from_m, lies.to_m, leg.activity, share)
        at_m = min(max(at_m, lies.from_m + LEAST_M), lies.to_m - LEAST_M)
    if not lies.from_m + LEAST_M <= at_m <= lies.to_m - LEAST_M:
        raise _refused(place, f"'{leg.name}' cannot be cut at {at_m:.0f} m: that is not within it")
    return at_m


def _cut_share(
    place: int, leg: Leg, found: tuple[Way, OnWay] | None, at_m: float, correction: Cut | Halted
) -> float:
    """After which share of its time a leg is cut."""
    if correction.after_s is not None:
        if correction.after_s >= leg.duration_s:
            minutes = round(leg.duration_s / 60)
            raise _refused(place, f"'{leg.name}' lasts {minutes} min: it cannot be cut after that")
        return correction.after_s / leg.duration_s
    if found is None:
        raise _refused(place, f"'{leg.name}' lies on no way: say after how long it is cut")
    lies = found[1]
    return (at_m - lies.from_m) / (lies.to_m - lies.from_m)


def _done(trip: Trip, place: int, activity: Activity) -> Trip:
    leg, way, lies = _leg_at(trip, place)
    hands = HANDS.get(activity, "stops")
    changed = leg.model_copy(update={"activity": activity, "hands": hands})
    items = list(trip.items)
    items[place] = leg_on(changed, way, lies.from_m, lies.to_m)
    return _with_items(trip, items)
