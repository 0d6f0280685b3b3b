"""Kit, bench and board foretell one mode in one air alike, on the demos' own runs.

Source: model/learning#foretold.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest

from tests.benches import CAM, A, run
from tools.driving import ROOT
from tumbrel.core.bench import BenchRun, Learned, learn
from tumbrel.core.bench.beside import AirThere, measured_beside
from tumbrel.core.bench.outlook import outlook
from tumbrel.core.bench.predict import Air, BenchQuestion, bench_in
from tumbrel.core.bench.taking import family_with_learned, with_learned
from tumbrel.core.document import (
    Assignment,
    BatteryFamily,
    Camera,
    Kit,
    Leg,
    Plan,
    PlanDocument,
    Trip,
    read_document,
)
from tumbrel.core.formats.runs_table import read_runs
from tumbrel.core.report import rehearse
from tumbrel.core.shelf import Cord, ShelfQuestion, mode_runtimes

DEMO = ROOT / "src" / "tumbrel" / "demo"


def measured() -> Iterator[tuple[str, Camera, BatteryFamily, tuple[BenchRun, ...]]]:
    """Every camera of the demos that was put through runs."""
    for path in sorted(DEMO.glob("*.runs.csv")):
        kit = read_document((DEMO / f"{path.stem.split('.')[0]}.json").read_bytes()).kit
        runs = read_runs(path.read_text(), kit.cameras).runs
        families = {family.id: family for family in kit.families}
        for camera in kit.cameras:
            mine = tuple(one for one in runs if one.camera == camera.id)
            if mine:
                yield f"{path.stem}-{camera.id}", camera, families[camera.battery_family], mine


MEASURED = list(measured())
EACH = pytest.mark.parametrize(
    ("camera", "family", "runs"), [one[1:] for one in MEASURED], ids=[one[0] for one in MEASURED]
)


def by_itself(one: BenchRun) -> bool:
    """Whether it ended by heat or its battery, on that alone."""
    plain = not (one.charging or one.plugged or one.features or one.store_wh)
    return plain and one.end in ("hot", "empty")


def cord_of(camera: Camera, family: BatteryFamily, there: BenchRun) -> Cord:
    """What the shelf says of a run's mode in its air."""
    kit = Kit(families=(family,), cameras=(camera,))
    question = ShelfQuestion(
        kit=kit, ambient_c=there.ambient_c, air_mps=there.air_mps, set_up=there.set_up
    )
    return next(cord for cord in mode_runtimes(question).cords if cord.mode == there.mode)


def roll_min(camera: Camera, family: BatteryFamily, there: BenchRun) -> float:
    """Minutes until it first gives out on a leg in that air, from a full battery."""
    made: dict[str, Any] = {"id": "k", "name": "K", "gb": 256, "speed_class": "V90"}
    own = {"camera": camera.id, "item": "way", "mode": there.mode, "set_up": there.set_up}
    alone = camera.model_copy(update={"boot_s": 0.0, "continues_after_clip": True})
    kit = Kit.model_validate(
        {"families": [family.model_dump()], "cameras": [alone.model_dump()], "cards": [made],
         "batteries": [{"id": "a", "name": "A", "family": family.id}]}
    )  # fmt: skip
    air = {"temp_start_c": there.ambient_c, "temp_end_c": there.ambient_c}
    leg = Leg.model_validate({"id": "way", "name": "way", "duration_s": 36_000, "hands": "never",
                              "air_mps": there.air_mps, **air})  # fmt: skip
    trip = Trip.model_validate({"name": "T", "start": "2027-06-12T06:00:00", "items": [leg]})
    plan = Plan(assignments=(Assignment.model_validate(own),))
    told = rehearse(PlanDocument(kit=kit, trip=trip, plan=plan))
    gaps = [gap for gap in told.cameras[0].gaps if gap.cause != "clip_limit"]
    return min(gap.start_ms for gap in gaps) / 60_000


def like(minutes: float, other: float) -> bool:
    """Within a minute or 3 %."""
    return abs(minutes - other) <= max(1.0, 0.03 * other)


@EACH
def test_what_was_taken_is_foretold_alike_in_all_three(
    camera: Camera, family: BatteryFamily, runs: tuple[BenchRun, ...]
) -> None:
    """And ends as the bench says that it does: by heat, or by the battery."""
    told = learn(camera, family, runs)
    after, cells = with_learned(camera, told), family_with_learned(family, told)
    for one in filter(by_itself, runs):
        air = Air(mode=one.mode, set_up=one.set_up, ambient_c=one.ambient_c, air_mps=one.air_mps)
        seen = outlook(told, bench_in(camera, air))
        cord = cord_of(after, cells, one)
        assert cord.minutes is not None
        assert like(cord.minutes, seen.likely_min), one.id
        assert (cord.end == "hot") == (seen.end == "hot") == (one.end == "hot"), one.id
        assert like(roll_min(after, cells, one), cord.minutes), one.id


@EACH
def test_what_was_not_taken_stands_beside_and_is_gone_once_it_is(
    camera: Camera, family: BatteryFamily, runs: tuple[BenchRun, ...]
) -> None:
    told = learn(camera, family, runs)
    there = AirThere(ambient_c=21.0)
    before = list(measured_beside(BenchQuestion(camera=camera, family=family, runs=runs),
                                  told, there))  # fmt: skip
    assert before
    assert {one.mode for one in before} <= {one.mode for one in runs}
    taken = BenchQuestion(camera=with_learned(camera, told),
                          family=family_with_learned(family, told), runs=runs)  # fmt: skip
    assert list(measured_beside(taken, told, there)) == []


def test_the_main_demos_chin_is_told_by_its_runs() -> None:
    """4K60 was hot after 28 min; the kit, that nobody told, says twice as long."""
    _, camera, family, runs = next(one for one in MEASURED if one[1].name == "Chin")
    question = BenchQuestion(camera=camera, family=family, runs=runs)
    told = learn(camera, family, runs)
    (one,) = [m for m in measured_beside(question, told, AirThere()) if m.mode == "4k60"]
    assert one.end == "hot"
    assert one.minutes == pytest.approx(28.3, abs=2.0)
    assert one.kit_minutes is not None
    assert one.kit_minutes > 45.0


def beside(*runs: BenchRun, **there: Any) -> list[str]:
    question = BenchQuestion(camera=CAM, family=A, runs=runs)
    told: Learned = learn(CAM, A, runs)
    return [one.mode for one in measured_beside(question, told, AirThere(**there))]


def test_only_modes_with_runs_stand_beside_and_only_where_they_say_otherwise() -> None:
    """Of 114 min by the kit: 112 are nothing to tell; 60 are, of that mode alone."""
    assert beside() == []
    assert beside(run("a", 113.0, "empty"), run("b", 113.0, "empty")) == []
    assert beside(run("a", 60.0, "empty")) == ["m"]
    assert beside(run("a", 60.0, "empty", excluded="another battery")) == []
