"""The route's picture: ground and sun of each leg; tracks out again; a day's temperatures."""

from __future__ import annotations

import json
import math
from datetime import datetime
from itertools import pairwise
from xml.etree import ElementTree as ET

import pytest

from tests.build import camera, document
from tests.core.route.test_correcting import MORNING, over_a_pass, trip_of
from tests.reference.tracks import Recorder, slope_up
from tumbrel.core.document import BadDocument, Leg, Place, PlanDocument, SunEdge, Trip
from tumbrel.core.formats.tracks import read_track
from tumbrel.core.formats.tracks_out import write_track
from tumbrel.core.rehearsal.trip.timeline import lay_out, place_of
from tumbrel.core.rehearsal.trip.windows import edge_ms
from tumbrel.core.report import rehearse
from tumbrel.core.route.answer import route_told
from tumbrel.core.route.cleaning import cleaned
from tumbrel.core.route.correcting import same_way
from tumbrel.core.route.daily import DailyRange, daily_weather
from tumbrel.core.route.on_way import course_deg, place_at

PLACE = Place(latitude=46.2, longitude=8.1, height_m=1000.0)


def placed(**more: object) -> Trip:
    items = [one.model_copy(update={"sun_share": 0.5, "sky": 0.8}) for one in over_pass.items]
    return over_pass.model_copy(update={"place": PLACE, "items": tuple(items), **more})


over_pass = trip_of(over_a_pass())


# -- the picture -----------------------------------------------------------------------------------


def test_a_leg_is_told_along_its_way_in_its_own_time() -> None:
    told = route_told(placed())
    up, down = told.items
    assert (up.along_m[0], down.along_m[-1]) == (0.0, pytest.approx(over_pass.ways[0].length_m))
    assert up.along_m[-1] == down.along_m[0]
    assert up.height_m[-1] == max(up.height_m)
    middle = len(up.at_ms) // 2
    share = middle / (len(up.at_ms) - 1)
    assert up.along_m[middle] == pytest.approx(share * up.along_m[-1], rel=0.03)  # even slope
    assert up.at_ms[-1] == up.end_ms == down.start_ms


def test_the_sun_on_the_kit_is_its_share_and_on_the_level_the_skys() -> None:
    """At 06:00 UTC in June the sun is up at 46 N, 8 E; half of it strikes the kit."""
    first = route_told(placed(time_zone="UTC")).items[0]
    clear = first.kit_w_m2[0] / 0.5
    assert clear > 200.0
    assert first.level_w_m2[0] == pytest.approx(0.8 * clear, abs=0.2)


def test_the_sun_stands_to_one_side_of_the_way() -> None:
    """The way goes north; before noon the sun is in the east, to the right of it."""
    first = route_told(placed(start=MORNING.replace(hour=7), time_zone="UTC")).items[0]
    assert 60.0 < first.sun_from_deg[0] < 120.0
    late = route_told(placed(start=MORNING.replace(hour=17), time_zone="UTC")).items[0]
    assert -120.0 < late.sun_from_deg[0] < -60.0


def test_the_course_is_north_and_east_over_the_antimeridian() -> None:
    way = Recorder(lat=0.0, lon=179.99)
    for number in range(100):
        way.walk(0.0, slope_up(0.0), None)
        way.fixes[0][-1].east_m = number * 50.0
    east = trip_of(way).ways[0]
    assert course_deg(east, 2000.0) == pytest.approx(90.0, abs=0.5)
    assert course_deg(over_pass.ways[0], 2000.0) == pytest.approx(0.0, abs=0.5)
    assert abs(place_at(east, 4000.0)[1]) == pytest.approx(179.97, abs=0.01)


def test_without_place_or_way_what_is_not_known_is_empty() -> None:
    typed = Trip(name="t", start=MORNING, items=(Leg(id="a", name="a", duration_s=600),))
    told = route_told(typed)
    assert told.plans == ()
    only = told.items[0]
    assert (only.along_m, only.height_m, only.sun_deg, only.sun_from_deg) == ((), (), (), ())


