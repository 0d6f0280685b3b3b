"""Track files opened by the page: read once, laid out as often as one likes."""

from __future__ import annotations

from datetime import datetime, timedelta
from hashlib import sha256
from threading import Lock
from zoneinfo import ZoneInfo

from cachetools import LRUCache
from pydantic import ValidationError

from tumbrel.core.document import BadDocument, FieldFault, Trip
from tumbrel.core.document.base import DAY_S, LONGEST_TRIP_S
from tumbrel.core.formats.tracks import read_track
from tumbrel.core.formats.tracks_out import TrackForm, write_track
from tumbrel.core.rehearsal.trip.timeline import lay_out
from tumbrel.core.route.cleaning import cleaned
from tumbrel.core.route.correcting import laid_again
from tumbrel.core.route.laying import TrackQuestion, lay_track
from tumbrel.core.route.nights import nights_from
from tumbrel.core.route.track import Track

from .files import stem_of
from .models import Trip as TripRow
from .rehearsing import told_of
from .schemas import TrackAsked, TrackRead
from .to_core import document_of, sun_days

MOST_TRACKS = 3

_lock = Lock()
_known: LRUCache[str, Track] = LRUCache(MOST_TRACKS)


def lay_file(data: bytes, asked: TrackAsked, trip: Trip | None) -> TrackRead:
    """A GPX or GeoJSON file laid out for a trip; keeps nothing. Raises BadDocument.

    The last few files stay in memory cleaned, since another pace asks for the same one again.
    """
    track = _read(data)
    try:
        return _laid(track, asked, trip)
    except ValidationError:
        why = (
            f"takes over {LONGEST_TRIP_S // DAY_S} days, by its own times or at this pace; "
            "cut it into parts, or choose a faster way of going"
        )
        raise BadDocument((FieldFault("(file)", why),)) from None


def _laid(track: Track, asked: TrackAsked, trip: Trip | None) -> TrackRead:
    question = TrackQuestion(
        way=asked.way,
        factor=asked.factor,
        start=asked.start,
        taken=() if trip is None else tuple(item.id for item in trip.items),
        taken_ways=() if trip is None else tuple(way.id for way in trip.ways),
    )
    again = None if trip is None else laid_again(trip, track, question)
    laid = lay_track(track, question)
    behind = laid.items if trip is None else nights_from(laid.items, _ends(trip))
    return TrackRead(laid=laid, behind=behind, again=again)


def _ends(trip: Trip) -> datetime:
    """When a trip ends on its local clock."""
    line = lay_out(trip, sun_days)
    at = line.start_utc + timedelta(milliseconds=line.duration_ms)
    return at.astimezone(ZoneInfo(trip.time_zone)).replace(tzinfo=None)


def _read(data: bytes) -> Track:
    key = sha256(data).hexdigest()
    with _lock:
        track = _known.get(key)
    if track is None:
        track = cleaned(read_track(data))
    with _lock:
        _known[key] = track
    return track


def track_file(row: TripRow, form: TrackForm) -> tuple[str, str]:
    """Name and text of a trip's ways as a file. Raises BadDocument when it has none."""
    document = document_of(row)
    told = told_of(document)
    return f"{stem_of(row)}.{form}", write_track(document, told, form)
