"""Green is never said in vain, and power, cold, water and copies are what they are, by hand."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.build import (
    FAMILY,
    SLAB,
    asks,
    battery,
    camera,
    card,
    codes,
    document,
    leg,
    mode,
    must,
    only,
    played,
    raw,
    rehearsed,
    set_up,
    stop,
    takes,
    told_of,
)
from tumbrel.core.document import PlanDocument
from tumbrel.core.energy import mode_w, with_draws
from tumbrel.core.parameters import DEFAULTS
from tumbrel.core.rehearsal.hands.copy_jobs import shares_of
from tumbrel.core.rehearsal.result.ledgers import LedgerBreach
from tumbrel.core.rehearsal.result.result import Rehearsal
from tumbrel.core.report import not_rehearsed, rehearse, tell
from tumbrel.core.shelf import ShelfQuestion, mode_runtimes
from tumbrel.core.variants.ledger import ledger_of

HOUR = 3600
MIN_MS = 60_000
Doc = dict[str, Any]


# -- windows, words, power ------------------------------------------------------------------------


def between(opens: str, closes: str) -> Doc:
    """Only within hours of the clock."""
    edges = {"opens": {"kind": "clock", "at": opens}, "closes": {"kind": "clock", "at": closes}}
    return {"kind": "windows", "windows": [edges]}


def test_a_must_whose_window_never_opens_is_broken() -> None:
    """From 06:00 to 07:00, within 18:00 to 19:00: no minute of it can be filmed."""
    told = told_of(raw([leg("way", HOUR)], [must(pattern=between("18:00", "19:00"))]))
    assert (told.verdict.covered, told.verdict.headline) == (False, "One must is broken.")
    assert "its window never opens" in told.verdict.detail


def test_a_window_given_to_all_legs_of_a_day_counts_by_the_day() -> None:
    """07:00 to 08:00 lies on the second of three: the others ask nothing, and nothing is red.
    The day after it lies on none."""
    pattern = between("07:00", "08:00")
    items = [leg(name, HOUR) for name in ("one", "two", "three")]
    asked = [must(one["id"], pattern=pattern) for one in items]
    told = told_of(raw(items, asked))
    assert told.verdict.covered
    assert only(told).filmed_ms == HOUR * 1000
    late = leg("late", HOUR, not_before="2027-06-13T12:00:00")
    told = told_of(raw([*items, late], [*asked, must("late", pattern=pattern)]))
    assert [one.item for one in told.findings if one.severity == "stop"] == ["late"]


ARMED = {"kind": "armed", "seconds": 30, "count": 2}
VAN = {"kind": "vehicle", "id": "van", "name": "Van"}


@pytest.mark.parametrize(
    ("trigger", "hears", "sources", "runs", "clips"),
    [
        ("voice", [], [], False, 0),
        ("voice", ["remote"], [], False, 0),
        ("voice", ["voice"], [], False, 2),
        ("power", [], [], False, 0),
        ("power", [], [VAN], False, 0),
        ("power", [], [VAN], True, 2),
        ("motion", [], [], False, 2),
    ],
)
def test_what_never_comes_starts_nothing_and_stops(
    trigger: str, hears: list[str], sources: list[Doc], runs: bool, clips: int
) -> None:
    """A word to a camera that answers to none; power of a van that does not run there."""
    one = camera(answers_to=hears, starts_itself=True)
    items = [leg("way", HOUR, vehicle_runs=runs)]
    told = told_of(raw(items, [must(pattern=ARMED | {"trigger": trigger})], [one]), sources=sources)
    assert only(told).kept_ms == clips * 30_000
    assert ("trigger_never_comes" in codes(told)) == (clips == 0)
    assert told.verdict.covered == (clips == 2)


def test_a_linked_camera_hears_for_both() -> None:
    cameras = [camera("cam", starts_itself=True), camera("two", answers_to=["voice"])]
    asked = [must(pattern=ARMED | {"trigger": "voice"})]
    plan = {"links": [{"cameras": ["cam", "two"]}]}
    told = told_of(raw([leg("way", HOUR)], asked, cameras, plan=plan))
    assert told.verdict.covered


# -- fed only as it is built ----------------------------------------------------------------------


def rigged(items: list[Doc], asked: list[Doc], plan: Doc | None = None, **more: Any) -> Doc:
    """A camera bare, fed, and with its battery out."""
    ways = [set_up(), set_up("fed", power="outside"), set_up("out", power="outside_only")]
    one = camera(set_ups=ways, charges_in_w=10.0, **more)
    chosen = {"cameras": [{"camera": "cam", "source": "slab"}]} if plan is None else plan
    return raw(items, asked, [one], plan=chosen)


@pytest.mark.parametrize("every_s", [8, 20, 90])
def test_frames_without_a_battery_draw_what_they_are_given(every_s: int) -> None:
    """Two hours at a stop: 4 W for 4 s of boot and 1 s of frame, whatever comes between.

    On a bank that stays on; it boots at 4 W though it draws 4 W x 5 s / every on the mean.
    """
    pattern = {"kind": "interval", "every_s": every_s, "frame_mb": 5}
    made = rigged([stop("s", 2 * HOUR)], [must("s", set_up="out", pattern=pattern)], boot_s=4)
    told = told_of(made, sources=[SLAB | {"stays_on": True}])
    frames = 2 * HOUR // every_s
    assert told.lapses[0].frames == pytest.approx(frames, abs=1)
    on_s = 5.0 if every_s > 6 else every_s
    drawn_wh = 4.0 * frames * on_s / HOUR
    assert told.ledgers.energy_used_wh == pytest.approx(drawn_wh, rel=0.02)


def test_a_camera_that_no_hand_rebuilt_films_on_the_battery_that_is_in_it() -> None:
    """Bare on the first leg, with the battery out on the next, and no hand between: no power is
    made of nothing. 70 min at 4 W are 4.67 W h of its cell."""
    items = [leg("one", 3000), leg("two", 1200)]
    plan: Doc = {"cameras": [{"camera": "cam"}]}
    told = told_of(rigged(items, [must("one"), must("two", set_up="out")], plan))
    assert told.ledgers.energy_used_wh == pytest.approx(4.0 * 70 / 60, rel=1e-3)
    assert not told.verdict.covered
    assert {"no_time_to_move", "no_outside_source"} <= set(codes(told))


def test_a_bank_feeds_it_from_when_it_is_rebuilt() -> None:
    """A stop of 10 min between: moved in its last minute, then an hour from the bank at 4 W."""
    items = [leg("one", 600), stop("halt", 600), leg("two", HOUR)]
    told = told_of(rigged(items, [must("one"), must("two", set_up="fed")]), sources=[SLAB])
    assert told.verdict.covered
    assert told.sources[0].given_wh >= 4.0 / 0.95 * 0.99
    unmoved = told_of(rigged([items[0], items[2]], [must("one"), must("two", set_up="fed")]),
                      sources=[SLAB])  # fmt: skip
    assert unmoved.sources[0].given_wh == 0.0


def test_what_is_rebuilt_in_no_time_is_fed_as_the_leg_begins() -> None:
    """Where its mount says 0 s nobody has a task, whatever the camera's own seconds are."""
    at_once = {"mounts": [{"mount": "chest", "move_s": 0}], "move_s": 40}
    asked = [must("one", mount="chest"), must("two", mount="chest", set_up="fed")]
    told = told_of(rigged([leg("one", 600), leg("two", HOUR)], asked, **at_once), sources=[SLAB])
    assert told.sources[0].given_wh >= 4.0 / 0.95 * 0.99


