"""One camera on legs: boots, clip limits, cards, heat and what is told of them.

Source: model/time#ties to model/patterns#asked.
"""

from __future__ import annotations

import pytest

from tests.build import (
    FAMILY,
    asks,
    battery,
    camera,
    card,
    gaps,
    leg,
    mode,
    only,
    rehearsed,
    set_up,
    stop,
    takes,
)
from tumbrel.core.document import PlanDocument
from tumbrel.core.rehearsal.engine.played import play
from tumbrel.core.rehearsal.trip.prepare import prepare

BIG = {**FAMILY, "mah": 100_000}


def test_a_start_after_a_stop_is_booted_for_by_the_free_hand() -> None:
    """The camera boots in the last 4 s of the stop, so the leg has no gap."""
    booting = camera(boot_s=4)
    told = rehearsed([stop("camp", 60), leg("way", 600)], [asks("cam", "way")], cameras=[booting])
    result = only(told)
    assert result.gaps == ()
    assert told.ledgers.energy_used_wh == pytest.approx(4.0 * 604 / 3600)


def test_a_start_without_a_hand_loses_the_boot() -> None:
    """The second leg follows a leg: no hand, so its first 4 s are a gap, and a note."""
    booting = camera(boot_s=4)
    items = [leg("one", 600), leg("two", 600)]
    result = only(rehearsed(items, [asks("cam", "two")], cameras=[booting]))
    assert gaps(result) == [("boot", 600_000, 604_000)]
    assert result.gaps[0].note
    assert result.minutes.missing == 0


def test_a_camera_that_starts_itself_boots_in_time() -> None:
    booting = camera(boot_s=4, starts_itself=True)
    items = [leg("one", 600), leg("two", 600)]
    assert only(rehearsed(items, [asks("cam", "two")], cameras=[booting])).gaps == ()


def test_a_trip_that_begins_with_a_leg_loses_the_boot() -> None:
    result = only(rehearsed([leg("way", 600)], [asks("cam", "way")], cameras=[camera(boot_s=4)]))
    assert gaps(result) == [("boot", 0, 4_000)]


def test_legs_that_follow_each_other_are_one_recording() -> None:
    items = [stop("camp", 60), leg("one", 600), leg("two", 600)]
    plan = [asks("cam", "one"), asks("cam", "two")]
    told = rehearsed(items, plan, cameras=[camera(boot_s=4)])
    assert only(told).gaps == ()
    assert told.files == 1


def test_a_change_of_mode_goes_on_in_a_new_clip() -> None:
    both = camera(modes=[mode(), mode("n", watts=2.0)])
    plan = [asks("cam", "one"), asks("cam", "two", mode="n")]
    told = rehearsed([leg("one", 600), leg("two", 600)], plan, cameras=[both])
    assert only(told).gaps == ()
    assert told.files == 2
    assert told.ledgers.energy_used_wh == pytest.approx((4.0 + 2.0) / 6)


def test_a_clip_limit_costs_a_boot_when_the_camera_goes_on_by_itself() -> None:
    limited = camera(boot_s=5, modes=[mode(clip_limit_s=200)])
    result = only(
        rehearsed([stop("s", 60), leg("way", 600)], [asks("cam", "way")], cameras=[limited])
    )
    assert gaps(result) == [("clip_limit", 260_000, 265_000), ("clip_limit", 465_000, 470_000)]
    assert all(gap.note for gap in result.gaps)
    assert result.files == 3


def test_a_clip_limit_without_going_on_waits_for_a_hand() -> None:
    limited = camera(continues_after_clip=False, modes=[mode(clip_limit_s=200)])
    items = [leg("way", 600), stop("s", 60)]
    result = only(rehearsed(items, [asks("cam", "way")], cameras=[limited]))
    assert gaps(result) == [("clip_limit", 200_000, 600_000)]
    assert not result.gaps[0].note


