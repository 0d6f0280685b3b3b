"""Units of a kit by name, and a plan less what names units that are not there."""

from __future__ import annotations

from .kit import Kit
from .plan import Link, Plan


def units_of(kit: Kit) -> dict[str, dict[str, str]]:
    """Units of a kit by kind: key and name. A plan that names a missing one cannot be kept."""
    batteries = {b.id: b.name for b in kit.batteries}
    stores = {s.id: s.name for s in kit.sources if s.kind in ("bank", "module")}
    gear = {g.id: g.name for g in kit.gear}
    return {
        "camera": {c.id: c.name for c in kit.cameras},
        "battery": batteries,
        "card": {c.id: c.name for c in kit.cards},
        "source": {s.id: s.name for s in kit.sources},
        "drive": {d.id: d.name for d in kit.drives},
        "gear": gear,
        "unit": batteries | stores | gear,
    }


def without_missing(plan: Plan, kit: Kit) -> Plan:
    """The plan less everything that names a unit which the kit does not have."""
    has = units_of(kit)
    cameras, powers = (
        has["camera"],
        {*has["source"], *has["camera"], *(one.id for one in kit.chargers)},
    )
    links = (tuple(c for c in link.cameras if c in cameras) for link in plan.links)
    return plan.model_copy(
        update={
            "cameras": tuple(
                c.model_copy(
                    update={
                        "battery": c.battery if c.battery in has["battery"] else None,
                        "card": c.card if c.card in has["card"] else None,
                        "source": c.source if c.source in has["source"] else None,
                    }
                )
                for c in plan.cameras
                if c.camera in cameras
            ),
            "assignments": tuple(a for a in plan.assignments if a.camera in cameras),
            "swaps": tuple(
                s
                for s in plan.swaps
                if s.camera in cameras and (s.battery is None or s.battery in has["battery"])
            ),
            "copies": tuple(
                c
                for c in plan.copies
                if (c.drive is None or c.drive in has["drive"])
                and (c.camera is None or c.camera in cameras)
                and (c.card is None or c.card in has["card"])
            ),
            "links": tuple(Link(cameras=names) for names in links if len(names) > 1),
            "plugs": tuple(
                one
                if one.to is None or one.to in powers
                else one.model_copy(update={"to": None, "place": None})
                for one in plan.plugs
                if one.unit in has["unit"]
            ),
            "card_swaps": tuple(
                s
                for s in plan.card_swaps
                if s.camera in cameras and (s.card is None or s.card in has["card"])
            ),
            "gear": tuple(one for one in plan.gear if one.gear in has["gear"]),
            "full_by": tuple(wish for wish in plan.full_by if wish.unit in has["unit"]),
        }
    )
