"""The engine against the brute-force integrator: events within 2 s, charges within 0.2 %."""

from __future__ import annotations

import random
from typing import Any

import pytest

from tests.build import asks, battery, camera, leg, mode, raw, set_up, stop, takes
from tests.reference.integrator import Marcher
from tumbrel.core.document import PlanDocument
from tumbrel.core.rehearsal.outcome import rehearse

EVENT_S = 2.0
CHARGE = 0.002


def generated(seed: int) -> dict[str, Any]:
    """A plan of a camera that hands only start: heat, battery, memory, clip limits, takes."""
    draw = random.Random(seed)
    one = camera(
        battery_comes_out=False,
        memory={"kind": "fixed", "gb": draw.choice([8, 32, 256])},
        boot_s=draw.choice([0, 3, 6]),
        starts_itself=draw.random() < 0.5,
        continues_after_clip=draw.random() < 0.7,
        limits={"stop_c": draw.choice([55, 62, 70]), "restart_c": draw.choice([44, 50])},
        set_ups=[
            set_up(
                tau_s=draw.choice([500.0, 900.0, 1400.0]),
                case_factor=draw.choice([0.8, 1.0, 1.5]),
                air_share=draw.choice([0.2, 1.0]),
            )
        ],
        modes=[
            mode(
                "m",
                watts=draw.uniform(1.5, 6.0),
                mbps=draw.uniform(20, 120),
                rise_k=draw.uniform(5, 70),
                clip_limit_s=draw.choice([None, None, 700]),
            ),
            mode("n", watts=2.0, mbps=30.0, rise_k=20.0),
        ],
    )
    way, asked = [], []
    for number in range(draw.randint(2, 7)):
        temps = {"temp_start_c": draw.uniform(-5, 35), "temp_end_c": draw.uniform(-5, 35)}
        length = draw.randint(300, 4000)
        if draw.random() < 0.3:
            way.append(stop(f"s{number}", length, **temps))
            continue
        way.append(
            leg(f"l{number}", length, hands="never", air_mps=draw.choice([0, 1, 8]), **temps)
        )
        if draw.random() < 0.8:
            count = draw.randint(1, 5)
            length = way[-1]["duration_s"] = length // (2 * count) * 2 * count  # whole seconds
            even = takes(length // (6 * count) * 2, count=count)
            pattern = {"kind": "roll"} if draw.random() < 0.6 else even
            chosen = draw.choice("mmmn")
            asked.append(asks("cam", f"l{number}", mode=chosen, pattern=pattern))
    minute = draw.randint(0, 59)
    return raw(
        way,
        asked,
        cameras=[one],
        batteries=[battery(charge=draw.uniform(0.3, 1.0))],
        cards=[],
        trip={"start": f"2027-06-12T06:{minute:02d}:00"},
    )


def joined(gaps: list[tuple[str, float, float]]) -> list[tuple[str, float, float]]:
    """Gaps longer than the tolerance; one that goes on over a leg's end is one."""
    whole: list[tuple[str, float, float]] = []
    for cause, start, end in gaps:
        if whole and whole[-1][0] == cause and start - whole[-1][2] < 0.5:
            whole[-1] = (cause, whole[-1][1], end)
        else:
            whole.append((cause, start, end))
    return [gap for gap in whole if gap[2] - gap[1] > EVENT_S]


@pytest.mark.parametrize("seed", range(40))
def test_the_engine_agrees_with_the_integrator(seed: int) -> None:
    parts = generated(seed)
    marched = Marcher(parts).march()
    told = rehearse(PlanDocument.model_validate(parts))
    (result,) = told.cameras
    expected = joined(marched.gaps)
    actual = joined([(str(g.cause), g.start_ms / 1000, g.end_ms / 1000) for g in result.gaps])
    assert [g[0] for g in actual] == [g[0] for g in expected], (actual, expected)
    for one, other in zip(actual, expected, strict=True):
        assert abs(one[1] - other[1]) <= EVENT_S, (actual, expected)
        assert abs(one[2] - other[2]) <= EVENT_S, (actual, expected)
    assert result.course.charge[-1] == pytest.approx(marched.charge, abs=CHARGE)
    assert told.ledgers.energy_used_wh == pytest.approx(marched.used_wh, rel=CHARGE, abs=0.01)
    starts = 2 + len(result.filmed)
    step_bytes = 16_000_000  # a second at the highest rate
    assert result.bytes_written == pytest.approx(
        marched.bytes_written, abs=starts * step_bytes * EVENT_S
    )


def test_the_generated_plans_hold_every_cause() -> None:
    """A comparison that never meets heat or an empty battery would prove nothing."""
    causes: set[str] = set()
    for seed in range(40):
        told = rehearse(PlanDocument.model_validate(generated(seed)))
        causes |= {str(gap.cause) for gap in told.cameras[0].gaps}
    assert {"hot", "no_hand", "empty", "card_full", "clip_limit", "boot"} <= causes
