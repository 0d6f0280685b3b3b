"""What hands do and leave alone: plans on which they did work that nobody would, or forgot some."""

from __future__ import annotations

from typing import Any

import pytest

from tests.build import (
    SLAB,
    asks,
    battery,
    camera,
    card,
    gaps,
    leg,
    mode,
    must,
    only,
    raw,
    set_up,
    stop,
    takes,
    told_of,
)
from tumbrel.core.rehearsal.result.result import Move, Rehearsal

HOUR, MINUTE = 3600, 60
Doc = dict[str, Any]
BASE = {"kind": "module", "id": "base", "name": "Base", "fits": "cam", "mah": 4000, "out_w": 5}
DRIVE = {"id": "d", "name": "Drive", "free_gb": 500}
FROST = {"temp_start_c": -15.0, "temp_end_c": -15.0}


def work(told: Rehearsal, *kinds: str) -> list[Move]:
    """What the hands did, of some kinds."""
    return [one for one in told.moves if one.kind in kinds]


def begun_s(told: Rehearsal, *kinds: str) -> list[float]:
    """When that was begun [s]."""
    return [one.at_ms / 1000 for one in work(told, *kinds)]


def filmed_min(told: Rehearsal) -> float:
    """Minutes that the only camera films."""
    return only(told).filmed_ms / 60_000


# -- banks and cables ------------------------------------------------------------------------------


@pytest.mark.parametrize("cards", [[], [card(gb=8)]])
def test_a_bank_is_not_switched_on_for_a_camera_that_has_stopped_for_good(cards: list[Doc]) -> None:
    """Without a card, or with one that is full after 17 min of an hour, it draws nothing more."""
    rig = camera(set_ups=[set_up(power="outside")])
    document = raw([leg("way", HOUR, hands="free")], [must()], [rig], cards=cards,
                   plan={"cameras": [{"camera": "cam", "source": "slab"}]})  # fmt: skip
    assert work(told_of(document, sources=[SLAB]), "wake") == []


def test_a_bank_is_not_switched_on_for_a_short_frame_now_and_then() -> None:
    """A frame every two minutes, five seconds on: the bank sleeps again 30 s after each."""
    rig = camera(set_ups=[set_up(power="outside_only")], boot_s=4)
    frames = {"kind": "interval", "every_s": 120, "frame_mb": 8}
    document = raw([leg("way", 2 * HOUR, hands="free")], [must(pattern=frames)], [rig],
                   plan={"cameras": [{"camera": "cam", "source": "slab"}]})  # fmt: skip
    assert work(told_of(document, sources=[SLAB]), "wake") == []
    near = raw([leg("way", 2 * HOUR, hands="free")],
               [must(pattern=frames | {"every_s": 20})], [rig],
               plan={"cameras": [{"camera": "cam", "source": "slab"}]})  # fmt: skip
    assert told_of(near, sources=[SLAB]).lapses[0].frames == 360


def test_on_the_way_nothing_is_hung_on_a_cable_for_less_than_ten_minutes() -> None:
    """A recorder at half of 2 W h that 12 takes of a minute want 0.1 W h of: left as it is."""
    sound = {"id": "mic", "name": "Mic", "wh": 2.0, "use_w": 0.5, "charge": 0.5, "serves": "cam"}
    document = raw([leg("way", HOUR, hands="free")], [must(pattern=takes(60, count=12))])
    told = told_of(document, sources=[SLAB | {"stays_on": True}], gear=[sound])
    assert len(work(told, "plug")) <= 1
    at_rest = raw([stop("camp", 1200), leg("way", HOUR)], [must(pattern=takes(60, count=12))])
    assert len(work(told_of(at_rest, sources=[SLAB], gear=[sound]), "plug")) == 1


