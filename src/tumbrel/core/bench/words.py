"""The bench in words: what a run says, what is known, and which run is worth doing."""

from __future__ import annotations

import math
from collections.abc import Callable

from ..charging import Intake, minutes_to_80
from ..document import Camera
from ..measures import degrees, kelvins, kelvins_per_watt, one_metre_a_second
from ..wording.units import hours
from .advice import NextRun
from .believed import LearnedFigure
from .contrasts import Contrast
from .runs import BenchRun, RunEnd

ENDS: dict[RunEnd, str] = {
    "empty": "empty",
    "hot": "hot",
    "card_full": "card full",
    "clip_limit": "clip limit",
    "stopped": "stopped by you",
    "both_empty": "both empty",
    "full": "full",
}
PER_CENT_BELOW = 0.35
NEAR = 1.0  # errors within which a run is as expected


def run_words(run: BenchRun, expected_min: float, end: RunEnd, errors: float, outlier: bool) -> str:
    """How a run lies to what all runs together expect."""
    if run.excluded is not None:
        return f"Does not count: {run.excluded}"
    if outlier:
        return (
            f"Far from what the other runs say: {hours(round(run.minutes))}, "
            f"expected {hours(round(expected_min))}. Was something different? "
            "Exclude it with the reason if so."
        )
    if run.charging:
        return _charged_words(run, round(expected_min), errors)
    if run.end in ("empty", "hot", "both_empty"):
        return _ended_words(run, round(expected_min), end, errors)
    return _not_ended_words(run, round(expected_min), end)


def _ended_words(run: BenchRun, foretold: int, end: RunEnd, errors: float) -> str:
    if end == "stopped":
        return f"Ended {ENDS[run.end]}; nothing was expected to end it within two days."
    if run.end != end:
        return f"Ended {ENDS[run.end]}; expected {ENDS[end]} at {hours(foretold)}."
    more = round(run.minutes) - foretold
    if abs(errors) < NEAR or more == 0:
        return "As expected."
    return f"{hours(abs(more))} {'longer' if more > 0 else 'shorter'} than expected."


def _charged_words(run: BenchRun, foretold: int, errors: float) -> str:
    more = round(run.minutes) - foretold
    if abs(errors) < NEAR or more == 0:
        return "Charged as expected."
    return f"Charged {hours(abs(more))} {'slower' if more > 0 else 'faster'} than expected."


def _not_ended_words(run: BenchRun, foretold: int, end: RunEnd) -> str:
    minutes = hours(round(run.minutes))
    if end == "hot" and foretold < run.minutes:
        return f"Not hot by {minutes}, though expected hot at {hours(foretold)}."
    return f"Not hot by {minutes}, as expected."


def contrast_words(one: Contrast, camera: Camera) -> str:
    """What one change did to how long a mode lasted."""
    after = one.after
    mode = next(m.name for m in camera.modes if m.id == after.mode)
    set_up = next(s.name for s in camera.set_ups if s.id == after.set_up)
    what = {"air": "in moving air", "set_up": set_up, "plugged": "plugged in"}[one.what]
    before_min, after_min = (hours(round(run.minutes)) for run in (one.before, after))
    room = degrees(after.ambient_c) + (
        "" if one.what == "air" else ", moving air" if after.air_mps else ", still"
    )
    return f"{mode} {what}: {after_min}, not {before_min} ({room})."


UNKNOWN: dict[str, str] = {
    "lasts_min": "Run {mode} until it is empty, or read its power with a meter.",
    "rise_k": "Run {mode} until it is hot; minutes without heat tell a little.",
    "rise_k_per_w": "Needs a run that ends hot.",
    "tau_s": "Needs two runs that end hot, one sooner and one later.",
    "air_a": "Needs a run in moving air that ends hot or warns: a light fan is enough.",
    "case": "Needs a run with the set-up {set_up} that ends hot or warns.",
    "charge_heat": "Needs a run on outside power that ends hot or warns.",
    "stop_c": "The rooms so far do not part the limit from the rise: "
    "run one test ten degrees warmer or colder.",
    "warn_below_k": "Note the minute of its temperature warning.",
    "store_gives": "Run it on the {of} until both are empty, and note the {of}'s per cent.",
    "rate_per_h": "Note the per cent half way of a charging run, and at its end.",
    "taper": "Charge it from low until it is full, and note its per cent above 70 % twice.",
    "cold_hold": "Run it in the cold until it dies, and note the per cent that it shows then.",
    "fan": "Another run before the same fan, in a mode that ends hot.",
    "pause_c": "Note the minute at which charging pauses.",
    "resume_c": "Note the minute at which charging goes on again.",
    "energy": "Time alone does not part the battery's energy from the draw: a meter would.",
}


