"""What bench runs teach: by hand, against a bootstrap, and on simulated cameras.

Source: model/learning#fit.
"""

from __future__ import annotations

import math
from random import Random
from statistics import median, stdev
from typing import Any

import numpy as np
import pytest
from pydantic import ValidationError

from tests.benches import CAM, A, learned, run
from tests.reference.rigs import LONGEST_MIN, off, tried
from tumbrel.core.bench import BenchRun, Learned, learn, outlook
from tumbrel.core.bench.model import Bench, bench_of, expected
from tumbrel.core.bench.worth import Wanted, worth_doing
from tumbrel.core.document import DrawByRunTime, DrawNotKnown
from tumbrel.core.parameters import DEFAULTS
from tumbrel.simulators.rig import Rig, Room, some_truth


def likely(told: Learned, **more: Any) -> float:
    """Minutes foretold in the same conditions."""
    return outlook(told, bench_of(run("x", 1.0, "stopped", **more))).likely_min


def test_without_runs_everything_is_as_it_was_believed() -> None:
    """3 W out of 5.70 W h: 114 min; the body warms the cell past 25 degC, where nothing is hid."""
    told = learned()
    assert not any(figure.known for figure in told.learned)
    assert told.of("draw_w", "m").value == pytest.approx(3.0)
    assert told.of("stop_c").value == pytest.approx(70.0)
    course = expected(told.logs, told.figures, bench_of(run("x", 1, "stopped")), DEFAULTS)
    assert float(course.empty_min) == pytest.approx(114.0, rel=1e-6)
    assert float(course.rise_k) == pytest.approx(14.0 * 3.0, rel=1e-6)
    assert float(course.lag_min) == pytest.approx(15.0)


def test_one_run_to_empty_by_hand() -> None:
    """Box 114 min, run 90 min: the prior's variance of ln t is 0.25^2 + 0.08^2 = 0.0689, the
    run's 0.06^2 = 0.0036; so 95.0 % of the way from ln 114 to ln 90, which is 91.1 min: a hair
    more, since what is said of a draw weighs less the farther it is off."""
    told = learned(run("r", 90.0, "empty"))
    course = expected(told.logs, told.figures, bench_of(run("x", 1, "stopped")), DEFAULTS)
    share = 0.0689 / (0.0689 + 0.06**2)
    hand = math.exp(math.log(114.0) + share * (math.log(90.0) - math.log(114.0)))
    assert float(course.empty_min) == pytest.approx(hand, rel=0.005)
    assert told.converged
    assert told.agreeing == told.starts


def test_time_alone_does_not_part_draw_from_energy_a_charge_read_off_does_not_either() -> None:
    """The ratio is known after one run, neither figure is; the page must say so."""
    told = learned(run("r", 90.0, "empty"))
    assert not told.of("energy").known
    assert told.of("draw_w", "m").value * 90.0 / 60.0 < 5.70


def test_a_hot_run_teaches_the_rise() -> None:
    """48 K above 22 degC after 24 min: by the priors 5 W stands at 70 K (1 - e^-1.6) = 55.9."""
    told = learned(run("r", 24.0, "hot", mode="fast"))
    assert likely(told, mode="fast") == pytest.approx(24.0, rel=0.06)
    assert told.of("rise_k_per_w").value < 14.0


def test_what_did_not_happen_counts() -> None:
    """An hour in the fast mode without heat makes heat less likely; a minute tells nothing."""
    bench = bench_of(run("x", 1.0, "stopped", mode="fast"))
    before = outlook(learned(), bench)
    after = outlook(learned(run("r", 60.0, "stopped", mode="fast")), bench)
    assert before.hot_share > 0.7
    assert after.hot_share < before.hot_share
    assert after.likely_min > before.likely_min
    short = learned(run("r", 1.0, "stopped", mode="fast"))
    assert short.logs == pytest.approx(learned().logs, abs=1e-3)


def test_one_room_does_not_part_the_limit_from_the_rise() -> None:
    one_room = [run("a", 24.0, "hot", mode="fast"), run("b", 40.0, "hot", mode="fast", air_mps=0.1)]
    assert not learned(*one_room).of("stop_c").known
    rooms = [
        run(f"t{room}", minutes, "hot", mode="fast", ambient_c=room)
        for room, minutes in ((5, 37.0), (22, 24.0), (38, 13.5))
    ]
    assert learned(*rooms).of("stop_c").high - learned(*rooms).of("stop_c").low < (
        learned(*one_room).of("stop_c").high - learned(*one_room).of("stop_c").low
    )


