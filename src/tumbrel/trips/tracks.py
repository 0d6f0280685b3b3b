"""Track files opened by the page: read once, laid out as often as one likes."""

from __future__ import annotations

from collections import OrderedDict
from hashlib import sha256
from threading import Lock

from tumbrel.core.formats.tracks import read_track
from tumbrel.core.route.cleaning import cleaned
from tumbrel.core.route.laying import TrackLaid, TrackQuestion, lay_track
from tumbrel.core.route.track import Track

MOST_TRACKS = 3

_lock = Lock()
_known: OrderedDict[str, Track] = OrderedDict()


def lay_file(data: bytes, question: TrackQuestion) -> TrackLaid:
    """Legs and stops of a GPX or GeoJSON file; keeps nothing. Raises BadDocument.

    The last few files stay in memory cleaned, since another pace asks for the same one again.
    """
    key = sha256(data).hexdigest()
    with _lock:
        track = _known.get(key)
    if track is None:
        track = cleaned(read_track(data))
    with _lock:
        _known[key] = track
        _known.move_to_end(key)
        while len(_known) > MOST_TRACKS:
            _known.popitem(last=False)
    return lay_track(track, question)
