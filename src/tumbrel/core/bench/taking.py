"""Fitted figures into the kit, what that changes, and the way back."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from ..charging import intake_of, minutes_to_80
from ..cold import cold_curve, points_of
from ..document import (
    AvailableAt,
    BatteryFamily,
    Camera,
    DrawByRunTime,
    DrawInWatts,
    DrawNotKnown,
    Limits,
)
from ..document.base import Part
from ..energy import mode_w, nominal_wh
from ..heat import body_of
from ..measures import degrees
from ..mistakes import LEAST_LAG_S
from ..parameters import DEFAULTS, Defaults

if TYPE_CHECKING:
    from collections.abc import Mapping

    from .believed import LearnedFigure
    from .figures import Kind
    from .fit import Learned
    from .notebook import Taken

OF_FAMILY = ("rate_per_h", "taper_from", "available")
COLD_TOLD_C = -20.0
Place = tuple[str, str, str]  # camera, mode or set_up; its key; the field


class Change(Part):
    """One figure of a camera before and after, as words with their unit."""

    figure: str
    before: str
    after: str


def with_learned(camera: Camera, learned: Learned, defaults: Defaults = DEFAULTS) -> Camera:
    """The camera with every figure that the runs taught; what they left open stays as it is.

    Limit, lag, air and case, and the rise for each watt, go along with the rises even where they
    are not known by themselves: they were measured together, and half of them would be wrong. So
    the kit foretells every measured run as the bench does.
    """
    found: dict[Place, Any] = {}
    for mode in camera.modes:
        lasts = learned.of("lasts_min", mode.id)
        if lasts.known:
            minutes = round(lasts.value, 1)
            found["mode", mode.id, "draw"] = DrawByRunTime(minutes=minutes)
        rise = learned.of("rise_k", mode.id)
        if rise.known:
            found["mode", mode.id, "rise_k"] = round(rise.value, 1)
    heated = bool(learned.hot_runs) and any(field == "rise_k" for _, _, field in found)
    resistance, charge = learned.of("rise_k_per_w"), learned.of("charge_heat")
    if resistance.known or heated:
        found["camera", "", "resistance_k_per_w"] = round(resistance.value, 2)
    if charge.known:
        found["camera", "", "charge_heat"] = round(charge.value, 2)
    if learned.of("stop_c").known or heated:
        found["camera", "", "limits"] = _limits(camera, learned.of("stop_c").value, defaults)
    tau, air = learned.of("tau_s"), learned.of("air_a")
    for set_up in camera.set_ups:
        if tau.known or heated:
            found["set_up", set_up.id, "tau_s"] = max(LEAST_LAG_S, float(round(tau.value)))
        if air.known or heated:
            of_typical = air.value / defaults.airflow_a.value
            found["set_up", set_up.id, "case_a"] = round(min(2.0, set_up.case_a * of_typical), 3)
    for set_up in camera.set_ups[1:]:
        case = learned.of("case", set_up.id)
        if case.known or (heated and set_up.id in learned.set_ups):
            found["set_up", set_up.id, "case_factor"] = round(case.value, 3)
    return _with(camera, found)


def family_with_learned(
    family: BatteryFamily, learned: Learned, defaults: Defaults = DEFAULTS
) -> BatteryFamily:
    """The battery family with its rate, taper and cold curve, where the runs taught them.

    Of a curve every share that the cold hides is scaled alike (model/learning#special).
    """
    found: dict[str, Any] = {}
    rate, taper = _special(learned, "rate_per_h"), _special(learned, "taper")
    hold = _special(learned, "cold_hold")
    if rate is not None and rate.known:
        found["rate_per_h"] = round(min(6.0, rate.value), 2)
    if taper is not None and taper.known:
        found["taper_from"] = round(min(0.95, max(0.5, 1.0 - taper.value)), 3)
    if hold is not None and hold.known:
        found["available"] = tuple(
            AvailableAt(cell_c=cell_c, share=round(1.0 - min(1.0, (1.0 - share) * hold.value), 3))
            for cell_c, share in points_of(family, defaults)
        )
    return family.model_copy(update=found)


def _special(learned: Learned, kind: Kind) -> LearnedFigure | None:
    """A figure that only special runs teach, where there were any."""
    return next((one for one in learned.learned if one.figure.kind == kind), None)


def _limits(camera: Camera, stop_c: float, defaults: Defaults) -> Limits:
    """The learned limit; it restarts as far below it as before."""
    old = body_of(camera, camera.set_ups[0], defaults).limits
    stop_c = round(stop_c, 1)
    return Limits(stop_c=stop_c, restart_c=round(stop_c - (old.stop_c - old.restart_c), 1))


def put_back(now: Camera, taken: Taken | None) -> Camera:
    """The camera as it was before figures were taken; what was typed since then stays."""
    if taken is None:
        return now
    before, after, present = _places(taken.before), _places(taken.after), _places(now)
    gone = {
        place: before[place]
        for place, value in after.items()
        if place in before and before[place] != value and present.get(place) == value
    }
    return _with(now, gone)


def family_put_back(now: BatteryFamily, taken: Taken | None) -> BatteryFamily:
    """The family as it was before figures were taken; what was typed since then stays."""
    if taken is None or taken.family_before is None or taken.family_after is None:
        return now
    before, after = taken.family_before, taken.family_after
    gone = {
        field: getattr(before, field)
        for field in OF_FAMILY
        if getattr(after, field) != getattr(before, field)
        and getattr(now, field) == getattr(after, field)
    }
    return now.model_copy(update=gone)


def family_changes(
    before: BatteryFamily, after: BatteryFamily, defaults: Defaults = DEFAULTS
) -> tuple[Change, ...]:
    """What differs between two states of a battery family, in words."""
    told = []
    if (before.rate_per_h, before.taper_from) != (after.rate_per_h, after.taper_from):
        texts = [_rate_text(one, defaults) for one in (before, after)]
        told.append(
            Change(figure=f"{before.name} fills to 80 % in", before=texts[0], after=texts[1])
        )
    if before.taper_from != after.taper_from:
        texts = [_taper_text(one, defaults) for one in (before, after)]
        told.append(
            Change(figure=f"{before.name} charges less from", before=texts[0], after=texts[1])
        )
    if before.available != after.available:
        texts = [_cold_text(one, defaults) for one in (before, after)]
        told.append(
            Change(
                figure=f"{before.name} gives at {degrees(COLD_TOLD_C)}",
                before=texts[0],
                after=texts[1],
            )
        )
    return tuple(told)


def _rate_text(family: BatteryFamily, defaults: Defaults) -> str:
    minutes = minutes_to_80(intake_of(1.0, family, defaults))
    return f"{minutes:.0f} min" + ("" if family.rate_per_h else ", assumed")


def _taper_text(family: BatteryFamily, defaults: Defaults) -> str:
    taper_from = intake_of(1.0, family, defaults).kink
    return f"{100.0 * taper_from:.0f} %" + ("" if family.taper_from else ", assumed")


def _cold_text(family: BatteryFamily, defaults: Defaults) -> str:
    given = 1.0 - cold_curve(points_of(family, defaults)).at(COLD_TOLD_C)
    return f"{100.0 * given:.0f} %" + ("" if family.available else ", assumed")


def changes(
    before: Camera, after: Camera, family: BatteryFamily, defaults: Defaults = DEFAULTS
) -> tuple[Change, ...]:
    """What differs between two states of a camera's figures, in words."""
    old, new = _places(before), _places(after)
    return tuple(
        Change(
            figure=_name(after, place),
            before=_text(before, family, place, defaults),
            after=_text(after, family, place, defaults),
        )
        for place in new
        if place in old and old[place] != new[place]
    )


def _places(camera: Camera) -> dict[Place, Any]:
    found: dict[Place, Any] = {}
    for mode in camera.modes:
        found["mode", mode.id, "draw"] = mode.draw
        found["mode", mode.id, "rise_k"] = mode.rise_k
    for field in ("resistance_k_per_w", "charge_heat", "limits"):
        found["camera", "", field] = getattr(camera, field)
    for set_up in camera.set_ups:
        for field in ("tau_s", "case_factor", "case_a"):
            found["set_up", set_up.id, field] = getattr(set_up, field)
    return found


def _with(camera: Camera, found: Mapping[Place, Any]) -> Camera:
    def fields(kind: str, key: str) -> dict[str, Any]:
        return {place[2]: value for place, value in found.items() if place[:2] == (kind, key)}

    update = fields("camera", "") | {
        "modes": tuple(m.model_copy(update=fields("mode", m.id)) for m in camera.modes),
        "set_ups": tuple(s.model_copy(update=fields("set_up", s.id)) for s in camera.set_ups),
    }
    return Camera.model_validate(camera.model_copy(update=update).model_dump())


NAMES = {
    "draw": "lasts",
    "rise_k": "warms by",
    "resistance_k_per_w": "warms for each watt",
    "charge_heat": "heat of charging",
    "limits": "stops at",
    "tau_s": "takes to warm",
    "case_factor": "holds heat",
    "case_a": "sheds to moving air",
}


def _name(camera: Camera, place: Place) -> str:
    kind, key, field = place
    parts = camera.modes if kind == "mode" else camera.set_ups
    name = next((part.name for part in parts if part.id == key), "")
    return f"{name} {NAMES[field]}".strip()


def _text(camera: Camera, family: BatteryFamily, place: Place, defaults: Defaults) -> str:
    kind, key, field = place
    if field == "draw":
        mode = next(m for m in camera.modes if m.id == key)
        if isinstance(mode.draw, DrawNotKnown):
            return "not known"
        minutes = nominal_wh(family.mah, family.nominal_v) / mode_w(mode, family) * 60.0
        typed = f" ({mode.draw.watts:.1f} W)" if isinstance(mode.draw, DrawInWatts) else ""
        return f"{minutes:.0f} min{typed}"
    if field == "limits":
        stop_c = body_of(camera, camera.set_ups[0], defaults).limits.stop_c
        return degrees(stop_c) + ("" if camera.limits else ", assumed")
    value = _places(camera)[kind, key, field]
    if value is None:
        return "assumed by mass"
    if field == "tau_s":
        return f"{value / 60.0:.0f} min"
    unit = {"rise_k": "K", "resistance_k_per_w": "K/W"}.get(field)
    return f"{value:.1f} {unit}" if unit else f"× {value:.2f}"
