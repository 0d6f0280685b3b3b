"""The kit shelf's cords, and legs and stops from a pasted table."""

from __future__ import annotations

import json
from contextlib import suppress
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.build import asks, camera, card, leg, mode, raw, set_up
from tumbrel.core.document import BadDocument, Kit, Leg, PlanDocument, Stop
from tumbrel.core.formats.table import read_table
from tumbrel.core.shelf import Cord, Shelf, ShelfQuestion, mode_runtimes

VECTORS = json.loads((Path(__file__).parents[1] / "vectors" / "units.json").read_text("utf-8"))


def hung(cameras: list[dict[str, Any]], **more: Any) -> Shelf:
    """The shelf of some cameras at 20 degC in still air."""
    cards = more.pop("cards", [card()])
    parts = raw([leg("way", 60)], [asks(cameras[0]["id"], "way")], cameras=cameras, cards=cards)
    return mode_runtimes(ShelfQuestion.model_validate({"kit": parts["kit"], **more}))


def cord(one: dict[str, Any], **more: Any) -> Cord:
    """The only cord of a camera with one mode."""
    (found,) = hung([camera(modes=[one])], **more).cords
    return found


def test_a_cool_mode_ends_with_the_battery() -> None:
    """At 20 degC the cold holds 1.33 % back: 0.98667 x 5.7 W h / 4 W = 84.36 min."""
    found = cord(mode(watts=4.0))
    assert (found.end, found.minutes) == ("empty", pytest.approx(84.36))
    assert (found.second_end, found.second_minutes) == ("card_full", pytest.approx(1106, abs=1))


def test_a_hot_mode_ends_with_the_heat_and_tells_what_would_come_second() -> None:
    """Rise 60 K over 20 degC: hot after 1612.6 s; the battery would do 85.5 min."""
    found = cord(mode(watts=4.0, rise_k=60.0))
    assert (found.end, found.minutes) == ("hot", pytest.approx(1612.6 / 60, abs=0.01))
    assert (found.second_end, found.second_minutes) == ("empty", pytest.approx(85.5))
    assert found.steady_c == pytest.approx(80.0)


def test_air_turns_the_end_from_heat_to_battery() -> None:
    assert cord(mode(watts=4.0, rise_k=60.0), air_mps=1.0).end == "empty"


def test_a_clip_limit_ends_only_what_does_not_go_on_by_itself() -> None:
    short = mode(clip_limit_s=600)
    assert cord(short).end == "empty"
    (found,) = hung([camera(modes=[short], continues_after_clip=False)]).cords
    assert (found.end, found.minutes) == ("clip_limit", pytest.approx(10.0))


def test_the_card_that_hangs_is_the_largest_that_fits_and_keeps_up() -> None:
    narrow = camera(memory={"kind": "slot", "largest_gb": 64}, modes=[mode(watts=0.5)])
    cards = [card("k1", gb=32), card("k2", gb=64), card("k3", gb=128)]
    (found,) = hung([narrow], cards=cards).cords
    assert found.end == "card_full"
    assert found.minutes == pytest.approx(64e9 * 0.985 / 7_599_240 / 60, abs=0.1)


def test_a_cord_that_nothing_ends_says_so() -> None:
    endless = camera(modes=[mode(watts=0.01, mbps=0.1)])
    (found,) = hung([endless]).cords
    assert (found.end, found.minutes) == (None, None)


def test_the_range_is_wider_where_less_is_measured() -> None:
    wide = cord(mode(watts=4.0, rise_k=None))
    narrow = hung(
        [
            camera(
                modes=[mode(watts=4.0, rise_k=56.0)],
                set_ups=[set_up(tau_s=900)],
                limits={"stop_c": 70, "restart_c": 55},
            )
        ]
    ).cords[0]
    assert wide.minutes == pytest.approx(narrow.minutes)
    assert wide.low_minutes is not None
    assert wide.high_minutes is not None
    assert narrow.low_minutes is not None
    assert narrow.high_minutes is not None
    assert wide.high_minutes - wide.low_minutes > narrow.high_minutes - narrow.low_minutes
    assert not wide.measured
    assert narrow.measured


def test_cords_are_held_against_the_longest_leg() -> None:
    trip = raw([leg("short", 600), leg("long", 7200)], [])["trip"]
    shelf = hung([camera(modes=[mode(), mode("n", watts=2.0)])], trip=trip)
    assert shelf.longest is not None
    assert (shelf.longest.name, shelf.longest.minutes) == ("long", 120.0)
    assert [one.lasts_longest_leg for one in shelf.cords] == [False, True]
    assert shelf.headline == "1 of 2 modes lasts your longest leg."


@pytest.mark.parametrize(
    ("watts", "headline"),
    [(20.0, "None of 1 mode last your longest leg."), (1.0, "1 of 1 mode lasts your longest leg.")],
)
def test_headlines(watts: float, headline: str) -> None:
    trip = raw([leg("long", 7200)], [])["trip"]
    assert hung([camera(modes=[mode(watts=watts)])], trip=trip).headline == headline


def test_an_empty_shelf_says_so() -> None:
    assert mode_runtimes(ShelfQuestion(kit=Kit())).headline == "No camera on the shelf yet."


def test_a_set_up_chosen_hangs_where_it_is_and_the_first_elsewhere() -> None:
    cased = camera("two", set_ups=[set_up(), set_up("cased", case_factor=2.0)])
    shelf = hung([camera("one"), cased], set_up="cased")
    assert [one.set_up for one in shelf.cords] == ["bare", "cased"]


