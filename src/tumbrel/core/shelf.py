"""The kit shelf: how long each mode records in given air, and what ends it first.

A cord is a roll: the trip's own preparing and playing of one leg in that air.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Annotated, Final, Literal

from pydantic import Field

from .charging import MS_PER_HOUR
from .document import (
    Assignment,
    Battery,
    BatteryFamily,
    Camera,
    Card,
    CardSlot,
    DrawInWatts,
    DrawNotKnown,
    Kit,
    Leg,
    Mode,
    Plan,
    PlanDocument,
    SetUp,
    Trip,
)
from .document.base import Celsius, Part
from .energy import mode_w, with_draws
from .memory import Store, card_is_too_large, card_store, fixed_store, store_keeps_up
from .parameters import DEFAULTS, Defaults, Parameter
from .rehearsal.camera.camera_run import CameraRun
from .rehearsal.camera.causes import Cause
from .rehearsal.camera.starting import CARRIES_ON_MS, carries_on_ms
from .rehearsal.camera.turns import RECORDING
from .rehearsal.engine.played import begun
from .rehearsal.trip.prepare import prepare
from .rehearsal.trip.scene import CardAtStart

End = Literal["empty", "cold", "hot", "card_full", "clip_limit"]
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
    draw_known: bool = Field(description="Whether anybody said what the mode draws.")
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
    """What a cord is played from; no room: nothing that it writes to is ever full."""

    camera: Camera
    mode: Mode
    set_up: SetUp
    family: BatteryFamily
    room_bytes: int | None
    trip: Trip
    draw_known: bool


LONGEST_MS: Final = 48 * 3_600_000
HUNG: Final = "hung"
ENDLESS_BYTES: Final = 10**18
NOT_KNOWN_WIDER: Final = 4.0  # so many times the spread where a draw is not known
END_OF: Final[dict[Cause, End]] = {
    Cause.HOT: "hot",
    Cause.EMPTY: "empty",
    Cause.COLD: "cold",
    Cause.CARD_FULL: "card_full",
}


def mode_runtimes(question: ShelfQuestion, defaults: Defaults = DEFAULTS) -> Shelf:
    """Hang every mode of every camera: a full battery, the largest fitting card, until it ends."""
    longest = _longest_leg(question.trip)
    trip = _endless(question.ambient_c, question.air_mps)
    cords = []
    for written in question.kit.cameras:
        known = {mode.id: not isinstance(mode.draw, DrawNotKnown) for mode in written.modes}
        family = next(f for f in question.kit.families if f.id == written.battery_family)
        camera = with_draws(written, family, defaults)
        set_up = next((s for s in camera.set_ups if s.id == question.set_up), camera.set_ups[0])
        for mode in camera.modes:
            room = _room(camera, set_up, mode, question.kit.cards, defaults)
            hung = HungMode(camera, mode, set_up, family, room, trip, known[mode.id])
            cords.append(_cord(hung, longest, defaults))
    return Shelf(cords=tuple(cords), longest=longest, headline=_headline(cords, longest))


def _endless(ambient_c: float, air_mps: float) -> Trip:
    """A leg in one air, as long as cords are looked at."""
    air = {"temp_start_c": ambient_c, "temp_end_c": ambient_c, "air_mps": air_mps}
    leg = Leg(id=HUNG, name=HUNG, duration_s=LONGEST_MS // 1000, hands="never", **air)
    return Trip(name=HUNG, start=datetime(2027, 6, 12), items=(leg,))  # noqa: DTZ001 - local


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
    roll = _rolled(hung, _asked(hung), defaults)
    ends = _ends(roll)
    varied = [_ends(_rolled(hung, each, values)) for each, values in _varied(hung, defaults)]
    ranges = [one[0][0] for one in varied if one]
    first = ends[0] if ends else None
    second = ends[1] if len(ends) > 1 else None
    minutes = first[0] / 60_000 if first else None
    lasts = None if longest is None else minutes is None or minutes >= longest.minutes
    climate, recording = roll.thermal.climate, roll.schedule.spans[0].recording
    assert recording is not None
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
        steady_c=round(climate.base_c[0] + climate.g[0] * recording.rise_k, 1),
        stop_c=roll.thermal.body.limits.stop_c,
        measured=hung.mode.rise_k is not None and hung.set_up.tau_s is not None,
        draw_known=hung.draw_known,
        lasts_longest_leg=lasts,
    )


def _asked(hung: HungMode) -> PlanDocument:
    """The trip of a cord: one mode rolled for as long as cords are looked at.

    The camera is awake as it begins, and runs on its battery.
    """
    set_up = hung.set_up.model_copy(update={"power": "battery"})
    camera = hung.camera.model_copy(
        update={"modes": (hung.mode,), "set_ups": (set_up,), "boot_s": 0.0, "mounts": ()}
    )
    battery = Battery(id=HUNG, name=HUNG, family=hung.family.id)
    asked = Assignment(camera=camera.id, item=HUNG, mode=hung.mode.id, set_up=set_up.id)
    return PlanDocument.model_construct(
        kit=Kit.model_construct(families=(hung.family,), cameras=(camera,), batteries=(battery,)),
        trip=hung.trip,
        plan=Plan.model_construct(assignments=(asked,)),
    )


def _rolled(hung: HungMode, document: PlanDocument, defaults: Defaults) -> CameraRun:
    """The camera as it rolls, just begun: the trip's own play of it, onto what it hangs with."""
    scene = prepare(document, defaults, as_typed=True)
    room = ENDLESS_BYTES if hung.room_bytes is None else hung.room_bytes
    store = CardAtStart(Store(HUNG, HUNG, room, 0, math.inf), 0, 1, math.inf)
    fitted = replace(scene.cameras[0], store=HUNG, beside=None)
    return begun(replace(scene, cards=(store,), cameras=(fitted,))).cameras[0]


