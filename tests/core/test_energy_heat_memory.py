"""Energy, heat and memory as plain functions."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.build import camera, mode, set_up
from tumbrel.core.document import BatteryFamily, Camera, Card, DrawByRunTime, Mode, SetUp
from tumbrel.core.energy import (
    features_w,
    mode_w,
    ms_to_empty,
    self_discharge_wh,
    spent_wh,
)
from tumbrel.core.heat import body_of, ms_to_level, shedding, temperature_after
from tumbrel.core.memory import (
    FAT32_LARGEST_FILE,
    card_is_too_large,
    card_store,
    clip_bytes,
    files_of,
    fixed_store,
    largest_file,
    ms_to_full,
    peak_byte_rate,
    store_keeps_up,
    usable_bytes,
)
from tumbrel.core.parameters import DEFAULTS

FAMILY = BatteryFamily(id="a", name="A", mah=1500, nominal_v=3.8)
CAMERA = Camera.model_validate(camera())


def test_a_run_time_becomes_watts_by_the_familys_full_battery() -> None:
    """Lasts 114 min on 5.70 W h: 5.7 / 1.9 h = 3.0 W."""
    lasting = Mode.model_validate(mode(draw={"kind": "lasts", "minutes": 114}))
    assert isinstance(lasting.draw, DrawByRunTime)
    assert mode_w(lasting, FAMILY) == pytest.approx(3.0)


def test_features_take_the_cameras_own_draw_before_the_typical_one() -> None:
    own = Camera.model_validate(camera(feature_draws=[{"feature": "screen", "watts": 0.9}]))
    assert features_w(own, ("screen", "radio"), DEFAULTS) == pytest.approx(0.9 + 0.35)


def test_nothing_drawn_never_empties() -> None:
    assert ms_to_empty(1.0, 0.0, 5.7, 0.0) is None


def test_a_root_is_rounded_up_and_at_least_one_ms() -> None:
    assert ms_to_empty(1e-12, 0.0, 5.7, 4.0) == 1
    assert ms_to_empty(0.5, 0.0, 1.0, 3.0) == 600_000


def test_self_discharge_is_two_and_a_half_per_cent_a_month_and_never_more_than_is_there() -> None:
    month_ms = 30 * 24 * 3_600_000
    assert self_discharge_wh(10.0, 1.0, month_ms, 0.025) == pytest.approx(0.25)
    assert self_discharge_wh(10.0, 0.001, 100 * month_ms, 0.025) == pytest.approx(0.01)


@given(
    charge=st.floats(0.01, 1.0),
    wh=st.floats(0.5, 50.0),
    watts=st.floats(0.05, 20.0),
)
def test_spending_until_empty_spends_what_was_there(charge: float, wh: float, watts: float) -> None:
    empty_ms = ms_to_empty(charge, 0.0, wh, watts)
    assert empty_ms is not None
    spent = spent_wh(watts, empty_ms)
    assert charge * wh <= spent + 1e-9
    assert spent <= charge * wh + spent_wh(watts, 1)


def test_priors_scale_with_mass() -> None:
    """Eight times the mass: tau doubles, resistance falls to a quarter (model/heat#priors)."""
    light = body_of(CAMERA, CAMERA.set_ups[0], DEFAULTS)
    heavy_camera = Camera.model_validate(camera(mass_g=560))
    heavy = body_of(heavy_camera, heavy_camera.set_ups[0], DEFAULTS)
    assert light.tau_s == pytest.approx(900.0)
    assert light.resistance_k_per_w == pytest.approx(14.0)
    assert heavy.tau_s == pytest.approx(1800.0)
    assert heavy.resistance_k_per_w == pytest.approx(3.5)
    assert heavy.sun_k_per_w_m2 == pytest.approx(light.sun_k_per_w_m2)


def test_full_sun_on_a_small_camera() -> None:
    """1000 W/m2 x 0.9 x 12 cm2 = 1.08 W; x 14 K/W = 15.12 K."""
    body = body_of(CAMERA, CAMERA.set_ups[0], DEFAULTS)
    assert body.sun_k_per_w_m2 * 1000 == pytest.approx(15.12)


def test_measured_figures_come_before_priors() -> None:
    known = Camera.model_validate(
        camera(set_ups=[set_up(tau_s=600, case_factor=1.4)], limits={"stop_c": 62, "restart_c": 50})
    )
    body = body_of(known, known.set_ups[0], DEFAULTS)
    assert (body.tau_s, body.case_factor, body.limits.stop_c) == (600.0, 1.4, 62.0)


@given(a=st.floats(0.0, 2.0), slow=st.floats(0.0, 30.0), more=st.floats(0.0, 30.0))
def test_more_air_never_warms(a: float, slow: float, more: float) -> None:
    body = replace(body_of(CAMERA, CAMERA.set_ups[0], DEFAULTS), air_a=a)
    assert 0.25 <= shedding(body, slow + more) <= shedding(body, slow) <= 1.0


def test_thin_air_sheds_less() -> None:
    """At 4200 m q = exp(-0.5) = 0.6065: still rises and lags x q^-0.3 = 1.1618, a x q^0.2 = 0.9048.

    In 9 m/s 1 / (1 + 0.8 x 0.9048 x 3) = 0.3154, so g = 0.3663; at the sea 1 / 3.4 = 0.2941.
    """
    body = body_of(CAMERA, CAMERA.set_ups[0], DEFAULTS)
    assert shedding(body, 0.0, 4200.0) == pytest.approx(1.16183, abs=1e-5)
    assert shedding(body, 9.0, 4200.0) == pytest.approx(0.36632, abs=1e-5)
    assert shedding(body, 9.0) == pytest.approx(1 / 3.4)


def test_however_it_blows_a_quarter_is_left() -> None:
    """1 / (1 + 0.8 x 5) = 0.2 at 25 m/s; 0.25 is the least, before the height."""
    body = body_of(CAMERA, CAMERA.set_ups[0], DEFAULTS)
    assert shedding(body, 25.0) == 0.25
    assert shedding(body, 25.0, 4200.0) == pytest.approx(0.25 * 1.16183, abs=1e-5)


@given(height=st.floats(0.0, 8000.0), more=st.floats(0.0, 2000.0), air=st.floats(0.0, 30.0))
def test_higher_is_never_cooler(height: float, more: float, air: float) -> None:
    body = body_of(CAMERA, CAMERA.set_ups[0], DEFAULTS)
    assert shedding(body, air, height + more) >= shedding(body, air, height)


def test_a_set_up_has_a_lag_factor_of_its_own() -> None:
    cased = SetUp(id="cased", name="Cased", case_factor=1.4, lag_factor=1.5, tau_s=600.0)
    assert body_of(CAMERA, cased, DEFAULTS).tau_s == 900.0


@given(
    start=st.floats(-20.0, 69.0),
    level=st.floats(-20.0, 150.0),
    tau=st.floats(60.0, 3000.0),
    target=st.floats(-15.0, 120.0),
)
def test_the_body_is_at_the_level_when_it_says(
    start: float, level: float, tau: float, target: float
) -> None:
    reached = ms_to_level(start, level, target, tau)
    if reached is None:
        between = min(start, level) < target < max(start, level)
        assert not between or abs(level - target) < 1e-6 or abs(start - target) < 1e-6
        return
    after = temperature_after(start, level, tau, reached)
    before = temperature_after(start, level, tau, reached - 1)
    rising = level > start
    assert (after >= target - 1e-6) if rising else (after <= target + 1e-6)
    assert (before <= target + 1e-3) if rising else (before >= target - 1e-3)


def test_a_level_equal_to_the_target_is_never_reached() -> None:
    assert ms_to_level(20.0, 70.0, 70.0, 900.0) is None


def test_one_lag_covers_63_per_cent_of_the_way() -> None:
    after = temperature_after(20.0, 120.0, 900.0, 900_000)
    assert after == pytest.approx(20.0 + 100.0 * (1.0 - math.exp(-1.0)))


def test_a_clip_counts_whole_bytes() -> None:
    assert clip_bytes(10, 1999) == 19
    assert ms_to_full(10, 20) == 2000
    assert ms_to_full(0, 20) is None


def test_fixed_memory_loses_what_it_reserves() -> None:
    own = Camera.model_validate(camera(memory={"kind": "fixed", "gb": 64, "reserved_gb": 4}))
    assert own.memory.kind == "fixed"
    assert fixed_store(own, own.memory, DEFAULTS).usable_bytes == 59_040_000_000
    assert usable_bytes(1, 5.0, DEFAULTS) == 0


@pytest.mark.parametrize(
    ("gb", "chapter", "largest"),
    [
        (32, None, FAT32_LARGEST_FILE),
        (32, 4.0, 4_000_000_000),
        (32, 12.0, FAT32_LARGEST_FILE),
        (64, None, None),
        (64, 4.0, 4_000_000_000),
    ],
)
def test_chapters_follow_the_card_and_the_camera(
    gb: int, chapter: float | None, largest: int | None
) -> None:
    own = Camera.model_validate(camera(chapter_gb=chapter))
    assert largest_file(gb, own) == largest


def test_files_of_a_clip() -> None:
    assert [files_of(size, 4) for size in (0, 1, 4, 5, 12, 13)] == [1, 1, 1, 2, 3, 4]
    assert files_of(10**12, None) == 1


@pytest.mark.parametrize(
    ("speed_class", "mbps", "keeps_up"),
    [("U1", 54.0, True), ("U1", 56.0, False), ("V30", 160.0, True), ("C10", 56.0, False)],
)
def test_a_card_must_sustain_the_peak(speed_class: str, mbps: float, keeps_up: bool) -> None:
    """U1 sustains 9 MB/s; 54 Mbit/s peaks at (54 x 1.3 + 0.192)/8 x 1.01 = 8.887 MB/s."""
    store = card_store(Card(id="k", name="K", gb=64, speed_class=speed_class), DEFAULTS)
    asked = Mode.model_validate(mode(mbps=mbps))
    assert store_keeps_up(store, asked, DEFAULTS) is keeps_up


def test_a_measured_peak_is_taken_as_it_is() -> None:
    asked = Mode.model_validate(mode(mbps=50.0, peak_mbps=50.0, audio_mbps=0.0))
    assert peak_byte_rate(asked, DEFAULTS) == math.ceil(50e6 / 8 * 1.01)


def test_a_card_larger_than_the_camera_takes() -> None:
    small = Camera.model_validate(camera(memory={"kind": "slot", "largest_gb": 128}))
    assert card_is_too_large(Card(id="k", name="K", gb=256), small)
    assert not card_is_too_large(Card(id="k", name="K", gb=128), small)
