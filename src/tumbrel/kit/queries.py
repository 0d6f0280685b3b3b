"""Reading kits, always in an owner's scope."""

from __future__ import annotations

from django.contrib.auth.models import User

from tumbrel.history.refusals import NotThere
from tumbrel.history.steps import ways_from

from .models import Kit
from .schemas import KitLine, KitState
from .to_core import camera_names, kit_of
from .uses import Followed, users

NOTHING = Followed()


def kit_row(owner: User, kit_id: int) -> Kit:
    """One kit. Raises NotThere."""
    row = Kit.objects.of(owner).filter(pk=kit_id).first()
    if not isinstance(row, Kit):
        raise NotThere("kit")
    return row


def kit_lines(owner: User) -> list[KitLine]:
    """All kits, the newest last."""
    trips = users().by_kit(owner)
    return [
        KitLine(id=row.pk, name=row.name, cameras=camera_names(row), trips=trips.get(row.pk, []))
        for row in Kit.objects.of(owner).order_by("pk")
    ]


def kit_state(row: Kit, followed: Followed = NOTHING) -> KitState:
    """A kit with what uses it, and what went along as it came to be so."""
    kit = kit_of(row)
    return KitState(
        id=row.pk,
        name=row.name,
        version=row.version,
        kit=kit,
        uses=users().uses(row.owner, row.pk, kit),
        went=list(followed.went),
        back=list(followed.back),
        **ways_from(row, row.steps).model_dump(),
    )
