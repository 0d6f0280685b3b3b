"""Weather by the hour into the air of legs and stops; the made-up service; hours from CSV."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.build import asks, document, leg, stop
from tumbrel.core.document import BadDocument, Place, Trip
from tumbrel.core.formats.weather_table import read_weather
from tumbrel.core.route.weather import Weather, WeatherHour, air_by, sky_share
from tumbrel.simulators.weather import made_up

START = datetime(2027, 6, 12, 6, 0, tzinfo=UTC)
PLACE = Place(latitude=46.0, longitude=8.0, height_m=1000.0)


def trip(*items: dict[str, Any], **more: Any) -> Trip:
    parts = items or (stop("camp", 7200), leg("way", 7200))
    return document(list(parts), [asks("cam", "way")], trip=more).trip


def weather(*temps: float, **more: Any) -> Weather:
    """Hours from the trip's start at 1000 m."""
    hours = [
        WeatherHour(at=START + timedelta(hours=n), temp_c=temp, **more)
        for n, temp in enumerate(temps)
    ]
    return Weather(source="hours", height_m=1000.0, hours=tuple(hours))


def fault(text: str) -> str:
    with pytest.raises(BadDocument) as caught:
        read_weather(text, "hours.csv", 1000.0, "Etc/GMT-2")
    return "; ".join(f"{one.path}: {one.why}" for one in caught.value.faults)


# -- into the air ----------------------------------------------------------------------------------


def test_temperatures_go_by_the_hours_between_the_ends() -> None:
    """Two hours of stop and two of leg over 4, 6, 8, 10, 12: 4 to 8, then 8 to 12."""
    camp, way = air_by(trip(), weather(4, 6, 8, 10, 12))
    assert (camp.temp_start_c, camp.temp_end_c) == (4.0, 8.0)
    assert (way.temp_start_c, way.temp_end_c) == (8.0, 12.0)
    assert camp.air_mps is None


def test_temperatures_are_carried_to_the_height_by_six_and_a_half_kelvins_a_kilometre() -> None:
    """At 2000 m 6.5 K less than at 1000 m, at 600 m 2.6 K more; without heights as it is."""
    climb = leg("way", 7200, height_start_m=600.0, height_end_m=2000.0)
    (way,) = air_by(trip(climb), weather(10, 10, 10, 10))
    assert (way.temp_start_c, way.temp_end_c) == (12.6, 3.5)
    assert air_by(trip(), weather(10, 10, 10, 10, 10))[0].temp_end_c == 10.0


def test_airflow_is_speed_and_wind_together() -> None:
    """3 m/s of speed and 4 m/s of wind from anywhere: 5 m/s."""
    ride = leg("way", 7200, speed_mps=3.0)
    (way,) = air_by(trip(ride), weather(10, 10, 10, 10, wind_mps=4.0))
    assert way.air_mps == 5.0
    flight = leg("way", 7200, air_mps=9.0)  # by its own speed, which nobody typed
    assert air_by(trip(flight), weather(10, 10, 10, 10, wind_mps=4.0))[0].air_mps is None


@pytest.mark.parametrize(("cloud", "share"), [(0.0, 1.0), (0.5, 0.929), (1.0, 0.25)])
def test_light_under_cloud_is_as_published(cloud: float, share: float) -> None:
    """Kasten and Czeplak: 1 - 0.75 n^3.4; half covered 0.929, covered 0.25."""
    assert sky_share(cloud) == pytest.approx(share, abs=1e-3)
    assert air_by(trip(), weather(9, 9, 9, 9, 9, cloud=cloud))[1].sky == round(share, 2)


def test_doubt_goes_along() -> None:
    assert {one.temp_doubt_k for one in air_by(trip(), weather(9, 9, 9, 9, 9, doubt_k=2.5))} == {
        2.5
    }


def test_weather_that_is_too_short_says_what_it_lacks() -> None:
    with pytest.raises(BadDocument, match=r"hours: says nothing of way, 2027-06-12 \d\d:\d\d UTC"):
        air_by(trip(), weather(4, 6))


def test_hours_must_follow_each_other() -> None:
    hour = WeatherHour(at=START, temp_c=3.0)
    with pytest.raises(ValueError, match="not in order"):
        Weather(source="x", height_m=0.0, hours=(hour, hour))


