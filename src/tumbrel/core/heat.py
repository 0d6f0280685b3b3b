"""One first-order thermal node per camera set-up, in closed form (model/heat#node)."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from .document import Camera, Limits, SetUp
from .parameters import Defaults
from .shared import Shared

LEVEL_TOLERANCE_K: Final = 1e-9


@dataclass(frozen=True)
class Thinning(Shared):
    """How air thins with height [m], and what that does: exponents of its density."""

    scale_m: float
    still: float
    moving: float


@dataclass(frozen=True)
class Body(Shared):
    """The thermal figures of one camera in one set-up."""

    resistance_k_per_w: float
    tau_s: float
    sun_k_per_w_m2: float
    case_factor: float
    air_a: float
    air_share: float
    least_g: float
    thinning: Thinning
    limits: Limits
    charge_heat: float


def body_of(camera: Camera, set_up: SetUp, defaults: Defaults) -> Body:
    """Thermal figures from mass and set-up, by priors where nothing was measured.

    Source: model/heat#priors.
    """
    ratio = camera.mass_g / defaults.reference_mass_g.value
    resistance = camera.resistance_k_per_w
    if resistance is None:
        resistance = defaults.resistance_k_per_w.value * ratio ** (-2.0 / 3.0)
    area_m2 = defaults.sunlit_area_cm2.value * 1e-4 * ratio ** (2.0 / 3.0)
    tau_s = (set_up.tau_s or defaults.tau_s.value * ratio ** (1.0 / 3.0)) * set_up.lag_factor
    limits = camera.limits or Limits(
        stop_c=defaults.stop_c.value, restart_c=defaults.restart_c.value
    )
    return Body(
        resistance_k_per_w=resistance,
        tau_s=tau_s,
        sun_k_per_w_m2=resistance * defaults.absorptance.value * area_m2,
        case_factor=set_up.case_factor,
        air_a=defaults.airflow_a.value * set_up.case_a,
        air_share=set_up.air_share,
        least_g=defaults.least_g.value,
        thinning=Thinning(
            defaults.air_scale_m.value, defaults.thin_still.value, defaults.thin_moving.value
        ),
        limits=limits,
        charge_heat=camera.charge_heat,
    )


def shedding(body: Body, air_mps: float, height_m: float = 0.0, under: bool = False) -> float:
    """`g` of model/heat#node: 1 in still air for a bare camera, smaller the better heat is shed.

    air_mps [m/s] is the airflow around the kit, of which the mount has its share. Thin air at a
    height [m] sheds less: the factor of still-air rises and lags is in it (model/heat#height).
    Under water the outer film is gone; only the way through body and case stays (model/heat#water).
    """
    if under:
        return body.least_g * body.case_factor
    thin = body.thinning
    dense = math.exp(-height_m / thin.scale_m)
    air_a = body.air_a * dense**thin.moving
    g = body.case_factor / (1.0 + air_a * math.sqrt(air_mps * body.air_share))
    return float(max(body.least_g, g) * dense**thin.still)


def temperature_after(start_c: float, level_c: float, tau_s: float, elapsed_ms: int) -> float:
    """Body temperature [degC] after elapsed ms towards a level [degC] with lag tau_s [s]."""
    return level_c + (start_c - level_c) * math.exp(-elapsed_ms / (1000.0 * tau_s))


def ms_to_level(start_c: float, level_c: float, target_c: float, tau_s: float) -> int | None:
    """Whole ms until the body reaches target_c, rounded up, at least 1; None when it never does.

    Source: model/heat#to-a-level. A level equal to the target never reaches it (model/heat#limits).
    """
    to_go, span = level_c - target_c, level_c - start_c
    if abs(to_go) <= LEVEL_TOLERANCE_K or span * to_go <= 0.0 or abs(span) < abs(to_go):
        return None
    return max(1, math.ceil(-tau_s * math.log(to_go / span) * 1000.0 - 1e-6))
