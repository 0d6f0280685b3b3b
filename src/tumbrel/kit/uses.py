"""Who uses a kit: said by what is built upon kits, which kits themselves do not know."""

from __future__ import annotations

from typing import Protocol

from django.contrib.auth.models import User
from ninja import Schema

from tumbrel.core.document import Kit


class UnitUse(Schema):
    """Which trips use a unit of the kit, or a mode, set-up or preset ("camera/mode")."""

    kind: str
    unit: str
    trips: list[str]


class Users(Protocol):
    """What trips, or others, tell of the kits that they are on."""

    def by_kit(self, owner: User) -> dict[int, list[str]]:
        """Names of those on each kit of an owner, by the kit's number."""

    def uses(self, owner: User, kit_id: int, kit: Kit) -> list[UnitUse]:
        """For every unit of a kit that is named: by whom."""

    def let_go(self, owner: User, kit_id: int, kit: Kit, *, release: bool) -> None:
        """Take units that a kit has no more out of what names them. Raises InUse when not asked."""


class _Known:
    users: Users


def register(users: Users) -> None:
    """From now on, these say who uses kits."""
    _Known.users = users


def users() -> Users:
    """Who says who uses kits."""
    return _Known.users
