"""The kit's addresses."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Status

from tumbrel.core.family import FamilyQuestion, FamilyTold, family_told
from tumbrel.core.shelf import Shelf, ShelfQuestion, mode_runtimes
from tumbrel.history.api import REFUSALS, owner_of

from .actions import delete_kit, make_kit, save_kit, step_kit
from .queries import kit_lines, kit_row, kit_state
from .schemas import KitLine, KitNew, KitSave, KitState, KitStepAsked

router = Router(tags=["kit"])


@router.get("/kits", response={200: list[KitLine], **REFUSALS}, operation_id="listKits")
def list_kits(request: HttpRequest) -> list[KitLine]:
    """All kits."""
    return kit_lines(owner_of(request))


@router.post("/kits", response={200: KitState, **REFUSALS}, operation_id="makeKit")
def make(request: HttpRequest, asked: KitNew) -> KitState:
    """Make a kit."""
    return kit_state(make_kit(owner_of(request), asked.name, asked.kit))


@router.get("/kits/{kit_id}", response={200: KitState, **REFUSALS}, operation_id="getKit")
def get(request: HttpRequest, kit_id: int) -> KitState:
    """One kit."""
    return kit_state(kit_row(owner_of(request), kit_id))


@router.put("/kits/{kit_id}", response={200: KitState, **REFUSALS}, operation_id="saveKit")
def save(request: HttpRequest, kit_id: int, asked: KitSave) -> KitState:
    """Keep a kit in its next version; the answer says what went out of trips with it."""
    kept = save_kit(owner_of(request), kit_id, asked.version, asked.name, asked.kit)
    return kit_state(*kept)


@router.delete("/kits/{kit_id}", response={204: None, **REFUSALS}, operation_id="deleteKit")
def delete(request: HttpRequest, kit_id: int) -> Status[None]:
    """Put a kit that no trip uses into the bin for 30 days."""
    delete_kit(owner_of(request), kit_id)
    return Status(204, None)


@router.post("/kits/{kit_id}/undo", response={200: KitState, **REFUSALS}, operation_id="undoKit")
def undo(request: HttpRequest, kit_id: int, asked: KitStepAsked) -> KitState:
    """One step back."""
    return kit_state(*step_kit(owner_of(request), kit_id, asked.version, -1))


@router.post("/kits/{kit_id}/redo", response={200: KitState, **REFUSALS}, operation_id="redoKit")
def redo(request: HttpRequest, kit_id: int, asked: KitStepAsked) -> KitState:
    """One step forward."""
    return kit_state(*step_kit(owner_of(request), kit_id, asked.version, 1))


@router.post("/shelf", response={200: Shelf, **REFUSALS}, operation_id="hangShelf")
def shelf(request: HttpRequest, asked: ShelfQuestion) -> Shelf:  # noqa: ARG001 - ninja names it
    """How long each mode records in given air, and what ends it."""
    return mode_runtimes(asked)


@router.post("/family", response={200: FamilyTold, **REFUSALS}, operation_id="tellFamily")
def family(request: HttpRequest, asked: FamilyQuestion) -> FamilyTold:  # noqa: ARG001 - as above
    """What a battery family gives in the cold, and how it fills where."""
    return family_told(asked)
