"""The route as a GPX 1.1 or GeoJSON file, with what the hands do at each stop."""

from __future__ import annotations

import json
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from typing import Any, Literal
from xml.etree import ElementTree as ET

from ..card import TripCard, card_of
from ..document import BadDocument, FieldFault, Item, Leg, PlanDocument, Stop, Trip, Way
from ..rehearsal.result.result import LaidItem, Rehearsal
from ..route.on_way import at, height_at, place_at, way_of

TrackForm = Literal["gpx", "geojson"]
GPX = "http://www.topografix.com/GPX/1/1"


def write_track(document: PlanDocument, told: Rehearsal, form: TrackForm) -> str:
    """The ways of a trip as a file. Raises BadDocument when the trip has none.

    Points lie at the even steps that the trip keeps (at most a thousand a way); their times are
    the rehearsal's, rests included. Stops are waypoints; their description is the hands' work.
    """
    if not document.trip.ways:
        why = "is empty: open a track under Route first, then legs and stops lie on a way"
        raise BadDocument((FieldFault("trip.ways", why),))
    return _gpx(document, told) if form == "gpx" else _geojson(document, told)


def _gpx(document: PlanDocument, told: Rehearsal) -> str:
    trip, card = document.trip, card_of(document, told)
    root = ET.Element("gpx", {"version": "1.1", "creator": "Tumbrel", "xmlns": GPX})
    _text(ET.SubElement(root, "metadata"), "name", trip.name)
    for stop, way, metres in _stops(trip):
        point = _point(root, "wpt", way, metres)
        _text(point, "name", stop.name)
        _text(point, "desc", "; ".join(_work(card, stop)) or "no work for the hands")
    for way in trip.ways:
        track = ET.SubElement(root, "trk")
        _text(track, "name", way.name)
        segment = ET.SubElement(track, "trkseg")
        for metres, when in _timed(trip, told, way):
            point = _point(segment, "trkpt", way, metres)
            if when is not None:
                _text(point, "time", f"{when:%Y-%m-%dT%H:%M:%SZ}")
    ET.indent(root, " ")
    return ET.tostring(root, encoding="unicode", xml_declaration=True) + "\n"


def _point(parent: ET.Element, tag: str, way: Way, metres: float) -> ET.Element:
    latitude, longitude = place_at(way, metres)
    place = {"lat": f"{latitude:.6f}", "lon": f"{longitude:.6f}"}
    point = ET.SubElement(parent, tag, place)
    height = height_at(way, metres)
    if height is not None:
        _text(point, "ele", f"{height:.1f}")
    return point


def _text(parent: ET.Element, tag: str, text: str) -> None:
    ET.SubElement(parent, tag).text = "".join(each for each in text if each.isprintable())


def _geojson(document: PlanDocument, told: Rehearsal) -> str:
    features: list[dict[str, Any]] = []
    card = card_of(document, told)
    for item in document.trip.items:
        found = way_of(document.trip, item)
        if found is None:
            continue
        way, lies = found
        about = {**_about(item), **_times(_laid(told, item))}
        if isinstance(item, Stop):
            about["work"] = _work(card, item)
            features.append(_feature("Point", _position(way, lies.from_m), about))
        else:
            line = [_position(way, m) for m in _columns(way, lies.from_m, lies.to_m)]
            features.append(_feature("LineString", line, about))
    whole = {"type": "FeatureCollection", "name": document.trip.name, "features": features}
    return json.dumps(whole, ensure_ascii=False, indent=1) + "\n"


def _feature(kind: str, coordinates: list[Any], about: dict[str, Any]) -> dict[str, Any]:
    geometry = {"type": kind, "coordinates": coordinates}
    return {"type": "Feature", "properties": about, "geometry": geometry}


def _about(item: Item) -> dict[str, Any]:
    if isinstance(item, Leg):
        return {"name": item.name, "kind": "leg", "activity": item.activity, "hands": item.hands}
    return {"name": item.name, "kind": "stop"}


def _times(laid: LaidItem | None) -> dict[str, Any]:
    return {} if laid is None else {"start_ms": laid.start_ms, "end_ms": laid.end_ms}


def _position(way: Way, metres: float) -> list[float]:
    latitude, longitude = place_at(way, metres)
    height = height_at(way, metres)
    place = [round(longitude, 6), round(latitude, 6)]
    return place if height is None else [*place, height]


def _columns(way: Way, from_m: float, to_m: float) -> list[float]:
    """The ends of a stretch, and the way's own columns between them."""
    first, last = int(from_m // way.step_m) + 1, int(to_m / way.step_m)
    inside = [n * way.step_m for n in range(first, last + 1) if from_m < n * way.step_m < to_m]
    return [from_m, *inside, to_m]


def _laid(told: Rehearsal, item: Item) -> LaidItem | None:
    return next((one for one in told.items if one.id == item.id), None)


def _stops(trip: Trip) -> Iterator[tuple[Stop, Way, float]]:
    for item in trip.items:
        found = way_of(trip, item)
        if isinstance(item, Stop) and found is not None:
            yield item, found[0], found[1].from_m


def _timed(trip: Trip, told: Rehearsal, way: Way) -> Iterator[tuple[float, datetime | None]]:
    """Places along a way with the rehearsal's times; legs that do not touch are joined."""
    shown: float | None = None
    for item in trip.items:
        if item.on_way is None or item.on_way.way != way.id or not isinstance(item, Leg):
            continue
        lies, laid = item.on_way, _laid(told, item)
        low, high = at(way, way.moved_s, lies.from_m), at(way, way.moved_s, lies.to_m)
        for metres in _columns(way, lies.from_m, lies.to_m):
            if shown is not None and metres <= shown:
                continue
            shown = metres
            share = (at(way, way.moved_s, metres) - low) / (high - low) if high > low else 1.0
            when = None
            if laid is not None:
                into_ms = laid.start_ms + share * (laid.end_ms - laid.start_ms)
                when = told.start_utc.astimezone(UTC) + timedelta(milliseconds=round(into_ms))
            yield metres, when


def _work(card: TripCard, stop: Stop) -> list[str]:
    """What the hands do at a stop, in order, as the card tells it: "09:12 Chin: A3 out, A2 in"."""
    moves = next((one.moves for one in card.places if one.item == stop.id), ())
    return [f"{one.clock} {one.told}" for one in moves]
