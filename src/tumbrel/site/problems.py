"""Errors of the API: one module that makes problem+json of every refusal (RFC 9457)."""

from __future__ import annotations

import errno
import logging
from collections.abc import Callable
from dataclasses import dataclass, field
from http import HTTPStatus
from typing import Any

from django.conf import settings
from django.core.exceptions import BadRequest, RequestDataTooBig
from django.db import OperationalError
from django.http import HttpRequest, HttpResponse, UnreadablePostError
from django.http.multipartparser import MultiPartParserError
from ninja import NinjaAPI
from ninja.errors import HttpError, ValidationError
from pydantic import BaseModel
from pydantic import ValidationError as PydanticError

from tumbrel.core.document import BadDocument, FieldFault
from tumbrel.core.document.base import whole_text
from tumbrel.core.document.plan_file import faults_of
from tumbrel.history.api import PROBLEM_TYPE, Fault, ProblemOut
from tumbrel.history.refusals import InUse, NothingToUndo, NotThere, Stale
from tumbrel.working.desks import Busy
from tumbrel.working.watch import Abandoned
from tumbrel.working.worker import Failed

MOST_FAULTS = 50
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
        detail=whole_text(problem.detail),
        faults=tuple(Fault(path=whole_text(f.path), why=whole_text(f.why)) for f in problem.faults),
        used_by=problem.used_by,
        current=problem.current.model_dump(mode="json") if problem.current else None,
    )
    text = out.model_dump_json()
    answer = HttpResponse(text, status=problem.status, content_type=PROBLEM_TYPE)
    answer._has_been_logged = True  # type: ignore[attr-defined]  # it is told to who asked
    return answer


def refused(faults: tuple[FieldFault, ...]) -> Problem:
    """A document or a question that is not taken: its faults, the first fifty of them."""
    first = faults[0]
    more = f" {len(faults) - MOST_FAULTS} more are not listed." if len(faults) > MOST_FAULTS else ""
    detail = f"{first.path}: {first.why}. Nothing was changed.{more}"
    return Problem(422, "bad_document", detail, faults[:MOST_FAULTS])


def too_large() -> Problem:
    """A body over the limit."""
    mb = settings.DATA_UPLOAD_MAX_MEMORY_SIZE // (1024 * 1024)
    detail = f"This is too large: the most that is taken at once is {mb} MB. Nothing was changed."
    return Problem(413, "too_large", detail)


def not_from_page() -> Problem:
    """A change without the page's own token."""
    detail = "This change did not come from Tumbrel's own page. Reload the page."
    return Problem(403, "not_from_page", detail)


UNREADABLE = (MultiPartParserError, BadRequest, UnreadablePostError)
OUTSIDE = (
    ((OverflowError,), "SQLite", Problem(404, "not_there", "There is nothing of that number.")),
    (UNREADABLE, None, Problem(400, "unreadable", "This cannot be read as it was sent.")),
    ((Busy,), None, Problem(503, "busy", "Newer questions are answered first. Ask again.")),
    ((Abandoned,), None, Problem(503, "gone", "Nobody waited for the answer any more.")),
    (
        (OperationalError,),
        "full",
        Problem(507, "disk_full", "The disk is full; your edit is kept here. Make room."),
    ),
    (
        (OperationalError,),
        "readonly",
        Problem(507, "read_only", "The data cannot be written to; your edit is kept here."),
    ),
    (
        (OperationalError,),
        "locked",
        Problem(503, "busy", "The data are in use just now; your edit is kept here."),
    ),
)


def problem_of(error: Exception) -> Problem | None:
    """What is told of an error that anything here may raise; None for a fault of ours."""
    if isinstance(error, BadDocument):
        return refused(error.faults)
    if isinstance(error, PydanticError):
        return refused(faults_of(error))
    if isinstance(error, RequestDataTooBig):
        return too_large()
    if isinstance(error, UnicodeEncodeError):
        return refused((FieldFault("(text)", "holds half a character; type it anew"),))
    words = str(error)
    if isinstance(error, OSError) and error.errno in (errno.ENOSPC, errno.EDQUOT):
        error, words = OperationalError(), "full"
    for kinds, word, problem in OUTSIDE:
        if isinstance(error, kinds) and (word is None or word in words):
            return problem
    return None


