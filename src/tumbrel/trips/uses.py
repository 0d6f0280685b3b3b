"""Which trips use which units of a kit, and what a change of the kit would break."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from django.contrib.auth.models import User

from tumbrel.core.document import Kit
from tumbrel.core.document.units import units_of
from tumbrel.history.refusals import InUse
from tumbrel.kit.uses import UnitUse

from .actions import release_units
from .models import Trip
from .queries import trips_of_kit
from .to_core import plan_as_kept

Named = dict[str, set[str]]


@dataclass(frozen=True)
class Broken:
    """A trip that names units which a kit no longer has."""

    trip: Trip
    units: tuple[str, ...]


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

    def let_go(self, owner: User, kit_id: int, kit: Kit, *, release: bool) -> None:
        """Take units that go out of the trips that name them. Raises InUse."""
        broken = broken_by(kit, trips_of_kit(owner, kit_id))
        if not broken:
            return
        if not release:
            units = sorted({unit for use in broken for unit in use.units})
            raise InUse(", ".join(units), tuple(use.trip.name for use in broken))
        for use in broken:
            release_units(use.trip, kit)


def named_units(plan: dict[str, Any]) -> Named:
    """Units that a plan names, by kind; of the plan as it is kept, since lists ask for many.

    A plan kept by an older application may lack any of these fields: it names nothing there.
    """
    cameras, asked, swaps = _all(plan, "cameras"), _all(plan, "assignments"), _all(plan, "swaps")
    copies, links, plugs = _all(plan, "copies"), _all(plan, "links"), _all(plan, "plugs")
    return {
        "camera": _in([*cameras, *asked, *swaps, *copies], "camera")
        | {name for link in links for name in link["cameras"]},
        "battery": _in([*cameras, *swaps], "battery"),
        "card": _in([*cameras, *copies], "card"),
        "source": _in(cameras, "source"),
        "drive": _in(copies, "drive"),
        "gear": _in(_all(plan, "gear"), "gear"),
        "unit": _in([*_all(plan, "full_by"), *plugs], "unit"),
        "mode": _of_camera(asked, "mode"),
        "set_up": _of_camera(asked, "set_up"),
        "preset": _of_camera(asked, "preset"),
    }


def _all(plan: dict[str, Any], field: str) -> list[dict[str, Any]]:
    parts: list[dict[str, Any]] = plan.get(field, [])
    return parts


def _in(parts: Iterable[dict[str, Any]], field: str) -> set[str]:
    return {part[field] for part in parts if part.get(field) is not None}


def _of_camera(asked: Iterable[dict[str, Any]], field: str) -> set[str]:
    return {f"{one['camera']}/{one[field]}" for one in asked if one.get(field) is not None}


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


def broken_by(kit: Kit, trips: list[Trip]) -> list[Broken]:
    """Trips that name units which this kit does not have."""
    has = units_of(kit)
    found = []
    for trip in trips:
        named = named_units(plan_as_kept(trip))
        missing = sorted(
            f"{kind} {unit}" for kind in has for unit in named[kind] if unit not in has[kind]
        )
        if missing:
            found.append(Broken(trip, tuple(missing)))
    return found
