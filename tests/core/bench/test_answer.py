"""What the bench says of a camera, foretells in any air, advises, and puts into the kit."""

from __future__ import annotations

import math
from datetime import UTC, datetime
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.benches import CAM, A, learned, run
from tests.build import asks, document, leg, raw, stop, takes
from tumbrel.core.bench import BenchRun, learn
from tumbrel.core.bench.advice import needs_of, next_run
from tumbrel.core.bench.answer import BenchTold, LearnQuestion, tell_bench
from tumbrel.core.bench.model import Bench, bench_of, expected
from tumbrel.core.bench.notebook import Notebook, Pause, RunningTest, Taken
from tumbrel.core.bench.outlook import ends
from tumbrel.core.bench.predict import Air, BenchQuestion, predict
from tumbrel.core.bench.taking import changes, put_back, with_learned
from tumbrel.core.bench.words import next_words
from tumbrel.core.document import Camera, Kit, Plan, Trip
from tumbrel.core.parameters import DEFAULTS
from tumbrel.core.shelf import ShelfQuestion, mode_runtimes

BOXED = CAM.model_copy(
    update={"modes": tuple(m.model_copy(update={"box_minutes": 95.0}) for m in CAM.modes)}
)
NOW = datetime(2027, 6, 1, 12, 0, tzinfo=UTC)
GOOD = (
    run("hot", 24.0, "hot", mode="fast", warned_min=18.0),
    run("cool", 62.0, "empty", mode="fast", air_mps=1.5),
    run("long", 100.0, "empty"),
    run("porch", 44.0, "hot", mode="fast", ambient_c=8.0),
)


def told(*runs: BenchRun, trip: Trip | None = None, plan: Plan | None = None) -> BenchTold:
    question = LearnQuestion(camera=BOXED, family=A, runs=runs, trip=trip, plan=plan)
    return tell_bench(question, learn(BOXED, A, runs))


# -- in words --------------------------------------------------------------------------------------


def test_without_runs_nothing_is_called_measured() -> None:
    found = told()
    assert found.headline.startswith("Nothing is measured yet")
    assert not any(one.known for one in found.figures)
    assert all(one.unknown for one in found.figures)
    assert found.next is not None


def test_the_headline_gives_the_box_the_lie_in_the_room_that_boxes_are_tested_in() -> None:
    warm = run("w", 12.0, "hot", mode="fast", ambient_c=38.0)
    assert told(*GOOD, warm).headline == "Cam filmed FAST for 24 min, not 1 h 35: heat ends it."
    assert told(warm).headline == "Cam filmed FAST for 12 min, not 1 h 35: heat ends it."
    assert told(run("r", 99.0, "empty")).headline == "Cam does what its box says."
    assert told(run("r", 30.0, "stopped")).headline.startswith("One run of Cam; its box says")


@pytest.mark.parametrize(
    ("name", "more", "words"),
    [
        ("as", {"minutes": 24.0, "end": "hot", "mode": "fast"}, "As expected."),
        ("not", {"minutes": 50.0, "end": "stopped"}, "Not hot by 50 min, as expected."),
        (
            "out",
            {"minutes": 20.0, "end": "empty", "excluded": "old battery"},
            "Does not count: old battery",
        ),
    ],
)
def test_a_run_says_how_it_lies_to_the_rest(name: str, more: dict[str, Any], words: str) -> None:
    found = told(*GOOD, run(name, **more))
    line = next(one for one in found.runs if one.run == name)
    assert line.words == words
    assert line.counts is ("excluded" not in more)
    assert line.low_min <= line.likely_min <= line.high_min


def test_a_run_far_off_is_pointed_out_with_what_to_do() -> None:
    found = told(*(run(f"r{n}", 100.0 + n, "empty") for n in range(4)), run("odd", 45.0, "empty"))
    odd = next(one for one in found.runs if one.run == "odd")
    assert odd.outlier
    assert odd.words.startswith("Far from what the other runs say: 45 min, expected 1 h ")
    assert "Exclude it with the reason" in odd.words
    assert "One run disagrees strongly with the rest." in found.detail


