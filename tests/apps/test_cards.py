"""The card of a trip over the API: looked at, taken along, ticked, changed since."""

from __future__ import annotations

from typing import Any

import pytest
from django.test import Client

from tests.apps.conftest import Api
from tumbrel.trips.models import CardMade, CardTick, TripStep

TICK = {"id": "abc12345-1", "move": "camp/cam/start//1", "kind": "done"}
AT = "2027-06-12T08:01:00Z"


@pytest.fixture
def trip(api: Api, small: dict[str, Any]) -> int:
    """A small trip."""
    return int(api.post("/plan-files", small)["id"])


def take(client: Client, trip: int, form: str) -> Any:
    """The card in a form, as the page takes it."""
    return client.post(f"/api/trips/{trip}/card-file?form={form}")


def test_a_card_tells_the_trip_and_looking_keeps_nothing(api: Api, trip: int) -> None:
    state = api.get(f"/trips/{trip}/card")
    assert [place["item"] for place in state["card"]["places"]] == ["camp", "way"]
    assert state["ticks"] == []
    assert state["made"] is None
    assert not CardMade.objects.exists()


def test_ticks_are_added_once_and_are_no_steps_of_the_trip(api: Api, trip: int) -> None:
    steps = TripStep.objects.count()
    row = {**TICK, "at": AT, "text": ""}
    other = {**row, "id": "abc12345-2", "kind": "reading", "text": "shows 40 %"}
    assert len(api.post(f"/trips/{trip}/ticks", {"ticks": [row]})["ticks"]) == 1
    told = api.post(f"/trips/{trip}/ticks", {"ticks": [row, other, other]})["ticks"]
    assert [one["id"] for one in told] == ["abc12345-1", "abc12345-2"]
    assert api.get(f"/trips/{trip}/card")["ticks"] == told
    assert TripStep.objects.count() == steps


@pytest.mark.parametrize(
    "bad",
    [
        {"kind": "eaten"},
        {"id": "short"},
        {"id": "with blanks in it"},
        {"text": "x" * 201},
        {"at": "soon"},
    ],
)
def test_a_bad_tick_is_refused_with_its_place_and_nothing_is_added(
    api: Api, trip: int, bad: dict[str, str]
) -> None:
    good = {**TICK, "at": AT}
    told = api.post(f"/trips/{trip}/ticks", {"ticks": [good, {**good, **bad}]}, 422)
    assert "ticks[1]" in told["faults"][0]["path"] or "ticks" in told["faults"][0]["path"]
    assert not CardTick.objects.exists()


def test_ticks_of_a_trip_that_is_not_there_are_refused(api: Api) -> None:
    api.post("/trips/999/ticks", {"ticks": []}, 404)
    api.get("/trips/999/card", 404)


def test_calendar_and_table_go_along_and_a_later_plan_says_what_changed(
    api: Api, client: Client, trip: int
) -> None:
    table = take(client, trip, "csv")
    assert table.status_code == 200
    assert table.content.startswith(b"day,clock,place,")
    assert "attachment" in table["Content-Disposition"]
    assert take(client, trip, "ics").content.startswith(b"BEGIN:VCALENDAR")
    assert CardMade.objects.count() == 1
    kept = api.get(f"/trips/{trip}")
    assert kept["card_made"] is not None
    plan = {**kept["plan"], "assignments": []}
    api.put(f"/trips/{trip}", {"version": kept["version"], "trip": kept["trip"], "plan": plan})
    state = api.get(f"/trips/{trip}/card")
    assert state["made"] is not None
    assert any("is gone" in said for one in state["changed"] for said in one["said"])
    assert api.get(f"/trips/{trip}")["card_made"] == state["made"]
    take(client, trip, "csv")
    assert api.get(f"/trips/{trip}/card")["changed"] == []


def test_a_form_that_is_none_is_refused(client: Client, trip: int) -> None:
    assert take(client, trip, "docx").status_code == 422


def test_ticks_go_with_their_trip(api: Api, trip: int) -> None:
    api.post(f"/trips/{trip}/ticks", {"ticks": [{**TICK, "at": AT}]})
    api.ask("DELETE", f"/trips/{trip}", None, 204)
    api.get(f"/trips/{trip}/card", 404)
