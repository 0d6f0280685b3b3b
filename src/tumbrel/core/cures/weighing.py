"""What a change gains and costs: minutes, moments, and findings that bar it.

Source: model/cures#weighed.
"""

from __future__ import annotations

from collections.abc import Mapping

from ..document import IMPORTANCES, Importance, PlanDocument
from ..rehearsal.engine.played import Played
from ..rehearsal.result.minutes import notes_of
from ..rehearsal.result.result import Finding, Loss, Rehearsal
from .target import CureTarget

WORTH_MS = 30_000  # a gain below half a minute is none
WORTH_MOMENTS = 0.5
MOST_LOST = 20  # minutes of less importance for one of more

Place = tuple[str, str | None, str | None]  # code, camera, leg or stop


class Gain:
    """What is kept more, and how many moments more are whole, by importance.

    Minutes that a loop watches and lets go are no gain.
    """

    def __init__(self, before: Rehearsal, after: Rehearsal) -> None:
        self.ms = {one: after.kept_of(one) - before.kept_of(one) for one in IMPORTANCES}
        self.moments = {
            one: round(_moments(after, one) - _moments(before, one), 3) for one in IMPORTANCES
        }
        self.asked_ms = after.verdict.asked_ms - before.verdict.asked_ms

    def loses_a_must(self) -> bool:
        """Whether must minutes go without must moments for them, or must moments go."""
        if self.moments["must"] <= -WORTH_MOMENTS:
            return True
        return self.ms["must"] < -WORTH_MS and self.moments["must"] < WORTH_MOMENTS

    def is_worth_it(self) -> bool:
        """Whether the highest importance that changes gains, and not for far more that goes.

        Or nothing changes and less is asked: the same minutes, at a better time.
        """
        lost_ms = -sum(min(0, ms) for ms in self.ms.values())
        for one in IMPORTANCES:
            if abs(self.moments[one]) >= WORTH_MOMENTS:
                return self.moments[one] > 0
            if abs(self.ms[one]) >= WORTH_MS:
                return self.ms[one] > 0 and lost_ms <= MOST_LOST * self.ms[one]
        return self.asked_ms <= -WORTH_MS


def open_ms(told: Rehearsal, target: CureTarget, legs: Mapping[str, str]) -> int:
    """What of the target is open: milliseconds not filmed, or 1 for a finding that stands.

    A part that was cut off its leg, as `legs` tells, is still that leg.
    """
    if target.code is not None:
        return int(any(is_it(finding, target, legs) for finding in told.findings))
    return sum(loss.lost_ms for loss in losses(told, target, legs))


def lost_ms(played: Played, target: CureTarget, legs: Mapping[str, str]) -> int:
    """What of the target is not filmed [ms], of a trip that is not told for it."""
    asked, defaults = played.written.plan.assignments, played.scene.defaults
    return sum(
        gap.end_ms - gap.start_ms
        for run in played.cameras
        if run.camera.id == target.camera
        for gap, noted in zip(run.time.gaps, notes_of(run, defaults), strict=True)
        if legs.get(asked[gap.assignment].item, asked[gap.assignment].item) == target.item
        and not noted
    )


def losses(told: Rehearsal, target: CureTarget, legs: Mapping[str, str]) -> list[Loss]:
    """The target's losses in order of time: the first is what to work against."""
    found = [
        loss
        for camera in told.cameras
        for loss in camera.losses
        if loss.camera == target.camera and legs.get(loss.item, loss.item) == target.item
    ]
    return sorted(found, key=lambda loss: loss.start_ms)


def is_it(finding: Finding, target: CureTarget, legs: Mapping[str, str]) -> bool:
    """Whether a finding is the target, on its leg or a part of it."""
    return place_of(finding, legs) == (target.code, target.camera, target.item)


def place_of(finding: Finding, legs: Mapping[str, str]) -> Place:
    """What a finding is about, whichever part of a leg it names."""
    return finding.code, finding.camera, legs.get(finding.item or "", finding.item)


class Known:
    """Findings that stood before: on the same leg, or the same thing told of another."""

    def __init__(self, before: Rehearsal) -> None:
        self.places = {place_of(one, {}) for one in before.findings}
        self.told = {_thing(one) for one in before.findings}

    def has(self, finding: Finding, legs: Mapping[str, str]) -> bool:
        """Whether a finding is none that a change has brought.

        What is told once, of its first leg, is told of the next when that is cured.
        """
        return place_of(finding, legs) in self.places or _thing(finding) in self.told

    def barred(self, told: Rehearsal, legs: Mapping[str, str]) -> bool:
        """Whether findings were brought that bar what brings them: those that stop or harm.

        Source: model/cures#weighed.
        """
        graves = (one for one in told.findings if one.severity == "stop" or one.harm)
        return any(not self.has(one, legs) for one in graves)


def _thing(finding: Finding) -> tuple[str, str | None, tuple[tuple[str, object], ...]]:
    return finding.code, finding.camera, tuple(sorted(finding.values.items()))


Must = tuple[str, str]  # camera or moment, and leg or stop


def broken_musts(told: Rehearsal, legs: Mapping[str, str]) -> set[Must]:
    """Musts that lack minutes, and must moments that are missed."""
    broken = {
        (loss.camera, legs.get(loss.item, loss.item))
        for camera in told.cameras
        for loss in camera.losses
        if loss.importance == "must"
    }
    missed = (one for one in told.moments if one.importance == "must" and one.missed)
    return broken | {(one.moment, legs.get(one.item, one.item)) for one in missed}


def origins(after: PlanDocument, before: PlanDocument) -> dict[str, str]:
    """For each part of a leg that a halt has cut off, the leg that it is of."""
    known = {item.id for item in before.trip.items}
    found: dict[str, str] = {}
    leg = ""
    for item in after.trip.items:
        if item.id in known:
            leg = item.id
        elif item.kind == "leg":
            found[item.id] = leg
    return found


def _moments(told: Rehearsal, importance: Importance) -> float:
    return sum(one.whole for one in told.verdict.moments if one.importance == importance)


def written(told: Rehearsal) -> int:
    """Bytes that all cameras write."""
    return sum(camera.bytes_written for camera in told.cameras)