# -- the made-up service ---------------------------------------------------------------------------


def test_the_same_place_and_date_give_the_same_weather_wherever_one_begins() -> None:
    early, late = made_up(PLACE, START, 48), made_up(PLACE, START + timedelta(hours=10), 10)
    same = [hour for hour in early.hours if hour.at in {one.at for one in late.hours}]
    assert [(h.temp_c, h.wind_mps, h.cloud) for h in same] == [
        (h.temp_c, h.wind_mps, h.cloud) for h in late.hours
    ]
    assert made_up(PLACE, START, 48) == early
    assert "made-up" in early.source


def mean_c(latitude: float, month: int) -> float:
    """Mean over a month at sea level."""
    place = Place(latitude=latitude, longitude=8.0)
    hours = made_up(place, datetime(2027, month, 1, tzinfo=UTC), 720).hours
    return sum(hour.temp_c for hour in hours) / len(hours)


def test_seasons_are_plausible_on_both_halves_of_the_world() -> None:
    assert mean_c(46.0, 7) > mean_c(46.0, 1) + 15.0
    assert mean_c(-40.0, 1) > mean_c(-40.0, 7) + 12.0
    assert abs(mean_c(0.0, 1) - mean_c(0.0, 7)) < 3.0
    assert mean_c(0.0, 4) > mean_c(46.0, 4) > mean_c(70.0, 4)


def test_days_are_warmest_in_the_afternoon_and_mountains_are_cold() -> None:
    day = made_up(PLACE, datetime(2027, 6, 12, tzinfo=UTC), 240).hours
    by_hour = {h: [x.temp_c for x in day if x.at.hour == h] for h in (3, 14)}
    assert sum(by_hour[14]) / 10 > sum(by_hour[3]) / 10 + 3.0
    high = made_up(PLACE.model_copy(update={"height_m": 3000.0}), START, 2).hours[0]
    assert high.temp_c == pytest.approx(made_up(PLACE, START, 2).hours[0].temp_c - 13.0, abs=0.11)


@given(st.floats(-90.0, 90.0), st.floats(-180.0, 180.0), st.integers(0, 20_000))
def test_no_place_and_no_day_give_weather_that_cannot_be(lat: float, lon: float, day: int) -> None:
    start = datetime(2000, 1, 1, tzinfo=UTC) + timedelta(days=day)
    found = made_up(Place(latitude=lat, longitude=lon), start, 30).hours
    doubts = [hour.doubt_k for hour in found]
    assert doubts == sorted(doubts)
    assert all(0.0 <= hour.cloud <= 1.0 and 0.0 <= hour.wind_mps < 12.0 for hour in found)


# -- from CSV --------------------------------------------------------------------------------------


def test_hours_are_read_by_common_names_in_the_trips_zone() -> None:
    text = (
        "Time;Temperature (°C);Wind speed;Cloud cover\n"
        "2027-06-12 08:00;\u22123,5;4;80 %\n2027-06-12T07:00+00:00;-2;5;40\n"
    )
    found = read_weather(text, "hours.csv", 1800.0, "Etc/GMT-2")
    assert (found.source, found.height_m) == ("hours.csv", 1800.0)
    assert [(h.at.astimezone(UTC).hour, h.temp_c, h.wind_mps, h.cloud) for h in found.hours] == [
        (6, -3.5, 4.0, 0.8),
        (7, -2.0, 5.0, 0.4),
    ]


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("", "is empty"),
        ("time,wind\n2027-06-12 08:00,3", "line 1: lacks the column 'temp_c'"),
        ("time,temp\nnoon,3\n2027-06-12 08:00,4", "line 2: time 'noon' is not like"),
        ("time,temp\n2027-06-12 08:00,warm", "line 2: temp_c 'warm' is no number"),
        ("time,temp\n2027-06-12 08:00,", "line 2: has no temp_c"),
        ("time,temp\n2027-06-12 08:00,99", "line 2, temp_c: "),
        ("time,temp,cloud\n2027-06-12 08:00,9,400", "line 2, cloud: "),
        ("time,temp\n2027-06-12 08:00,9", "hours: "),
        ("time,temp\n2027-06-12 08:00,9\n2027-06-12 07:00,9", "not in order"),
    ],
)
def test_bad_hours_are_refused_with_their_line(text: str, why: str) -> None:
    assert why in fault(text)
