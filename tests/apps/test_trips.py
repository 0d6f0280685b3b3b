"""Trips: kept in versions, opened from files, rehearsed; what is bad or stale changes nothing."""

from __future__ import annotations

import json
from typing import Any

import pytest
from django.core.management import call_command
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.test import Client

from tests.apps.conftest import Api
from tests.build import asks, leg, raw, stop, takes
from tumbrel.core.report import rehearse
from tumbrel.trips.models import Trip


def body(state: dict[str, Any], **plan: Any) -> dict[str, Any]:
    """What is kept of a trip, with changes of the plan, ready to send."""
    return {"version": state["version"], "trip": state["trip"], "plan": state["plan"] | plan}


def renamed(state: dict[str, Any], name: str) -> dict[str, Any]:
    """The trip under another name."""
    return body(state) | {"trip": state["trip"] | {"name": name}}


def test_a_new_trip_has_a_stop_to_start_from_and_a_kit_of_its_own(api: Api) -> None:
    made = api.post("/trips", {"name": "Loop", "start": "2027-06-12T06:00:00"})
    assert [item["name"] for item in made["trip"]["items"]] == ["Start"]
    assert (made["kit_name"], made["kit"]["cameras"]) == ("Kit of Loop", [])
    assert [line["name"] for line in api.get("/trips")] == ["Loop"]


def test_a_new_trip_on_a_kit_that_is_there(api: Api, trip: dict[str, Any]) -> None:
    asked = {"name": "Two", "start": "2027-07-01T06:00:00", "kit_id": trip["kit_id"]}
    assert api.post("/trips", asked)["kit"] == trip["kit"]
    api.post("/trips", asked | {"kit_id": 999}, 404)


def test_saving_undo_and_redo(api: Api, trip: dict[str, Any]) -> None:
    place = f"/trips/{trip['id']}"
    saved = api.put(place, renamed(trip, "Second"))
    assert (saved["version"], saved["trip"]["name"]) == (2, "Second")
    undone = api.post(f"{place}/undo", {"version": 2})
    assert (undone["trip"]["name"], undone["can_undo"], undone["can_redo"]) == (
        "Trial",
        False,
        True,
    )
    redone = api.post(f"{place}/redo", {"version": 3})
    assert (redone["trip"]["name"], redone["can_redo"]) == ("Second", False)
    assert api.get("/trips")[0]["name"] == "Second"


def test_steps_of_trip_and_kit_are_told_by_when_they_were_made(
    api: Api, trip: dict[str, Any]
) -> None:
    """So that the page can take back what was done last, wherever that was."""
    place, kit_place = f"/trips/{trip['id']}", f"/kits/{trip['kit_id']}"
    assert (trip["undo_at"], trip["redo_at"]) == (None, None)
    kit = api.get(kit_place)
    first = api.put(place, renamed(trip, "Second"))
    of_kit = api.put(kit_place, {"version": kit["version"], "name": "K", "kit": kit["kit"]})
    second = api.put(place, renamed(first, "Third"))
    assert first["undo_at"] < of_kit["undo_at"] < second["undo_at"]
    undone = api.post(f"{place}/undo", {"version": second["version"]})
    assert (undone["undo_at"], undone["redo_at"]) == (first["undo_at"], second["undo_at"])
    Trip.objects.get(pk=trip["id"]).steps.update(made_at=None)  # as older installations have it
    older = api.get(place)
    assert older["undo_at"] == older["redo_at"] < of_kit["undo_at"]


def test_a_save_after_undo_forgets_what_could_be_redone(api: Api, trip: dict[str, Any]) -> None:
    place = f"/trips/{trip['id']}"
    api.put(place, renamed(trip, "Second"))
    undone = api.post(f"{place}/undo", {"version": 2})
    third = api.put(place, renamed(undone, "Third"))
    assert not third["can_redo"]
    problem = api.post(f"{place}/redo", {"version": third["version"]}, 409)
    assert problem["type"] == "/problems/nothing_to_undo"


def test_nothing_to_undo_is_said(api: Api, trip: dict[str, Any]) -> None:
    problem = api.post(f"/trips/{trip['id']}/undo", {"version": 1}, 409)
    assert problem["detail"] == "Nothing to undo."


