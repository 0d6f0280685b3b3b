"""Tracks read, mended, smoothed, cut and timed; hostile files refused with their place."""

from __future__ import annotations

import json
import math
from datetime import datetime
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.reference.tracks import (
    Recorder,
    day_out,
    drawn_crossing,
    hills,
    noisy,
    sled_day,
    slope_up,
)
from tumbrel.core.document import BadDocument, Leg, Stop
from tumbrel.core.formats.tracks import read_track
from tumbrel.core.route.cleaning import cleaned
from tumbrel.core.route.ground import EARTH_M, apart_m, plan_of
from tumbrel.core.route.laying import TrackLaid, TrackQuestion, lay_track, offer_of
from tumbrel.core.route.pace import speed_mps
from tumbrel.core.route.profile import profile_of, turns

MORNING = datetime(2027, 6, 12, 8, 0)  # noqa: DTZ001 - a local clock


def laid(data: bytes, **more: Any) -> TrackLaid:
    return lay_track(cleaned(read_track(data)), TrackQuestion(start=MORNING, **more))


def fault(data: bytes) -> str:
    with pytest.raises(BadDocument) as caught:
        laid(data)
    return str(caught.value)


def gpx(body: str) -> bytes:
    head = '<gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1">'
    return f"{head}<trk><trkseg>{body}</trkseg></trk></gpx>".encode()


def kinds(found: TrackLaid) -> list[str]:
    return [one.activity if isinstance(one, Leg) else one.name for one in found.items]


# -- ground ----------------------------------------------------------------------------------------


def test_distances_on_a_sphere_by_hand() -> None:
    """A degree of latitude is pi R / 180; one of longitude at 60 degrees half of that."""
    degree_m = math.pi * EARTH_M / 180.0
    one = np.array([0.0])
    assert apart_m(one, one, one + 1.0, one) == pytest.approx(degree_m)
    assert apart_m(one + 60.0, one, one + 60.0, one + 1.0) == pytest.approx(degree_m / 2, rel=1e-4)
    assert apart_m(one + 90.0, one, one + 90.0, one + 123.0) == pytest.approx(0.0, abs=1e-6)


@given(st.floats(-89.0, 89.0), st.floats(-180.0, 180.0))
def test_the_plan_keeps_short_distances_anywhere(lat: float, lon: float) -> None:
    """Four points within a kilometre, also across the antimeridian and near the poles."""
    lats = np.array([lat, lat + 0.004, lat, lat - 0.003])
    lons = (np.array([lon, lon, lon + 0.004, lon]) + 180.0) % 360.0 - 180.0
    x, y = plan_of(lats, lons)
    flat = np.hypot(np.diff(x), np.diff(y))
    assert flat == pytest.approx(
        apart_m(lats[:-1], lons[:-1], lats[1:], lons[1:]), rel=1e-4, abs=0.01
    )


def test_ascent_is_the_known_total_with_and_without_noise() -> None:
    """Ten hills of 120 m: 1200 m up and down; a receiver's noise of 2 m adds no more than 3 %."""
    for ground in (hills(120.0, 2000.0), noisy(hills(120.0, 2000.0), 2.0)):
        way = Recorder()
        way.walk(20_000.0, ground, None)
        profile = profile_of(cleaned(read_track(way.gpx())))
        assert profile.ascent_m == pytest.approx(1200.0, rel=0.03)
        assert profile.descent_m == pytest.approx(1200.0, rel=0.03)


def test_noise_on_flat_ground_is_no_ascent_and_a_spike_no_hill() -> None:
    way = Recorder()
    way.walk(8000.0, noisy(lambda _m: 900.0, 1.5), None)
    way.fixes[0][400].height_m = 1400.0
    profile = profile_of(cleaned(read_track(way.gpx())))
    assert profile.ascent_m < 12.0
    assert float(np.max(profile.height_m)) < 925.0


