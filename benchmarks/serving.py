"""How long a second start takes, and a save while six slow rehearsals run."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from benchmarks.yardstick import line, one_ms, yardstick_ms
from tests.serving.conftest import Visitor, slow, small
from tools.driving import ROOT, served

SAVE_MS = 300.0
SAVES = 20
SLOW_ONES = 6
BEGUN_S = 2.5
START_MS = 2000.0


def main() -> bool:
    """Print the figures; True when the targets are met."""
    now = yardstick_ms()
    with tempfile.TemporaryDirectory() as data:
        started = [_start_ms(Path(data)) for _ in range(3)][1:]
    started_met = line("a second start, until it serves", min(started), "ms", START_MS, now)
    with tempfile.TemporaryDirectory() as data, served(Path(data), demo=False) as server:
        visitor = Visitor(server)
        trip = visitor.trip(small())
        path = f"/trips/{trip['id']}"
        versions = iter(range(1, 10_000))

        def save() -> None:
            body = {"version": next(versions), "trip": trip["trip"], "plan": trip["plan"]}
            assert visitor.ask("PUT", path, body).ok

        quiet = max(one_ms(save) for _ in range(SAVES))
        with ThreadPoolExecutor(SLOW_ONES) as threads:
            others = [Visitor(server) for _ in range(SLOW_ONES)]
            asked = [
                threads.submit(one.ask, "POST", "/rehearsals", slow(f"Slow {number}"))
                for number, one in enumerate(others)
            ]
            time.sleep(BEGUN_S)
            now = yardstick_ms()
            busy = max(one_ms(save) for _ in range(SAVES))
            assert not all(one.done() for one in asked)
    met = line("the slowest of 20 saves", quiet, "ms", SAVE_MS, now)
    met &= line("the same while six slow rehearsals run", busy, "ms", SAVE_MS, now)
    return met and started_met


def _start_ms(data: Path) -> float:
    """From `run.py demo` to its printed address [ms]; the first one sets up what is missing."""
    start = time.perf_counter()
    process = subprocess.Popen(
        [sys.executable, str(ROOT / "run.py"), "demo"],
        env={**os.environ, "TUMBREL_DATA": str(data)},
        stdout=subprocess.PIPE,
        text=True,
        start_new_session=True,
    )
    assert process.stdout is not None
    try:
        assert any("Tumbrel is at" in printed for printed in process.stdout)
        return (time.perf_counter() - start) * 1000.0
    finally:
        os.killpg(process.pid, signal.SIGTERM)
        process.wait()


if __name__ == "__main__":
    main()