def test_a_stale_save_gets_both_states_and_changes_nothing(api: Api, trip: dict[str, Any]) -> None:
    place = f"/trips/{trip['id']}"
    api.put(place, renamed(trip, "From the other tab"))
    problem = api.put(place, renamed(trip, "Mine"), 409)
    assert problem["type"] == "/problems/stale"
    assert problem["current"]["trip"]["name"] == "From the other tab"
    assert "saved elsewhere at" in problem["detail"]
    assert api.get(place)["trip"]["name"] == "From the other tab"


def test_a_double_submit_saves_once(api: Api, trip: dict[str, Any]) -> None:
    place = f"/trips/{trip['id']}"
    asked = renamed(trip, "Once")
    api.put(place, asked)
    api.put(place, asked, 409)
    assert api.get(place)["version"] == 2


def test_a_plan_that_names_what_is_not_there_is_refused(api: Api, trip: dict[str, Any]) -> None:
    asked = body(trip, assignments=[{**trip["plan"]["assignments"][0], "camera": "gone"}])
    problem = api.put(f"/trips/{trip['id']}", asked, 422)
    assert "gone" in problem["faults"][0]["why"]
    assert api.get(f"/trips/{trip['id']}")["version"] == 1


def test_every_step_can_be_taken_back(api: Api, trip: dict[str, Any]) -> None:
    state = trip
    for number in range(400):
        state = api.put(f"/trips/{trip['id']}", renamed(state, f"n{number}"))
    assert Trip.objects.get(pk=trip["id"]).steps.count() == 401
    for _ in range(400):
        state = api.post(f"/trips/{trip['id']}/undo", {"version": state["version"]})
    assert state["trip"]["name"] == trip["trip"]["name"]
    assert not state["can_undo"]


@pytest.mark.django_db(transaction=True)
def test_steps_of_an_older_installation_are_packed_and_still_there() -> None:
    executor = MigrationExecutor(connection)
    executor.migrate([("trips", "0002_variants")])
    old = executor.loader.project_state([("trips", "0002_variants")]).apps
    owner = old.get_model("auth", "User").objects.create(username="old")
    kit = old.get_model("kit", "Kit").objects.create(owner=owner, name="k", document={})
    trip = old.get_model("trips", "Trip").objects.create(owner=owner, kit=kit, document={})
    state = {"trip": {"name": "Überschreitung"}, "plan": {}}
    old.get_model("trips", "TripStep").objects.create(
        owner=owner, trip=trip, number=1, document=state
    )
    executor = MigrationExecutor(connection)
    executor.migrate(executor.loader.graph.leaf_nodes())
    assert Trip.objects.get(pk=trip.pk).steps.get().document == state


def test_deleting_a_trip_leaves_its_kit(api: Api, trip: dict[str, Any]) -> None:
    api.ask("DELETE", f"/trips/{trip['id']}", None, 204)
    api.get(f"/trips/{trip['id']}", 404)
    assert api.get(f"/kits/{trip['kit_id']}")["uses"] == []


def test_a_file_goes_in_and_out_without_loss(api: Api, client: Client, demo_text: bytes) -> None:
    opened = api.post("/plan-files", demo_text)
    answer = client.get(f"/api/trips/{opened['id']}/file")
    assert answer["Content-Disposition"] == 'attachment; filename="ostrel-crossing.tumbrel.json"'
    again = api.post("/plan-files", answer.content)
    assert client.get(f"/api/trips/{again['id']}/file").content == answer.content
    assert again["kit_id"] == opened["kit_id"]  # the same kit is not kept twice


@pytest.mark.parametrize(
    ("text", "path"),
    [
        (b"", "line 1, column 1"),
        (b"not json", "line 1, column 1"),
        (b"\xff\xfe", "(file)"),
        (b'{"tumbrel": 9}', "tumbrel"),
        (b'{"tumbrel": 2, "kit": {}}', "trip"),
    ],
)
def test_a_bad_file_changes_nothing_and_says_where(api: Api, text: bytes, path: str) -> None:
    problem = api.post("/plan-files", text, 422)
    assert problem["faults"][0]["path"] == path
    assert api.get("/trips") == []
    assert api.get("/kits") == []


