"""Tracks of invented ground as files, with the defects of real recorders, by code of its own."""

from __future__ import annotations

import math
import random
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta

M_PER_DEG = 111_195.08  # on a sphere of 6,371,008.8 m
START = datetime(2027, 6, 12, 6, 0, tzinfo=UTC)


@dataclass
class Fix:
    """One point as a recorder writes it."""

    north_m: float
    east_m: float
    height_m: float | None
    at_s: float | None


@dataclass
class Recorder:
    """Where the ground lies, and everything written so far."""

    lat: float = 46.2
    lon: float = 8.1
    fixes: list[list[Fix]] = field(default_factory=lambda: [[]])
    places: list[tuple[float, float, str]] = field(default_factory=list)

    def walk(
        self,
        length_m: float,
        ground: Callable[[float], float],
        mps: float | None,
        step_m: float = 10.0,
    ) -> None:
        """Northward over some ground, height by metres walked so far."""
        begun_m = self.fixes[-1][-1].north_m if self.fixes[-1] else 0.0
        at_s = self._clock()
        for number in range(round(length_m / step_m) + 1):
            north = begun_m + number * step_m
            time = None if mps is None else at_s + number * step_m / mps
            self.fixes[-1].append(Fix(north, 0.0, ground(north), time))

    def stand(self, seconds: float, wander_m: float = 3.0) -> None:
        """A pause with the receiver wandering about."""
        draw = random.Random(5)
        last = self.fixes[-1][-1]
        for second in range(10, round(seconds), 10):
            north = last.north_m + draw.gauss(0.0, wander_m) / 60.0
            east = last.east_m + draw.gauss(0.0, wander_m) / 60.0
            self.fixes[-1].append(Fix(north, east, last.height_m, self._at(last, second)))

    def pause(self, seconds: float) -> None:
        """The recorder is off, and begins a new segment where it stands."""
        last = self.fixes[-1][-1]
        self.fixes.append([Fix(last.north_m, last.east_m, last.height_m, self._at(last, seconds))])

    def _at(self, last: Fix, seconds: float) -> float | None:
        return None if last.at_s is None else last.at_s + seconds

    def _clock(self) -> float:
        if not self.fixes[-1]:
            return 0.0
        return self.fixes[-1][-1].at_s or 0.0

    def place(self, north_m: float, name: str, east_m: float = 20.0) -> None:
        """A waypoint beside the way."""
        self.places.append((north_m, east_m, name))

    def degrees(self, north_m: float, east_m: float) -> tuple[float, float]:
        """Latitude and longitude of metres from the start."""
        lat = self.lat + north_m / M_PER_DEG
        lon = self.lon + east_m / (M_PER_DEG * math.cos(math.radians(lat)))
        return lat, (lon + 180.0) % 360.0 - 180.0

    def gpx(self, kind: str = "trk") -> bytes:
        """The file, as a track or as a route."""
        out = ['<?xml version="1.0" encoding="UTF-8"?>']
        out.append('<gpx version="1.1" creator="a test" xmlns="http://www.topografix.com/GPX/1/1">')
        for north, east, name in self.places:
            lat, lon = self.degrees(north, east)
            out.append(f'<wpt lat="{lat:.7f}" lon="{lon:.7f}"><name>{name}</name></wpt>')
        out.append(f"<{kind}><name>Invented way</name>")
        for segment in self.fixes:
            points = self._points(segment, "trkpt" if kind == "trk" else "rtept")
            out += ["<trkseg>", *points, "</trkseg>"] if kind == "trk" else list(points)
        return "\n".join([*out, f"</{kind}>", "</gpx>"]).encode()

    def _points(self, segment: list[Fix], tag: str) -> Iterable[str]:
        for fix in segment:
            lat, lon = self.degrees(fix.north_m, fix.east_m)
            inner = "" if fix.height_m is None else f"<ele>{fix.height_m:.2f}</ele>"
            if fix.at_s is not None:
                when = START + timedelta(seconds=round(fix.at_s))
                inner += f"<time>{when:%Y-%m-%dT%H:%M:%SZ}</time>"
            yield f'<{tag} lat="{lat:.7f}" lon="{lon:.7f}">{inner}</{tag}>'


