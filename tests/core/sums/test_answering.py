"""Quick sums: each against arithmetic worked by hand, and against the engine itself."""

from __future__ import annotations

import math
from datetime import date
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from tests.build import asks, camera, leg, mode, only, rehearsed
from tumbrel.core.parameters import DEFAULTS
from tumbrel.core.sums import Question, answer_of
from tumbrel.core.sums.questions import (
    Charge,
    Density,
    FromBank,
    FromPanel,
    Lasts,
    LoopFor,
    OnCard,
    Slowing,
    TimeLapse,
    Transfer,
)
from tumbrel.core.wording.sums import minutes_text, number

ASKED: TypeAdapter[Any] = TypeAdapter(Question)


@pytest.mark.parametrize(
    ("question", "value", "unit"),
    [
        # 5.7 W h / 1 W; 14 K over 20 degC never stops it
        (Lasts(watts=1.0, temp_c=25.0), 342.0, "min"),
        # rise 56 K to 76 degC: 900 s x ln(56 / 6) = 2010 s
        (Lasts(), 900 * 2.2336 / 60, "min"),
        # 126.08e9 B / (100.192e6 / 8 x 1.01)
        (OnCard(), 126.08e9 / (100.192e6 / 8 * 1.01) / 60, "min"),
        # 12.649 MB/s x 14400 s / 0.985
        (OnCard(wanted="card"), 100.192e6 / 8 * 1.01 * 14_400 / 0.985 / 1e9, "GB"),
        (LoopFor(), 100.0, "s"),  # 80 x 5 / 4
        (LoopFor(event_s=90, reaction_s=0, segments=2), 180.0, "s"),
        (TimeLapse(), 28.8, "s"),
        (TimeLapse(wanted="interval"), 14.4, "s"),
        (TimeLapse(wanted="event"), 500 * 10 / 60, "min"),
        # 0 to 80 % at 1 per hour 48 min, to 99 % 83.9 min; with 2.5 W into it 150.9 min
        (Charge(from_pct=0, to_pct=80, port_w=10, to_80_min=48), 48.0, "min"),
        (Charge(from_pct=0, to_pct=99, port_w=10, to_80_min=48), 83.9, "min"),
        (Charge(from_pct=0, to_pct=99, port_w=2.5 / 0.9, to_80_min=48), 150.9, "min"),
        (Charge(from_pct=0, to_pct=80, port_w=20, to_80_min=25), 25.0, "min"),
        (FromBank(temp_c=25.0), 10 * 3.7 * 0.85, "W h"),
        (FromBank(temp_c=-20.0, health=0.9), 10 * 3.7 * 0.85 * (0.9 - 0.25), "W h"),
        (Slowing(), 4.8, "times"),
        (Slowing(fps=24, film_fps=24), 1.0, "times"),
        # 78 000 lx is EV 14.93; 2.8 squared x 60 is EV 8.88
        (Density(), 6.05, "stops"),
        (Density(iso=400), 8.05, "stops"),
        (Transfer(), 64_000 / 30 / 60, "min"),
        (Transfer(read_mb_s=20), 64_000 / 20 / 60, "min"),
    ],
)
def test_an_answer_by_hand(question: Any, value: float, unit: str) -> None:
    answer = answer_of(question)
    assert answer.value == pytest.approx(value, rel=2e-3)
    assert answer.unit == unit
    assert answer.answer.endswith(".")
    assert answer.lines


def test_how_long_it_lasts_is_what_the_rehearsal_says() -> None:
    """The same camera filmed on a leg in 20 degC still air: too hot at the same second."""
    warm = {"temp_start_c": 20.0, "temp_end_c": 20.0}
    cam = camera(mass_g=70, modes=[mode(watts=4.0, rise_k=None)])
    way = rehearsed([leg("way", 7200, **warm)], [asks("cam", "way")], [cam])
    (first, *_) = only(way).gaps
    assert str(first.cause) == "hot"
    minutes = answer_of(Lasts()).value
    assert minutes is not None
    assert first.start_ms / 60_000 == pytest.approx(minutes, abs=0.02)


def test_a_panel_by_the_days_length_and_side() -> None:
    """At the equator on an equinox the sun goes overhead: Haurwitz over 12 h of a sine."""
    steps = [math.sin(math.pi * (n + 0.5) / 1200) for n in range(1200)]
    kwh = sum(1.098 * each * math.exp(-0.057 / each) for each in steps) * 12 / 1200
    level = answer_of(FromPanel(latitude=0.0, day=date(2027, 3, 20), sky=1.0, rated_w=10.0))
    assert level.value == pytest.approx(10.0 * kwh * 0.60, rel=0.01)
    assert "over 12 h of sun" in level.lines[0]
    north = answer_of(FromPanel(latitude=55.0, day=date(2027, 12, 21), tilt_deg=60.0))
    south = answer_of(FromPanel(latitude=-55.0, day=date(2027, 6, 21), tilt_deg=60.0))
    flat = answer_of(FromPanel(latitude=55.0, day=date(2027, 12, 21)))
    assert north.value == pytest.approx(south.value, rel=0.15)  # the sun is farther in June
    assert north.value is not None
    assert flat.value is not None
    assert north.value > 1.5 * flat.value
    night = answer_of(FromPanel(latitude=80.0, day=date(2027, 12, 21)))
    assert night.value == 0.0
    assert max(night.rope.level) == 0.0


