"""The engine against the brute-force integrator: events within 2 s, charges within 0.2 %."""

from __future__ import annotations

import pytest

from tests.reference.generated import one_camera
from tests.reference.integrator import STEP_S, Marcher
from tumbrel.core.document import PlanDocument
from tumbrel.core.rehearsal.engine import Played, play

EVENT_S = 2.0
CHARGE = 0.002
SEEDS = range(80)
Told = list[tuple[str, float, float]]


def joined(gaps: Told) -> Told:
    """Gaps longer than the tolerance; one that goes on over a leg's end is one."""
    whole: Told = []
    for cause, start, end in gaps:
        if whole and whole[-1][0] == cause and start - whole[-1][2] < 0.5:
            whole[-1] = (cause, whole[-1][1], end)
        else:
            whole.append((cause, start, end))
    return [gap for gap in whole if gap[2] - gap[1] > EVENT_S]


def gaps_of(played: Played) -> Told:
    """Gaps of the only camera in seconds."""
    (run,) = played.cameras
    return joined([(str(g.cause), g.start_ms / 1000, g.end_ms / 1000) for g in run.gaps])


@pytest.mark.parametrize("seed", SEEDS)
def test_the_engine_agrees_with_the_integrator(seed: int) -> None:
    parts = one_camera(seed)
    marcher = Marcher(parts)
    marched = marcher.march()
    played = play(PlanDocument.model_validate(parts))
    (run,) = played.cameras
    expected, actual = joined(marched.gaps), gaps_of(played)
    assert [g[0] for g in actual] == [g[0] for g in expected], (actual, expected)
    for number, (one, other) in enumerate(zip(actual, expected, strict=True)):
        # a camera that goes off and on by heat adds up to a step of its own at each turn
        within_s = EVENT_S + 2 * number * STEP_S
        assert abs(one[1] - other[1]) <= within_s, (actual, expected)
        assert abs(one[2] - other[2]) <= within_s + STEP_S, (actual, expected)
    swaps = [done.end_ms / 1000 for done in played.hands.done if done.kind == "swap"]
    assert swaps == pytest.approx(marched.swaps_s, abs=EVENT_S)
    for cell, other_cell in zip(played.cells, marcher.cells, strict=True):
        assert cell.charge == pytest.approx(other_cell.charge, abs=CHARGE)
        assert cell.cell_c == pytest.approx(other_cell.cell_c, abs=0.3)
    assert run.body_c == pytest.approx(marched.body_c, abs=0.3)
    assert run.used_wh == pytest.approx(marched.used_wh, rel=CHARGE, abs=0.01)
    starts = 2 + len(run.kept) + len(run.gaps)
    step_bytes = 16_000_000  # a second at the highest rate
    assert run.written == pytest.approx(marched.bytes_written, abs=starts * step_bytes * EVENT_S)
    assert run.frames == pytest.approx(marched.frames, abs=starts)


def test_the_generated_plans_hold_every_cause() -> None:
    """A comparison that never meets heat or an empty battery would prove nothing."""
    causes, swaps, refused, kinds = set(), 0, set(), set()
    for seed in SEEDS:
        document = PlanDocument.model_validate(one_camera(seed))
        played = play(document)
        causes |= {str(gap.cause) for gap in played.cameras[0].gaps}
        swaps += len(played.hands.done)
        refused |= {why for _, _, why in played.cameras[0].refusals}
        kinds |= {assignment.pattern.kind for assignment in document.plan.assignments}
    wanted = {"hot", "no_hand", "empty", "cold", "card_full", "clip_limit", "boot", "save"}
    assert wanted | {"no_power"} <= causes
    assert swaps >= 2
    assert {"cold", "body"} <= refused
    assert len(kinds) == 6