def test_a_cable_of_the_plan_goes_in_though_what_it_charges_is_full() -> None:
    """4 W for three hours want 12 W h: of the cell 5.7, of a full module of 5 W h 4.6, the bank."""
    rig = camera(set_ups=[set_up(power="outside")])
    plug = {"unit": "base", "item": "camp", "to": "slab"}
    plan = {"cameras": [{"camera": "cam", "source": "base"}], "plugs": [plug]}
    document = raw([stop("camp", 600), leg("way", 3 * HOUR)], [must()], [rig], plan=plan)
    told = told_of(document, sources=[BASE | {"mah": 1350}, SLAB | {"stays_on": True}])
    assert [one.unit for one in work(told, "plug")] == ["base"]
    assert only(told).gap_ms == 0


def test_a_module_charges_its_cameras_cell_at_rest() -> None:
    """A cell at a fifth, 1.14 W h, takes 4.5 of a module's 13.6 in two hours, and films 85 min."""
    rig = camera(set_ups=[set_up(power="outside")])
    items = [stop("camp", 2 * HOUR), leg("way", 80 * MINUTE)]
    plan = {"cameras": [{"camera": "cam", "battery": "a1", "source": "base"}]}
    low = [battery(charge=0.2)]
    told = told_of(raw(items, [must()], [rig], low, plan=plan), sources=[BASE])
    assert only(told).gap_ms == 0
    (course,) = told.batteries
    assert max(course.charge) > 0.95
    bare = raw(items, [must()], [camera()], low, plan=plan)  # built without it, it gets nothing
    assert max(told_of(bare, sources=[BASE]).batteries[0].charge) == pytest.approx(0.2)


# -- swaps that gain nothing -----------------------------------------------------------------------


def test_a_full_battery_is_not_changed_for_a_full_one() -> None:
    """100 min of 85: whichever is in films 85.5, and a hair of warmth is no minute."""
    items = [stop("camp", HOUR, temp_end_c=12.0), leg("way", 100 * MINUTE)]
    told = told_of(raw(items, [must()], batteries=[battery("a1"), battery("a2", pocket="in")]),
                   pockets=[{"id": "in", "name": "In", "warmth": "inside"}])  # fmt: skip
    assert work(told, "swap") == []


def test_a_battery_that_has_just_come_out_does_not_go_back_in() -> None:
    """A body that grows too hot at a stop of 90 min is started again and again by free hands.

    Each time one battery is a hair fuller than the other: two swaps are the most that serve.
    """
    hot = camera(modes=[mode(rise_k=52.0)], limits={"stop_c": 60.0, "restart_c": 50.0})
    items = [stop("rest", 90 * MINUTE), leg("way", 70 * MINUTE)]
    cells = [battery("a1", charge=0.86), battery("a2")]
    told = told_of(raw(items, [must("rest"), must()], [hot], cells))
    assert len(work(told, "restart")) >= 1
    assert len(work(told, "swap")) <= 2


def test_a_card_is_not_changed_for_what_its_battery_cannot_film() -> None:
    """The battery stays in and lasts 85 min, the card 139: of three hours no minute is gained."""
    sealed = camera(battery_comes_out=False)
    cards = [card("k1", gb=64), card("k2", gb=512)]
    told = told_of(raw([leg("way", 3 * HOUR, hands="free")], [must()], [sealed], cards=cards))
    assert work(told, "card") == []
    assert gaps(only(told))[0][0] == "empty"


def test_nor_is_a_battery_changed_for_what_its_card_cannot_hold() -> None:
    """The card is full after 34 min, and no other is carried: a full battery films none more."""
    cells = [battery("a1", charge=0.5), battery("a2")]
    told = told_of(raw([leg("way", 2 * HOUR, hands="free")], [must()], batteries=cells,
                       cards=[card(gb=16)]))  # fmt: skip
    assert work(told, "swap") == []


def test_battery_and_card_that_give_out_together_are_both_changed() -> None:
    """Either alone would gain nothing: each counts what the best of the other kind allows."""
    cells = [battery("a1", charge=0.4), battery("a2")]
    cards = [card("k1", gb=16), card("k2", gb=256)]
    items = [stop("camp", 600), leg("way", 80 * MINUTE)]
    told = told_of(raw(items, [must()], batteries=cells, cards=cards))
    assert sorted(one.kind for one in work(told, "swap", "card")) == ["card", "swap"]
    assert only(told).gap_ms == 0