def test_several_ways_share_one_plan() -> None:
    other = over_pass.ways[0].model_copy(update={"id": "more"})
    told = route_told(over_pass.model_copy(update={"ways": (over_pass.ways[0], other)}))
    one, two = told.plans
    assert one.x_m == two.x_m
    assert math.dist((one.x_m[0], one.y_m[0]), (one.x_m[-1], one.y_m[-1])) == pytest.approx(
        8000.0, rel=0.003
    )


# -- out again -------------------------------------------------------------------------------------


def on_the_pass() -> PlanDocument:
    """A camera that rolls over the pass and is started at a hut before it."""
    way = over_a_pass()
    way.place(20.0, "Hut Orla")
    trip = trip_of(way)
    hut = trip.items[0].model_copy(update={"name": "Hut & <Orla>"})
    trip = trip.model_copy(update={"items": (hut, *trip.items[1:])})
    keys = [one.id for one in trip.items if isinstance(one, Leg)]
    plan = [{"camera": "cam", "item": keys[0], "mode": "m", "set_up": "bare"}]
    bare = document([{"kind": "stop", "id": "x", "name": "x", "duration_s": 1}], [], [camera()])
    whole = {**bare.model_dump(mode="json"), "trip": trip.model_dump(mode="json")}
    return PlanDocument.model_validate({**whole, "plan": {"assignments": plan}})


def test_gpx_out_is_the_same_way_with_the_stops_work() -> None:
    plan = on_the_pass()
    text = write_track(plan, rehearse(plan), "gpx")
    again = read_track(text.encode())
    assert same_way(cleaned(again), plan.trip.ways[0])
    root = ET.fromstring(text)
    space = {"g": "http://www.topografix.com/GPX/1/1"}
    (point,) = root.findall("g:wpt", space)
    assert point.findtext("g:name", namespaces=space) == "Hut & <Orla>"
    assert point.findtext("g:desc", namespaces=space) == "08:45 Cam: roll M"
    times = [one.text or "" for one in root.iterfind(".//g:trkpt/g:time", space)]
    assert times == sorted(times)
    assert times[0] == "2027-06-12T08:45:00Z"  # after three quarters of an hour at the hut


def test_geojson_out_has_a_line_a_leg_and_a_point_a_stop() -> None:
    plan = on_the_pass()
    whole = json.loads(write_track(plan, rehearse(plan), "geojson"))
    kinds = [each["geometry"]["type"] for each in whole["features"]]
    assert kinds == ["Point", "LineString", "LineString"]
    hut, up, down = whole["features"]
    assert hut["properties"]["work"] == ["08:45 Cam: roll M"]
    assert up["geometry"]["coordinates"][-1] == down["geometry"]["coordinates"][0]
    assert len(up["geometry"]["coordinates"][0]) == 3
    assert read_track(json.dumps(whole).encode()).latitude.size > 300


def test_a_trip_without_a_way_says_what_to_do() -> None:
    bare = document([{"kind": "stop", "id": "x", "name": "x", "duration_s": 60}], [])
    with pytest.raises(BadDocument, match=r"trip\.ways: is empty: open a track under Route first"):
        write_track(bare, rehearse(bare), "gpx")


# -- a day's low and high --------------------------------------------------------------------------


def a_day(latitude: float, low: float = 4.0, high: float = 20.0) -> list[float]:
    place = Place(latitude=latitude, longitude=0.0, height_m=500.0)
    trip = Trip(name="t", start=datetime(2027, 3, 21), items=over_pass.items, ways=over_pass.ways)  # noqa: DTZ001
    days = DailyRange(low_c=low, high_c=high, doubt_k=2.0)
    return [hour.temp_c for hour in daily_weather(trip, place, days, 49).hours]


