"""The plan document: what it holds, what it refuses, and that it says which field."""

from __future__ import annotations

import json
from copy import deepcopy
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.build import asks, battery, camera, leg, mode, raw, set_up, stop, takes
from tumbrel.core.document import (
    BadDocument,
    PlanDocument,
    parse_document,
    read_document,
    write_document,
)
from tumbrel.core.rehearsal.trip.timeline import lay_out
from tumbrel.core.report import rehearse


def whole(**more: Any) -> dict[str, Any]:
    """A small good document."""
    return raw([stop("camp", 600), leg("way", 600)], [asks("cam", "way")], **more)


def fault(loaded: object) -> tuple[str, str]:
    """Path and reason of the first fault."""
    with pytest.raises(BadDocument) as caught:
        parse_document(loaded)
    return caught.value.faults[0].path, caught.value.faults[0].why


def put(loaded: dict[str, Any], path: str, value: object) -> dict[str, Any]:
    """The document with one value replaced, by a path like kit.cameras.0.name."""
    at: Any = loaded
    *steps, last = path.split(".")
    for step in steps:
        at = at[int(step)] if step.isdigit() else at[step]
    at[last] = value
    return loaded


def test_what_is_written_is_read_back_the_same(demo: PlanDocument) -> None:
    assert read_document(write_document(demo)) == demo
    assert write_document(read_document(write_document(demo))) == write_document(demo)


def test_a_frozen_document_cannot_be_changed(demo: PlanDocument) -> None:
    with pytest.raises(ValueError, match="frozen"):
        demo.trip.name = "other"  # type: ignore[misc]


@pytest.mark.parametrize(
    ("path", "value", "said_at"),
    [
        ("kit.cameras.0.mass_g", -1, "kit.cameras[0].mass_g"),
        ("kit.cameras.0.memory", {"kind": "tape"}, "kit.cameras[0].memory"),
        ("kit.cameras.0.modes.0.fps", 0, "kit.cameras[0].modes[0].fps"),
        ("kit.cameras.0.modes.0.draw", {"kind": "watts"}, "kit.cameras[0].modes[0].draw.watts"),
        ("kit.cameras.0.modes", [], "kit.cameras[0].modes"),
        ("kit.cameras.0.colour", "red", "kit.cameras[0].colour"),
        ("kit.batteries.0.charge", 1.5, "kit.batteries[0].charge"),
        ("kit.cards.0.speed_class", "V31", "kit.cards[0].speed_class"),
        ("kit.cards.0.gb", 0, "kit.cards[0].gb"),
        ("trip.items.1.duration_s", 0, "trip.items[1].duration_s"),
        ("trip.items.1.duration_s", "long", "trip.items[1].duration_s"),
        ("trip.items.1.air_mps", 101, "trip.items[1].air_mps"),
        ("trip.items.1.hands", "maybe", "trip.items[1].hands"),
        ("trip.items.0.temp_start_c", -200, "trip.items[0].temp_start_c"),
        ("trip.items", [], "trip.items"),
        ("trip.start", "yesterday", "trip.start"),
        ("trip.start", "2027-06-12T06:00:00+02:00", "trip.start"),
        ("trip.start", "1066-10-14T06:00:00", "trip.start"),
        ("trip.time_zone", "Nowhere/Land", "trip.time_zone"),
        ("trip.place", {"latitude": 91, "longitude": 0}, "trip.place.latitude"),
        ("plan.assignments.0.pattern", {"kind": "hop"}, "plan.assignments[0].pattern"),
        (
            "plan.assignments.0.pattern",
            {"kind": "loop"},
            "plan.assignments[0].pattern.length_s",
        ),
        ("plan.assignments.0.importance", "meh", "plan.assignments[0].importance"),
        ("plan.swap_policy", "never", "plan.swap_policy"),
    ],
)
def test_a_bad_field_is_named(path: str, value: object, said_at: str) -> None:
    assert fault(put(whole(), path, value))[0] == said_at


