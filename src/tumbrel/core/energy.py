"""Stored energy, draws and the time a cell lasts (model/energy#stored, model/energy#draw)."""

from __future__ import annotations

import math
from typing import Final

from .document import Battery, BatteryFamily, Camera, DrawInWatts, FeatureName, Mode, Module
from .parameters import Defaults

MS_PER_HOUR: Final = 3_600_000
LEAST_WH: Final = 0.01
MONTH_MS: Final = 30 * 24 * MS_PER_HOUR


def nominal_wh(mah: float, nominal_v: float, health: float = 1.0) -> float:
    """Energy of a full cell [W h] from capacity [mA h], nominal voltage [V] and health.

    Source: model/energy#stored.
    """
    return mah * nominal_v / 1000.0 * health


def battery_wh(battery: Battery, family: BatteryFamily) -> float:
    """Energy of a labelled battery when full [W h] (model/energy#stored)."""
    return nominal_wh(family.mah, family.nominal_v, battery.health)


def mode_w(mode: Mode, family: BatteryFamily) -> float:
    """What a mode drinks [W]; a run time is turned into watts by the family's full battery."""
    if isinstance(mode.draw, DrawInWatts):
        return mode.draw.watts
    return nominal_wh(family.mah, family.nominal_v) / (mode.draw.minutes / 60.0)


def module_wh(module: Module, camera: Camera, family: BatteryFamily, defaults: Defaults) -> float:
    """Energy of a full module [W h]: by its label, or by how long its camera lasts with it.

    With it, both full, the camera lasts `minutes` in its first mode, all of its draw through the
    module; so it holds what that takes less what the battery gives (model/charging#chains).
    """
    if module.mah is not None:
        return nominal_wh(module.mah, defaults.bank_v.value, module.health)
    assert module.lasts_min is not None
    drawn_wh = mode_w(camera.modes[0], family) * module.lasts_min / 60.0
    more_wh = drawn_wh - nominal_wh(family.mah, family.nominal_v)
    return max(LEAST_WH, more_wh / defaults.store_efficiency.value) * module.health


def features_w(camera: Camera, features: tuple[FeatureName, ...], defaults: Defaults) -> float:
    """What the features that are on add to a mode's draw [W] (model/energy#draw)."""
    own = {draw.feature: draw.watts for draw in camera.feature_draws}
    return sum((own.get(name, defaults.feature_w[name].value) for name in features), 0.0)


def ms_to_empty(charge: float, floor: float, wh: float, draw_w: float) -> int | None:
    """Whole ms until charge [0..1] of a cell of `wh` falls to `floor` at `draw_w`, rounded up.

    None when nothing draws. At least 1 (model/time#whole-ms).
    """
    if draw_w <= 0.0:
        return None
    return max(1, math.ceil((charge - floor) * wh / draw_w * MS_PER_HOUR - 1e-6))


def spent_wh(draw_w: float, elapsed_ms: int) -> float:
    """Energy used [W h] at a constant draw [W] over elapsed ms."""
    return draw_w * elapsed_ms / MS_PER_HOUR


def self_discharge_wh(wh: float, charge: float, elapsed_ms: int, share_per_month: float) -> float:
    """Energy lost in the bag or an idle camera [W h], linear, at most what is there.

    Source: model/energy#draw.
    """
    return min(wh * charge, wh * share_per_month * elapsed_ms / MONTH_MS)