def test_a_case_is_learned_in_its_own_set_up() -> None:
    bare = run("a", 24.0, "hot", mode="fast")
    worse = learned(bare, run("b", 14.0, "hot", mode="fast", set_up="cased"))
    better = learned(bare, run("b", 30.0, "hot", mode="fast", set_up="cased"))
    assert worse.of("case", "cased").value > 1.3 > better.of("case", "cased").value


def test_a_run_that_disagrees_is_pointed_out_and_does_not_rule() -> None:
    good = [run(f"r{n}", minutes, "empty") for n, minutes in enumerate((100.0, 97.0, 103.0))]
    told = learned(*good, run("odd", 40.0, "empty"))
    assert [one.run for one in told.residuals if one.outlier] == ["odd"]
    assert likely(told) == pytest.approx(100.0, rel=0.08)
    assert not any(one.outlier for one in learned(*good).residuals)


def test_what_is_excluded_or_of_something_else_does_not_count() -> None:
    others = [
        run("a", 10.0, "empty", excluded="wrong battery"),
        run("b", 10.0, "empty", camera="other"),
        run("c", 10.0, "empty", mode="gone"),
        run("d", 10.0, "empty", set_up="gone"),
    ]
    told = learned(*others)
    assert told.residuals == ()
    assert told.logs == pytest.approx(learned().logs)


def test_a_meter_parts_the_draw_from_the_energy() -> None:
    """3.2 W over 90 min to empty: 4.8 W h came out of 5.70 (0.842), less what 22 degC hides."""
    told = learned(*(run(f"r{n}", 90.0, "empty", mean_w=3.2) for n in range(9)))
    assert told.of("draw_w", "m").known
    assert told.of("energy").known
    assert told.of("draw_w", "m").value == pytest.approx(3.2, rel=0.02)
    assert told.of("energy").value == pytest.approx(4.8 / (5.7 * 0.994), rel=0.02)


def test_a_meter_at_the_port_sees_the_regulator_too_and_charging_until_it_is_over() -> None:
    fed = {"plugged": True, "metered": "port", "mean_w": 4.0}
    full = learned(*(run(f"r{n}", 30.0, "stopped", charge_start=0.99, **fed) for n in range(4)))
    assert full.of("draw_w", "m").value == pytest.approx(4.0 * 0.95, rel=0.04)
    charging = learned(run("r", 30.0, "stopped", charge_start=0.4, **fed))
    assert charging.of("draw_w", "m").value < 3.05  # nothing drew it up to 3.8


def test_a_warning_tells_of_a_rise_that_a_run_never_met() -> None:
    """Warned 7 K below its limit after 20 min, then empty: 41 K had risen of 41 / (1 - e^-1.33)."""
    quiet, warned = run("r", 110.0, "empty"), run("r", 110.0, "empty", warned_min=20.0)
    assert warned.end == quiet.end
    assert not learned(quiet).of("warn_below_k").known
    seen = learned(warned)
    assert seen.of("rise_k", "m").value > learned(quiet).of("rise_k", "m").value
    course = expected(seen.logs, seen.figures, bench_of(warned), DEFAULTS)
    assert float(course.risen_k(20.0)) == pytest.approx(float(course.warn_k), rel=0.05)


def test_a_pause_of_charging_takes_its_heat_away() -> None:
    hot = {"plugged": True, "charge_start": 0.3, "mode": "fast"}
    fit = learned()
    rises_k = [
        float(expected(fit.logs, fit.figures, bench_of(one), DEFAULTS).rise_k)
        for one in (
            run("busy", 40.0, "hot", **hot),
            run("idle", 40.0, "hot", **hot, charge_paused_min=40.0),
        )
    ]
    charged = 14.0 * 3.42 * (1.0 / 0.90 - 1.0)  # K: 14 K/W of what charging at 0.6 x 5.7 W loses
    assert rises_k[0] - rises_k[1] == pytest.approx(charged, rel=1e-6)


def test_a_rise_that_was_typed_is_where_the_search_begins() -> None:
    typed = CAM.modes[0].model_copy(update={"rise_k": 30.0})
    camera = CAM.model_copy(update={"modes": (typed, CAM.modes[1])})
    assert learn(camera, A, ()).of("rise_k", "m").value == pytest.approx(30.0)


