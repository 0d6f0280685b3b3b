"""What a process of its own loads before the first question: all that work there needs."""

from __future__ import annotations

import threading
from collections.abc import Iterator

from tumbrel.core.document import PlanDocument, Stop, Trip
from tumbrel.core.document.kit import Kit
from tumbrel.core.document.plan import Plan
from tumbrel.core.light import sun_heights_of_day

from . import advice, variants  # noqa: F401 - loaded with all that they lean on
from .rehearsing import Breathe, rehearsal_text

MORNING = "2027-06-12T06:00:00"
SUN_AFTER_S = 8.0


def loaded(breathe: Breathe) -> Iterator[bytes]:
    """Load everything, by rehearsing a trip of one stop."""
    trip = Trip.model_validate(
        {"name": "-", "start": MORNING, "items": [Stop(id="a", name="-", duration_s=60)]}
    )
    document = PlanDocument(kit=Kit(), trip=trip, plan=Plan())
    yield from rehearsal_text(breathe, document.model_dump_json())


def loaded_with_sun(breathe: Breathe) -> Iterator[bytes]:
    """The same, and the sun's slow library while nobody waits: an edit may reach another day."""
    yield from loaded(breathe)
    timer = threading.Timer(SUN_AFTER_S, sun_heights_of_day, (0.0, 0.0, 0.0, 0))
    timer.daemon = True
    timer.start()