def test_a_port_that_its_mount_blocks_is_fed_nothing() -> None:
    blocks = {"mounts": [{"mount": "chest", "covers": ["port"]}]}
    asked = [must(set_up="fed", mount="chest")]
    told = told_of(rigged([leg("way", 2 * HOUR)], asked, **blocks), sources=[SLAB])
    assert told.sources[0].given_wh == 0.0
    assert only(told).filmed_ms < 86 * MIN_MS
    out = told_of(rigged([leg("way", HOUR)], [must(set_up="out", mount="chest")], **blocks),
                  sources=[SLAB])  # fmt: skip
    assert only(out).filmed_ms == 0


def test_a_camera_without_a_cell_stops_when_what_feeds_it_is_empty() -> None:
    """A module of 2 W h gives 4 W for 28 min, and there is no battery: nothing runs on after."""
    module = {"kind": "module", "id": "mod", "name": "Mod", "fits": "cam", "mah": 540}
    plan = {"cameras": [{"camera": "cam", "source": "mod"}]}
    made = rigged([leg("way", 2 * HOUR)], [must(set_up="fed")], plan)
    made["kit"]["batteries"] = []
    told = told_of(made, sources=[module])
    assert 20 * MIN_MS < only(told).filmed_ms < 40 * MIN_MS
    assert only(told).gaps[-1].cause == "no_battery"
    assert told.ledgers.energy_used_wh == pytest.approx(4.0 * only(told).filmed_ms / HOUR / 1000)