def test_the_order_of_runs_changes_nothing() -> None:
    runs = [run("a", 90.0, "empty"), run("b", 24.0, "hot", mode="fast"), run("c", 50.0, "stopped")]
    assert learned(*runs).logs == pytest.approx(learned(*reversed(runs)).logs, abs=1e-5)


def test_more_runs_are_more_sure() -> None:
    runs = [run(f"r{n}", 100.0 + n, "empty") for n in range(5)]
    spans = []
    for count in (0, 1, 5):
        seen = outlook(learned(*runs[:count]), bench_of(runs[0]))
        spans.append(seen.high_min / seen.low_min)
    assert spans[0] > 2.0 * spans[1] > 2.0
    assert spans[1] > spans[2]


def test_five_runs_without_heat_leave_little_doubt_of_it() -> None:
    """By the priors the body would stand at 64 degC of 70: heat is likely until runs show none."""
    assert outlook(learned(), bench_of(run("x", 1.0, "stopped"))).hot_share > 0.2
    told = learned(*(run(f"r{n}", 100.0 + n, "empty") for n in range(5)))
    assert outlook(told, bench_of(run("x", 1.0, "stopped"))).hot_share < 0.08


def test_near_the_limit_the_range_is_wide() -> None:
    told = learned(run("a", 24.0, "hot", mode="fast"), run("b", 100.0, "empty"))
    far = outlook(told, Bench("bare", "fast", (), 38.0, 0.0, plugged=False, charge_start=1.0))
    near = outlook(told, Bench("bare", "fast", (), 0.0, 0.0, plugged=True, charge_start=1.0))
    assert far.high_min / far.low_min < 2.0
    assert near.high_min / near.low_min > 2.0


def test_spread_agrees_with_a_bootstrap() -> None:
    """Runs drawn anew with their own noise: the time to empty spreads as the fit says."""
    truth = [("m", 22.0, 95.0), ("m", 30.0, 96.0), ("fast", 0.0, 55.0), ("m", 22.0, 94.0)]
    draw = Random(4)

    def drawn() -> list[BenchRun]:
        return [
            run(
                f"r{n}",
                minutes * math.exp(draw.gauss(0.0, 0.06)),
                "empty",
                mode=name,
                ambient_c=ambient_c,
                air_mps=9.0,
            )
            for n, (name, ambient_c, minutes) in enumerate(truth)
        ]

    bench = bench_of(run("x", 1.0, "stopped", air_mps=9.0))
    times = []
    for _ in range(40):
        told = learn(CAM, A, drawn())
        times.append(math.log(float(expected(told.logs, told.figures, bench, DEFAULTS).empty_min)))
    place = told.figures.place
    toward = np.zeros(len(told.logs))
    toward[place["energy", ""]], toward[place["draw_w", "m"]] = 1.0, -1.0
    said = math.sqrt(float(toward @ told.spread @ toward))
    assert stdev(times) == pytest.approx(said, rel=0.35)


def test_the_run_worth_doing_is_in_the_mode_and_air_that_matter() -> None:
    told = learned(run("a", 100.0, "empty"))
    flight = Bench("bare", "fast", (), 15.0, 9.0, plugged=False, charge_start=1.0)
    windy = Bench("bare", "fast", (), 22.0, 9.0, plugged=False, charge_start=1.0)
    other = Bench("bare", "m", (), 22.0, 0.0, plugged=False, charge_start=1.0)
    best, worst = worth_doing(told, [Wanted(flight)], [other, windy])
    assert best.bench is windy
    assert best.doubt_before == worst.doubt_before > 0.1
    assert best.doubt_after < 0.5 * best.doubt_before
    assert worst.doubt_after > 0.8 * worst.doubt_before


def test_the_doubt_that_a_run_takes_away_is_taken_away_by_it() -> None:
    """Foretold before the run, and found by fitting it as well."""
    flight = Bench("bare", "fast", (), 15.0, 9.0, plugged=False, charge_start=1.0)
    (foretold,) = worth_doing(learned(), [Wanted(flight)], [flight])
    done = run("r", foretold.likely_min, "empty", mode="fast", ambient_c=15.0, air_mps=9.0)
    (after,) = worth_doing(learned(done), [Wanted(flight)], [flight])
    assert after.doubt_before == pytest.approx(foretold.doubt_after, rel=0.45)


def test_what_runs_should_tell_about_must_be_said() -> None:
    with pytest.raises(ValueError, match="say what"):
        worth_doing(learned(), [], [])


