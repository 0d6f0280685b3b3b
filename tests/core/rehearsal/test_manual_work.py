"""Cards and cables that the plan names: which, where, and from when."""

from __future__ import annotations

from typing import Any

import pytest

from tests.build import asks, battery, camera, card, leg, raw, stop
from tumbrel.core.document import PlanDocument
from tumbrel.core.report import rehearse

Doc = dict[str, Any]
HALF = 1800


def told(plan: Doc, **kit: Any) -> Any:
    """Half an hour, an hour's stop, half an hour; two cards and a low spare battery."""
    document = raw(
        [leg("one", HALF), stop("rest", 3600), leg("two", HALF)],
        [asks("cam", "one"), asks("cam", "two")],
        [camera()],
        [battery(), battery("a2", charge=0.2)],
        [card("k1"), card("k2", gb=64), card("k3", gb=32)],
        plan=plan,
    )
    document["kit"].update(kit)
    return rehearse(PlanDocument.model_validate(document))


def done(rehearsal: Any, kind: str) -> list[tuple[int, str, str]]:
    """When [s], what out and what in, of a kind of work."""
    return [
        (one.at_ms // 1000, one.takes_out, one.puts_in)
        for one in rehearsal.moves
        if one.kind == kind
    ]


@pytest.mark.parametrize(("when", "at"), [("arrival", HALF), ("leaving", HALF + 3600 - 55)])
def test_a_card_goes_in_where_the_plan_says_so(when: str, at: int) -> None:
    """No card is low: only the plan asks. Before leaving: a battery's 30 s and a card's 25 s."""
    change = {"camera": "cam", "item": "rest", "card": "k3", "when": when}
    assert done(told({"card_swaps": [change]}), "card") == [(at, "K1", "K3")]
    assert done(told({}), "card") == []


def test_a_card_that_the_plan_needs_later_is_not_taken_before_and_one_is_left_in() -> None:
    """K1 is nearly full: the least that suffices would be K3, but the plan needs it at the end."""
    full = [card("k1", used_bytes=500_000_000_000), card("k2", gb=64), card("k3", gb=32)]
    early = told({}, cards=full)
    assert done(early, "card")[0][2] == "K3"
    later = {"camera": "cam", "item": "two", "card": "k3"}
    kept = told({"card_swaps": [later]}, cards=full)
    assert done(kept, "card")[0][2] == "K2"
    stays = told({"card_swaps": [{"camera": "cam", "item": "rest"}]}, cards=full)
    assert all(move.item != "rest" for move in stays.moves if move.kind == "card")


DOCKS = [
    {"id": "d1", "name": "First", "families": ["a"], "bays": 2, "in_w": 10},
    {"id": "d2", "name": "Second", "families": ["a"], "bays": 2, "in_w": 10},
]
POWER = {
    "chargers": DOCKS,
    "sources": [{"kind": "bank", "id": "bank", "name": "Bank", "mah": 20_000, "ports": [10, 10]}],
}


def bays(rehearsal: Any) -> list[str]:
    """Where the spare battery has been beside its pocket."""
    (spare,) = (one for one in rehearsal.batteries if one.id == "a2")
    return [stay.place for stay in spare.stays if "/" in stay.place]


def test_a_plug_names_its_charger_bay_and_clock_time() -> None:
    """Without a word the spare goes into the first bay as hands become free; else as is said."""
    plain = told({}, **POWER)
    assert bays(plain) == ["d1/1"]
    assert done(plain, "plug")[0][0] == HALF
    there = {"unit": "a2", "item": "rest", "to": "d2", "place": 2, "at": "2027-06-12T07:00:00"}
    said = told({"plugs": [there]}, **POWER)
    assert bays(said) == ["d2/2"]
    assert [at for at, unit, _ in done(said, "plug") if unit == "A2"] == [3600]


def test_a_plug_waits_for_its_hour_and_nothing_else_plugs_it_before() -> None:
    late = {"unit": "a2", "item": "rest", "at": "2027-06-12T12:00:00"}
    waits = told({"plugs": [late]}, **POWER)
    assert bays(waits) == []
    assert {one.code for one in waits.findings} >= {"manual_plug_not_possible"}


@pytest.mark.parametrize("kind", ["battery", "bank", "module", "gear"])
def test_whatever_a_plug_names_is_told_by_its_name_where_it_is_not_done(kind: str) -> None:
    """Each kind of thing that may be plugged, once no port gives: a sentence, never a failure."""
    mic = {"id": "x", "name": "Near", "kind": "microphone", "wh": 1.0, "use_w": 0.5, "charge": 0.4}
    units: dict[str, Any] = {"gear": [mic]} if kind == "gear" else {}
    if kind in ("bank", "module"):
        near = {"kind": kind, "id": "x", "name": "Near", "mah": 5000, "charge": 0.4}
        units["sources"] = [near | ({"fits": "cam"} if kind == "module" else {})]
    unit = "a2" if kind == "battery" else "x"
    told_there = told({"plugs": [{"unit": unit, "item": "rest"}]}, **units)
    (missed,) = (f for f in told_there.findings if f.code == "manual_plug_not_possible")
    assert missed.values["unit"] == ("A2" if kind == "battery" else "Near")


def test_a_bay_that_is_not_there_is_no_place() -> None:
    there = {"unit": "a2", "item": "rest", "to": "d1", "place": 3}
    assert bays(told({"plugs": [there]}, **POWER)) == []


def test_a_card_is_not_taken_out_while_it_is_copied() -> None:
    """13 GB at half a MB/s copy to the stop's end; the card would go 45 s before, and stays in."""
    change = {"camera": "cam", "item": "rest", "card": "k3", "when": "leaving"}
    copy = {"item": "rest", "camera": "cam", "drive": "p"}
    phone = {"id": "p", "name": "P", "free_gb": 100, "link_mb_s": 0.5}
    slow = told({"card_swaps": [change], "copies": [copy]}, drives=[phone])
    work = [one.kind for one in slow.moves if one.kind in ("card", "copy", "copy_end")]
    assert work == ["copy", "copy_end"]
    assert "manual_card_not_possible" in {one.code for one in slow.findings}