def test_what_one_change_did_is_told_the_largest_first() -> None:
    """Air 62 / 24 = 2.6 times; the case 24 / 16 = 1.5 times shorter; the porch is another room."""
    cased = run("cased", 16.0, "hot", mode="fast", set_up="cased")
    stopped = run("s", 5.0, "stopped", mode="fast", air_mps=9.0)
    assert told(*GOOD, cased, stopped).contrasts == (
        "FAST in moving air: 1 h 02, not 24 min (22 °C).",
        "FAST cased: 16 min, not 24 min (22 °C, still).",
    )
    alike = run("again", 26.0, "hot", mode="fast", set_up="cased")
    assert told(GOOD[0], alike).contrasts == ()


def test_a_case_that_helps_here_and_harms_there_is_told_twice() -> None:
    windy = {"mode": "fast", "air_mps": 3.0, "ambient_c": 33.0}
    found = told(
        run("a", 26.0, "hot", mode="fast"),
        run("b", 47.0, "hot", mode="fast", set_up="cased"),
        run("c", 63.0, "empty", **windy),
        run("d", 23.0, "hot", set_up="cased", **windy),
    )
    assert found.contrasts == (
        "FAST cased: 23 min, not 1 h 03 (33 °C, moving air).",
        "FAST cased: 47 min, not 26 min (22 °C, still).",
    )


def test_charging_is_a_change_too() -> None:
    fed = run("fed", 21.0, "hot", plugged=True, charge_start=0.3)
    assert told(run("r", 88.0, "empty"), fed).contrasts == (
        "M plugged in: 21 min, not 1 h 28 (22 °C, still).",
    )


def test_two_firmwares_are_asked_about() -> None:
    old, new = (run(f"r{n}", 100.0, "empty", firmware=f"1.{n}") for n in (0, 2))
    assert "They are of firmware 1.0 and 1.2: do both still hold?" in told(old, new).detail
    assert "firmware" not in told(old).detail


def test_runs_of_what_the_camera_no_longer_has_are_left_out() -> None:
    assert [
        one.run for one in told(run("a", 90.0, "empty"), run("b", 9.0, "hot", mode="gone")).runs
    ] == ["a"]


def test_one_room_never_parts_the_limit_from_the_rises() -> None:
    """Ten runs in one room make the spread small; it still cannot be known, and no number stands.

    A body of 70 K and 15 min that stops at 66 degC: 15 ln(70 / (70 - 66 + room)) minutes.
    """
    rooms = [run(f"r{n}", 24.0 + n / 10, "hot", mode="fast") for n in range(10)]
    stop_of = {one.kind: one for one in told(*rooms).figures}["stop_c"]
    assert not stop_of.known
    assert "ten degrees warmer or colder" in stop_of.unknown
    apart = [
        run(f"t{n}", 15.0 * math.log(70.0 / (4.0 + room)), "hot", mode="fast", ambient_c=room)
        for n, room in enumerate((0.0,) * 30 + (50.0,) * 30)
    ]
    assert learned(*apart).of("stop_c").known
    assert learned(*apart).of("stop_c").value == pytest.approx(66.0, abs=3.0)


def test_figures_have_units_and_lie_in_their_range() -> None:
    found = {(one.kind, one.of): one for one in told(*GOOD).figures}
    lasts = found["lasts_min", "m"]
    assert (lasts.name, lasts.known) == ("M lasts, full battery", True)
    assert lasts.value.startswith("1 h ")
    assert found["rise_k", "fast"].value.endswith(" K")
    assert found["stop_c", ""].assumed == "70 °C"
    assert found["air_a", ""].assumed == "44 %"


def test_minutes_of_a_full_battery_are_known_where_its_energy_is_not() -> None:
    """101 min at 22 degC, which hides 0.6 %: 101.6 min at 25 degC; box 114 min weighs 1 %."""
    found = learned(*(run(f"r{n}", 101.0, "empty") for n in range(5)))
    assert not found.of("energy").known
    assert found.of("lasts_min", "m").known
    assert found.of("lasts_min", "m").value == pytest.approx(101.0 / 0.994, rel=0.008)


# -- in any air ------------------------------------------------------------------------------------


