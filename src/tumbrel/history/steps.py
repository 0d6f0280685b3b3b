"""Saving with a version, and going back and forward over steps. Call inside a transaction."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from typing import Any

from django.db.models import Manager
from ninja import Schema
from pydantic import BaseModel

from .models import Kept, Step
from .refusals import NothingToUndo, Stale


def refuse_stale(kept: Kept, version: int, state: Callable[[], BaseModel]) -> None:
    """Raise Stale, with the state as it is kept now, when a change is of an older version."""
    if kept.version != version:
        raise Stale(state(), f"{kept.saved_at:%H:%M:%S} UTC")


def record(kept: Kept, steps: Manager[Any], document: dict[str, Any], name: str) -> Step:
    """Keep a new state: what could be redone is gone; no step back ever is."""
    steps.filter(number__gt=kept.step).delete()
    kept.step += 1
    kept.version += 1
    kept.document = document
    kept.name = name
    kept.save()
    made: Step = steps.create(owner=kept.owner, number=kept.step, document=document)
    return made


def amend(kept: Kept, steps: Manager[Any], document: dict[str, Any]) -> None:
    """Change the present state itself: no step of its own, but a version, so that tabs notice."""
    kept.version += 1
    kept.document = document
    kept.save()
    steps.filter(number=kept.step).update(document=document)


def begin(kept: Kept, steps: Manager[Any]) -> None:
    """Keep the first state."""
    steps.create(owner=kept.owner, number=kept.step, document=kept.document)


def step_now(kept: Kept, steps: Manager[Any]) -> Step:
    """The state that a document is in."""
    now: Step = steps.get(number=kept.step)
    return now


def step_at(kept: Kept, steps: Manager[Any], by: int) -> Step:
    """The state `by` steps away. Raises NothingToUndo when there is none."""
    found = steps.filter(number=kept.step + by).first()
    if not isinstance(found, Step):
        raise NothingToUndo("undo" if by < 0 else "redo")
    return found


def move_to(kept: Kept, step: Step, name: str) -> None:
    """Go to a state; the version goes on, so that other tabs notice."""
    kept.step = step.number
    kept.version += 1
    kept.document = step.document
    kept.name = name
    kept.save()


class Ways(Schema):
    """Whether there is a step back, and one forward, and when those were made."""

    can_undo: bool
    can_redo: bool
    undo_at: datetime | None
    redo_at: datetime | None


NO_WAY = Ways(can_undo=False, can_redo=False, undo_at=None, redo_at=None)


def ways_from(kept: Kept, steps: Manager[Any]) -> Ways:
    """The ways from the present state: back from the step that made it, on to the next one."""
    around = steps.filter(number__in=(kept.step - 1, kept.step, kept.step + 1))
    made = {number: at or kept.made_at for number, at in around.values_list("number", "made_at")}
    back, onward = kept.step - 1 in made, kept.step + 1 in made
    return Ways(
        can_undo=back,
        can_redo=onward,
        undo_at=made.get(kept.step) if back else None,
        redo_at=made.get(kept.step + 1),
    )