def test_the_demo_shelf_agrees_with_its_rehearsal(demo: PlanDocument) -> None:
    """Every cord has an end and lies within its own range."""
    for one in mode_runtimes(ShelfQuestion(kit=demo.kit, trip=demo.trip)).cords:
        assert one.minutes is not None
        assert one.low_minutes is not None
        assert one.high_minutes is not None
        assert one.low_minutes <= one.minutes <= one.high_minutes


LINES = """
Tarn camp; stop; 0:40; 4 to 6; ; ; ; 1240
climb; climb; 2:30; 6 to 11; 0,6; 50 %; stops; 1240 to 1980
flight; flight; 95; -3 to 14; 9; 0.8; never; 1980 to 1120
"""


def test_a_pasted_table_becomes_legs_and_stops() -> None:
    camp, climb, flight = read_table(LINES.replace("0,6", "0.6")).items
    assert isinstance(camp, Stop)
    assert (camp.id, camp.duration_s, camp.height_m) == ("tarn-camp", 2400, 1240.0)
    assert isinstance(climb, Leg)
    assert (climb.duration_s, climb.sun_share, climb.hands) == (9000, 0.5, "stops")
    assert (climb.height_start_m, climb.height_end_m) == (1240.0, 1980.0)
    assert isinstance(flight, Leg)
    assert (flight.temp_start_c, flight.temp_end_c, flight.hands) == (-3.0, 14.0, "never")


@pytest.mark.parametrize("mark", ["\t", ";", "|", ","])
def test_columns_by_any_usual_mark(mark: str) -> None:
    (item,) = read_table(mark.join(["ridge", "walk", "0:50"])).items
    assert (item.name, item.duration_s) == ("ridge", 3000)


def test_a_heading_may_order_the_columns() -> None:
    (item,) = read_table("duration;name;activity\n1:00;ridge;walk").items
    assert (item.name, item.duration_s) == ("ridge", 3600)


def test_names_taken_or_repeated_get_keys_of_their_own() -> None:
    items = read_table("climb;climb;60\nclimb;climb;60", frozenset({"climb"})).items
    assert [item.id for item in items] == ["climb-2", "climb-3"]


@pytest.mark.parametrize(
    ("said", "activity", "air_mps"),
    [
        ("walking", "walk", 1.2),
        ("Hiking", "walk", 1.2),
        ("down", "descent", 1.0),
        ("flying", "flight", 9.0),
        ("other", "other", 0.0),
    ],
)
def test_an_activity_in_plain_words_brings_its_usual_airflow(
    said: str, activity: str, air_mps: float
) -> None:
    (leg,) = read_table(f"way;{said};60").items
    assert isinstance(leg, Leg)
    assert (leg.activity, leg.air_mps) == (activity, air_mps)
    (typed,) = read_table(f"way;{said};60;5;3").items
    assert isinstance(typed, Leg)
    assert typed.air_mps == 3.0


@pytest.mark.parametrize(
    ("text", "path", "words"),
    [
        ("", "(table)", "is empty"),
        ("ridge;walk;soon", "line 1", "duration 'soon' is not like"),
        ("a;walk;60\nb;dance;60", "line 2", "activity 'dance' is none of"),
        (";walk;60", "line 1", "has no name"),
        ("a;walk;60;hot", "line 1", "temperature 'hot' is no number"),
        ("a;walk;60;1 to 2 to 3", "line 1", "is not like 8 or 6 to 11"),
        ("a;walk;60;5;1;;perhaps", "line 1", "hands 'perhaps' is none of"),
        ("a;walk;60;90", "line 1, temp_start_c", "less than or equal to 70"),
        ("a;walk;60;5;999", "line 1, air_mps", "less than or equal to 100"),
        ("x;stop;60\n" * 1001, "(table)", "over 1000 lines"),
    ],
)
def test_a_line_at_fault_is_named_and_nothing_is_taken(text: str, path: str, words: str) -> None:
    with pytest.raises(BadDocument) as caught:
        read_table(text)
    assert caught.value.faults[0].path == path
    assert words in caught.value.faults[0].why


def test_all_lines_at_fault_are_named() -> None:
    with pytest.raises(BadDocument) as caught:
        read_table("a;walk;soon\nb;walk;60\nc;dance;60")
    assert [f.path for f in caught.value.faults] == ["line 1", "line 3"]


@pytest.mark.parametrize(("text", "seconds"), VECTORS["durations"])
def test_durations_read_alike_here_and_on_the_page(text: str, seconds: int | None) -> None:
    line = f"a;walk;{text}"
    if seconds is None:
        with pytest.raises(BadDocument):
            read_table(line)
    else:
        assert read_table(line).items[0].duration_s == seconds


@given(st.text(max_size=80))
def test_no_text_breaks_the_table(text: str) -> None:
    with suppress(BadDocument):
        assert read_table(text).items


@pytest.mark.parametrize(("text", "share"), [("50", 0.5), ("50 %", 0.5), ("0.5", 0.5), ("", 0.0)])
def test_a_pasted_sun_is_a_share_or_per_cent(text: str, share: float) -> None:
    rows = f"name\tactivity\tduration\tsun\nridge\twalk\t95\t{text}"
    (item,) = read_table(rows).items
    assert item.sun_share == share
