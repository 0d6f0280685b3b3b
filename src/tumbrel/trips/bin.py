"""What of trips and kits lies in the bin: listed, put back, and let go after thirty days."""

from __future__ import annotations

from datetime import datetime

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Count

from tumbrel.history.bin import empty_out, goes_at, put_back
from tumbrel.history.models import Binnable
from tumbrel.history.refusals import NotThere
from tumbrel.kit.models import Kit
from tumbrel.kit.to_core import kit_of

from .following import release
from .models import Trip
from .schemas import BinKind, Binned


def binned(owner: User) -> list[Binned]:
    """Everything of an owner in the bin, the last thrown away first."""
    trips = Trip.objects.in_bin_of(owner).annotate(held=Count("variants")).select_related("kit")
    found = [_line("trip", row, row.held) for row in trips]
    found += [_line("kit", row, 0) for row in Kit.objects.in_bin_of(owner)]
    return sorted(found, key=lambda one: one.thrown_away_at, reverse=True)


@transaction.atomic
def take_out(owner: User, kind: BinKind, number: int) -> None:
    """Put a trip or kit back where it was; a trip brings its kit along. Raises NotThere.

    What a trip names of its kit and has gone from it meanwhile goes out of its plan, by a step.
    """
    row = _row(owner, kind, number)
    if isinstance(row, Trip) and row.kit.thrown_away_at is not None:
        put_back(row.kit)
    put_back(row)
    if isinstance(row, Trip):
        release(row, kit_of(row.kit))


@transaction.atomic
def let_go(owner: User, kind: BinKind, number: int) -> None:
    """Delete what is in the bin for good; a kit takes trips along that are in the bin with it."""
    row = _row(owner, kind, number)
    if isinstance(row, Kit):
        Trip.objects.in_bin_of(owner).filter(kit=row).delete()
    row.delete()


@transaction.atomic
def empty_bin(now: datetime) -> int:
    """Let go for good what has been in the bin for over thirty days, of every owner."""
    trips, kits = Trip._base_manager, Kit._base_manager  # of all owners, by their age alone
    gone = empty_out(trips, now)
    return gone + empty_out(kits.exclude(pk__in=trips.values("kit")), now)


def _row(owner: User, kind: BinKind, number: int) -> Trip | Kit:
    rows = (Trip if kind == "trip" else Kit).objects.in_bin_of(owner)
    row = rows.filter(pk=number).first()
    if not isinstance(row, Trip | Kit):
        raise NotThere(f"{kind} in the bin")
    return row


def _line(kind: BinKind, row: Binnable, variants: int) -> Binned:
    assert row.thrown_away_at is not None
    return Binned(
        kind=kind,
        id=row.pk,
        name=row.name,
        variants=variants,
        thrown_away_at=row.thrown_away_at,
        goes_at=goes_at(row),
    )
