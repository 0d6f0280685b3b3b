"""Copies that run: their clips, and how fast they go over where they share what they copy to.

Source: model/memory#copies.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil
from typing import Final

from mypy_extensions import mypyc_attr

from ...document import Copy, Drive
from ..camera.camera_run import CameraRun
from ..stock.cards import CardRun
from ..stock.clips import Kept

LAND_HAIR: Final = 1e-6  # a whole millisecond of rounding is no later one


@mypyc_attr(serializable=True)
@dataclass(slots=True)
class Job:
    """A copying that runs: its clips, and how much of them has gone over.

    `wholes` is what has gone over once each clip has [bytes], `lands_ms` when those did that have;
    `own_rate` [bytes/s] is what its reader and its cable or radio do by themselves; what it copies
    to is shared. It has gone over `done` bytes at `at_ms`, and is cut short at `until_ms`, by what
    `cut_by` says.
    """

    number: int
    copy: Copy
    card: CardRun
    run: CameraRun | None
    drive: Drive
    start_ms: int
    ends_ms: int
    until_ms: int
    clips: list[Kept]
    wholes: list[int]
    without_room: list[Kept]
    own_rate: float
    lands_ms: list[int]
    at_ms: float
    done: float = 0.0
    cut_by: str = "cut_short"


def shares_of(own_rates: list[float], whole_rate: float) -> list[float]:
    """What each of several gets of one rate [bytes/s]: as much as it does itself, else alike."""
    left, waiting = whole_rate, sorted(range(len(own_rates)), key=own_rates.__getitem__)
    shares = [0.0] * len(own_rates)
    while waiting:
        first = waiting.pop(0)
        shares[first] = min(own_rates[first], left / (len(waiting) + 1))
        left -= shares[first]
    return shares


def run_on(jobs: list[Job], write_rate: float, to_ms: float) -> None:
    """Move jobs on one drive to a time [ms]: what has gone over, and which clips have landed."""
    while True:
        going = [job for job in jobs if job.at_ms < min(to_ms, job.until_ms) and _left(job) > 0.0]
        if not going:
            return
        now_ms = min(job.at_ms for job in going)
        rates = shares_of([job.own_rate for job in going], write_rate)
        ends = [now_ms + _left(job) / rate * 1000.0 for job, rate in zip(going, rates, strict=True)]
        then_ms = min(to_ms, *ends, *(float(job.until_ms) for job in going))
        for job, rate, through_ms in zip(going, rates, ends, strict=True):
            _bring(job, rate, then_ms, through=through_ms <= then_ms)


def _left(job: Job) -> float:
    return job.wholes[-1] - job.done if job.wholes else 0.0


def _bring(job: Job, rate: float, then_ms: float, *, through: bool) -> None:
    """Move one job on at a rate [bytes/s]; `through`: to its last byte."""
    done = job.done + rate * (then_ms - job.at_ms) / 1000.0
    if through:
        done = float(job.wholes[-1])
    while len(job.lands_ms) < len(job.wholes) and job.wholes[len(job.lands_ms)] <= done:
        ahead = job.wholes[len(job.lands_ms)] - job.done
        job.lands_ms.append(ceil(job.at_ms + ahead / rate * 1000.0 - LAND_HAIR))
    job.at_ms, job.done = then_ms, done
