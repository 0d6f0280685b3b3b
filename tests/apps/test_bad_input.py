"""Bad input is refused with its place, never a fault of ours, and loses nothing."""

from __future__ import annotations

import errno
import json
import random
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from django.db import OperationalError, connection
from django.test import Client

from tests.apps.conftest import Api
from tumbrel.kit.models import Kit
from tumbrel.trips.models import Trip
from tumbrel.working.desks import Busy

STEP = timedelta(minutes=1)
FILES = Path(__file__).resolve().parents[2] / "docs" / "formats"
Point = tuple[object, object, object]
WAY: list[Point] = [(46 + n / 1000, 8 + n / 1000, 500 + n) for n in range(50)]


def gpx(points: list[Point], begins: datetime | None = None) -> bytes:
    rows = []
    for number, (lat, lon, height) in enumerate(points):
        time = "" if begins is None else f"<time>{(begins + number * STEP).isoformat()}</time>"
        rows.append(f'<trkpt lat="{lat}" lon="{lon}"><ele>{height}</ele>{time}</trkpt>')
    return f"<gpx><trk><trkseg>{''.join(rows)}</trkseg></trk></gpx>".encode()


def features(found: object) -> bytes:
    return json.dumps({"type": "FeatureCollection", "features": found}).encode()


def line(**properties: object) -> object:
    rows = [[8 + n / 1000, 46, 500] for n in range(30)]
    shape = {"type": "LineString", "coordinates": rows}
    return {"type": "Feature", "properties": properties, "geometry": shape}


JUNE, LATER = datetime(2027, 6, 1, tzinfo=UTC), datetime(2027, 7, 21, tzinfo=UTC)
TRACKS: dict[str, tuple[bytes, str]] = {
    "two of 50 days apart": (
        gpx(WAY, JUNE)[:-12] + b"</trk><trk>" + gpx(WAY, LATER)[10:],
        "takes over 31 days",
    ),
    "a very long way": (
        gpx([(-80 + n * 1.6, n * 3.3 - 170, 0) for n in range(100)]),
        "takes over 31 days",
    ),
    "no such encoding": (b"<?xml version='1.0' encoding='foo'?>" + gpx(WAY), "save it as UTF-8"),
    "utf-7": (b"<?xml version='1.0' encoding='utf-7'?>" + gpx(WAY), "save it as UTF-8"),
    "idna": (b"<?xml version='1.0' encoding='idna'?>" + gpx(WAY), "save it as UTF-8"),
    "shift_jis": (b"<?xml version='1.0' encoding='shift_jis'?>" + gpx(WAY), "save it as UTF-8"),
    "features that are 5": (b'{"type": "FeatureCollection", "features": 5}', "holds no track"),
    "features that are none": (features([None, 5, {"type": "Feature", "geometry": 5}]), "no track"),
    "no numbers": (gpx([("nan", "inf", 0)] * 9), "has no place"),
    "nested without end": (b"[" * 50_000, "neither GPX nor GeoJSON"),
    "nothing": (b"", "neither GPX nor GeoJSON"),
}


def laid(api: Api, data: bytes) -> Any:
    path = "/api/tracks?way=foot&start=2027-06-12T08:00:00"
    return api.client.generic("POST", path, data, "application/octet-stream")


@pytest.mark.parametrize("name", TRACKS)
def test_a_track_that_is_none_is_refused_with_what_to_do(api: Api, name: str) -> None:
    data, why = TRACKS[name]
    answer = laid(api, data)
    assert answer.status_code == 422
    assert why in json.loads(answer.content)["detail"]


