"""The kit shelf: how long each mode records in given air, and what ends it first."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from .charging import MS_PER_HOUR
from .cold import cold_curve, points_of
from .document import BatteryFamily, Camera, Card, CardSlot, Kit, Leg, Mode, SetUp, Trip
from .document.base import Celsius, Part
from .energy import mode_w, nominal_wh
from .heat import body_of, ms_to_level, shedding
from .memory import (
    byte_rate,
    card_is_too_large,
    card_store,
    fixed_store,
    longest_clip_s,
    ms_to_full,
    store_keeps_up,
)
from .parameters import DEFAULTS, Defaults, Parameter
from .two_lags import chained, first_zero

End = Literal["empty", "hot", "card_full", "clip_limit"]
VARIED = ("draw_spread", "tau_s", "resistance_k_per_w", "airflow_a", "stop_c")


class ShelfQuestion(Part):
    """Which modes last, in this air and set-up."""

    kit: Kit
    trip: Trip | None = None
    ambient_c: Celsius = 20.0
    air_mps: Annotated[float, Field(ge=0.0, le=100.0)] = 0.0
    set_up: str | None = Field(default=None, description="Cameras without it hang in their first.")


class Cord(Part):
    """One mode hanging as long as it records."""

    camera: str
    mode: str
    set_up: str
    minutes: float | None = Field(description="None when nothing ends it within 48 hours.")
    end: End | None
    low_minutes: float | None
    high_minutes: float | None
    second_minutes: float | None
    second_end: End | None
    steady_c: float
    stop_c: float
    measured: bool
    lasts_longest_leg: bool | None


class LongestLeg(Part):
    """The longest leg of the trip."""

    name: str
    minutes: float


class Shelf(Part):
    """All cords, and the level line."""

    cords: tuple[Cord, ...]
    longest: LongestLeg | None
    headline: str


@dataclass(frozen=True)
class HungMode:
    """What a cord is computed from."""

    camera: Camera
    mode: Mode
    set_up: SetUp
    family: BatteryFamily
    room_bytes: int | None
    ambient_c: float
    air_mps: float


LONGEST_MS = 48 * 3_600_000


def mode_runtimes(question: ShelfQuestion, defaults: Defaults = DEFAULTS) -> Shelf:
    """Hang every mode of every camera: a full battery, the largest fitting card, until it ends."""
    longest = _longest_leg(question.trip)
    cords = []
    for camera in question.kit.cameras:
        set_up = next((s for s in camera.set_ups if s.id == question.set_up), camera.set_ups[0])
        family = next(f for f in question.kit.families if f.id == camera.battery_family)
        for mode in camera.modes:
            room = _room(camera, set_up, mode, question.kit.cards, defaults)
            hung = HungMode(
                camera, mode, set_up, family, room, question.ambient_c, question.air_mps
            )
            cords.append(_cord(hung, longest, defaults))
    return Shelf(cords=tuple(cords), longest=longest, headline=_headline(cords, longest))


def _longest_leg(trip: Trip | None) -> LongestLeg | None:
    legs = [item for item in trip.items if isinstance(item, Leg)] if trip else []
    if not legs:
        return None
    leg = max(legs, key=lambda item: item.duration_s)
    return LongestLeg(name=leg.name, minutes=leg.duration_s / 60.0)


def _room(
    camera: Camera, set_up: SetUp, mode: Mode, cards: tuple[Card, ...], defaults: Defaults
) -> int | None:
    """Room on the largest card that fits and keeps up, or in fixed memory; None without one."""
    if not isinstance(camera.memory, CardSlot) and camera.writes_own(set_up):
        return fixed_store(camera, camera.memory, defaults).usable_bytes
    stores = [card_store(c, defaults) for c in cards if not card_is_too_large(c, camera)]
    fast = [store.usable_bytes for store in stores if store_keeps_up(store, mode, defaults)]
    return max(fast, default=None)


def _cord(hung: HungMode, longest: LongestLeg | None, defaults: Defaults) -> Cord:
    ends = _ends(hung, defaults)
    ranges = [one[0][0] for one in (_ends(hung, each) for each in _varied(hung, defaults)) if one]
    first = ends[0] if ends else None
    second = ends[1] if len(ends) > 1 else None
    minutes = first[0] / 60_000 if first else None
    lasts = None if longest is None else minutes is None or minutes >= longest.minutes
    body = body_of(hung.camera, hung.set_up, defaults)
    return Cord(
        camera=hung.camera.id,
        mode=hung.mode.id,
        set_up=hung.set_up.id,
        minutes=minutes,
        end=first[1] if first else None,
        low_minutes=min(ranges) / 60_000 if ranges else None,
        high_minutes=max(ranges) / 60_000 if ranges else None,
        second_minutes=second[0] / 60_000 if second else None,
        second_end=second[1] if second else None,
        steady_c=round(_level_c(hung, defaults), 1),
        stop_c=body.limits.stop_c,
        measured=hung.mode.rise_k is not None and hung.set_up.tau_s is not None,
        lasts_longest_leg=lasts,
    )


def _level_c(hung: HungMode, defaults: Defaults) -> float:
    body = body_of(hung.camera, hung.set_up, defaults)
    g = shedding(body, hung.air_mps)
    watts = mode_w(hung.mode, hung.family) * defaults.draw_spread.value
    rise = hung.mode.rise_k
    return hung.ambient_c + g * (rise if rise is not None else body.resistance_k_per_w * watts)


def _ends(hung: HungMode, defaults: Defaults) -> list[tuple[int, End]]:
    """Everything that would end the recording, the soonest first [ms]."""
    body = body_of(hung.camera, hung.set_up, defaults)
    g = shedding(body, hung.air_mps)
    watts = mode_w(hung.mode, hung.family) * defaults.draw_spread.value
    full_wh = nominal_wh(hung.family.mah, hung.family.nominal_v)
    level_c = _level_c(hung, defaults)
    rate = byte_rate(hung.mode, defaults)
    longest_s = longest_clip_s(hung.mode, hung.set_up)
    limit_s = None if hung.camera.continues_after_clip else longest_s
    timed: list[tuple[int | None, End]] = [
        (ms_to_level(hung.ambient_c, level_c, body.limits.stop_c, body.tau_s * g), "hot"),
        (_ms_to_dead(hung, watts / full_wh, level_c, body.tau_s * g, defaults), "empty"),
        (ms_to_full(rate, hung.room_bytes) if hung.room_bytes is not None else None, "card_full"),
        (limit_s * 1000 if limit_s else None, "clip_limit"),
    ]
    known = [(at, end) for at, end in timed if at is not None and at <= LONGEST_MS]
    return sorted(known, key=lambda pair: pair[0])


def _ms_to_dead(
    hung: HungMode, draw_per_h: float, level_c: float, lag_s: float, defaults: Defaults
) -> int | None:
    """When a full cell gives no more [ms]: it starts as cold as the air and follows the body."""
    curve = cold_curve(points_of(hung.family, defaults))
    fall, lag_ms = draw_per_h / MS_PER_HOUR, defaults.tau_cell_s.value * 1000.0
    air_c = hung.ambient_c
    cooling = abs(level_c - air_c) / lag_ms if level_c < air_c else 0.0

    def left(at: float) -> tuple[float, float]:
        _, cell_c = chained(air_c, air_c, level_c, lag_s * 1000.0, lag_ms, at)
        return 1.0 - fall * at - curve.at(cell_c), fall + curve.steepest * cooling

    return first_zero(left, LONGEST_MS)


def _varied(hung: HungMode, defaults: Defaults) -> Iterator[Defaults]:
    """The defaults with one unmeasured parameter at a time at the ends of its range."""
    measured = {"resistance_k_per_w"} if hung.mode.rise_k is not None else set()
    measured |= {"tau_s"} if hung.set_up.tau_s is not None else set()
    measured |= {"stop_c"} if hung.camera.limits is not None else set()
    for name in VARIED:
        parameter = getattr(defaults, name)
        assert isinstance(parameter, Parameter)
        for value in (parameter.value, parameter.low, parameter.high):
            if name not in measured:
                yield defaults.with_value(name, value)


def _headline(cords: list[Cord], longest: LongestLeg | None) -> str:
    if not cords:
        return "No camera on the shelf yet."
    if longest is None:
        return "How long each mode records, and what ends it."
    lasting = sum(1 for cord in cords if cord.lasts_longest_leg)
    of = "mode" if len(cords) == 1 else "modes"
    verb = "lasts" if lasting == 1 else "last"
    count = "None" if lasting == 0 else str(lasting)
    return f"{count} of {len(cords)} {of} {verb} your longest leg."
