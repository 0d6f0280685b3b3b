"""Degrees, ways, heights, speeds and masses, in the measures that whoever reads them is used to.

Everything is reckoned and kept in SI; only sentences are told in the measures chosen.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from typing import Literal, get_args

Measures = Literal["metric", "imperial"]

F_PER_K = 1.8
F_AT_0_C = 32.0
G_PER_OZ = 28.349523125  # exactly, by definition
_chosen: ContextVar[Measures] = ContextVar("measures", default="metric")


def measures_of(text: str | None) -> Measures:
    """The measures that a text names; metric where it names none."""
    return next((one for one in get_args(Measures) if one == text), "metric")


def chosen() -> Measures:
    """The measures that sentences are told in here."""
    return _chosen.get()


@contextmanager
def told_in(measures: Measures) -> Iterator[None]:
    """Tell sentences in these measures from here on, within."""
    token = _chosen.set(measures)
    try:
        yield
    finally:
        _chosen.reset(token)


def _imperial() -> bool:
    return _chosen.get() == "imperial"


def degrees(celsius: float, unit: bool = True) -> str:
    """A temperature in whole degrees: "4 °C", "39 °F"; "25°" without its unit's letter."""
    value = celsius * F_PER_K + F_AT_0_C if _imperial() else celsius
    text = f"{value:.0f}".replace("-", "\u2212")
    text = "0" if text == "\u22120" else text
    return f"{text}°" if not unit else f"{text} °{'F' if _imperial() else 'C'}"


def kelvins(difference_k: float) -> str:
    """A difference of temperatures in whole degrees: "5 K", "9 °F"."""
    return f"{difference_k * F_PER_K:.0f} °F" if _imperial() else f"{difference_k:.0f} K"


def kelvins_per_watt(rise: float, digits: int = 1) -> str:
    """A rise for each watt: "9.5 K/W", "17.1 °F/W"."""
    return f"{rise * F_PER_K:.{digits}f} °F/W" if _imperial() else f"{rise:.{digits}f} K/W"


def grams(mass_g: float) -> str:
    """A mass: "120 g", "4.2 oz"."""
    return f"{mass_g / G_PER_OZ:.1f} oz" if _imperial() else f"{mass_g:.0f} g"


def one_metre_a_second() -> str:
    """What an airflow of 1 m/s is called."""
    return "2.2 mph" if _imperial() else "1 m/s"