def unknown_words(figure: LearnedFigure, camera: Camera) -> str:
    """What cannot be known yet, and which run would tell."""
    of = figure.figure.of
    mode = next((m.name for m in camera.modes if m.id == of), of)
    set_up = next((s.name for s in camera.set_ups if s.id == of), of)
    return UNKNOWN[figure.figure.kind].format(mode=mode, set_up=set_up, of=of)


FIGURES = {
    "lasts_min": "lasts, full battery",
    "rise_k": "warms, still air",
    "rise_k_per_w": "warms for each watt",
    "tau_s": "takes to warm by two thirds",
    "air_a": "shed to {air} of air",
    "case": "heat held",
    "charge_heat": "heat of charging, of typical",
    "stop_c": "stops at",
    "warn_below_k": "warns below its limit by",
    "energy": "energy of a battery, of its label",
    "store_gives": "of the {of}'s label reach it",
    "rate_per_h": "empty to 80 %, by itself",
    "taper": "charges less and less from",
    "cold_hold": "held back by the cold, of typical",
    "fan": "air of the fan, of {of} m/s typed",
    "pause_c": "charging pauses at",
    "resume_c": "and goes on at",
}


def figure_words(figure: LearnedFigure, camera: Camera) -> str:
    """What a figure is."""
    kind, of = figure.figure.kind, figure.figure.of
    parts = camera.set_ups if kind == "case" else camera.modes
    name = next((part.name for part in parts if part.id == of), "")
    return f"{name} {FIGURES[kind].format(air=one_metre_a_second(), of=of)}".strip()


FORMS: dict[str, Callable[[float], str]] = {
    "lasts_min": lambda value: hours(round(value)),
    "rise_k": kelvins,
    "rise_k_per_w": kelvins_per_watt,
    "tau_s": lambda value: f"{value / 60.0:.0f} min",
    "air_a": lambda value: f"{100.0 * (1.0 - 1.0 / (1.0 + value)):.0f} %",
    "case": lambda value: f"× {value:.2f}",
    "charge_heat": lambda value: f"× {value:.2f}",
    "stop_c": degrees,
    "warn_below_k": kelvins,
    "energy": lambda value: f"× {value:.2f}",
    "store_gives": lambda value: f"{100.0 * value:.0f} %",
    "rate_per_h": lambda value: f"{value:.0f} min",
    "taper": lambda value: f"{100.0 * (1.0 - value):.0f} %",
    "cold_hold": lambda value: f"× {value:.2f}",
    "fan": lambda value: f"× {value:.2f}",
    "pause_c": degrees,
    "resume_c": degrees,
}


def value_text(figure: LearnedFigure, value: float, kink: float) -> str:
    """A value of a figure with its unit, in as many digits as it deserves.

    A rate is told as minutes to 80 %, with a taper from a charge `kink` [0..1] on.
    """
    if figure.figure.kind == "rate_per_h":
        value = minutes_to_80(Intake(1.0, value, kink, 1.0))
    return FORMS[figure.figure.kind](value)


def next_words(run: NextRun | None, camera: Camera, on_trip: bool) -> str:
    """The run worth doing, in one sentence."""
    if run is None:
        of = "on this trip" if on_trip else "in a still room"
        return f"No run would tell much more about {camera.name} {of}: do what you like best."
    mode = next(m.name for m in camera.modes if m.id == run.mode)
    about = _about(run, camera)
    before, after = _doubt(run.doubt_before), _doubt(run.doubt_after)
    if 0.4 < run.doubt_after / run.doubt_before < 0.6:
        gain = f"would halve the doubt about {about} ({before} to {after})."
    else:
        gain = f"would take the doubt about {about} from {before} to {after}."
    return f"{_length(run.minutes)} of {mode}, {_where(run, camera)}, {gain}"


def _doubt(spread: float) -> str:
    """A spread of a logarithm: as per cent while that is fair, else as a factor."""
    if spread < PER_CENT_BELOW:
        return f"±{max(1, round(100 * spread))} %"
    return f"a factor of {math.exp(spread):.1f}"


def _length(minutes: float) -> str:
    whole = round(minutes)
    return hours(whole if whole < 20 else 5 * round(whole / 5)).capitalize()


def _where(run: NextRun, camera: Camera) -> str:
    set_up = next(s for s in camera.set_ups if s.id == run.set_up)
    parts = []
    if set_up is not camera.set_ups[0]:
        parts.append(set_up.name)
    if run.plugged and set_up.power == "battery":
        parts.append(f"plugged in from {round(100 * run.charge_start)} %")
    parts.append("in front of a light fan" if run.air_mps else "in still air")
    parts.append(f"at {degrees(run.ambient_c)}")
    return " ".join(parts)


def _about(run: NextRun, camera: Camera) -> str:
    mode = next(m.name for m in camera.modes if m.id == run.mode_wanted)
    if run.item is None:
        return f"{mode} in a still room"
    return f"{mode} on {run.item}"
