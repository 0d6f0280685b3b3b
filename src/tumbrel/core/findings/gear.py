"""Things with a battery that die in use, and chains that break."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from typing import Final

from ..document import Camera
from ..gear import LOSES
from ..wording.units import clock, hours
from .registry import Found, Seen, Values, check

WORTH_MS: Final = 30_000
GOES_ON: Mapping[str, str] = {
    "bank": "The module goes on with what is in it",
    "module": "The camera goes on with its own battery, where it is in",
}


@check("gear_dies", "warn", curable=False)
def gear_dies(seen: Seen) -> Iterator[Found]:
    """Something with a battery is empty while it is wanted (model/energy#gear)."""
    trip, start = seen.record.written.trip, seen.record.timeline.start_utc
    cameras = {one.id: one.name for one in seen.record.written.kit.cameras}
    for number, one in enumerate(seen.record.gear):
        missed_ms = sum(end_ms - start_ms for start_ms, end_ms in one.missing)
        if missed_ms < WORTH_MS:
            continue
        first_ms = one.missing[0][0]
        serves = cameras.get(one.gear.serves or "", "")
        values: Values = {
            "unit": one.gear.name,
            "when": clock(trip, start, first_ms),
            "lasts": hours(round(missed_ms / 60_000)),
            "loses": LOSES[one.gear.kind],
            "of": f" with {serves}" if serves else "",
        }
        item = seen.record.timeline.laid_at(first_ms).id
        yield Found(f"kit.gear[{number}]", values, one.gear.serves, item)


@check("chain_breaks", "warn")
def chain_breaks(seen: Seen) -> Iterator[Found]:
    """A bank or module is empty while a camera is fed from it, or at the end of its chain.

    Told once a link, where it first gave out. Source: model/charging#chains.
    """
    trip, start = seen.record.written.trip, seen.record.timeline.start_utc
    sources = {one.id: one for one in seen.record.written.kit.sources}
    told: set[str] = set()
    for event in seen.record.switched:
        if event.what != "dry" or event.unit in told or event.unit not in sources:
            continue
        below = _below(seen, event.unit, event.at_ms)
        links = [event.unit, *below]
        camera = next((one for one in map(_fed_by(seen, event.at_ms), links) if one), None)
        if camera is None:
            continue
        told.add(event.unit)
        values: Values = {
            "link": sources[event.unit].name,
            "camera": camera.name,
            "when": clock(trip, start, event.at_ms),
            "onward": GOES_ON["bank" if below else "module"],
        }
        item = seen.record.timeline.laid_at(event.at_ms).id
        yield Found(f"kit.sources[{seen.source_number(event.unit)}]", values, camera.id, item)


def _hung(seen: Seen, source: str, at_ms: int) -> list[str]:
    """What hangs on the ports of a source at a time."""
    ports: dict[int, str] = {}
    for one in seen.record.hung:
        if one.source == source and one.at_ms <= at_ms:
            ports[one.port] = one.unit
    return [key for key in ports.values() if key]


def _below(seen: Seen, unit: str, at_ms: int) -> list[str]:
    """Stores that hang on a source at a time, and those that hang on them."""
    sources = {one.id for one in seen.record.written.kit.sources}
    stores = [key for key in _hung(seen, unit, at_ms) if key in sources]
    return stores + [key for store in stores for key in _below(seen, store, at_ms)]


def _fed_by(seen: Seen, at_ms: int) -> Callable[[str], Camera | None]:
    """The camera that a bank or module feeds at a time, if any."""
    cameras = seen.record.written.kit.cameras
    by_key = {one.id: one for one in cameras}
    fed = {
        cameras[one.camera].id
        for one in seen.record.outside
        if one.draw_w > 0.0 and one.start_ms <= at_ms < one.end_ms
    }

    def camera_of(source: str) -> Camera | None:
        return next((by_key[one] for one in _hung(seen, source, at_ms) if one in fed), None)

    return camera_of
