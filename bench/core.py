"""How fast the core rehearses, beside a brute-force march of the same plan in the same run."""

from __future__ import annotations

import time
from typing import Any

from bench.yardstick import QUIET_MS, line, median_ms, yardstick_ms
from tests.reference.integrator import Marcher
from tools.driving import ROOT
from tumbrel.core.document import PlanDocument, Roll, read_document
from tumbrel.core.parameters import DEFAULTS
from tumbrel.core.rehearsal.body_state import BodyState
from tumbrel.core.rehearsal.checkpoints import play_from
from tumbrel.core.rehearsal.engine import play
from tumbrel.core.rehearsal.outcome import rehearse, tell
from tumbrel.core.rehearsal.power import Grid
from tumbrel.core.shelf import ShelfQuestion, hang

DEMO = ROOT / "src" / "tumbrel" / "demo" / "ostrel-crossing.json"
REHEARSE_MS = 50.0
SHELF_MS = 100.0
MONTH_MS = 1000.0
EDIT_MS = 60.0
SEGMENT_US = 25.0
FASTER = 100.0
FLAT = 1.2


def main() -> bool:
    """Print the core's figures; True when all are met."""
    demo = read_document(DEMO.read_bytes())
    now = yardstick_ms()
    played = median_ms(lambda: play(demo), 20)
    met = line("main demo played by the engine", played, "ms", REHEARSE_MS, now)
    told = median_ms(lambda: rehearse(demo), 9)
    print(f"  told as well                           {told:8.1f} ms")
    marched = _marched_ms(demo)
    times = marched / played
    print(f"  marched in half seconds                {marched:8.0f} ms: {times:.0f} times slower")
    met &= times > FASTER
    met &= _segments(demo)
    question = ShelfQuestion(kit=demo.kit, trip=demo.trip)
    now = yardstick_ms()
    met &= line("main demo's shelf", median_ms(lambda: hang(question), 20), "ms", SHELF_MS, now)
    large = month(demo, 8)
    now = yardstick_ms()
    whole = median_ms(lambda: rehearse(large), 3)
    met &= line("eight cameras over thirty days", whole, "ms", MONTH_MS, now)
    return _edit(large) and met


def _edit(large: PlanDocument) -> bool:
    """The last stretch of thirty days made a roll, from the checkpoint before it."""
    _, earlier = play_from(large)
    changed = large.plan.assignments[-1].model_copy(update={"pattern": Roll()})
    assignments = (*large.plan.assignments[:-1], changed)
    plan = large.plan.model_copy(update={"assignments": assignments})
    edited = large.model_copy(update={"plan": plan})
    now = yardstick_ms()
    resumed = median_ms(lambda: play_from(edited, earlier), 5)
    again, _ = play_from(edited, earlier)
    straight, _ = play_from(edited)
    same = tell(again, DEFAULTS) == tell(straight, DEFAULTS)
    print(f"  same as from the start: {'yes' if same else 'NO'}")
    return line("edit on the last of thirty days", resumed, "ms", EDIT_MS, now) and same


def _segments(demo: PlanDocument) -> bool:
    """Cost of a segment (a stretch advanced in closed form), and whether it stays flat."""
    costs = []
    for turns in (1, 2, 4, 8):
        document = month(demo, turns)
        segments = _advances(document)
        now = yardstick_ms()
        took = median_ms(lambda doc=document: play(doc), 5)  # type: ignore[misc]
        cost = took * 1000.0 / segments * min(1.0, QUIET_MS / now)
        costs.append(cost)
        print(f"  {4 * turns:2d} days: {segments:6d} segments, {cost:5.1f} us each when quiet")
    met = line("a segment when quiet", max(costs), "us", SEGMENT_US)
    return line("dearest over cheapest segment", max(costs) / min(costs), "", FLAT) and met


def _advances(document: PlanDocument) -> int:
    """Stretches that a rehearsal advances: of cameras, of charging batteries, of banks."""
    count = 0
    camera, grid = BodyState.advance, Grid.advance

    def counting(self: BodyState, to_ms: int) -> None:
        nonlocal count
        count += to_ms > self.now_ms
        camera(self, to_ms)

    def counting_grid(self: Grid, to_ms: int) -> None:
        nonlocal count
        if to_ms > self.now_ms:
            count += len(self.banks)
            count += sum(bay.cell is not None for one in self.chargers for bay in one.bays)
        grid(self, to_ms)

    BodyState.advance = counting  # type: ignore[method-assign]
    Grid.advance = counting_grid  # type: ignore[method-assign]
    try:
        play(document)
    finally:
        BodyState.advance = camera  # type: ignore[method-assign]
        Grid.advance = grid  # type: ignore[method-assign]
    return count


def _marched_ms(demo: PlanDocument) -> float:
    """The demo's cameras marched one by one [ms], windows of the sun as windows of the clock."""
    document: dict[str, Any] = demo.model_dump(mode="json")
    for camera in document["kit"]["cameras"]:
        camera["limits"] = camera["limits"] or {"stop_c": 70, "restart_c": 55}
        camera["standby_w"] = camera["standby_w"] or 0.5
        camera["boot_s"] = camera["boot_s"] or 4
        for mode in camera["modes"]:
            if mode["rise_k"] is None:
                del mode["rise_k"]
        for set_up in camera["set_ups"]:
            if set_up["tau_s"] is None:
                del set_up["tau_s"]
    for assignment in document["plan"]["assignments"]:
        pattern = assignment["pattern"]
        for window in pattern.get("windows", ()):
            window |= {"opens": {"at": "19:30"}, "closes": {"at": "20:30"}}
        if pattern["kind"] == "loop":
            pattern["saves"] = pattern["saves"] or 3
    for battery in document["kit"]["batteries"]:
        battery["pocket"] = battery["pocket"] or ""
    start = time.perf_counter()
    for number in range(len(document["kit"]["cameras"])):
        Marcher(document, number).march()
    return (time.perf_counter() - start) * 1000.0


def month(demo: PlanDocument, turns: int) -> PlanDocument:
    """Twice the demo's cameras over the demo's four days some times in a row."""
    kit, trip, plan = demo.kit, demo.trip, demo.plan
    cameras = [c.model_copy(update={"id": f"{c.id}{n}"}) for n in (1, 2) for c in kit.cameras]
    items, asked = [], []
    for turn in range(turns):
        items += [i.model_copy(update={"id": f"{i.id}-{turn}"}) for i in trip.items]
        asked += [
            a.model_copy(update={"camera": f"{a.camera}{n}", "item": f"{a.item}-{turn}"})
            for n in (1, 2)
            for a in plan.assignments
        ]
    batteries = [
        b.model_copy(update={"id": f"{b.id}-{n}", "name": f"{b.name}-{n}"})
        for n in (1, 2)
        for b in kit.batteries
    ]
    kept = {"assignments": tuple(asked), "cameras": (), "copies": (), "links": (), "full_by": ()}
    return PlanDocument(
        kit=kit.model_copy(update={"cameras": tuple(cameras), "batteries": tuple(batteries)}),
        trip=trip.model_copy(update={"items": tuple(items)}),
        plan=plan.model_copy(update=kept),
    )


if __name__ == "__main__":
    main()
