"""Power meters' logs: columns as meters name them, energy by hand, and what is refused."""

from __future__ import annotations

import pytest

from tumbrel.core.document import BadDocument
from tumbrel.core.formats.meter_log import SHOWN, read_meter

HOUR = "time (s),volts,amps\n" + "".join(f"{t},4.0,1.0\n" for t in range(0, 3601, 60))


def fault(text: str) -> str:
    with pytest.raises(BadDocument) as caught:
        read_meter(text)
    return str(caught.value)


def test_an_hour_at_four_watts() -> None:
    """4 V x 1 A over 3600 s: 4 W, 4 W h."""
    found = read_meter(HOUR)
    assert (found.lines, found.minutes, found.from_min) == (61, 60.0, 0.0)
    assert (found.mean_w, found.wh) == (pytest.approx(4.0), pytest.approx(4.0))
    assert [(one.heading, one.quantity, one.unit) for one in found.columns] == [
        ("time (s)", "time", "s"),
        ("volts", "volts", "v"),
        ("amps", "amps", "a"),
    ]


def test_uneven_readings_weigh_by_their_time() -> None:
    """Trapezoids: 10 s from 2 to 4 W (30 J), 50 s from 4 to 2 W (150 J): 180 J in 60 s, 3 W."""
    found = read_meter("t;power (W)\n0;2\n10;4\n60;2\n")
    assert found.mean_w == pytest.approx(3.0)
    assert found.wh == pytest.approx(180.0 / 3600.0)


def test_what_lies_before_and_after_the_recording_does_not_count() -> None:
    """Off for 60 s, 3 W from 60 to 180 s, then 0.1 W on standby."""
    lines = [(t, 3.0 if 60 <= t <= 180 else 0.1) for t in range(0, 400, 20)]
    found = read_meter("time_s,watts\n" + "".join(f"{t},{w}\n" for t, w in lines))
    assert (found.from_min, found.to_min) == (1.0, 3.0)
    assert found.mean_w == pytest.approx(3.0)


@pytest.mark.parametrize(
    ("head", "cells"),
    [
        ("Time (ms),Voltage (V),Current (A)", ("0,5,0.8", "60000,5,0.8", "120000,5,0.8")),
        ("elapsed_min;U [mV];I [mA]", ("0;5000;800", "1;5000;800", "2;5000;800")),
        ("Date\tVbus(V)\tIbus(A)", ("0:00:00\t5\t0.8", "0:01:00\t5\t0.8", "0:02:00\t5\t0.8")),
        ("no;timestamp;power_mW", ("1;00:00;4000", "2;01:00;4000", "3;02:00;4000")),
        (
            "time;voltage;current;temperature",
            (
                "2027-01-01 10:00:00;5;-0,8;21",
                "2027-01-01 10:01:00;5;-0,8;21",
                "2027-01-01T10:02:00;5;-0,8;22",
            ),
        ),
    ],
)
def test_columns_are_known_by_common_names_and_units(head: str, cells: tuple[str, ...]) -> None:
    """Each is 5 V and 0.8 A, 4 W, for two minutes; a current that flows out counts the same."""
    found = read_meter("\n".join([head, *cells]))
    assert found.minutes == pytest.approx(2.0)
    assert found.mean_w == pytest.approx(4.0)


def test_lines_before_the_names_are_passed_over() -> None:
    found = read_meter("\ufeffA meter\nserial 12\n\n" + HOUR)
    assert found.wh == pytest.approx(4.0)


def test_a_long_log_is_thinned_for_drawing_only() -> None:
    text = "time (s),volts,amps\n" + "".join(f"{t},4.0,1.0\n" for t in range(20_000))
    found = read_meter(text)
    assert found.lines == 20_000
    assert SHOWN <= len(found.t_min) <= 2 * SHOWN
    assert found.wh == pytest.approx(4.0 * 19_999 / 3600.0)


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("", "is empty"),
        ("1,2,3\n4,5,6\n7,8,9", "no line names its columns"),
        ("time,volts,colour\n0,5,red\n1,5,red", "no column is amps"),
        ("time (s),watts\n0,4\n10,oops\n20,4", "line 3: is no reading: 10; oops"),
        ("time (s),watts\n0,4\n10\n20,4", "line 3: is no reading"),
        ("time (s),watts\n0,4\n10,4\n5,4", "line 4: its time goes backwards"),
        ("time (s),watts\n0,nan\n10,4\n20,4", "line 2: is no reading"),
        ("time (s),watts\n0,0\n10,0\n20,0", "shows no power"),
        ("time (h),watts\n0,4\n10,4\n90,4", "more than 48 hours"),
        ("time (s),watts\n0,4", "has no readings"),
    ],
)
def test_a_bad_log_is_refused_with_its_line(text: str, why: str) -> None:
    assert why in fault(text)