@pytest.mark.parametrize(
    "data",
    [
        gpx(WAY, JUNE).replace(b"2027-06-01T00:00:00", b"1970-01-01T00:00:00"),
        gpx(WAY, datetime(1, 1, 1, tzinfo=UTC)),
        gpx(WAY, datetime(9999, 12, 31, tzinfo=UTC)),
        gpx([(46 + n / 1000, 8, 1e9 * (-1) ** n) for n in range(30)]),
        features([line(name="\ud800 half", coordTimes=5)]),
        features([line(coordTimes=["x", 5, None] * 10)]),
    ],
)
def test_what_is_odd_in_a_track_is_left_out(api: Api, data: bytes) -> None:
    answer = laid(api, data)
    assert answer.status_code == 200, answer.content
    json.dumps(json.loads(answer.content)).encode("utf-8").decode("utf-8")


BODIES: list[tuple[str, bytes, str, int]] = [
    ("/plan-files", b"x=1", "multipart/form-data", 422),
    ("/kits", b"", "multipart/form-data", 422),
    ("/kits", b'{"name": "\\ud800"}', "application/json", 422),
    ("/kits", b"[" * 100_000, "application/json", 400),
    ("/kits", b"\xff\xfe", "application/json", 400),
    ("/kits", b"x" * 9_000_000, "application/json", 413),
    ("/plan-files", b"x" * 9_000_000, "application/json", 413),
    ("/plan-files", b'{"tumbrel": 2e999}', "application/json", 422),
    ("/plan-files", '{"tumbrel": 2}'.encode("utf-16"), "application/json", 422),
    ("/trips", b'{"name": "", "start": "2027-06-12T06:00:00"}', "application/json", 422),
    ("/bench/meter-log", json.dumps({"text": "t,W\n0,1e308\n1,1e308"}).encode(), "text/json", 422),
    ("/trip-table", b'{"text": "a; stop; 1e308"}', "application/json", 422),
]


@pytest.mark.parametrize(("path", "body", "kind", "status"), BODIES)
def test_a_body_that_is_none_is_a_problem(
    api: Api, path: str, body: bytes, kind: str, status: int
) -> None:
    answer = api.client.generic("POST", f"/api{path}", body, kind)
    assert answer.status_code == status, answer.content
    assert answer["Content-Type"] == "application/problem+json"
    if status == 413:
        assert "8 MB" in json.loads(answer.content)["detail"]


@pytest.mark.parametrize(
    "path",
    [
        "/trips/99999999999999999999",
        "/kits/-1",
        "/bin/x/1",
        "/trips/1/variants/99999999999999999999",
    ],
)
def test_an_address_that_is_none_is_a_problem(api: Api, path: str) -> None:
    answer = api.client.get(f"/api{path}")
    assert 400 <= answer.status_code < 500
    assert answer["Content-Type"] == "application/problem+json"


def test_a_refusal_lists_at_most_fifty_faults(api: Api) -> None:
    items = [{"kind": "stop"} for _ in range(300)]
    body = {"tumbrel": 2, "kit": {}, "trip": {"name": "T", "items": items}, "plan": {}}
    problem = api.post("/plan-files", body, 422)
    assert len(problem["faults"]) == 50
    assert "more are not listed" in problem["detail"]


def test_a_trip_with_a_bad_name_leaves_no_kit_behind(api: Api) -> None:
    api.post("/trips", {"name": "x" * 100, "start": "2027-06-12T06:00:00"}, 422)
    api.post("/trips", {"name": "T", "start": "2027-06-12T06:00:00", "kit_id": 77}, 404)
    assert (Kit.objects.count(), Trip.objects.count()) == (0, 0)


OUTSIDE = [
    (OperationalError("database or disk is full"), 507, "The disk is full; your edit is kept here"),
    (OSError(errno.ENOSPC, "No space left"), 507, "The disk is full; your edit is kept here"),
    (OperationalError("attempt to write a readonly database"), 507, "cannot be written to"),
    (OperationalError("database is locked"), 503, "in use just now"),
    (Busy(), 503, "Ask again"),
]


@pytest.mark.parametrize(("error", "status", "words"), OUTSIDE)
def test_what_fails_outside_is_told_as_what_it_is(
    api: Api, monkeypatch: pytest.MonkeyPatch, error: Exception, status: int, words: str
) -> None:
    def fail(*_: Any, **__: Any) -> None:
        raise error

    monkeypatch.setattr("tumbrel.kit.api.make_kit", fail)
    assert words in api.post("/kits", {"name": "K"}, status)["detail"]


