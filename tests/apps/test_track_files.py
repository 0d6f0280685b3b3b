"""Track files laid out for the page: nothing is kept, bad ones are refused with their place."""

from __future__ import annotations

from typing import Any

from tests.apps.conftest import Api
from tests.reference.tracks import Recorder, day_out, slope_up
from tumbrel.trips import tracks

START = "start=2027-06-12T08:00:00"


def test_a_track_is_laid_out_and_nothing_is_kept(api: Api) -> None:
    found = api.post(f"/tracks?{START}&taken=climb-1", day_out().gpx())
    assert [one["id"] for one in found["items"]] == ["climb-2", "hut-orla", "flat-1", "flight-1"]
    assert found["timed"] is True
    assert found["started_at"].startswith("2027-06-12T06:00:00")
    assert len(found["picture"]["x_m"]) == len(found["picture"]["height_m"]) <= 1500
    assert found["picture"]["starts_m"][0] == 0.0
    assert api.get("/trips") == []


def test_another_pace_reads_the_file_once(api: Api, monkeypatch: Any) -> None:
    way = Recorder()
    way.walk(5000.0, slope_up(0.0), None, step_m=100.0)
    slow = api.post(f"/tracks?{START}", way.gpx())

    def never(_data: bytes) -> None:
        raise AssertionError("read again")

    monkeypatch.setattr(tracks, "read_track", never)
    fast = api.post(f"/tracks?{START}&factor=2", way.gpx())
    half = slow["items"][0]["duration_s"] / 2
    assert abs(fast["items"][0]["duration_s"] - half) <= 1
    assert api.post(f"/tracks?{START}&way=ride", way.gpx())["items"][0]["activity"] == "ride"


def test_a_track_larger_than_a_plan_file_is_taken(api: Api) -> None:
    way = Recorder()
    way.walk(5000.0, slope_up(0.0), None, step_m=100.0)
    large = way.gpx().replace(b"</gpx>", b" " * 9_000_000 + b"</gpx>")
    assert api.post(f"/tracks?{START}", large)["length_m"] > 4990.0


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
    hours = "time,temp\n2027-06-12 05:00,4\n2027-06-12 09:00,8\n"
    typed = api.post("/air", {"trip": placed, "text": hours, "name": "h.csv"})
    assert typed[0]["temp_start_c"] == 5.0
    short = api.post("/air", {"trip": placed, "text": hours.replace("09:00", "05:30")}, 422)
    assert short["faults"][0]["path"] == "weather file"
    assert "says nothing of" in short["detail"]
    assert api.get(f"/trips/{trip['id']}")["version"] == 1
