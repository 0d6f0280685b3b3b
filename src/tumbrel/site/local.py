"""Only this machine is answered."""

from __future__ import annotations

from collections.abc import Callable
from ipaddress import ip_address

from django.http import HttpRequest, HttpResponse

from .problems import Problem, problem_response

Handler = Callable[[HttpRequest], HttpResponse]


def is_loopback(address: str) -> bool:
    """Whether an address is this machine's own."""
    try:
        return ip_address(address).is_loopback
    except ValueError:
        return False


class LoopbackOnly:
    """Refuse every request that does not come from this machine."""

    def __init__(self, get_response: Handler) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Let a loopback request through; answer any other with 403."""
        if is_loopback(request.META.get("REMOTE_ADDR", "")):
            return self.get_response(request)
        return problem_response(
            Problem(403, "not_local", "Tumbrel answers only on the machine that it runs on.")
        )
