"""Rows, steps, variants and notebooks of an older schema are brought up wherever they are read."""

from __future__ import annotations

from typing import Any

import pytest

from tests.apps.conftest import Api
from tumbrel.bench.models import BenchNotebook
from tumbrel.core.document import versions
from tumbrel.core.document.versions import CURRENT
from tumbrel.history.owner import local_owner
from tumbrel.kit.models import Kit
from tumbrel.trips.models import Trip, Variant

OLD = "label"


def aged(document: dict[str, Any], *path: str) -> dict[str, Any]:
    """A document as a schema before would have it: no number, and `name` called otherwise."""
    old = {key: value for key, value in document.items() if key != "tumbrel"}
    part = old
    for step in path:
        part[step] = dict(part[step])
        part = part[step]
    if "name" in part:
        part[OLD] = part.pop("name")
    return old


@pytest.fixture
def older(monkeypatch: pytest.MonkeyPatch) -> None:
    """As if the first schema had called the name of a trip a label."""

    def rename(given: dict[str, Any], kind: versions.Kind) -> dict[str, Any]:
        if kind not in {"trip", "file"}:
            return given
        trip = dict(given["trip"])
        if OLD in trip:
            trip["name"] = trip.pop(OLD)
        return {**given, "trip": trip}

    monkeypatch.setitem(versions.UPGRADES, 1, rename)


def test_a_trip_its_steps_and_its_variants(api: Api, trip: dict[str, Any], older: None) -> None:
    number = trip["id"]
    api.post(f"/trips/{number}/variants", {"name": "as it was", "words": ""})
    body = {"version": trip["version"], "trip": trip["trip"] | {"name": "later"}}
    api.put(f"/trips/{number}", body | {"plan": trip["plan"]})
    row = Trip.objects.of(local_owner()).get(pk=number)
    row.document = aged(row.document, "trip")
    row.save()
    for step in row.steps.all():
        step.document = aged(step.document, "trip")
        step.save()
    variant = Variant.objects.of(local_owner()).get(trip=row)
    variant.document = aged(variant.document, "trip")
    variant.save()
    assert api.get(f"/trips/{number}")["trip"]["name"] == "later"
    now = api.get(f"/trips/{number}")
    back = api.post(f"/trips/{number}/undo", {"version": now["version"]})
    assert back["trip"]["name"] == trip["trip"]["name"]
    step = row.steps.get(number=1)
    assert OLD in step.document["trip"], "what a step keeps is never rewritten"
    kept = api.get(f"/trips/{number}/variants/{variant.pk}")
    assert kept["document"]["trip"]["name"] == trip["trip"]["name"]
    assert kept["document"]["tumbrel"] == CURRENT
    assert api.get(f"/kits/{trip['kit_id']}")["uses"], "lists look into plans as they are kept"


def test_a_kit_and_a_notebook_without_a_number(api: Api, trip: dict[str, Any]) -> None:
    owner, number = local_owner(), trip["kit_id"]
    kit = Kit.objects.of(owner).get(pk=number)
    assert kit.document["tumbrel"] == CURRENT
    kit.document = aged(kit.document)
    kit.save()
    told = api.get(f"/kits/{number}/bench")
    api.put(f"/kits/{number}/bench", {"version": told["version"], "notebook": told["notebook"]})
    bench = BenchNotebook.objects.of(owner).get(kit=kit)
    assert bench.document["tumbrel"] == CURRENT
    bench.document = aged(bench.document)
    bench.save()
    assert api.get(f"/kits/{number}")["kit"] == trip["kit"]
    assert [one["cameras"] for one in api.get("/kits")] == [["Cam"]]
    assert api.get(f"/kits/{number}/bench")["notebook"] == told["notebook"]


def test_a_plan_kept_before_it_had_some_fields(api: Api, trip: dict[str, Any]) -> None:
    """Lists and a unit that goes look into plans as they are kept, whatever they lack."""
    number = trip["kit_id"]
    uses = api.get(f"/kits/{number}")["uses"]
    assert {one["kind"] for one in uses} >= {"camera", "mode", "set_up"}
    row = Trip.objects.of(local_owner()).get(pk=trip["id"])
    kept = dict(row.document)
    kept["plan"] = {
        "cameras": [
            {field: value for field, value in one.items() if value is not None}
            for one in kept["plan"]["cameras"]
        ],
        "assignments": [
            {field: one[field] for field in ("camera", "item", "mode", "set_up")}
            for one in kept["plan"]["assignments"]
        ],
    }
    row.document = kept
    row.save()
    assert api.get(f"/kits/{number}")["uses"] == uses
    kit = api.get(f"/kits/{number}")
    without = kit["kit"] | {"cameras": []}
    body = {"version": kit["version"], "name": kit["name"], "kit": without}
    (went,) = api.put(f"/kits/{number}", body)["went"]
    assert went["rows"] == {"cameras": 1, "assignments": 1}
    assert api.get(f"/trips/{trip['id']}")["plan"]["assignments"] == []


def test_a_row_of_a_newer_version_is_told_and_stays(api: Api, trip: dict[str, Any]) -> None:
    row = Trip.objects.of(local_owner()).get(pk=trip["id"])
    row.document = {**row.document, "tumbrel": CURRENT + 1}
    row.save()
    problem = api.get(f"/trips/{trip['id']}", 422)
    assert problem["faults"][0]["path"] == "tumbrel"
    row.refresh_from_db()
    assert row.document["tumbrel"] == CURRENT + 1


def test_notes_of_a_page_are_brought_up(api: Api, older: None) -> None:
    asked = {"kind": "trip", "tumbrel": 1, "documents": [{"trip": {OLD: "a"}, "plan": {}}]}
    told = api.post("/brought-up", asked)
    assert told == {"tumbrel": CURRENT, "documents": [{"trip": {"name": "a"}, "plan": {}}]}
    api.post("/brought-up", asked | {"tumbrel": CURRENT + 1}, 422)


def test_looking_at_a_notebook_makes_none(api: Api, trip: dict[str, Any]) -> None:
    number = trip["kit_id"]
    first = api.get(f"/kits/{number}/bench")
    assert (first["version"], first["can_undo"], first["can_redo"]) == (1, False, False)
    assert not BenchNotebook.objects.of(local_owner()).exists()
    kept = api.put(f"/kits/{number}/bench", {"version": 1, "notebook": first["notebook"]})
    assert (kept["version"], kept["can_undo"]) == (2, True)


def test_a_list_of_kits_asks_once_for_all(
    api: Api, trip: dict[str, Any], django_assert_max_num_queries: Any
) -> None:
    for number in range(5):
        api.post("/kits", {"name": f"Kit {number}"})
    with django_assert_max_num_queries(4):  # two of them for the session
        assert len(api.get("/kits")) == 6
