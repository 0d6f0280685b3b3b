"""Which trips use which units of a kit."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import User

from tumbrel.core.document import Kit
from tumbrel.core.document.references import REFERS, named_in
from tumbrel.core.document.units import units_of
from tumbrel.kit.uses import Followed, Move, UnitUse

from .following import follow
from .models import Trip
from .queries import trips_of_kit
from .to_core import plan_as_kept

Named = dict[str, set[str]]


class TripUsers:
    """Trips, as those who use kits."""

    def by_kit(self, owner: User) -> dict[int, list[str]]:
        """Names of the trips on each kit, by its number; one query for all."""
        found: dict[int, list[str]] = {}
        for kit, name in Trip.objects.of(owner).order_by("pk").values_list("kit_id", "name"):
            found.setdefault(kit, []).append(name)
        return found

    def uses(self, owner: User, kit_id: int, kit: Kit) -> list[UnitUse]:
        """For every unit, mode, set-up and preset of the kit that a plan names: the trips."""
        return uses_of(kit, trips_of_kit(owner, kit_id))

    def follow(self, owner: User, kit_id: int, move: Move) -> Followed:
        """Take the trips on a kit along as it goes to another state, and back with it."""
        return follow(owner, kit_id, move)


def named_units(plan: dict[str, Any]) -> Named:
    """Units that a plan names, by kind; of the plan as it is kept, since lists ask for many.

    A plan kept by an older application may lack any of these fields: it names nothing there.
    """
    named: Named = {refers.names: set() for refers in REFERS}
    for one in named_in(plan):
        named[one.by.names].add(one.name)
    return named


def uses_of(kit: Kit, trips: list[Trip]) -> list[UnitUse]:
    """For every unit, mode, set-up and preset of the kit that a plan names: the trips."""
    named = [(trip.name, named_units(plan_as_kept(trip))) for trip in trips]
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
