"""What each source gives, and where set-ups hang on one, worked by hand.

Source: model/sources#gives, model/energy#set-up.
"""

from __future__ import annotations

from typing import Any

import pytest

from tests.build import asks, camera, leg, mode, raw, set_up, stop
from tumbrel.core.charging import NEVER_MS
from tumbrel.core.document import PlanDocument
from tumbrel.core.light import haurwitz_w_m2
from tumbrel.core.parameters import DEFAULTS
from tumbrel.core.rehearsal.engine.engine import Rehearser
from tumbrel.core.rehearsal.engine.played import play
from tumbrel.core.rehearsal.trip.prepare import prepare
from tumbrel.core.rehearsal.trip.supply_table import SupplyTable, supply_table
from tumbrel.core.rehearsal.trip.timeline import lay_out

MIN_MS = 60_000
PLACE = {"latitude": 45.0, "longitude": 0.0, "height_m": 1000.0}


def table(source: dict[str, Any], items: list[Any], trip: Any = None) -> SupplyTable:
    """The table of one source over some legs and stops."""
    loaded = raw(items, [], trip=trip)
    loaded["kit"]["sources"] = [{"id": "s", "name": "S", **source}]
    document = PlanDocument.model_validate(loaded)
    return supply_table(document.kit.sources[0], document.trip, lay_out(document.trip), DEFAULTS)


def rows(found: SupplyTable) -> list[tuple[float, float]]:
    """Minutes and watts."""
    return [
        (at / MIN_MS, round(watts, 4))
        for at, watts in zip(found.starts_ms, found.watts, strict=True)
    ]


def test_a_socket_gives_in_its_hours_and_no_more_than_plug_and_socket() -> None:
    """Live from minute 10 of the hut, which begins at minute 60, for 20 minutes."""
    hut = stop("hut", 3600, socket={"watts": 15.0, "start_s": 600, "duration_s": 1200})
    items = [leg("way", 3600), hut, stop("yard", 600)]
    assert rows(table({"kind": "mains", "ports": [20.0]}, items)) == [(0, 0), (70, 15), (90, 0)]
    weak = {"kind": "mains", "ports": [5.0, 5.0]}
    assert table(weak, items).at(75 * MIN_MS) == 10.0
    limited = {"kind": "mains", "ports": [20.0], "total_w": 12.0}
    assert table(limited, items).at(75 * MIN_MS) == 12.0


def test_a_socket_that_outlasts_its_stop_ends_with_it() -> None:
    hut = stop("hut", 1800, socket={"watts": 15.0, "start_s": 0, "duration_s": None})
    found = table({"kind": "mains", "ports": [20.0]}, [hut, leg("way", 600), stop("col", 600)])
    assert rows(found) == [(0, 15), (30, 0)]


def test_a_vehicle_gives_while_it_runs() -> None:
    items = [leg("drive", 600, vehicle_runs=True), stop("halt", 600), leg("walk", 600)]
    assert rows(table({"kind": "vehicle", "ports": [12.0]}, items)) == [(0, 12), (10, 0)]


@pytest.mark.parametrize(
    ("speed", "watts"), [(0.0, 0.0), (2.8, 0.0), (3.5, 1.05), (4.2, 2.1), (9.0, 2.1)]
)
def test_a_dynamo_by_the_legs_speed(speed: float, watts: float) -> None:
    """3 W rated: nothing to 2.8 m/s, half of 3 x 0.70 in the middle, all from 4.2 m/s on."""
    found = table(
        {"kind": "dynamo", "rated_w": 3.0}, [leg("way", 600, speed_mps=speed), stop("halt", 600)]
    )
    assert found.at(0) == pytest.approx(watts)
    assert found.at(11 * MIN_MS) == 0.0


def test_a_bank_may_give_its_total_at_any_time() -> None:
    items = [leg("way", 3600)]
    bank = {"kind": "bank", "mah": 10_000, "ports": [18.0, 10.0]}
    assert rows(table(bank, items)) == [(0, 28)]
    assert rows(table({**bank, "total_w": 20.0}, items)) == [(0, 20)]


def test_a_panel_at_stops_only_by_the_suns_height() -> None:
    """At 12:05 UTC on the zero meridian: 10 W x Haurwitz / 1000 x 0.5 of the sky x 0.60."""
    items = [leg("way", 6 * 3600), stop("noon", 1200, sky=0.5), leg("back", 600)]
    found = table(
        {"kind": "panel", "rated_w": 10.0, "out_at": "stops"},
        items,
        trip={"place": PLACE, "start": "2027-06-12T06:00:00"},
    )
    assert not found.ever(0, 6 * 3600_000)
    document = PlanDocument.model_validate(raw(items, [], trip={"place": PLACE}))
    sun = lay_out(document.trip).sun
    assert sun is not None
    expected = 10.0 * haurwitz_w_m2(sun.height_deg[36]) / 1000.0 * 0.5 * 0.60
    assert found.at(6 * 3600_000) == pytest.approx(expected)
    assert 2.4 < expected < 2.9
    assert found.at(6 * 3600_000 + 1_200_000) == 0.0


