"""Which trips use which units of a kit, and what a change of the kit would break."""

from __future__ import annotations

from dataclasses import dataclass

from ninja import Schema

from tumbrel.core.document import Kit, Link, Plan

from .models import Trip
from .to_core import trip_and_plan


class UnitUse(Schema):
    """Which trips use a unit of the kit, or a mode, set-up or preset ("camera/mode")."""

    kind: str
    unit: str
    trips: list[str]


@dataclass(frozen=True)
class Broken:
    """A trip that names units which a kit no longer has."""

    trip: Trip
    units: tuple[str, ...]


def named_units(plan: Plan) -> dict[str, set[str]]:
    """Units that a plan names, by kind."""
    swaps, chosen = plan.swaps, plan.cameras
    return {
        "camera": {c.camera for c in chosen}
        | {a.camera for a in plan.assignments}
        | {s.camera for s in swaps}
        | {c.camera for c in plan.copies if c.camera}
        | {name for link in plan.links for name in link.cameras},
        "battery": {c.battery for c in chosen if c.battery}
        | {s.battery for s in swaps if s.battery},
        "card": {c.card for c in chosen if c.card} | {c.card for c in plan.copies if c.card},
        "source": {c.source for c in chosen if c.source},
        "drive": {c.drive for c in plan.copies},
        "unit": {wish.unit for wish in plan.full_by} | {plug.unit for plug in plan.plugs},
        "mode": {f"{a.camera}/{a.mode}" for a in plan.assignments},
        "set_up": {f"{a.camera}/{a.set_up}" for a in plan.assignments},
        "preset": {f"{a.camera}/{a.preset}" for a in plan.assignments if a.preset},
    }


def units_of(kit: Kit) -> dict[str, dict[str, str]]:
    """Units of a kit by kind: key and name. A plan that names a missing one cannot be kept."""
    batteries = {b.id: b.name for b in kit.batteries}
    banks = {s.id: s.name for s in kit.sources if s.kind == "bank"}
    return {
        "camera": {c.id: c.name for c in kit.cameras},
        "battery": batteries,
        "card": {c.id: c.name for c in kit.cards},
        "source": {s.id: s.name for s in kit.sources},
        "drive": {d.id: d.name for d in kit.drives},
        "unit": batteries | banks,
    }


def uses_of(kit: Kit, trips: list[Trip]) -> list[UnitUse]:
    """For every unit, mode, set-up and preset of the kit that a plan names: the trips."""
    named = [(trip.name, named_units(trip_and_plan(trip).plan)) for trip in trips]
    uses = []
    parts = {
        **{kind: set(units) for kind, units in units_of(kit).items()},
        "mode": {f"{c.id}/{m.id}" for c in kit.cameras for m in c.modes},
        "set_up": {f"{c.id}/{s.id}" for c in kit.cameras for s in c.set_ups},
        "preset": {f"{c.id}/{p.id}" for c in kit.cameras for p in c.presets},
    }
    for kind, units in parts.items():
        for unit in sorted(units):
            names = [name for name, by_kind in named if unit in by_kind[kind]]
            if names:
                uses.append(UnitUse(kind=kind, unit=unit, trips=names))
    return uses


def broken_by(kit: Kit, trips: list[Trip]) -> list[Broken]:
    """Trips that name units which this kit does not have."""
    has = units_of(kit)
    found = []
    for trip in trips:
        named = named_units(trip_and_plan(trip).plan)
        missing = sorted(
            f"{kind} {unit}" for kind in has for unit in named[kind] if unit not in has[kind]
        )
        if missing:
            found.append(Broken(trip, tuple(missing)))
    return found


def without_missing(plan: Plan, kit: Kit) -> Plan:
    """The plan less everything that names a unit which the kit does not have."""
    has = units_of(kit)
    cameras = has["camera"]
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
                if c.drive in has["drive"]
                and (c.camera is None or c.camera in cameras)
                and (c.card is None or c.card in has["card"])
            ),
            "links": tuple(Link(cameras=names) for names in links if len(names) > 1),
            "plugs": tuple(one for one in plan.plugs if one.unit in has["unit"]),
            "full_by": tuple(wish for wish in plan.full_by if wish.unit in has["unit"]),
        }
    )
