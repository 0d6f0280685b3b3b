"""Each proposal rehearsed, weighed against the others, and told in order of worth.

Source: model/cures#weighed.
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from itertools import combinations, islice

from pydantic import Field

from ..document import (
    BadDocument,
    FieldFault,
    Kit,
    Plan,
    PlanDocument,
    Trip,
    check_references,
)
from ..document.base import Part
from ..rehearsal.camera.causes import GAVE_OUT
from ..rehearsal.engine.played import Played
from ..rehearsal.result.ledgers import LedgerBreach, balance, refuse
from ..rehearsal.result.result import Rehearsal, Severity
from ..report import tell
from ..wording.cures import cure_words, joined, leaves_words, nothing_cures, why_words
from .changes import Proposal
from .findings import proposals as against_finding
from .losses import proposals as against_loss
from .target import CureTarget
from .weighing import (
    WORTH_MS,
    Gain,
    Known,
    broken_musts,
    is_it,
    losses,
    lost_ms,
    open_ms,
    origins,
    written,
)

Play = Callable[[PlanDocument], Played]

MINUTE_MS = 60_000
FULL = 0.8
MOST_SINGLES, COMBINED_OF, MOST_EDITS, MOST_TWOS = 30, 4, 3, 24


class Cure(Part):
    """A change that was rehearsed. Minutes are camera minutes more (less) than before.

    `closed_ms` is what it takes off the target; `closes` whether nothing of it is left. Moments
    are those whole or expected so; `asked_ms` is what is asked more (less). `breaks` counts musts
    that it breaks and that held before, `leaves` is the verdict after it, `gives_up` says that it
    asks for less. `warnings` counts the warnings that it brings: a cost, told under `side`. `kit`,
    `trip` and `plan` are what it makes of the document, none where it leaves them alone.
    """

    text: str
    edits: int
    closes: bool
    closed_ms: int
    must_ms: int
    want_ms: int
    nice_ms: int
    must_moments: float
    want_moments: float
    nice_moments: float
    asked_ms: int
    breaks: int
    leaves: str
    gives_up: bool
    warnings: int
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


def cures_of(document: PlanDocument, target: CureTarget, play: Play) -> Iterator[Cure | Outcome]:
    """Cures as they are found, each rehearsed; last the outcome, without what is dominated.

    Singles first; when none closes the target alone, pairs and threes of the best that gain.
    Raises BadDocument when the target is not there.
    """
    before = tell(play(document), strict=False)
    judge = _Judge(document, before, target, play)
    shown: list[_Judged] = []
    tried = 0
    proposals = list(islice(judge.proposals(), MOST_SINGLES))
    for proposal in proposals:
        for judged in judge.more_and_more(proposal):
            tried += 1
            if judged is not None:
                shown.append(judged)
                yield judged.cure
    singles = list(shown)
    if not any(one.cure.closes for one in singles):
        for together in _combined(singles) if singles else _of_carried(proposals):
            tried += 1
            judged = judge.of(together)
            if judged is not None and judge.more_than_parts(judged, singles):
                shown.append(judged)
                yield judged.cure
                if judged.cure.closes:
                    break
    yield Outcome(tried=tried, order=_order(shown), why="" if shown else judge.why(tried))


def _combined(singles: list[_Judged]) -> Iterator[tuple[Proposal, ...]]:
    """Twos and threes of the singles that gain most, of those that do not exclude each other."""
    best = sorted(singles, key=lambda one: -one.cure.closed_ms)[:COMBINED_OF]
    for count in range(2, MOST_EDITS + 1):
        for chosen in combinations(best, count):
            together = tuple(proposal for one in chosen for proposal in one.proposals)
            if _go_together(together):
                yield together


def _of_carried(proposals: list[Proposal]) -> Iterator[tuple[Proposal, ...]]:
    """Twos of what is carried, where no single helps: one alone may only help the leg before."""
    carried = [one for one in proposals if one.carried]
    yield from islice(filter(_go_together, combinations(carried, 2)), MOST_TWOS)


def _go_together(proposals: tuple[Proposal, ...]) -> bool:
    return len({one.excludes for one in proposals}) == len(proposals)


class _Judge:
    """The document as it is, and what is to be cured in it."""

    def __init__(
        self, document: PlanDocument, before: Rehearsal, target: CureTarget, play: Play
    ) -> None:
        self.document, self.before, self.target = document, before, target
        self.play = play
        self.open_ms = open_ms(before, target, {})
        self.known = Known(before)
        self.broken = broken_musts(before, {})
        if self.open_ms == 0:
            what = f"finding '{target.code}'" if target.code else "gap"
            raise BadDocument((FieldFault("target", f"the {what} is not there any more"),))

    def proposals(self) -> Iterator[Proposal]:
        """What may be tried against the target."""
        if self.target.code is not None:
            for finding in self.before.findings:
                if is_it(finding, self.target, {}):
                    yield from against_finding(self.document, self.before, finding)
                    return
        for loss in losses(self.before, self.target, {}):
            yield from against_loss(self.document, self.before, loss)
            return

    def more_and_more(self, proposal: Proposal) -> Iterator[_Judged | None]:
        """A change rehearsed; where one more is not enough, two, and three, while they gain."""
        best = self.of((proposal,))
        yield best
        for count in sorted(proposal.once_more)[1:]:
            if best is not None and best.cure.closes:
                return
            judged = self.of((proposal.times(count),))
            before_ms = 0 if best is None else best.cure.closed_ms
            if judged is not None and judged.cure.closed_ms < before_ms + WORTH_MS:
                return
            yield judged
            best = judged or best

    def of(self, proposals: tuple[Proposal, ...]) -> _Judged | None:
        """A change rehearsed; None when it gains nothing, or brings what is barred.

        Barred is a finding that stops, one of harm, and more musts broken than before where it
        breaks one that held. Any other finding is a cost.

        Source: model/cures#weighed.
        """
        after = self.document
        try:
            for proposal in proposals:
                after = proposal.change(after)
            after = PlanDocument.model_validate(after.model_dump())
            check_references(after.kit, after.trip, after.plan)
            played = self.play(after)
            refuse(balance(played)[1])
        except (ValueError, BadDocument, LedgerBreach):
            return None
        legs = origins(after, self.document)
        of_gap = self.target.code is None
        if of_gap and self.open_ms - lost_ms(played, self.target, legs) < WORTH_MS:
            return None  # most changes end here, and are not told
        told = tell(played)
        closed_ms = self.open_ms - open_ms(told, self.target, legs)
        gain = Gain(self.before, told)
        if closed_ms <= 0 or self._is_barred(told, legs) or gain.loses_a_must():
            return None
        if of_gap and not gain.is_worth_it():
            return None
        return _Judged(proposals, self._cure(proposals, after, told, closed_ms, gain))

    def _is_barred(self, told: Rehearsal, legs: Mapping[str, str]) -> bool:
        """Whether it brings what no cure may: a finding that bars, or a broken must for a must."""
        broken = broken_musts(told, legs)
        trades = bool(broken - self.broken) and len(broken) >= len(self.broken)
        return trades or self.known.barred(told, legs)

    def _cure(
        self,
        proposals: tuple[Proposal, ...],
        after: PlanDocument,
        told: Rehearsal,
        closed_ms: int,
        gain: Gain,
    ) -> Cure:
        now = self.document
        legs = origins(after, now)
        notes = self._brought(told, "note", legs)
        warnings = self._brought(told, "warn", legs)
        asked_ms = told.verdict.asked_ms - self.before.verdict.asked_ms
        return Cure(
            text=joined([cure_words(one.code, one.values) for one in proposals]),
            edits=sum(one.edits for one in proposals),
            closes=closed_ms == self.open_ms,
            closed_ms=closed_ms,
            must_ms=gain.ms["must"],
            want_ms=gain.ms["want"],
            nice_ms=gain.ms["nice"],
            must_moments=gain.moments["must"],
            want_moments=gain.moments["want"],
            nice_moments=gain.moments["nice"],
            asked_ms=asked_ms,
            breaks=len(broken_musts(told, legs) - self.broken),
            leaves=leaves_words(told.verdict.broken_musts, covered=told.verdict.covered),
            gives_up=asked_ms <= -WORTH_MS,
            warnings=len(warnings),
            grams=round(sum(one.grams for one in proposals), 1),
            picture=round(max(one.picture for one in proposals), 2),
            halts=sum(one.halts for one in proposals),
            wh=round(told.ledgers.energy_used_wh - self.before.ledgers.energy_used_wh, 1),
            bytes=written(told) - written(self.before),
            side=(*self._side(told), *warnings, *notes),
            kit=after.kit if after.kit != now.kit else None,
            trip=after.trip if after.trip != now.trip else None,
            plan=after.plan if after.plan != now.plan else None,
        )

    def _side(self, told: Rehearsal) -> Iterator[str]:
        """What else changes: minutes of other cameras, what is asked, length of the trip."""
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
        asked_ms = told.verdict.asked_ms - self.before.verdict.asked_ms
        if abs(asked_ms) >= MINUTE_MS and not longer_ms:
            more = "more" if asked_ms > 0 else "less"
            yield f"{abs(asked_ms) // MINUTE_MS} min {more} are asked"

    def _brought(self, told: Rehearsal, severity: Severity, legs: Mapping[str, str]) -> list[str]:
        """Sentences of the findings of a severity that were not there before, on the same leg."""
        return [
            one.text
            for one in told.findings
            if one.severity == severity and not self.known.has(one, legs)
        ]

    def more_than_parts(self, judged: _Judged, singles: list[_Judged]) -> bool:
        """Whether changes together close more than each of them alone."""
        parts = [one.cure.closed_ms for one in singles if one.proposals[0] in judged.proposals]
        return judged.cure.closed_ms > max(parts, default=0) + WORTH_MS

    def why(self, tried: int) -> str:
        """Why nothing cures the target."""
        if self.target.code is not None:
            return nothing_cures("this", tried, "it is for you to settle, as its sentence says", [])
        cause = next((one.cause for one in losses(self.before, self.target, {})), None)
        full = self._carried_full() if cause in GAVE_OUT else []
        leg = next((i for i in self.document.trip.items if i.id == self.target.item), None)
        hands = getattr(leg, "hands", "free")
        return nothing_cures("this gap", tried, why_words(cause, hands), full)

    def _carried_full(self) -> list[str]:
        """Batteries and banks that are full and in no camera as the gap begins."""
        lost = losses(self.before, self.target, {})
        if not lost:
            return []
        at_ms, cameras = lost[0].start_ms, {one.id for one in self.document.kit.cameras}
        camera = next(one for one in self.document.kit.cameras if one.id == self.target.camera)
        fits = {b.id for b in self.document.kit.batteries if b.family == camera.battery_family}
        full = []
        for unit in self.before.batteries:
            stay = next((s for s in unit.stays if s.start_ms <= at_ms < s.end_ms), None)
            idle = stay is not None and stay.place not in cameras and stay.level_end >= FULL
            full += [unit.name] if idle and unit.id in fits else []
        for source in self.before.sources:
            course = source.bank
            if course is not None:
                place = bisect_right(course.t_ms, at_ms) - 1
                full += [source.name] if place >= 0 and course.charge[place] >= FULL else []
        return full


def _order(shown: list[_Judged]) -> tuple[int, ...]:
    """Places of the cures that no other dominates, the best first; of those alike one.

    None that breaks a must stands before one that does not, none that asks for less before one
    that does not (model/cures#weighed).
    """
    cures = [one.cure for one in shown]
    kept = [
        place
        for place, cure in enumerate(cures)
        if not any(dominates(other, cure) for other in cures if other is not cure)
    ]

    def worth(place: int) -> tuple[float, ...]:
        one = cures[place]
        gains = (
            -round(one.must_moments),
            -one.must_ms // MINUTE_MS,
            -round(one.want_moments),
            -one.want_ms // MINUTE_MS,
            -one.nice_ms // MINUTE_MS,
        )
        costs = (one.edits, one.warnings, one.halts, len(one.side), one.grams, one.picture)
        return (one.gives_up, one.breaks > 0, not one.closes, *gains, *costs, place)

    found: dict[tuple[object, ...], int] = {}
    for place in sorted(kept, key=worth):
        codes = tuple(one.code for one in shown[place].proposals)
        found.setdefault((codes, _merits(cures[place]), cures[place].leaves), place)
    return tuple(found.values())


def dominates(one: Cure, other: Cure) -> bool:
    """At least as good in everything, and better in something (model/cures#weighed)."""
    mine, theirs = _merits(one), _merits(other)
    return mine != theirs and all(a >= b for a, b in zip(mine, theirs, strict=True))


def _merits(cure: Cure) -> tuple[float, ...]:
    gains = tuple(ms // MINUTE_MS for ms in (cure.closed_ms, cure.must_ms, cure.want_ms))
    more = (cure.must_moments, cure.want_moments, cure.nice_moments, cure.asked_ms // MINUTE_MS)
    costs = (cure.edits, cure.grams, cure.picture, cure.halts, cure.warnings, len(cure.side))
    less = (-cost for cost in (*costs, cure.breaks))
    return (*gains, cure.nice_ms // MINUTE_MS, *more, *less)
