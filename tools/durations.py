"""How long tests take: what a run measured, told by kind, and kept beside the benchmarks.

A run writes what it measured into the folder that TUMBREL_DURATIONS names; what is kept tells the
next run which tests to begin first, so that no worker is left with a long one at the end.
"""

from __future__ import annotations

import json
import os
from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
KEPT = ROOT / "benchmarks" / "durations.json"
FOLDER = "TUMBREL_DURATIONS"
SLOWEST = 25
LONG_S = 1.0  # shorter ones are kept in their kind's sum only
KINDS = {"apps": "apps", "serving": "serving", "e2e": "browser"}
Measured = dict[str, float]


@dataclass(frozen=True)
class Took:
    """One test in one form of the core [s]."""

    kind: str
    test: str
    seconds: float


def kind_of(test: str, *, built: bool) -> str:
    """The kind of a test, by where it stands and by the form of the core."""
    folder = test.split("/")[1]
    return KINDS.get(folder) or ("core built" if built else "core plain")


def write(name: str, measured: Measured) -> None:
    """Put away what one run of pytest measured, where it is asked for."""
    if folder := os.environ.get(FOLDER):
        path = Path(folder) / f"{name}-{os.getpid()}.json"
        path.write_text(json.dumps(measured), encoding="utf-8")


def read(folder: Path) -> list[Took]:
    """All that the runs of a folder measured."""
    found = []
    for path in sorted(folder.glob("*.json")):
        built = path.name.startswith("built")
        for test, seconds in json.loads(path.read_text("utf-8")).items():
            found.append(Took(kind_of(test, built=built), test, seconds))
    return found


def sums(all_: Iterable[Took]) -> dict[str, dict[str, float]]:
    """Tests and seconds by kind."""
    found: dict[str, dict[str, float]] = defaultdict(lambda: {"tests": 0, "seconds": 0.0})
    for one in all_:
        found[one.kind]["tests"] += 1
        found[one.kind]["seconds"] += one.seconds
    return dict(sorted(found.items()))


def told(all_: list[Took], steps: dict[str, float]) -> str:
    """A table by kind, the seconds of each step, and the slowest tests."""
    lines = ["", f"{'kind':<14}{'tests':>7}{'seconds of one worker':>24}"]
    for kind, row in sums(all_).items():
        lines.append(f"{kind:<14}{row['tests']:>7.0f}{row['seconds']:>24.0f}")
    lines += ["", f"{'step':<42}{'seconds':>8}"]
    lines += [f"{name:<42}{seconds:>8.0f}" for name, seconds in steps.items()]
    slowest = sorted(all_, key=lambda one: -one.seconds)[:SLOWEST]
    lines += ["", f"slowest {len(slowest)} of {len(all_)}:"]
    lines += [f"{one.seconds:8.1f} s  {one.kind:<12}{one.test}" for one in slowest]
    return "\n".join(lines)


def keep(all_: list[Took], steps: dict[str, float]) -> None:
    """Keep them beside the benchmarks: sums by kind, steps, and every test that is long."""
    long = sorted((one for one in all_ if one.seconds >= LONG_S), key=lambda one: -one.seconds)
    tests: dict[str, Measured] = defaultdict(dict)
    for one in long:
        tests[one.kind][one.test] = round(one.seconds, 1)
    kinds = {
        kind: {name: round(value) for name, value in row.items()}
        for kind, row in sums(all_).items()
    }
    rounded = {name: round(seconds) for name, seconds in steps.items()}
    whole = {"kinds": kinds, "steps_s": rounded, "tests_s": tests}
    KEPT.write_text(json.dumps(whole, indent=1) + "\n", encoding="utf-8")


def known() -> Measured:
    """What each long test took when it was kept last, by its name; the longer form's."""
    if not KEPT.exists():
        return {}
    kinds: dict[str, Measured] = json.loads(KEPT.read_text("utf-8"))["tests_s"]
    found: Measured = {}
    for tests in kinds.values():
        for test, seconds in tests.items():
            found[test] = max(seconds, found.get(test, 0.0))
    return found