@given(st.lists(st.floats(0.0, 3000.0), min_size=2, max_size=60))
def test_ascent_less_descent_is_what_lies_between_the_ends(heights: list[float]) -> None:
    """Up to the two waves at the ends that are too small to count."""
    up, down = turns(np.array(heights))
    assert up - down == pytest.approx(heights[-1] - heights[0], abs=10.0)
    assert min(up, down) >= 0.0


def test_the_pace_on_foot_is_toblers_and_near_naismiths() -> None:
    """6 exp(-3.5 x 0.05) = 5.04 km/h on the flat, 6 km/h at 5 % down; Naismith's 5 km/h and 600 m
    an hour give 10 % up 3.33 km/h more slowly than 20 % by the same rule."""
    kmh = speed_mps("foot", np.array([0.0, -0.05, 0.1, 0.2]), 1.0) * 3.6
    assert kmh[0] == pytest.approx(5.0367, abs=1e-3)
    assert kmh[1] == pytest.approx(6.0)
    naismith = [1.0 / (1.0 / 5.0 + slope / 0.6) for slope in (0.1, 0.2)]
    assert kmh[2:] == pytest.approx(naismith, rel=0.35)
    assert speed_mps("ride", np.array([0.0]), 1.5) == pytest.approx(7.5)


# -- from a file to legs ---------------------------------------------------------------------------


def test_a_day_with_the_defects_of_a_recorder() -> None:
    """3 km up at 0.8 m/s (62 min), a rest of 25, 2 km along (26 min), 9 km in the air (17 min)."""
    found = laid(day_out().gpx())
    assert kinds(found) == ["climb", "Hut Orla", "walk", "flight"]
    climb, hut, walk, flight = found.items
    assert isinstance(climb, Leg)
    assert isinstance(flight, Leg)
    assert climb.duration_s == pytest.approx(3750, rel=0.06)
    assert hut.duration_s == pytest.approx(1500, rel=0.05)
    assert walk.duration_s == pytest.approx(1540 + 400, rel=0.15)  # a pause too short for a stop
    assert flight.duration_s == pytest.approx(1000, rel=0.12)
    assert (flight.hands, climb.hands) == ("never", "stops")
    assert (climb.height_start_m, climb.height_end_m) == (
        pytest.approx(1000, abs=8),
        pytest.approx(1600, abs=12),
    )
    assert found.way.length_m == pytest.approx(14_000.0, rel=0.01)
    assert found.way.ascent_m == pytest.approx(600.0, rel=0.04)
    notes = " ".join(found.notes)
    for words in ("doubled", "1 lone point far off", "missing heights filled in"):
        assert words in notes
    total = sum(one.duration_s for one in found.items)
    assert total == pytest.approx(3750 + 1500 + 1540 + 400 + 1000, rel=0.01)  # no minute is lost


def test_a_recorder_that_dies_in_the_cold_over_the_antimeridian() -> None:
    """12 km and 9.9 km at 3.4 m/s: 58.8 and 48.5 min, half an hour at the fire between."""
    found = laid(sled_day().gpx(), way="sled")
    assert kinds(found) == ["sled", "Camp by the lake", "sled"]
    first, camp, second = found.items
    assert first.duration_s == pytest.approx(12_000.0 / 3.4, rel=0.02)
    assert camp.duration_s == pytest.approx(1800, rel=0.03)
    assert second.duration_s == pytest.approx(9900.0 / 3.4, rel=0.03)
    assert found.way.length_m == pytest.approx(21_900.0, rel=0.01)
    assert max(found.way.height_m) == pytest.approx(460.0, abs=6.0)
    assert min(found.way.longitude) == pytest.approx(-179.98, abs=0.01)
    notes = " ".join(found.notes)
    for words in ("doubled", "80 missing heights filled in", "went backwards mended"):
        assert words in notes


