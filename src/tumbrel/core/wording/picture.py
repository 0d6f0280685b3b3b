"""Light, shutter and filters in words, and their arithmetic as one writes it."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ..document import Angle

ANGLE_WORDS: dict[Angle, str] = {
    "sight": "what I see",
    "hands": "my hands",
    "face": "my face",
    "shoulder": "over my shoulder",
    "behind": "behind me",
    "ground": "the ground as I pass",
    "under_water": "under water",
    "camp": "camp",
}
NO_PLACE = "not known: the trip has no place; add one under Route"


def slowing(factor: float) -> str:
    """How much slower it can be shown, or that it cannot."""
    if factor < 0.99:
        return "fewer frames than the film has"
    return "as in life" if factor < 1.05 else f"up to {factor:.3g} times slower"


def least_rate(wanted: float, least: float, modes: Sequence[str]) -> str:
    """The rate that a wanted slowing needs, and the modes that have it."""
    have = f"in {', '.join(modes)}" if modes else "no mode of it is that fast"
    return f"{wanted:g} times slower wants {least:g} frames a second: {have}"


def chosen_shutter(per_s: float, fps: float) -> str:
    """The preset's shutter against the half interval."""
    times = per_s / (2.0 * fps)
    if 0.6 <= times <= 1.7:
        return f"1/{per_s:g} s by the preset, near the half interval"
    return f"1/{per_s:g} s by the preset: movement looks {'choppy' if times > 1 else 'smeared'}"


def following_shutter(per_s: float) -> str:
    """A shutter that follows the frame rate."""
    return f"1/{per_s:g} s, which follows the rate"


def ranged_shutter(per_s: float, *, shorter: bool) -> str:
    """A shutter that may be shorter, or longer, than the preset's."""
    return f"1/{per_s:g} s or {'shorter' if shorter else 'longer'} by the preset"


def span(unit: str, low: float, high: float) -> str:
    """A range of exposure values, as one when it is."""
    low_text, high_text = f"{low:.1f}".replace("-", "\u2212"), f"{high:.1f}".replace("-", "\u2212")
    return f"{unit} {low_text}" if low_text == high_text else f"{unit} {low_text} to {high_text}"


def light_how(low_deg: float, high_deg: float, low_lx: float, high_lx: float, sky: float) -> str:
    """Sun and sky to lux to exposure value."""
    through = "" if sky >= 1.0 else f", {round(sky * 100)} % of a clear sky"
    sun = _degrees(low_deg, high_deg)
    lights = lux(low_lx) if lux(low_lx) == lux(high_lx) else f"{lux(low_lx)} to {lux(high_lx)}"
    return f"sun {sun}{through}: {lights} lx; EV = log2(lx / 2.5)"


def _degrees(low: float, high: float) -> str:
    text = f"{low:.0f}°" if round(low) == round(high) else f"{low:.0f}° to {high:.0f}°"
    return text.replace("-", "\u2212")


def lux(value: float) -> str:
    """Lux to two digits."""
    if value >= 10.0:
        digits = 1 - math.floor(math.log10(value))
        return f"{round(value, digits):,.0f}".replace(",", " ")
    return f"{value:.2g}"


def filter_text(fits: int, stops: float, fitted: float) -> str:
    """The filter that fits the brightest light, and what is on the lens."""
    if fits == 0:
        wanted = "none: there is no light to spare"
    else:
        wanted = f"{fits} {'stop' if fits == 1 else 'stops'} of neutral density (ND {2**fits})"
    if fitted == 0.0:
        return wanted
    return f"{wanted}; {fitted:g} fitted, {stops:.1f} wanted".replace("-", "\u2212")


def filter_how(
    ev: float, f_number: float, shutter_s: float, taken: float, base_iso: float, left: float
) -> str:
    """Light less what lens and shutter take."""
    gain = "" if base_iso == 100.0 else f" + log2({base_iso:.0f} / 100)"
    lens = f"log2({f_number:g}² × {1.0 / shutter_s:g})"
    told = f"{ev:.1f} − {lens}{gain} = {ev:.1f} − {taken:.1f} = {left:.1f} stops"
    return f"{told}; snow and salt want up to one more".replace(" -", " \u2212")


def low_light(wants: float, most: float, base: float, low_deg: float) -> str:
    """Whether the darkest light is enough."""
    when = "by night" if low_deg < -6.0 else "in twilight" if low_deg < -0.833 else "at its darkest"
    if wants <= most:
        return f"enough {when}: ISO {iso(max(wants, base))}"
    short = math.log2(wants / most)
    return f"{short:.1f} stops too dark {when} at ISO {iso(most)}: slower rate, or a light"


def iso(value: float) -> str:
    """A gain to two digits."""
    return lux(max(10.0, value))


def low_light_how(ev: float, f_number: float, shutter_s: float, fitted: float, iso: float) -> str:
    """The gain that the darkest light wants."""
    behind = "" if fitted == 0.0 else f" + {fitted:g}"
    lens = f"log2({f_number:g}² × {1.0 / shutter_s:g})"
    sum_text = f"100 × 2^({lens} − {ev:.1f}{behind})".replace("− -", "+ ")
    return f"{sum_text} = ISO {lux(iso)}"


def editing(over: str) -> str:
    """Whether the computer plays it."""
    return f"more than it takes in {over}" if over else "plays it"
