"""Errors of the API: one module that makes problem+json of every refusal (RFC 9457)."""

from __future__ import annotations

import logging
from dataclasses import dataclass, field
from http import HTTPStatus
from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import HttpError, ValidationError
from pydantic import BaseModel

from tumbrel.core.document import BadDocument, FieldFault
from tumbrel.keeping.api import Fault, ProblemOut
from tumbrel.keeping.refusals import InUse, NothingToUndo, NotThere, Stale

log = logging.getLogger(__name__)


@dataclass(frozen=True)
class Problem:
    """What went wrong, in words a person can act on."""

    status: int
    code: str
    detail: str
    faults: tuple[FieldFault, ...] = ()
    current: BaseModel | None = None
    used_by: tuple[str, ...] = field(default=())


def problem_response(problem: Problem) -> HttpResponse:
    """The problem as an answer."""
    out = ProblemOut(
        type=f"/problems/{problem.code}",
        title=problem.code.replace("_", " "),
        status=problem.status,
        detail=problem.detail,
        faults=tuple(Fault(path=f.path, why=f.why) for f in problem.faults),
        used_by=problem.used_by,
        current=problem.current.model_dump(mode="json") if problem.current else None,
    )
    return HttpResponse(
        out.model_dump_json(), status=problem.status, content_type="application/problem+json"
    )


def tell_problems(api: NinjaAPI) -> None:
    """Register every refusal of the application with the API."""

    @api.exception_handler(BadDocument)
    def _bad(_request: HttpRequest, error: BadDocument) -> HttpResponse:
        first = error.faults[0]
        detail = f"{first.path}: {first.why}. Nothing was changed."
        return problem_response(Problem(422, "bad_document", detail, error.faults))

    @api.exception_handler(ValidationError)
    def _invalid(_request: HttpRequest, error: ValidationError) -> HttpResponse:
        faults = tuple(_fault(found) for found in error.errors)
        detail = f"{faults[0].path}: {faults[0].why}. Nothing was changed."
        return problem_response(Problem(422, "bad_document", detail, faults))

    @api.exception_handler(Stale)
    def _stale(_request: HttpRequest, error: Stale) -> HttpResponse:
        detail = f"It was saved elsewhere at {error.saved_at}. Yours is kept beside it."
        return problem_response(Problem(409, "stale", detail, current=error.current))

    @api.exception_handler(InUse)
    def _in_use(_request: HttpRequest, error: InUse) -> HttpResponse:
        detail = f"{error.what} is used by {', '.join(error.trips)}. Take it out there as well?"
        return problem_response(Problem(409, "in_use", detail, used_by=error.trips))

    @api.exception_handler(NotThere)
    def _not_there(_request: HttpRequest, error: NotThere) -> HttpResponse:
        return problem_response(Problem(404, "not_there", f"There is no such {error.what}."))

    @api.exception_handler(NothingToUndo)
    def _nothing(_request: HttpRequest, error: NothingToUndo) -> HttpResponse:
        return problem_response(Problem(409, "nothing_to_undo", f"Nothing to {error.what}."))

    @api.exception_handler(Exception)
    def _failed(request: HttpRequest, error: Exception) -> HttpResponse:
        log.error("%s %s failed", request.method, request.path, exc_info=error)
        detail = f"Tumbrel failed at this ({type(error).__name__}). Nothing was changed."
        return problem_response(Problem(500, "failed", detail))

    @api.exception_handler(HttpError)
    def _http(_request: HttpRequest, error: HttpError) -> HttpResponse:
        if error.status_code == HTTPStatus.FORBIDDEN:
            detail = "This change did not come from Tumbrel's own page. Reload the page."
            return problem_response(Problem(403, "not_from_page", detail))
        return problem_response(Problem(error.status_code, "refused", str(error)))


def _fault(found: dict[str, Any]) -> FieldFault:
    steps = [step for step in found["loc"] if step not in ("body", "asked")]
    path = "".join(f"[{s}]" if isinstance(s, int) else f".{s}" for s in steps).lstrip(".")
    return FieldFault(path or "(body)", str(found["msg"]).removeprefix("Value error, "))