def failed(request: HttpRequest, error: Exception) -> HttpResponse:
    """Any error as an answer; a fault of ours is logged, without what was typed."""
    problem = problem_of(error)
    if problem is None:
        where = request.resolver_match.route if request.resolver_match else ""
        log.error("%s %s failed", request.method, where, exc_info=error)
        detail = f"Tumbrel failed at this ({type(error).__name__}). Nothing was changed."
        if isinstance(error, Failed):  # what is worked out apart only reads what was kept before
            detail = f"Tumbrel failed at this ({error}). What you changed is kept."
        problem = Problem(500, "failed", detail)
    return problem_response(problem)


class ProblemsOnly:
    """Refusals of the API are problems, whoever made them: the framework's own too."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Tell what is refused in another form anew; its headers stay."""
        answer = self.get_response(request)
        told = answer.headers.get("Content-Type", "")
        if answer.status_code < HTTPStatus.BAD_REQUEST or told.startswith(PROBLEM_TYPE):
            return answer
        if not request.path.startswith("/api/"):
            return answer
        status = HTTPStatus(answer.status_code)
        code = status.phrase.lower().replace(" ", "_")
        made = problem_response(Problem(status.value, code, f"{status.phrase}. Nothing changed."))
        if "Allow" in answer.headers:
            made["Allow"] = answer["Allow"]
        return made


def tell_problems(api: NinjaAPI) -> None:
    """Register every refusal of the application with the API."""

    @api.exception_handler(ValidationError)
    def _invalid(_request: HttpRequest, error: ValidationError) -> HttpResponse:
        return problem_response(refused(tuple(_fault(found) for found in error.errors)))

    @api.exception_handler(Stale)
    def _stale(_request: HttpRequest, error: Stale) -> HttpResponse:
        detail = f"It was saved elsewhere at {error.saved_at}. Yours is kept beside it."
        return problem_response(Problem(409, "stale", detail, current=error.current))

    @api.exception_handler(InUse)
    def _in_use(_request: HttpRequest, error: InUse) -> HttpResponse:
        detail = f"{error.what} is used by {', '.join(error.trips)}. Delete those first."
        return problem_response(Problem(409, "in_use", detail, used_by=error.trips))

    @api.exception_handler(NotThere)
    def _not_there(_request: HttpRequest, error: NotThere) -> HttpResponse:
        return problem_response(Problem(404, "not_there", f"There is no such {error.what}."))

    @api.exception_handler(NothingToUndo)
    def _nothing(_request: HttpRequest, error: NothingToUndo) -> HttpResponse:
        return problem_response(Problem(409, "nothing_to_undo", f"Nothing to {error.what}."))

    @api.exception_handler(Exception)
    def _failed(request: HttpRequest, error: Exception) -> HttpResponse:
        return failed(request, error)

    @api.exception_handler(HttpError)
    def _http(_request: HttpRequest, error: HttpError) -> HttpResponse:
        if error.status_code == HTTPStatus.FORBIDDEN:
            return problem_response(not_from_page())
        cause = error.__cause__ or error.__context__
        known = problem_of(cause) if isinstance(cause, Exception) else None
        if known is not None:
            return problem_response(known)
        return problem_response(Problem(error.status_code, "refused", str(error)))


def _fault(found: dict[str, Any]) -> FieldFault:
    steps = tuple(step for step in found["loc"] if step not in ("body", "asked"))
    path = "".join(f"[{s}]" if isinstance(s, int) else f".{s}" for s in steps).lstrip(".")
    return FieldFault(path or "(body)", str(found["msg"]).removeprefix("Value error, "))
