"""The bin: what is deleted comes back whole for thirty days, and then is gone."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.utils import timezone

from tests.apps.conftest import Api
from tumbrel.history.owner import local_owner
from tumbrel.kit.models import Kit
from tumbrel.trips.bin import empty_bin
from tumbrel.trips.models import Trip, TripStep, Variant


def deleted(api: Api, trip: dict[str, Any]) -> None:
    api.ask("DELETE", f"/trips/{trip['id']}", None, 204)


def test_a_deleted_trip_is_nowhere_but_in_the_bin(api: Api, trip: dict[str, Any]) -> None:
    api.post(f"/trips/{trip['id']}/variants", {"name": "As it was"})
    deleted(api, trip)
    api.get(f"/trips/{trip['id']}", 404)
    assert api.get("/trips") == []
    api.put(f"/trips/{trip['id']}", {"version": 1, "trip": trip["trip"], "plan": trip["plan"]}, 404)
    (line,) = api.get("/bin")
    assert (line["kind"], line["name"], line["variants"]) == ("trip", "Trial", 1)
    assert line["goes_at"] > line["thrown_away_at"]


def test_it_comes_back_with_steps_and_variants(api: Api, trip: dict[str, Any]) -> None:
    named = {**trip["trip"], "name": "Later"}
    body = {"version": 1, "trip": named, "plan": trip["plan"]}
    api.put(f"/trips/{trip['id']}", body)
    api.post(f"/trips/{trip['id']}/variants", {"name": "As it was"})
    before = api.get(f"/trips/{trip['id']}")
    deleted(api, trip)
    api.post(f"/bin/trip/{trip['id']}", None, 204)
    assert api.get(f"/trips/{trip['id']}") == before
    assert len(api.get(f"/trips/{trip['id']}/variants")) == 1
    assert (
        api.post(f"/trips/{trip['id']}/undo", {"version": before["version"]})["trip"]["name"]
        == "Trial"
    )
    assert api.get("/bin") == []


def test_a_trip_brings_its_kit_along(api: Api, trip: dict[str, Any]) -> None:
    deleted(api, trip)
    api.ask("DELETE", f"/kits/{trip['kit_id']}", None, 204)
    assert {line["kind"] for line in api.get("/bin")} == {"trip", "kit"}
    api.post(f"/bin/trip/{trip['id']}", None, 204)
    assert api.get(f"/kits/{trip['kit_id']}")["name"] == trip["kit_name"]


def test_a_kit_that_a_trip_uses_is_not_thrown_away(api: Api, trip: dict[str, Any]) -> None:
    api.ask("DELETE", f"/kits/{trip['kit_id']}", None, 409)


def test_what_is_let_go_is_gone(api: Api, trip: dict[str, Any]) -> None:
    api.ask("DELETE", f"/bin/trip/{trip['id']}", None, 404)  # not while it is in use
    deleted(api, trip)
    api.ask("DELETE", f"/kits/{trip['kit_id']}", None, 204)
    api.ask("DELETE", f"/bin/kit/{trip['kit_id']}", None, 204)
    assert (Trip.objects.count(), Kit.objects.count(), TripStep.objects.count()) == (0, 0, 0)


def test_after_thirty_days_it_goes_by_itself(api: Api, trip: dict[str, Any]) -> None:
    api.post(f"/trips/{trip['id']}/variants", {"name": "As it was"})
    deleted(api, trip)
    api.ask("DELETE", f"/kits/{trip['kit_id']}", None, 204)
    now = timezone.now()
    assert empty_bin(now + timedelta(days=29, hours=23)) == 0
    assert empty_bin(now + timedelta(days=30, minutes=1)) == 2
    assert (Trip.objects.count(), Kit.objects.count(), Variant.objects.count()) == (0, 0, 0)


def test_a_kit_stays_as_long_as_a_trip_of_it_can_come_back(api: Api, trip: dict[str, Any]) -> None:
    deleted(api, trip)
    api.ask("DELETE", f"/kits/{trip['kit_id']}", None, 204)
    Kit.objects.update(thrown_away_at=timezone.now() - timedelta(days=40))
    assert empty_bin(timezone.now()) == 0
    api.post(f"/bin/trip/{trip['id']}", None, 204)
    assert api.get(f"/trips/{trip['id']}")["kit"] == trip["kit"]


def test_nobody_sees_another_owners_bin(api: Api, trip: dict[str, Any]) -> None:
    deleted(api, trip)
    owner = local_owner()
    owner.pk, owner.username = None, "other"
    owner.save()
    Trip.objects.update(owner=owner)
    assert api.get("/bin") == []
    api.post(f"/bin/trip/{trip['id']}", None, 404)
