"""Tracks from GPX 1.1 and GeoJSON: read as streams, within bounds, or refused with a place."""

from __future__ import annotations

import json
import math
from array import array
from collections.abc import Iterator
from datetime import datetime
from typing import Any

from ..document import BadDocument, FieldFault
from ..document.base import whole_text
from ..route.track import RawTrack, Waypoint, seconds_of

MOST_BYTES = 64_000_000
MOST_POINTS = 500_000
MOST_WAYPOINTS = 2_000
LONGEST_NAME = 60
POINTS = frozenset({"trkpt", "rtept", "wpt"})
TOLD = frozenset({"ele", "time", "name", "sym"})
NUMBERS = (str, int, float)


class _Points:
    """Points as they are read, in compact columns."""

    def __init__(self) -> None:
        self.latitude = array("d")
        self.longitude = array("d")
        self.height_m = array("d")
        self.time_s = array("d")
        self.waypoints: list[Waypoint] = []
        self.name = ""

    def add(self, what: str, latitude: object, longitude: object, height: object) -> None:
        """One point. Raises BadDocument when its place is none."""
        lat, lon = _number(latitude), _number(longitude)
        if not (abs(lat) <= 90.0 and abs(lon) <= 180.0):  # also when one is NaN
            lat, lon = place_of(f"{what} {len(self.latitude) + 1}", latitude, longitude)
        if len(self.latitude) >= MOST_POINTS:
            raise BadDocument((FieldFault("(file)", f"has over {MOST_POINTS} points"),))
        self.latitude.append(lat)
        self.longitude.append(lon)
        self.height_m.append(_number(height))
        self.time_s.append(math.nan)

    def done(self) -> RawTrack:
        """The track. Raises BadDocument when it is no way at all."""
        import numpy as np  # noqa: PLC0415 - slow to import

        if len(self.latitude) < 2:
            why = "holds no track or route of two points or more"
            raise BadDocument((FieldFault("(file)", why),))
        return RawTrack(
            name=self.name[:LONGEST_NAME],
            latitude=np.array(self.latitude),
            longitude=np.array(self.longitude),
            height_m=np.array(self.height_m),
            time_s=np.array(self.time_s),
            waypoints=tuple(self.waypoints),
        )


EARLIEST_S = 631_152_000.0  # 1990-01-01 UTC


def place_of(where: str, latitude: object, longitude: object) -> tuple[float, float]:
    """Degrees of a place. Raises BadDocument on what is none, or looks swapped."""
    lat, lon = _number(latitude), _number(longitude)
    if not (math.isfinite(lat) and math.isfinite(lon)):
        why = f"has no place: latitude '{latitude}', longitude '{longitude}'"
        raise BadDocument((FieldFault(where, why),))
    if abs(lat) > 90.0 and abs(lon) <= 90.0:
        why = f"lies at latitude {lat:g}: are latitude and longitude swapped?"
        raise BadDocument((FieldFault(where, why),))
    if abs(lat) > 90.0 or abs(lon) > 360.0:
        raise BadDocument((FieldFault(where, f"lies outside the world: {lat:g}, {lon:g}"),))
    return lat, (lon + 180.0) % 360.0 - 180.0


def read_track(data: bytes) -> RawTrack:
    """A GPX 1.1 or GeoJSON file. Raises BadDocument with the place of the fault.

    Of a GPX file all tracks count, its routes only when it has no track.
    """
    if len(data) > MOST_BYTES:
        why = f"is larger than {MOST_BYTES // 1_000_000} MB: thin it out or cut it first"
        raise BadDocument((FieldFault("(file)", why),))
    start = data.lstrip(b"\xef\xbb\xbf \t\r\n")[:1]
    if start == b"<":
        return _read_gpx(data)
    if start == b"{":
        return _read_geojson(data)
    raise BadDocument((FieldFault("(file)", "is neither GPX nor GeoJSON"),))


def _read_gpx(data: bytes) -> RawTrack:
    """A GPX file through expat itself: the classes on top of it take as long again."""
    from xml.parsers import expat  # noqa: PLC0415 - no document type, so no entities, passes

    reader = _GpxReader()
    parser = expat.ParserCreate(namespace_separator="}")
    parser.buffer_text = True
    parser.StartDoctypeDeclHandler = _refuse_document_type
    parser.StartElementHandler = reader.start
    parser.EndElementHandler = reader.end
    parser.CharacterDataHandler = reader.data
    try:
        parser.Parse(data, True)  # noqa: FBT003 - expat takes it by place
    except expat.ExpatError as error:
        where = f"line {error.lineno}, column {error.offset + 1}"
        raise BadDocument((FieldFault(where, "is no well-formed XML from here on"),)) from None
    except (LookupError, ValueError):  # of encodings that the parser does not know, or half knows
        why = "names an encoding that cannot be read; save it as UTF-8"
        raise BadDocument((FieldFault("(file)", why),)) from None
    return reader.track().done()


def _refuse_document_type(*_told: object) -> None:
    why = "declares entities or a document type, which a track has no need of"
    raise BadDocument((FieldFault("(file)", why),))


