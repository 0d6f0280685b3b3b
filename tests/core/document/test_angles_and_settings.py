"""What serves where, and what a picture wants: matrix, advice, light, shutter, filter, slowing."""

from __future__ import annotations

import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.build import asks, battery, camera, leg, mode, raw, set_up, stop
from tumbrel.core.document import PlanDocument
from tumbrel.core.exposure import (
    dark_below_lx,
    daylight_lx,
    filter_stops,
    gain_iso,
    half_interval_s,
    lens_ev,
    light_ev,
    nearest_filter,
)
from tumbrel.core.findings import CHECKS
from tumbrel.core.parameters import DEFAULTS
from tumbrel.core.picture import Sum, lens_of, picture_told
from tumbrel.core.rehearsal.trip.timeline import lay_out
from tumbrel.core.report import rehearse
from tumbrel.core.serving import LegServed, matrix_of, rule_of, served

Doc = dict[str, Any]
HERE = {"place": {"latitude": 44.0, "longitude": 0.0}}
NOON = {**HERE, "start": "2027-06-12T11:00:00"}
NIGHT = {**HERE, "start": "2027-06-12T23:30:00"}


def plan_of(document: Doc) -> PlanDocument:
    return PlanDocument.model_validate(document)


def way(**more: Any) -> list[Doc]:
    return [leg("way", 600, **more)]


def on(mount: str, activity: str, angle: str = "sight", own: Doc | None = None, **ask: Any) -> Doc:
    """One camera on a mount, asked on a leg of one activity."""
    carried = {"cameras": [{"camera": "cam", "mount": mount, "angle": angle}]}
    document = raw(way(activity=activity), [asks("cam", "way", **ask)], plan=carried)
    document["kit"]["serving"] = [own] if own else []
    return document


def leg_served(document: Doc) -> LegServed:
    return served(plan_of(document))[-1]


# -- what serves where -----------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("mount", "activity", "verdict"),
    [
        ("hand_held", "climb", "well"),
        ("hand_held", "walk", "well"),
        ("hand_held", "descent", "never"),
        ("chest", "descent", "well"),
        ("chest", "walk", "well"),
        ("chest", "climb", "poorly"),
        ("helmet", "walk", "poorly"),
        ("vehicle", "sled", "well"),
        ("wing", "flight", "well"),
        ("tripod", "walk", "poorly"),
    ],
)
def test_the_matrix_is_that_of_the_job(mount: str, activity: str, verdict: str) -> None:
    told = leg_served(on(mount, activity)).cameras[0]
    assert told.verdict == verdict
    assert bool(told.why) == (verdict != "well")


def test_what_the_person_knows_wins_over_what_is_usual() -> None:
    own = {"what": "hand_held", "where": "descent", "verdict": "well", "why": "on a gentle path"}
    document = on("hand_held", "descent", own=own)
    assert leg_served(document).cameras[0].verdict == "well"
    kit = plan_of(document).kit
    assert rule_of(kit, "hand_held", "descent") == ("well", "on a gentle path")
    line = next(one for one in matrix_of(kit) if (one.what, one.where) == ("hand_held", "descent"))
    assert (line.own, line.verdict) == (True, "well")


def test_a_hand_held_stick_is_unsafe_where_no_hand_is_free_whatever_is_done() -> None:
    told = leg_served(
        on("hand_held", "other")
        | {"trip": {"name": "t", "start": "2027-06-12T06:00:00", "items": way(hands="never")}}
    )
    assert (told.cameras[0].verdict, told.cameras[0].why) == ("never", ("no hand is free on it",))


def test_water_speaks_against_a_camera_unless_one_of_its_set_ups_stands_it() -> None:
    both = [set_up(), set_up("cased", water="under")]
    free = raw(way(wet="under"), [], cameras=[camera(set_ups=both)])
    asked = raw(way(wet="under"), [asks("cam", "way")], cameras=[camera(set_ups=both)])
    assert leg_served(free).cameras[0].verdict == "well"
    assert leg_served(asked).cameras[0].verdict == "never"


