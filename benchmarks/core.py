"""How fast the core rehearses, beside a brute-force march of the same plan in the same run."""

from __future__ import annotations

import json
import os
import subprocess
import sys
import time
from typing import Any

import tumbrel
from benchmarks.trips import DAYS, demo, month, play_whole
from benchmarks.yardstick import fastest_ms, line, median_ms, yardstick_ms
from tests.reference.many import KINDS, plan_of
from tests.reference.second import march
from tools.driving import ROOT
from tumbrel.core.cures import CureTarget, cures_of
from tumbrel.core.document import PlanDocument, Roll
from tumbrel.core.rehearsal.engine.checkpoints import play_from, play_once
from tumbrel.core.rehearsal.engine.played import Played, play
from tumbrel.core.rehearsal.trip.prepare import prepare
from tumbrel.core.report import rehearse, tell
from tumbrel.core.shelf import ShelfQuestion, mode_runtimes
from tumbrel.core.variants import STARTING, made
from tumbrel.working.collecting import collect_seldom

TOLD_MS = {"machine code": 30.0, "plain": 60.0}
RATIO = 2.0
SHELF_MS = 100.0
MONTH_MS = 400.0
CURES_MS = 500.0
SET_MS = 1000.0
EDIT_MS = 60.0
FASTER = 100.0
SEGMENT_US = 25.0
FLAT = 1.2


def main() -> bool:
    """Print the core's figures; True when all are met."""
    met = _forms()
    main_demo = demo()
    collect_seldom()  # as the server does
    print(f"the core here is {form()}:")
    now = yardstick_ms()
    met &= line(
        "cures of the demo's first gap",
        fastest_ms(lambda: _cured(main_demo), 3),
        "ms",
        CURES_MS,
        now,
    )
    made_ms = fastest_ms(lambda: [made(main_demo, start, play_whole) for start in STARTING], 2)
    met &= line("the starting set of variants", made_ms, "ms", SET_MS, yardstick_ms())
    question = ShelfQuestion(kit=main_demo.kit, trip=main_demo.trip)
    now = yardstick_ms()
    met &= line(
        "main demo's shelf", median_ms(lambda: mode_runtimes(question), 20), "ms", SHELF_MS, now
    )
    large = month(main_demo, 30)
    now = yardstick_ms()
    whole = fastest_ms(lambda: rehearse(large), 6)
    met &= line("eight cameras over thirty days, told", whole, "ms", MONTH_MS, now)
    return _edit(large) and met


def form() -> str:
    """In which form the core runs here."""
    return "machine code" if tumbrel.BUILT else "plain"


def _forms() -> bool:
    """The main demo in both forms, each in a process of its own, in turn: noise meets both."""
    if not tumbrel.BUILT:
        print("the core is not built in machine code here: python -m tumbrel.compiling")
    segments = _of_process("benchmarks.segments", pure="1")
    best: dict[str, dict[str, float]] = {}
    for _ in range(3):
        for pure in ("1", ""):
            one = _of_process("benchmarks.core", "--one", pure=pure)
            known = best.setdefault(one.pop("form"), one)
            known.update({name: min(value, known[name]) for name, value in one.items()})
    met = True
    for name, figures in best.items():
        now = figures["yardstick"]
        met &= line(f"main demo, {name}: told", figures["told"], "ms", TOLD_MS[name], now)
        print(f"  prepared and played                    {figures['demo']:8.1f} ms")
        print(f"  a plan marched in half seconds takes   {figures['marched']:8.0f} times as long")
        costs = {trip: figures[trip] * 1000.0 / count for trip, count in segments.items()}
        for trip, cost in costs.items():
            what = "the main demo" if trip == "demo" else f"{trip} days"
            print(f"  {what:13}: {segments[trip]:6d} segments, {cost:5.1f} us each")
        met &= line("a segment", max(costs.values()), "us", SEGMENT_US, now)
        long = [costs[str(days)] for days in DAYS]
        met &= line("dearest over cheapest of the long", max(long) / min(long), "", FLAT)
        met &= figures["marched"] > FASTER
    if len(best) == 2:
        ratio = best["plain"]["demo"] / best["machine code"]["demo"]
        print(f"plain over machine code, played          {ratio:8.1f}  (at least {RATIO:g})")
        met &= ratio >= RATIO
    return met


def _of_process(module: str, *words: str, pure: str) -> Any:
    """What a module of ours prints as JSON, run with the core in one form."""
    env = {**os.environ, "TUMBREL_PURE": pure}
    command = [sys.executable, "-m", module, *words]
    return json.loads(
        subprocess.run(command, env=env, cwd=ROOT, capture_output=True, check=True).stdout
    )


def one_form() -> None:
    """Figures of the form that runs in this process [ms], as JSON."""
    main_demo = demo()
    play(prepare(main_demo))
    collect_seldom()
    now = yardstick_ms()
    played = fastest_ms(lambda: play(prepare(main_demo)), 15)
    told = fastest_ms(lambda: rehearse(main_demo), 15)
    short, marched = _marched()
    figures = {"yardstick": now, "demo": played, "told": told, "marched": marched / short}
    for days in DAYS:
        large = month(main_demo, days)
        figures[str(days)] = fastest_ms(lambda one=large: play(prepare(one)), 2)  # type: ignore[misc]
    print(json.dumps({"form": form(), **figures}))


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
    same = tell(again) == tell(straight)
    print(f"  same as from the start: {'yes' if same else 'NO'}")
    return line("edit on the last of thirty days", resumed, "ms", EDIT_MS, now) and same


def _cured(demo: PlanDocument) -> None:
    """All cures of one gap, from the document's own checkpoints, as the server looks for them."""
    _, known = play_from(demo)

    def again(changed: PlanDocument) -> Played:
        return play_once(changed, known)

    target = CureTarget(camera="chin", item="d2-flight")
    assert len(list(cures_of(demo, target, again))) > 1


def _marched() -> tuple[float, float]:
    """The second engine's plans, played and marched in half seconds [ms each]."""
    plans = [plan_of(seed) for seed in range(len(KINDS))]
    documents = [PlanDocument.model_validate(plan) for plan in plans]
    start = time.perf_counter()
    for document in documents:
        play(prepare(document))
    middle = time.perf_counter()
    for plan in plans:
        march(plan)
    each = 1000.0 / len(plans)
    return (middle - start) * each, (time.perf_counter() - middle) * each


if __name__ == "__main__":
    one_form() if "--one" in sys.argv else main()
