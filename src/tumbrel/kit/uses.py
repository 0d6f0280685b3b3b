"""Who uses a kit: said by what is built upon kits, which kits themselves do not know."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from django.contrib.auth.models import User
from ninja import Schema

from tumbrel.core.document import Kit
from tumbrel.history.models import Step


class UnitUse(Schema):
    """Which trips use a unit of the kit, or a mode, set-up or preset ("camera/mode")."""

    kind: str
    unit: str
    trips: list[str]


class TripRows(Schema):
    """Rows of a trip's plan that went, or came back, with a unit of its kit: how many of each."""

    trip: str
    rows: dict[str, int]


@dataclass(frozen=True, slots=True)
class Followed:
    """What came of it, in those on a kit, that it went to another state."""

    went: tuple[TripRows, ...] = ()
    back: tuple[TripRows, ...] = ()


@dataclass(frozen=True, slots=True)
class Move:
    """A kit went from one of its states to another."""

    left: Step
    reached: Step


class Users(Protocol):
    """What trips, or others, tell of the kits that they are on."""

    def by_kit(self, owner: User) -> dict[int, list[str]]:
        """Names of those on each kit of an owner, by the kit's number."""

    def uses(self, owner: User, kit_id: int, kit: Kit) -> list[UnitUse]:
        """For every unit of a kit that is named: by whom."""

    def follow(self, owner: User, kit_id: int, move: Move) -> Followed:
        """Take what names units along as a kit goes to another state, and back with it."""


class _Known:
    users: Users


def register(users: Users) -> None:
    """From now on, these say who uses kits."""
    _Known.users = users


def users() -> Users:
    """Who says who uses kits."""
    return _Known.users
