"""What is asked, and the sun."""

from __future__ import annotations

import itertools
import math
from datetime import UTC, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tumbrel.core.document import Takes
from tumbrel.core.light import haurwitz_w_m2, light_kind, sun_heights_of_day, sun_table
from tumbrel.core.patterns import counted, take_spans

HOUR = 3_600_000


def test_takes_stand_in_the_middle_of_equal_parts() -> None:
    """Three takes of 60 s in an hour: centres at 10, 30 and 50 min."""
    spans = take_spans(Takes(seconds=60, count=3), 0, HOUR)
    assert spans == [(570_000, 630_000), (1_770_000, 1_830_000), (2_970_000, 3_030_000)]


@pytest.mark.parametrize(
    ("per_hour", "minutes", "count"), [(6, 60, 6), (6, 55, 6), (6, 54, 5), (1, 29, 0), (1, 30, 1)]
)
def test_an_hourly_rate_is_rounded_to_whole_takes(
    per_hour: float, minutes: int, count: int
) -> None:
    assert counted(Takes(seconds=5, per_hour=per_hour), minutes * 60_000) == count


def test_takes_that_fill_the_leg_are_a_roll() -> None:
    assert take_spans(Takes(seconds=60, count=60), 0, HOUR) == [(0, HOUR)]


@given(
    seconds=st.integers(1, 600),
    count=st.integers(1, 200),
    start=st.integers(0, 10**9),
    length=st.integers(1000, 10 * HOUR),
)
def test_takes_lie_inside_their_leg_and_never_overlap(
    seconds: int, count: int, start: int, length: int
) -> None:
    spans = take_spans(Takes(seconds=seconds, count=count), start, start + length)
    assert spans[0][0] >= start
    assert spans[-1][1] <= start + length
    assert all(one[1] <= other[0] for one, other in itertools.pairwise(spans))
    asked = sum(end - begin for begin, end in spans)
    assert asked == min(length, count * seconds * 1000)


def test_haurwitz_at_60_degrees_from_the_zenith() -> None:
    """1098 x 0.5 x exp(-0.114) = 489.9 W/m2."""
    assert haurwitz_w_m2(30.0) == pytest.approx(489.9, abs=0.06)
    assert haurwitz_w_m2(0.0) == 0.0
    assert haurwitz_w_m2(-5.0) == 0.0


@pytest.mark.parametrize(
    ("height", "kind"),
    [(-6.01, "night"), (-6.0, "twilight"), (-0.84, "twilight"), (-0.833, "day"), (40.0, "day")],
)
def test_light_by_the_suns_height(height: float, kind: str) -> None:
    assert light_kind(height) == kind


def _day(year: int, month: int, day: int) -> int:
    return int(datetime(year, month, day, tzinfo=UTC).timestamp() // 86_400)


def test_the_sun_stands_as_high_as_its_declination_allows() -> None:
    """At the June solstice noon at 44 N the sun stands at 90 - 44 + 23.44 degrees."""
    heights = sun_heights_of_day(44.0, 0.0, 0.0, _day(2027, 6, 21))
    assert max(heights) == pytest.approx(90 - 44 + 23.44, abs=0.1)
    assert len(heights) == 144


def test_at_the_equinox_day_and_night_are_equal() -> None:
    """Twelve hours of sun above the true horizon, within one step of ten minutes each side."""
    heights = sun_heights_of_day(0.0, 0.0, 0.0, _day(2027, 3, 20))
    above = sum(1 for height in heights if height > 0.0)
    assert above == pytest.approx(72, abs=2)


@pytest.mark.parametrize(("month", "ever_up"), [(6, True), (12, False)])
def test_above_the_polar_circle_the_sun_may_not_set_or_rise(month: int, ever_up: bool) -> None:
    heights = sun_heights_of_day(75.0, 0.0, 0.0, _day(2027, month, 21))
    assert all(height > 0.0 for height in heights) is ever_up
    assert any(height > 0.0 for height in heights) is ever_up


def test_a_table_over_midnight_joins_two_days() -> None:
    first = _day(2027, 6, 12) * 144 + 140
    table = sun_table(44.0, -30.0, 0.0, first, 10)
    whole = sun_heights_of_day(44.0, -30.0, 0.0, _day(2027, 6, 12)) + sun_heights_of_day(
        44.0, -30.0, 0.0, _day(2027, 6, 13)
    )
    assert table.height_deg == whole[140:150]
    assert all(math.isfinite(value) for value in table.irradiance_w_m2)