@pytest.mark.parametrize(("on_legs", "share"), [("carried", 0.35), ("laid", 0.60)])
def test_a_panel_on_a_leg_is_carried_or_laid_out(on_legs: str, share: float) -> None:
    found = table(
        {"kind": "panel", "rated_w": 10.0, "on_legs": on_legs},
        [leg("way", 1200), stop("noon", 1200)],
        trip={"place": PLACE, "start": "2027-06-12T12:00:00"},
    )
    assert found.at(0) / share == pytest.approx(found.at(1_200_000) / 0.60, rel=0.01)


def test_a_panel_without_a_place_gives_nothing() -> None:
    assert rows(table({"kind": "panel", "rated_w": 10.0}, [stop("camp", 3600)])) == [(0, 0)]


def test_looking_things_up_in_a_table() -> None:
    found = SupplyTable((0, 1000, 3000), (0.0, 5.0, 0.0))
    assert [found.at(at) for at in (0, 999, 1000, 2999, 3000, 9999)] == [0, 0, 5, 5, 0, 0]
    assert [found.next_change(at) for at in (0, 999, 1000, 3000)] == [1000, 1000, 3000, NEVER_MS]
    assert [found.ever(*span) for span in ((0, 1000), (0, 1001), (2999, 3001), (3000, 9999))] == [
        False,
        True,
        True,
        False,
    ]


# -- set-ups on outside power -------------------------------------------------------------------


def wired(items: list[Any], asked: list[Any], **more: Any) -> PlanDocument:
    """A camera with a bare and a wired set-up, fed from a bank."""
    cam = camera(
        modes=[mode(), mode("strong", watts=6.0)],
        set_ups=[set_up(), set_up("wired", power="outside"), set_up("out", power="outside_only")],
        move_s=0.0,
        **more,
    )
    loaded = raw(items, asked, cameras=[cam], plan={"cameras": [{"camera": "cam", "source": "s"}]})
    loaded["kit"]["sources"] = [
        {"kind": "bank", "id": "s", "name": "S", "mah": 20_000, "stays_on": True}
    ]
    return PlanDocument.model_validate(loaded)


def rigs(document: PlanDocument) -> list[tuple[int, int, float, bool]]:
    """Minutes from and to, watts, and whether the battery is out."""
    rehearser = Rehearser(prepare(document))
    return [
        (rig.start_ms // MIN_MS, rig.end_ms // MIN_MS, rig.draw_w, rig.battery_out)
        for rig in rehearser.feeding.stretches
    ]


@pytest.mark.plain("a rehearser is made by hand")
def test_wired_legs_that_touch_are_one_and_want_the_most_of_both() -> None:
    asked = [
        asks("cam", "a", set_up="wired"),
        asks("cam", "b", set_up="wired", mode="strong"),
        asks("cam", "c"),
    ]
    items = [leg("a", 600), leg("b", 600), leg("c", 600)]
    assert rigs(wired(items, asked)) == [(0, 20, 6.0, False)]


@pytest.mark.plain("a rehearser is made by hand")
def test_with_the_battery_out_it_is_another_rig() -> None:
    asked = [asks("cam", "a", set_up="wired"), asks("cam", "b", set_up="out")]
    items = [leg("a", 600), leg("b", 600)]
    assert rigs(wired(items, asked)) == [(0, 10, 4.0, False), (10, 20, 4.0, True)]


@pytest.mark.plain("a rehearser is made by hand")
def test_a_rig_begins_with_the_boot() -> None:
    document = wired(
        [stop("camp", 600), leg("a", 600)], [asks("cam", "a", set_up="wired")], boot_s=30
    )
    assert rigs(document) == [(9, 20, 4.0, False)]


def test_a_bare_leg_drains_the_cell_and_a_wired_one_the_bank() -> None:
    """Ten minutes at 4 W are 0.667 W h; the wired ones come through a regulator at 0.95."""
    items = [leg("a", 600), leg("b", 600)]
    played = play(prepare(wired(items, [asks("cam", "a"), asks("cam", "b", set_up="out")])))
    (run,), (bank,) = played.cameras, played.grid.banks
    assert run.cell is not None
    assert (1.0 - run.cell.charge) * run.cell.wh == pytest.approx(4.0 / 6.0, rel=1e-4)
    assert played.grid.supplies[0].given_wh == pytest.approx(4.0 / 6.0 / 0.95, rel=1e-4)
    assert bank.charge < 1.0
    assert not run.time.gaps
