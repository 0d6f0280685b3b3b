"""Variants through the API: kept, made, compared, renamed, deleted; each of its own trip."""

from __future__ import annotations

from typing import Any

from tests.apps.conftest import Api


def variants(trip: dict[str, Any]) -> str:
    return f"/trips/{trip['id']}/variants"


def test_a_state_is_kept_under_a_name_and_stays_as_it_was(api: Api, trip: dict[str, Any]) -> None:
    line = api.post(variants(trip), {"name": " As planned "})
    assert line["name"] == "As planned"
    plan = {**trip["plan"], "assignments": []}
    api.put(f"/trips/{trip['id']}", {"version": 1, "trip": trip["trip"], "plan": plan})
    kept = api.get(f"{variants(trip)}/{line['id']}")
    assert kept["document"]["plan"]["assignments"] == trip["plan"]["assignments"]
    now, then = api.get(f"/trips/{trip['id']}/comparison?of=0,{line['id']}")
    assert now["variant"] is None
    assert now["state"]["ledger"]["headline"] == "Nothing is asked yet."
    assert then["state"]["ledger"]["stretches"][0]["filmed_ms"] == 3_600_000


def test_a_name_is_wanted_and_stands_once(api: Api, trip: dict[str, Any]) -> None:
    api.post(variants(trip), {"name": "A"})
    for name, why in (("", "give it a name"), ("x" * 61, "give it a name"), ("A", "kept already")):
        problem = api.post(variants(trip), {"name": name}, 422)
        assert why in problem["faults"][0]["why"]
    assert len(api.get(variants(trip))) == 1


def test_one_of_the_starting_set_takes_the_place_of_the_older_one(
    api: Api, trip: dict[str, Any]
) -> None:
    for _ in range(2):
        line = api.post(variants(trip), {"start": "takes"})
    assert [one["name"] for one in api.get(variants(trip))] == ["Short takes"]
    kept = api.get(f"{variants(trip)}/{line['id']}")
    assert kept["document"]["plan"]["assignments"][0]["pattern"]["kind"] == "takes"
    assert api.get(f"/trips/{trip['id']}")["plan"] == trip["plan"]


def test_a_variant_is_renamed_and_deleted(api: Api, trip: dict[str, Any]) -> None:
    line = api.post(variants(trip), {"name": "A"})
    one = f"{variants(trip)}/{line['id']}"
    assert api.put(one, {"name": "B"})["name"] == "B"
    assert api.put(one, {"name": "B"})["name"] == "B"
    api.ask("DELETE", one, None, 204)
    assert api.get(variants(trip)) == []
    api.get(one, 404)


def test_what_cannot_be_compared_is_refused(api: Api, trip: dict[str, Any]) -> None:
    comparison = f"/trips/{trip['id']}/comparison?of="
    assert "one to 4" in api.get(f"{comparison}0,0,0,0,0", 422)["faults"][0]["why"]
    assert "numbers of variants" in api.get(f"{comparison}now", 422)["faults"][0]["why"]
    api.get(f"{comparison}77", 404)


def test_variants_of_another_trip_are_not_there(
    api: Api, trip: dict[str, Any], small: dict[str, Any]
) -> None:
    line = api.post(variants(trip), {"name": "A"})
    other = api.post("/plan-files", {**small, "trip": {**small["trip"], "name": "Other"}})
    api.get(f"{variants(other)}/{line['id']}", 404)
    api.get(f"/trips/{other['id']}/comparison?of={line['id']}", 404)
    api.ask("DELETE", f"/trips/{trip['id']}", None, 204)
    api.get(variants(trip), 404)


def test_a_quick_sum_needs_no_trip_and_says_which_field_is_wrong(api: Api) -> None:
    answer = api.post("/sums", {"question": {"kind": "slowing", "fps": 100}})
    assert answer["value"] == 4.0
    assert answer["lines"] == ["100 / 25 = 4"]
    wrong = api.post("/sums", {"question": {"kind": "slowing", "fps": 0}}, 422)
    assert "fps" in wrong["faults"][0]["path"]
    assert "greater than or equal to 1" in wrong["faults"][0]["why"]
