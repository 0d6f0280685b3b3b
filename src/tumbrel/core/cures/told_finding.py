"""A finding against which something may be tried, with what it is about."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from ..document import Assignment, Camera, PlanDocument
from ..rehearsal.result.result import Finding, Rehearsal
from .changes import Proposal

NUMBER = re.compile(r"\[(\d+)\]")


@dataclass(frozen=True)
class ToldFinding:
    """A finding with what it is about."""

    document: PlanDocument
    told: Rehearsal
    finding: Finding

    @property
    def numbers(self) -> list[int]:
        """The places that its path names."""
        return [int(number) for number in NUMBER.findall(self.finding.path)]

    @property
    def assignment(self) -> Assignment | None:
        """The stretch that it is about."""
        if not self.finding.path.startswith("plan.assignments["):
            return None
        return self.document.plan.assignments[self.numbers[0]]

    @property
    def camera(self) -> Camera | None:
        """The camera that it is about."""
        cameras = self.document.kit.cameras
        return next((one for one in cameras if one.id == self.finding.camera), None)


Propose = Callable[[ToldFinding], Iterator[Proposal]]
