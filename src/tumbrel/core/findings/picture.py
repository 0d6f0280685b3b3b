"""Frame rate, light, sound, filters and the computer at home (model/results#findings)."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final

from ..exposure import nearest_filter
from ..picture import (
    dark_share,
    filmed_at,
    lens_of,
    light_on,
    over_editing,
    preset_of,
    wanted_stops,
)
from .registry import Found, Seen, Values, check

SLOW_MOTION: Final = 2.0
DARK_SHARE: Final = 0.5
BRIGHT_DEG: Final = 30.0


@check("slower_than_delivery", "warn", curable=True)
def slower_than_delivery(seen: Seen) -> Iterator[Found]:
    """Fewer frames a second than the film will have."""
    wanted = seen.record.written.plan.delivery_fps
    said: set[tuple[str, str]] = set()
    for number, assignment, camera, mode in seen.filmed:
        if mode.fps < wanted - 0.01 * wanted and (camera.id, mode.id) not in said:
            said.add((camera.id, mode.id))
            values: Values = {
                "camera": camera.name,
                "mode": mode.name,
                "fps": mode.fps,
                "film": wanted,
            }
            yield Found(f"plan.assignments[{number}].mode", values, camera.id, assignment.item)


@check("no_sound_in_slow_motion", "note")
def no_sound_in_slow_motion(seen: Seen) -> Iterator[Found]:
    """A mode without sound, or one that its preset shows slowed."""
    said: set[tuple[str, str]] = set()
    for number, assignment, camera, mode in seen.filmed:
        preset = preset_of(camera, assignment)
        slow = 1.0 if preset is None or preset.slowing is None else preset.slowing
        if (not mode.sound or slow >= SLOW_MOTION) and (camera.id, mode.id) not in said:
            said.add((camera.id, mode.id))
            values: Values = {"camera": camera.name, "mode": mode.name, "slow": round(slow, 1)}
            yield Found(f"plan.assignments[{number}].mode", values, camera.id, assignment.item)


@check("dark_for_frame_rate", "warn", curable=True)
def dark_for_frame_rate(seen: Seen) -> Iterator[Found]:
    """Most of a leg is too dark for a mode's shutter at the most gain."""
    line = seen.record.timeline
    for number, assignment, camera, mode in seen.filmed:
        item = line.by_id[assignment.item].item
        spans = filmed_at(seen.record.written.trip, line, assignment)
        light = None if item is None else light_on(line, item, spans)
        if item is None or light is None or "light" in assignment.features:
            continue
        lens = lens_of(camera, mode, preset_of(camera, assignment), seen.defaults)
        if dark_share(line, item, lens, spans) <= DARK_SHARE:
            continue
        values: Values = {
            "camera": camera.name,
            "mode": mode.name,
            "leg": item.name,
            "shutter": round(1.0 / lens.longest_s),
            "iso": round(lens.most_iso),
        }
        yield Found(f"plan.assignments[{number}].mode", values, camera.id, item.id)


@check("filter_for_half_interval", "note", curable=True)
def filter_for_half_interval(seen: Seen) -> Iterator[Found]:
    """In bright light the shutter wants a neutral density filter that is not fitted."""
    line = seen.record.timeline
    said: set[str] = set()
    for number, assignment, camera, mode in seen.filmed:
        item = line.by_id[assignment.item].item
        spans = filmed_at(seen.record.written.trip, line, assignment)
        light = None if item is None or camera.id in said else light_on(line, item, spans)
        if item is None or light is None or light.high_deg < BRIGHT_DEG:
            continue
        lens = lens_of(camera, mode, preset_of(camera, assignment), seen.defaults)
        wanted = wanted_stops(light, lens)
        fits = nearest_filter(wanted - lens.fitted_stops)
        said.add(camera.id)
        if fits >= 1 and nearest_filter(wanted) > lens.fitted_stops:  # none that is sold is nearer
            values: Values = {
                "camera": camera.name,
                "mode": mode.name,
                "shutter": round(1.0 / lens.shortest_s),
                "stops": fits,
                "filter": _stops(fits, more=lens.fitted_stops > 0.0),
                "density": 2**fits,
            }
            yield Found(f"plan.assignments[{number}].mode", values, camera.id, item.id)


def _stops(count: int, *, more: bool) -> str:
    return f"{count} {'stop' if count == 1 else 'stops'}{' more' if more else ''}"


@check("slowing_not_reached", "warn")
def slowing_not_reached(seen: Seen) -> Iterator[Found]:
    """A preset is to be shown slower than its mode's frames allow."""
    film = seen.record.written.plan.delivery_fps
    for place, camera in enumerate(seen.record.written.kit.cameras):
        for number, preset in enumerate(camera.presets):
            mode = next((m for m in camera.modes if m.id == preset.mode), None)
            if mode is None or preset.slowing is None or mode.fps >= 0.99 * preset.slowing * film:
                continue
            values: Values = {
                "camera": camera.name,
                "preset": preset.name,
                "wanted": preset.slowing,
                "least": round(preset.slowing * film),
                "fps": mode.fps,
            }
            path = f"kit.cameras[{place}].presets[{number}].slowing"
            yield Found(path, values, camera.id)


@check("more_than_editing_takes", "note", curable=True)
def more_than_editing_takes(seen: Seen) -> Iterator[Found]:
    """A mode that the computer at home does not play."""
    computer = seen.record.written.plan.editing
    said: set[tuple[str, str]] = set()
    for number, assignment, camera, mode in seen.filmed:
        preset = preset_of(camera, assignment)
        over = "" if computer is None else over_editing(mode, computer, preset)
        if over and (camera.id, mode.id) not in said:
            said.add((camera.id, mode.id))
            values: Values = {"camera": camera.name, "mode": mode.name, "over": over}
            path = f"plan.assignments[{number}].mode"
            yield Found(path, values, camera.id, assignment.item)


@check("not_steadied", "warn", curable=True)
def not_steadied(seen: Seen) -> Iterator[Found]:
    """A preset that steadies the picture, in a mode that is too large or fast for that."""
    for number, assignment, camera, mode in seen.filmed:
        preset = preset_of(camera, assignment)
        kind = "off" if preset is None else preset.stabilised
        most = next((one for one in camera.steadies if one.stabilised == kind), None)
        if preset is None or most is None:
            continue
        pixels = mode.width_px * mode.height_px
        if pixels <= most.width_px * most.height_px and mode.fps <= most.fps:
            continue
        values: Values = {
            "camera": camera.name,
            "mode": mode.name,
            "preset": preset.name,
            "most": f"{most.width_px} × {most.height_px} at {most.fps:g}",
        }
        yield Found(f"plan.assignments[{number}].mode", values, camera.id, assignment.item)