def test_a_look_tells_what_ends_each_mode_and_what_comes_second() -> None:
    seen = predict(learned(*GOOD), Air(mode="fast", set_up="bare", ambient_c=22.0))
    fast = next(one for one in seen.modes if one.mode == "fast")
    assert fast.end == "hot"
    assert fast.hot.likely_min == pytest.approx(24.0, rel=0.15)
    assert fast.empty.likely_min == pytest.approx(62.0, rel=0.1)
    slow = next(one for one in seen.modes if one.mode == "m")
    assert slow.end == "empty"
    assert slow.empty.low_min is not None
    assert slow.empty.low_min < slow.likely_min


def test_a_curve_ends_at_the_limit_or_when_the_battery_does() -> None:
    seen = predict(learned(*GOOD), Air(mode="fast", set_up="bare", ambient_c=22.0))
    asked, moving, cased = seen.curves
    assert [one.kind for one in seen.curves] == ["asked", "moving", "set_up"]
    assert asked.likely_c[0] == 22.0
    assert asked.likely_c[-1] == pytest.approx(seen.stop_c, abs=0.2)
    assert asked.minutes[-1] == pytest.approx(asked.hot_min, abs=0.01)
    assert moving.hot_min is None
    assert moving.empty_min == pytest.approx(moving.minutes[-1], abs=0.01)
    assert cased.minutes[-1] < asked.minutes[-1]
    assert all(low <= high for low, high in zip(asked.low_c, asked.high_c, strict=True))


def test_charging_has_a_curve_of_its_own_where_a_port_takes_it() -> None:
    fed = CAM.model_copy(update={"charges_in_w": 7.5})
    seen = predict(
        learn(fed, A, GOOD), Air(mode="fast", set_up="bare", ambient_c=22.0, air_mps=4.0)
    )
    kinds = {one.kind: one for one in seen.curves}
    assert set(kinds) == {"asked", "charging", "still", "set_up"}
    assert kinds["charging"].likely_c[5] > kinds["asked"].likely_c[5]


def test_a_set_up_on_outside_power_is_plugged_in_by_itself() -> None:
    wired = CAM.set_ups[0].model_copy(update={"id": "wired", "name": "wired", "power": "outside"})
    fed = CAM.model_copy(update={"set_ups": (*CAM.set_ups, wired)})
    seen = predict(learn(fed, A, GOOD), Air(mode="m", set_up="wired", ambient_c=-5.0, air_mps=9.0))
    assert {one.end for one in seen.modes} == {"stopped"}
    assert all(one.empty.low_min is None for one in seen.modes)
    beside = predict(learn(fed, A, GOOD), Air(mode="fast", set_up="bare"))
    warm = {one.name: one.likely_c[5] / one.minutes[5] for one in beside.curves}
    assert warm["wired"] > warm["bare"]  # charging warms it faster


LEARNED = learned(*GOOD)


@settings(max_examples=40)
@given(
    room=st.floats(-15.0, 40.0),
    warmer=st.floats(0.5, 10.0),
    air=st.floats(0.0, 8.0),
    more=st.floats(0.2, 6.0),
)
def test_warmer_rooms_and_stiller_air_never_bring_heat_later(
    room: float, warmer: float, air: float, more: float
) -> None:
    def hot_min(ambient_c: float, air_mps: float) -> float:
        bench = Bench("bare", "fast", (), ambient_c, air_mps)
        return float(ends(expected(LEARNED.logs, LEARNED.figures, bench, DEFAULTS), 1.0, 1.0)[0])

    assert hot_min(room + warmer, air) <= hot_min(room, air)
    assert hot_min(room, air) <= hot_min(room, air + more)


# -- the run worth doing next ----------------------------------------------------------------------


def planned(minutes: int, **more: Any) -> tuple[Trip, Plan]:
    """A stop and a leg of some minutes that mode "fast" is asked on."""
    plan = document(
        [stop("camp", 600), leg("flight", minutes * 60, air_mps=9.0)],
        [asks("cam", "flight", **({"mode": "fast", "importance": "must"} | more))],
        cameras=[CAM.model_dump(mode="json")],
    )
    return plan.trip, plan.plan


def test_the_advice_is_about_what_the_trip_depends_on() -> None:
    trip, plan = planned(70)
    found = next_run(learned(), (), trip, plan)
    assert found is not None
    assert (found.item, found.mode_wanted, found.mode) == ("flight", "fast", "fast")
    assert found.doubt_after < 0.75 * found.doubt_before
    words = next_words(found, CAM, on_trip=True)
    assert "of FAST" in words
    assert "the doubt about FAST on flight" in words


