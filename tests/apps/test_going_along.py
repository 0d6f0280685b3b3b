"""What names a unit goes with it from every trip on the kit, and comes back with it: one step."""

from __future__ import annotations

from typing import Any

import pytest

from tests.apps.conftest import Api
from tests.apps.test_kits import kit, without
from tests.apps.test_units_in_plans import wired

__all__ = ["wired"]
UNITS = [
    ("sources", "slab", {"cameras": 1, "full_by": 1}),
    ("drives", "disk", {"copies": 2}),
    ("cards", "k2", {"copies": 1}),
    ("cards", "k4", {"card_swaps": 1}),
    ("batteries", "a2", {"full_by": 1}),
    ("batteries", "a4", {"plugs": 1}),
    ("chargers", "bay", {"plugs": 1}),
    ("cameras", "eye", {"links": 1}),
    ("cameras", "cam", {"assignments": 1, "cameras": 1, "card_swaps": 1, "copies": 1, "links": 1}),
]


def plan_of(api: Api, trip_id: int) -> dict[str, Any]:
    plan: dict[str, Any] = api.get(f"/trips/{trip_id}")["plan"]
    return plan


def deleted(api: Api, kit_id: int, kind: str, unit: str) -> dict[str, Any]:
    state = api.get(f"/kits/{kit_id}")
    saved: dict[str, Any] = api.put(f"/kits/{kit_id}", without(state, kind, unit))
    return saved


def stepped(api: Api, path: str, which: str) -> dict[str, Any]:
    version = api.get(path)["version"]
    state: dict[str, Any] = api.post(f"{path}/{which}", {"version": version})
    return state


def copy_of(api: Api, trip: dict[str, Any], name: str) -> int:
    """Another trip on the same kit, as the same plan."""
    asked = {"name": name, "start": trip["trip"]["start"], "kit_id": trip["kit_id"]}
    made = api.post("/trips", asked)
    document = {"trip": {**trip["trip"], "name": name}, "plan": trip["plan"]}
    api.put(f"/trips/{made['id']}", {"version": made["version"], **document})
    number: int = made["id"]
    return number


def changed(api: Api, trip_id: int, **plan: Any) -> None:
    """A step of the trip's own."""
    state = api.get(f"/trips/{trip_id}")
    body = {key: state[key] for key in ("version", "trip", "plan")}
    api.put(f"/trips/{trip_id}", {**body, "plan": {**state["plan"], **plan}})


@pytest.mark.parametrize(("kind", "unit", "rows"), UNITS)
def test_one_step_takes_rows_along_and_undo_and_redo_lead_back_and_on(
    api: Api, wired: dict[str, Any], kind: str, unit: str, rows: dict[str, int]
) -> None:
    trip, kit_path = f"/trips/{wired['id']}", f"/kits/{wired['kit_id']}"
    before = plan_of(api, wired["id"])
    saved = deleted(api, wired["kit_id"], kind, unit)
    assert (saved["went"], saved["back"]) == ([{"trip": "Trial", "rows": rows}], [])
    after = plan_of(api, wired["id"])
    assert after != before
    undone = stepped(api, kit_path, "undo")
    assert (undone["went"], undone["back"]) == ([], [{"trip": "Trial", "rows": rows}])
    assert plan_of(api, wired["id"]) == before
    redone = stepped(api, kit_path, "redo")
    assert redone["went"] == saved["went"]
    assert plan_of(api, wired["id"]) == after
    assert api.get(trip)["version"] == 4


def test_every_trip_on_the_kit_goes_along(api: Api, wired: dict[str, Any]) -> None:
    other = copy_of(api, wired, "Again")
    saved = deleted(api, wired["kit_id"], "drives", "disk")
    assert [one["trip"] for one in saved["went"]] == ["Trial", "Again"]
    assert plan_of(api, other)["copies"] == []
    stepped(api, f"/kits/{wired['kit_id']}", "undo")
    assert len(plan_of(api, other)["copies"]) == len(plan_of(api, wired["id"])["copies"]) == 2


def test_undo_in_a_trip_takes_the_kit_along(api: Api, wired: dict[str, Any]) -> None:
    other = copy_of(api, wired, "Again")
    before = plan_of(api, other)
    deleted(api, wired["kit_id"], "drives", "disk")
    undone = stepped(api, f"/trips/{wired['id']}", "undo")
    assert undone["plan"]["copies"] == before["copies"]
    kept = api.get(f"/kits/{wired['kit_id']}")
    assert [one["id"] for one in kept["kit"]["drives"]] == ["disk"]
    assert plan_of(api, other) == before
    redone = stepped(api, f"/trips/{wired['id']}", "redo")
    assert redone["plan"]["copies"] == plan_of(api, other)["copies"] == []
    assert api.get(f"/kits/{wired['kit_id']}")["kit"]["drives"] == []


