"""What the trip leaves open."""

from __future__ import annotations

from collections.abc import Iterator

from ..wording.units import opening
from .registry import Found, Seen, check


@check("figure_mistaken", "stop")
def figure_mistaken(seen: Seen) -> Iterator[Found]:
    """A figure that only a mistake makes: nothing is played until it is mended."""
    for one in seen.record.mistakes:
        yield Found(one.path, {"why": opening(one.why)}, one.camera)


@check("place_unknown", "note")
def place_unknown(seen: Seen) -> Iterator[Found]:
    """Sun is asked on the kit, but without a place nobody knows how strong it is."""
    trip = seen.record.written.trip
    if seen.record.timeline.sun is None and any(item.sun_share > 0.0 for item in trip.items):
        yield Found("trip.place")


@check("names_alike", "warn")
def names_alike(seen: Seen) -> Iterator[Found]:
    """Two cameras of one name: nothing that is told of either can be told from the other."""
    told: set[str] = set()
    for number, camera in enumerate(seen.record.written.kit.cameras):
        name = camera.name.casefold()
        if name in told:
            yield Found(f"kit.cameras[{number}].name", {"camera": camera.name}, camera.id)
        told.add(name)


@check("nothing_asked", "note")
def nothing_asked(seen: Seen) -> Iterator[Found]:
    """A camera is carried and never used."""
    for number, run in enumerate(seen.record.cameras):
        others = any(other.spans for other in seen.record.cameras)
        if others and not run.spans:
            yield Found(f"kit.cameras[{number}]", {"camera": run.camera.name}, run.camera.id)