def test_a_day_by_parton_and_logan_worked_by_hand() -> None:
    """At the equator on 21 March the sun rises at 06:04 and the day lasts 12.11 h. At 12:00,
    5.94 h on: 4 + 16 sin(pi 5.94 / 15.83) = 18.8; at midnight, 5.82 of 11.89 h into the night,
    sunset's 4 + 16 sin(pi 12.11 / 15.83) = 14.8 has fallen to 4 + 10.8 (e^-1.077 - e^-2.2) /
    (1 - e^-2.2) = 6.8."""
    temps = a_day(0.0)
    assert temps[12] == pytest.approx(18.8, abs=0.15)
    assert temps[24] == pytest.approx(6.8, abs=0.1)
    assert temps.index(max(temps[:24])) == 14
    assert temps.index(min(temps[:24])) in (5, 6)
    assert max(temps) == pytest.approx(20.0, abs=0.3)
    assert min(temps) == pytest.approx(4.0, abs=0.3)


@pytest.mark.parametrize("latitude", [-66.0, -35.0, 0.0, 46.0, 69.0, 90.0])
def test_no_hour_leaves_the_days_range_and_neighbours_agree(latitude: float) -> None:
    temps = a_day(latitude)
    assert all(4.0 <= each <= 20.0 for each in temps)
    assert max(abs(a - b) for a, b in pairwise(temps)) < 4.5


def test_a_range_the_wrong_way_round_is_refused_and_its_source_is_said() -> None:
    with pytest.raises(ValueError, match="the low must not be above the high"):
        DailyRange(low_c=9.0, high_c=4.0)
    assert DailyRange(low_c=-4.5, high_c=4.0).source == "a day of -4.5 to 4 °C"


# -- each leg under its own sun --------------------------------------------------------------------


def over_15_degrees() -> Trip:
    """Two hours at 0 E, two at 15 E, on the equator at an equinox, from 16:00 UTC."""
    east = {"latitude": 0.0, "longitude": 15.02}
    here = {"latitude": 0.03, "longitude": 0.0}
    still = {"kind": "leg", "duration_s": 7200, "sun_share": 1.0}
    items = [{**still, "id": "a", "name": "a"}, {**still, "id": "b", "name": "b", "spot": east}]
    return Trip.model_validate(
        {"name": "t", "start": "2027-03-20T16:00:00", "place": here, "items": items}
    )


def test_each_leg_has_the_sun_of_its_own_place() -> None:
    """15 degrees further east the sun is an hour ahead: it sets at about 17:07 UTC, not 18:07."""
    line = lay_out(over_15_degrees())
    assert line.sun is not None
    alone = lay_out(over_15_degrees().model_copy(update={"items": over_15_degrees().items[:1]}))
    assert alone.sun is not None
    assert line.sun.height_deg[:12] == alone.sun.height_deg
    assert line.sun.height_deg[11] == pytest.approx(3.0, abs=1.5)
    assert line.sun.height_deg[12] == pytest.approx(-13.0, abs=1.5)
    kinds = [(band.kind, band.start_ms // 60_000) for band in line.light]
    assert kinds == [("day", 0), ("night", 120)]
    told = route_told(over_15_degrees())
    assert max(told.items[1].kit_w_m2) == 0.0
    assert told.items[0].kit_w_m2[0] > 300.0


def test_legs_near_each_other_share_a_table_and_a_spot_is_a_place_enough() -> None:
    trip = over_15_degrees()
    assert place_of(trip, trip.items[1]) == Place(latitude=0.0, longitude=15.0)
    placeless = trip.model_copy(update={"place": None})
    assert place_of(placeless, placeless.items[0]) is None
    line = lay_out(placeless)
    assert line.sun is not None
    with_place = lay_out(trip)
    assert with_place.sun is not None
    assert line.sun.height_deg[12:] == with_place.sun.height_deg[12:]
    assert line.sun.height_deg[0] < with_place.sun.height_deg[0] - 10.0  # that of the only spot


def test_a_window_of_the_sun_is_that_of_its_leg() -> None:
    """Sunset at 15 E is an hour before that at 0 E, to half a minute."""
    trip = over_15_degrees()
    edge = SunEdge(event="sunset")
    line, day = lay_out(trip), datetime(2027, 3, 20).date()  # noqa: DTZ001
    here, east = (edge_ms(edge, trip, line, day, place_of(trip, item)) for item in trip.items)
    assert here is not None
    assert east is not None
    assert here - east == pytest.approx(3_600_000, abs=30_000)
