"""Sums of energy and heat."""

from __future__ import annotations

from ..charging import MS_PER_HOUR, Intake
from ..cold import cold_curve
from ..document import BatteryFamily, Camera, CardSlot, DrawInWatts, Kit, Mode, SetUp
from ..energy import nominal_wh
from ..heat import body_of, shedding
from ..measures import degrees, grams, kelvins_per_watt
from ..parameters import Defaults
from ..shelf import Cord, ShelfQuestion, mode_runtimes
from ..wording.sums import minutes_text, number
from ..wording.units import per_cent
from .answer import Rope, SumTold
from .questions import Charge, FromBank, Lasts

ENDS = {
    "empty": "empty",
    "cold": "empty in the cold",
    "hot": "too hot",
    "card_full": "card full",
    "clip_limit": "clip limit",
}
LONGEST_MIN = 48 * 60
KNOWN_SHARE = 0.8  # up to which a charging time is known


def lasts(question: Lasts, defaults: Defaults) -> SumTold:
    """By the kit shelf's own reckoning, for a bare camera of that mass.

    Source: model/energy#draw, model/heat#node.
    """
    kit = _kit(question)
    shelf = mode_runtimes(
        ShelfQuestion(kit=kit, ambient_c=question.temp_c, air_mps=question.air_mps), defaults
    )
    (cord,) = shelf.cords
    wh = nominal_wh(question.mah, question.volts)
    minutes = wh / question.watts * 60.0
    return SumTold(
        answer=_lasts_text(cord),
        value=cord.minutes,
        unit="min",
        lines=(
            energy_line(question.mah, question.volts),
            f"{number(wh)} W h / {number(question.watts)} W = {minutes_text(minutes)}, warm",
            *_cold_line(question, defaults),
            _heat_line(question, kit.cameras[0], cord, defaults),
        ),
        assumed=(
            f"heat by mass: {kelvins_per_watt(defaults.resistance_k_per_w.value)} at "
            f"{grams(defaults.reference_mass_g.value)}, unmeasured",
            f"stops at {degrees(cord.stop_c)}; the sun is left out",
        ),
        rope=_charge_rope(question, cord, minutes),
    )


def energy_line(mah: float, volts: float, health: float = 1.0) -> str:
    """Capacity and voltage to energy, as one writes it."""
    worn = "" if health == 1.0 else f" × {number(health)}"
    wh = nominal_wh(mah, volts, health)
    return f"{number(mah)} mA h × {number(volts)} V / 1000{worn} = {number(wh)} W h"


def _kit(question: Lasts) -> Kit:
    """One camera in one mode, on one family of batteries."""
    family = BatteryFamily(id="a", name="A", mah=question.mah, nominal_v=question.volts)
    mode = Mode(
        id="m",
        name="mode",
        width_px=1920,
        height_px=1080,
        fps=30.0,
        video_mbps=1.0,
        draw=DrawInWatts(watts=question.watts),
    )
    camera = Camera(
        id="c",
        name="camera",
        mass_g=question.mass_g,
        battery_family="a",
        memory=CardSlot(largest_gb=8192),
        set_ups=(SetUp(id="s", name="bare"),),
        modes=(mode,),
    )
    return Kit(families=(family,), cameras=(camera,))


def _lasts_text(cord: Cord) -> str:
    if cord.minutes is None or cord.end is None:
        return "It records for more than two days; nothing ends it."
    span = ""
    if cord.low_minutes is not None and cord.high_minutes is not None:
        span = f" ({minutes_text(cord.low_minutes)} to {minutes_text(cord.high_minutes)})"
    text = f"It lasts {minutes_text(cord.minutes)}{span}, then it is {ENDS[cord.end]}."
    if cord.second_minutes is None or cord.second_end is None:
        return text
    second = f" Otherwise {ENDS[cord.second_end]} after {minutes_text(cord.second_minutes)}."
    return text + second


def _cold_line(question: Lasts, defaults: Defaults) -> tuple[str, ...]:
    held = cold_curve(defaults.available).at(question.temp_c)
    if held <= 0.0:
        return ()
    share = round((1.0 - held) * 100)
    at = degrees(question.temp_c)
    return (f"at {at} a cell gives {share} % of its charge; it warms with the body",)


def _heat_line(question: Lasts, camera: Camera, cord: Cord, defaults: Defaults) -> str:
    body = body_of(camera, camera.set_ups[0], defaults)
    g = shedding(body, question.air_mps)
    resistance = kelvins_per_watt(body.resistance_k_per_w)
    air = f" × {number(g)} (air)" if question.air_mps > 0.0 else ""
    rise = f"{resistance} × {number(question.watts)} W{air}"
    return f"{degrees(question.temp_c)} + {rise} = {degrees(cord.steady_c)} in the end"


