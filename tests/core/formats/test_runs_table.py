"""Bench runs as CSV and pasted tables: nothing is lost, and a bad line is named."""

from __future__ import annotations

from datetime import datetime
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.benches import CAM, run
from tumbrel.core.bench import BenchRun
from tumbrel.core.document import BadDocument, Camera
from tumbrel.core.document.rows import defused, undefused
from tumbrel.core.formats.runs_table import COLUMNS, read_runs, write_runs

OTHER = CAM.model_copy(update={"id": "two", "name": "Second"})
CAMERAS: tuple[Camera, ...] = (CAM, OTHER)


def read(text: str, **more: Any) -> tuple[BenchRun, ...]:
    return read_runs(text, CAMERAS, "cam", **more).runs


def fault(text: str, **more: Any) -> str:
    with pytest.raises(BadDocument) as caught:
        read(text, **more)
    return "; ".join(f"{one.path}: {one.why}" for one in caught.value.faults)


minutes = st.floats(0.1, 2880.0).map(lambda value: round(value, 3))
texts = st.text(st.characters(codec="utf-8", exclude_categories=["C", "Z"]), max_size=30)


@st.composite
def some_run(draw: st.DrawFn) -> BenchRun:
    length = draw(minutes)
    plugged = draw(st.booleans())
    ends = ["hot", "card_full", "clip_limit", "stopped"] + ([] if plugged else ["empty"])
    return BenchRun(
        id="r1",
        camera=draw(st.sampled_from(["cam", "two"])),
        mode=draw(st.sampled_from(["m", "fast"])),
        set_up=draw(st.sampled_from(["bare", "cased"])),
        features=tuple(draw(st.sets(st.sampled_from(["screen", "radio", "light"])))),
        ambient_c=draw(st.floats(-60.0, 70.0)),
        air_mps=draw(st.floats(0.0, 60.0)),
        plugged=plugged,
        charge_start=1.0,
        charge_end=draw(st.none() | st.floats(0.0, 1.0)),
        minutes=length,
        end=draw(st.sampled_from(ends)),
        warned_min=draw(st.none() | st.just(length)),
        charge_paused_min=draw(st.floats(0.0, length)),
        mean_w=draw(st.none() | st.floats(0.1, 60.0)),
        metered=draw(st.sampled_from(["battery", "port"])),
        bytes=draw(st.none() | st.integers(0, 10**13)),
        at=draw(st.none() | st.just(datetime(2027, 6, 1, 9, 5))),  # noqa: DTZ001 - local
        firmware=draw(texts),
        excluded=draw(st.none() | texts.filter(bool)),
    )


@given(some_run())
def test_what_is_written_is_read_again(one: BenchRun) -> None:
    assert read(write_runs([one])) == (one,)


def test_an_empty_notebook_is_written_as_its_columns() -> None:
    assert write_runs([]).strip().split(",") == list(COLUMNS)


def test_a_pasted_table_needs_no_names_and_no_keys() -> None:
    (hot, cool) = read("FAST\t28 min\thot\t21\tstill\nfast\t1:01\tempty\t21 °C\tfan\tcased\n")
    assert (hot.mode, hot.minutes, hot.end, hot.ambient_c, hot.air_mps) == (
        "fast",
        28.0,
        "hot",
        21.0,
        0.0,
    )
    assert (cool.minutes, cool.air_mps, cool.set_up) == (61.0, 1.5, "cased")
    assert hot.id != cool.id


@pytest.mark.parametrize(
    ("cell", "expected"),
    [
        ("62", 62.0),
        ("62.5", 62.5),
        ("62,5", 62.5),
        ("1:02", 62.0),
        ("1 h 02", 62.0),
        ("62 min", 62.0),
    ],
)
def test_minutes_are_read_as_people_write_them(cell: str, expected: float) -> None:
    assert read(f"m;{cell};empty;20")[0].minutes == expected


def test_columns_go_by_name_in_any_order_with_units() -> None:
    text = (
        "Camera;Reason;Temperature (°C);Duration [min];Mode;Charge start;Warning\n"
        "Second;Card full;\u22125;40;M;95 %;30\n"
    )
    (one,) = read(text)
    assert (one.camera, one.end, one.ambient_c, one.minutes) == ("two", "card_full", -5.0, 40.0)
    assert (one.charge_start, one.warned_min) == (0.95, 30.0)


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("", "is empty"),
        ("m;0;empty;20", "line 1, minutes: "),
        ("m;abc;empty;20", "line 1: minutes 'abc' is no number"),
        ("m;30;gone;20", "line 1, end: "),
        ("slow;30;hot;20", "line 1: mode 'slow' is none of M, FAST"),
        ("m;30;hot;20;still;muff", "line 1: set-up 'muff' is none of bare, cased"),
        ("m;30;hot", "line 1: has no ambient_c"),
        ("m;30;hot;20\nm;30;hot;99", "line 2, ambient_c: "),
        ("m;30;hot;20;;;perhaps", "line 1: plugged 'perhaps' is neither yes nor no"),
        ("mode;minutes;end\nm;30;hot", "line 1: lacks the column 'ambient_c'"),
        ("mode;minutes;end;room;colour\nm;3;hot;2;red", "line 1: has a column 'colour'"),
        ("camera;mode;minutes;end;room\nnone;m;3;hot;2", "line 2: camera 'none' is not in the kit"),
        ('m;30;hot;"20', "cannot be read"),
    ],
)
def test_a_bad_table_is_refused_with_its_line(text: str, why: str) -> None:
    assert why in fault(text)


def test_a_set_up_on_outside_power_is_plugged_in_unless_told_otherwise() -> None:
    wired = CAM.set_ups[0].model_copy(update={"id": "wired", "name": "wired", "power": "outside"})
    fed = CAM.model_copy(update={"set_ups": (*CAM.set_ups, wired)})
    text = "m;30;hot;20;still;wired\nm;30;hot;20;still;bare\nm;30;hot;20;still;wired;no\n"
    assert [one.plugged for one in read_runs(text, [fed], "cam").runs] == [True, False, False]


def test_every_bad_line_is_named_and_none_is_taken() -> None:
    assert fault("m;30;hot;20\nm;x;hot;20\nm;30;hot;20\nm;30;cold;20").count("line ") == 2


def test_too_long_a_table_is_refused() -> None:
    assert "has over" in fault("m;30;hot;20\n" * 700)


def test_names_that_are_taken_are_not_used_again() -> None:
    text = write_runs([run("r1", 30.0, "hot"), run("r2", 31.0, "hot")])
    found = read(text, taken=frozenset({"r1", "r2", "r1-2"}))
    assert [one.id for one in found] == ["r1-3", "r2-2"]


def test_a_reason_may_hold_commas_quotes_and_lines() -> None:
    odd = run("r", 30.0, "hot", excluded='lens "wet",\nnot dried')
    assert read(write_runs([odd])) == (odd,)


TEXTS = ("=1+1", "+49", "-2", "@SUM(A1)", "'=x", "''", "\tx", "plain", "a=b")


@pytest.mark.parametrize("text", TEXTS)
def test_no_text_is_a_formula_for_a_spreadsheet_and_it_comes_back_as_it_was(text: str) -> None:
    told = defused(text)
    assert told[0] not in "=+-@\t\r"
    assert undefused(told) == text


def test_a_reason_that_begins_like_a_formula_is_written_as_text() -> None:
    odd = run("r1", 30.0, "hot", excluded='=HYPERLINK("x")', ambient_c=-12.0)
    text = write_runs([odd])
    assert "'=HYPERLINK" in text
    assert ",-12.0," in text
    assert read(text) == (odd,)
