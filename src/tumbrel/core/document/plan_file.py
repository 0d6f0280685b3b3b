"""One document: kit, trip and plan, and the ways it is read and refused."""

from __future__ import annotations

import json
from typing import Any, Literal

from pydantic import Field, ValidationError, model_validator

from .base import Part
from .faults import BadDocument, FieldFault
from .kit import Kit
from .plan import Plan
from .references import refuse_missing
from .trip import Trip
from .units import units_of
from .versions import brought_up, numbered


class PlanDocument(Part):
    """Kit, trip and plan in one file."""

    tumbrel: Literal[5] = Field(default=5, description="Version of this file's schema.")
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
    refuse_missing(plan, {**units_of(kit), "item": {i.id for i in trip.items}})


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
ITEM_TAGS = frozenset({"leg", "stop", "bank", "module", "mains", "vehicle", "dynamo", "panel"})


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