def test_on_unseen_conditions_of_simulated_cameras() -> None:
    """40 cameras of a richer model, six runs each, five conditions that the fit has not seen."""
    found = tried(40, 5)
    errors = [off(one, one.likely_min) for one in found]
    box = [off(one, one.box_min) for one in found]
    ended = [one for one in found if one.true_min < LONGEST_MIN - 1.0]
    held = sum(one.low_min <= one.true_min <= one.high_min for one in ended) / len(ended)
    assert median(errors) < 0.07
    assert sum(error < 0.15 for error in errors) / len(errors) >= 0.75
    assert sum(one.end_right for one in found) / len(found) >= 0.92
    assert 0.75 <= held <= 0.90
    assert median(box) > 1.1 * median(errors)


@pytest.mark.parametrize(
    ("part", "why"),
    [
        ({"warned_min": 99.0}, "the warning comes after the end of the run"),
        ({"plugged": True}, "cannot end with an empty battery"),
        ({"charge_start": 0.5, "charge_end": 0.8}, "above the charge at the start"),
        ({"minutes": 0.0}, "greater than 0"),
        ({"at": "2027-06-12T06:00:00+02:00"}, "offset"),
    ],
)
def test_a_run_that_cannot_be_is_refused(part: dict[str, Any], why: str) -> None:
    with pytest.raises(ValidationError, match=why):
        run("r", **{"minutes": 90.0, "end": "empty", **part})


# -- the simulated camera -----------------------------------------------------------------------


def test_a_simulated_camera_is_used_like_a_real_one() -> None:
    rig = Rig(some_truth(Random(3)))
    rig.start(2, Room(22.0))
    with pytest.raises(ValueError, match="records already"):
        rig.start(0, Room(22.0))
    free = rig.free_bytes()
    rig.let_pass(600.0)
    assert rig.elapsed_s == 600.0
    assert rig.battery() < 1.0
    assert free - rig.free_bytes() == pytest.approx(600.0 * rig.truth.mbps[2] * 1e6 / 8.0, rel=1e-9)
    rig.stop()
    assert (rig.recording, rig.reason) == (False, "stopped")
    rig.let_pass(600.0)
    assert rig.elapsed_s == 600.0


def test_a_simulated_camera_warns_before_it_stops_hot_and_air_helps_it() -> None:
    hot = next(
        rig
        for seed in range(20)
        if (rig := Rig(some_truth(Random(seed)))).run_down(2, Room(35.0))[1] == "hot"
    )
    assert hot.warned_s is not None
    assert hot.warned_s < hot.elapsed_s
    still_min, _ = hot.run_down(2, Room(35.0))
    windy_min, _ = hot.run_down(2, Room(35.0, air_mps=4.0))
    cased_min, _ = hot.run_down(2, Room(35.0, cased=True))
    assert cased_min <= still_min < windy_min


def test_a_simulated_cool_camera_spends_all_that_was_in_it() -> None:
    """With a draw that does not grow, the time is the energy over the draw."""
    truth = some_truth(Random(1))
    rig = Rig(truth)
    minutes, why = rig.run_down(0, Room(-5.0, air_mps=9.0))
    cold_w = truth.draw_w[0] * (1.0 - 40.0 * truth.draw_per_k)
    assert why == "empty"
    assert truth.wh / truth.draw_w[0] * 60.0 <= minutes <= truth.wh / cold_w * 60.0


def test_a_run_outweighs_a_draw_that_nobody_knows_and_boxes_err_together() -> None:
    """Not known within 50 %: a run of 60 min is all that counts. Two boxes of 114 and 90 min: a
    run of the first in 90 takes the second down with it, by half or more of the way."""
    cam = CAM.model_copy(
        update={"modes": (CAM.modes[0], CAM.modes[1].model_copy(update={"draw": DrawNotKnown()}))}
    )
    told = learn(cam, A, [run("r", 60.0, "empty", mode="fast")])
    assert told.of("lasts_min", "fast").value == pytest.approx(60.0, rel=0.04)
    boxes = tuple(
        one.model_copy(update={"draw": DrawByRunTime(minutes=minutes), "box_minutes": minutes})
        for one, minutes in zip(CAM.modes, (114.0, 90.0), strict=True)
    )
    boxed = learn(CAM.model_copy(update={"modes": boxes}), A, [run("r", 90.0, "empty")])
    assert boxed.of("lasts_min", "m").value == pytest.approx(90.6, rel=0.03)
    whole = 90.0 * 90.0 / 114.0
    assert boxed.of("lasts_min", "fast").value < 90.0 - 0.5 * (90.0 - whole)
