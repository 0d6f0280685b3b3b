"""An edit of a late day gives, from a checkpoint, what a run from the start gives."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.build import asks, battery, camera, card, leg, raw, stop, takes
from tumbrel.core.document import PlanDocument
from tumbrel.core.rehearsal.engine.checkpoints import day_starts, play_from
from tumbrel.core.rehearsal.engine.played import Played
from tumbrel.core.report import tell

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
    return tell(one) == tell(other)


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
    assert day_starts(earlier.scene)[:2] == [18 * HOUR * 1000, 42 * HOUR * 1000]


PATTERNS = [
    {"kind": "roll"},
    takes(20, count=3),
    {"kind": "loop", "length_s": 60, "saves": 2},
    {"kind": "interval", "every_s": 90},
]


@given(
    edits=st.lists(
        st.tuples(st.integers(0, 3 * DAYS - 1), st.sampled_from(PATTERNS)), min_size=2, max_size=4
    )
)
@settings(max_examples=12)
def test_one_edit_after_another_equals_a_run_from_the_start(edits: list[tuple[int, Doc]]) -> None:
    changed = trip()
    _, earlier = play_from(PlanDocument.model_validate(changed))
    for number, pattern in edits:
        changed["plan"]["assignments"][number]["pattern"] = pattern
        document = PlanDocument.model_validate(changed)
        resumed, earlier = play_from(document, earlier)
    assert same(resumed, play_from(document)[0])


def test_the_next_edit_of_a_stretch_begins_just_before_it() -> None:
    """The run of day 4 begins at 102 h, 3 s of boot before it; the hut's free hands end sooner."""
    changed = trip()
    _, earlier = play_from(PlanDocument.model_validate(changed))
    run4 = 4 * 24 * HOUR * 1000 + 6 * HOUR * 1000
    changed["plan"]["assignments"][13]["pattern"] = takes(20, count=3)
    _, once = play_from(PlanDocument.model_validate(changed), earlier)
    assert once.checkpoints[-2] is earlier.checkpoints[2]
    assert run4 - 24 * HOUR * 1000 < once.checkpoints[-1].at_ms < run4
    changed["plan"]["assignments"][13]["pattern"] = takes(30, count=3)
    document = PlanDocument.model_validate(changed)
    resumed, twice = play_from(document, once)
    assert twice.checkpoints[-1] is once.checkpoints[-1]
    assert same(resumed, play_from(document)[0])


def test_a_first_stretch_in_another_set_up_begins_anew() -> None:
    """What a camera wears first, and how long its door takes, is looked at from the start."""
    changed = trip()
    two = changed["kit"]["cameras"][1]
    two["set_ups"].append({"id": "cased", "name": "cased", "swap_s": 90, "case_factor": 1.4})
    first = next(a for a in changed["plan"]["assignments"] if a["camera"] == "two")
    only = {**first, "item": "run5"}
    others = [a for a in changed["plan"]["assignments"] if a["camera"] != "two"]
    changed["plan"]["assignments"] = [*others, only]
    _, earlier = play_from(PlanDocument.model_validate(changed))
    changed["plan"]["assignments"] = [*others, {**only, "set_up": "cased"}]
    document = PlanDocument.model_validate(changed)
    resumed, after = play_from(document, earlier)
    assert after.checkpoints[0] is not earlier.checkpoints[0]
    assert same(resumed, play_from(document)[0])


def test_a_camera_that_is_fed_later_keeps_its_port_from_the_start() -> None:
    changed = trip()
    changed["kit"]["cameras"][1]["set_ups"].append(
        {"id": "wired", "name": "wired", "power": "outside"}
    )
    changed["plan"]["cameras"] = [{"camera": "two", "source": "bank"}]
    _, earlier = play_from(PlanDocument.model_validate(changed))
    changed["plan"]["assignments"][-1]["set_up"] = "wired"
    document = PlanDocument.model_validate(changed)
    resumed, after = play_from(document, earlier)
    assert after.checkpoints[0] is not earlier.checkpoints[0]
    assert same(resumed, play_from(document)[0])
