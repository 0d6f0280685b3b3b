"""Units that plans name in any way: gone from the plan with them, and back with them."""

from __future__ import annotations

from typing import Any

import pytest

from tests.apps.conftest import Api
from tests.apps.test_kits import kit, without
from tests.build import asks, battery, camera, card, leg, raw, set_up, stop


@pytest.fixture
def wired(api: Api) -> dict[str, Any]:
    """A trip whose plan names a source, a drive, a card in the bag, a link and full-by wishes."""
    plan = {
        "cameras": [{"camera": "cam", "source": "slab"}],
        "copies": [
            {"item": "camp", "camera": "cam", "drive": "disk"},
            {"item": "camp", "card": "k2", "drive": "disk"},
        ],
        "links": [{"cameras": ["cam", "eye", "ear"]}],
        "card_swaps": [{"camera": "cam", "item": "camp", "card": "k4"}],
        "plugs": [{"unit": "a4", "item": "camp", "to": "bay", "place": 2}],
        "full_by": [
            {"unit": "a2", "at": "2027-06-12T06:30:00"},
            {"unit": "slab", "at": "2027-06-12T06:30:00"},
        ],
    }
    fed = camera(set_ups=[set_up(), set_up("wired", power="outside")])
    loaded = raw(
        [stop("camp", 3600), leg("way", 3600)],
        [asks("cam", "way", set_up="wired")],
        cameras=[fed, camera("eye"), camera("ear")],
        batteries=[battery(), battery("a2"), battery("a3"), battery("a4")],
        cards=[card(), card("k2"), card("k3"), card("k4")],
        plan=plan,
    )
    loaded["kit"]["sources"] = [{"kind": "bank", "id": "slab", "name": "Slab", "mah": 10_000}]
    loaded["kit"]["chargers"] = [{"id": "bay", "name": "Bay", "families": ["a"], "bays": 2}]
    loaded["kit"]["drives"] = [{"id": "disk", "name": "Disk", "free_gb": 500}]
    opened: dict[str, Any] = api.post("/plan-files", loaded)
    return opened


@pytest.mark.parametrize(
    ("kind", "unit"), [("batteries", "a3"), ("cards", "k3")], ids=["battery", "card"]
)
def test_what_no_plan_names_goes_at_once(
    api: Api, wired: dict[str, Any], kind: str, unit: str
) -> None:
    state = api.get(f"/kits/{wired['kit_id']}")
    saved = api.put(f"/kits/{wired['kit_id']}", without(state, kind, unit))
    assert saved["went"] == []
    assert unit not in [one["id"] for one in saved["kit"][kind]]


def released(api: Api, wired: dict[str, Any], kind: str, unit: str) -> dict[str, Any]:
    """The plan after a unit was taken out of the kit."""
    state = api.get(f"/kits/{wired['kit_id']}")
    api.put(f"/kits/{wired['kit_id']}", without(state, kind, unit))
    after: dict[str, Any] = api.get(f"/trips/{wired['id']}")["plan"]
    return after


def test_a_source_that_goes_feeds_nothing_and_is_wished_full_no_more(
    api: Api, wired: dict[str, Any]
) -> None:
    plan = released(api, wired, "sources", "slab")
    assert plan["cameras"][0]["source"] is None
    assert [wish["unit"] for wish in plan["full_by"]] == ["a2"]


def test_a_drive_that_goes_takes_its_copies_along(api: Api, wired: dict[str, Any]) -> None:
    plan = released(api, wired, "drives", "disk")
    assert plan["copies"] == []
    assert len(plan["links"]) == 1


def test_a_card_that_goes_takes_only_its_own_copy_along(api: Api, wired: dict[str, Any]) -> None:
    plan = released(api, wired, "cards", "k2")
    assert [copy["camera"] for copy in plan["copies"]] == ["cam"]


def test_a_linked_camera_that_goes_leaves_the_others_linked(
    api: Api, wired: dict[str, Any]
) -> None:
    plan = released(api, wired, "cameras", "eye")
    assert plan["links"] == [{"cameras": ["cam", "ear"]}]


def test_a_link_of_one_is_none(api: Api, wired: dict[str, Any]) -> None:
    for unit in ("eye", "ear"):
        plan = released(api, wired, "cameras", unit)
    assert plan["links"] == []


def test_the_plan_can_be_kept_after_each_release(api: Api, wired: dict[str, Any]) -> None:
    for kind, unit in (("sources", "slab"), ("drives", "disk"), ("cameras", "cam")):
        released(api, wired, kind, unit)
    trip = api.get(f"/trips/{wired['id']}")
    body = {"version": trip["version"], "trip": trip["trip"], "plan": trip["plan"]}
    assert api.put(f"/trips/{wired['id']}", body)["version"] == trip["version"] + 1


def test_an_undone_deletion_brings_the_unit_back_to_the_kit(
    api: Api, wired: dict[str, Any]
) -> None:
    state = api.get(f"/kits/{wired['kit_id']}")
    before = kit(state)["kit"]
    saved = api.put(f"/kits/{wired['kit_id']}", without(state, "batteries", "a3"))
    undone = api.post(f"/kits/{wired['kit_id']}/undo", {"version": saved["version"]})
    assert undone["kit"] == before


def test_a_charger_let_go_leaves_the_plug_to_the_best_port(api: Api, wired: dict[str, Any]) -> None:
    """The plug stays, where it goes is said no more; the trip can be read and rehearsed."""
    plan = released(api, wired, "chargers", "bay")
    assert plan["plugs"] == [{"unit": "a4", "item": "camp", "plug": True, "to": None,
                              "place": None, "at": None}]  # fmt: skip
    assert released(api, wired, "cards", "k4")["card_swaps"] == []
    assert api.post("/rehearsals", api.get(f"/trips/{wired['id']}/file"))["verdict"]["headline"]
