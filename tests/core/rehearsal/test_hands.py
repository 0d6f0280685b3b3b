"""One pair of hands: swaps, restarts, their order and what cannot be done (model/hands#tasks)."""

from __future__ import annotations

from typing import Any

import pytest

from tests.build import (
    asks,
    battery,
    camera,
    card,
    codes,
    gaps,
    leg,
    mode,
    only,
    raw,
    rehearsed,
    set_up,
    stop,
)
from tumbrel.core.document import PlanDocument
from tumbrel.core.rehearsal.result.result import Rehearsal
from tumbrel.core.report import rehearse

HOUR = 3600
TWO = [battery("a1"), battery("a2")]
AT_REST_IT_LOSES_30_MS = 5_730_000 - 29  # 5.7 x 2.5 % x 600 s / 30 d = 33 uW h, at 4 W


def swaps(told: Rehearsal) -> list[tuple[str, str, int]]:
    """Text, place and start [ms] of the hands' tasks."""
    kinds = ("swap", "card", "restart")
    return [(move.text, move.item, move.at_ms) for move in told.moves if move.kind in kinds]


def two_legs(**more: Any) -> Rehearsal:
    """An hour, ten minutes' stop, an hour; 5.7 W h do for 85.5 min at 4 W."""
    items = [leg("one", HOUR), stop("rest", 600), leg("two", HOUR)]
    return rehearsed(items, [asks("cam", "one"), asks("cam", "two")], **more)


def test_an_early_swap_is_made_where_what_is_left_does_not_reach() -> None:
    told = two_legs(batteries=TWO)
    assert swaps(told) == [("A1 → A2", "rest", 3_600_000)]
    assert told.verdict.covered


def test_without_a_spare_it_runs_empty() -> None:
    told = two_legs()
    assert swaps(told) == []
    assert gaps(only(told)) == [("empty", AT_REST_IT_LOSES_30_MS, 7_800_000)]


def test_run_flat_waits_until_it_is_dead() -> None:
    """Dead at 85.5 min of filming, on the second leg; swapped at the stop after it."""
    items = [leg("one", HOUR), stop("rest", 600), leg("two", HOUR), stop("end", 600), leg("x", 60)]
    plan = [asks("cam", "one"), asks("cam", "two"), asks("cam", "x")]
    told = rehearsed(items, plan, batteries=TWO, plan={"swap_policy": "run_flat"})
    assert swaps(told) == [("A1 → A2", "end", 7_800_000)]
    assert gaps(only(told)) == [("empty", AT_REST_IT_LOSES_30_MS, 7_800_000)]


def test_a_battery_that_reaches_with_the_margin_stays() -> None:
    """Needs 1 W h x 1.15 for the next leg and has 1.7: no swap."""
    items = [leg("one", HOUR), stop("rest", 600), leg("two", 900)]
    plan = [asks("cam", "one"), asks("cam", "two")]
    assert swaps(rehearsed(items, plan, batteries=TWO)) == []


def test_the_least_charged_battery_that_suffices_goes_in() -> None:
    """The next hour needs 4 x 1.15 = 4.6 W h: 0.81 of 5.7. A3 does, A4 is kept for later."""
    spares = [battery("a1"), battery("a2", charge=0.5), battery("a4"), battery("a3", charge=0.85)]
    assert swaps(two_legs(batteries=spares))[0][0] == "A1 → A3"


def test_when_none_suffices_the_fullest_goes_in() -> None:
    spares = [battery("a1"), battery("a2", charge=0.4), battery("a3", charge=0.6)]
    assert swaps(two_legs(batteries=spares))[0][0] == "A1 → A3"


def test_an_emptier_battery_never_goes_in() -> None:
    """1.7 W h are left in A1; A2 holds 0.2 x 5.7 = 1.14."""
    assert swaps(two_legs(batteries=[battery("a1"), battery("a2", charge=0.2)])) == []


