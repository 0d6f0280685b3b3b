"""Kits: made, changed, copied, deleted; what uses them."""

from __future__ import annotations

from typing import Any

from tests.apps.conftest import Api
from tests.build import raw


def kit(state: dict[str, Any]) -> dict[str, Any]:
    """What is kept of a kit, ready to send."""
    return {"version": state["version"], "name": state["name"], "kit": state["kit"]}


def without(state: dict[str, Any], kind: str, unit: str) -> dict[str, Any]:
    """The kit less one unit."""
    body = kit(state)
    body["kit"] = {**body["kit"], kind: [u for u in body["kit"][kind] if u["id"] != unit]}
    return body


def test_a_kit_is_made_empty_listed_and_deleted(api: Api) -> None:
    made = api.post("/kits", {"name": "  Winter kit "})
    assert (made["name"], made["version"], made["kit"]["cameras"]) == ("Winter kit", 1, [])
    assert [line["name"] for line in api.get("/kits")] == ["Winter kit"]
    api.ask("DELETE", f"/kits/{made['id']}", None, 204)
    assert api.get("/kits") == []


def test_a_kit_of_a_document_is_kept_as_it_is(api: Api) -> None:
    body = raw([], [])["kit"]
    made = api.post("/kits", {"name": "K", "kit": body})
    assert made["kit"]["cameras"][0]["modes"][0]["draw"] == {"kind": "watts", "watts": 4.0}
    assert api.get(f"/kits/{made['id']}")["kit"] == made["kit"]


def test_saving_goes_on_in_versions_and_steps(api: Api, trip: dict[str, Any]) -> None:
    state = api.get(f"/kits/{trip['kit_id']}")
    body = kit(state)
    body["kit"]["cameras"][0]["mass_g"] = 99.0
    saved = api.put(f"/kits/{trip['kit_id']}", body)
    assert (saved["version"], saved["can_undo"], saved["can_redo"]) == (2, True, False)
    undone = api.post(f"/kits/{trip['kit_id']}/undo", {"version": 2})
    assert undone["kit"]["cameras"][0]["mass_g"] == 70.0
    redone = api.post(f"/kits/{trip['kit_id']}/redo", {"version": 3})
    assert (redone["kit"]["cameras"][0]["mass_g"], redone["version"]) == (99.0, 4)


def test_a_bad_kit_is_refused_with_its_field_and_nothing_changes(
    api: Api, trip: dict[str, Any]
) -> None:
    state = api.get(f"/kits/{trip['kit_id']}")
    body = kit(state)
    body["kit"]["cameras"][0]["mass_g"] = -5
    problem = api.put(f"/kits/{trip['kit_id']}", body, 422)
    assert problem["type"] == "/problems/bad_document"
    assert problem["faults"][0]["path"].endswith("cameras[0].mass_g")
    assert "Nothing was changed." in problem["detail"]
    assert api.get(f"/kits/{trip['kit_id']}")["version"] == 1


def test_an_unused_unit_goes_at_once(api: Api, trip: dict[str, Any]) -> None:
    state = api.get(f"/kits/{trip['kit_id']}")
    saved = api.put(f"/kits/{trip['kit_id']}", without(state, "batteries", "a2"))
    assert [b["id"] for b in saved["kit"]["batteries"]] == ["a1"]


def test_uses_name_units_modes_and_set_ups(api: Api, trip: dict[str, Any]) -> None:
    uses = api.get(f"/kits/{trip['kit_id']}")["uses"]
    named = {(use["kind"], use["unit"]) for use in uses}
    assert named == {
        ("camera", "cam"),
        ("battery", "a1"),
        ("card", "k1"),
        ("mode", "cam/m"),
        ("set_up", "cam/bare"),
    }
    assert all(use["trips"] == ["Trial"] for use in uses)


def test_a_kit_with_trips_cannot_be_deleted(api: Api, trip: dict[str, Any]) -> None:
    problem = api.ask("DELETE", f"/kits/{trip['kit_id']}", None, 409)
    assert problem["used_by"] == ["Trial"]


def test_a_kit_that_is_not_there(api: Api) -> None:
    problem = api.get("/kits/999", 404)
    assert (problem["type"], problem["detail"]) == ("/problems/not_there", "There is no such kit.")


def test_the_shelf_hangs_without_being_kept(api: Api, trip: dict[str, Any]) -> None:
    question = {"kit": trip["kit"], "trip": trip["trip"], "ambient_c": 5, "air_mps": 1}
    shelf = api.post("/shelf", question)
    assert shelf["cords"][0]["end"] == "cold"  # with 4 % left in it
    assert shelf["longest"] == {"name": "way", "minutes": 60.0}
    assert (
        api.post("/shelf", question | {"ambient_c": 999}, 422)["faults"][0]["path"] == "ambient_c"
    )
