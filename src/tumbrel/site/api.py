"""The API: its parts, its sign-in and its errors."""

from __future__ import annotations

import json
from typing import cast

from django.http import HttpRequest
from ninja import NinjaAPI
from ninja.parser import Parser
from ninja.security import django_auth
from ninja.types import DictStrAny

from tumbrel.bench.api import router as bench_router
from tumbrel.demo.api import router as demo_router
from tumbrel.kit.api import router as kit_router
from tumbrel.trips.api import router as trips_router
from tumbrel.trips.bin_api import router as bin_router
from tumbrel.trips.sums_api import router as sums_router
from tumbrel.trips.variants_api import router as variants_router

from .problems import tell_problems
from .versions_api import router as versions_router


class WholeText(Parser):
    """Bodies of JSON; halves of characters are refused, as no file can hold them."""

    def parse_body(self, request: HttpRequest) -> DictStrAny:
        """The body. Raises UnicodeEncodeError, or ValueError for what is no JSON."""
        loaded = json.loads(request.body)
        if b"\\u" in request.body:
            json.dumps(loaded, ensure_ascii=False).encode("utf-8")
        return cast("DictStrAny", loaded)


api = NinjaAPI(
    parser=WholeText(),
    title="Tumbrel",
    version="1",
    auth=django_auth,
    docs_url=None,
    openapi_url=None,
    urls_namespace="api",
)
tell_problems(api)
api.add_router("", kit_router)
api.add_router("", bench_router)
api.add_router("", trips_router)
api.add_router("", demo_router)
api.add_router("", bin_router)
api.add_router("", variants_router)
api.add_router("", sums_router)
api.add_router("", versions_router)
