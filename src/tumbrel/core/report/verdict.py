"""The verdict: green only where it can be trusted (model/results#verdict)."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Final

from ..document import IMPORTANCES, Plan
from ..rehearsal.engine.played import Played
from ..rehearsal.result.result import (
    CameraResult,
    Caught,
    Finding,
    FirstToGiveOut,
    LeastLeft,
    Loss,
    Minutes,
    MomentsWhole,
    Verdict,
)
from ..wording.verdict import Told, verdict_words

STRETCH: Final = re.compile(r"^plan\.assignments\[(\d+)\]")


def verdict_of(
    played: Played,
    cameras: tuple[CameraResult, ...],
    findings: tuple[Finding, ...],
    moments: tuple[Caught, ...],
    least: tuple[LeastLeft, ...],
) -> Verdict:
    """What is broken, what gives out first, and what cannot be trusted."""
    document = played.written
    assignments = document.plan.assignments
    losses = [loss for camera in cameras for loss in camera.losses]
    stops = [finding for finding in findings if finding.severity == "stop"]
    untrusted = {number for finding in stops for number in stretches_of(document.plan, finding)}
    first = _first(played, losses)
    musts = {loss.assignment for loss in losses if loss.importance == "must"}
    musts |= {number for number in untrusted if assignments[number].importance == "must"}
    missed = [one for one in moments if one.importance == "must" and one.missed]
    told = Told(
        document=document,
        minutes=Minutes(
            asked=sum(c.minutes.asked for c in cameras),
            filmed=sum(c.minutes.filmed for c in cameras),
            missing=sum(c.minutes.missing for c in cameras),
            starting=sum(c.minutes.starting for c in cameras),
            watched=sum(c.minutes.watched for c in cameras),
        ),
        broken_musts=len(musts) + len(missed),
        first=first,
        least_left=None if first or not least else least[0],
        start_utc=played.timeline.start_utc,
        moments=moments_by_importance(moments),
        missed=tuple(missed),
        stops=tuple(finding.text for finding in stops),
        unplayed="failed" if played.failed else "mistaken" if played.mistakes else "",
    )
    headline, detail = verdict_words(told)
    return Verdict(
        covered=not losses and not stops and not missed,
        asked_ms=sum(c.asked_ms for c in cameras),
        filmed_ms=sum(c.filmed_ms for c in cameras),
        trusted_ms=sum(
            span.end_ms - span.start_ms
            for camera in cameras
            for span in camera.filmed
            if span.assignment not in untrusted
        ),
        gap_ms=sum(c.gap_ms for c in cameras),
        note_ms=sum(c.note_ms for c in cameras),
        minutes=told.minutes,
        broken_musts=told.broken_musts,
        stops=len(stops),
        moments=told.moments,
        headline=headline,
        detail=detail,
        first=first,
        least_left=told.least_left,
    )


def moments_by_importance(moments: tuple[Caught, ...]) -> tuple[MomentsWhole, ...]:
    """Moments and moments whole of each importance that there is."""
    rows = [
        MomentsWhole(
            importance=importance,
            count=sum(one.count for one in moments if one.importance == importance),
            whole=round(sum((m.whole for m in moments if m.importance == importance), 0.0), 3),
        )
        for importance in IMPORTANCES
    ]
    return tuple(row for row in rows if row.count)


def stretches_of(plan: Plan, finding: Finding) -> Iterator[int]:
    """Numbers of the assignments that a finding is about: its stretch, or all of its camera."""
    found = STRETCH.match(finding.path)
    if found is not None:
        yield int(found.group(1))
        return
    whole = finding.code == "does_not_balance" and finding.camera is None
    for number, assignment in enumerate(plan.assignments):
        if whole or assignment.camera == finding.camera:
            yield number


def _first(played: Played, losses: list[Loss]) -> FirstToGiveOut | None:
    """The first thing that gives out and costs asked minutes."""
    if not losses:
        return None
    loss = min(losses, key=lambda one: one.start_ms)
    return FirstToGiveOut(
        camera=loss.camera,
        cause=loss.cause,
        at_ms=loss.start_ms,
        item=loss.item,
        before_end_ms=played.timeline.duration_ms - loss.start_ms,
        minutes=loss.minutes,
        lost_ms=loss.lost_ms,
    )