def test_a_file_whose_waits_are_too_long_is_refused_whole(api: Api, small: dict[str, Any]) -> None:
    small["trip"]["items"][1]["not_before"] = "2031-01-01T00:00:00"
    problem = api.post("/plan-files", small, 422)
    assert "31 days" in problem["detail"]
    assert api.get("/kits") == []


def test_a_rehearsal_keeps_nothing(api: Api, small: dict[str, Any]) -> None:
    told = api.post("/rehearsals", small)
    assert told["verdict"]["headline"] == "Everything you asked is filmed."
    assert api.get("/trips") == []


def test_a_bad_document_is_not_rehearsed(api: Api, small: dict[str, Any]) -> None:
    small["trip"]["items"][0]["duration_s"] = 0
    problem = api.post("/rehearsals", small, 422)
    assert problem["faults"][0]["path"].endswith("duration_s")


def test_the_rehearsal_of_the_site_is_that_of_the_core(
    api: Api, demo_text: bytes, demo: Any
) -> None:
    told = api.post("/rehearsals", demo_text)
    assert told == json.loads(rehearse(demo).model_dump_json())


def test_a_table_is_read_and_not_kept(api: Api) -> None:
    read = api.post("/trip-table", {"text": "climb;climb;2:30", "taken": ["climb"]})
    assert read["items"][0]["id"] == "climb-2"
    problem = api.post("/trip-table", {"text": "climb;dance;2:30"}, 422)
    assert problem["faults"][0]["path"] == "line 1"


def test_the_demo_is_loaded_once(api: Api) -> None:
    first = api.post("/demo")
    assert first["trip"]["name"] == "Ostrel crossing"
    assert api.post("/demo")["id"] == first["id"]
    assert len(api.get("/trips")) == 3


def test_resetting_the_demo_puts_it_back_and_leaves_other_trips(
    api: Api, trip: dict[str, Any]
) -> None:
    demo = api.post("/demo")
    api.put(f"/trips/{demo['id']}", renamed(demo, demo["trip"]["name"]) | {"plan": {}})
    call_command("load_demo", "--reset", verbosity=0)
    names = [line["name"] for line in api.get("/trips")]
    assert sorted(names) == ["Halde flat regatta", "Ostrel crossing", "Skarre fell run", "Trial"]
    (fresh,) = [line for line in api.get("/trips") if line["name"] == "Ostrel crossing"]
    assert len(api.get(f"/trips/{fresh['id']}")["plan"]["assignments"]) > 20
    assert len(api.get("/kits")) == 4


def test_an_empty_kit_can_be_rehearsed(api: Api) -> None:
    parts = raw([{"kind": "stop", "id": "s", "name": "s", "duration_s": 60}], [], [], [], [])
    told = api.post("/rehearsals", parts)
    assert told["verdict"]["headline"] == "Nothing is asked yet."


def test_rehearsing_again_after_a_late_edit_tells_what_a_first_rehearsal_tells(api: Api) -> None:
    """The second one starts from a checkpoint of the first; a third trip's does not disturb it."""
    days = [leg(f"d{n}", 86_400 - 600, hands="free") for n in range(3)]
    items = [part for n, day in enumerate(days) for part in (day, stop(f"s{n}", 600))]
    parts = raw(items, [asks("cam", "d0", pattern=takes(20, count=30)), asks("cam", "d2")])
    api.post("/rehearsals", parts)
    parts["plan"]["assignments"][1]["pattern"] = takes(30, count=9)
    again = api.post("/rehearsals", parts)
    renamed_trip = {**parts, "trip": {**parts["trip"], "name": "Another"}}
    fresh = api.post("/rehearsals", renamed_trip)
    assert again == fresh


@pytest.mark.parametrize(
    "body", [b"\xff\xfe", b"", b"{", b'{"tumbrel": "\\ud800"}', b"[]", b"null"]
)
def test_a_body_that_is_no_document_is_refused_where_it_is_played(api: Api, body: bytes) -> None:
    problem = api.ask("POST", "/rehearsals", body, 422)
    assert problem["faults"]
