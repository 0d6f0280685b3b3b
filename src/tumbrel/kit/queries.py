"""Reading kits, always in an owner's scope."""

from __future__ import annotations

from django.contrib.auth.models import User

from tumbrel.keeping.refusals import NotThere
from tumbrel.keeping.steps import can_go
from tumbrel.trips.queries import trips_of_kit
from tumbrel.trips.uses import uses_of

from .models import Kit
from .schemas import KitLine, KitState
from .to_core import kit_of


def kit_row(owner: User, kit_id: int) -> Kit:
    """One kit. Raises NotThere."""
    row = Kit.objects.of(owner).filter(pk=kit_id).first()
    if not isinstance(row, Kit):
        raise NotThere("kit")
    return row


def kit_lines(owner: User) -> list[KitLine]:
    """All kits, the newest last."""
    return [
        KitLine(
            id=row.pk,
            name=row.name,
            cameras=[camera.name for camera in kit_of(row).cameras],
            trips=[trip.name for trip in trips_of_kit(owner, row.pk)],
        )
        for row in Kit.objects.of(owner).order_by("pk")
    ]


def kit_state(row: Kit) -> KitState:
    """A kit with what uses it."""
    undo, redo = can_go(row, row.steps)
    kit = kit_of(row)
    return KitState(
        id=row.pk,
        name=row.name,
        version=row.version,
        kit=kit,
        uses=uses_of(kit, trips_of_kit(row.owner, row.pk)),
        can_undo=undo,
        can_redo=redo,
    )