def test_a_battery_of_another_family_never_goes_in() -> None:
    parts = raw(
        [leg("one", HOUR), stop("rest", 600), leg("two", HOUR)],
        [asks("cam", "one"), asks("cam", "two")],
        batteries=[battery("a1"), battery("b1", family="b")],
    )
    parts["kit"]["families"].append({"id": "b", "name": "B", "mah": 9000, "nominal_v": 3.8})
    assert swaps(rehearse(PlanDocument.model_validate(parts))) == []


def test_a_built_in_battery_stays_in() -> None:
    told = two_legs(batteries=TWO, cameras=[camera(battery_comes_out=False)])
    assert swaps(told) == []


@pytest.mark.parametrize(
    ("gloves", "door_s", "takes_s"),
    [(False, 0, 30), (True, 0, 60), (False, 20, 50), (True, 20, 80)],
)
def test_a_swap_takes_longer_in_gloves_and_behind_a_mount(
    gloves: bool, door_s: int, takes_s: int
) -> None:
    items = [leg("one", HOUR), stop("rest", 600, gloves=gloves), leg("two", HOUR)]
    blocked = camera(set_ups=[set_up(door_blocked_s=door_s)])
    told = rehearsed(
        items, [asks("cam", "one"), asks("cam", "two")], cameras=[blocked], batteries=TWO
    )
    (move,) = [move for move in told.moves if move.kind == "swap"]
    assert move.end_ms - move.at_ms == takes_s * 1000


def test_a_stop_too_short_for_a_swap_is_said() -> None:
    items = [leg("one", HOUR), stop("brief", 20), leg("two", HOUR)]
    told = rehearsed(items, [asks("cam", "one"), asks("cam", "two")], batteries=TWO)
    assert swaps(told) == []
    assert "hands_not_long_enough" in codes(told)


def test_asleep_hands_are_not_free() -> None:
    """The stop's ten minutes are slept through but for its last half minute."""
    asleep = {"asleep": {"start_s": 0, "duration_s": 570}}
    items = [leg("one", HOUR), stop("rest", 600, **asleep), leg("two", HOUR)]
    told = rehearsed(items, [asks("cam", "one"), asks("cam", "two")], batteries=TWO)
    assert swaps(told) == [("A1 → A2", "rest", 4_170_000)]


def test_a_swap_on_a_leg_with_free_hands_costs_its_time() -> None:
    """Dead at 5130 s; the hand is free: 30 s of swap, no boot."""
    items = [leg("walk", 7200, hands="free")]
    told = rehearsed(items, [asks("cam", "walk")], batteries=TWO, plan={"swap_policy": "run_flat"})
    assert gaps(only(told)) == [("empty", 5_130_000, 5_160_000)]


def test_a_hot_swap_goes_on_filming() -> None:
    """A1 at half is swapped at once without a gap; A2 lasts 5130 s from its fitting at 30 s.

    Only then, dead, is there a gap, until A1 is back.
    """
    told = rehearsed(
        [leg("walk", 7200, hands="free")],
        [asks("cam", "walk")],
        cameras=[camera(set_ups=[set_up(hot_swap=True)])],
        batteries=[battery("a1", charge=0.5), battery("a2")],
    )
    assert [text for text, _, _ in swaps(told)] == ["A1 → A2", "A2 → A1"]
    assert gaps(only(told)) == [("empty", 5_159_999, 5_189_999)]


def test_the_card_is_swapped_where_its_room_does_not_reach() -> None:
    """An hour at 7.6 MB/s is 27 GB; a 32 GB card does for one leg and not for two."""
    cards = [card("k1", gb=32), card("k2", gb=64)]
    told = two_legs(batteries=TWO, cards=cards)
    assert [text for text, _, _ in swaps(told)] == ["A1 → A2", "card K1 → K2"]
    assert told.verdict.covered


def test_a_card_the_camera_does_not_take_is_left_in_the_bag() -> None:
    narrow = camera(memory={"kind": "slot", "largest_gb": 32})
    told = two_legs(batteries=TWO, cards=[card("k1", gb=32), card("k2", gb=64)], cameras=[narrow])
    assert swaps(told) == []  # and a fuller battery would film no minute more
    assert gaps(only(told))[0][0] == "card_full"


