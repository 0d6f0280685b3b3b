"""Sums of light: panel, slowing, neutral density."""

from __future__ import annotations

from datetime import date

from ..charging import panel_w
from ..exposure import (
    daylight_lx,
    filter_stops,
    half_interval_s,
    lens_ev,
    light_ev,
    nearest_filter,
    slowing,
)
from ..light import STEP_MS, STEPS_A_DAY, sun_table, tilted_w_m2
from ..parameters import Defaults
from ..wording import picture as words
from ..wording.sums import number
from ..wording.units import per_cent
from .answer import Rope, SumTold
from .questions import Density, FromPanel, Slowing

EPOCH = date(1970, 1, 1)
STEP_H = STEP_MS / 3_600_000


def from_panel(question: FromPanel, defaults: Defaults) -> SumTold:
    """The day's clear sky by Haurwitz on the panel's plane, times sky and losses.

    Source: model/sources#gives.
    """
    first = (question.day - EPOCH).days * STEPS_A_DAY
    if question.tilt_deg > 0.0:
        south = 180.0 if question.latitude >= 0.0 else 0.0
        where = (question.latitude, 0.0, 0.0)
        light = tilted_w_m2(*where, first, STEPS_A_DAY, question.tilt_deg, south)
    else:
        light = sun_table(question.latitude, 0.0, 0.0, first, STEPS_A_DAY).irradiance_w_m2
    watts = [
        panel_w(question.rated_w, each, question.sky, defaults.panel_share.value) for each in light
    ]
    clear_kwh_m2 = sum(light) * STEP_H / 1000.0
    wh = sum(watts) * STEP_H
    best = max(watts)
    lit_h = sum(each > 0.0 for each in light) * STEP_H
    share = number(defaults.panel_share.value)
    return SumTold(
        answer=f"It gives {number(wh)} W h that day, at most {number(best)} W.",
        value=wh,
        unit="W h",
        lines=(
            f"clear sky over {number(lit_h)} h of sun: {number(clear_kwh_m2)} kW h on 1 m²",
            f"{number(question.rated_w)} W × {number(clear_kwh_m2)} h × "
            f"{number(question.sky)} (sky) × {share} (panel) = {number(wh)} W h",
        ),
        assumed=(
            "out all day, unshaded, tilted towards the equator; at sea level",
            f"{per_cent(defaults.panel_share.value)} of what is rated, by warmth and angle",
        ),
        rope=Rope(
            kind="light",
            minutes=tuple(step * 60.0 for step in range(24)),
            level=tuple(
                round(max(watts[6 * hour : 6 * hour + 6]) / best, 3) if best > 0.0 else 0.0
                for hour in range(24)
            ),
            top="00:00 by the sun",
            bottom="24:00",
        ),
    )


def slowed(question: Slowing) -> SumTold:
    """Capture rate over the film's rate."""
    factor = slowing(question.fps, question.film_fps)
    return SumTold(
        answer=f"{words.slowing(factor)[0].upper()}{words.slowing(factor)[1:]}.",
        value=factor,
        unit="times",
        lines=(f"{number(question.fps)} / {number(question.film_fps)} = {number(factor)}",),
        assumed=("slowed footage has no sound of its own",),
        rope=Rope(
            kind="frames",
            minutes=(0.0, 1.0, max(1.0, factor)),
            level=(1.0, 1.0, 1.0),
            top="one second of life",
            bottom=f"{number(factor)} s of film",
        ),
    )


def density(question: Density) -> SumTold:
    """Light less what lens and shutter take, in stops (ISO 2720; Janiczek and DeYoung)."""
    shutter_s = half_interval_s(question.fps)
    lux = daylight_lx(question.sun_deg, question.sky)
    ev, taken = light_ev(lux), lens_ev(question.f_number, shutter_s)
    stops = filter_stops(ev, taken, question.iso)
    fits = nearest_filter(stops)
    if fits == 0:
        short = f" It is {number(-stops)} stops short." if stops < -0.5 else ""
        answer = f"No filter: there is no light to spare.{short}"
    else:
        noun = "stop" if fits == 1 else "stops"
        answer = f"{fits} {noun} of neutral density (ND {2**fits}); {number(stops)} would be even."
    return SumTold(
        answer=answer,
        value=stops,
        unit="stops",
        lines=(
            f"shutter 1 / (2 × {number(question.fps)}) = 1/{number(2 * question.fps)} s",
            words.light_how(question.sun_deg, question.sun_deg, lux, lux, question.sky)
            + f" = {number(ev)}",
            words.filter_how(ev, question.f_number, shutter_s, taken, question.iso, stops),
        ),
        assumed=("light on level ground; the shutter is half a frame's interval",),
        rope=Rope(
            kind="light",
            minutes=(0.0, 1.0),
            level=(1.0, min(1.0, 2.0 ** -max(0.0, stops))),
            top=f"EV {number(ev)}",
            bottom=f"EV {number(ev - max(0.0, stops))} behind it",
        ),
    )