def mutated(sample: bytes, dice: random.Random) -> bytes:
    """A file with some bytes changed, cut, doubled, or a number made absurd."""
    data = bytearray(sample)
    for _ in range(dice.randint(1, 6)):
        at, span = dice.randrange(len(data)), dice.randint(1, 40)
        match dice.randrange(5):
            case 0:
                data[at] = dice.randrange(256)
            case 1:
                del data[at : at + span]
            case 2:
                data[at:at] = data[at : at + span]
            case 3:
                data[at:at] = dice.choice([b"1e308", b"-1", b"null", b"\\ud800", b'"', b"[", b"0"])
            case _:
                data = data[: max(1, at)] if dice.random() < 0.1 else data
    return bytes(data)


def samples(demo_text: bytes) -> Iterator[tuple[str, str, bytes]]:
    yield "/api/plan-files", "application/json", demo_text
    for path in sorted(FILES.glob("**/*.gpx")) + sorted(FILES.glob("**/*.geojson")):
        data = path.read_bytes()[:60_000]
        yield "/api/tracks?way=foot&start=2027-06-12T08:00:00", "application/octet-stream", data
    whole = gpx(WAY, JUNE)
    yield "/api/tracks?way=foot&start=2027-06-12T08:00:00", "application/octet-stream", whole
    table = json.dumps({"text": "Hut; stop; 0:40; 4 to 6\nclimb; climb; 2:30; 6 to 11; 0.6; 50 %"})
    yield "/api/trip-table", "application/json", table.encode()
    log = "time;V;A\n" + "\n".join(f"{n};5.{n};0.{n}" for n in range(30))
    yield "/api/bench/meter-log", "application/json", json.dumps({"text": log}).encode()


@pytest.mark.django_db
def test_spoiled_files_are_opened_or_refused(
    client: Client, demo_text: bytes, request: pytest.FixtureRequest
) -> None:
    """Five hundred spoiled files (ten thousand with --long): none is a fault of ours."""
    count = 10_000 if request.config.getoption("--long") else 500
    known = list(samples(demo_text))
    dice = random.Random(13)
    for number in range(count):
        path, kind, sample = known[number % len(known)]
        data = mutated(sample, dice)
        answer = client.generic("POST", path, data, kind)
        assert answer.status_code < 500, (number, path, answer.content)
        if answer.status_code >= 400:
            assert answer["Content-Type"] == "application/problem+json"
            assert json.loads(answer.content)["detail"]


def test_a_full_disk_is_told_and_loses_nothing(api: Api, trip: dict[str, Any]) -> None:
    """SQLite may grow no page more: the save is refused as what it is, and what was kept stays."""
    named = {**trip["trip"], "name": "x" * 60}
    path, before = f"/trips/{trip['id']}", api.get(f"/trips/{trip['id']}")
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA page_count")
        cursor.execute(f"PRAGMA max_page_count = {cursor.fetchone()[0]}")
        version, problem = 1, None
        for _ in range(400):
            body = {"version": version, "trip": named, "plan": trip["plan"]}
            answer = api.client.put(f"/api{path}", json.dumps(body), "application/json")
            if answer.status_code != 200:
                problem = json.loads(answer.content)
                break
            version += 1
        cursor.execute("PRAGMA max_page_count = 1073741823")
    assert problem is not None
    assert problem["status"] == 507
    assert "The disk is full; your edit is kept here" in problem["detail"]
    kept = api.get(path)
    assert kept["version"] == version
    assert kept["trip"]["name"] == (named if version > 1 else before["trip"])["name"]
    body = {"version": version, "trip": trip["trip"], "plan": trip["plan"]}
    assert api.put(path, body)["trip"]["name"] == trip["trip"]["name"]