def test_a_way_drawn_on_a_screen_is_three_days_with_nights_at_huts() -> None:
    found = laid(drawn_crossing().gpx())
    assert found.way.ascent_m == pytest.approx(2700.0, rel=0.02)
    assert found.way.descent_m == pytest.approx(2700.0, rel=0.02)
    nights = [one.name for one in found.items if isinstance(one, Stop) and one.asleep]
    assert nights == ["Hut Tern", "Hut Auk"]
    mill = next(one for one in found.items if one.name == "Mill, wall socket")
    assert isinstance(mill, Stop)
    assert mill.socket is not None
    legs = [one.activity for one in found.items if isinstance(one, Leg)]
    assert legs[:3] == ["climb", "walk", "descent"]
    covered = [one.on_way for one in found.items if isinstance(one, Leg) and one.on_way]
    assert sum(one.to_m - one.from_m for one in covered) == pytest.approx(81_000.0, rel=0.005)


def test_without_times_a_pace_and_nights_at_huts_are_laid_out() -> None:
    """40 km on the flat at 5.04 km/h: nearly eight hours a day; the hut at 30 km ends the first."""
    way = Recorder()
    way.walk(60_000.0, slope_up(0.0), None, step_m=50.0)
    way.place(30_000.0, "Hut Orla")
    way.place(32_000.0, "Sel spring")
    way.place(35_000.0, "look-out")
    way.place(50_000.0, "wall socket", east_m=5000.0)
    found = laid(way.gpx())
    assert kinds(found) == ["walk", "Hut Orla", "walk", "Sel spring", "walk"]
    hut = found.items[1]
    assert isinstance(hut, Stop)
    assert hut.asleep is not None
    arrives_s = 30.0 / 5.0367 * 3600.0
    assert found.items[0].duration_s == pytest.approx(arrives_s, rel=0.005)
    assert found.items[0].duration_s + hut.duration_s == 24 * 3600  # away at eight again
    assert found.way.clock == "pace"
    assert laid(way.gpx(), factor=1.25).items[0].duration_s == pytest.approx(
        arrives_s / 1.25, rel=0.005
    )


def test_where_no_hut_is_in_reach_the_night_is_in_the_open() -> None:
    way = Recorder()
    way.walk(60_000.0, slope_up(0.0), None, step_m=50.0)
    found = laid(way.gpx())
    assert kinds(found) == ["walk", "bivouac", "walk"]
    assert found.items[0].duration_s == pytest.approx(9 * 3600, rel=0.005)


def test_another_way_of_going_keeps_its_activity_on_every_slope() -> None:
    way = Recorder()
    way.walk(6000.0, slope_up(0.1), None)
    found = laid(way.gpx(), way="sled")
    assert kinds(found) == ["sled"]
    leg = found.items[0]
    assert isinstance(leg, Leg)
    assert leg.speed_mps == pytest.approx(3.3 * 0.5, abs=0.1)


def test_a_route_counts_where_there_is_no_track_and_geojson_is_the_same_way() -> None:
    way = Recorder()
    way.walk(5000.0, slope_up(0.15), None, step_m=100.0)
    route = laid(way.gpx("rte"))
    assert route.way.length_m == pytest.approx(5000.0, rel=0.002)
    rows = [[*reversed(way.degrees(f.north_m, 0.0)), f.height_m] for f in way.fixes[0]]
    line = {"type": "LineString", "coordinates": rows}
    feature = {"type": "Feature", "properties": {"name": "Drawn"}, "geometry": line}
    drawn = laid(json.dumps({"type": "FeatureCollection", "features": [feature]}).encode())
    assert drawn.name == "Drawn"
    assert [one.duration_s for one in drawn.items] == [one.duration_s for one in route.items]


def test_keys_that_are_taken_are_not_used_again() -> None:
    found = laid(day_out().gpx(), taken=("climb-1", "hut-orla"))
    assert [one.id for one in found.items][:2] == ["climb-2", "hut-orla-2"]