def test_musts_come_first_and_hands_do_one_thing_at_a_time() -> None:
    """Both cameras want a swap at the stop; the must's is first, the other's 30 s later."""
    items = [leg("one", HOUR), stop("rest", 600), leg("two", HOUR)]
    plan = [
        asks("nice", "one"),
        asks("nice", "two", importance="nice"),
        asks("dear", "one"),
        asks("dear", "two", importance="must"),
    ]
    units = [battery(f"a{n}") for n in range(1, 5)]
    told = rehearsed(
        items,
        plan,
        cameras=[camera("nice"), camera("dear")],
        batteries=units,
        cards=[card("k1"), card("k2")],
    )
    tasks = [(move.camera, move.at_ms) for move in told.moves if move.kind == "swap"]
    assert tasks == [("dear", 3_600_000), ("nice", 3_630_000)]


def test_a_heat_stop_is_restarted_at_the_next_free_hand() -> None:
    """Cool again on the way; the walk after has free hands, and one restarts it in 5 s."""
    hot = camera(modes=[mode(watts=0.5, rise_k=60.0)])
    items = [leg("climb", 1800), leg("walk", 600, hands="free")]
    plan = [asks("cam", "climb"), asks("cam", "walk")]
    result = only(rehearsed(items, plan, cameras=[hot]))
    assert [cause for cause, _, _ in gaps(result)] == ["hot", "no_hand", "no_hand"]
    assert gaps(result)[2][1:] == (1_800_000, 1_805_000)


def test_a_manual_swap_overrides_the_policy() -> None:
    items = [leg("one", 600), stop("rest", 600), leg("two", 600)]
    plan = [asks("cam", "one"), asks("cam", "two")]
    manual = {"swaps": [{"camera": "cam", "item": "rest", "battery": "a2"}]}
    told = rehearsed(items, plan, batteries=TWO, plan=manual)
    assert swaps(told) == [("A1 → A2", "rest", 600_000)]


def test_leaving_one_in_overrides_the_policy() -> None:
    manual = {"swaps": [{"camera": "cam", "item": "rest", "battery": None}]}
    told = two_legs(batteries=TWO, plan=manual)
    assert swaps(told) == []
    assert not told.verdict.covered


def test_a_manual_swap_where_no_hand_is_free_is_said_and_not_done() -> None:
    items = [leg("one", 600), leg("two", 600)]
    manual = {"swaps": [{"camera": "cam", "item": "two", "battery": "a2"}]}
    told = rehearsed(items, [asks("cam", "one"), asks("cam", "two")], batteries=TWO, plan=manual)
    assert swaps(told) == []
    assert "manual_swap_not_possible" in codes(told)


HUTS = [
    stop("low hut", HOUR, socket={"watts": 40}),
    leg("climb", HOUR),
    stop("bare top", HOUR),
    leg("way down", HOUR),
    stop("high hut", HOUR, socket={"watts": 40}),
]


def plugged(**plan: Any) -> list[tuple[str, str]]:
    """Where a spare at 20 % is plugged in on a trip with sockets at both ends."""
    items = [one | {"id": one["id"].replace(" ", "-")} for one in HUTS]
    made = raw(
        items, [asks("cam", "climb")], plan=plan, batteries=[battery(), battery("a2", charge=0.2)]
    )
    dock = {"id": "dock", "name": "Dock", "families": ["a"], "bays": 1, "in_w": 10}
    plug = {"id": "plug", "name": "Plug", "kind": "mains", "ports": [10]}
    made["kit"] |= {"chargers": [dock], "sources": [plug]}
    told = rehearse(PlanDocument.model_validate(made))
    found = [(move.unit, move.item) for move in told.moves if move.kind == "plug"]
    return found + [("said", one.item or "") for one in told.findings if "manual" in one.code]


