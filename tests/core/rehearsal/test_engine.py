"""The hands' queue, events at one instant, linked cameras, kept angles.

Source: model/hands#links, model/time#ties, model/hands#tasks.
"""

from __future__ import annotations

import itertools
from typing import Any

import pytest

from tests.build import asks, battery, camera, card, leg, mode, raw, set_up, stop
from tumbrel.core.document import PlanDocument
from tumbrel.core.rehearsal.engine.played import Played, play
from tumbrel.core.rehearsal.trip.prepare import prepare

HOUR = 3600
DOCK = {"id": "dock", "name": "Dock", "families": ["a"], "bays": 2, "in_w": 30.0}
PLUG = {"kind": "mains", "id": "plug", "name": "Plug", "ports": [30.0]}
DRIVE = {"id": "d", "name": "Drive", "free_gb": 500}


def played(
    items: list[Any], asked: list[Any], kit: dict[str, Any] | None = None, **more: Any
) -> Played:
    document = raw(items, asked, **more)
    document["kit"].update(kit or {})
    return play(prepare(PlanDocument.model_validate(document)))


def pair(**more: Any) -> list[dict[str, Any]]:
    """Two cameras alike."""
    return [camera("cam", **more), camera("two", **more)]


def tasks(result: Played) -> list[tuple[str, int, int]]:
    """Kind, camera and start [s] of every task."""
    return [(done.kind, done.camera, done.start_ms // 1000) for done in result.hands.done]


def test_a_queue_of_hands_at_a_hut_worked_by_hand() -> None:
    """Both flat at the leg's end. Must first, each swap 30 s; then plugs of 15 s; then the cable.

    Decisions follow each task at once: 0-30 two, 30-60 cam, then A1 and A2 into the dock (the
    charger's plug with the first), then the copying of what cam filmed.
    """
    items = [leg("way", 5200), stop("hut", 2 * HOUR, socket={"watts": 60}), leg("on", 600)]
    asked = [asks("cam", "way"), asks("two", "way", importance="must")]
    asked += [asks("cam", "on"), asks("two", "on", importance="must")]
    kit = {"chargers": [DOCK], "sources": [PLUG], "drives": [DRIVE]}
    result = played(
        items,
        asked,
        kit,
        cameras=pair(),
        batteries=[battery(f"a{n}") for n in range(1, 5)],
        cards=[card("k1"), card("k2")],
        plan={"copies": [{"item": "hut", "camera": "cam", "drive": "d"}]},
    )
    expected = [("swap", 1, 5200), ("swap", 0, 5230), ("plug", -1, 5260), ("plug", -1, 5275)]
    assert tasks(result)[:5] == [*expected, ("copy", 0, 5290)]
    starts_and_ends = [(done.start_ms, done.end_ms) for done in result.hands.done]
    assert all(a[1] <= b[0] for a, b in itertools.pairwise(starts_and_ends))


@pytest.mark.parametrize("linked", [True, False])
def test_one_action_starts_all_that_are_linked(linked: bool) -> None:
    """Both grow hot on a leg and wait; one press of 5 s starts both, or each its own."""
    hot = {"modes": [mode(watts=1.0, rise_k=60.0)]}
    items = [
        leg("way", 3000, temp_start_c=20.0, temp_end_c=20.0),
        stop("s", 600, temp_start_c=20.0, temp_end_c=20.0),
    ]
    asked = [asks(name, item) for name in ("cam", "two") for item in ("way", "s")]
    plan = {"links": [{"cameras": ["cam", "two"]}]} if linked else {}
    units = [battery("a1"), battery("a2")]
    cards = [card("k1"), card("k2")]
    result = played(items, asked, cameras=pair(**hot), batteries=units, cards=cards, plan=plan)
    back = [run.time.filmed[-1].start_ms / 1000 for run in result.cameras]
    assert back == ([3005.0, 3005.0] if linked else [3005.0, 3010.0])
    assert [kind for kind, _, _ in tasks(result)] == ["restart"] * (1 if linked else 2)


def test_a_leg_that_wants_an_angle_lets_no_optional_swap_leave_it_with_none() -> None:
    """Alone, Cam is not touched while it films, and swapped only when it has died."""
    items = [leg("way", 2 * HOUR, hands="free", one_angle_always=True)]
    units = [battery("a1", charge=0.5), battery("a2")]
    alone = played(items, [asks("cam", "way")], batteries=units)
    swaps = [at for kind, _, at in tasks(alone) if kind == "swap"]
    assert swaps == [2565]  # half of 5130 s
    items[0]["one_angle_always"] = False
    early = played(items, [asks("cam", "way")], batteries=units)
    assert next(at for kind, _, at in tasks(early) if kind == "swap") == 0


def test_with_a_second_angle_that_films_the_swap_is_early() -> None:
    items = [leg("way", 2 * HOUR, hands="free", one_angle_always=True)]
    cameras = [camera("cam"), camera("two", modes=[mode(watts=1.0)])]
    units = [battery("a1", charge=0.5), battery("a3"), battery("a2")]
    plan = {"cameras": [{"camera": "cam", "battery": "a1"}, {"camera": "two", "battery": "a3"}]}
    asked = [asks("cam", "way"), asks("two", "way")]
    cards = [card("k1"), card("k2")]
    result = played(items, asked, cameras=cameras, batteries=units, cards=cards, plan=plan)
    assert tasks(result)[0][0] == "swap"
    assert tasks(result)[0][2] < 60


def test_what_ends_at_one_instant_with_its_leg_is_no_gap() -> None:
    """The card is full at the very end of the leg: ends come first, and nothing is missing."""
    rate = 10_024_000  # B/s at 79.2 Mbit/s and the container's 1 %
    one = camera(modes=[mode(mbps=79.20567)])
    seconds = 12_000
    result = played(
        [leg("way", seconds)],
        [asks("cam", "way")],
        cameras=[camera(modes=one["modes"])],
        batteries=[battery("a1", health=1.2)],
        cards=[card(gb=128, used_bytes=126_080_000_000 - rate * 100)],
    )
    (gap,) = result.cameras[0].time.gaps
    assert gap.cause == "card_full"
    assert gap.start_ms == pytest.approx(100_000, abs=2)
    short = played(
        [leg("way", gap.start_ms // 1000)],
        [asks("cam", "way")],
        cameras=[camera(modes=one["modes"])],
        cards=[card(gb=128, used_bytes=126_080_000_000 - rate * 100)],
    )
    assert not short.cameras[0].time.gaps


def test_two_that_die_at_one_instant_are_swapped_by_importance() -> None:
    items = [leg("way", 6000, hands="free")]
    asked = [asks("cam", "way", importance="nice"), asks("two", "way", importance="must")]
    units = [battery(f"a{n}") for n in range(1, 5)]
    cards = [card("k1"), card("k2")]
    flat = {"swap_policy": "run_flat"}
    result = played(items, asked, cameras=pair(), batteries=units, cards=cards, plan=flat)
    died = [run.time.gaps[0].start_ms for run in result.cameras]
    assert died[0] == died[1]
    assert tasks(result) == [("swap", 1, 5130), ("swap", 0, 5160)]


def test_a_port_that_the_plan_keeps_for_a_camera_is_not_taken_by_a_bank() -> None:
    """The hub has one port: the low bank does not hang on it, since Cam runs on it later."""
    hub = {"kind": "dynamo", "id": "hub", "name": "Hub", "rated_w": 9.0, "ports": [9.0]}
    bank = {"kind": "bank", "id": "bank", "name": "Bank", "mah": 9000, "charge": 0.2}
    items = [stop("s", 1800), leg("way", HOUR, speed_mps=9.0)]
    one = camera(set_ups=[set_up(power="outside_only")])
    plan = {"cameras": [{"camera": "cam", "source": "hub"}]}
    kit = {"sources": [hub, bank]}
    fed = played(items, [asks("cam", "way")], kit, cameras=[one], plan=plan)
    assert not fed.cameras[0].time.gaps
    free = played(items, [asks("cam", "way")], kit, cameras=[camera()])
    assert [d.out_name for d in free.hands.done if d.kind == "plug"] == ["Bank"]
