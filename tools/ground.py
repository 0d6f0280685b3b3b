"""Invented ground for the demo trips: lays a way under their legs and writes it into their files.

Run as `python -m tools.ground`; the same seed gives the same ground. Legs keep their lengths in
time and their heights; how far they go follows from what is done on them.
"""

from __future__ import annotations

import json
import math
import random
import re
from collections.abc import Callable, Iterator
from itertools import pairwise
from pathlib import Path
from typing import Any

DEMO = Path(__file__).resolve().parents[1] / "src" / "tumbrel" / "demo"
Doc = dict[str, Any]

WAYS = {
    "ostrel-crossing": ("ostrel", "Ostrel, west to east", "foot", 70.0, 900),
    "skarre-fell-run": ("skarre", "Skarre fell and the long lake", "sled", 35.0, 800),
    "halde-flat-regatta": ("halde", "Heats on Halde flat", "sail", 0.0, 900),
}
SPEED_MPS = {"climb": 0.55, "walk": 1.2, "descent": 1.0, "flight": 6.4, "sled": 3.4, "sail": 8.5}
SPEED_MPS |= {"drive": 5.0}
BUMPS = {"climb": 35.0, "walk": 28.0, "flight": 260.0, "sled": 14.0, "sail": 0.3, "drive": 0.3}
STEP_M = 25.0
MARK_M = 1400.0
M_PER_DEG = 111_195.08


def main() -> None:
    """Write all demos anew."""
    for name in WAYS:
        path = DEMO / f"{name}.json"
        document = json.loads(path.read_text("utf-8"))
        lay_ground(document, name)
        path.write_text(written(document), "utf-8")
        print(name, document["trip"]["ways"][0]["length_m"], path.stat().st_size)


def lay_ground(document: Doc, name: str) -> None:
    """A way under the legs of a demo."""
    key, title, going, mean_deg, columns = WAYS[name]
    course_deg = mean_deg
    trip = document["trip"]
    draw = random.Random(f"ground of {name}")
    points: list[tuple[float, float, float, float, float]] = []  # east, north, height, along, s
    edges: dict[str, tuple[float, float]] = {}
    east = north = along = moved = 0.0
    for leg in (item for item in trip["items"] if item["kind"] == "leg"):
        begun = along
        course_deg = mean_deg + (0.0 if leg["activity"] == "sail" else draw.uniform(-75.0, 75.0))
        for turn_deg, height, step_m, step_s in _leg(leg, draw):
            points.append((east, north, height, along, moved))
            way = math.radians(course_deg + turn_deg)
            east, north = east + step_m * math.sin(way), north + step_m * math.cos(way)
            along, moved = along + step_m, moved + step_s
        edges[leg["id"]] = (begun, along)
    points.append((east, north, points[-1][2], along, moved))
    trip["ways"] = [_way(key, title, going, trip["place"], points, columns)]
    _put_on(trip["items"], key, edges, lambda along: _spot(trip["place"], _at(points, along)))


def _leg(leg: Doc, draw: random.Random) -> Iterator[tuple[float, float, float, float]]:
    """Turn from the course [deg], height [m], step [m] and its time [s], one after the other."""
    kind = leg["activity"]
    length_m = SPEED_MPS[kind] * leg["duration_s"] * draw.uniform(0.9, 1.1)
    steps = max(8, round(length_m / STEP_M))
    low, high = leg["height_start_m"], leg["height_end_m"]
    waves = [(draw.uniform(1.5, 5.0) * n, draw.uniform(0, 2 * math.pi)) for n in (1, 2, 4)]
    bump = BUMPS[kind]
    heights = []
    for number in range(steps + 1):
        share = number / steps
        eased = share * share * (3.0 - 2.0 * share) if kind == "flight" else share
        wave = sum(math.sin(w * share * math.pi + p) / (n + 1) for n, (w, p) in enumerate(waves))
        lift = abs(wave) if kind == "flight" else wave
        heights.append(low + (high - low) * eased + bump * lift * math.sin(share * math.pi))
    slow = [1.0 + 3.0 * abs(b - a) / STEP_M for a, b in pairwise(heights)]
    each_s = leg["duration_s"] / sum(slow)
    for number in range(steps):
        yield (
            _turn(kind, number, waves, steps),
            heights[number],
            length_m / steps,
            (each_s * slow[number]),
        )


