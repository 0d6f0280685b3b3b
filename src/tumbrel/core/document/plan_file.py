"""One document: kit, trip and plan, and the ways it is read and refused."""

from __future__ import annotations

import json
from collections.abc import Iterator
from typing import Any, Literal

from pydantic import Field, ValidationError, model_validator

from .base import Part
from .faults import BadDocument, FieldFault
from .kit import Kit
from .plan import Plan
from .references import refuse_unknown
from .trip import Trip
from .versions import brought_up, numbered


class PlanDocument(Part):
    """Kit, trip and plan in one file."""

    tumbrel: Literal[4] = Field(default=4, description="Version of this file's schema.")
    kit: Kit
    trip: Trip
    plan: Plan

    @model_validator(mode="after")
    def _names_known(self) -> PlanDocument:
        check_references(self.kit, self.trip, self.plan)
        return self


def check_references(kit: Kit, trip: Trip, plan: Plan) -> None:
    """Raise ValueError when the plan names a camera, leg, battery or card that is not there.

    A mode or set-up that is missing is no error of the document but a finding: the kit may
    have changed since the plan was made.
    """
    known = {
        "camera": {c.id for c in kit.cameras},
        "battery": {b.id for b in kit.batteries},
        "card": {c.id for c in kit.cards},
        "source": {s.id for s in kit.sources},
        "drive": {d.id for d in kit.drives},
        "leg or stop": {i.id for i in trip.items},
    }
    known["thing with a battery"] = {g.id for g in kit.gear}
    stores = {s.id for s in kit.sources if s.kind in ("bank", "module")}
    known["battery or bank"] = known["battery"] | stores | known["thing with a battery"]
    known["source or charger"] = known["source"] | {c.id for c in kit.chargers} | known["camera"]
    for where, what, name in _names_in(plan):
        if name is not None:
            refuse_unknown(f"{where}: {what}", name, known[what])


def _names_in(plan: Plan) -> Iterator[tuple[str, str, str | None]]:
    """Every name by which a plan leans on kit and trip: where, what it is, the name."""
    for number, chosen in enumerate(plan.cameras):
        where = f"plan.cameras[{number}]"
        yield where, "camera", chosen.camera
        yield where, "battery", chosen.battery
        yield where, "card", chosen.card
        yield where, "source", chosen.source
    for number, assignment in enumerate(plan.assignments):
        yield f"plan.assignments[{number}]", "camera", assignment.camera
        yield f"plan.assignments[{number}]", "leg or stop", assignment.item
    for number, swap in enumerate(plan.swaps):
        yield f"plan.swaps[{number}]", "camera", swap.camera
        yield f"plan.swaps[{number}]", "leg or stop", swap.item
        yield f"plan.swaps[{number}]", "battery", swap.battery
    for number, plug in enumerate(plan.plugs):
        yield f"plan.plugs[{number}]", "battery or bank", plug.unit
        yield f"plan.plugs[{number}]", "leg or stop", plug.item
        yield f"plan.plugs[{number}]", "source or charger", plug.to
    for number, change in enumerate(plan.card_swaps):
        yield f"plan.card_swaps[{number}]", "camera", change.camera
        yield f"plan.card_swaps[{number}]", "leg or stop", change.item
        yield f"plan.card_swaps[{number}]", "card", change.card
    for number, use in enumerate(plan.gear):
        yield f"plan.gear[{number}]", "thing with a battery", use.gear
        yield f"plan.gear[{number}]", "leg or stop", use.item
    for number, wanted in enumerate(plan.full_by):
        yield f"plan.full_by[{number}]", "battery or bank", wanted.unit
    for number, copy in enumerate(plan.copies):
        where = f"plan.copies[{number}]"
        yield where, "leg or stop", copy.item
        yield where, "camera", copy.camera
        yield where, "card", copy.card
        yield where, "drive", copy.drive
    for number, link in enumerate(plan.links):
        for name in link.cameras:
            yield f"plan.links[{number}]", "camera", name


def read_document(text: str | bytes) -> PlanDocument:
    """Read a plan file. Raises BadDocument with the path of every field at fault."""
    try:
        plain = text.decode("utf-8-sig") if isinstance(text, bytes) else text
        loaded: Any = json.loads(plain, parse_constant=_refuse_constant)
    except UnicodeDecodeError as error:
        raise BadDocument(
            (FieldFault("(file)", f"is not UTF-8 text, byte {error.start}"),)
        ) from None
    except json.JSONDecodeError as error:
        where = f"line {error.lineno}, column {error.colno}"
        raise BadDocument((FieldFault(where, f"is not JSON: {error.msg}"),)) from None
    except (ValueError, RecursionError) as error:
        raise BadDocument((FieldFault("(file)", str(error)),)) from None
    if not isinstance(loaded, dict) or "tumbrel" not in loaded:
        raise BadDocument((FieldFault("tumbrel", "is missing: this is no plan file of Tumbrel"),))
    return parse_document(numbered(brought_up(loaded, "file")))


def parse_document(loaded: object) -> PlanDocument:
    """Validate a loaded document. Raises BadDocument with the path of every field at fault."""
    try:
        return PlanDocument.model_validate_json(json.dumps(loaded))
    except ValidationError as error:
        raise BadDocument(faults_of(error)) from None


def faults_of(error: ValidationError) -> tuple[FieldFault, ...]:
    """Pydantic's findings as paths like `trip.items[3].duration_s`."""
    faults = []
    for found in error.errors(include_url=False):
        why = found["msg"].removeprefix("Value error, ")
        faults.append(FieldFault(_path(found["loc"]), why))
    return tuple(faults)


def write_document(document: PlanDocument) -> str:
    """The document as text, in the order of its fields."""
    return document.model_dump_json(indent=1) + "\n"


UNION_FIELDS = frozenset({"draw", "memory", "pattern", "opens", "closes"})
ITEM_TAGS = frozenset({"leg", "stop", "bank", "mains", "vehicle", "dynamo", "panel"})


def _path(location: tuple[int | str, ...]) -> str:
    """A location as a path of the file, without the unions' tags that pydantic puts into it."""
    path = ""
    for number, step in enumerate(location):
        before = location[number - 1] if number else None
        if isinstance(step, int):
            path += f"[{step}]"
        elif before in UNION_FIELDS or (step in ITEM_TAGS and not isinstance(before, str)):
            continue
        else:
            path += f".{step}" if path else step
    return path or "(document)"


def _refuse_constant(name: str) -> float:
    raise ValueError(f"{name} is not a number that a plan file may hold")