def test_a_leg_with_room_to_spare_asks_for_no_run() -> None:
    trip, plan = planned(12)
    assert next_run(learned(*GOOD), GOOD, trip, plan) is None
    first = next_run(learned(), (), *planned(3))  # but the first run is always worth doing
    assert first is not None
    assert first.item is None
    assert next_words(None, CAM, on_trip=True).startswith("No run would tell much more about Cam")


def test_without_a_trip_every_mode_in_a_still_room_is_wanted() -> None:
    found = next_run(learned(), (), None, None)
    assert found is not None
    assert found.item is None
    assert "in a still room" in next_words(found, CAM, on_trip=False)


def test_takes_weigh_by_what_they_film() -> None:
    """Six takes of 60 s on a leg of an hour: a tenth."""
    trip, plan = planned(60, pattern=takes(60, count=6))
    (rolled,) = needs_of(CAM, *planned(60))
    (taken,) = needs_of(CAM, trip, plan)
    assert taken.wanted.weight == pytest.approx(0.1 * rolled.wanted.weight)
    assert rolled.wanted.longest_min == pytest.approx(90.0)


# -- into the kit and back -------------------------------------------------------------------------


def test_the_shelf_says_the_same_minutes_once_figures_are_taken() -> None:
    """Bench and rehearsal are one model: a taken camera hangs as long as the bench foretells."""
    found = learned(*GOOD)
    taken = with_learned(CAM, found)
    kit = Kit.model_validate(
        raw([], [])["kit"] | {"cameras": [taken.model_dump()], "batteries": []}
    )
    for ambient_c, air_mps in ((22.0, 0.0), (30.0, 0.0), (35.0, 3.0)):
        question = ShelfQuestion(kit=kit, ambient_c=ambient_c, air_mps=air_mps)
        cord = next(one for one in mode_runtimes(question).cords if one.mode == "fast")
        course = expected(
            found.mean, found.figures, Bench("bare", "fast", (), ambient_c, air_mps), DEFAULTS
        )
        hot, empty = (float(one) for one in ends(course, 1.0, 1.0))
        assert cord.minutes == pytest.approx(min(hot, empty), rel=0.03)
        assert cord.measured


def _taken_and_bench(*runs: BenchRun) -> list[tuple[BenchRun, float, float]]:
    """Each run with what the kit foretells once figures are taken, and what the bench does."""
    found = learned(*runs)
    taken = with_learned(CAM, found)
    kit = Kit.model_validate(
        raw([], [])["kit"] | {"cameras": [taken.model_dump()], "batteries": []}
    )
    told = []
    for one in runs:
        question = ShelfQuestion(
            kit=kit, ambient_c=one.ambient_c, air_mps=one.air_mps, set_up=one.set_up
        )
        cord = next(cord for cord in mode_runtimes(question).cords if cord.mode == one.mode)
        course = expected(found.mean, found.figures, bench_of(one), DEFAULTS)
        hot, empty = (float(each) for each in ends(course, 1.0, 1.0))
        assert cord.minutes is not None
        told.append((one, cord.minutes, min(hot, empty)))
    return told


def test_the_kit_foretells_every_run_as_the_bench_does() -> None:
    """Two hot runs in moving air teach a fast mode's rise and its air only together: half of them
    in the kit foretold a third more."""
    windy = [
        run("w1", 9.0, "hot", mode="fast", ambient_c=35.0, air_mps=3.0),
        run("w2", 8.5, "hot", mode="fast", ambient_c=36.0, air_mps=3.0),
        run("w3", 112.0, "empty"),
        run("w4", 7.0, "hot", mode="fast", set_up="cased", ambient_c=34.0, air_mps=1.0),
    ]
    for one, by_kit, by_bench in _taken_and_bench(*windy):
        fan = 0.1 if one.air_mps else 0.02  # the bench knows how its fan blew, the kit does not
        assert by_kit == pytest.approx(by_bench, rel=fan), one.id