def _charge_rope(question: Lasts, cord: Cord, minutes: float) -> Rope:
    end = cord.minutes if cord.minutes is not None else float(LONGEST_MIN)
    left = max(0.0, 1.0 - end / minutes)
    bottom = ENDS[cord.end] if cord.end else "goes on"
    return Rope(
        kind="charge",
        minutes=(0.0, end),
        level=(1.0, left),
        top=f"full, {number(nominal_wh(question.mah, question.volts))} W h",
        bottom=f"{bottom}, {round(left * 100)} % left",
    )


def charge(question: Charge, defaults: Defaults) -> SumTold:
    """Constant power, then the taper, in closed form (model/charging#cell)."""
    wh = nominal_wh(question.mah, question.volts)
    rate = KNOWN_SHARE * 60.0 / question.to_80_min
    intake = Intake(wh, rate, defaults.kink.value, defaults.full.value)
    into_w = question.port_w * defaults.charge_efficiency.value
    start, end = question.from_pct / 100.0, question.to_pct / 100.0
    kink = intake.kink_for(into_w)
    minutes = intake.ms_to(start, into_w, end) * 60.0 / MS_PER_HOUR
    times = [minutes * step / 12 for step in range(13)]
    levels = tuple(
        round(intake.charge_after(start, into_w, at * MS_PER_HOUR / 60.0), 4) for at in times
    )
    most = min(into_w, intake.most_w)
    lines = [
        energy_line(question.mah, question.volts),
        f"{number(question.port_w)} W × {number(defaults.charge_efficiency.value)} = "
        f"{number(into_w)} W; the cell takes at most {number(intake.most_w)} W",
    ]
    if start < kink:
        flat_h = (min(kink, end) - start) * wh / most
        lines.append(
            f"({number(min(kink, end) * 100)} − {number(question.from_pct)}) % × {number(wh)} W h"
            f" / {number(most)} W = {minutes_text(flat_h * 60.0)}"
        )
    if end > kink:
        lag_h = (1.0 - intake.kink) / intake.rate_per_h
        lines.append(f"then less and less: lag {minutes_text(lag_h * 60.0)} towards full")
    return SumTold(
        answer=f"From {number(question.from_pct)} to {number(question.to_pct)} % takes "
        f"{minutes_text(minutes)}.",
        value=minutes,
        unit="min",
        lines=tuple(lines),
        assumed=(
            f"charging power over energy {number(intake.rate_per_h)} per hour, taper from "
            f"{per_cent(intake.kink)}",
            f"half of that in a cell below {degrees(defaults.cool_below_c.value)}",
            f"between {degrees(defaults.refuse_cold_c.value)} and "
            f"{degrees(defaults.refuse_hot_c.value)}; outside, don't charge. "
            "Follow the maker's instructions",
        ),
        rope=Rope(
            kind="charge",
            minutes=tuple(times),
            level=levels,
            top=f"{number(question.from_pct)} %",
            bottom=f"{number(question.to_pct)} %",
        ),
    )


def from_bank(question: FromBank, defaults: Defaults) -> SumTold:
    """Nominal energy at the cell's voltage, less conversion and what the cold holds.

    Source: model/charging#bank.
    """
    volts = defaults.bank_v.value
    wh = nominal_wh(question.bank_mah, volts, question.health)
    held = cold_curve(defaults.bank_available, question.health).at(question.temp_c)
    efficiency = defaults.bank_efficiency
    gives = wh * efficiency.value * (1.0 - held)
    battery = nominal_wh(question.mah, question.volts)
    into = gives * defaults.charge_efficiency.value
    count = into / (battery * defaults.full.value)
    low = wh * efficiency.low * (1.0 - held)
    high = wh * efficiency.high * (1.0 - held)
    cold = "" if held <= 0.0 else f" × {number(1.0 - held)} (cold)"
    return SumTold(
        answer=f"It gives {number(gives)} W h ({number(low)} to {number(high)}): "
        f"{number(count)} batteries from empty.",
        value=gives,
        unit="W h",
        lines=(
            energy_line(question.bank_mah, volts, question.health),
            f"{number(wh)} × {number(efficiency.value)}{cold} = {number(gives)} W h at its port",
            f"{energy_line(question.mah, question.volts)} a battery",
            f"{number(gives)} × {number(defaults.charge_efficiency.value)} / ({number(battery)} × "
            f"{number(defaults.full.value)}) = {number(count)}",
        ),
        assumed=(
            f"what it loses in conversion: {round((1 - efficiency.high) * 100)} to "
            f"{per_cent(1 - efficiency.low)}, unmeasured",
            "carriers ask for watt-hours: see their rules above 100 W h",
        ),
        rope=Rope(
            kind="charge",
            minutes=(0.0, 1.0),
            level=(1.0, round(1.0 - gives / wh, 3)),
            top=f"{number(wh)} W h in it",
            bottom=f"{number(wh - gives)} W h never come out",
        ),
    )