def _ends(run: CameraRun) -> list[tuple[int, End]]:
    """Everything that would end the recording, the soonest first [ms]."""
    if run.state != RECORDING or run.recorder.clip is None:
        return [(0, END_OF[cause]) for cause in run.holds if cause in END_OF][:1]
    forecast, recording = run.forecast(), run.recording
    assert recording is not None
    limit_ms = None if run.camera.continues_after_clip else recording.clip_limit_ms
    empty_ms = forecast.empty_ms(LONGEST_MS)
    timed: list[tuple[int | None, End]] = [
        (forecast.heat_ms(LONGEST_MS), "hot"),
        (empty_ms, "empty" if empty_ms is None else _how_empty(run, empty_ms)),
        (run.recorder.clip.full_ms(), "card_full"),
        (limit_ms, "clip_limit"),
    ]
    known = [(at, end) for at, end in timed if at is not None and at <= LONGEST_MS]
    return sorted(known, key=lambda pair: pair[0])


def _how_empty(run: CameraRun, at_ms: int) -> End:
    """Spent, or held back by the cold with some charge left (model/cold#reach)."""
    cell = run.cell
    assert cell is not None
    left = cell.charge - run.energy.drain_w * (at_ms - run.now_ms) / MS_PER_HOUR / cell.wh
    return "cold" if carries_on_ms(run, left) >= CARRIES_ON_MS else "empty"


def _varied(hung: HungMode, defaults: Defaults) -> Iterator[tuple[PlanDocument, Defaults]]:
    """The cord with one unmeasured figure at a time at the ends of its range."""
    asked = _asked(hung)
    measured = {"resistance_k_per_w"} if hung.mode.rise_k is not None else set()
    measured |= {"tau_s"} if hung.set_up.tau_s is not None else set()
    measured |= {"stop_c"} if hung.camera.limits is not None else set()
    for name in VARIED:
        parameter = getattr(defaults, name)
        assert isinstance(parameter, Parameter)
        for value in (parameter.low, parameter.high):
            if name not in measured and name == "draw_spread":
                times = value if hung.draw_known else value**NOT_KNOWN_WIDER
                yield _asked(_drinking(hung, times)), defaults
            elif name not in measured:
                yield asked, defaults.with_value(name, value)
    yield asked, defaults


def _drinking(hung: HungMode, times: float) -> HungMode:
    """The cord with a mode that drinks so many times as much."""
    watts = mode_w(hung.mode, hung.family) * times
    draw = DrawInWatts.model_construct(kind="watts", watts=watts)
    return replace(hung, mode=hung.mode.model_copy(update={"draw": draw}))


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