def test_what_is_plugged_in_below_the_colds_line_fills_and_takes_no_end_of_events() -> None:
    """At -15 degC the cold holds more than its 1 %; off and on its cable it does not give out."""
    mic = {"id": "mic", "name": "Mic", "wh": 1.0, "use_w": 0.5, "charge": 0.01}
    air = {"temp_start_c": 12.0, "temp_end_c": 12.0}
    plan = {"plugs": [{"unit": "mic", "item": "camp"}]}
    made = raw([stop("camp", HOUR, **air), leg("way", 60, **air)], [must()], plan=plan)
    told = told_of(made, sources=[SLAB], gear=[mic])
    bank = told.sources[0]
    assert bank.given_wh > 0.9


# -- cold, water, ground --------------------------------------------------------------------------


def test_what_is_left_is_told_by_the_line_that_held_then() -> None:
    """A hard mode dies of the cold on its own line; the light one after it has another."""
    hard = [mode("hard", watts=9.0), mode("light", watts=1.0)]
    cold = {"temp_start_c": -12.0, "temp_end_c": -12.0}
    items = [leg("one", HOUR, **cold), leg("two", 600, **cold)]
    made = raw(items, [must("one", mode="hard"), must("two", mode="light")],
               [camera(modes=hard)], family=FAMILY | {"cold_k": 0.5})  # fmt: skip
    told = told_of(made)
    assert any(gap.cause == "cold" for gap in only(told).gaps)
    assert only(told).margins.charge == pytest.approx(0.0, abs=1e-3)
    assert told.least[0].left == pytest.approx(0.0, abs=1e-3)


def test_water_takes_heat_off_as_moving_air_at_its_best() -> None:
    """Rise 40 K in still air; in water of 18 degC `least_g` of it: 18 + 0.25 x 40 = 28 degC.

    Neither sun nor height counts there.
    """
    one = camera(modes=[mode(rise_k=40.0)], set_ups=[set_up(water="under")])
    air = {"temp_start_c": 18.0, "temp_end_c": 18.0, "sun_share": 1.0}
    high = {"height_start_m": 3000.0, "height_end_m": 3000.0}
    items = [leg("way", 5000, wet="under", **air, **high)]
    place = {"place": {"latitude": 40.0, "longitude": 0.0}}
    told = told_of(raw(items, [must()], [one], trip=place))
    level_c = 18.0 + DEFAULTS.least_g.value * 40.0
    assert only(told).hottest_c == pytest.approx(level_c, abs=0.3)


def test_the_grounds_light_is_that_of_the_parameters_handed_in() -> None:
    air = {"temp_start_c": 0.0, "temp_end_c": 0.0, "sun_share": 1.0, "snow": True}
    place = {"place": {"latitude": 45.0, "longitude": 0.0}}
    made = document([leg("way", 2 * HOUR, **air)], [asks("cam", "way")], trip=place)
    bright, dark = (
        only(rehearse(made, defaults)).hottest_c
        for defaults in (DEFAULTS, DEFAULTS.with_value("albedo_snow", 0.1))
    )
    assert bright > dark + 1.0


def test_grams_and_money_count_what_has_a_battery() -> None:
    """70 g of camera, 30 of battery, 0.5 of card, 45 of microphone, which cost 60."""
    made = raw([leg("way", 60)], [asks("cam", "way")], family=FAMILY | {"mass_g": 30.0})
    made["kit"]["gear"] = [{"id": "mic", "name": "Mic", "wh": 4.0, "use_w": 1.0, "mass_g": 45.0,
                            "cost": 60.0}]  # fmt: skip
    whole = PlanDocument.model_validate(made)
    ledger = ledger_of(whole, rehearse(whole))
    assert (ledger.grams, ledger.money) == (pytest.approx(145.5), 60.0)


# -- copies ---------------------------------------------------------------------------------------


def test_a_rate_is_shared_as_each_can_take_it() -> None:
    assert shares_of([10.0, 50.0, 50.0], 60.0) == [10.0, 25.0, 25.0]
    assert shares_of([10.0, 20.0], 60.0) == [10.0, 20.0]
    assert shares_of([40.0], 30.0) == [30.0]