def slope_up(rise: float) -> Callable[[float], float]:
    """Even ground rising by some share."""
    return lambda metres: 1000.0 + rise * metres


def hills(height_m: float, length_m: float) -> Callable[[float], float]:
    """Waves of some height from trough to crest."""
    return lambda metres: 1500.0 - height_m / 2.0 * math.cos(2.0 * math.pi * metres / length_m)


def noisy(ground: Callable[[float], float], sigma_m: float) -> Callable[[float], float]:
    """The same, as a receiver reads it."""
    draw = random.Random(11)
    return lambda metres: ground(metres) + draw.gauss(0.0, sigma_m)


def day_out() -> Recorder:
    """Up, a rest of 25 minutes, along, a flight down; jumps, gaps and doubled points in it."""
    way = Recorder()
    way.walk(3000.0, noisy(slope_up(0.2), 1.5), 0.8)
    way.place(3000.0, "Hut Orla")
    way.stand(1500.0)
    way.walk(2000.0, noisy(lambda _m: 1600.0, 1.5), 1.3)
    way.pause(400.0)
    way.walk(9000.0, noisy(lambda m: 1600.0 - 0.1 * (m - 5000.0), 1.5), 9.0)
    draw = random.Random(2)
    first = way.fixes[0]
    for number in draw.sample(range(10, len(first) - 10), 12):
        first[number].height_m = None
    first[200] = Fix(first[200].north_m + 4000.0, 6000.0, first[200].height_m, first[200].at_s)
    first.insert(300, Fix(**vars(first[300])))
    return way


def sled_day() -> Recorder:
    """Two runs over a lake at 3.4 m/s with a fire halt between: a recorder that dies in the cold.

    It is off for 900 m and begins a new segment there; its heights are lost for a whole stretch,
    its clock jumps back twice when it starts, and it writes every seventh point twice.
    """
    way = Recorder(lat=-52.3, lon=-179.98)
    ground = noisy(lambda m: 400.0 + 60.0 * math.sin(m / 4000.0), 2.0)
    way.walk(12_000.0, ground, 3.4, step_m=25.0)
    way.place(12_000.0, "Camp by the lake")
    way.stand(1800.0)
    last = way.fixes[-1][-1]
    again_s = (last.at_s or 0.0) + 900.0 / 3.4
    north = last.north_m + 900.0
    way.fixes.append([Fix(north, 0.0, ground(north), again_s)])
    way.walk(9000.0, ground, 3.4, step_m=25.0)
    for fix in way.fixes[0][100:180]:
        fix.height_m = None
    for number in (3, 4):
        way.fixes[1][number].at_s = 12.0
    way.fixes[1] = [
        fix for n, fix in enumerate(way.fixes[1]) for _ in range(2 if n % 7 == 0 else 1)
    ]
    return way


def drawn_crossing() -> Recorder:
    """Three days drawn on a screen: no times, points 400 m apart, places named along the way.

    27 km a day: up 900 m in 9 km, along 9 km, down 900 m in 9 km; 81 km and 2700 m of ascent.
    """
    way = Recorder(lat=12.0, lon=44.5)

    def ground(metres: float) -> float:
        part = metres % 27_000.0
        return 600.0 + min(900.0, 0.1 * part, 0.1 * (27_000.0 - part))

    way.walk(81_000.0, ground, None, step_m=400.0)
    for north, name in ((26_800.0, "Hut Tern"), (40_400.0, "Lower spring"), (54_000.0, "Hut Auk")):
        way.place(north, name)
    way.place(67_600.0, "Mill, wall socket")
    return way


SAMPLES: dict[str, Callable[[], Recorder]] = {
    "hike-and-fly-day": day_out,
    "sled-run": sled_day,
    "drawn-crossing": drawn_crossing,
}