def test_cold_does_not_teach_draw() -> None:
    """At -20 degC a full cell that starts as cold hides 0.4: 40 min where it lasts 110 warm."""
    warm = [run("w1", 110.0, "empty"), run("w2", 108.0, "empty", ambient_c=20.0)]
    found = learned(*warm, run("cold", 40.0, "empty", ambient_c=-20.0))
    assert found.of("lasts_min", "m").value == pytest.approx(
        learned(*warm).of("lasts_min", "m").value, rel=0.02
    )
    assert not any(one.outlier for one in found.residuals if one.run != "cold")
    alone = learned(run("warm", 110.0, "empty"), run("cold", 40.0, "empty", ambient_c=-20.0))
    assert not any(one.outlier for one in alone.residuals if one.run == "warm")
    assert alone.of("lasts_min", "m").value > 100.0


def test_only_what_runs_taught_is_taken() -> None:
    found = learned(run("r", 100.0, "empty"))
    taken = with_learned(CAM, found)
    assert taken.modes[0].draw.kind == "lasts"
    assert taken.modes[1] == CAM.modes[1]
    assert taken.set_ups == CAM.set_ups
    assert (taken.limits, taken.charge_heat) == (None, 1.0)
    assert with_learned(CAM, learned()) == CAM


def test_changes_are_told_with_units() -> None:
    told_changes = {one.figure: one for one in changes(CAM, with_learned(CAM, LEARNED), A)}
    assert told_changes["M lasts"].before == "114 min (3.0 W)"
    assert told_changes["FAST warms by"].before == "assumed by mass"
    assert told_changes["FAST warms by"].after.endswith(" K")
    assert told_changes["bare takes to warm"].after.endswith(" min")
    assert told_changes["stops at"].before == "70 °C, assumed"
    assert changes(CAM, CAM, A) == ()


def test_what_was_taken_goes_back_and_what_was_typed_since_stays() -> None:
    after = with_learned(CAM, LEARNED)
    taken = Taken(camera="cam", at=NOW, before=CAM, after=after)
    assert put_back(after, taken) == CAM
    assert put_back(after, None) is after
    typed = after.modes[0].model_copy(update={"rise_k": 33.0})
    edited = after.model_copy(update={"modes": (typed, after.modes[1]), "mass_g": 90.0})
    back = put_back(edited, taken)
    assert back.modes[0].rise_k == 33.0
    assert back.modes[0].draw == CAM.modes[0].draw
    assert (back.mass_g, back.limits) == (90.0, None)


def test_runs_do_not_count_twice_once_their_figures_are_in_the_kit() -> None:
    after = with_learned(CAM, LEARNED)
    taken = Taken(camera="cam", at=NOW, before=CAM, after=after)
    question = BenchQuestion(camera=after, family=A, runs=GOOD, taken=taken)
    assert learn(question.assumed(), A, GOOD).logs == pytest.approx(LEARNED.logs)
    assert learn(after, A, GOOD).logs != pytest.approx(LEARNED.logs, abs=1e-3)


# -- the notebook ----------------------------------------------------------------------------------


def a_test(name: str = "t1", **more: Any) -> dict[str, Any]:
    test = {"id": name, "camera": "cam", "set_up": "bare", "mode": "m", "ambient_c": 21.0}
    return {**test, "started_at": "2027-06-01T12:00:00Z", **more}


@pytest.mark.parametrize(
    ("part", "why"),
    [
        ({"runs": [run("r", 9.0, "hot"), run("r", 8.0, "hot")]}, "'r' stands twice"),
        ({"runs": [run("t1", 9.0, "hot")], "running": [a_test()]}, "'t1' stands twice"),
        ({"running": [a_test(), a_test("t2")]}, "'cam' stands twice"),
        ({"running": [a_test(speed=60)]}, "runs faster than the clock"),
        ({"running": [a_test(started_at="2027-06-01T12:00:00")]}, "timezone"),
    ],
)
def test_a_notebook_that_cannot_be_is_refused(part: dict[str, Any], why: str) -> None:
    with pytest.raises(ValueError, match=why):
        Notebook.model_validate(part)


def test_a_pause_goes_forward() -> None:
    with pytest.raises(ValueError, match="ends before it begins"):
        Pause(since=NOW, until=NOW.replace(hour=11))
    assert RunningTest.model_validate(a_test(pauses=[{"since": NOW}])).pauses[0].until is None


def test_a_camera_with_figures_from_the_bench_goes_through_a_file() -> None:
    after = with_learned(CAM, LEARNED)
    assert Camera.model_validate_json(after.model_dump_json()) == after
