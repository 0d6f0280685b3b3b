"""What is told, and why: causes that were named wrongly, and words that led to nothing."""

from __future__ import annotations

from typing import Any

import pytest

from tests.build import (
    battery,
    camera,
    card,
    codes,
    document,
    gaps,
    leg,
    mode,
    must,
    only,
    raw,
    set_up,
    stop,
    told_of,
)
from tumbrel.core.document import BadDocument
from tumbrel.core.document.plan_file import ITEM_TAGS, parse_document
from tumbrel.core.rehearsal.result.result import Rehearsal

HOUR, MINUTE = 3600, 60
Doc = dict[str, Any]
NIGHT = {"place": {"latitude": 44.0, "longitude": 0.0}, "start": "2027-06-12T12:00:00"}


def said(told: Rehearsal, code: str) -> list[str]:
    """Sentences of a code."""
    return [one.text for one in told.findings if one.code == code]


def air(c: float) -> Doc:
    """Air at both ends."""
    return {"temp_start_c": c, "temp_end_c": c}


# -- cold or empty ---------------------------------------------------------------------------------


def test_cold_is_only_what_warmth_would_have_carried_on() -> None:
    """At -10 degC 0.72 is in reach: it stops with 0.28, which in the warm is 1.6 W h of 24 min.

    At 20 degC 0.987 is, so of the two hours asked 85.5 x (0.987 - 0.72) = 22.8 min are the cold's.
    """
    told = told_of(raw([leg("way", 2 * HOUR, **air(-10.0))], [must()]))
    (cold, empty) = gaps(only(told))
    assert (cold[0], empty[0], empty[2]) == ("cold", "empty", 2 * HOUR * 1000)
    assert cold[2] == empty[1]
    in_reach = 0.96 + 0.04 * 10 / 15
    assert (cold[2] - cold[1]) / 60_000 == pytest.approx(85.5 * (in_reach - 0.72), rel=0.01)


def test_what_warmth_would_not_carry_on_by_a_minute_is_empty() -> None:
    """At 15 degC 0.973 is in reach, at 20 0.987: 1.1 min of 85.5; at 16 degC less than one."""
    causes = {}
    for c in (15.0, 16.5):
        told = told_of(raw([leg("way", 2 * HOUR, **air(c))], [must()]))
        causes[c] = [cause for cause, _, _ in gaps(only(told))]
    assert causes == {15.0: ["cold", "empty"], 16.5: ["empty"]}


@pytest.mark.parametrize("stays_on", [True, False])
def test_a_bank_that_is_empty_is_told_as_empty(stays_on: bool) -> None:
    """1,000 mA h give 3.1 W h; 4 W through a cable of 0.95 empty it after 45 min of 2 h."""
    bank = {"kind": "bank", "id": "b", "name": "Small", "mah": 1000, "stays_on": stays_on}
    rig = camera(set_ups=[set_up(power="outside")])
    plan = {"cameras": [{"camera": "cam", "source": "b"}]}
    told = told_of(raw([leg("way", 2 * HOUR)], [must()], [rig], plan=plan), sources=[bank])
    assert "bank_switched_off" not in codes(told)
    (text,) = said(told, "chain_breaks")
    assert text.startswith("Small is empty at")
    large = told_of(raw([leg("way", 2 * HOUR)], [must()], [rig], plan=plan),
                    sources=[bank | {"mah": 9000}])  # fmt: skip
    assert "chain_breaks" not in codes(large)


# -- loops, light, memory, copies ------------------------------------------------------------------


@pytest.mark.parametrize("after", [[], [stop("camp", 600)]])
def test_a_keep_that_comes_too_late_is_told_so_whatever_follows(after: list[Doc]) -> None:
    """No hand on the leg: at its end the loop of two minutes holds neither moment any more."""
    moment = {"name": "gust", "count": 2, "seconds": 20, "importance": "must"}
    way = leg("way", HOUR, hands="never", moments=[moment])
    loop = {"kind": "loop", "length_s": 120}
    told = told_of(raw([stop("start", 600), way, *after], [must(pattern=loop)]))
    (text,) = said(told, "save_comes_too_late")
    assert text.startswith("2 keeps come too late")
    near = leg("way", 200, hands="never", moments=[moment | {"count": 1}])
    long = {"kind": "loop", "length_s": 300}
    kept = told_of(raw([near, stop("camp", 600)], [must(pattern=long)]))
    assert not said(kept, "save_comes_too_late")


