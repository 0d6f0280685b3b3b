"""Light, shutter, filter, gain and slowing of one camera on one leg, each with its arithmetic."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from .document import (
    Assignment,
    Camera,
    EditingComputer,
    Interval,
    Item,
    Mode,
    PlanDocument,
    Preset,
    Trip,
    Windows,
)
from .document.base import Part
from .exposure import (
    dark_below_lx,
    daylight_lx,
    filter_stops,
    gain_iso,
    half_interval_s,
    lens_ev,
    light_ev,
    nearest_filter,
    slowing,
)
from .light import STEP_MS
from .parameters import DEFAULTS, Defaults
from .patterns import Span
from .rehearsal.trip.timeline import Timeline
from .rehearsal.trip.windows import window_spans
from .wording import picture as words

SumOf = Literal["slowing", "least_rate", "shutter", "light", "filter", "low_light", "editing"]


class Sum(Part):
    """One answer in words, how it was reckoned, and whether it is as wanted."""

    what: SumOf
    text: str
    how: str
    good: bool = True


class PictureTold(Part):
    """What one camera's picture wants on one leg or stop."""

    camera: str
    item: str
    sums: tuple[Sum, ...]


@dataclass(frozen=True, slots=True)
class Lens:
    """What a mode and its preset put before the light: aperture, shutter [s], gains [ISO].

    Shutter and bias may be ranges: the brightest light meets the shortest time and the largest
    bias, the darkest the longest time and the least (model/light#preset).
    """

    f_number: float
    shortest_s: float
    longest_s: float
    base_iso: float
    most_iso: float
    fitted_stops: float
    biased_ev: float
    bright_bias_ev: float


@dataclass(frozen=True, slots=True)
class LegLight:
    """Light on a leg or stop, its least and most: sun heights [deg], lux, exposure values."""

    low_deg: float
    high_deg: float
    low_lx: float
    high_lx: float

    @property
    def low_ev(self) -> float:
        """The darkest exposure value."""
        return light_ev(self.low_lx)

    @property
    def high_ev(self) -> float:
        """The brightest exposure value."""
        return light_ev(self.high_lx)


def preset_of(camera: Camera, asked: Assignment | None) -> Preset | None:
    """The preset that a stretch uses; None without one, or when the camera has it no more."""
    key = None if asked is None else asked.preset
    return next((one for one in camera.presets if one.id == key), None)


def lens_of(camera: Camera, mode: Mode, preset: Preset | None, defaults: Defaults) -> Lens:
    """Aperture, shutter and gains by the camera and its preset, else what is typical.

    Source: model/light#preset.
    """
    shortest_s, longest_s = _shutters(mode, preset, defaults)
    least = camera.base_iso or defaults.base_iso.value
    most = camera.most_iso or defaults.most_iso.value
    biases = [0.0]
    if preset is not None:
        least = max(least, preset.least_gain_iso or least)
        most = preset.most_gain_iso or most
        to_ev = preset.exposure_to_ev
        biases = [preset.exposure_ev, preset.exposure_ev if to_ev is None else to_ev]
    return Lens(
        f_number=camera.f_number or defaults.f_number.value,
        shortest_s=shortest_s,
        longest_s=longest_s,
        base_iso=least,
        most_iso=most,
        fitted_stops=preset.filter_stops if preset else 0.0,
        biased_ev=min(biases),
        bright_bias_ev=max(biases),
    )


def _shutters(mode: Mode, preset: Preset | None, defaults: Defaults) -> tuple[float, float]:
    """The shortest and the longest time [s] that a preset allows; half the interval without one."""
    half_s = half_interval_s(mode.fps)
    if preset is None or preset.shutter_per_s is None or preset.shutter_is == "follows":
        return half_s, half_s
    chosen_s = 1.0 / preset.shutter_per_s
    if preset.shutter_is == "or_shorter":
        return min(chosen_s, defaults.shortest_shutter_s.value), chosen_s
    if preset.shutter_is == "or_longer":
        return chosen_s, max(chosen_s, 1.0 / mode.fps)
    return chosen_s, chosen_s