@pytest.mark.parametrize(
    ("name", "offer"),
    [
        ("Hut Orla", "hut"),
        ("Stone CAMP", "camp"),
        ("Sel spring", "water"),
        ("wall socket, pub", "socket"),
    ],
)
def test_places_offer_what_their_name_says(name: str, offer: str) -> None:
    assert offer_of(name) == offer
    assert offer_of("Col launch") is None
    assert offer_of("Hutten pass") is None


def test_over_the_antimeridian_and_near_the_pole() -> None:
    for lat, lon in ((0.0, 179.99), (89.9, 0.0), (-89.95, 10.0)):
        way = Recorder(lat=lat, lon=lon)
        for number in range(60):
            way.walk(0.0, slope_up(0.0), None)
            way.fixes[0][-1].east_m = number * 50.0
        found = laid(way.gpx())
        assert found.way.length_m == pytest.approx(59 * 50.0, rel=0.01)
        plan = plan_of(np.array(found.way.latitude), np.array(found.way.longitude))
        assert np.max(np.abs(plan)) < 3000.0


# -- hostile and broken files ----------------------------------------------------------------------

POINT = '<trkpt lat="46" lon="8"/>'


@pytest.mark.parametrize(
    ("data", "why"),
    [
        (b"", "is neither GPX nor GeoJSON"),
        (b"\x89PNG....", "is neither GPX nor GeoJSON"),
        (b"<kml></kml>", "begins with <kml>"),
        (gpx(""), "holds no track or route of two points"),
        (gpx(POINT), "holds no track or route of two points"),
        (gpx(POINT * 30), "stays in one place"),
        (
            gpx(POINT + '<trkpt lat="8" lon="x"/>'),
            "trkpt 2: has no place: latitude '8'",
        ),
        (gpx(POINT + '<trkpt lat="nan" lon="8"/>'), "trkpt 2: has no place"),
        (gpx(POINT + '<trkpt lon="8"/>'), "trkpt 2: has no place"),
        (gpx('<trkpt lat="120" lon="46"/>'), "are latitude and longitude swapped?"),
        (gpx('<trkpt lat="95" lon="400"/>'), "lies outside the world"),
        (gpx(POINT + '<trkpt lat="8" lon="8"><time>noon</time></trkpt>'), "has the time 'noon'"),
        (gpx(POINT)[:-20], "is no well-formed XML from here on"),
        (
            b'<!DOCTYPE gpx [<!ENTITY a "aa">]><gpx>&a;</gpx>',
            "declares entities or a document type",
        ),
        (b"{not json", "is no JSON"),
        (b'{"a":' * 3000 + b"1" + b"}" * 3000, "(file)"),
        (b'{"type":"LineString","coordinates":[[8,46],[9]]}', "position 2: is no pair"),
        (b'{"type":"LineString","coordinates":[[8,46],[200,120]]}', "position 2: lies"),
        (b" " * 70_000_000, "is larger than 64 MB"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_a_bad_file_is_refused_with_its_place(data: bytes, why: str) -> None:
    assert why in fault(data)


def test_a_clock_that_goes_back_now_and_then_is_mended_and_one_that_raves_is_not_believed() -> None:
    way = Recorder()
    way.walk(4000.0, slope_up(0.0), 1.0)
    for number in (50, 200):
        way.fixes[0][number].at_s = 3.0
    found = laid(way.gpx())
    assert "2 times that went backwards mended" in found.notes
    assert sum(one.duration_s for one in found.items) == pytest.approx(4000, rel=0.01)
    for number in range(0, 400, 4):
        way.fixes[0][number].at_s = 3.0
    found = laid(way.gpx())
    assert found.way.clock == "pace"
    assert any("the clock is not believed" in note for note in found.notes)


def test_heights_may_be_missing_everywhere() -> None:
    way = Recorder()
    way.walk(4000.0, slope_up(0.2), None)
    for fix in way.fixes[0]:
        fix.height_m = None
    found = laid(way.gpx())
    assert kinds(found) == ["walk"]
    assert "no heights: slopes are not known" in found.notes
