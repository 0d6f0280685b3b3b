"""Which trips use which units of a kit, and what a change of the kit would break."""

from __future__ import annotations

from dataclasses import dataclass

from ninja import Schema

from tumbrel.core.document import Kit, Plan
from tumbrel.core.document.units import units_of

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
