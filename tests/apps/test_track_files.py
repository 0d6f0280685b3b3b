"""Track files laid out for the page: nothing is kept, bad ones are refused with their place."""

from __future__ import annotations

from typing import Any

from tests.apps.conftest import Api
from tests.reference.tracks import Recorder, day_out, drawn_crossing, slope_up
from tumbrel.trips import tracks

START = "start=2027-06-12T08:00:00"


def test_a_track_is_laid_out_and_nothing_is_kept(api: Api) -> None:
    answer = api.post(f"/tracks?{START}", day_out().gpx())
    found = answer["laid"]
    assert answer["again"] is None
    assert [one["id"] for one in found["items"]] == ["climb-1", "hut-orla", "flat-1", "flight-1"]
    assert found["way"]["clock"] == "track"
    assert found["started_at"].startswith("2027-06-12T06:00:00")
    assert len(found["way"]["latitude"]) == len(found["way"]["height_m"]) <= 1000
    assert api.get("/trips") == []


def test_another_pace_reads_the_file_once(api: Api, monkeypatch: Any) -> None:
    way = Recorder()
    way.walk(5000.0, slope_up(0.0), None, step_m=100.0)
    slow = api.post(f"/tracks?{START}", way.gpx())

    def never(_data: bytes) -> None:
        raise AssertionError("read again")

    monkeypatch.setattr(tracks, "read_track", never)
    fast = api.post(f"/tracks?{START}&factor=2", way.gpx())
    half = slow["laid"]["items"][0]["duration_s"] / 2
    assert abs(fast["laid"]["items"][0]["duration_s"] - half) <= 1
    rides = api.post(f"/tracks?{START}&way=ride", way.gpx())["laid"]
    assert rides["items"][0]["activity"] == "ride"


def test_a_track_larger_than_a_plan_file_is_taken(api: Api) -> None:
    way = Recorder()
    way.walk(5000.0, slope_up(0.0), None, step_m=100.0)
    large = way.gpx().replace(b"</gpx>", b" " * 9_000_000 + b"</gpx>")
    assert api.post(f"/tracks?{START}", large)["laid"]["way"]["length_m"] > 4990.0


def taken(api: Api, trip: dict[str, Any], laid: dict[str, Any]) -> dict[str, Any]:
    """The trip on a track's legs alone."""
    changed = {**trip["trip"], "items": laid["items"], "ways": [laid["way"]]}
    asked = {"version": trip["version"], "trip": changed, "plan": {}}
    saved: dict[str, Any] = api.put(f"/trips/{trip['id']}", asked)
    return saved


def test_corrections_are_made_for_the_page_and_survive_the_same_track(
    api: Api, trip: dict[str, Any]
) -> None:
    data = day_out().gpx()
    kept = taken(api, trip, api.post(f"/tracks?{START}&trip={trip['id']}", data)["laid"])
    cut = {"kind": "halt", "item": "climb-1", "at_m": 1500.0, "name": "Tarn", "duration_s": 900}
    ask = {"trip": kept["trip"], "plan": {}, "correction": cut}
    made = api.post("/corrections", ask)
    assert [one["id"] for one in made["trip"]["items"]][:3] == ["climb-1", "tarn", "climb-1-2"]
    assert api.get(f"/trips/{trip['id']}")["version"] == kept["version"]
    saved = {"version": kept["version"], "trip": made["trip"], "plan": made["plan"]}
    api.put(f"/trips/{trip['id']}", saved)
    again = api.post(f"/tracks?{START}&trip={trip['id']}&factor=2", data)["again"]
    assert [one["id"] for one in again["items"]][:3] == ["climb-1", "tarn", "climb-1-2"]
    assert again["ways"][0]["factor"] == 2.0
    bad = api.post("/corrections", {**ask, "correction": {**cut, "at_m": 9e6}}, 422)
    assert bad["faults"][0]["path"] == "trip.items[0]"
    assert api.post(f"/tracks?{START}&trip=99999", data, 404)["status"] == 404