def light_on(line: Timeline, item: Item, spans: Sequence[Span] = ()) -> LegLight | None:
    """The least and most light of a leg or stop by its sun and sky; None without a place.

    Of some times [ms] of it where such are given.
    """
    if line.sun is None:
        return None
    heights = _sun_on(line, item, spans)
    low, high = min(heights), max(heights)
    return LegLight(low, high, daylight_lx(low, item.sky), daylight_lx(high, item.sky))


def filmed_at(trip: Trip, line: Timeline, asked: Assignment | None) -> list[Span]:
    """The windows [ms] in which a leg is filmed; none given where it is all of it."""
    if asked is None or not isinstance(asked.pattern, Windows):
        return []
    part = line.by_id[asked.item]
    return window_spans(asked.pattern, trip, line, (part.start_ms, part.end_ms))


def dark_share(line: Timeline, item: Item, lens: Lens, spans: Sequence[Span] = ()) -> float:
    """Share of a leg's steps whose light wants more than the most gain; 0 without a place.

    Of some times [ms] of it where such are given.
    """
    if line.sun is None:
        return 0.0
    needs_lx = dark_below_lx(lens.f_number, lens.longest_s, lens.most_iso)
    needs_lx *= float(2.0 ** (lens.fitted_stops + lens.biased_ev))
    steps = _sun_on(line, item, spans)
    return sum(daylight_lx(each, item.sky) < needs_lx for each in steps) / len(steps)


def _sun_on(line: Timeline, item: Item, spans: Sequence[Span]) -> list[float]:
    """Heights of the sun [deg] at the steps that a leg or stop, or some times of it, touch."""
    assert line.sun is not None
    part = line.by_id[item.id]
    found: list[float] = []
    for start_ms, end_ms in spans or [(part.start_ms, part.end_ms)]:
        first = (start_ms + line.into_ms) // STEP_MS
        last = (end_ms - 1 + line.into_ms) // STEP_MS
        found += line.sun.height_deg[first : last + 1]
    return found


def _gain(lens: Lens, lux: float) -> float:
    seen_ev = light_ev(lux) - lens.fitted_stops - lens.biased_ev
    return gain_iso(seen_ev, lens.f_number, lens.longest_s)


def picture_told(
    document: PlanDocument,
    line: Timeline,
    camera: Camera,
    item: Item,
    defaults: Defaults = DEFAULTS,
) -> PictureTold:
    """Everything reckoned for a camera on a leg, as asked there or by its first mode."""
    plan = document.plan
    known = (a for a in plan.assignments if a.camera == camera.id and a.item == item.id)
    asked = next(known, None)
    preset = preset_of(camera, asked)
    mode = next((m for m in camera.modes if asked and m.id == asked.mode), camera.modes[0])
    lens = lens_of(camera, mode, preset, defaults)
    frames = asked is not None and isinstance(asked.pattern, Interval)
    sums: list[Sum] = [] if frames else [*_rates(camera, mode, preset, plan.delivery_fps)]
    sums.append(_shutter(mode, preset))
    light = light_on(line, item, filmed_at(document.trip, line, asked))
    if light is None:
        sums.append(Sum(what="light", text=words.NO_PLACE, how="", good=False))
    else:
        sums += [_light(light, item), _filter(light, lens), _low_light(light, lens)]
    if plan.editing is not None and not frames:
        sums.append(_editing(mode, plan.editing, preset))
    return PictureTold(camera=camera.id, item=item.id, sums=tuple(sums))


def _rates(camera: Camera, mode: Mode, preset: Preset | None, film: float) -> list[Sum]:
    factor = slowing(mode.fps, film)
    how = f"{mode.fps:g} / {film:g} = {factor:.3g}"
    sums = [Sum(what="slowing", text=words.slowing(factor), how=how, good=factor >= 0.99)]
    if preset is not None and preset.slowing is not None:
        least = preset.slowing * film
        modes = [one.name for one in camera.modes if one.fps >= least - 0.01 * least]
        sums.append(
            Sum(
                what="least_rate",
                text=words.least_rate(preset.slowing, least, modes),
                how=f"{preset.slowing:g} × {film:g} = {least:g}",
                good=mode.fps >= least - 0.01 * least,
            )
        )
    return sums


