"""Trips to measure with: the main demo, and it over and over for many days."""

from __future__ import annotations

import itertools

from tools.driving import ROOT
from tumbrel.core.document import (
    Camera,
    FixedMemory,
    Leg,
    PlanDocument,
    Socket,
    Stop,
    read_document,
)
from tumbrel.core.rehearsal.engine.played import Played, play
from tumbrel.core.rehearsal.trip.prepare import prepare

DAYS = (1, 4, 10, 30)
ROOM_GB = 8192
DAY_S = 86_400


def demo() -> PlanDocument:
    """The main demo."""
    file = ROOT / "src" / "tumbrel" / "demo" / "ostrel-crossing.json"
    return read_document(file.read_bytes())


def play_whole(document: PlanDocument) -> Played:
    """Play a document from its start."""
    return play(prepare(document))


def month(demo: PlanDocument, days: int) -> PlanDocument:
    """Twice the demo's cameras over some days, the demo's over and over.

    With sockets at all stops and memory enough, so that the last days are filmed like the first.
    """
    kit, trip, plan = demo.kit, demo.trip, demo.plan
    cameras = [_roomy(c, f"{c.id}{n}") for n in (1, 2) for c in kit.cameras]
    socket = Socket(watts=60.0, start_s=0, duration_s=None)
    items: list[Leg | Stop] = []
    asked = []
    for number, item in enumerate(itertools.cycle(trip.items)):
        if sum(one.duration_s for one in items) + item.duration_s > days * DAY_S:
            break
        more: dict[str, object] = {"id": f"{item.id}-{number}"}
        more |= {"socket": socket} if isinstance(item, Stop) else {}
        items.append(item.model_copy(update=more))
        asked += [
            a.model_copy(update={"camera": f"{a.camera}{n}", "item": f"{item.id}-{number}"})
            for n in (1, 2)
            for a in plan.assignments
            if a.item == item.id
        ]
    batteries = [
        b.model_copy(update={"id": f"{b.id}-{n}", "name": f"{b.name}-{n}"})
        for n in (1, 2)
        for b in kit.batteries
    ]
    cards = [
        card.model_copy(update={"id": f"{card.id}-{n}", "name": f"{card.name}-{n}", "gb": ROOM_GB})
        for n in (1, 2)
        for card in kit.cards
    ]
    kept = {"assignments": tuple(asked), "cameras": (), "copies": (), "links": (), "full_by": ()}
    return PlanDocument(
        kit=kit.model_copy(
            update={"cameras": tuple(cameras), "batteries": tuple(batteries), "cards": tuple(cards)}
        ),
        trip=trip.model_copy(update={"items": tuple(items)}),
        plan=plan.model_copy(update=kept),
    )


def _roomy(camera: Camera, name: str) -> Camera:
    """The same camera with another id, for the largest of cards, at a quarter of its bitrates."""
    room = "gb" if isinstance(camera.memory, FixedMemory) else "largest_gb"
    memory = camera.memory.model_copy(update={room: ROOM_GB})
    modes = tuple(m.model_copy(update={"video_mbps": m.video_mbps / 4.0}) for m in camera.modes)
    return camera.model_copy(update={"id": name, "memory": memory, "modes": modes})
