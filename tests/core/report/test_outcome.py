"""What is told: verdict, sums, wording, ledgers, command line."""

from __future__ import annotations

import json
import math
from datetime import UTC, datetime
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.build import (
    asks,
    battery,
    camera,
    card,
    leg,
    mode,
    only,
    raw,
    rehearsed,
    set_up,
    stop,
)
from tests.conftest import DEMO
from tumbrel.core.cli import main, schema_text
from tumbrel.core.document import PlanDocument
from tumbrel.core.rehearsal.result.ledgers import LedgerBreach, breaches_of, refuse
from tumbrel.core.rehearsal.result.minutes import share_out, whole_minutes
from tumbrel.core.rehearsal.result.result import Ledgers
from tumbrel.core.report import rehearse
from tumbrel.core.wording.units import clock, hours, per_cent

HOUR = 3600
VECTORS = json.loads((Path(__file__).parents[2] / "vectors" / "units.json").read_text("utf-8"))


def test_a_covered_plan_says_what_is_least_left() -> None:
    """2 W for an hour of 5.7 W h leaves 65 %."""
    told = rehearsed(
        [leg("way", HOUR)], [asks("cam", "way")], cameras=[camera(modes=[mode(watts=2.0)])]
    )
    assert told.verdict.headline == "Everything you asked is filmed."
    assert told.verdict.detail == (
        "Least left: Cam, 65 % at way. Of 1 h 00 camera time asked, 1 h 00 is filmed."
    )
    assert told.verdict.first is None


def test_a_broken_must_says_what_gives_out_first() -> None:
    told = rehearsed([leg("way", 2 * HOUR)], [asks("cam", "way", importance="must")])
    assert told.verdict.headline == "One must is broken."
    assert told.verdict.detail == (
        "First to give out: Cam, battery empty at 07:25, way, for 35 min. "
        "Of 2 h 00 camera time asked, 1 h 25 is filmed, 35 min is missing."
    )


def test_a_broken_wish_is_no_broken_must() -> None:
    told = rehearsed([leg("way", 2 * HOUR)], [asks("cam", "way", importance="nice")])
    assert told.verdict.headline == "Not all you asked is filmed."
    assert not told.verdict.covered
    both = [camera("one"), camera("two", battery_comes_out=False, modes=[mode(watts=9.0)])]
    asked = [asks("one", "way", importance="must"), asks("two", "way", importance="nice")]
    cells = [battery("a1"), battery("a2")]
    told = rehearsed([leg("way", HOUR)], asked, both, cells, [card("k1"), card("k2")])
    assert told.verdict.headline == "Every must is filmed, not all you asked."


def test_nothing_asked_is_said() -> None:
    told = rehearsed([leg("way", HOUR)], [])
    assert told.verdict.headline == "Nothing is asked yet."


def test_the_first_to_give_out_is_the_first_in_time() -> None:
    both = [camera("one"), camera("two", modes=[mode(watts=8.0)])]
    plan = [asks("one", "way"), asks("two", "way")]
    told = rehearsed(
        [leg("way", 3 * HOUR)],
        plan,
        cameras=both,
        batteries=[battery(), battery("a2")],
        cards=[card(), card("k2")],
    )
    first = told.verdict.first
    assert first is not None
    assert (first.camera, first.cause, first.at_ms) == ("two", "empty", 2_565_000)
    assert first.before_end_ms == 3 * HOUR * 1000 - 2_565_000


def test_sums_add_up_everywhere(demo: PlanDocument) -> None:
    """Cameras to the verdict, losses to their camera, coverage to the whole, by every cut."""
    told = rehearse(demo)
    total = told.verdict.minutes
    assert total.asked == total.filmed + total.missing + total.starting
    for field in ("asked", "filmed", "missing", "starting"):
        assert sum(getattr(c.minutes, field) for c in told.cameras) == getattr(total, field)
    for camera_result in told.cameras:
        assert sum(loss.minutes for loss in camera_result.losses) == camera_result.minutes.missing
    for by in ("item", "angle", "importance", "camera"):
        rows = [row for row in told.coverage if row.by == by]
        assert sum(row.asked_ms for row in rows) == told.verdict.asked_ms
        assert sum(row.filmed_ms for row in rows) == told.verdict.filmed_ms
    first = told.verdict.first
    assert first is not None
    assert f"for {first.minutes} min" in told.verdict.detail


