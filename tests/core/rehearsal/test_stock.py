"""Temperatures of places, and where units lay, against small steps and plain searches.

Source: model/cold#cell.
"""

from __future__ import annotations

import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.build import asks, battery, document, leg, stop
from tumbrel.core.charging import Intake
from tumbrel.core.cold import cold_curve
from tumbrel.core.heat import body_of
from tumbrel.core.parameters import DEFAULTS
from tumbrel.core.rehearsal.engine.played import play
from tumbrel.core.rehearsal.state.append_log import Log
from tumbrel.core.rehearsal.state.snapshot import Frozen
from tumbrel.core.rehearsal.stock.batteries import Cell
from tumbrel.core.rehearsal.stock.stays import stays_within
from tumbrel.core.rehearsal.trip.climate import (
    PlaceClimate,
    climate_of,
    place_climate,
    warmths_of,
)
from tumbrel.core.rehearsal.trip.prepare import prepare
from tumbrel.core.rehearsal.trip.scene import BatteryAtStart
from tumbrel.core.rehearsal.trip.timeline import Conditions, lay_out
from tumbrel.core.report import tell

STEP_MS = 600_000
END_MS = 6 * STEP_MS
AMBIENT = (-20.0, -12.0, 3.0, 18.0, 6.0, -5.0)
CONDITIONS = Conditions(
    tuple(n * STEP_MS for n in range(6)),
    AMBIENT,
    (0.0, 0.0, 300.0, 800.0, 100.0, 0.0),
    (0.0,) * 6,
    (0.0,) * 6,
    (False,) * 6,
)
WARM = warmths_of(DEFAULTS)
TIMES = st.integers(0, END_MS)