def test_steps_of_one_deletion_have_one_time(api: Api, wired: dict[str, Any]) -> None:
    """So that a page which steps back over what was done last does not come between them."""
    saved = deleted(api, wired["kit_id"], "drives", "disk")
    assert api.get(f"/trips/{wired['id']}")["undo_at"] == saved["undo_at"] is not None


def test_what_went_comes_back_into_a_trip_that_was_changed_since(
    api: Api, wired: dict[str, Any]
) -> None:
    before = plan_of(api, wired["id"])
    deleted(api, wired["kit_id"], "cards", "k4")
    changed(api, wired["id"], full_by=[], charging="never")
    undone = stepped(api, f"/kits/{wired['kit_id']}", "undo")
    assert undone["back"] == [{"trip": "Trial", "rows": {"card_swaps": 1}}]
    assert plan_of(api, wired["id"]) == {**before, "full_by": [], "charging": "never"}
    stepped(api, f"/kits/{wired['kit_id']}", "redo")
    assert plan_of(api, wired["id"])["card_swaps"] == []


def test_what_no_longer_fits_does_not_come_back(api: Api, wired: dict[str, Any]) -> None:
    """Another card is changed at that stop meanwhile: there is one change a camera and stop."""
    deleted(api, wired["kit_id"], "cards", "k4")
    instead = [{"camera": "cam", "item": "camp", "card": "k3"}]
    changed(api, wired["id"], card_swaps=instead)
    undone = stepped(api, f"/kits/{wired['kit_id']}", "undo")
    assert undone["back"] == []
    assert [one["card"] for one in plan_of(api, wired["id"])["card_swaps"]] == ["k3"]


def test_a_place_that_was_filled_meanwhile_stays_filled(api: Api, wired: dict[str, Any]) -> None:
    deleted(api, wired["kit_id"], "sources", "slab")
    changed(api, wired["id"], cameras=[{"camera": "cam", "battery": "a3"}])
    stepped(api, f"/kits/{wired['kit_id']}", "undo")
    (fitted,) = plan_of(api, wired["id"])["cameras"]
    assert (fitted["battery"], fitted["source"]) == ("a3", None)
    assert len(plan_of(api, wired["id"])["full_by"]) == 2


def test_undoing_an_addition_takes_along_what_names_it(api: Api, trip: dict[str, Any]) -> None:
    path = f"/kits/{trip['kit_id']}"
    body = kit(api.get(path))
    body["kit"]["cards"].append({"id": "k2", "name": "K2", "gb": 64})
    api.put(path, body)
    changed(api, trip["id"], cameras=[{"camera": "cam", "battery": "a1", "card": "k2"}])
    undone = stepped(api, path, "undo")
    assert undone["went"] == [{"trip": "Trial", "rows": {"cameras": 1}}]
    assert plan_of(api, trip["id"])["cameras"][0]["card"] is None
    stepped(api, path, "redo")
    assert plan_of(api, trip["id"])["cameras"][0]["card"] == "k2"


def test_a_new_step_of_the_kit_is_not_taken_for_the_one_that_it_replaces(
    api: Api, wired: dict[str, Any]
) -> None:
    path = f"/kits/{wired['kit_id']}"
    deleted(api, wired["kit_id"], "drives", "disk")
    stepped(api, path, "undo")
    api.put(path, {**kit(api.get(path)), "name": "Other"})
    stepped(api, path, "undo")
    redone = stepped(api, path, "redo")
    assert (redone["went"], redone["back"]) == ([], [])
    assert len(plan_of(api, wired["id"])["copies"]) == 2


def test_a_trip_out_of_the_bin_names_nothing_that_has_gone(api: Api, wired: dict[str, Any]) -> None:
    api.ask("DELETE", f"/trips/{wired['id']}", None, 204)
    assert deleted(api, wired["kit_id"], "drives", "disk")["went"] == []
    api.post(f"/bin/trip/{wired['id']}", None, 204)
    state = api.get(f"/trips/{wired['id']}")
    assert state["plan"]["copies"] == []
    changed(api, wired["id"], charging="never")