def copied(drive: Doc, seconds: int, cameras: int = 2, **more: Any) -> Rehearsal:
    """Some cameras roll ten minutes (4.56 GB each), and are copied to one drive at a stop."""
    names = ["cam", "two", "three"][:cameras]
    made = raw(
        [leg("way", 600), stop("s", seconds)],
        [asks(name, "way", **more) for name in names],
        [camera(name) for name in names],
        [battery(f"a{n}") for n in range(cameras)],
        [card(f"k{n}") for n in range(cameras)],
        plan={"copies": [{"item": "s", "camera": n, "drive": "d"} for n in names]},
    )
    return told_of(made, drives=[{"id": "d", "name": "D", **drive}])  # fmt: skip


def test_copies_at_once_share_what_the_drive_writes() -> None:
    """Two of 4,559,544,000 bytes to one that writes 20 MB/s: 456 s both, not 228; the second begins
    15 s later. By itself one would go at 20, its cable at 30."""
    told = copied({"free_gb": 500, "write_mb_s": 20.0}, HOUR)
    sizes = [one.bytes for one in told.copies]
    assert sizes == [7_599_240 * 600] * 2
    took_s = (max(one.end_ms for one in told.copies) - 615_000) / 1000
    assert took_s == pytest.approx(2 * sizes[0] / 20e6, abs=1.0)


def test_copies_at_once_do_not_promise_the_same_room_twice() -> None:
    """6 GB free for two of 4.56: the second finds 1.44 and lacks 3.12."""
    told = copied({"free_gb": 6.0}, HOUR)
    assert {one.number: one.clips for one in told.copies} == {0: 1, 1: 0}
    (text,) = [one.text for one in told.findings if one.code == "copy_not_finished"]
    assert text == "1 clip does not reach D: 3.1 GB of room are missing on it."


def test_a_smaller_clip_that_fits_is_copied_where_a_larger_one_does_not() -> None:
    """4.56 GB and a minute of 456 MB, with 1 GB free: the minute goes over."""
    made = raw([leg("way", 600), leg("on", 600), stop("s", HOUR)],
               [asks("cam", "way"), asks("cam", "on", pattern=takes(60, count=1))],
               plan={"copies": [{"item": "s", "camera": "cam", "drive": "d"}]})  # fmt: skip
    told = told_of(made, drives=[{"id": "d", "name": "D", "free_gb": 1.0}])
    assert [(one.clips, one.left_clips) for one in told.copies] == [(1, 1)]
    assert told.copies[0].bytes == 7_599_240 * 60


# -- cords and rolls ------------------------------------------------------------------------------


@settings(max_examples=80, deadline=None)
@given(
    watts=st.floats(0.8, 12.0),
    rise_k=st.none() | st.floats(0.0, 90.0),
    ambient_c=st.floats(-25.0, 45.0),
    air_mps=st.sampled_from([0.0, 1.5, 9.0]),
    cold_k=st.sampled_from([0.0, 0.3, 0.5]),
    gb=st.sampled_from([8, 64, 512]),
    clip_limit_s=st.none() | st.integers(120, 3600),
    case_factor=st.sampled_from([1.0, 1.5]),
    mass_g=st.sampled_from([45.0, 70.0, 160.0]),
)
def test_a_cord_is_a_roll_in_the_same_air(
    watts: float, rise_k: float | None, ambient_c: float, air_mps: float, cold_k: float, gb: int,
    clip_limit_s: int | None, case_factor: float, mass_g: float
) -> None:  # fmt: skip
    """What the shelf foretells is when the roll first gives out, and why, to the millisecond."""
    one = camera(
        mass_g=mass_g,
        continues_after_clip=False,
        set_ups=[set_up(case_factor=case_factor)],
        modes=[mode(watts=watts, rise_k=rise_k, clip_limit_s=clip_limit_s)],
    )
    air = {"temp_start_c": ambient_c, "temp_end_c": ambient_c, "air_mps": air_mps}
    made = document(
        [leg("way", 30 * HOUR, hands="never", **air)], [asks("cam", "way")], [one],
        cards=[card(gb=gb)], family=FAMILY | {"cold_k": cold_k},
    )  # fmt: skip
    question = ShelfQuestion(kit=made.kit, ambient_c=ambient_c, air_mps=air_mps)
    (cord,) = mode_runtimes(question).cords
    told = only(rehearse(made))
    first = min(told.gaps, key=lambda gap: gap.start_ms)
    assert cord.minutes == pytest.approx(first.start_ms / MIN_MS, abs=1e-9)
    assert cord.end == first.cause


