"""The address of the demo trips."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router

from tumbrel.history.api import REFUSALS, owner_of
from tumbrel.trips.queries import trip_state
from tumbrel.trips.schemas import TripState

from .loading import load_demos

router = Router(tags=["trips"])


@router.post("/demo", response={200: TripState, **REFUSALS}, operation_id="openDemo")
def open_demo(request: HttpRequest) -> TripState:
    """Load the demo trips that are missing; answers with the main one."""
    main, _ = load_demos(owner_of(request))
    return trip_state(main)
