"""Sentences in metric and imperial measures."""

from __future__ import annotations

import pytest

from tumbrel.core.measures import (
    degrees,
    grams,
    kelvins,
    kelvins_per_watt,
    measures_of,
    one_metre_a_second,
    told_in,
)
from tumbrel.core.rehearsal.camera.causes import Cause
from tumbrel.core.wording.findings import finding_words
from tumbrel.core.wording.gaps import gap_words

COLD = {"battery": "A4", "stop": "Camp", "cell_c": -22}


def test_fahrenheit_is_that_of_the_tables() -> None:
    with told_in("imperial"):
        told = [degrees(celsius) for celsius in (-40.0, -22.0, 0.0, 37.0, 100.0)]
        assert told == ["\u221240 °F", "\u22128 °F", "32 °F", "99 °F", "212 °F"]
        assert (kelvins(5.0), kelvins_per_watt(10.0), grams(100.0)) == (
            "9 °F",
            "18.0 °F/W",
            "3.5 oz",
        )
        assert one_metre_a_second() == "2.2 mph"


def test_nothing_is_minus_zero() -> None:
    assert degrees(-0.3) == "0 °C"
    with told_in("imperial"):
        assert degrees(-17.9) == "0 °F"


def test_findings_and_gaps_are_told_in_what_was_chosen_and_only_there() -> None:
    with told_in("imperial"):
        assert "lies at \u22128 °F at Camp: below 32 °F, don't charge" in finding_words(
            "cold_to_charge", COLD
        )
        assert gap_words(Cause.HOT, "", 62.0, fixed_memory=False) == "too hot, 144°"
    assert "lies at \u221222 °C at Camp: below 0 °C" in finding_words("cold_to_charge", COLD)
    assert gap_words(Cause.HOT, "", 62.0, fixed_memory=False) == "too hot, 62°"


@pytest.mark.parametrize("text", [None, "", "furlongs", "IMPERIAL"])
def test_what_names_no_measures_is_metric(text: str | None) -> None:
    assert measures_of(text) == "metric"
    assert measures_of("imperial") == "imperial"