def _shutter(mode: Mode, preset: Preset | None) -> Sum:
    half = f"1 / (2 × {mode.fps:g}) = 1/{2 * mode.fps:g} s"
    kind = preset.shutter_is if preset is not None else "exact"
    if kind == "follows":
        return Sum(what="shutter", text=words.following_shutter(2.0 * mode.fps), how=half)
    chosen = preset.shutter_per_s if preset is not None else None
    if chosen is None:
        return Sum(what="shutter", text=f"1/{2 * mode.fps:g} s", how=half)
    if kind != "exact":
        text = words.ranged_shutter(chosen, shorter=kind == "or_shorter")
        return Sum(what="shutter", text=text, how=half)
    near = 0.6 <= chosen / (2.0 * mode.fps) <= 1.7
    text = words.chosen_shutter(chosen, mode.fps)
    return Sum(what="shutter", text=text, how=half, good=near)


def _light(light: LegLight, item: Item) -> Sum:
    return Sum(
        what="light",
        text=words.span("EV", light.low_ev, light.high_ev),
        how=words.light_how(light.low_deg, light.high_deg, light.low_lx, light.high_lx, item.sky),
    )


def wanted_stops(light: LegLight, lens: Lens) -> float:
    """Neutral density that the brightest light wants [stops], of parts rounded as they are told."""
    ev, taken = round(light.high_ev - lens.bright_bias_ev, 1), round(_taken_ev(lens), 1)
    return round(filter_stops(ev, taken, lens.base_iso), 1)


def _taken_ev(lens: Lens) -> float:
    return lens_ev(lens.f_number, lens.shortest_s)


def _filter(light: LegLight, lens: Lens) -> Sum:
    stops = wanted_stops(light, lens)
    fits = nearest_filter(stops)
    return Sum(
        what="filter",
        text=words.filter_text(fits, stops, lens.fitted_stops),
        how=words.filter_how(
            light.high_ev - lens.bright_bias_ev,
            lens.f_number,
            lens.shortest_s,
            _taken_ev(lens),
            lens.base_iso,
            stops,
        ),
        good=abs(lens.fitted_stops - stops) <= 1.5 or (fits == 0 and lens.fitted_stops == 0.0),
    )


def _low_light(light: LegLight, lens: Lens) -> Sum:
    wants = _gain(lens, light.low_lx)
    return Sum(
        what="low_light",
        text=words.low_light(wants, lens.most_iso, lens.base_iso, light.low_deg),
        how=words.low_light_how(
            light.low_ev - lens.biased_ev, lens.f_number, lens.longest_s, lens.fitted_stops, wants
        ),
        good=wants <= lens.most_iso,
    )


def _editing(mode: Mode, computer: EditingComputer, preset: Preset | None) -> Sum:
    mine = mode.width_px * mode.height_px * mode.fps / 1e6
    takes = computer.width_px * computer.height_px * computer.fps / 1e6
    over = over_editing(mode, computer, preset)
    how = f"{mode.width_px} × {mode.height_px} × {mode.fps:g} = {mine:.0f} of {takes:.0f} Mpx/s"
    return Sum(what="editing", text=words.editing(over), how=how, good=not over)


def over_editing(mode: Mode, computer: EditingComputer, preset: Preset | None = None) -> str:
    """In what a mode, as a preset sets it, is more than the computer takes; else empty."""
    codec = preset.codec if preset is not None else None
    if codec is not None and computer.codecs and codec not in computer.codecs:
        return f"codec, {codec.upper()}"
    pixels = mode.width_px * mode.height_px * mode.fps
    if pixels > computer.width_px * computer.height_px * computer.fps:
        return "picture size and rate"
    if computer.mbps is not None and mode.video_mbps > computer.mbps:
        return "bitrate"
    return ""