@pytest.mark.parametrize(
    ("part", "words"),
    [
        ({"assignments": [asks("gone", "way")]}, "camera 'gone' is not in the document"),
        ({"assignments": [asks("cam", "gone")]}, "leg or stop 'gone' is not in the document"),
        ({"assignments": [asks("cam", "way"), asks("cam", "way")]}, "'cam on way' stands twice"),
        ({"cameras": [{"camera": "cam", "battery": "a9"}]}, "battery 'a9' is not in the document"),
        ({"cameras": [{"camera": "cam", "card": "k9"}]}, "card 'k9' is not in the document"),
        ({"swaps": [{"camera": "cam", "item": "x"}]}, "leg or stop 'x' is not in the document"),
        ({"swaps": [{"camera": "cam", "item": "way", "battery": "z"}]}, "battery 'z' is not in"),
    ],
)
def test_a_plan_that_names_what_is_not_there_is_refused(part: dict[str, Any], words: str) -> None:
    loaded = whole()
    loaded["plan"].update(part)
    assert words in fault(loaded)[1]


@pytest.mark.parametrize(
    ("kit", "words"),
    [
        ({"cameras": [camera(), camera()]}, "camera 'cam' stands twice"),
        ({"batteries": [battery(), battery()]}, "battery 'a1' stands twice"),
        ({"cameras": [camera(battery_family="z")]}, "names battery family 'z'"),
        ({"batteries": [battery(family="z")]}, "names battery family 'z'"),
        ({"cameras": [camera(modes=[mode(), mode()])]}, "mode 'm' stands twice"),
        ({"cameras": [camera(set_ups=[set_up(), set_up()])]}, "set-up 'bare' stands twice"),
        ({"cameras": [camera(limits={"stop_c": 50, "restart_c": 60})]}, "must be below stop_c"),
    ],
)
def test_a_kit_that_contradicts_itself_is_refused(kit: dict[str, Any], words: str) -> None:
    loaded = whole()
    loaded["kit"].update(kit)
    assert words in fault(loaded)[1]


def test_two_batteries_cannot_be_one() -> None:
    chosen = [{"camera": "cam", "battery": "a1"}, {"camera": "two", "battery": "a1"}]
    loaded = whole(cameras=[camera(), camera("two")], plan={"cameras": chosen})
    assert "battery fitted 'a1' stands twice" in fault(loaded)[1]


@pytest.mark.parametrize("pattern", [takes(30), takes(30, count=3, per_hour=2)])
def test_takes_are_counted_in_one_way(pattern: dict[str, Any]) -> None:
    loaded = put(whole(), "plan.assignments.0.pattern", pattern)
    assert "either count or per_hour" in fault(loaded)[1]


def test_sleep_must_fit_its_stop() -> None:
    loaded = put(whole(), "trip.items.0.asleep", {"start_s": 300, "duration_s": 301})
    assert "asleep end after the stop" in fault(loaded)[1]


def test_a_trip_of_more_than_31_days_is_refused() -> None:
    items = [leg(f"l{n}", 86_400) for n in range(32)]
    assert "more than 31 days" in fault(raw(items, []))[1]


def test_waits_may_not_stretch_it_beyond_31_days_either() -> None:
    items = [leg("one", 600), leg("two", 600, not_before="2029-06-12T07:00:00")]
    document = parse_document(raw(items, []))
    with pytest.raises(BadDocument, match="31 days"):
        lay_out(document.trip)


def test_more_takes_than_can_be_played_are_refused_before_they_are_made() -> None:
    items = [leg(f"l{n}", 7200) for n in range(30)]
    asked = [asks("cam", item["id"], pattern=takes(1, count=2000)) for item in items]
    document = parse_document(raw(items, asked))
    with pytest.raises(BadDocument, match="asks for 2000 of 60000 takes and clips; up to 40000"):
        rehearse(document)


def test_ten_thousand_legs_are_refused_at_once() -> None:
    items = [leg(f"l{n}", 60) for n in range(10_000)]
    assert fault(raw(items, []))[0] == "trip.items"


