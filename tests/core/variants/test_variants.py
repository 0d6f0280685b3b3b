"""Variants: the four schools, three kits, and figures side by side."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from tests.build import asks, battery, camera, card, document, leg, mode, played, raw, stop
from tumbrel.core.document import Kit, PlanDocument, check_references, read_document
from tumbrel.core.report import rehearse
from tumbrel.core.variants import STARTING, in_school, ledger_of, lighter, made, safer, sharper
from tumbrel.core.variants.kits import without_unit
from tumbrel.core.variants.ledger import mass_g, money_of

HOUR = 3600
DEMOS = sorted((Path(__file__).resolve().parents[3] / "src" / "tumbrel" / "demo").glob("*.json"))
MOMENT = {"name": "pass", "count": 1, "seconds": 60, "reaction_s": 5}


def two_days(**more: Any) -> PlanDocument:
    """A stop, a leg with a moment, a leg without; one camera asked on all."""
    items = [stop("camp", HOUR), leg("up", HOUR, moments=[MOMENT]), leg("down", HOUR)]
    asked = [
        asks("cam", "camp"),
        asks("cam", "up", pattern={"kind": "takes", "seconds": 20, "per_hour": 3}),
        asks("cam", "down"),
    ]
    return document(items, asked, **more)


def kinds(changed: PlanDocument) -> list[str]:
    return [one.pattern.kind for one in changed.plan.assignments]


@pytest.mark.parametrize(
    ("school", "wanted"),
    [
        ("roll", ["roll", "roll", "roll"]),
        ("takes", ["takes", "takes", "takes"]),
        ("loop", ["loop", "loop", "loop"]),
        ("leave", ["interval", "armed", "armed"]),
    ],
)
def test_a_school_records_every_stretch_its_way(school: Any, wanted: list[str]) -> None:
    assert kinds(in_school(two_days(), school)) == wanted


def test_takes_are_the_plans_own_and_loops_are_kept_at_moments() -> None:
    takes = in_school(two_days(), "takes").plan.assignments
    assert {one.pattern.model_dump_json() for one in takes} == {
        '{"count":null,"per_hour":3.0,"kind":"takes","seconds":20}'
    }
    _, up, down = (one.pattern for one in in_school(two_days(), "loop").plan.assignments)
    assert up.model_dump()["saves_per_hour"] is None
    assert down.model_dump()["saves_per_hour"] == 2.0


def test_a_mode_that_cannot_loop_gives_way_or_the_camera_rolls() -> None:
    no = mode("m", loops=False)
    with_other = two_days(cameras=[camera(modes=[no, mode("n")])])
    assert {one.mode for one in in_school(with_other, "loop").plan.assignments} == {"n"}
    alone = two_days(cameras=[camera(modes=[no])])
    assert kinds(in_school(alone, "loop")) == ["roll", "roll", "roll"]


def test_lighter_leaves_at_home_what_nobody_needs() -> None:
    """3 h at 4 W are 12 W h: 5.7 W h batteries, three of four; one card of two, no idle camera."""
    more = [battery(f"a{n}") for n in range(1, 6)]
    idle = camera("idle", mass_g=500)
    carried = document(
        [leg("way", HOUR), stop("s", 600), leg("on", HOUR), stop("t", 600), leg("end", HOUR)],
        [asks("cam", "way"), asks("cam", "on"), asks("cam", "end")],
        cameras=[camera(), idle],
        batteries=more,
        cards=[card("k1"), card("k2")],
    )
    kept = lighter(carried, played)
    assert [one.id for one in kept.kit.cameras] == ["cam"]
    assert len(kept.kit.batteries) == 3
    assert len(kept.kit.cards) == 1
    assert rehearse(kept).verdict.covered


def test_lighter_never_leaves_what_is_carried_for_an_emergency() -> None:
    """A bank with a reserve and one that a phone hangs on stay; one for nothing goes."""
    plan = raw([leg("way", 600)], [asks("cam", "way")])
    bank = {"kind": "bank", "mah": 5000, "ports": [10]}
    names = ("kept-back", "phones", "idle")
    plan["kit"]["sources"] = [{**bank, "id": one, "name": one} for one in names]
    plan["kit"]["sources"][0]["reserve_wh"] = 5.0
    plan["kit"]["loads"] = [{"id": "phone", "name": "Phone", "wh_per_day": 5, "bank": "phones"}]
    kept = lighter(PlanDocument.model_validate(plan), played)
    assert [one.id for one in kept.kit.sources] == ["kept-back", "phones"]
    assert kept.kit.loads[0].bank == "phones"


def test_safer_carries_one_more_of_each_and_swaps_early() -> None:
    late = two_days(plan={"swap_policy": "run_flat"})
    kept = safer(late, played)
    assert len(kept.kit.batteries) == len(late.kit.batteries) + 1
    assert len(kept.kit.cards) == len(late.kit.cards) + 1
    assert kept.plan.swap_policy == "early"
    warm = {one.id for one in kept.kit.pockets if one.warmth == "inside"}
    assert {one.pocket for one in kept.kit.batteries} <= warm


def test_sharper_takes_the_finest_mode_and_what_it_needs() -> None:
    """5 W for 2 h in two legs are 10 W h: one battery of 5.7 W h does not do, two do."""
    fine = mode("fine", 5.0, width_px=5000, height_px=3000, fps=60)
    asked = [
        asks("cam", "up", importance="must"),
        asks("cam", "down", importance="must"),
    ]
    plan = document(
        [leg("up", HOUR), stop("s", 600), leg("down", HOUR)],
        asked,
        cameras=[camera(modes=[mode("m", 1.0), fine])],
    )
    kept = sharper(plan, played)
    assert {one.mode for one in kept.plan.assignments} == {"fine"}
    assert len(kept.kit.batteries) == 2
    assert rehearse(kept).verdict.covered
    assert ledger_of(kept, rehearse(kept)).picture == pytest.approx(900.0)  # 5000 x 3000 x 60


def test_the_ledger_adds_up_with_the_rehearsal() -> None:
    plan = two_days()
    told = rehearse(plan)
    ledger = ledger_of(plan, told)
    assert sum(one.filmed_ms for one in ledger.importance) == told.verdict.filmed_ms
    assert sum(one.filmed_ms for one in ledger.stretches) == told.verdict.filmed_ms
    assert sum(one.lost_ms for one in ledger.stretches) == told.verdict.gap_ms
    assert sum(one.asked_ms for one in ledger.legs) == told.verdict.asked_ms
    assert ledger.bytes == told.ledgers.bytes_written
    assert ledger.stretches[1].how == "takes M"
    assert ledger.grams == 70.0 + 30.0 + 0.5


def test_money_is_what_is_said_and_none_where_nothing_is() -> None:
    kit = two_days().kit
    assert money_of(kit) is None
    family = kit.families[0].model_copy(update={"cost": 19.5})
    cameras = (kit.cameras[0].model_copy(update={"cost": 300.0}),)
    costly = kit.model_copy(update={"families": (family,), "cameras": cameras})
    assert money_of(costly) == 319.5


def test_a_unit_is_taken_out_with_all_that_names_it() -> None:
    plan = two_days(
        batteries=[battery(), battery("a2")],
        plan={
            "cameras": [{"camera": "cam", "battery": "a2"}],
            "swaps": [{"camera": "cam", "item": "camp", "battery": "a2"}],
            "plugs": [{"unit": "a2", "item": "camp"}],
            "full_by": [{"unit": "a2", "at": "2027-06-12T07:00:00"}],
        },
    )
    left = without_unit(plan, "a2")
    assert left is not None
    assert "a2" not in left.model_dump_json()
    assert without_unit(plan, "cam") is None  # it is asked for


@pytest.mark.parametrize("path", DEMOS, ids=lambda path: path.stem)
@pytest.mark.parametrize("start", STARTING)
def test_the_starting_set_of_every_demo_stands_and_lighter_loses_nothing(
    path: Path, start: Any
) -> None:
    demo = read_document(path.read_bytes())
    kept = made(demo, start, played)
    Kit.model_validate(kept.kit.model_dump())
    check_references(kept.kit, kept.trip, kept.plan)
    told, before = rehearse(kept), rehearse(demo)
    if start == "lighter":
        assert mass_g(kept.kit) < mass_g(demo.kit)
        for importance in ("must", "want", "nice"):
            assert told.kept_of(importance) >= before.kept_of(importance) - 60_000
    if start == "safer":
        assert told.kept_of("must") >= before.kept_of("must") - 60_000
    if start == "sharper":
        assert ledger_of(kept, told).picture > ledger_of(demo, before).picture