def test_the_main_demo_gives_out_by_battery_heat_and_memory(demo: PlanDocument) -> None:
    causes = {
        loss.cause for camera_result in rehearse(demo).cameras for loss in camera_result.losses
    }
    assert {"empty", "hot", "card_full"} <= causes
    assert len(demo.kit.cameras) == 4
    assert rehearse(demo).duration_ms > 3 * 86_400_000


@pytest.mark.parametrize(
    ("camera_id", "item", "change"),
    [
        ("chin", "d2-flight", {"mode": "1080p30"}),
        ("boom", "d2-scree", {"mode": "4k30", "set_up": "bare"}),
        ("foot", "d4-flight", {"mode": "1080p30"}),
    ],
)
def test_each_gap_of_the_demo_is_cured_by_a_change_on_the_board(
    demo: PlanDocument, camera_id: str, item: str, change: dict[str, str]
) -> None:
    def lost(document: PlanDocument) -> int:
        (result,) = [c for c in rehearse(document).cameras if c.camera == camera_id]
        return sum(loss.lost_ms for loss in result.losses if loss.item == item)

    assignments = [
        a.model_copy(update=change) if (a.camera, a.item) == (camera_id, item) else a
        for a in demo.plan.assignments
    ]
    plan = demo.plan.model_copy(update={"assignments": tuple(assignments)})
    assert lost(demo) > 0
    assert lost(demo.model_copy(update={"plan": plan})) == 0


def test_a_rehearsal_is_the_same_each_time(demo: PlanDocument) -> None:
    assert rehearse(demo) == rehearse(demo)


def test_the_largest_loss_is_the_card_with_most_on_it() -> None:
    cameras = [camera("one"), camera("two")]
    plan = [asks("one", "way"), asks("two", "way"), asks("two", "more")]
    told = rehearsed(
        [leg("way", 600), leg("more", 600)],
        plan,
        cameras=cameras,
        batteries=[battery(), battery("a2")],
        cards=[{"id": "k1", "name": "K1", "gb": 64}, {"id": "k2", "name": "K2", "gb": 64}],
    )
    loss = told.largest_loss
    assert loss is not None
    assert (loss.name, loss.filmed_ms) == ("K2", 1_200_000)


GOOD = Ledgers(
    energy_start_wh=10.0,
    energy_end_wh=4.0,
    energy_used_wh=5.9,
    energy_lost_wh=0.1,
    bytes_start=5,
    bytes_written=10,
    bytes_end=15,
    asked_ms=100,
    filmed_ms=60,
    gap_ms=40,
)


def test_ledgers_that_balance_pass() -> None:
    assert list(breaches_of(GOOD)) == []


@pytest.mark.parametrize(
    ("field", "value", "words"),
    [
        ("energy_used_wh", 5.9001, "energy"),
        ("bytes_written", 11, "bytes"),
        ("gap_ms", 41, "time"),
        ("filmed_ms", 59, "time"),
    ],
)
def test_a_ledger_that_does_not_balance_raises(field: str, value: float, words: str) -> None:
    (breach,) = breaches_of(GOOD.model_copy(update={field: value}))
    assert breach.camera is None
    with pytest.raises(LedgerBreach, match=words):
        refuse((breach,))


@given(st.lists(st.integers(0, 10_000_000), min_size=1, max_size=20))
def test_shared_minutes_add_up_and_are_near_their_parts(parts: list[int]) -> None:
    total = whole_minutes(sum(parts))
    shares = share_out(total, parts)
    assert sum(shares) == total
    assert all(abs(share - part / 60_000) <= 1.5 for share, part in zip(shares, parts, strict=True))


@pytest.mark.parametrize(("whole", "text"), VECTORS["minutes"])
def test_minutes_read_alike_here_and_on_the_page(whole: int, text: str) -> None:
    assert hours(whole) == text


def test_small_words() -> None:
    assert per_cent(0.095) == "10 %"