def window(opens: str, closes: str) -> Doc:
    """Within hours of the clock."""
    edges = {"opens": {"kind": "clock", "at": opens}, "closes": {"kind": "clock", "at": closes}}
    return {"kind": "windows", "windows": [edges]}


@pytest.mark.parametrize(("hours", "dark"), [(("13:00", "14:00"), 0), (("01:00", "02:00"), 1)])
def test_the_light_of_a_window_counts_not_of_the_whole_stop(
    hours: tuple[str, str], dark: int
) -> None:
    """From noon to four in the morning most is night; what is filmed is an hour of either."""
    night = stop("camp", 16 * HOUR)
    told = told_of(raw([night], [must("camp", pattern=window(*hours))], trip=NIGHT))
    assert len(said(told, "dark_for_frame_rate")) == dark


def test_own_memory_that_is_full_is_not_advised_to_be_swapped() -> None:
    """8 GB of its own hold 17 min of a leg without hands; a slot beside is not written to."""
    slot = {"kind": "slot", "largest_gb": 512}
    own = camera(memory={"kind": "fixed", "gb": 8, "speed_mb_s": 90}, slot=slot)
    told = told_of(raw([leg("way", HOUR)], [must()], [own]))
    assert gaps(only(told))[0][0] == "card_full"
    assert not said(told, "swap_where_no_hand")
    small = told_of(raw([leg("way", HOUR)], [must()], cards=[card(gb=8), card("k2")]))
    assert said(small, "swap_where_no_hand")


def test_a_copy_that_a_dead_battery_cuts_short_says_so() -> None:
    """0.1 W h is left of the cell; half a watt copies for 12 min of the 64 that it takes."""
    slot = {"kind": "slot", "largest_gb": 512}
    own = camera(memory={"kind": "fixed", "gb": 128, "speed_mb_s": 90}, slot=slot)
    inside = {"item": "camp", "camera": "cam"}
    told = told_of(raw([leg("way", 84 * MINUTE), stop("camp", 5 * HOUR)], [must()], [own],
                       plan={"copies": [inside]}))  # fmt: skip
    (text,) = said(told, "copy_not_finished")
    assert "the camera's battery ran out" in text


def test_a_slower_class_than_the_maker_wants_is_told_at_its_field() -> None:
    memory = {"kind": "slot", "largest_gb": 512, "slowest_class": "V60"}
    told = told_of(raw([leg("way", 600)], [must()], [camera(memory=memory)],
                       cards=[card(speed_class="V30")]))  # fmt: skip
    (found,) = (one for one in told.findings if one.code == "card_below_class")
    assert "V60" in found.text
    assert found.path == "kit.cameras[0].memory.slowest_class"


# -- places of faults ------------------------------------------------------------------------------


@pytest.mark.parametrize("kind", sorted(ITEM_TAGS - {"leg", "stop"}))
def test_a_fault_of_any_source_names_its_field(kind: str) -> None:
    """No tag of the union stands in the path, else it leads to no field."""
    source = {"kind": kind, "id": "s", "name": "S", "mass_g": -5}
    spoiled = raw([leg("way", 600)], [])
    spoiled["kit"]["sources"] = [source | {"mah": 100, "fits": "cam", "rated_w": 3}]
    with pytest.raises(BadDocument) as caught:
        parse_document(spoiled)
    assert all(one.path.startswith("kit.sources[0].") for one in caught.value.faults)
    assert not any(f".{kind}." in one.path for one in caught.value.faults)


def test_every_tag_of_sources_and_items_is_known_to_paths() -> None:
    schema = type(document([leg("way", 600)], [])).model_json_schema()
    tags = {
        tag
        for part in schema["$defs"].values()
        for prop in part.get("properties", {}).values()
        for tag in prop.get("items", {}).get("discriminator", {}).get("mapping", {})
    }
    assert tags == ITEM_TAGS


def test_batteries_that_stay_in_and_have_no_port_are_told() -> None:
    sealed = camera(battery_comes_out=False, modes=[mode(watts=4.0)])
    items = [leg("one", HOUR), stop("camp", HOUR), leg("two", HOUR)]
    bank = {"kind": "bank", "id": "b", "name": "Bank", "mah": 10_000}
    told = told_of(raw(items, [must("one"), must("two")], [sealed], [battery()]), sources=[bank])
    assert said(told, "never_charged")
    without = told_of(raw(items, [must("one"), must("two")], [sealed]))
    assert not said(without, "never_charged")
