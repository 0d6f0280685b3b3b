"""Who may come in: who opened the printed address, from Tumbrel's own pages."""

from __future__ import annotations

import re
import secrets
from collections.abc import Callable

from django.conf import settings
from django.contrib.auth import SESSION_KEY, login
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect

from ..history.owner import local_owner
from .problems import Problem, problem_response

Handler = Callable[[HttpRequest], HttpResponse]

ENTRY_KEY = secrets.token_urlsafe(24)
ENTER = "/enter"
WENT_S = 600
OWN_SITES = (None, "same-origin", "none")
PARTS = ("/api/", "/static/")

CLOSED = """<!doctype html>
<html lang="en"><head><meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="color-scheme" content="light dark"><title>Tumbrel: open the printed address</title>
<style>
:root {{ --paper: #f6f3ea; --ink: #171c1c; --act: #0b5b8c }}
@media (prefers-color-scheme: dark) {{
:root {{ --paper: #14181a; --ink: #d8d2c4; --act: #8fc1e3 }} }}
body {{ font: 1rem/1.5 system-ui, sans-serif; max-width: 34rem; margin: 12vh auto }}
body {{ padding: 0 1rem; background: var(--paper); color: var(--ink) }}
h1 {{ font-size: 1.3rem }}
input, button {{ font: inherit; padding: .5rem; min-height: 44px; box-sizing: border-box }}
input {{ width: 100%; margin: .25rem 0 .75rem; border: 1px solid var(--ink) }}
input, button {{ background: var(--paper); color: var(--ink) }}
button {{ border: 1px solid var(--act); color: var(--act); font-weight: 650; padding: 0 1rem }}
</style></head><body><main>
<h1>Open the address that Tumbrel printed</h1>
<p>{why} When it starts, Tumbrel prints an address with a key, so that nobody else on this machine
can read or change your trips. Open that address in this browser once; it then goes on to where you
were going. Nothing is lost meanwhile.</p>
<form action="/enter" method="get"><label>Or paste the printed address here
<input name="key" autocomplete="off" required></label><button>Go on</button></form>
</main></body></html>
"""


class OwnPagesOnly:
    """Refuse what pages of other sites ask for; a plain visit from there passes."""

    def __init__(self, get_response: Handler) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Let what comes from here, or from the address bar, through; answer the rest with 403."""
        headers = request.headers
        visit = (
            request.method == "GET"
            and headers.get("Sec-Fetch-Mode") == "navigate"
            and headers.get("Sec-Fetch-Dest") == "document"
            and not request.path.startswith(PARTS)
        )
        if visit or headers.get("Sec-Fetch-Site") in OWN_SITES:
            return self.get_response(request)
        detail = "This was asked for by a page of another site. Open Tumbrel's own page."
        return problem_response(Problem(403, "other_site", detail))


class EnteredOnly:
    """Without a session every address answers with one page, or one problem, that says how."""

    def __init__(self, get_response: Handler) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Let in who has a session; take the key of who brings it."""
        if request.path == ENTER:
            return self._enter(request)
        if SESSION_KEY in request.session:
            return self.get_response(request)
        if request.path.startswith("/api/"):
            detail = "Open the address that Tumbrel printed when it started, then go on here."
            return problem_response(Problem(401, "not_entered", detail))
        answer = _closed("")
        if request.method == "GET" and not request.path.startswith(PARTS):
            answer.set_cookie(
                _went_name(),
                request.get_full_path(),
                max_age=WENT_S,
                httponly=True,
                samesite="Lax",
            )
        return answer

    def _enter(self, request: HttpRequest) -> HttpResponse:
        given = request.GET.get("key", "")
        found = re.search(r"key=([\w-]+)", given)
        key = found.group(1) if found else given.strip()
        if not secrets.compare_digest(key.encode(), ENTRY_KEY.encode()):
            return _closed("This key is not, or no longer, the one that was printed last.")
        login(request, local_owner(), backend="django.contrib.auth.backends.ModelBackend")
        answer = HttpResponseRedirect(_inside(request.COOKIES.get(_went_name(), "/")))
        answer.delete_cookie(_went_name(), samesite="Lax")
        return answer


def _went_name() -> str:
    return f"tumbrel_went_{settings.INSTALLATION}"


def _inside(path: str) -> str:
    """A path of this site; anything else leads to its first page."""
    return path if re.match(r"/(?![/\\])", path) and "\\" not in path else "/"


def _closed(why: str) -> HttpResponse:
    answer = HttpResponse(CLOSED.format(why=why), status=401)
    answer["Cache-Control"] = "no-store"
    answer["Content-Security-Policy"] = (
        "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'"
    )
    return answer