def test_the_clock_names_the_day_from_the_second_on(demo: PlanDocument) -> None:
    start = datetime(2027, 6, 12, 8, 0, tzinfo=UTC)  # 06:00 local, two hours behind
    assert clock(demo.trip, start, 0) == "06:00"
    assert clock(demo.trip, start, 24 * 3_600_000) == "day 2, 06:00"
    assert clock(demo.trip, start, 24 * 3_600_000, with_day=False) == "06:00"


def test_the_command_line_tells_a_broken_plan(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["rehearse", str(DEMO)]) == 1
    told = capsys.readouterr().out
    assert told.startswith("Four musts are broken.\nFirst to give out: Boom, too hot")


def test_the_command_line_is_content_with_a_covered_plan(tmp_path: Path) -> None:
    plan, out = tmp_path / "plan.json", tmp_path / "out.json"
    plan.write_text(json.dumps(raw([leg("way", 60)], [asks("cam", "way")])), "utf-8")
    assert main(["rehearse", str(plan), "--json", str(out)]) == 0
    assert json.loads(out.read_text("utf-8"))["verdict"]["covered"] is True


def test_the_command_line_names_the_field_of_a_bad_plan(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    plan = tmp_path / "plan.json"
    plan.write_text(json.dumps(raw([leg("way", 0)], [])), "utf-8")
    assert main(["rehearse", str(plan)]) == 2
    assert f"{plan}: trip.items[0].duration_s: " in capsys.readouterr().err


@pytest.mark.parametrize("broken", ["missing", "out"])
def test_the_command_line_says_which_file_failed(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], broken: str
) -> None:
    plan = tmp_path / "plan.json"
    if broken == "out":
        plan.write_text(json.dumps(raw([stop("s", 60)], [])), "utf-8")
    words = ["rehearse", str(plan), "--json", str(tmp_path / "no" / "out.json")]
    assert main(words) == 2
    assert "No such file" in capsys.readouterr().err


def test_the_schema_is_the_documents_own(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["schema"]) == 0
    assert capsys.readouterr().out == schema_text()
    assert json.loads(schema_text())["required"] == ["kit", "trip", "plan"]


def test_margins_of_a_camera_that_comes_near_its_ends() -> None:
    """4 W for an hour of 5.7 W h at 25 degC: 29.8 % left; 30 K towards 55 degC in four lags."""
    items = [leg("way", 3600, temp_start_c=25.0, temp_end_c=25.0)]
    one = camera(modes=[mode(watts=4.0, rise_k=30.0)])
    margins = only(rehearsed(items, [asks("cam", "way")], cameras=[one])).margins
    assert margins.charge == pytest.approx(1 - 4 / 5.7, abs=1e-3)
    assert margins.heat_k == pytest.approx(70 - (55 - 30 * math.exp(-4)), abs=0.05)
    assert margins.room == 504_320_000_000 - 7_599_240 * 3600


def test_the_least_left_looks_at_banks_ports_heat_and_cards_too() -> None:
    """5 W port, 4 W / 0.95 drawn: 1 - 4.2105 / 5 = 15.8 % to spare; a 37 W h bank gives 4.21 W h
    an hour / 0.85 and 0.06: 5.01 W h, 86.4 % left."""
    bank = {"kind": "bank", "id": "slab", "name": "Slab", "mah": 10_000, "ports": [5.0]}
    rig = camera(set_ups=[set_up(power="outside_only")])
    document = raw(
        [leg("way", 3600, temp_start_c=25.0, temp_end_c=25.0)],
        [asks("cam", "way")],
        [rig],
        plan={"cameras": [{"camera": "cam", "source": "slab"}]},
    )
    document["kit"]["sources"] = [bank]
    told = rehearse(PlanDocument.model_validate(document))
    left = {(one.unit, one.resource): one.left for one in told.least}
    assert left["slab", "port"] == pytest.approx(1 - 4 / 0.95 / 5, abs=1e-4)
    assert left["slab", "bank"] == pytest.approx(1 - (4 / 0.95 / 0.85 + 0.06) / 37, abs=1e-3)
    assert ("cam", "battery") not in left  # it is out
    assert 0.0 < left["cam", "heat"] < 1.0
    assert told.verdict.least_left == told.least[0]
    assert told.verdict.least_left.resource == "port"
    assert "Slab, watts of its port, 16 %" in told.verdict.detail