def test_nothing_ends_a_mode_that_drinks_nearly_nothing() -> None:
    answer = answer_of(Lasts(watts=0.05))
    assert answer.value is None
    assert "nothing ends it" in answer.answer


def test_no_filter_where_there_is_no_light_to_spare() -> None:
    dusk = answer_of(Density(sun_deg=-6.0, fps=120))
    assert dusk.answer.startswith("No filter")
    assert "short" in dusk.answer


def test_a_card_larger_than_any_is_several() -> None:
    assert "take several" in answer_of(OnCard(wanted="card", mbps=2000, hours=100)).answer


@given(st.floats(1.0, 5000.0), st.floats(0.1, 3600.0), st.floats(1.0, 240.0))
def test_any_two_of_a_time_lapse_give_the_third_back(
    event_min: float, every_s: float, fps: float
) -> None:
    first = answer_of(TimeLapse(event_min=event_min, every_s=every_s, fps=fps)).value
    assert first is not None
    if not 1e-3 < first <= 36_000.0:
        return
    again = TimeLapse(wanted="event", every_s=every_s, playback_s=first, fps=fps)
    assert answer_of(again).value == pytest.approx(event_min, rel=1e-6)


@given(st.floats(-30.0, 45.0), st.floats(0.0, 20.0), st.floats(0.0, 10.0))
def test_more_air_never_shortens_in_the_heat(temp_c: float, air: float, more: float) -> None:
    warm = max(temp_c, 25.0)
    less, most = (
        answer_of(Lasts(temp_c=warm, air_mps=each)).value or 3000.0 for each in (air, air + more)
    )
    assert most >= less - 1e-6


@given(st.floats(0.0, 90.0), st.floats(1.0, 9.0), st.floats(0.2, 60.0))
def test_a_stronger_port_never_takes_longer(start: float, more: float, port: float) -> None:
    slow = answer_of(Charge(from_pct=start, to_pct=start + more, port_w=port)).value
    fast = answer_of(Charge(from_pct=start, to_pct=start + more, port_w=port * 1.5)).value
    assert slow is not None
    assert fast is not None
    assert fast <= slow + 1e-3


@pytest.mark.parametrize(
    ("question", "why"),
    [
        ({"kind": "charge", "from_pct": 80, "to_pct": 20}, "must be more than it has already"),
        ({"kind": "lasts", "watts": 0}, "greater than or equal to 0.001"),
        ({"kind": "panel", "latitude": 91}, "less than or equal to 90"),
        ({"kind": "unknown"}, "does not match any of the expected tags"),
    ],
)
def test_what_cannot_be_reckoned_is_refused(question: dict[str, Any], why: str) -> None:
    with pytest.raises(ValidationError, match=why):
        ASKED.validate_python(question)


def test_every_first_value_is_answered_with_a_rope() -> None:
    for name in DEFAULT_KINDS:
        rope = answer_of(ASKED.validate_python({"kind": name}), DEFAULTS).rope
        assert len(rope.minutes) == len(rope.level) > 1
        assert all(0.0 <= level <= 1.0 for level in rope.level)
        assert list(rope.minutes) == sorted(rope.minutes)


DEFAULT_KINDS = (
    "lasts",
    "card",
    "loop",
    "timelapse",
    "charge",
    "bank",
    "panel",
    "slowing",
    "density",
    "transfer",
)


@pytest.mark.parametrize(
    ("value", "text"),
    [
        (0.0, "0"),
        (5.7, "5.7"),
        (12.649, "12.6"),
        (166.12, "166"),
        (1500.0, "1500"),
        (10_000.0, "10\u202f000"),
        (-6.054, "\u22126.05"),
        (0.912, "0.912"),
    ],
)
def test_numbers_have_no_more_digits_than_they_deserve(value: float, text: str) -> None:
    assert number(value) == text


@pytest.mark.parametrize(
    ("minutes", "text"),
    [(0.5, "30 s"), (2.0, "2 min"), (59.4, "59 min"), (125.0, "2 h 05"), (4500.0, "3 days 3 h")],
)
def test_lengths_of_time_in_words(minutes: float, text: str) -> None:
    assert minutes_text(minutes) == text