# -- what nobody knows ----------------------------------------------------------------------------


def drawn(*modes: Doc) -> list[float]:
    """What the modes of a camera are taken to draw [W]."""
    made = document([leg("way", 60)], [asks("cam", "way")], [camera(modes=list(modes))])
    family, cam = made.kit.families[0], made.kit.cameras[0]
    return [mode_w(one, family) for one in with_draws(cam, family, DEFAULTS).modes]


UNKNOWN = {"draw": {"kind": "not_known"}}


def test_a_draw_that_nobody_knows_is_that_of_the_mode_nearest_to_it() -> None:
    """Of 2 W at 30 a second and 5 W at 60: the one nearer in pixels x bitrate, by the root of the
    rates; else 5.7 W h over what the box claims; else 3.5 W at 30 a second."""
    small = mode("a", watts=2.0, mbps=20.0, width_px=1920, height_px=1080)
    large = mode("b", watts=5.0, mbps=100.0, fps=60)
    near_small = mode("c", mbps=25.0, width_px=1920, height_px=1080, fps=120, **UNKNOWN)
    near_large = mode("d", mbps=90.0, fps=30, **UNKNOWN)
    assert drawn(small, large, near_small, near_large) == pytest.approx(
        [2.0, 5.0, 2.0 * 4**0.5, 5.0 / 2**0.5]
    )
    assert drawn(mode("m", box_minutes=90, **UNKNOWN)) == pytest.approx([5.7 / 1.5])
    assert drawn(mode("m", fps=120, **UNKNOWN)) == pytest.approx([7.0])


def test_a_trip_that_rests_on_a_draw_that_nobody_knows_says_so() -> None:
    one = camera(modes=[mode(), mode("n", **UNKNOWN)])
    told = rehearsed([leg("way", 600)], [must(mode="n")], [one])
    (found,) = [one for one in told.findings if one.code == "draw_assumed"]
    assert found.text.startswith("What Cam draws in N is assumed, 4.0 W by M")
    shelf = mode_runtimes(ShelfQuestion(kit=document([leg("way", 60)], [], [one]).kit))
    known, guessed = shelf.cords
    assert (known.draw_known, guessed.draw_known) == (True, False)
    assert guessed.minutes == known.minutes
    assert guessed.low_minutes is not None
    assert known.low_minutes is not None
    assert guessed.low_minutes < 0.8 * known.low_minutes


# -- no answer is never the answer ----------------------------------------------------------------


def test_a_ledger_that_does_not_balance_is_a_stop_of_its_camera() -> None:
    trip = played(document([leg("way", HOUR)], [must()]))
    trip.cameras[0].energy.drawn_wh += 1.0
    with pytest.raises(LedgerBreach, match="energy: cam drew"):
        tell(trip)
    told = tell(trip, strict=False)
    (found,) = [one for one in told.findings if one.code == "does_not_balance"]
    assert (found.severity, found.camera, found.path) == ("stop", "cam", "kit.cameras[0]")
    assert "Cam" in found.text
    assert not told.verdict.covered
    assert told.verdict.trusted_ms == 0
    assert only(told).filmed_ms == HOUR * 1000  # what can be told is


def test_what_is_missing_of_the_whole_trip_makes_none_of_it_trusted() -> None:
    trip = played(document([leg("way", HOUR)], [must()]))
    told = tell(replace(trip, end_wh=trip.end_wh + 1.0), strict=False)
    (found,) = [one for one in told.findings if one.code == "does_not_balance"]
    assert (found.camera, found.path) == (None, "plan")
    assert (told.verdict.trusted_ms, told.verdict.broken_musts) == (0, 1)


def test_a_trip_that_could_not_be_played_is_told_as_such() -> None:
    told = not_rehearsed(document([leg("way", HOUR)], [must()]), "KeyError")
    assert set(codes(told)) == {"engine_failed"}
    assert told.verdict.headline == "Not rehearsed: Tumbrel failed at this plan."
    assert not told.verdict.covered
    assert math.isclose(told.duration_ms, HOUR * 1000)
