"""Whatever meets in a plan, it has an answer; green is never said in vain; an edit tells the same.

`--long` tries 1,100 plans, not 150.
"""

from __future__ import annotations

from typing import Any

import pytest

from tests.core.anything import anything
from tumbrel.core.card import card_of
from tumbrel.core.document import PlanDocument, parse_document
from tumbrel.core.rehearsal.engine.checkpoints import Earlier, play_from
from tumbrel.core.rehearsal.result.result import Rehearsal
from tumbrel.core.report import rehearse, tell

PLANS, LONG, BLOCK = 150, 1100, 10


def pytest_generate_tests(metafunc: pytest.Metafunc) -> None:
    """Blocks of plans: as many as are wanted."""
    if "first" in metafunc.fixturenames:
        plans = LONG if metafunc.config.getoption("--long") else PLANS
        metafunc.parametrize("first", range(0, plans, BLOCK))


def test_every_plan_that_can_be_read_has_an_answer(first: int) -> None:
    """Ledgers raise; nothing else does either, nor does any plan take too many events."""
    for seed in range(first, first + BLOCK):
        document = parse_document(anything(seed))
        told = rehearse(document)
        card_of(document, told)
        assert_green_is_true(seed, document, told)


def assert_green_is_true(seed: int, document: PlanDocument, told: Rehearsal) -> None:
    """What is covered is filmed: of every must some, or a window of it opens on another leg."""
    if not told.verdict.covered:
        return
    filmed = {span.assignment for camera in told.cameras for span in camera.filmed}
    for number, asked in enumerate(document.plan.assignments):
        if asked.importance == "must" and number not in filmed:
            assert asked.pattern.kind == "windows", f"plan {seed}: {asked}"
    assert not any(one.severity == "stop" for one in told.findings)


def edited(document: PlanDocument) -> PlanDocument:
    """The last stretch of the trip in the camera's other mode."""
    order = {item.id: place for place, item in enumerate(document.trip.items)}
    asked = list(document.plan.assignments)
    last = max(range(len(asked)), key=lambda number: order[asked[number].item])
    other = "n" if asked[last].mode == "m" else "m"
    asked[last] = asked[last].model_copy(update={"mode": other})
    plan = document.plan.model_copy(update={"assignments": tuple(asked)})
    return document.model_copy(update={"plan": plan})


def test_an_edit_and_its_undoing_tell_what_the_whole_trip_does(first: int) -> None:
    """To the last row: rests are kept as coarse, hands look no sooner than from the start."""
    for seed in range(first, first + BLOCK, 3):
        document = parse_document(anything(seed))
        if not document.plan.assignments:
            continue
        after = edited(document)
        known: Earlier | None = None
        for now in (document, after, document):
            played, known = play_from(now, known)
            assert as_told(tell(played)) == as_told(rehearse(now)), seed


def as_told(told: Rehearsal) -> dict[str, Any]:
    """Everything of it."""
    return told.model_dump()