def test_cameras_with_a_new_angle_are_suggested_the_least_used_angle_first() -> None:
    """On the way "sight" is asked; "face" was asked for an hour before, "behind" never."""
    cameras = [camera(name) for name in ("one", "two", "three", "four")]
    angles = {"one": "sight", "two": "face", "three": "behind", "four": "sight"}
    carried = [{"camera": name, "angle": angle} for name, angle in angles.items()]
    items = [leg("before", 3600), *way()]
    asked = [asks("two", "before"), asks("one", "way")]
    cells = [battery(f"a{n}") for n in range(4)]
    document = raw(items, asked, cameras, cells, plan={"cameras": carried})
    told = leg_served(document)
    assert told.suggested == ("three", "two")
    assert told.angles == 1
    assert told.cameras[0].camera == "one"


# -- findings: where each fires, and where not -----------------------------------------------------

ASKED_WHY = {"reason": "the path is a road"}
MUST = [{"name": "launch", "count": 1, "seconds": 20, "importance": "must"}]
PRESET = {"id": "p", "slot": 1, "name": "Day", "mode": "m"}
BLOCKED = [set_up(door_blocked_s=40.0)]
HOME = {"width_px": 1920, "height_px": 1080, "fps": 60}


def two_angles(second: str) -> Doc:
    cameras = [camera("cam"), camera("two")]
    carried = {
        "cameras": [
            {"camera": "cam", "mount": "chest"},
            {"camera": "two", "angle": second, "mount": "chest"},
        ]
    }
    asked = [asks("cam", "way"), asks("two", "way")]
    cells = [battery(), battery("a2")]
    return raw(way(moments=MUST), asked, cameras, cells, plan=carried)


def with_preset(ask: Doc, **more: Any) -> Doc:
    one = camera(modes=[mode(), mode("n", fps=120)], presets=[PRESET | more])
    return raw(way(), [asks("cam", "way", **ask)], cameras=[one])


def swapping(set_ups: list[Doc]) -> Doc:
    """An hour at 4 W between stops: an early swap for a second hour."""
    items = [leg("way", 3600), stop("s", 1800), leg("on", 3600)]
    asked = [asks("cam", "way"), asks("cam", "on")]
    return raw(items, asked, [camera(set_ups=set_ups)], [battery(), battery("a2")])


CASES: list[tuple[str, Doc, Doc]] = [
    ("chosen_all_the_same", on("hand_held", "descent", **ASKED_WHY), on("hand_held", "descent")),
    ("serves_poorly", on("chest", "climb"), on("chest", "walk")),
    ("helmet_rules", on("helmet", "sled"), on("helmet", "walk")),
    ("tether_wanted", on("wing", "flight"), on("wing", "flight") | {"plan": {
        "cameras": [{"camera": "cam", "mount": "wing", "tethered": True}],
        "assignments": [asks("cam", "way")]}}),
    ("mount_blocks_door", swapping(BLOCKED), swapping([set_up()])),
    ("must_from_one_angle", two_angles("sight"), two_angles("face")),
    ("preset_missing", with_preset({"preset": "gone"}), with_preset({"preset": "p"})),
    ("preset_in_another_mode", with_preset({"preset": "p", "mode": "n"}),
     with_preset({"preset": "p"})),
    ("slowing_not_reached", with_preset({}, slowing=4.0), with_preset({}, slowing=4.0, mode="n")),
    ("more_than_editing_takes", raw(way(), [asks("cam", "way")], plan={"editing": HOME}),
     raw(way(), [asks("cam", "way")])),
]  # fmt: skip


@pytest.mark.parametrize(("code", "fires", "quiet"), CASES, ids=[case[0] for case in CASES])
def test_a_finding_fires_where_it_should_only(code: str, fires: Doc, quiet: Doc) -> None:
    found = [one for one in rehearse(plan_of(fires)).findings if one.code == code]
    assert found
    assert found[0].severity == CHECKS[code].severity
    assert "{" not in found[0].text
    assert code not in {one.code for one in rehearse(plan_of(quiet)).findings}


def test_one_reason_on_several_legs_is_said_once() -> None:
    items = [leg(name, 600, activity="climb") for name in ("up", "on", "over")]
    asked = [asks("cam", item["id"]) for item in items]
    carried = {"cameras": [{"camera": "cam", "mount": "chest"}]}
    told = rehearse(plan_of(raw(items, asked, plan=carried)))
    (found,) = [one for one in told.findings if one.code == "serves_poorly"]
    assert found.text.startswith("Cam serves poorly on up and 2 more legs: it shakes")


def test_a_choice_with_a_reason_is_a_note_and_no_warning() -> None:
    told = rehearse(plan_of(on("hand_held", "descent", **ASKED_WHY)))
    assert "mount_against_activity" not in {one.code for one in told.findings}
    (note,) = [one for one in told.findings if one.code == "chosen_all_the_same"]
    assert note.text.endswith("Your reason: the path is a road.")


