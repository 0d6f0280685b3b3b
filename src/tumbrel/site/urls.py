"""Addresses: the API, and the page for everything else."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie

from .api import api
from .problems import Problem, problem_response
from .settings import WEB

NOT_BUILT = "The page is not built yet. Run: python3 run.py demo"


@ensure_csrf_cookie
def page(_request: HttpRequest) -> HttpResponse:
    """The one page; it finds its own way by its address."""
    index = WEB / "index.html"
    if not index.exists():
        return HttpResponse(NOT_BUILT, status=503, content_type="text/plain")
    answer = HttpResponse(index.read_bytes())
    answer["Cache-Control"] = "no-cache"
    answer["Content-Security-Policy"] = (
        "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; "  # reading clips is wasm
        "style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
        "object-src 'none'; base-uri 'none'; frame-ancestors 'none'"
    )
    return answer


def nowhere(_request: HttpRequest) -> HttpResponse:
    """An address of the API that is none."""
    return problem_response(Problem(404, "not_there", "There is no such address."))


urlpatterns = [
    path("api/", api.urls),
    re_path(r"^api/", nowhere),
    re_path(r"^(?!api/|static/).*$", page),
]