@pytest.mark.parametrize(
    ("text", "path", "words"),
    [
        ("", "line 1, column 1", "is not JSON"),
        ("{", "line 1, column 2", "is not JSON"),
        ('{\n "tumbrel": 2,\n}', "line 3, column 1", "is not JSON"),
        ("[]", "tumbrel", "no plan file"),
        ("{}", "tumbrel", "no plan file"),
        ('{"tumbrel": 9}', "tumbrel", "reads 1 to 5"),
        ('{"tumbrel": NaN}', "(file)", "NaN is not a number"),
        ('{"tumbrel": 2, "x": Infinity}', "(file)", "Infinity is not a number"),
        ("[" * 100_000, "(file)", ""),
    ],
)
def test_a_file_that_is_none_says_where(text: str, path: str, words: str) -> None:
    with pytest.raises(BadDocument) as caught:
        read_document(text)
    assert caught.value.faults[0].path == path
    assert words in caught.value.faults[0].why


def test_bytes_that_are_no_text_say_so() -> None:
    with pytest.raises(BadDocument, match="not UTF-8"):
        read_document(b'{"tumbrel": \xff}')


def test_every_fault_is_told_not_only_the_first() -> None:
    loaded = put(put(whole(), "kit.cameras.0.mass_g", -1), "trip.items.0.duration_s", 0)
    with pytest.raises(BadDocument) as caught:
        parse_document(loaded)
    assert {f.path for f in caught.value.faults} == {
        "kit.cameras[0].mass_g",
        "trip.items[0].duration_s",
    }


json_values = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False) | st.text(max_size=8),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=8), inner),
    max_leaves=8,
)


@given(section=st.sampled_from(["kit", "trip", "plan"]), value=json_values)
def test_anything_in_place_of_a_section_is_refused_with_its_path(
    section: str, value: object
) -> None:
    if section == "plan" and value in ({}, None):
        return  # an empty plan is a plan
    if section == "kit" and value == {}:
        return
    loaded = json.loads(json.dumps(whole() | {section: value}))
    with pytest.raises(BadDocument) as caught:
        parse_document(loaded)
    assert all(f.path.startswith((section, "(document)")) for f in caught.value.faults)


@given(text=st.text(max_size=60))
def test_no_text_breaks_the_reader(text: str) -> None:
    with pytest.raises(BadDocument):
        read_document(text)


def test_ten_thousand_legs_are_refused_with_their_number() -> None:
    items = [leg(f"l{n}", 60) for n in range(10_000)]
    path, why = fault(raw(items, []))
    assert path == "trip.items"
    assert "1000" in why


def test_a_frame_a_second_for_thirty_days_is_played() -> None:
    """2,592,000 frames of 1 MB would be 2.6 TB: the card of 504 GB holds the first 504,320."""
    pattern = {"kind": "interval", "every_s": 1, "frame_mb": 1}
    one = camera(set_ups=[{"id": "bare", "name": "bare", "power": "outside_only"}])
    document = raw(
        [leg("way", 30 * 86_400, vehicle_runs=True)],
        [asks("cam", "way", pattern=pattern)],
        cameras=[one],
        plan={"cameras": [{"camera": "cam", "source": "van"}]},
    )
    document["kit"]["sources"] = [{"kind": "vehicle", "id": "van", "name": "Van", "ports": [9]}]
    told = rehearse(parse_document(document))
    assert told.cameras[0].frames == 504_320
    assert [gap.cause for gap in told.cameras[0].gaps] == ["card_full"]


@pytest.mark.parametrize(
    ("path", "value", "said"),
    [
        ("kit.families.0.available", [{"cell_c": 0, "share": 0.5}] * 2, "temperature stands twice"),
        ("kit.batteries.0.pocket", "gone", "names pocket 'gone'"),
        ("kit.chargers", [{"id": "c", "name": "C", "families": ["z"]}], "names battery family 'z'"),
        ("kit.loads", [{"id": "l", "name": "L", "wh_per_day": 1, "bank": "b"}], "names bank 'b'"),
        ("plan.copies", [{"item": "way", "drive": "d"}], "either a camera's memory or a card"),
        ("plan.links", [{"cameras": ["cam", "no"]}], "camera 'no' is not in the document"),
        ("plan.full_by", [{"unit": "a1", "at": "2027-01-01T00:00:00Z"}], "without an offset"),
    ],
)
def test_what_leans_on_something_that_is_not_there_is_refused(
    path: str, value: object, said: str
) -> None:
    assert said in fault(put(deepcopy(whole()), path, value))[1]
