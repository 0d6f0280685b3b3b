"""A camera moved from one mount to another: when, how long, and what is said where it cannot be."""

from __future__ import annotations

from typing import Any

import pytest

from tests.build import asks, battery, camera, codes, gaps, leg, only, rehearsed, set_up, stop
from tumbrel.core.rehearsal.result.result import Rehearsal

Doc = dict[str, Any]
CHEST = {"cameras": [{"camera": "cam", "mount": "chest"}]}
STICK = {"mount": "hand_held", "move_s": 90, "move_gloved_s": 150}
HALF = 1800


def walked(rest: Doc, *more: Doc, known: tuple[Doc, ...] = (STICK,), **leg_more: Any) -> Rehearsal:
    """Half an hour on the chest, a stop, half an hour on the stick."""
    items = [leg("one", HALF), rest, leg("two", HALF, **leg_more), *more]
    asked = [asks("cam", "one"), asks("cam", "two", mount="hand_held")]
    return rehearsed(items, asked, [camera(mounts=list(known))], plan=CHEST)


def moves(told: Rehearsal) -> list[tuple[str, int, int]]:
    """Where, from when to when [s] cameras are moved."""
    found = (move for move in told.moves if move.kind == "move")
    return [(move.item, move.at_ms // 1000, move.end_ms // 1000) for move in found]


def test_it_is_moved_as_hands_become_free_and_films_both_legs_whole() -> None:
    told = walked(stop("rest", 600))
    assert moves(told) == [("rest", HALF, HALF + 90)]
    (move,) = (one for one in told.moves if one.kind == "move")
    assert (move.takes_out, move.puts_in, move.text) == ("chest", "stick", "chest → stick")
    assert gaps(only(told)) == []
    assert told.verdict.covered


@pytest.mark.parametrize(
    ("known", "gloves", "seconds"),
    [
        ((STICK,), True, 150),  # as said of the mount
        ((), False, 60),  # the camera's own
        ((), True, 120),
        (({"mount": "hand_held", "move_s": 90},), True, 90),  # gloves said nowhere take no longer
        (({"mount": "helmet", "move_s": 5},), False, 60),  # said of another mount
    ],
)
def test_it_takes_what_is_said_of_the_mount_or_the_camera(
    known: tuple[Doc, ...], gloves: bool, seconds: int
) -> None:
    told = walked(stop("rest", 600, gloves=gloves), known=known)
    assert moves(told) == [("rest", HALF, HALF + seconds)]


def test_a_stop_that_is_too_short_stops_with_the_seconds_that_are_wanting() -> None:
    """90 s are wanted and 60 s are there: 30 s are wanting; the leg is not to be trusted."""
    told = walked(stop("rest", 60))
    assert moves(told) == []
    (found,) = (one for one in told.findings if one.code == "no_time_to_move")
    assert found.severity == "stop"
    assert "30 s are wanting" in found.text
    assert gaps(only(told)) == []
    assert not told.verdict.covered
    assert told.verdict.trusted_ms == HALF * 1000
    assert "hands_not_long_enough" not in codes(told)


def test_legs_that_touch_leave_no_time_at_all() -> None:
    asked = [asks("cam", "one"), asks("cam", "two", mount="hand_held")]
    told = rehearsed([leg("one", HALF), leg("two", HALF)], asked, plan=CHEST)
    (found,) = (one for one in told.findings if one.code == "no_time_to_move")
    assert "60 s are wanting" in found.text


def test_on_a_leg_with_free_hands_it_is_moved_at_its_start_and_that_is_a_gap() -> None:
    asked = [asks("cam", "one"), asks("cam", "two", mount="hand_held")]
    items = [leg("one", HALF, hands="free"), leg("two", HALF, hands="free")]
    told = rehearsed(items, asked, plan=CHEST)
    assert gaps(only(told)) == [("move", HALF * 1000, (HALF + 60) * 1000)]
    assert moves(told) == [("two", HALF, HALF + 60)]
    assert "no_time_to_move" not in codes(told)


def test_another_set_up_is_a_move_and_another_angle_alone_is_none() -> None:
    items = [leg("one", HALF), stop("rest", 600), leg("two", HALF)]
    cameras = [camera(set_ups=[set_up(), set_up("cased")])]
    cased = [asks("cam", "one"), asks("cam", "two", set_up="cased")]
    told = rehearsed(items, cased, cameras)
    assert moves(told) == [("rest", HALF, HALF + 60)]
    assert next(one for one in told.moves if one.kind == "move").text == "rebuilt cased"
    turned = [asks("cam", "one", angle="face"), asks("cam", "two", angle="behind")]
    assert moves(rehearsed(items, turned, cameras)) == []


def test_it_is_moved_at_the_last_stop_before_its_leg_not_at_an_earlier_one() -> None:
    items = [leg("one", HALF), stop("a", 600), leg("two", HALF), stop("b", 600), leg("three", HALF)]
    asked = [asks("cam", "one"), asks("cam", "three", mount="hand_held")]
    assert moves(rehearsed(items, asked, plan=CHEST)) == [("b", 2 * HALF + 600, 2 * HALF + 660)]


def test_no_swap_is_put_off_to_a_last_chance_that_the_move_needs() -> None:
    """Two cameras at a stop of 150 s: a swap of 30 s and a move of 90 s both fit in it."""
    items = [leg("one", 4700), stop("rest", 150), leg("two", HALF)]
    asked = [asks("cam", "one"), asks("cam", "two", mount="hand_held")]
    told = rehearsed(
        items,
        asked,
        [camera(mounts=[STICK])],
        [battery("a1"), battery("a2")],
        plan=CHEST,
    )
    assert {move.kind for move in told.moves} >= {"swap", "move"}
    assert told.verdict.covered


def test_a_button_out_of_reach_is_started_by_free_hands_only() -> None:
    """On a wing nobody presses in flight: what begins there without a stop before is not begun."""
    items = [stop("rest", 600), leg("air", HALF), leg("more", HALF)]
    told = rehearsed(
        items,
        [asks("cam", "more")],
        [camera(mounts=[{"mount": "wing", "pressed": False}])],
        plan={"cameras": [{"camera": "cam", "mount": "wing"}]},
    )
    assert gaps(only(told)) == [("no_start", (600 + HALF) * 1000, (600 + 2 * HALF) * 1000)]
    pressed = rehearsed(items, [asks("cam", "more")])
    assert gaps(only(pressed)) == []
    before = rehearsed(
        items,
        [asks("cam", "air")],
        [camera(mounts=[{"mount": "wing", "pressed": False}])],
        plan={"cameras": [{"camera": "cam", "mount": "wing"}]},
    )
    assert gaps(only(before)) == []