def test_behind_other_legs_the_nights_still_end_in_the_morning(
    api: Api, trip: dict[str, Any]
) -> None:
    """The trip lasts from 06:00 to 07:10; the first day of the track then ends at a hut."""
    read = api.post(
        f"/tracks?start={trip['trip']['start']}&trip={trip['id']}", drawn_crossing().gpx()
    )
    start, hut = read["laid"]["items"], read["behind"]
    nights = [next(one for one in items if one.get("asleep")) for items in (start, hut)]
    assert nights[0]["duration_s"] - nights[1]["duration_s"] == 70 * 60


def test_the_route_is_told_and_goes_out_as_gpx_and_geojson(api: Api, trip: dict[str, Any]) -> None:
    none = api.get(f"/trips/{trip['id']}/track", 422)
    assert "open a track under Route first" in none["detail"]
    laid = api.post(f"/tracks?{START}", day_out().gpx())["laid"]
    kept = taken(api, trip, laid)
    told = api.post("/route", {"trip": kept["trip"]})
    assert [one["item"] for one in told["items"]] == [one["id"] for one in laid["items"]]
    assert len(told["plans"][0]["x_m"]) == len(laid["way"]["latitude"])
    answer = api.client.get(f"/api/trips/{trip['id']}/track?form=gpx")
    assert answer["Content-Disposition"].endswith('.gpx"')
    assert b"<trkpt" in answer.content
    assert api.get(f"/trips/{trip['id']}/track?form=geojson")["type"] == "FeatureCollection"


def test_a_place_has_its_time_zone(api: Api) -> None:
    """Out at sea zones go by 15 degrees of longitude; east is minus in their names."""
    assert api.get("/time-zone?latitude=44&longitude=-30") == {"time_zone": "Etc/GMT+2"}
    assert api.get("/time-zone?latitude=-50&longitude=91") == {"time_zone": "Etc/GMT-6"}
    assert api.get("/time-zone?latitude=95&longitude=0", 422)["status"] == 422


def test_bad_files_and_bad_wishes_are_refused(api: Api) -> None:
    problem = api.post(f"/tracks?{START}", b"no track", 422)
    assert problem["detail"] == "(file): is neither GPX nor GeoJSON. Nothing was changed."
    assert api.post(f"/tracks?{START}&factor=0", day_out().gpx(), 422)["faults"][0]["path"]
    assert api.post("/tracks?way=rocket&start=x", day_out().gpx(), 422)["status"] == 422


def test_weather_is_asked_for_a_trip_and_nothing_is_kept(api: Api, trip: dict[str, Any]) -> None:
    nowhere = api.post("/air", {"trip": trip["trip"]}, 422)
    assert nowhere["detail"].startswith("trip.place: is not given")
    placed = {**trip["trip"], "place": {"latitude": 46.0, "longitude": 8.0, "height_m": 900.0}}
    camp, way = api.post("/air", {"trip": placed})
    assert [camp["item"], way["item"]] == ["camp", "way"]
    assert camp["temp_doubt_k"] > 0
    assert way["air_mps"] is None
    days = api.post("/air", {"trip": placed, "days": {"low_c": 3, "high_c": 12}})
    assert 3.0 <= days[0]["temp_start_c"] <= 12.0
    hours = "time,temp\n2027-06-12 05:00,4\n2027-06-12 09:00,8\n"
    typed = api.post("/air", {"trip": placed, "text": hours, "name": "h.csv"})
    assert typed[0]["temp_start_c"] == 5.0
    short = api.post("/air", {"trip": placed, "text": hours.replace("09:00", "05:30")}, 422)
    assert short["faults"][0]["path"] == "weather file"
    assert "says nothing of" in short["detail"]
    assert api.get(f"/trips/{trip['id']}")["version"] == 1
