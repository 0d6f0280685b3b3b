"""Sentences in the measures that the page's visitor chose, told by a cookie."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

from tumbrel.core.measures import measures_of, told_in

COOKIE = "tumbrel_measures"


class ChosenMeasures:
    """Answer in metric or imperial measures; what is kept and exchanged stays in SI."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer within the measures of the cookie."""
        with told_in(measures_of(request.COOKIES.get(COOKIE))):
            return self.get_response(request)
