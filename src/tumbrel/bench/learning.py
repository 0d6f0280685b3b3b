"""Fits asked for by the page; the last few are kept in memory, since a slider asks often."""

from __future__ import annotations

from hashlib import sha256
from threading import Lock

from cachetools import LRUCache

from tumbrel.core.bench.fit import Learned, learn
from tumbrel.core.bench.predict import BenchQuestion

MOST_FITS = 12

_lock = Lock()
_known: LRUCache[str, Learned] = LRUCache(MOST_FITS)


def learned_of(question: BenchQuestion) -> Learned:
    """What the runs of a camera teach. Nothing leans on what is kept: the same is found again."""
    camera, family = question.assumed(), question.assumed_family()
    runs = tuple(run for run in question.runs if run.camera == camera.id)
    asked = BenchQuestion(camera=camera, family=family, runs=runs)
    key = sha256(asked.model_dump_json().encode()).hexdigest()
    with _lock:
        found = _known.get(key)
    if found is not None:
        return found
    found = learn(camera, family, runs)
    with _lock:
        _known[key] = found
    return found