def test_a_module_that_is_not_waterproof_is_named() -> None:
    module = camera(set_ups=[set_up(hot_swap=True)])
    told = rehearse(plan_of(raw(way(wet="splash"), [asks("cam", "way")], cameras=[module])))
    (found,) = [one for one in told.findings if one.code == "water_against_set_up"]
    assert "the power module of 'bare'" in found.text


def test_two_presets_cannot_share_a_slot() -> None:
    twice = camera(presets=[PRESET, PRESET | {"id": "q"}])
    with pytest.raises(ValueError, match="preset's slot '1' stands twice"):
        plan_of(raw(way(), [], cameras=[twice]))


# -- light, shutter, filter ------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("sun_deg", "lux"),
    [(90.0, 1.29e5), (60.0, 1.0e5), (20.0, 2.74e4), (5.0, 4.5e3), (-0.8, 460.0), (-6.0, 3.4),
     (-12.0, 8.1e-3), (-18.0, 6.5e-4), (-40.0, 6.5e-4)],
)  # fmt: skip
def test_daylight_is_that_of_the_published_tables(sun_deg: float, lux: float) -> None:
    """Natural illuminance of a clear sky: sunset about 450 lx, end of civil twilight 3.4 lx, of
    nautical twilight 8e-3 lx, starlight and airglow under 1e-3 lx; within 6 % of the tables."""
    assert daylight_lx(sun_deg) == pytest.approx(lux, rel=0.06)


@given(st.floats(-30.0, 89.0), st.floats(0.01, 1.0))
def test_a_higher_sun_and_a_clearer_sky_never_give_less_light(sun_deg: float, sky: float) -> None:
    """The published pieces meet within 2 %."""
    assert daylight_lx(sun_deg + 1.0) > 0.98 * daylight_lx(sun_deg)
    assert daylight_lx(sun_deg, sky) == pytest.approx(sky * daylight_lx(sun_deg))


def test_full_sun_is_the_old_rule_of_sixteen() -> None:
    """f/16 at one over the speed in full sun: log2(16^2 x 100) = 14.6, with the sun above 40."""
    assert lens_ev(16.0, 1.0 / 100.0) == pytest.approx(14.64, abs=0.01)
    assert light_ev(daylight_lx(50.0)) == pytest.approx(15.0, abs=0.5)


def test_a_filter_worked_by_hand() -> None:
    """60 frames a second: 1/120 s. f/2.8 takes log2(7.84 x 120) = 9.88; EV 15 leaves 5.1 stops."""
    shutter = half_interval_s(60.0)
    assert shutter == pytest.approx(1.0 / 120.0)
    taken = lens_ev(2.8, shutter)
    stops = filter_stops(15.0, taken, 100.0)
    assert stops == pytest.approx(15.0 - math.log2(7.84 * 120.0))
    assert nearest_filter(stops) == 5
    assert filter_stops(15.0, taken, 50.0) == pytest.approx(stops - 1.0)
    assert [nearest_filter(one) for one in (-3.0, 0.4, 0.6, 6.9, 8.9, 30.0)] == [0, 0, 1, 6, 8, 10]


@given(st.floats(1e-3, 1e5), st.sampled_from([1.8, 2.8, 4.0]), st.floats(24.0, 240.0))
def test_gain_and_the_darkest_light_agree(lux: float, f_number: float, fps: float) -> None:
    """Light that wants just the most gain is the darkest that is enough."""
    iso = gain_iso(light_ev(lux), f_number, half_interval_s(fps))
    assert dark_below_lx(f_number, half_interval_s(fps), iso) == pytest.approx(lux)


def sums(trip: Doc, film: float = 25.0, editing: Doc | None = None, **more: Any) -> dict[str, Sum]:
    """What is reckoned for a 4K camera at 60 frames with a preset, on a leg of ten minutes."""
    preset = PRESET | more.pop("preset", {})
    one = camera(modes=[mode(fps=60, **more), mode("n", fps=120)], presets=[preset])
    plan = {"delivery_fps": film, "editing": editing}
    document = plan_of(raw(way(), [asks("cam", "way", preset="p")], [one], trip=trip, plan=plan))
    told = picture_told(
        document, lay_out(document.trip), document.kit.cameras[0], document.trip.items[0]
    )
    return {one.what: one for one in told.sums}


