"""Each proposal rehearsed, weighed against the others, and told in order of worth (E11)."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import combinations

from pydantic import Field

from ..document import (
    BadDocument,
    FieldFault,
    Importance,
    Kit,
    Plan,
    PlanDocument,
    Trip,
    check_references,
)
from ..document.base import Part
from ..rehearsal.result import Finding, Loss, Rehearsal
from ..wording.cures import cure_words, joined, nothing_cures
from .changes import Proposal
from .findings import proposals as against_finding
from .losses import proposals as against_loss

Rehearse = Callable[[PlanDocument], Rehearsal]

IMPORTANCES: tuple[Importance, ...] = ("must", "want", "nice")
MINUTE_MS = 60_000
WORTH_MS = 30_000  # a gain below half a minute is none
MOST_SINGLES, COMBINED_OF, MOST_EDITS = 30, 4, 3
GRAVE = frozenset({"stop", "warn"})
FORBIDS_TOO = frozenset({"serves_poorly"})  # a note, but no advice leads into it


class CureTarget(Part):
    """What is to be cured: minutes of a camera on a leg, or a finding by its code and path."""

    camera: str | None = None
    item: str | None = None
    code: str | None = Field(default=None, description="None: the minutes that are not filmed.")
    path: str = ""


class Cure(Part):
    """A change that was rehearsed. Minutes are camera minutes more (less) than before.

    `closed_ms` is what it takes off the target; `closes` whether nothing of it is left. `kit`,
    `trip` and `plan` are what it makes of the document, none where it leaves them alone.
    """

    text: str
    edits: int
    closes: bool
    closed_ms: int
    must_ms: int
    want_ms: int
    nice_ms: int
    grams: float
    picture: float = Field(description="Share of the pixels a second that the stretch loses.")
    halts: int
    wh: float
    bytes: int
    side: tuple[str, ...]
    kit: Kit | None
    trip: Trip | None
    plan: Plan | None


class Outcome(Part):
    """The end of a search: places of the cures that stand, the best first; why, when none does."""

    tried: int
    order: tuple[int, ...]
    why: str = ""


@dataclass(frozen=True)
class _Judged:
    proposals: tuple[Proposal, ...]
    cure: Cure


def cures_of(
    document: PlanDocument, target: CureTarget, rehearse: Rehearse
) -> Iterator[Cure | Outcome]:
    """Cures as they are found, each rehearsed; last the outcome, without what is dominated.

    Singles first; when none closes the target alone, pairs and threes of the best that gain.
    Raises BadDocument when the target is not there.
    """
    before = rehearse(document)
    judge = _Judge(document, before, target, rehearse)
    shown: list[_Judged] = []
    singles: list[_Judged] = []
    tried = 0
    for proposal in judge.proposals():
        if tried >= MOST_SINGLES:
            break
        tried += 1
        judged = judge.of((proposal,))
        if judged is not None:
            singles.append(judged)
            shown.append(judged)
            yield judged.cure
    if not any(one.cure.closes for one in singles):
        for together in _combined(singles):
            tried += 1
            judged = judge.of(together)
            if judged is not None and judge.more_than_parts(judged, singles):
                shown.append(judged)
                yield judged.cure
                if judged.cure.closes:
                    break
    yield Outcome(tried=tried, order=_order(shown), why="" if shown else judge.why(tried))


def _combined(singles: list[_Judged]) -> Iterator[tuple[Proposal, ...]]:
    """Twos and threes of the singles that gain most; changes of one kind exclude each other."""
    best = sorted(singles, key=lambda one: -one.cure.closed_ms)[:COMBINED_OF]
    for count in range(2, MOST_EDITS + 1):
        for chosen in combinations(best, count):
            together = tuple(proposal for one in chosen for proposal in one.proposals)
            if len({proposal.code for proposal in together}) == len(together):
                yield together


class _Judge:
    """The document as it is, and what is to be cured in it."""

    def __init__(
        self, document: PlanDocument, before: Rehearsal, target: CureTarget, rehearse: Rehearse
    ) -> None:
        self.document, self.before, self.target = document, before, target
        self.rehearse = rehearse
        self.open_ms = _open_ms(before, target)
        self.graves = _graves(before)
        if self.open_ms == 0:
            what = f"finding '{target.code}'" if target.code else "gap"
            raise BadDocument((FieldFault("target", f"the {what} is not there any more"),))

    def proposals(self) -> Iterator[Proposal]:
        """What may be tried against the target."""
        if self.target.code is not None:
            for finding in self.before.findings:
                if _is(finding, self.target):
                    yield from against_finding(self.document, self.before, finding)
                    return
        for loss in _losses(self.before, self.target):
            yield from against_loss(self.document, self.before, loss)
            return

    def of(self, proposals: tuple[Proposal, ...]) -> _Judged | None:
        """A change rehearsed; None when it gains nothing, or brings a finding that forbids it."""
        after = self.document
        try:
            for proposal in proposals:
                after = proposal.change(after)
            after = PlanDocument.model_validate(after.model_dump())
            check_references(after.kit, after.trip, after.plan)
            told = self.rehearse(after)
        except (ValueError, BadDocument):
            return None
        closed_ms = self.open_ms - _open_ms(told, self.target)
        gain = {one: _filmed_ms(told, one) - _filmed_ms(self.before, one) for one in IMPORTANCES}
        if closed_ms < (1 if self.target.code else WORTH_MS) or _graves(told) - self.graves:
            return None
        if gain["must"] < -WORTH_MS or (not self.target.code and not _gains(gain)):
            return None
        return _Judged(proposals, self._cure(proposals, after, told, closed_ms, gain))

    def _cure(
        self,
        proposals: tuple[Proposal, ...],
        after: PlanDocument,
        told: Rehearsal,
        closed_ms: int,
        gain: dict[Importance, int],
    ) -> Cure:
        now = self.document
        return Cure(
            text=joined([cure_words(one.code, one.values) for one in proposals]),
            edits=len(proposals),
            closes=closed_ms == self.open_ms,
            closed_ms=closed_ms,
            must_ms=gain["must"],
            want_ms=gain["want"],
            nice_ms=gain["nice"],
            grams=round(sum(one.grams for one in proposals), 1),
            picture=round(max(one.picture for one in proposals), 2),
            halts=sum(one.halts for one in proposals),
            wh=round(told.ledgers.energy_used_wh - self.before.ledgers.energy_used_wh, 1),
            bytes=_written(told) - _written(self.before),
            side=tuple(self._side(told)),
            kit=after.kit if after.kit != now.kit else None,
            trip=after.trip if after.trip != now.trip else None,
            plan=after.plan if after.plan != now.plan else None,
        )

    def _side(self, told: Rehearsal) -> Iterator[str]:
        """What else changes: minutes of other cameras, length of the trip, new notes."""
        names = {camera.id: camera.name for camera in self.document.kit.cameras}
        filmed = {one.camera: one.filmed_ms for one in told.cameras}
        for one in self.before.cameras:
            change_ms = filmed.get(one.camera, 0) - one.filmed_ms
            if one.camera != self.target.camera and abs(change_ms) >= MINUTE_MS:
                more = "more" if change_ms > 0 else "less"
                yield f"{names[one.camera]} films {abs(change_ms) // MINUTE_MS} min {more}"
        longer_ms = told.duration_ms - self.before.duration_ms
        if longer_ms:
            yield f"the trip is {longer_ms // MINUTE_MS} min longer"
        known = {(one.code, one.camera, one.item) for one in self.before.findings}
        for note in told.findings:
            if (note.code, note.camera, note.item) not in known and note.severity == "note":
                yield note.text

    def more_than_parts(self, judged: _Judged, singles: list[_Judged]) -> bool:
        """Whether changes together close more than each of them alone."""
        parts = [one.cure.closed_ms for one in singles if one.proposals[0] in judged.proposals]
        return judged.cure.closed_ms > max(parts, default=0) + WORTH_MS

    def why(self, tried: int) -> str:
        """Why nothing cures the target."""
        if self.target.code is not None:
            return nothing_cures("this", tried, "it is for you to settle, as its sentence says")
        leg = next((i for i in self.document.trip.items if i.id == self.target.item), None)
        hands = getattr(leg, "hands", "free")
        reason = {
            "never": "No hand is ever free on it, and what is put in before does not last",
            "stops": "Hands are free at its stops only, and what is put in there does not last",
        }.get(hands, "What it draws is more than what it holds")
        return nothing_cures("this gap", tried, reason)


def _gains(gain: dict[Importance, int]) -> bool:
    """Whether more is filmed of the highest importance that changes at all."""
    changed = [gain[one] for one in IMPORTANCES if abs(gain[one]) >= WORTH_MS]
    return bool(changed) and changed[0] > 0


def _order(shown: list[_Judged]) -> tuple[int, ...]:
    """Places of the cures that no other dominates, the best first."""
    cures = [one.cure for one in shown]
    kept = [
        place
        for place, cure in enumerate(cures)
        if not any(_dominates(other, cure) for other in cures if other is not cure)
    ]

    def worth(place: int) -> tuple[float, ...]:
        one = cures[place]
        gains = (-one.must_ms // MINUTE_MS, -one.want_ms // MINUTE_MS, -one.nice_ms // MINUTE_MS)
        costs = (one.edits, one.halts, len(one.side), one.grams, one.picture)
        return (not one.closes, *gains, *costs, place)

    return tuple(sorted(kept, key=worth))


def _dominates(one: Cure, other: Cure) -> bool:
    """At least as good in everything, and better in something (E11)."""
    mine, theirs = _merits(one), _merits(other)
    return mine != theirs and all(a >= b for a, b in zip(mine, theirs, strict=True))


def _merits(cure: Cure) -> tuple[float, ...]:
    gains = tuple(ms // MINUTE_MS for ms in (cure.closed_ms, cure.must_ms, cure.want_ms))
    costs = (cure.edits, cure.grams, cure.picture, cure.halts, len(cure.side))
    return (*gains, cure.nice_ms // MINUTE_MS, *(-cost for cost in costs))


def _open_ms(told: Rehearsal, target: CureTarget) -> int:
    """What of the target is open: milliseconds not filmed, or 1 for a finding that stands."""
    if target.code is not None:
        return int(any(_is(finding, target) for finding in told.findings))
    return sum(loss.lost_ms for loss in _losses(told, target))


def _losses(told: Rehearsal, target: CureTarget) -> list[Loss]:
    """The target's losses in order of time: the first is what to work against."""
    found = [
        loss
        for camera in told.cameras
        for loss in camera.losses
        if loss.camera == target.camera and loss.item == target.item
    ]
    return sorted(found, key=lambda loss: loss.start_ms)


def _is(finding: Finding, target: CureTarget) -> bool:
    same = finding.code == target.code and finding.camera == target.camera
    return same and finding.item == target.item


def _graves(told: Rehearsal) -> set[tuple[str, str | None, str | None]]:
    """Findings that forbid what brings them."""
    return {
        (finding.code, finding.camera, finding.item)
        for finding in told.findings
        if finding.severity in GRAVE or finding.code in FORBIDS_TOO
    }


def _filmed_ms(told: Rehearsal, importance: Importance) -> int:
    rows = (one for one in told.coverage if one.by == "importance" and one.key == importance)
    return sum(one.filmed_ms for one in rows)


def _written(told: Rehearsal) -> int:
    return sum(camera.bytes_written for camera in told.cameras)
