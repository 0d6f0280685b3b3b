"""The API: its parts, its sign-in and its errors."""

from __future__ import annotations

from ninja import NinjaAPI
from ninja.security import django_auth

from tumbrel.bench.api import router as bench_router
from tumbrel.kit.api import router as kit_router
from tumbrel.trips.api import router as trips_router
from tumbrel.trips.bin_api import router as bin_router
from tumbrel.trips.sums_api import router as sums_router
from tumbrel.trips.variants_api import router as variants_router

from .problems import tell_problems

api = NinjaAPI(
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
api.add_router("", bin_router)
api.add_router("", variants_router)
api.add_router("", sums_router)
