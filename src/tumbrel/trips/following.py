"""A trip goes along with its kit: what names a unit goes with it, and comes back with it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping
from typing import Any

from django.contrib.auth.models import User
from pydantic import ValidationError

from tumbrel.core.document import Kit, Plan, Trip, check_references
from tumbrel.core.document.references import REFERS, kept_rows, named_in
from tumbrel.core.document.units import units_of, without_missing
from tumbrel.history import steps
from tumbrel.kit.to_core import kit_from
from tumbrel.kit.uses import Followed, Move, TripRows

from .models import Trip as TripRow
from .models import TripStep
from .queries import trips_of_kit
from .to_core import as_kept, plan_as_kept, trip_and_plan, trip_from

LISTS = tuple(dict.fromkeys(refers.rows for refers in REFERS))


def follow(owner: User, kit_id: int, move: Move) -> Followed:
    """Take the trips on a kit along as it goes from one of its states to another.

    A trip that this very move led somewhere before goes there again, one that the opposite move
    led away goes back; where it was changed since, what went comes back into what it is now.
    """
    kit = kit_from(move.reached.document)
    went, back = [], []
    for trip in trips_of_kit(owner, kit_id):
        before = plan_as_kept(trip)
        _go_along(trip, kit, move)
        release(trip, kit, move)
        after = plan_as_kept(trip)
        if _names(after) < _names(before):
            went += _told(trip, before, after)
        else:
            back += _told(trip, after, before)
    return Followed(tuple(went), tuple(back))


def release(trip: TripRow, kit: Kit, move: Move | None = None) -> None:
    """Take what names units that a kit does not have out of a trip's plan, by a step of its own.

    Where there is nothing of the kind, there is no step.
    """
    known = units_of(kit)
    named = named_in(plan_as_kept(trip))
    if all(one.name in known.get(one.by.names, (one.name,)) for one in named):
        return
    kept = trip_and_plan(trip)
    document = as_kept(kept.trip, without_missing(kept.plan, kit))
    made = steps.record(trip, trip.steps, document, trip.name)
    if move is not None:
        links = {"kit_left": move.left.pk, "kit_reached": move.reached.pk}
        _steps(trip).filter(pk=made.pk).update(**links, made_at=move.reached.made_at)


def led_by_kit(trip: TripRow, by: int) -> int:
    """Which way its kit goes, -1 or 1, if a trip's step back or forward is one of its kit's; or 0.

    Stepping such a trip by itself would name what its kit has not, or leave out what it has.
    """
    number = trip.step if by < 0 else trip.step + 1
    step = _steps(trip).filter(number=number, kit_reached__isnull=False).first()
    if step is None:
        return 0
    here, there = step.kit_left, step.kit_reached
    if by < 0:
        here, there = there, here
    numbers = dict(trip.kit.steps.filter(pk__in=(here, there)).values_list("pk", "number"))
    if len(numbers) < len({here, there}) or numbers[here] != trip.kit.step:
        return 0
    way: int = numbers[there] - numbers[here]
    return way if abs(way) == 1 else 0


def _go_along(trip: TripRow, kit: Kit, move: Move) -> None:
    forth = _steps(trip).filter(kit_left=move.left.pk, kit_reached=move.reached.pk)
    again = forth.filter(number=trip.step + 1).first()
    if again is not None:
        steps.move_to(trip, again, trip.name)
        return
    led = _steps(trip).filter(kit_left=move.reached.pk, kit_reached=move.left.pk)
    away = led.filter(number__lte=trip.step).last()
    if away is None:
        return
    earlier = steps.step_at(trip, trip.steps, away.number - 1 - trip.step)
    if away.number == trip.step:
        steps.move_to(trip, earlier, trip.name)
        return
    now = trip_and_plan(trip)
    was = trip_from(earlier.document).plan
    plan = _with_returned(kit, now.trip, now.plan, was, kit_from(move.left.document))
    if plan != now.plan:
        steps.amend(trip, trip.steps, as_kept(now.trip, plan))
    _steps(trip).filter(pk=away.pk).update(kit_left=None, kit_reached=None)


def _with_returned(kit: Kit, trip: Trip, plan: Plan, was: Plan, left: Kit) -> Plan:
    """A plan with the rows of an earlier one that went because of a kit, where they still fit."""
    known = units_of(left)
    for name in LISTS:
        for number, (row, less) in enumerate(kept_rows(was, name, known)):
            rows = list(getattr(plan, name))
            if row == less or row in rows:
                continue
            if less is None:
                rows.insert(number, row)
            elif less in rows:
                rows[rows.index(less)] = row
            plan = _where_it_fits(kit, trip, plan, {name: tuple(rows)})
    return plan


def _where_it_fits(kit: Kit, trip: Trip, plan: Plan, change: dict[str, Any]) -> Plan:
    """A changed plan, or the one before where the change says what cannot be."""
    try:
        changed = Plan.model_validate(plan.model_copy(update=change).model_dump())
        check_references(kit, trip, changed)
    except (ValidationError, ValueError):
        return plan
    return changed


def _told(trip: TripRow, before: Mapping[str, Any], after: Mapping[str, Any]) -> list[TripRows]:
    """The rows that a plan has and another has not."""
    rows = {name: _lost(before.get(name, ()), after.get(name, ())) for name in LISTS}
    lost = {name: count for name, count in rows.items() if count}
    return [TripRows(trip=trip.name, rows=lost)] if lost else []


def _lost(before: Iterable[Any], after: Iterable[Any]) -> int:
    counted = [Counter(repr(row) for row in rows) for rows in (before, after)]
    return (counted[0] - counted[1]).total()


def _names(plan: Mapping[str, Any]) -> int:
    """How much a plan names."""
    return sum(1 for _ in named_in(plan))


def _steps(trip: TripRow) -> Any:
    return TripStep.objects.of(trip.owner).filter(trip=trip).order_by("number")
