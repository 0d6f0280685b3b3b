"""How long the main demo takes in the core."""

from __future__ import annotations

from bench.yardstick import line, median_ms, yardstick_ms
from tools.driving import ROOT
from tumbrel.core.document import PlanDocument, read_document
from tumbrel.core.rehearsal.engine import play
from tumbrel.core.rehearsal.outcome import rehearse
from tumbrel.core.shelf import ShelfQuestion, hang

DEMO = ROOT / "src" / "tumbrel" / "demo" / "ostrel-crossing.json"
REHEARSE_MS = 60.0
SHELF_MS = 100.0
MONTH_MS = 1000.0


def main() -> bool:
    """Print the core's figures; True when all are met."""
    demo = read_document(DEMO.read_bytes())
    question = ShelfQuestion(kit=demo.kit, trip=demo.trip)
    events = sum(len(run.trace.t_ms) for run in play(demo).cameras)
    now = yardstick_ms()
    whole = median_ms(lambda: rehearse(demo), 20)
    met = line("main demo rehearsed in the core", whole, "ms", REHEARSE_MS, now)
    print(f"  of it the engine alone                 {median_ms(lambda: play(demo), 20):8.1f} ms")
    print(f"  points of all courses                  {events:8d}")
    now = yardstick_ms()
    met &= line("main demo's shelf", median_ms(lambda: hang(question), 20), "ms", SHELF_MS, now)
    now = yardstick_ms()
    return line("eight cameras over thirty days", _month(demo), "ms", MONTH_MS, now) and met


def _month(demo: PlanDocument) -> float:
    """Twice the demo's cameras over as many days as a trip may have."""
    kit, trip, plan = demo.kit, demo.trip, demo.plan
    cameras = [c.model_copy(update={"id": f"{c.id}{n}"}) for n in (1, 2) for c in kit.cameras]
    items, asked = [], []
    for turn in range(8):
        items += [i.model_copy(update={"id": f"{i.id}-{turn}"}) for i in trip.items]
        asked += [
            a.model_copy(update={"camera": f"{a.camera}{n}", "item": f"{a.item}-{turn}"})
            for n in (1, 2)
            for a in plan.assignments
        ]
    large = PlanDocument(
        kit=kit.model_copy(update={"cameras": tuple(cameras)}),
        trip=trip.model_copy(update={"items": tuple(items)}),
        plan=plan.model_copy(update={"assignments": tuple(asked), "cameras": ()}),
    )
    return median_ms(lambda: rehearse(large), 3)


if __name__ == "__main__":
    main()
