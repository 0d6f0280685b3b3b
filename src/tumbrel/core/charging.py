"""Into a cell: constant power, then a taper, in closed form (model/charging#cell)."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Final

from .document import BatteryFamily
from .parameters import Defaults
from .parameters.defaults import TAPER_HEAT_AT
from .shared import Shared

MS_PER_HOUR: Final = 3_600_000
NEVER_MS: Final = 2**53


@dataclass(frozen=True, slots=True)
class Intake(Shared):
    """How a cell takes charge: its energy [W h], rate [1/h], where the taper begins, full."""

    wh: float
    rate_per_h: float
    kink: float
    full: float

    @property
    def most_w(self) -> float:
        """The most that goes into the cell [W]."""
        return self.rate_per_h * self.wh

    @property
    def lag_ms(self) -> float:
        """The lag of its taper [ms]."""
        return (1.0 - self.kink) / self.rate_per_h * MS_PER_HOUR

    def taper_w(self, charge: float) -> float:
        """What the cell itself takes at a charge [W], were there no other bound."""
        return self.most_w * min(1.0, (1.0 - charge) / (1.0 - self.kink))

    def taper_later_w(self, charge: float, elapsed_ms: float) -> float:
        """What it takes once it has been charged for some time from a charge on [W]; 0: full."""
        later = self.charge_after(charge, self.most_w, elapsed_ms)
        return 0.0 if later >= self.full else self.taper_w(later)

    def kink_for(self, available_w: float) -> float:
        """Charge at which the taper begins to bind: later with a weak port."""
        if available_w >= self.most_w:
            return self.kink
        return 1.0 - (1.0 - self.kink) * available_w / self.most_w

    def charge_after(self, charge: float, available_w: float, elapsed_ms: float) -> float:
        """Charge after elapsed ms at a constant available power [W into the cell], up to full."""
        if charge >= self.full or available_w <= 0.0:
            return charge
        into_w = min(available_w, self.most_w)
        kink = self.kink_for(available_w)
        hours = elapsed_ms / MS_PER_HOUR
        if charge < kink:
            reached = charge + into_w * hours / self.wh
            if reached <= kink:
                return min(self.full, reached)
            hours -= (kink - charge) * self.wh / into_w
            charge = kink
        left = (1.0 - charge) * math.exp(-hours * self.rate_per_h / (1.0 - self.kink))
        return min(self.full, 1.0 - left)

    def ms_to(self, charge: float, available_w: float, target: float) -> int:
        """Whole ms to reach a charge, rounded up, at least 1; NEVER_MS when nothing comes."""
        if available_w <= 0.0 or target <= charge:
            return NEVER_MS
        into_w = min(available_w, self.most_w)
        kink = self.kink_for(available_w)
        hours = 0.0
        if charge < kink:
            hours = (min(kink, target) - charge) * self.wh / into_w
            charge = kink
        if target > charge:
            lag_h = (1.0 - self.kink) / self.rate_per_h
            hours += lag_h * math.log((1.0 - charge) / (1.0 - target))
        return max(1, math.ceil(hours * MS_PER_HOUR - 1e-6))

    def heating_w(self, charge: float, available_w: float) -> float:
        """Power into the cell as the body's heat sees it: held at its mean in the taper [W]."""
        if charge >= self.full or available_w <= 0.0:
            return 0.0
        if charge < self.kink_for(available_w) - 1e-12:
            return min(available_w, self.most_w)
        taper = [min(available_w, self.most_w * (1.0 - way)) for way in TAPER_HEAT_AT]
        return sum(taper, 0.0) / len(taper)


def intake_of(wh: float, family: BatteryFamily, defaults: Defaults) -> Intake:
    """A cell's intake by its family's rate and taper, else the typical ones."""
    rate, kink = family.rate_per_h, family.taper_from
    return Intake(
        wh,
        defaults.charge_rate_per_h.value if rate is None else rate,
        defaults.kink.value if kink is None else kink,
        defaults.full.value,
    )


def cool_intake_of(wh: float, family: BatteryFamily, defaults: Defaults) -> Intake:
    """The same in a cool cell, which takes a share of its rate (model/charging#cool)."""
    warm = intake_of(wh, family, defaults)
    return replace(warm, rate_per_h=warm.rate_per_h * defaults.cool_share.value)


def minutes_to_80(intake: Intake) -> float:
    """From empty to 80 %, by itself: as people know a rate (model/charging#cell)."""
    return intake.ms_to(0.0, intake.most_w, 0.8) / 60_000


def dynamo_w(rated_w: float, speed_mps: float, defaults: Defaults) -> float:
    """What a dynamo gives [W]: nothing when slow, linear up to its rated speed.

    Source: model/sources#gives.
    """
    low, high = defaults.dynamo_from_mps.value, defaults.dynamo_rated_mps.value
    way = min(1.0, max(0.0, (speed_mps - low) / (high - low)))
    return rated_w * way * defaults.dynamo_share.value


def panel_w(rated_w: float, irradiance_w_m2: float, sky: float, share: float) -> float:
    """What a panel gives [W] under light on its plane, a share of the clear sky and its own.

    Source: model/sources#gives.
    """
    return rated_w * irradiance_w_m2 / 1000.0 * sky * share