def test_each_sum_shows_its_arithmetic() -> None:
    told = sums(NOON, preset={"slowing": 4.0}, editing=HOME)
    assert (told["slowing"].text, told["slowing"].how) == (
        "up to 2.4 times slower",
        "60 / 25 = 2.4",
    )
    assert told["least_rate"].text == "4 times slower wants 100 frames a second: in N"
    assert told["least_rate"].good is False
    assert (told["shutter"].text, told["shutter"].how) == ("1/120 s", "1 / (2 × 60) = 1/120 s")
    assert told["light"].how.startswith("sun 66°: 110 000 lx")
    assert told["filter"].text == "5 stops of neutral density (ND 32)"
    assert "log2(2.8² × 120) = 15.4 − 9.9 = 5.5 stops" in told["filter"].how
    assert told["editing"].how == "3840 × 2160 × 60 = 498 of 124 Mpx/s"
    assert told["editing"].good is False
    assert told["low_light"].good is True
    assert told["low_light"].how == "100 × 2^(log2(2.8² × 120) − 15.4) = ISO 2.1"


def test_a_fitted_filter_a_chosen_shutter_and_the_night() -> None:
    fitted = sums(NOON, preset={"filter_stops": 5.0, "shutter_per_s": 1000.0})
    assert fitted["shutter"].text == "1/1000 s by the preset: movement looks choppy"
    assert fitted["filter"].text.endswith("5 fitted, 2.5 wanted")
    assert fitted["filter"].good is False
    night = sums(NIGHT)
    assert night["low_light"].good is False
    assert "stops too dark by night at ISO 1 600" in night["low_light"].text
    assert night["filter"].text == "none: there is no light to spare"
    assert sums({})["light"].text.startswith("not known: the trip has no place")


@pytest.mark.parametrize(
    ("preset", "shortest", "longest"),
    [
        ({}, 1 / 60, 1 / 60),
        ({"shutter_per_s": 200}, 1 / 200, 1 / 200),
        ({"shutter_per_s": 200, "shutter_is": "or_shorter"}, 1 / 8000, 1 / 200),
        ({"shutter_per_s": 200, "shutter_is": "or_longer"}, 1 / 200, 1 / 30),
        ({"shutter_per_s": 200, "shutter_is": "follows"}, 1 / 60, 1 / 60),
    ],
)
def test_a_shutter_may_be_a_range_or_follow_the_rate(
    preset: Doc, shortest: float, longest: float
) -> None:
    """Of 30 frames a second half the interval is 1/60 s and the whole of it 1/30."""
    document = plan_of(with_preset({"preset": "p"}, **preset))
    one = document.kit.cameras[0]
    lens = lens_of(one, one.modes[0], one.presets[0], DEFAULTS)
    assert lens.shortest_s == pytest.approx(shortest)
    assert lens.longest_s == pytest.approx(longest)


def test_or_shorter_asks_no_filter_in_full_sun_and_that_very_time_does() -> None:
    """EV 15.4 less log2(2.8 x 2.8 x 200) = 10.6 is 5 stops; 1/8000 takes 15.9, and none is left."""
    exact = sums(NOON, preset={"shutter_per_s": 200})["filter"]
    assert "5 stops" in exact.text
    ranged = sums(NOON, preset={"shutter_per_s": 200, "shutter_is": "or_shorter"})
    assert ranged["filter"].text.startswith("none")
    assert ranged["shutter"].text == "1/200 s or shorter by the preset"


def test_a_codec_that_the_computer_does_not_take_is_named() -> None:
    takes = {"width_px": 7680, "height_px": 4320, "fps": 240, "codecs": ["avc"]}
    told = sums({}, editing=takes, preset={"codec": "hevc"})["editing"]
    assert told.text == "more than it takes in codec, HEVC"
    assert sums({}, editing=takes, preset={"codec": "avc"})["editing"].good


def test_a_bias_between_two_serves_the_bright_by_the_one_and_the_dark_by_the_other() -> None:
    document = plan_of(with_preset({"preset": "p"}, exposure_ev=-1.0, exposure_to_ev=0.5))
    one = document.kit.cameras[0]
    lens = lens_of(one, one.modes[0], one.presets[0], DEFAULTS)
    assert (lens.biased_ev, lens.bright_bias_ev) == (-1.0, 0.5)