def test_none_is_changed_before_the_plans_own_with_nothing_asked_between() -> None:
    """K1 is full; the plan puts K3 in at the second stop, and the hands put nothing in before."""
    cards = [card("k1", used_bytes=504_000_000_000), card("k2"), card("k3")]
    items = [stop("one", 600), stop("two", 600), leg("way", HOUR)]
    change = {"camera": "cam", "item": "two", "card": "k3"}
    told = told_of(raw(items, [must()], cards=cards, plan={"card_swaps": [change]}))
    assert [(one.at_ms, one.puts_in) for one in work(told, "card")] == [(600_000, "K3")]


# -- when ------------------------------------------------------------------------------------------


@pytest.mark.parametrize(("gloves", "before_s"), [(False, 25), (True, 55)])
def test_a_card_on_leaving_has_a_last_chance_of_its_own(gloves: bool, before_s: int) -> None:
    """The battery stays in: 25 s before the end, in gloves 30 more, at a stop before a stop."""
    sealed = camera(battery_comes_out=False)
    items = [stop("one", HOUR, gloves=gloves), stop("two", HOUR)]
    change = {"camera": "cam", "item": "one", "card": "k2", "when": "leaving"}
    told = told_of(raw(items, [must("two")], [sealed], cards=[card("k1", gb=32), card("k2")],
                       plan={"card_swaps": [change], "swap_policy": "run_flat"}))  # fmt: skip
    assert begun_s(told, "card") == [HOUR - before_s]
    assert only(told).gap_ms == 0


def test_the_last_chance_leaves_time_for_the_boot_of_what_is_asked_at_once() -> None:
    """Swap 30 s, card 25, boot 6: begun 61 s before the end, and not a second is lost."""
    slow = camera(boot_s=6)
    cells, cards = [battery("a1", charge=0.1), battery("a2")], [card("k1", gb=8), card("k2")]
    words = {"camera": "cam", "item": "camp", "when": "leaving"}
    plan = {"swaps": [words | {"battery": "a2"}], "card_swaps": [words | {"card": "k2"}]}
    told = told_of(raw([stop("camp", HOUR), leg("way", HOUR)], [must()], [slow], cells, cards,
                       plan=plan))  # fmt: skip
    assert min(begun_s(told, "swap", "card")) == HOUR - 61
    assert max(one.end_ms for one in work(told, "swap", "card")) == (HOUR - 6) * 1000
    assert gaps(only(told)) == []


def test_a_door_counts_as_the_camera_sits_not_as_it_will() -> None:
    """Cased, its door is blocked for 200 s; it is still bare as its card is changed, in 25."""
    rig = camera(set_ups=[set_up(), set_up("cased", door_blocked_s=200)])
    change = {"camera": "cam", "item": "camp", "card": "k2"}
    items = [leg("way", 600), stop("camp", 1800)]
    told = told_of(raw(items, [must(), must("camp", set_up="cased")], [rig],
                       cards=[card("k1"), card("k2")], plan={"card_swaps": [change]}))  # fmt: skip
    (swap,) = work(told, "card")
    assert swap.end_ms - swap.at_ms == 25_000


def test_in_the_frost_a_warm_battery_goes_in_as_late_as_can_be() -> None:
    """At -15 degC an hour of 4 W wants what a cold cell holds back: it waits in the warm."""
    items = [leg("one", HOUR, **FROST), stop("rest", HOUR, **FROST), leg("two", HOUR, **FROST)]
    kept = [battery("a1"), battery("a2", pocket="in")]
    told = told_of(raw(items, [must("one"), must("two")], batteries=kept),
                   pockets=[{"id": "in", "name": "In", "warmth": "inside"}])  # fmt: skip
    assert begun_s(told, "swap") == [2 * HOUR - 30]
    warm = told_of(raw([leg("one", HOUR), stop("rest", HOUR), leg("two", HOUR)],
                       [must("one"), must("two")], batteries=kept),
                   pockets=[{"id": "in", "name": "In", "warmth": "inside"}])  # fmt: skip
    assert begun_s(warm, "swap") == [HOUR]  # in the warm as hands become free


