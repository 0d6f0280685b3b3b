"""Stored energy, draws and the time a cell lasts (model/energy#stored, model/energy#draw)."""

from __future__ import annotations

import math
from typing import Final

from .document import (
    Battery,
    BatteryFamily,
    Camera,
    DrawInWatts,
    DrawNotKnown,
    FeatureName,
    Kit,
    Mode,
    Module,
)
from .parameters import Defaults

MS_PER_HOUR: Final = 3_600_000
LEAST_WH: Final = 0.01
TYPICAL_FPS: Final = 30.0
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
    """What a mode drinks [W]; a run time is turned into watts by the family's full battery.

    Raises ValueError where that is not known: `with_draws` assumes it first.
    """
    if isinstance(mode.draw, DrawInWatts):
        return mode.draw.watts
    if isinstance(mode.draw, DrawNotKnown):
        raise ValueError(f"what '{mode.id}' draws is not known")
    return nominal_wh(family.mah, family.nominal_v) / (mode.draw.minutes / 60.0)


def assumed_draw(
    camera: Camera, mode: Mode, family: BatteryFamily, defaults: Defaults
) -> tuple[float, str]:
    """What a mode of which that is not known is taken to draw [W], and by what.

    By the known mode nearest in pixels x bitrate, `P x sqrt(fps / fps known)`; else by its box;
    else typical. Source: model/energy#not-known.
    """
    known = [one for one in camera.modes if not isinstance(one.draw, DrawNotKnown)]
    if known:
        nearest = min(known, key=lambda one: abs(math.log(_size(one) / _size(mode))))
        return mode_w(nearest, family) * math.sqrt(mode.fps / nearest.fps), nearest.name
    if mode.box_minutes is not None:
        wh = nominal_wh(family.mah, family.nominal_v)
        return wh / (mode.box_minutes / 60.0), "its box"
    return defaults.typical_draw_w.value * math.sqrt(mode.fps / TYPICAL_FPS), "what is typical"


def _size(mode: Mode) -> float:
    return mode.width_px * mode.height_px * mode.video_mbps


def with_draws(camera: Camera, family: BatteryFamily, defaults: Defaults) -> Camera:
    """The camera with watts for every mode: assumed where they are not known."""
    if not any(isinstance(mode.draw, DrawNotKnown) for mode in camera.modes):
        return camera
    modes = []
    for mode in camera.modes:
        if isinstance(mode.draw, DrawNotKnown):
            watts, _ = assumed_draw(camera, mode, family, defaults)
            draw = DrawInWatts.model_construct(kind="watts", watts=watts)
            modes.append(mode.model_copy(update={"draw": draw}))
        else:
            modes.append(mode)
    return camera.model_copy(update={"modes": tuple(modes)})


def kit_with_draws(kit: Kit, defaults: Defaults) -> Kit:
    """The kit with watts for every mode of its cameras."""
    families = {family.id: family for family in kit.families}
    cameras = tuple(
        with_draws(camera, families[camera.battery_family], defaults) for camera in kit.cameras
    )
    if all(one is other for one, other in zip(cameras, kit.cameras, strict=True)):
        return kit
    return kit.model_copy(update={"cameras": cameras})


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
