"""A made-up weather service: the same for the same place and date, with plausible seasons.

It knows nothing of any real weather, and says so in the name of its source.
"""

from __future__ import annotations

import math
from datetime import datetime, timedelta
from hashlib import sha256

from tumbrel.core.document import Place
from tumbrel.core.route.on_way import LAPSE_K_PER_M
from tumbrel.core.route.weather import Weather, WeatherHour

SOURCE = "made-up weather"
EQUATOR_C, COOLER_PER_DEG2 = 27.0, 0.0062  # yearly mean at sea level by latitude squared
SEASON_K_PER_DEG = 0.24
WARMEST_DAY, WARMEST_HOUR = 201, 15.0  # 20 July in the north, three in the afternoon by the sun
CLEAR_SWING_K, CLOUDY_SWING_K = 6.0, 2.0  # half of the day's range
FRONT_K = 4.0
FIRST_DOUBT_K, DOUBT_A_DAY_K, MOST_DOUBT_K = 1.5, 0.7, 6.0
WIND_DOUBT_MPS, CLOUD_DOUBT = 1.0, 0.1  # on the first day; they grow like the rest
DAY_S = 86_400.0


def made_up(place: Place, start: datetime, hours: int) -> Weather:
    """Weather of a place from the hour of a start on. Temperatures are of the place's height.

    Doubt grows with the days from the start, as a forecast's would.
    """
    first = start.replace(minute=0, second=0, microsecond=0)
    return Weather(
        source=SOURCE,
        height_m=place.height_m,
        hours=tuple(_hour(place, first + timedelta(hours=n), n / 24.0) for n in range(hours)),
    )


def _hour(place: Place, at: datetime, days_ahead: float) -> WeatherHour:
    day = at.timestamp() / DAY_S
    solar_h = (at.hour + at.minute / 60.0 + place.longitude / 15.0) % 24.0
    cloud = 0.5 + 0.5 * math.sin(math.pi * _waves(place, "cloud", day) / 2.0)
    swing_k = CLEAR_SWING_K + (CLOUDY_SWING_K - CLEAR_SWING_K) * cloud
    temp_c = (
        _season_c(place, at)
        + FRONT_K * _waves(place, "front", day)
        + swing_k * math.cos(2.0 * math.pi * (solar_h - WARMEST_HOUR) / 24.0)
        - LAPSE_K_PER_M * place.height_m
    )
    gusty = 0.5 + 0.5 * _waves(place, "wind", day)
    afternoon = 0.75 + 0.25 * math.cos(2.0 * math.pi * (solar_h - WARMEST_HOUR) / 24.0)
    return WeatherHour(
        at=at,
        temp_c=round(min(70.0, max(-60.0, temp_c)), 1),
        doubt_k=round(min(MOST_DOUBT_K, FIRST_DOUBT_K + DOUBT_A_DAY_K * days_ahead), 1),
        wind_mps=round(1.0 + 8.0 * gusty**2 * afternoon, 1),
        wind_doubt_mps=round(min(5.0, WIND_DOUBT_MPS * (1.0 + days_ahead / 3.0)), 1),
        cloud=round(min(1.0, max(0.0, cloud)), 2),
        cloud_doubt=round(min(0.5, CLOUD_DOUBT * (1.0 + days_ahead / 2.0)), 2),
    )


def _season_c(place: Place, at: datetime) -> float:
    """Mean of the day at sea level by latitude and season."""
    mean_c = EQUATOR_C - COOLER_PER_DEG2 * place.latitude**2
    of_year = 2.0 * math.pi * (at.timetuple().tm_yday - WARMEST_DAY) / 365.25
    return mean_c + SEASON_K_PER_DEG * place.latitude * math.cos(of_year)


def _waves(place: Place, what: str, day: float) -> float:
    """A slow change from -1 to 1 that goes by place (within half a degree) and what it is."""
    key = f"{what}:{round(place.latitude * 2)}:{round(place.longitude * 2)}"
    digest = sha256(key.encode()).digest()
    phases = [2.0 * math.pi * byte / 256.0 for byte in digest[:3]]
    slow = math.sin(2.0 * math.pi * day / 13.7 + phases[0])
    middle = math.sin(2.0 * math.pi * day / 6.1 + phases[1])
    quick = math.sin(2.0 * math.pi * day / 2.9 + phases[2])
    return (3.0 * slow + 2.0 * middle + quick) / 6.0