def stepped(place: PlaceClimate, cell_c: float, from_ms: int, to_ms: int) -> float:
    """The same by one-second steps."""
    for at_ms in range(from_ms, to_ms, 1000):
        base_c = place.base_c[min(5, at_ms // STEP_MS)]
        cell_c += (base_c - cell_c) * (1.0 - math.exp(-min(1000, to_ms - at_ms) / place.lag_ms))
    return cell_c


@pytest.mark.parametrize(
    ("warmth", "base"),
    [
        ("inside", (25.0,) * 6),
        ("outer", ((15 - 20) / 2, (15 - 12) / 2, (23 + 3) / 2, (25 + 18) / 2, (25 + 6) / 2, 5.0)),
        (31.0, (31.0,) * 6),
        ("bag", AMBIENT),
    ],
)
def test_a_place_is_as_warm_as_its_rule(warmth: Any, base: tuple[float, ...]) -> None:
    assert place_climate(CONDITIONS, warmth, WARM, 720.0).base_c == pytest.approx(base)


@pytest.mark.parametrize(("from_s", "to_s"), [(0, 300), (0, 600), (500, 700), (100, 3500)])
def test_a_cell_in_the_bag_against_small_steps(from_s: int, to_s: int) -> None:
    bag = place_climate(CONDITIONS, "bag", WARM, 720.0)
    span = (from_s * 1000, to_s * 1000)
    assert bag.after(21.0, *span) == pytest.approx(stepped(bag, 21.0, *span), abs=1e-6)


@given(start_c=st.floats(-30, 40), times=st.tuples(TIMES, TIMES, TIMES))
def test_two_stretches_are_one_long_one(start_c: float, times: tuple[int, int, int]) -> None:
    bag = place_climate(CONDITIONS, "bag", WARM, 720.0)
    first, middle, last = sorted(times)
    halfway_c = bag.after(start_c, first, middle)
    assert bag.after(halfway_c, middle, last) == pytest.approx(bag.after(start_c, first, last))


@given(start_c=st.floats(-30, 40), from_ms=TIMES, more=st.lists(TIMES, max_size=6))
def test_a_path_is_made_of_single_looks(start_c: float, from_ms: int, more: list[int]) -> None:
    bag = place_climate(CONDITIONS, "bag", WARM, 720.0)
    later = sorted(at for at in more if at > from_ms)
    single = [bag.after(start_c, from_ms, at) for at in later]
    assert bag.path(start_c, from_ms, later) == pytest.approx(single)


@given(start_c=st.floats(-30, 40), level_c=st.floats(-25, 35), from_ms=TIMES)
def test_a_level_is_reached_where_the_search_says(
    start_c: float, level_c: float, from_ms: int
) -> None:
    """Where it says none, a walk by seconds finds no crossing either."""
    bag = place_climate(CONDITIONS, "bag", WARM, 720.0)
    found = bag.crossing(start_c, from_ms, level_c, END_MS)
    side = start_c < level_c
    if found is not None:
        assert bag.after(start_c, from_ms, found) == pytest.approx(level_c, abs=0.01)
    last = END_MS if found is None else found - 1000
    walked = bag.path(start_c, from_ms, range(from_ms + 1000, last, 20_000))
    assert all(
        (cell_c < level_c + 0.01) if side else (cell_c > level_c - 0.01) for cell_c in walked
    )


def test_the_coldest_of_a_place_between_two_times() -> None:
    bag = place_climate(CONDITIONS, "bag", WARM, 720.0)
    assert bag.coldest(0, END_MS) == -20.0
    assert bag.coldest(STEP_MS, 3 * STEP_MS) == -12.0
    assert bag.coldest(3 * STEP_MS, 4 * STEP_MS - 1) == 18.0


def test_a_body_in_the_sun_stands_above_the_air() -> None:
    """`T_eq = T_air + g * (rise_sun + rise)`, g = 1 / (1 + 0.8 sqrt(v)) at the mount.

    Source: model/heat#node.
    """
    cam = document([leg("way", 600)], [asks("cam", "way")]).kit.cameras[0]
    body = body_of(cam, cam.set_ups[0], DEFAULTS)
    windy = Conditions(
        (0, STEP_MS), (10.0, 10.0), (0.0, 800.0), (0.0, 4.0), (0.0, 0.0), (False, False)
    )
    found = climate_of(body, windy)
    assert found.g == pytest.approx((1.0, 1.0 / 2.6))
    rise_k = body.sun_k_per_w_m2 * 800.0
    assert found.base_c == pytest.approx((10.0, 10.0 + rise_k / 2.6))
    assert found.lag_ms == pytest.approx((900_000.0, 900_000.0 / 2.6))
    assert (found.coldest_base_c, found.largest_g) == (10.0, 1.0)


# -- where units lay ----------------------------------------------------------------------------


def cell() -> Cell:
    """A battery of 5 W h in the bag."""
    bag = place_climate(CONDITIONS, "bag", WARM, 720.0)
    curve = cold_curve(DEFAULTS.available)
    intake = Intake(5.0, 1.0, 0.8, 0.99)
    carried = BatteryAtStart("a1", "A1", "a", 5.0, 0.9, intake, intake, curve, "bag", bag, bag, 0)
    one = Cell(carried)
    one.cell_c = 20.0
    return one


@pytest.mark.plain("a cell is made by hand")
@given(
    moves=st.lists(st.integers(1, 50), min_size=1, max_size=12),
    span=st.tuples(st.integers(0, 400), st.integers(0, 400)),
)
def test_stays_within_a_span_are_found_as_by_a_plain_search(
    moves: list[int], span: tuple[int, int]
) -> None:
    one, at_ms = cell(), 0
    for number, length_ms in enumerate(moves):
        at_ms += length_ms
        one.move(f"p{number}", at_ms)
    one.close(at_ms + 10)
    start_ms, end_ms = sorted(span)
    plain = [s for s in one.stays if s.from_ms < end_ms and s.to_ms > start_ms]
    assert stays_within(one.stays, start_ms, end_ms) == plain


@pytest.mark.plain("a cell is made by hand")
def test_a_full_cell_takes_charge_again_only_when_a_thousandth_has_gone() -> None:
    one = cell()
    taken = []
    for charge in (0.985, 0.99, 0.9895, 0.9885):
        one.charge = charge
        taken.append(one.takes_charge())
    assert taken == [True, False, False, True]


@pytest.mark.plain("a cell is made by hand")
def test_a_spare_loses_by_itself_and_takes_on_the_warmth_of_its_place() -> None:
    """2.5 % of 5 W h a month are 0.174 mW h an hour; after an hour it is at the bag's own."""
    one = cell()
    one.rest_until(3_600_000, 0.025)
    assert one.lost_wh == pytest.approx(5.0 * 0.025 / 720.0)
    assert one.charge == pytest.approx(0.9 - 0.025 / 720.0)
    assert one.cell_c == pytest.approx(one.home_climate.after(20.0, 0, 3_600_000))


@pytest.mark.plain("a cell is made by hand")
def test_a_cell_in_a_camera_or_a_charger_is_not_rested() -> None:
    for place in ("cam", "dock/1"):
        one = cell()
        one.move(place, 0, in_camera=place == "cam")
        one.rest_until(3_600_000, 0.025)
        assert (one.lost_wh, one.cell_c) == (0.0, 20.0)


def test_a_state_that_was_put_away_comes_back_with_what_was_in_its_logs_then() -> None:
    log, curve = Log([1, 2, 3]), cold_curve(DEFAULTS.available)
    table = [7]
    state = {"one": log, "other": log, "curve": curve, "list": [1.5], "table": table}
    away = Frozen(state, [table])
    log.append(4)
    state["list"].append(2.5)  # type: ignore[union-attr]
    again = away.thaw()
    assert again["one"] == [1, 2, 3]
    assert again["one"] is again["other"]
    assert again["list"] == [1.5]
    assert again["curve"] is curve
    assert again["table"] is table
    again["one"].append(9)  # type: ignore[union-attr]
    assert log == [1, 2, 3, 4]
    assert away.thaw()["one"] == [1, 2, 3]


def test_a_spare_that_is_never_touched_cools_in_its_pocket_as_its_rule_says() -> None:
    """24 min at 20 C, then -10 C: 12 min or one lag of 720 s later -10 + 30 / e = 1.04 C."""
    items = [
        stop("camp", 1440, temp_start_c=20.0, temp_end_c=20.0),
        leg("way", 7200, temp_start_c=-10.0, temp_end_c=-10.0),
    ]
    two = [battery("a1"), battery("a2")]
    told = tell(play(prepare(document(items, [asks("cam", "way")], batteries=two))))
    spare = told.batteries[1]
    by_minute = dict(zip((at // 60_000 for at in spare.t_ms), spare.cell_c, strict=True))
    assert by_minute[0] == by_minute[12] == 20.0
    assert by_minute[36] == pytest.approx(-10.0 + 30.0 / math.e, abs=0.05)
    assert by_minute[144] == pytest.approx(-10.0, abs=0.1)


def test_conditions_of_a_trip_are_joined_where_nothing_changes() -> None:
    timeline = lay_out(document([leg("a", 7200), leg("b", 7200, air_mps=3.0)], []).trip)
    assert timeline.conditions.starts_ms == (0, 7_200_000)
    assert timeline.conditions.air_mps == (0.0, 3.0)
