"""What all addresses share: the owner of a request and the refusals that are documented."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja import Schema


class Fault(Schema):
    """One field at fault."""

    path: str
    why: str


class ProblemOut(Schema):
    """A refusal, as application/problem+json (RFC 9457)."""

    type: str
    title: str
    status: int
    detail: str
    faults: tuple[Fault, ...] = ()
    used_by: tuple[str, ...] = ()
    current: dict[str, Any] | None = None


PROBLEM_TYPE = "application/problem+json"
STATUSES = (400, 401, 403, 404, 405, 409, 413, 422, 500, 503, 507)
REFUSALS: dict[int, type[ProblemOut]] = dict.fromkeys(STATUSES, ProblemOut)


def owner_of(request: HttpRequest) -> User:
    """The signed-in owner; the site signs the local one in before any address is reached."""
    user = request.user
    assert isinstance(user, User)
    return user
