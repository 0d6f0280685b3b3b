"""Units of a kit by name, and a plan less what names units that are not there."""

from __future__ import annotations

from . import references
from .kit import Kit
from .plan import Plan


def units_of(kit: Kit) -> dict[str, dict[str, str]]:
    """Units of a kit by kind: key and name. A plan that names a missing one cannot be kept."""
    cameras = {c.id: c.name for c in kit.cameras}
    batteries = {b.id: b.name for b in kit.batteries}
    sources = {s.id: s.name for s in kit.sources}
    stores = {s.id: s.name for s in kit.sources if s.kind in ("bank", "module")}
    gear = {g.id: g.name for g in kit.gear}
    return {
        "camera": cameras,
        "battery": batteries,
        "card": {c.id: c.name for c in kit.cards},
        "source": sources,
        "drive": {d.id: d.name for d in kit.drives},
        "gear": gear,
        "unit": batteries | stores | gear,
        "power": sources | {c.id: c.name for c in kit.chargers} | cameras,
    }


def without_missing(plan: Plan, kit: Kit) -> Plan:
    """The plan less everything that names a unit which the kit does not have."""
    return references.without_missing(plan, units_of(kit))