def test_the_plan_decides_where_a_spare_is_plugged_in() -> None:
    assert plugged()[0] == ("a2", "low-hut")
    not_low = {"unit": "a2", "item": "low-hut", "plug": False}
    assert plugged(plugs=[not_low])[0] == ("a2", "high-hut")
    at_high = {"unit": "a2", "item": "high-hut"}
    assert plugged(plugs=[at_high], charging="never") == [("a2", "high-hut")]
    assert plugged(charging="never") == []


def test_a_plug_without_power_is_said_and_not_done() -> None:
    at_top = {"unit": "a2", "item": "bare-top"}
    assert plugged(plugs=[at_top], charging="never") == [("said", "bare-top")]


BOTH: dict[str, Any] = {
    "cameras": [camera("cam"), camera("chest")],
    "cards": [card(), card("k2")],
}


def test_a_battery_goes_from_one_camera_to_another_that_is_off() -> None:
    """Chest is done after the first leg: its battery serves cam, taken out and put in, 2 x 20 s."""
    items = [leg("one", HOUR), stop("rest", 600), leg("two", HOUR)]
    asked = [asks("cam", "one"), asks("cam", "two"), asks("chest", "one", pattern=takes_of_it())]
    lent = {"swaps": [{"camera": "cam", "item": "rest", "battery": "a2"}]}
    both = [camera("cam"), camera("chest")]
    told = rehearsed(
        items, asked, cameras=both, batteries=TWO, cards=[card(), card("k2")], plan=lent
    )
    (swap,) = [move for move in told.moves if move.kind == "swap"]
    assert (swap.camera, swap.takes_out, swap.unit) == ("cam", "A1", "a2")
    alone = rehearsed(
        [leg("one", HOUR), stop("rest", 600)],
        asked[:1],
        plan={"swaps": [{"camera": "cam", "item": "rest", "battery": "a2"}]},
        batteries=TWO,
    )
    (one,) = [move for move in alone.moves if move.kind == "swap"]
    assert swap.end_ms - swap.at_ms == 2 * (one.end_ms - one.at_ms)
    assert told.verdict.covered


def test_a_battery_is_not_taken_from_a_camera_that_films() -> None:
    items = [leg("one", HOUR), stop("rest", 600), leg("two", HOUR)]
    asked = [asks("cam", "one"), asks("cam", "two"), asks("chest", "rest")]
    lent = {"swaps": [{"camera": "cam", "item": "rest", "battery": "a2"}]}
    both = [camera("cam"), camera("chest")]
    told = rehearsed(
        items, asked, cameras=both, batteries=TWO, cards=[card(), card("k2")], plan=lent
    )
    assert [move for move in told.moves if move.kind == "swap"] == []
    assert "manual_swap_not_possible" in codes(told)


def takes_of_it() -> dict[str, Any]:
    """One short take."""
    return {"kind": "takes", "seconds": 60, "count": 1}


def test_the_plans_battery_and_card_go_in_first() -> None:
    chosen = {"cameras": [{"camera": "cam", "battery": "a2", "card": "k2"}]}
    told = rehearsed(
        [leg("one", 60)],
        [asks("cam", "one")],
        batteries=TWO,
        cards=[card("k1"), card("k2")],
        plan=chosen,
    )
    (filmed,) = only(told).filmed
    assert (filmed.battery, filmed.card) == ("a2", "k2")


def test_stops_tell_starts_swaps_and_stops_in_the_order_of_doing() -> None:
    told = two_legs(batteries=TWO)
    assert [(move.kind, move.item) for move in told.moves] == [
        ("start", "one"),
        ("stop", "rest"),
        ("swap", "rest"),
        ("start", "rest"),
        ("stop", "two"),
    ]


def test_batteries_tell_where_they_were() -> None:
    told = two_legs(batteries=TWO)
    first, second = told.batteries
    assert [(stay.place, stay.start_ms) for stay in first.stays] == [("cam", 0), ("bag", 3_630_000)]
    assert [(stay.place, stay.start_ms) for stay in second.stays] == [
        ("bag", 0),
        ("cam", 3_630_000),
    ]
    assert first.stays[0].level_end == pytest.approx(1.7 / 5.7, abs=1e-3)
