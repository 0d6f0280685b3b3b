"""Modules, chains and things with a battery, against arithmetic worked by hand.

Source: model/charging#chains, model/energy#gear.
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.build import asks, battery, camera, codes, leg, mode, raw, set_up, stop
from tumbrel.core.card import card_of
from tumbrel.core.document import BadDocument, PlanDocument, parse_document
from tumbrel.core.rehearsal.engine.played import Played, play
from tumbrel.core.rehearsal.result.result import Rehearsal
from tumbrel.core.rehearsal.trip.prepare import prepare
from tumbrel.core.report import rehearse

Doc = dict[str, Any]
HOUR = 3600
WARM = {"temp_start_c": 25.0, "temp_end_c": 25.0}
MODULE = {"kind": "module", "id": "mod", "name": "Mod", "fits": "cam", "lasts_min": 150}
BANK = {"kind": "bank", "id": "bank", "name": "Bank", "mah": 10_000, "ports": [5.0]}
MIC = {"id": "mic", "name": "Mic", "kind": "microphone", "wh": 1.0, "use_w": 0.5, "serves": "cam"}


def made(items: list[Doc], kit: Doc, plan: Doc | None = None, **more: Any) -> Doc:
    """A camera of 4 W and 5.7 W h, warm, on its module where it has one."""
    asked = more.pop("asked", [asks("cam", one["id"]) for one in items if one["kind"] == "leg"])
    rig = camera(
        modes=[mode(watts=4.0, rise_k=0.0)],
        set_ups=[set_up(power="outside", hot_swap=True)],
        **more.pop("cam", {}),
    )
    said = {"cameras": [{"camera": "cam", "source": "mod"}], **(plan or {})}
    document = raw(items, asked, [rig], more.pop("batteries", [battery()]), plan=said)
    document["kit"].update(kit)
    return document


def done(document: Doc) -> Played:
    return play(prepare(PlanDocument.model_validate(document)))


def told(document: Doc) -> Rehearsal:
    return rehearse(PlanDocument.model_validate(document))


# -- modules ---------------------------------------------------------------------------


def test_with_its_module_it_lasts_as_long_as_it_is_known_to() -> None:
    """150 min with it: 4.3 / 0.92 W h in it; then the cell drains, its 5.7 W h for 85.5 min."""
    played = done(made([leg("way", 4 * HOUR, **WARM)], {"sources": [MODULE]}))
    (film,) = played.cameras[0].time.filmed
    assert film.end_ms / 60_000 == pytest.approx(150.0, abs=0.05)
    bank = played.grid.banks[0]
    assert bank.wh == pytest.approx(4.3 / 0.92)
    dry = next(event.at_ms for event in played.grid.log if event.what == "dry")
    assert dry / 60_000 == pytest.approx(4.3 / 4.0 * 60, abs=0.05)
    assert "chain_breaks" in codes(
        told(made([leg("way", 4 * HOUR, **WARM)], {"sources": [MODULE]}))
    )


def test_its_surplus_charges_the_cell() -> None:
    """10 W out: 4 / 0.92 = 4.348 W feed, 5.652 W left; the cell takes 3.42 W, so 3.8 W of them."""
    big = MODULE | {"lasts_min": None, "mah": 10_000}
    played = done(
        made([leg("way", HOUR, **WARM)], {"sources": [big]}, batteries=[battery(charge=0.2)])
    )
    assert played.cells[0].charge == pytest.approx(0.8, abs=0.005)
    spent = (4 / 0.92 + 3.42 / 0.9) / 37.0
    assert played.grid.banks[0].charge == pytest.approx(1.0 - spent, abs=0.003)


def test_one_cable_runs_bank_module_camera() -> None:
    """5 W come, 4.348 pass to the camera, 0.652 fill the module x 0.9: 0.587 W h an hour."""
    low = MODULE | {"lasts_min": None, "mah": 3000, "charge": 0.3, "out_w": 4.5}
    plan = {"plugs": [{"unit": "mod", "item": "camp", "to": "bank"}]}
    items = [stop("camp", 60, **WARM), leg("way", 2 * HOUR, **WARM)]
    document = made(items, {"sources": [low, BANK | {"mah": 20_000}]}, plan)
    played = done(document)
    module, bank = played.grid.banks
    start = 0.3 * 11.1 + 45 / HOUR * 5 * 0.9  # plugged in after 15 s
    full = played.cells[0].charge
    assert full > 0.985
    into_cell = (full - 1.0) * 5.7
    assert module.charge * 11.1 == pytest.approx(start + 2 * (5 - 4 / 0.92) * 0.9, abs=0.03)
    assert (1 - bank.charge) * 74 == pytest.approx((2 + 45 / HOUR) * (5 / 0.85 + 0.06), rel=0.01)
    assert into_cell == pytest.approx(0.0, abs=0.09)
    assert not played.cameras[0].time.gaps


def test_a_dry_module_passes_on_what_comes_to_it() -> None:
    """With the battery out and the module empty, 5 W from the bank feed 4.348 W; 3 W do not."""
    out = {"cameras": [{"camera": "cam", "source": "mod"}]}

    def films(port_w: float) -> int:
        empty = MODULE | {"lasts_min": None, "mah": 3000, "charge": 0.0}
        plan = out | {"plugs": [{"unit": "mod", "item": "camp", "to": "bank"}]}
        items = [stop("camp", 60, **WARM), leg("way", HOUR, **WARM)]
        document = made(items, {"sources": [empty, BANK | {"ports": [port_w]}]}, plan)
        document["kit"]["cameras"][0]["set_ups"][0]["power"] = "outside_only"
        played = done(document)
        return sum(s.end_ms - s.start_ms for s in played.cameras[0].time.filmed)

    assert films(5.0) == HOUR * 1000
    assert films(3.0) <= HOUR * 1000 * 3 * 0.92 / 4  # it waits until some has gathered


def test_modules_are_swapped_without_stopping() -> None:
    """Two of 64.5 min: the second goes on at the stop half way, while it films there."""
    items = [leg("out", HOUR, **WARM), stop("top", 600, **WARM), leg("on", HOUR, **WARM)]
    spare = MODULE | {"id": "spare", "name": "Spare"}
    asked = [asks("cam", one["id"]) for one in items]
    played = done(made(items, {"sources": [MODULE, spare]}, asked=asked))
    swaps = [(d.kind, d.out_name, d.in_name) for d in played.hands.done]
    assert swaps == [("module", "Mod", "Spare")]
    assert not played.cameras[0].time.gaps
    assert played.cells[0].charge > 0.9


def test_a_module_that_is_swapped_is_told_on_board_and_card() -> None:
    """On top of the first of two: one press of the hands, in the words of each."""
    items = [leg("out", HOUR, **WARM), stop("top", 600, **WARM), leg("on", HOUR, **WARM)]
    spare = MODULE | {"id": "spare", "name": "Spare"}
    asked = [asks("cam", one["id"]) for one in items]
    document = PlanDocument.model_validate(made(items, {"sources": [MODULE, spare]}, asked=asked))
    found = rehearse(document)
    moves = [(m.kind, m.text, m.item) for m in found.moves if m.kind not in ("start", "stop")]
    assert moves == [("module", "module Mod → Spare", "top")]
    work = [m for part in card_of(document, found).places for m in part.moves]
    assert [m.say for m in work if m.kind == "module"] == ["module Mod out, Spare in"]


def test_the_plan_may_name_the_module() -> None:
    items = [stop("camp", 600, **WARM), leg("way", HOUR, **WARM)]
    spare = MODULE | {"id": "spare", "name": "Spare"}
    plan = {"plugs": [{"unit": "spare", "item": "camp", "to": "cam"}]}
    played = done(made(items, {"sources": [MODULE, spare]}, plan))
    assert [(d.kind, d.in_name) for d in played.hands.done] == [("module", "Spare")]
    assert played.grid.banks[0].charge > 0.99 > played.grid.banks[1].charge


@given(
    port=st.floats(0.5, 12.0), charge=st.floats(0.0, 1.0), out=st.floats(0.5, 12.0), k=st.booleans()
)
def test_whatever_the_links_energy_is_accounted_for(
    port: float, charge: float, out: float, k: bool
) -> None:
    """The ledger is checked in telling; a longer chain never films less than the battery alone."""
    low = MODULE | {"lasts_min": None, "mah": 2000, "charge": charge, "out_w": out}
    plan = {"plugs": [{"unit": "mod", "item": "camp", "to": "bank"}]} if k else {}
    items = [stop("camp", 60, **WARM), leg("way", 3 * HOUR, **WARM)]
    found = told(made(items, {"sources": [low, BANK | {"ports": [port]}]}, plan))
    assert found.verdict.filmed_ms >= 5_130_000 - 60_000


# -- banks into banks --------------------------------------------------------------------


def test_a_bank_is_charged_by_a_bank_where_the_plan_says_so() -> None:
    """5 W for an hour: 4.5 W h into the second, 5 / 0.85 + 0.06 out of the first; not by itself."""
    two = BANK | {"id": "two", "name": "Two", "charge": 0.2, "in_w": 5.0}
    said = {"plugs": [{"unit": "two", "item": "camp", "to": "bank"}]}

    def charges(plan: Doc) -> list[float]:
        items = [stop("camp", HOUR + 15, **WARM)]
        document = made(items, {"sources": [BANK, two]}, {"cameras": [], **plan}, asked=[])
        return [bank.charge * 37 for bank in done(document).grid.banks]

    one, other = charges(said)
    assert other == pytest.approx(0.2 * 37 + 4.5, abs=0.01)
    assert one == pytest.approx(37 - 5 / 0.85 - 0.06, abs=0.02)
    assert charges({})[1] == pytest.approx(0.2 * 37)


def test_a_bank_that_feeds_while_it_is_fed_takes_all_that_comes() -> None:
    """4.5 W in, 4 / 0.95 / 0.85 + 0.06 out: 0.51 W less an hour, though 1.9 W h would fill it."""
    near = BANK | {"id": "near", "mah": 10_000 / 3.7, "charge": 0.8, "in_w": 5.0, "stays_on": True}
    plan = {
        "cameras": [{"camera": "cam", "source": "near"}],
        "plugs": [{"unit": "near", "item": "camp", "to": "bank"}],
    }
    items = [stop("camp", 15, **WARM), leg("way", 4 * HOUR, **WARM)]
    document = made(items, {"sources": [near, BANK]}, plan)
    document["kit"]["cameras"][0]["set_ups"][0]["power"] = "outside_only"
    out_w = 4 / 0.95 / 0.85 + 0.06
    assert done(document).grid.banks[0].charge == pytest.approx(0.8 - 0.4 * (out_w - 4.5), abs=1e-3)


def test_a_circle_of_banks_is_refused_at_the_field() -> None:
    three = [BANK | {"id": key, "name": key} for key in ("a", "b", "c")]
    ring = [("a", "b"), ("b", "c"), ("c", "a")]
    plugs = [{"unit": unit, "item": "camp", "to": to} for unit, to in ring]
    document = made(
        [stop("camp", HOUR)], {"sources": three}, {"cameras": [], "plugs": plugs}, asked=[]
    )
    with pytest.raises(BadDocument, match=r"plugs\[0\].to: 'a' would charge itself at 'camp'"):
        parse_document(document)
    document["plan"]["plugs"] = plugs[:2]
    assert parse_document(document)


def test_a_module_known_by_nothing_or_twice_is_refused() -> None:
    for wrong in ({"lasts_min": None}, {"mah": 3000}, {"fits": "nobody"}):
        with pytest.raises(BadDocument, match="mod"):
            parse_document(made([leg("way", 60)], {"sources": [MODULE | wrong]}))


# -- things with a battery ------------------------------------------------------------------


def test_a_microphone_dies_and_its_sound_has_a_gap() -> None:
    """1 W h at 0.5 W is two hours of three; a gap of an hour, beside film that is whole."""
    big = camera(modes=[mode(watts=1.0, rise_k=0.0)])
    document = raw([leg("way", 3 * HOUR, **WARM)], [asks("cam", "way")], [big])
    document["kit"]["gear"] = [MIC]
    found = told(document)
    (mic,) = found.gear
    assert [(gap.start_ms, gap.end_ms, gap.item) for gap in mic.gaps] == [
        (pytest.approx(2 * HOUR * 1000, abs=5), 3 * HOUR * 1000, "way")
    ]
    assert (mic.loses, mic.used_ms) == ("sound", 3 * HOUR * 1000)
    assert found.verdict.covered
    warned = next(one for one in found.findings if one.code == "gear_dies")
    assert warned.text.startswith("Mic is empty at 08:00: 1 h 00 without sound with Cam.")


def test_the_course_that_is_shown_turns_where_use_begins_and_where_it_dies() -> None:
    """Between its rows a course is drawn straight: 2 W h at 1 W, half after an hour.

    Each turn has something else that happens a few minutes before, so that no row is due.
    """
    seconds = {"out": 900, "near": 230, "way": 2 * HOUR - 300, "far": 1000, "on": 2000}
    legs = [leg(name, long, **WARM) for name, long in seconds.items()]
    modes = [mode(watts=1.0, rise_k=0.0)]
    cameras = [camera(modes=modes), camera("beside", modes=modes)]
    pairs = [("cam", "way"), ("cam", "far"), ("beside", "near"), ("beside", "far")]
    document = raw(legs, [asks(*pair) for pair in pairs], cameras)
    other = {**MIC, "id": "other", "name": "Other", "serves": "beside"}
    document["kit"]["gear"] = [{**MIC, "wh": 2.0, "use_w": 1.0}, other]
    mic, _ = told(document).gear
    rows = [one / 1000 - 1130 for one in mic.t_ms]
    at_s = [-100, 0, HOUR / 2, HOUR, 1.5 * HOUR, 2 * HOUR - 200, 2 * HOUR, 2 * HOUR + 300]
    left = [1.0, 1.0, 0.75, 0.5, 0.25, 100 / HOUR, 0.0, 0.0]
    assert np.interp(at_s, rows, mic.charge) == pytest.approx(left, abs=5e-4)


def test_it_is_charged_from_the_same_ports_and_comes_off_to_be_used() -> None:
    """5 W x 0.9 for an hour less 15 s would be 4.48 W h: full at 0.99; then an hour of use."""
    items = [leg("out", HOUR, **WARM), stop("hut", HOUR, socket={"watts": 20}, **WARM)]
    items.append(leg("on", HOUR, **WARM))
    document = raw(items, [asks("cam", "out"), asks("cam", "on")])
    document["kit"] |= {"gear": [MIC], "sources": [{"kind": "mains", "id": "p", "name": "P"}]}
    played = done(document)
    gear = played.grid.gears[0]
    assert gear.charge == pytest.approx(0.99 - 0.5, abs=0.001)
    assert [(d.kind, d.out_name, d.in_name) for d in played.hands.done] == [("plug", "Mic", "P")]
    assert played.grid.supplies[0].given_wh == pytest.approx(0.49 / 0.9, abs=0.01)
    assert not gear.missing


def test_it_is_used_where_the_plan_names_it_too() -> None:
    phone = {"id": "ph", "name": "Phone", "kind": "phone", "wh": 12.0, "use_w": 3.0}
    items = [leg("out", HOUR, **WARM), leg("on", HOUR, **WARM), leg("back", HOUR, **WARM)]
    plan = {"gear": [{"gear": "ph", "item": "out"}, {"gear": "ph", "item": "back"}]}
    document = raw(items, [asks("cam", "on")], plan=plan)
    document["kit"]["gear"] = [phone]
    assert done(document).grid.gears[0].charge == pytest.approx(0.5)


def test_in_the_cold_it_holds_back_what_a_cell_does() -> None:
    """At -20 C 0.52 of 1 W h: 62.4 min at 0.5 W."""
    cold = {"temp_start_c": -20.0, "temp_end_c": -20.0}
    document = raw([leg("way", 3 * HOUR, **cold)], [asks("cam", "way")])
    document["kit"]["gear"] = [MIC]
    (gap, *_) = told(document).gear[0].gaps
    assert gap.start_ms / 60_000 == pytest.approx(62.4, abs=0.01)


# -- when stores are looked at again ---------------------------------------------------------


def test_a_full_bank_on_a_socket_is_filled_again_for_what_drinks_from_it() -> None:
    """1 W of a phone takes 1.24 W: from 99 to 95 % of 37 W h in 72 min, and so on all day."""
    items = [stop("hut", 20 * HOUR, socket={"watts": 20}, **WARM)]
    kit = {"sources": [BANK | {"charge": 0.9}, {"kind": "mains", "id": "p", "name": "P"}]}
    document = made(items, kit, {"cameras": []}, asked=[])
    document["kit"]["loads"] = [{"id": "ph", "name": "Phone", "wh_per_day": 24.0}]
    (bank,) = done(document).grid.banks
    later = [charge for at_ms, charge, _ in bank.rows if at_ms > 2 * HOUR * 1000]
    assert 0.949 < min(later) < 0.96 < 0.98 < max(later)


def test_a_bank_that_feeds_a_taper_is_full_as_soon_as_it_is() -> None:
    """A cell at 80 % takes 3.8 W less and less, with a lag of 20 min, of a bank of 11.1 W h.

    The bank is fed 6.3 W from 75 s on: 6.24 t - 1.4175 (1 - exp(-t / 1200 s)) are the 1.073 W h
    that it lacks after 1113 s; then nothing comes in, and by the end of the stop 2.3 % are gone.
    """
    items = [
        leg("walk", 60, hands="free", **WARM),
        stop("hut", HOUR // 2, socket={"watts": 20}, **WARM),
    ]
    low = BANK | {"mah": 3000, "charge": 0.9, "in_w": 7.0, "stays_on": True}
    dock = {"id": "dock", "name": "Dock", "families": ["a"], "bays": 1, "in_w": 10.0}
    kit = {"sources": [low, {"kind": "mains", "id": "p", "name": "P"}], "chargers": [dock]}
    spare = [battery(), battery("a2", charge=0.8)]
    document = made(items, kit, {"cameras": []}, asked=[], batteries=spare)
    played = done(document)
    assert [(one.source, one.unit) for one in played.grid.hung][:2] == [
        ("bank", "dock"),
        ("p", "bank"),
    ]
    assert played.grid.banks[0].charge == pytest.approx(0.9673, abs=0.0006)


def test_a_bank_is_plugged_in_as_soon_as_it_is_low_while_hands_are_free() -> None:
    """From 99 to 95 % of 37 W h at 4 / 0.95 / 0.85 + 0.06 W is 17.7 min."""
    items = [stop("hut", 2 * HOUR, socket={"watts": 20}, **WARM)]
    full = BANK | {"charge": 0.99, "ports": [10.0]}
    kit = {"sources": [full, {"kind": "mains", "id": "p", "name": "P"}]}
    plan = {"cameras": [{"camera": "cam", "source": "bank"}]}
    played = done(made(items, kit, plan, asked=[asks("cam", "hut")]))
    (plug,) = played.hands.done
    watts = 4 / 0.95 / 0.85 + 0.06
    assert plug.start_ms / 1000 == pytest.approx(0.04 * 37 / watts * HOUR, abs=2)


def test_what_is_too_cold_to_charge_is_plugged_in_once_it_is_warm() -> None:
    """A bank from -5 into 25 C is at 2 C after 2400 ln(30 / 23) s, and a hand is there then."""
    frost = {"temp_start_c": -5.0, "temp_end_c": -5.0}
    items = [leg("out", HOUR, **frost), stop("hut", 3 * HOUR, socket={"watts": 20}, **WARM)]
    low = BANK | {"charge": 0.5}
    kit = {"sources": [low, {"kind": "mains", "id": "p", "name": "P"}]}
    played = done(made(items, kit, {"cameras": []}, asked=[]))
    (plugged,) = played.hands.done
    warms_s = 2400 * math.log((25.0 + 5.0) / (25.0 - 2.0))
    assert plugged.start_ms / 1000 == pytest.approx(HOUR + warms_s, abs=2)
    assert played.grid.banks[0].charge == pytest.approx(0.99)


def test_on_arrival_hands_look_though_they_were_free_on_the_way() -> None:
    """At the stop, not only once it is left: the battery goes from the camera to the charger."""
    items = [leg("walk", HOUR, hands="free", **WARM), stop("inn", 2 * HOUR, **WARM)]
    dock = {"id": "dock", "name": "Dock", "families": ["a"], "bays": 1, "in_w": 10.0}
    kit = {"sources": [BANK], "chargers": [dock]}
    document = made(items, kit, {"cameras": []}, asked=[asks("cam", "walk")])
    document["kit"]["cameras"][0]["set_ups"] = [set_up()]
    (plug,) = done(document).hands.done
    assert (plug.kind, plug.start_ms) == ("plug", HOUR * 1000)


def test_no_bank_is_woken_for_one_that_is_too_cold_to_charge() -> None:
    frost = {"temp_start_c": -5.0, "temp_end_c": -5.0}
    two = BANK | {"id": "two", "name": "Two", "charge": 0.2, "in_w": 5.0}
    items = [stop("camp", 600, **WARM), leg("way", 6 * HOUR, hands="free", **frost)]
    said = {"cameras": [], "plugs": [{"unit": "two", "item": "camp", "to": "bank"}]}
    played = done(made(items, {"sources": [BANK, two]}, said, asked=[]))
    assert [one.what for one in played.grid.log] == ["switched_off"]
    assert [one.kind for one in played.hands.done] == ["plug"]


def test_a_module_is_used_up_first_where_the_same_hands_serve_then() -> None:
    """One that fills meanwhile on a bank goes back on when the other is empty, not when full."""
    items = [stop("camp", 1800, **WARM), leg("way", 2 * HOUR, hands="free", **WARM)]
    small = MODULE | {"lasts_min": None, "mah": 600, "charge": 0.2}
    spare = small | {"id": "spare", "name": "Spare", "charge": 0.8}
    bank = BANK | {"stays_on": True}
    played = done(made(items, {"sources": [small, spare, bank]}))
    swaps = [one.start_ms for one in played.hands.done if one.kind == "module"]
    dry = [one.at_ms for one in played.grid.log if one.what == "dry"]
    assert swaps[0] == 0
    assert len(swaps) > 2
    assert swaps[1:] == dry[: len(swaps) - 1]
    assert not played.cameras[0].time.gaps


def night(kit: Doc, batteries: list[Doc], **cam: Any) -> Played:
    """Two hours of film at -10 C, then eight at a warm hut with a socket."""
    frost = {"temp_start_c": -10.0, "temp_end_c": -10.0}
    items = [leg("out", 2 * HOUR, **frost), stop("hut", 8 * HOUR, socket={"watts": 20}, **WARM)]
    mains = {"sources": [{"kind": "mains", "id": "p", "name": "P"}]}
    more = {"batteries": batteries, "cam": cam, "asked": [asks("cam", "out")]}
    return done(made(items, mains | kit, {"cameras": []}, **more))


def test_cold_batteries_are_laid_in_a_charger_as_soon_as_they_may_be() -> None:
    """A spare in the bag is at 0 C after 720 ln(35 / 25) s; that in the camera some time later."""
    dock = {"chargers": [{"id": "dock", "name": "D", "families": ["a"], "bays": 2}]}
    played = night(dock, [battery(), battery("a2", charge=0.2)])
    spare, own = played.hands.done
    assert spare.start_ms / 1000 == pytest.approx(2 * HOUR + 720 * math.log(35 / 25), abs=1)
    assert 600 < own.start_ms / 1000 - 2 * HOUR < 1800
    assert [cell.charge for cell in played.cells] == pytest.approx([0.99, 0.99])


def test_a_camera_plugged_in_while_it_is_cold_charges_once_it_is_warm() -> None:
    played = night({}, [battery()], charges_in_w=10)
    assert [one.start_ms for one in played.hands.done] == [2 * HOUR * 1000]
    assert played.cells[0].charge > 0.98


def test_a_battery_stays_in_for_a_copy_at_the_next_stop() -> None:
    """Taken out at the first stop it would not be back at the second: nothing is asked any more."""
    socket = {"socket": {"watts": 20}}
    items = [leg("out", HOUR, **WARM), stop("rest", HOUR, **socket, **WARM)]
    items += [leg("on", HOUR, **WARM), stop("inn", 3 * HOUR, **socket, **WARM)]
    dock = {"chargers": [{"id": "dock", "name": "D", "families": ["a"], "bays": 1}]}
    kit = dock | {"sources": [{"kind": "mains", "id": "p", "name": "P"}]}
    kit["drives"] = [{"id": "disk", "name": "Disk", "free_gb": 500}]
    plan = {"cameras": [], "copies": [{"item": "inn", "camera": "cam", "drive": "disk"}]}
    played = done(made(items, kit, plan, asked=[asks("cam", "out")]))
    assert [one.kind for one in played.hands.done] == ["copy", "copy_end", "plug"]
    assert played.cells[0].charge == pytest.approx(0.99)


def test_a_dry_bank_that_is_charged_gives_again_on_time() -> None:
    """4.5 W into it: 3 % of 37 W h in 14.8 min after the plug, and the camera starts then."""
    items = [stop("hut", HOUR, socket={"watts": 20}, **WARM)]
    dry = BANK | {"charge": 0.0, "ports": [10.0], "in_w": 5.0, "stays_on": True}
    kit = {"sources": [dry, {"kind": "mains", "id": "p", "name": "P"}]}
    plan = {"cameras": [{"camera": "cam", "source": "bank"}]}
    document = made(items, kit, plan, asked=[asks("cam", "hut")])
    document["kit"]["cameras"][0]["set_ups"][0]["power"] = "outside_only"
    first = done(document).cameras[0].time.filmed[0].start_ms / 1000
    assert first == pytest.approx(15 + 0.03 * 37 / 4.5 * HOUR, abs=1)