def _turn(kind: str, number: int, waves: list[tuple[float, float]], steps: int) -> float:
    if kind in ("sail", "drive"):
        return 120.0 * (number * STEP_M // MARK_M)  # round three marks, again and again
    share = number / steps
    bends = {"climb": 75.0, "flight": 55.0}.get(kind, 45.0)
    return bends * sum(math.sin(2.3 * w * share * math.pi + p) for w, p in waves) / 1.6


def _way(key: str, title: str, going: str, place: Doc, points: list[Any], columns: int) -> Doc:
    length_m = points[-1][3]
    count = min(columns, len(points))
    shown = [_at(points, length_m * n / (count - 1)) for n in range(count)]
    lat0, lon0 = place["latitude"], place["longitude"]
    rises = [b[2] - a[2] for a, b in pairwise(shown)]
    per_lon = M_PER_DEG * math.cos(math.radians(lat0))
    return {
        "id": key,
        "name": title,
        "going": going,
        "clock": "track",
        "length_m": round(length_m, 1),
        "ascent_m": round(sum(rise for rise in rises if rise > 0.0)),
        "descent_m": round(-sum(rise for rise in rises if rise < 0.0)),
        "latitude": [round(lat0 + p[1] / M_PER_DEG, 5) for p in shown],
        "longitude": [round(lon0 + p[0] / per_lon, 5) for p in shown],
        "height_m": [round(p[2]) for p in shown],
        "moved_s": [round(p[4]) for p in shown],
    }


def _at(points: list[Any], along_m: float) -> list[float]:
    """The point some metres along, between two of them."""
    place = min(len(points) - 2, max(0, round(along_m / points[-1][3] * (len(points) - 1))))
    while place > 0 and points[place][3] > along_m:
        place -= 1
    while place < len(points) - 2 and points[place + 1][3] < along_m:
        place += 1
    one, other = points[place], points[place + 1]
    part = (along_m - one[3]) / max(1e-9, other[3] - one[3])
    return [a + (b - a) * min(1.0, part) for a, b in zip(one, other, strict=True)]


def _spot(place: Doc, point: list[float]) -> Doc:
    per_lon = M_PER_DEG * math.cos(math.radians(place["latitude"]))
    return {
        "latitude": round(place["latitude"] + point[1] / M_PER_DEG, 4),
        "longitude": round(place["longitude"] + point[0] / per_lon, 4),
    }


def _put_on(
    items: list[Doc],
    key: str,
    edges: dict[str, tuple[float, float]],
    spot_at: Callable[[float], Doc],
) -> None:
    reached = 0.0
    for item in items:
        if item["kind"] == "leg":
            from_m, reached = edges[item["id"]]
            item["speed_mps"] = round((reached - from_m) / item["duration_s"], 1)
            item["timed_by"] = "track"
        else:
            from_m = reached
        item["spot"] = spot_at((from_m + reached) / 2.0)
        item["on_way"] = {"way": key, "from_m": round(from_m, 1), "to_m": round(reached, 1)}


def written(document: Doc) -> str:
    """The document as the demos are kept: columns of numbers on one line each."""
    text = json.dumps(document, ensure_ascii=False, indent=1)
    return re.sub(r"\[\s+(-?[\d.]+(?:,\s+-?[\d.]+)*)\s+\]", _on_one_line, text) + "\n"


def _on_one_line(found: re.Match[str]) -> str:
    return f"[{', '.join(found.group(1).replace(',', ' ').split())}]"


if __name__ == "__main__":
    main()
