"""A track of 100,000 points into legs: time, and the memory of a process that does nothing else."""

from __future__ import annotations

import resource
import subprocess
import sys
import time
from datetime import datetime

from benchmarks.yardstick import line, yardstick_ms
from tests.reference.tracks import Recorder, hills, noisy
from tumbrel.core.formats.tracks import read_track
from tumbrel.core.route.cleaning import cleaned
from tumbrel.core.route.laying import TrackQuestion, lay_track

POINTS = 100_000
LAID_MS, MEMORY_MB = 2000.0, 300.0


def main() -> bool:
    """Print both figures; True when they are met."""
    now = yardstick_ms()
    told = subprocess.run(
        [sys.executable, "-m", "benchmarks.tracks", "once"],
        capture_output=True,
        text=True,
        check=True,
    )
    took_ms, memory_mb = map(float, told.stdout.split())
    met = line(f"a track of {POINTS} points into legs", took_ms, "ms", LAID_MS, now)
    return line("memory of that process", memory_mb, "MB", MEMORY_MB) and met


def once() -> None:
    """Read and lay out one track; print milliseconds and the most megabytes held."""
    way = Recorder()
    way.walk(POINTS * 2.0, noisy(hills(400.0, 9000.0), 2.0), 1.2, step_m=2.0)
    data = way.gpx()
    del way
    start = time.perf_counter()
    lay_track(cleaned(read_track(data)), TrackQuestion(start=datetime(2027, 6, 12, 8)))  # noqa: DTZ001
    took_ms = (time.perf_counter() - start) * 1000.0
    print(took_ms, resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1000.0)


if __name__ == "__main__":
    once() if "once" in sys.argv else main()