class _GpxReader:
    """Takes a GPX file's elements as the parser meets them; nothing of the tree is kept."""

    def __init__(self) -> None:
        self.tracks = _Points()
        self.routes = _Points()
        self.waypoints: list[Waypoint] = []
        self._inside: list[str] = []
        self._names: dict[str, str] = {}  # a tag without its namespace
        self._at: dict[str, str] = {}
        self._told: dict[str, str] = {}
        self._text = ""

    def start(self, tag: str, attributes: dict[str, str]) -> None:
        """An element begins. Raises BadDocument when the first is no <gpx>."""
        name = self._names.get(tag)
        if name is None:
            name = self._names[tag] = tag.rpartition("}")[2]
        if not self._inside and name != "gpx":
            why = f"begins with <{name[:40]}>: a GPX file begins with <gpx>"
            raise BadDocument((FieldFault("(file)", why),))
        self._inside.append(name)
        self._text = ""
        if name in POINTS:
            self._at, self._told = attributes, {}

    def data(self, text: str) -> None:
        """Some text of the innermost element."""
        self._text += text

    def end(self, _tag: str) -> None:
        """An element ends. Raises BadDocument when a point is none."""
        name = self._inside.pop()
        parent = self._inside[-1] if self._inside else ""
        if name in TOLD and parent in POINTS:
            self._told[name] = self._text.strip()
        elif name == "trkpt":
            self._point(self.tracks, name)
        elif name == "rtept":
            self._point(self.routes, name)
        elif name == "wpt" and len(self.waypoints) < MOST_WAYPOINTS:
            where = f"wpt {len(self.waypoints) + 1}"
            lat, lon = place_of(where, self._at.get("lat"), self._at.get("lon"))
            called = self._told.get("name") or self._told.get("sym") or "place"
            self.waypoints.append(Waypoint(lat, lon, called[:LONGEST_NAME]))
        elif name == "name" and parent in ("trk", "rte"):
            points = self.tracks if parent == "trk" else self.routes
            points.name = points.name or self._text.strip()

    def track(self) -> _Points:
        """All tracks; the routes only when there is no track."""
        chosen = self.tracks if len(self.tracks.latitude) > 1 else self.routes
        chosen.waypoints = self.waypoints
        return chosen

    def _point(self, points: _Points, what: str) -> None:
        points.add(what, self._at.get("lat"), self._at.get("lon"), self._told.get("ele"))
        time = self._told.get("time")
        if time:
            try:
                at_s = seconds_of(datetime.fromisoformat(time))
                # a receiver without a fix counts from its own epoch: that is no time
                points.time_s[-1] = at_s if at_s > EARLIEST_S else math.nan
            except ValueError:
                where, why = (
                    f"{what} {len(points.latitude)}",
                    f"has the time '{time[:40]}', no time",
                )
                raise BadDocument((FieldFault(where, why),)) from None


def _number(text: object) -> float:
    """A number, or NaN for what is none."""
    if isinstance(text, bool) or not isinstance(text, NUMBERS):
        return math.nan
    try:
        value = float(text)
    except (ValueError, OverflowError):
        return math.nan
    return value if math.isfinite(value) else math.nan


def _read_geojson(data: bytes) -> RawTrack:
    """LineString and MultiLineString geometries, and named points as waypoints (RFC 7946)."""
    try:
        found = json.loads(data)
    except (ValueError, RecursionError) as error:
        why = f"is no JSON: {str(error)[:80]}"
        raise BadDocument((FieldFault("(file)", why),)) from None
    points = _Points()
    for name, geometry in _geometries(found):
        kind, rows = geometry.get("type"), geometry.get("coordinates")
        if kind == "Point" and isinstance(rows, list) and len(rows) > 1:
            lat, lon = place_of(f"point '{name}'", rows[1], rows[0])
            points.waypoints.append(Waypoint(lat, lon, name or "place"))
        elif kind in ("LineString", "MultiLineString") and isinstance(rows, list):
            points.name = points.name or name
            for line in rows if kind == "MultiLineString" else [rows]:
                _take_line(points, line)
    return points.done()


def _take_line(points: _Points, line: object) -> None:
    for row in line if isinstance(line, list) else ():
        if not isinstance(row, list) or len(row) < 2:
            where = f"position {len(points.latitude) + 1}"
            raise BadDocument((FieldFault(where, "is no pair of longitude and latitude"),))
        points.add("position", row[1], row[0], row[2] if len(row) > 2 else None)


def _geometries(found: Any) -> Iterator[tuple[str, dict[str, Any]]]:
    """Every geometry with the name of its feature."""
    if not isinstance(found, dict):
        return
    if found.get("type") == "FeatureCollection":
        features = found.get("features")
        for feature in features if isinstance(features, list) else ():
            yield from _geometries(feature)
    elif found.get("type") == "Feature":
        properties = found.get("properties")
        name = properties.get("name") if isinstance(properties, dict) else None
        geometry = found.get("geometry")
        if isinstance(geometry, dict):
            yield whole_text(str(name or ""))[:LONGEST_NAME], geometry
    else:
        yield "", found