def test_a_clip_limit_on_a_leg_with_free_hands_is_restarted_by_one() -> None:
    """The hand takes 5 s (assumed) and the camera boots 4 s."""
    limited = camera(boot_s=4, continues_after_clip=False, modes=[mode(clip_limit_s=300)])
    items = [stop("s", 60), leg("way", 500, hands="free")]
    result = only(rehearsed(items, [asks("cam", "way")], cameras=[limited]))
    assert gaps(result) == [("clip_limit", 360_000, 365_000), ("boot", 365_000, 369_000)]


def test_a_hot_camera_that_starts_itself_restarts_at_its_level() -> None:
    """Rise 60 K at 25 degC: hot at 900 ln(60/15) s, cool at 55 after 900 ln(45/30) s, again hot."""
    hot = camera(starts_itself=True, modes=[mode(watts=0.5, rise_k=60.0)])
    result = only(rehearsed([leg("way", 3000)], [asks("cam", "way")], cameras=[hot]))
    first, second = gaps(result)
    assert first == (
        "hot",
        pytest.approx(1_247_665, abs=2),
        pytest.approx(1_612_583, abs=4),
    )
    assert second[1] == pytest.approx(first[2] + 623_832, abs=4)  # from 55: 900 ln(30/15)


def test_heat_is_carried_from_leg_to_leg_and_lost_at_a_stop() -> None:
    warm = camera(modes=[mode(watts=0.5, rise_k=60.0)])
    joined = [leg("one", 700), leg("two", 700)]
    apart = [leg("one", 700), stop("rest", 7200), leg("two", 700)]
    plan = [asks("cam", "one"), asks("cam", "two")]
    assert gaps(only(rehearsed(joined, plan, cameras=[warm])))[0][0] == "hot"
    assert only(rehearsed(apart, plan, cameras=[warm])).gaps == ()


def test_airflow_at_the_mount_keeps_it_cool() -> None:
    """At 9 m/s g = 1/(1 + 0.8 x 3) = 0.294: the level is 25 + 17.6 degC."""
    warm = camera(modes=[mode(watts=0.5, rise_k=60.0)])
    flown = only(rehearsed([leg("fly", 9000, air_mps=9.0)], [asks("cam", "fly")], cameras=[warm]))
    assert flown.gaps == ()
    assert flown.hottest_c == pytest.approx(25 + 60 / 3.4, abs=0.1)


def test_a_mount_in_the_lee_gets_its_share_of_the_air() -> None:
    sheltered = camera(modes=[mode(watts=0.5, rise_k=60.0)], set_ups=[set_up(air_share=0.0)])
    result = only(
        rehearsed([leg("fly", 2000, air_mps=9.0)], [asks("cam", "fly")], cameras=[sheltered])
    )
    assert gaps(result)[0][0] == "hot"


