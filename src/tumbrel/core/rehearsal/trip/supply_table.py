"""What a source can give through the trip, as steps of constant watts.

Source: model/time#steps, model/sources#gives.
"""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass

from ...charging import NEVER_MS, dynamo_w, panel_w
from ...document import Bank, Dynamo, Leg, Mains, Module, Panel, Source, Stop, Trip, Vehicle
from ...light import STEP_MS, tilted_w_m2
from ...parameters import Defaults
from ...shared import Shared
from .timeline import Laid, Timeline, place_of


@dataclass(frozen=True, slots=True)
class SupplyTable(Shared):
    """Watts from each of some times on."""

    starts_ms: tuple[int, ...]
    watts: tuple[float, ...]

    def at(self, at_ms: int) -> float:
        """Watts at a time."""
        return self.watts[bisect_right(self.starts_ms, at_ms) - 1]

    def next_change(self, at_ms: int) -> int:
        """When the watts change next; NEVER_MS when they do not."""
        place = bisect_right(self.starts_ms, at_ms)
        return self.starts_ms[place] if place < len(self.starts_ms) else NEVER_MS

    def begins(self) -> list[int]:
        """When it begins to give [ms]."""
        pairs = zip(self.watts, self.watts[1:], self.starts_ms[1:], strict=False)
        return [at_ms for before, after, at_ms in pairs if before <= 0.0 < after]

    def ever(self, from_ms: int, to_ms: int) -> bool:
        """Whether it gives anything between two times."""
        first = max(0, bisect_right(self.starts_ms, from_ms) - 1)
        last = bisect_right(self.starts_ms, max(from_ms, to_ms - 1))
        return any(watts > 0.0 for watts in self.watts[first:last])


def supply_table(source: Source, trip: Trip, timeline: Timeline, defaults: Defaults) -> SupplyTable:
    """A source's table; a bank may give its total as long as it holds anything."""
    if isinstance(source, Bank | Module):
        return SupplyTable((0,), (source.total_w or sum(source.ports, 0.0),))
    rows: list[tuple[int, float]] = []
    for part in timeline.laid:
        rows += _of_part(source, part, trip, timeline, defaults)
    starts, watts = [0], [0.0]
    for at_ms, value in rows:
        if at_ms == starts[-1]:
            watts[-1] = value
        elif value != watts[-1]:
            starts.append(at_ms)
            watts.append(value)
    return SupplyTable(tuple(starts), tuple(watts))


def _of_part(
    source: Mains | Vehicle | Dynamo | Panel,
    part: Laid,
    trip: Trip,
    timeline: Timeline,
    defaults: Defaults,
) -> list[tuple[int, float]]:
    item = part.item
    if isinstance(source, Mains):
        return _socket(source, part)
    if isinstance(source, Vehicle):
        runs = isinstance(item, Leg) and item.vehicle_runs
        most = source.total_w or sum(source.ports, 0.0)
        return [(part.start_ms, most if runs else 0.0)]
    if isinstance(source, Dynamo):
        speed = item.speed_mps if isinstance(item, Leg) else 0.0
        return [(part.start_ms, dynamo_w(source.rated_w, speed, defaults))]
    return _panel(source, part, trip, timeline, defaults)


def _socket(source: Mains, part: Laid) -> list[tuple[int, float]]:
    item = part.item
    if not isinstance(item, Stop) or item.socket is None:
        return [(part.start_ms, 0.0)]
    socket = item.socket
    from_ms = min(part.end_ms, part.start_ms + socket.start_s * 1000)
    until_ms = part.end_ms
    if socket.duration_s is not None:
        until_ms = min(until_ms, from_ms + socket.duration_s * 1000)
    most = min(socket.watts, source.total_w or sum(source.ports, 0.0))
    return [(part.start_ms, 0.0), (from_ms, most), (until_ms, 0.0)]


def _panel(
    source: Panel, part: Laid, trip: Trip, timeline: Timeline, defaults: Defaults
) -> list[tuple[int, float]]:
    item, sun, place = part.item, timeline.sun, place_of(trip, part.item)
    out = source.out_at == "always" or source.out_at == part.kind + "s"
    if item is None or sun is None or place is None or not out:
        return [(part.start_ms, 0.0)]
    first = (part.start_ms + timeline.into_ms) // STEP_MS
    last = (part.end_ms - 1 + timeline.into_ms) // STEP_MS
    light = sun.irradiance_w_m2[first : last + 1]
    if source.tilt_deg > 0.0:
        epoch = round(timeline.start_utc.timestamp() * 1000) // STEP_MS
        where = (place.latitude, place.longitude, place.height_m)
        light = tilted_w_m2(*where, epoch + first, len(light), source.tilt_deg, source.azimuth_deg)
    laid = part.kind == "stop" or source.on_legs == "laid"
    share = defaults.panel_share if laid else defaults.panel_carried_share
    rows = []
    at_ms = part.start_ms
    while at_ms < part.end_ms:
        step = (at_ms + timeline.into_ms) // STEP_MS
        rows.append((at_ms, panel_w(source.rated_w, light[step - first], item.sky, share.value)))
        at_ms = (step + 1) * STEP_MS - timeline.into_ms
    return rows
