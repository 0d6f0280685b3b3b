"""The bench run worth doing next for one trip: what the trip wants to know, what can be tried."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from statistics import median
from typing import TYPE_CHECKING

from ..document import Assignment, Item, Leg, Plan, Takes, Trip
from ..document.base import Key, Part
from ..document.kit import FeatureName
from ..parameters import DEFAULTS, Defaults
from ..patterns import how_many
from .model import Bench
from .predict import FAN_MPS
from .worth import Wanted, Worth, worth_doing

if TYPE_CHECKING:
    from collections.abc import Sequence

    from ..document import Camera
    from .fit import Learned
    from .runs import BenchRun

ROOM_C = 21.0
ANOTHER_ROOM_C = 12.0
WEIGHTS = {"must": 3.0, "want": 2.0, "nice": 1.0}
ROOM_TO_SPARE = 1.5  # a mode that lasts this many times its leg leaves no question
SELDOM = 0.2  # windows and intervals record little of their leg
LITTLE_DOUBT = 0.06  # about the noise of a run itself
WORTH_A_RUN = 0.9  # the doubt that is left after it, of what there was
AS_GOOD = 0.85  # of what the best run tells: then the shorter one is preferred


@dataclass(frozen=True)
class RunNeed:
    """What a trip wants to know of a camera, and where."""

    item: str
    wanted: Wanted


class NextRun(Part):
    """The run that would teach most. Doubt as a share of the minutes: 0.1 is 10 % up or down."""

    mode: Key
    set_up: Key
    features: tuple[FeatureName, ...]
    ambient_c: float
    air_mps: float
    plugged: bool
    charge_start: float
    minutes: float
    item: str | None
    mode_wanted: Key
    doubt_before: float
    doubt_after: float


def next_run(
    learned: Learned,
    runs: Sequence[BenchRun],
    trip: Trip | None,
    plan: Plan | None,
    defaults: Defaults = DEFAULTS,
) -> NextRun | None:
    """The possible run that narrows most what the trip depends on; none when nothing does.

    Without a trip, when it does not use the camera, or when it hangs on nothing and no run was done
    yet, every mode is wanted in a still room.
    """
    camera = learned.figures.camera
    possible = list(_possible(camera, runs))
    needs = list(needs_of(camera, trip, plan)) or list(_anywhere(camera))
    best = _best(learned, needs, possible, defaults)
    if _tells_little(best) and not runs:  # the first run of a camera is always worth doing
        needs = list(_anywhere(camera))
        best = _best(learned, needs, possible, defaults)
    elif _tells_little(best):
        return None
    return _told(best, needs[best.about])


def _best(
    learned: Learned, needs: list[RunNeed], possible: list[Bench], defaults: Defaults
) -> Worth:
    return _shortest(worth_doing(learned, [need.wanted for need in needs], possible, defaults))


def _tells_little(best: Worth) -> bool:
    small = best.doubt_before < LITTLE_DOUBT
    return small or best.doubt_after > WORTH_A_RUN * best.doubt_before


def _shortest(found: Sequence[Worth]) -> Worth:
    """The shortest of the runs that tell nearly as much as the best."""
    wanted = AS_GOOD * (found[0].doubt_before ** 2 - found[0].doubt_after ** 2)
    return min(
        (one for one in found if one.doubt_before**2 - one.doubt_after**2 >= wanted),
        key=lambda one: one.likely_min,
    )


def _told(best: Worth, need: RunNeed) -> NextRun:
    bench = best.bench
    return NextRun(
        mode=bench.mode,
        set_up=bench.set_up,
        features=bench.features,
        ambient_c=bench.ambient_c,
        air_mps=bench.air_mps,
        plugged=bench.plugged,
        charge_start=bench.charge_start,
        minutes=best.likely_min,
        item=need.item or None,
        mode_wanted=need.wanted.bench.mode,
        doubt_before=best.about_before,
        doubt_after=best.about_after,
    )


def needs_of(camera: Camera, trip: Trip | None, plan: Plan | None) -> Iterator[RunNeed]:
    """Every stretch that the plan asks of a camera, by importance and how much of it is filmed."""
    if trip is None or plan is None:
        return
    items = {item.id: item for item in trip.items}
    modes = {mode.id for mode in camera.modes}
    set_ups = {set_up.id: set_up for set_up in camera.set_ups}
    for asked in plan.assignments:
        item, set_up = items.get(asked.item), set_ups.get(asked.set_up)
        if asked.camera != camera.id or item is None or set_up is None or asked.mode not in modes:
            continue
        minutes = item.duration_s / 60.0
        ambient_c = (item.temp_start_c + item.temp_end_c) / 2.0
        air_mps = min(60.0, item.air_mps) if isinstance(item, Leg) else 0.0
        plugged = set_up.power != "battery"
        bench = Bench(asked.set_up, asked.mode, asked.features, ambient_c, air_mps, plugged)
        share = _share_filmed(asked, item)
        yield RunNeed(
            item.name,
            Wanted(bench, WEIGHTS[asked.importance] * share, minutes * ROOM_TO_SPARE),
        )


def _share_filmed(asked: Assignment, item: Item) -> float:
    pattern = asked.pattern
    if isinstance(pattern, Takes):
        duration_ms = item.duration_s * 1000
        count = how_many(pattern.count, pattern.per_hour, duration_ms)
        return min(1.0, max(0.01, count * pattern.seconds / item.duration_s))
    return 1.0 if pattern.kind in ("roll", "loop", "armed") else SELDOM


def _anywhere(camera: Camera) -> Iterator[RunNeed]:
    for mode in camera.modes:
        bench = Bench(
            camera.set_ups[0].id, mode.id, (), ROOM_C, 0.0, plugged=False, charge_start=1.0
        )
        yield RunNeed("", Wanted(bench))


def _possible(camera: Camera, runs: Sequence[BenchRun]) -> Iterator[Bench]:
    """Runs that a person can do at home: two rooms, still or with a fan, plugged in or not."""
    usual_c = float(round(median(run.ambient_c for run in runs))) if runs else ROOM_C
    other_c = ANOTHER_ROOM_C if usual_c >= (ROOM_C + ANOTHER_ROOM_C) / 2.0 else ROOM_C
    for set_up in camera.set_ups:
        fed = set_up.power != "battery"
        feeds = (True,) if fed else (False, True) if camera.charges_in_w else (False,)
        for mode in camera.modes:
            for ambient_c in (usual_c, other_c):
                for air_mps in (0.0, FAN_MPS):
                    for plugged in feeds:
                        charge = 0.3 if plugged and set_up.power != "outside_only" else 1.0
                        yield Bench(set_up.id, mode.id, (), ambient_c, air_mps, plugged, charge)
