"""An edit of a late day gives, from a checkpoint, what a run from the start gives (E15)."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest

from tests.build import asks, battery, camera, card, leg, raw, stop, takes
from tumbrel.core.document import PlanDocument
from tumbrel.core.parameters import DEFAULTS
from tumbrel.core.rehearsal.checkpoints import day_starts, play_from
from tumbrel.core.rehearsal.engine import Played
from tumbrel.core.rehearsal.outcome import tell

Doc = dict[str, Any]
HOUR = 3600
DAYS = 6


def trip() -> Doc:
    """Six days of a walk and a night with a socket; two cameras, a dock, a bank with a camera."""
    items: list[Doc] = []
    asked: list[Doc] = []
    for day in range(DAYS):
        items.append(leg(f"walk{day}", 6 * HOUR, hands="free", temp_start_c=2, temp_end_c=9))
        items.append(leg(f"run{day}", 4 * HOUR, hands="never", temp_start_c=-9, temp_end_c=-2))
        night = {"start_s": HOUR, "duration_s": 8 * HOUR}
        items.append(stop(f"hut{day}", 14 * HOUR, asleep=night, socket={"watts": 20}))
        asked.append(asks("cam", f"walk{day}", pattern=takes(40, per_hour=9)))
        asked.append(asks("cam", f"run{day}"))
        asked.append(asks("two", f"run{day}", pattern={"kind": "loop", "length_s": 90, "saves": 5}))
    document = raw(
        items,
        asked,
        cameras=[camera(boot_s=3), camera("two", boot_s=3)],
        batteries=[battery(f"a{n}") for n in range(5)],
        cards=[card("k1"), card("k2")],
        plan={"swaps": [{"camera": "cam", "item": "hut2", "battery": "a4"}]},
    )
    document["kit"]["chargers"] = [{"id": "dock", "name": "D", "families": ["a"], "bays": 2}]
    document["kit"]["sources"] = [
        {"kind": "mains", "id": "plug", "name": "Plug"},
        {"kind": "bank", "id": "bank", "name": "Bank", "mah": 8000},
    ]
    return document


def shorter_run(document: Doc) -> None:
    document["trip"]["items"][-2]["duration_s"] = 3 * HOUR


def other_pattern(document: Doc) -> None:
    document["plan"]["assignments"][-1]["pattern"] = {"kind": "roll"}


def one_more(document: Doc) -> None:
    document["plan"]["assignments"].append(asks("two", "walk5"))


def a_swap(document: Doc) -> None:
    document["plan"]["swaps"].append({"camera": "two", "item": "hut5", "battery": "a3"})


def less(document: Doc) -> None:
    document["plan"]["assignments"].pop()


def same(one: Played, other: Played) -> bool:
    """Everything that is told, to the last digit."""
    return tell(one, DEFAULTS) == tell(other, DEFAULTS)


@pytest.mark.parametrize("edit", [shorter_run, other_pattern, one_more, a_swap, less])
def test_a_late_edit_from_a_checkpoint_equals_a_run_from_the_start(
    edit: Callable[[Doc], None],
) -> None:
    _, earlier = play_from(PlanDocument.model_validate(trip()))
    assert len(earlier.checkpoints) == DAYS
    changed = trip()
    edit(changed)
    document = PlanDocument.model_validate(changed)
    resumed, after = play_from(document, earlier)
    straight, _ = play_from(document)
    assert after.checkpoints[2] is earlier.checkpoints[2]  # it did not begin anew
    assert same(resumed, straight)


def test_the_same_checkpoint_serves_many_edits() -> None:
    first, earlier = play_from(PlanDocument.model_validate(trip()))
    for _ in range(3):
        again, earlier = play_from(PlanDocument.model_validate(trip()), earlier)
        assert same(first, again)


@pytest.mark.parametrize(
    ("part", "value"),
    [("swap_policy", "run_flat"), ("charging", "never")],
)
def test_what_holds_all_the_way_begins_anew(part: str, value: str) -> None:
    _, earlier = play_from(PlanDocument.model_validate(trip()))
    changed = trip()
    changed["plan"][part] = value
    document = PlanDocument.model_validate(changed)
    resumed, after = play_from(document, earlier)
    assert after.checkpoints[0] is not earlier.checkpoints[0]
    assert same(resumed, play_from(document)[0])


def test_an_early_edit_begins_anew() -> None:
    _, earlier = play_from(PlanDocument.model_validate(trip()))
    changed = trip()
    changed["plan"]["assignments"][0]["pattern"] = {"kind": "roll"}
    document = PlanDocument.model_validate(changed)
    resumed, _ = play_from(document, earlier)
    assert same(resumed, play_from(document)[0])


def test_day_starts_follow_the_local_clock() -> None:
    """From 06:00, the first midnight is 18 h on, the next a day later."""
    document = PlanDocument.model_validate(trip())
    _, earlier = play_from(document)
    assert day_starts(document, earlier.timeline)[:2] == [18 * HOUR * 1000, 42 * HOUR * 1000]
