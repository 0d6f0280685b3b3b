"""How often Python looks for unused cycles: seldom, since a rehearsal makes many small objects."""

from __future__ import annotations

import gc

OBJECTS_BETWEEN = 50_000
YOUNGER_RUNS = 20


def collect_seldom() -> None:
    """Leave what is loaded now out of every later look, and look seldom.

    A rehearsal of thirty days otherwise spends a quarter of its time on looks that find nothing.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(OBJECTS_BETWEEN, YOUNGER_RUNS, YOUNGER_RUNS)