def test_of_those_that_suffice_in_the_frost_the_warmest_goes_in() -> None:
    """A body that warms by 25 K thaws either on the way; who has the choice takes the warm one."""
    items = [leg("one", HOUR, **FROST), stop("rest", HOUR, **FROST), leg("two", HOUR, **FROST)]
    cells = [battery("a1"), battery("a2", charge=0.99), battery("a3", pocket="in")]
    rig = camera(modes=[mode(rise_k=25.0)])
    told = told_of(raw(items, [must("one"), must("two")], [rig], cells),
                   pockets=[{"id": "in", "name": "In", "warmth": "inside"}])  # fmt: skip
    assert [one.puts_in for one in work(told, "swap")] == ["A3"]


def test_a_battery_goes_back_into_its_camera_once_it_is_full() -> None:
    """Taken out to charge at a hut of ten hours: back as it is full, not just before leaving."""
    dock = {"id": "dock", "name": "Dock", "families": ["a"], "bays": 1, "in_w": 20}
    plug = {"kind": "mains", "id": "plug", "name": "Plug"}
    items = [leg("one", HOUR), stop("hut", 10 * HOUR, socket={"watts": 60}), leg("two", HOUR)]
    told = told_of(raw(items, [must("one"), must("two")]), chargers=[dock], sources=[plug])
    (back,) = work(told, "swap")
    assert back.puts_in == "A1"
    assert back.at_ms < 4 * HOUR * 1000
    assert only(told).gap_ms == 0


# -- copies ----------------------------------------------------------------------------------------


def test_a_copy_ends_before_what_its_camera_is_asked_next() -> None:
    """27 GB by radio at 5 MB/s take 90 min; ten minutes later a must begins, and is filmed."""
    copy = {"item": "rest", "camera": "cam", "drive": "d", "by": "radio"}
    items = [leg("way", HOUR), stop("rest", 600), leg("on", 1200, hands="free")]
    told = told_of(raw(items, [must(), must("on")], plan={"copies": [copy]}), drives=[DRIVE])
    assert only(told).gap_ms == 0
    assert all(one.end_ms <= (HOUR + 600) * 1000 for one in told.copies)


def test_a_copy_ends_with_its_stop_though_hands_stay_free() -> None:
    copy = {"item": "rest", "camera": "cam", "drive": "d", "by": "radio"}
    items = [leg("way", HOUR), stop("rest", 600), stop("lunch", 2 * HOUR)]
    told = told_of(raw(items, [must()], plan={"copies": [copy]}), drives=[DRIVE])
    (end,) = work(told, "copy_end")
    assert end.end_ms == (HOUR + 600) * 1000
    assert "cable" not in end.text  # by radio there is none


def test_for_a_copy_a_dead_camera_gets_a_spare() -> None:
    """The battery is empty after the leg; 38 GB at 30 MB/s are 21 min at half a watt."""
    copy = {"item": "camp", "camera": "cam", "drive": "d"}
    items = [leg("way", 90 * MINUTE), stop("camp", 5 * HOUR)]
    told = told_of(raw(items, [must()], batteries=[battery("a1"), battery("a2")],
                       plan={"copies": [copy]}), drives=[DRIVE])  # fmt: skip
    assert sum(one.clips for one in told.copies) >= 1
    assert [one.puts_in for one in work(told, "swap")] == ["A2"]


def test_linked_cameras_are_started_by_one_press() -> None:
    cameras = [camera("cam"), camera("two", modes=[mode("m"), mode("n")])]
    asked = [must(), asks("two", "way", mode="n")]
    told = told_of(raw([stop("camp", 600), leg("way", 600)], asked, cameras,
                       [battery("a1"), battery("a2")], [card("k1"), card("k2")],
                       plan={"links": [{"cameras": ["cam", "two"]}]}))  # fmt: skip
    assert [one.text for one in work(told, "start")] == ["roll M, with Two (roll N): one press"]
