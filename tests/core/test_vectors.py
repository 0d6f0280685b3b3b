"""The small vectors that this reach covers, worked by hand."""

from __future__ import annotations

import pytest

from tests.build import FAMILY, asks, battery, camera, card, gaps, leg, mode, only, rehearsed
from tumbrel.core.document import Camera, Mode, SetUp
from tumbrel.core.energy import ms_to_empty, nominal_wh
from tumbrel.core.heat import body_of, ms_to_level, shedding
from tumbrel.core.memory import byte_rate, ms_to_full, usable_bytes
from tumbrel.core.parameters import DEFAULTS


def test_a_full_battery_lasts_as_its_energy_over_the_draw() -> None:
    """1500 mAh at 3.80 V is 5.70 W h; at 4.0 W that is 5.7 / 4 h = 1.425 h = 5130 s."""
    assert nominal_wh(1500, 3.80) == pytest.approx(5.70)
    assert ms_to_empty(1.0, 0.0, 5.70, 4.0) == 5_130_000


def test_the_same_through_the_whole_rehearsal() -> None:
    """Nothing but the battery ends it, 5130 s into a leg of 6000 s."""
    told = rehearsed([leg("long", 6000)], [asks("cam", "long")])
    assert gaps(only(told)) == [("empty", 5_130_000, 6_000_000)]


@pytest.mark.parametrize(
    ("ambient_c", "air_mps", "seconds"),
    [(20.0, 0.0, 1612.6), (20.0, 1.0, None), (35.0, 0.0, 787.9)],
)
def test_time_to_hot(ambient_c: float, air_mps: float, seconds: float | None) -> None:
    """Rise 60 K, tau 900 s: -900 ln(10/60) = 1612.6 s; 1/1.8 of the rise never; -900 ln(25/60)."""
    body = body_of(Camera.model_validate(camera()), SetUp(id="bare", name="Bare"), DEFAULTS)
    g = shedding(body, air_mps)
    level_c = ambient_c + g * 60.0
    reached = ms_to_level(ambient_c, level_c, 70.0, 900.0 * g)
    if seconds is None:
        assert reached is None
        assert level_c == pytest.approx(53.333, abs=1e-3)
    else:
        assert reached == pytest.approx(seconds * 1000, abs=50)


def test_heat_through_the_whole_rehearsal() -> None:
    """The camera stops at 1612.6 s; off, it falls from 70 to 55 in 900 ln(50/35) = 321.0 s.

    The stop falls on a leg without free hands, so that the rest of the leg is missing.
    """
    hot = camera(modes=[mode(watts=1.0, rise_k=60.0)])
    item = leg("warm", 3000, temp_start_c=20.0, temp_end_c=20.0)
    result = only(rehearsed([item], [asks("cam", "warm")], cameras=[hot]))
    (first, second) = gaps(result)
    assert first == ("hot", 1_612_584, pytest.approx(1_933_591, abs=5))
    assert second == ("no_hand", first[2], 3_000_000)
    assert result.hottest_c == pytest.approx(70.0, abs=0.01)


def test_card_rate_room_and_time_to_full() -> None:
    """80.192 Mbit/s is 10,024,000 B/s; 128 GB x 0.985 holds 12,577.8 s of it."""
    plain = DEFAULTS.with_value("container_overhead", 0.0)
    rate = byte_rate(Mode.model_validate(mode(mbps=80.0)), plain)
    room = usable_bytes(128, 0.0, plain)
    assert rate == 10_024_000
    assert room == 126_080_000_000
    assert ms_to_full(rate, room) == pytest.approx(12_577_813, abs=1)


def test_card_through_the_whole_rehearsal() -> None:
    """With the container's 1 % the 128 GB card is full at 126.08e9 / 10,124,240 s."""
    big = {**FAMILY, "mah": 150_000}
    roll = camera(modes=[mode(mbps=80.0)])
    told = rehearsed(
        [leg("day", 14_000)],
        [asks("cam", "day")],
        cameras=[roll],
        batteries=[battery()],
        cards=[card(gb=128)],
        family=big,
    )
    ((cause, start_ms, end_ms),) = gaps(only(told))
    assert (cause, end_ms) == ("card_full", 14_000_000)
    assert start_ms == -(-126_080_000_000 * 1000 // 10_124_240)
    assert told.ledgers.bytes_end == 126_080_000_000
