"""Addresses: the API, and the page for everything else."""

from __future__ import annotations

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie

from .api import api
from .problems import Problem, not_from_page, problem_of, problem_response
from .settings import WEB

NOT_BUILT = "The page is not built yet. Run: python3 run.py demo"


@ensure_csrf_cookie
def page(_request: HttpRequest) -> HttpResponse:
    """The one page; it finds its own way by its address."""
    index = WEB / "index.html"
    if not index.exists():
        return HttpResponse(NOT_BUILT, status=503, content_type="text/plain")
    named = f'<meta name="tumbrel-installation" content="{settings.INSTALLATION}" />'
    text = index.read_text(encoding="utf-8").replace("</head>", f"  {named}\n  </head>", 1)
    answer = HttpResponse(text)
    answer["Cache-Control"] = "no-cache"
    answer["Content-Security-Policy"] = (
        "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; "  # reading clips is wasm
        "style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
        "object-src 'none'; base-uri 'none'; frame-ancestors 'none'"
    )
    return answer


def without_token(_request: HttpRequest, reason: str = "") -> HttpResponse:  # noqa: ARG001 - Django's
    """A change without the page's own token."""
    return problem_response(not_from_page())


def nowhere(_request: HttpRequest) -> HttpResponse:
    """An address of the API that is none."""
    return problem_response(Problem(404, "not_there", "There is no such address."))


def bad_request(_request: HttpRequest, exception: Exception) -> HttpResponse:
    """What Django itself cannot read or refuses."""
    problem = problem_of(exception)
    if problem is None:
        problem = Problem(400, "unreadable", "This cannot be read as it was sent.")
    return problem_response(problem)


def failed_outside(_request: HttpRequest) -> HttpResponse:
    """A fault of ours outside the API."""
    return problem_response(Problem(500, "failed", "Tumbrel failed at this. Nothing was changed."))


handler400 = bad_request
handler500 = failed_outside

urlpatterns = [
    path("api/", api.urls),
    re_path(r"^api/", nowhere),
    re_path(r"^(?!api/|static/).*$", page),
]