def test_fixed_memory_fills_and_stays_full() -> None:
    """1 GB x 0.985 at (16 + 0.192)/8 x 1.01 MB/s = 2.04424 MB/s: 481.8 s."""
    small = camera(memory={"kind": "fixed", "gb": 1}, modes=[mode(mbps=16.0)])
    told = rehearsed([leg("way", 900), stop("s", 900)], [asks("cam", "way")], cameras=[small])
    ((cause, start_ms, _),) = gaps(only(told))
    assert cause == "card_full"
    assert start_ms == -(-985_000_000 * 1000 // 2_044_240)
    assert only(told).gaps[0].text == "memory full"


def test_a_chapter_starts_at_its_size() -> None:
    """600 s at 7.59924 MB/s is 4.56 GB: two files of at most 4 GB."""
    chaptered = camera(chapter_gb=4.0)
    told = rehearsed([leg("way", 600)], [asks("cam", "way")], cameras=[chaptered])
    assert told.ledgers.bytes_written == 7_599_240 * 600
    assert only(told).files == 2


def test_a_camera_without_a_card_films_nothing() -> None:
    result = only(rehearsed([leg("way", 60)], [asks("cam", "way")], cards=[]))
    assert gaps(result) == [("no_card", 0, 60_000)]


def test_a_camera_without_a_battery_films_nothing() -> None:
    result = only(rehearsed([leg("way", 60)], [asks("cam", "way")], batteries=[]))
    assert gaps(result) == [("no_battery", 0, 60_000)]


def test_a_slow_card_is_a_gap_of_the_whole_leg() -> None:
    slow = card(speed_class="V6")
    result = only(rehearsed([leg("way", 60)], [asks("cam", "way")], cards=[slow]))
    assert gaps(result) == [("card_unfit", 0, 60_000)]


def test_a_missing_mode_is_a_gap_and_not_an_error() -> None:
    result = only(rehearsed([leg("way", 60)], [asks("cam", "way", mode="gone")]))
    assert gaps(result) == [("plan", 0, 60_000)]


def test_the_first_cause_names_the_gap_and_a_new_gap_opens_with_the_next() -> None:
    """Hot first; while it cools nothing else holds; then it waits for a hand to the leg's end."""
    hot = camera(modes=[mode(watts=1.0, rise_k=60.0)])
    causes = [
        cause
        for cause, _, _ in gaps(
            only(rehearsed([leg("w", 3000)], [asks("cam", "w")], cameras=[hot]))
        )
    ]
    assert causes == ["hot", "no_hand"]


def test_takes_between_which_the_camera_is_off_boot_each_time() -> None:
    booting = camera(boot_s=3)
    plan = [asks("cam", "way", pattern=takes(60, count=4))]
    result = only(rehearsed([leg("way", 3600)], plan, cameras=[booting]))
    assert [gap.end_ms - gap.start_ms for gap in result.gaps] == [3000] * 4
    assert result.minutes.filmed + result.minutes.starting == 4


def test_standby_between_takes_drinks_and_starts_at_once() -> None:
    """Four takes of 60 s at 4 W; between the first and the last 3 x 840 s on 0.6 W standby."""
    waiting = camera(boot_s=3, standby_w=0.6)
    plan = [asks("cam", "way", pattern=takes(60, count=4))]
    told = rehearsed(
        [leg("way", 3600)],
        plan,
        cameras=[waiting],
        plan={"cameras": [{"camera": "cam", "between": "standby"}]},
    )
    assert gaps(only(told)) == [("boot", 420_000, 423_000)]
    filmed_wh = 4.0 * 4 * 60 / 3600
    assert told.ledgers.energy_used_wh == pytest.approx(filmed_wh + 0.6 * 3 * 840 / 3600)


def test_going_on_between_takes_writes_and_drinks_as_rolling() -> None:
    plan = [asks("cam", "way", pattern=takes(60, count=2))]
    told = rehearsed(
        [leg("way", 3600)], plan, plan={"cameras": [{"camera": "cam", "between": "on"}]}
    )
    recorded_s = 1800 + 60  # from the first take's start to the last one's end
    assert told.footage_ms == recorded_s * 1000
    assert told.ledgers.energy_used_wh == pytest.approx(4.0 * recorded_s / 3600)
    assert only(told).filmed_ms == 120_000


def test_a_radio_left_on_drains_ten_milliwatts() -> None:
    told = rehearsed(
        [stop("night", 36_000)],
        [],
        plan={"cameras": [{"camera": "cam", "battery": "a1", "radio_left_on": True}]},
    )
    assert told.ledgers.energy_used_wh == pytest.approx(0.010 * 10)


def test_features_that_the_mode_forbids_are_rehearsed_without() -> None:
    plan = [asks("cam", "way", features=["screen"])]
    allowed = camera(modes=[mode(features=["screen"])])
    with_screen = rehearsed([leg("way", 3600)], plan, cameras=[allowed])
    without = rehearsed([leg("way", 3600)], plan)
    more_wh = with_screen.ledgers.energy_used_wh - without.ledgers.energy_used_wh
    assert more_wh == pytest.approx(0.55)


def test_a_wait_on_the_clock_lengthens_the_stop_before() -> None:
    items = [
        stop("camp", 600),
        leg("way", 600, not_before="2027-06-12T07:00:00"),
    ]
    told = rehearsed(items, [asks("cam", "way")])
    assert [(i.id, i.start_ms, i.end_ms) for i in told.items] == [
        ("camp", 0, 3_600_000),
        ("way", 3_600_000, 4_200_000),
    ]


def test_a_wait_after_a_leg_stands_by_itself() -> None:
    items = [leg("one", 600), leg("two", 600, not_before="2027-06-12T06:20:00")]
    told = rehearsed(items, [asks("cam", "two")])
    assert [(i.id, i.kind, i.start_ms) for i in told.items] == [
        ("one", "leg", 0),
        ("wait", "wait", 600_000),
        ("two", "leg", 1_200_000),
    ]


def test_a_clock_change_inside_the_trip_counts_true_minutes() -> None:
    """At 03:00 the clock goes to 02:00: from 01:00 to 04:00 local pass four hours."""
    items = [stop("night", 600), leg("way", 600, not_before="2027-10-31T04:00:00")]
    trip = {"start": "2027-10-31T01:00:00", "time_zone": "CET"}
    told = rehearsed(items, [asks("cam", "way")], trip=trip)
    assert told.items[0].end_ms == 4 * 3_600_000


def test_air_temperature_runs_along_the_leg() -> None:
    """From 5 to 25 degC in 2 h: the body lags tau x rate = 900 x 20/7200 = 2.5 K behind."""
    told = rehearsed([leg("way", 7200, temp_start_c=5.0, temp_end_c=25.0)], [asks("cam", "way")])
    course = only(told).course
    assert course.body_c[0] == pytest.approx(5.8, abs=0.1)
    assert course.body_c[-1] == pytest.approx(25 - 2.5, abs=0.2)


def test_sun_on_the_kit_warms_it() -> None:
    place = {"place": {"latitude": 0.0, "longitude": 0.0}}
    noon = {"start": "2027-03-20T11:00:00", **place}
    items = [leg("sunny", 7200, sun_share=1.0)]
    warm = only(rehearsed(items, [asks("cam", "sunny")], trip=noon))
    # level 1037 W/m2: beam 842 + half of 195 diffuse + 0.2 x 1037 = 1147, x 0.01512 K per W/m2
    assert warm.hottest_c == pytest.approx(25 + 17.3, abs=0.5)
    bright = only(
        rehearsed([leg("sunny", 7200, sun_share=1.0, snow=True)], [asks("cam", "sunny")], trip=noon)
    )
    assert bright.hottest_c - warm.hottest_c == pytest.approx(0.6 * 1037 * 0.01512, abs=0.3)
    dull = only(
        rehearsed([leg("sunny", 7200, sun_share=1.0, sky=0.3)], [asks("cam", "sunny")], trip=noon)
    )
    assert dull.hottest_c < 25 + 0.5 * 17.3


def test_the_course_joins_to_the_ledgers(demo: PlanDocument) -> None:
    played = play(prepare(demo))
    for run in played.cameras:
        assert run.trace.t_ms == sorted(run.trace.t_ms)
        assert run.trace.t_ms[-1] == played.timeline.duration_ms
        assert all(0.0 <= charge <= 1.0 for charge in run.trace.charge)


def test_a_big_battery_and_a_big_card_film_a_month() -> None:
    items = [leg(f"d{n}", 86_400) for n in range(30)]
    slow = camera(modes=[mode(watts=0.1, mbps=0.5)])
    told = rehearsed(
        items,
        [asks("cam", i["id"]) for i in items],
        cameras=[slow],
        family=BIG,
        cards=[card(gb=1024)],
        batteries=[battery()],
    )
    assert told.verdict.covered
    assert only(told).filmed_ms == 30 * 86_400_000
