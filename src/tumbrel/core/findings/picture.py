"""Frame rate, light, sound, water and mounts (E10)."""

from __future__ import annotations

import math
from bisect import bisect_right
from collections.abc import Iterator

from ..document import Interval, Leg, Mode
from .registry import Found, Seen, Values, check

FAST_FPS = 50.0
SLOW_MOTION = 2.0
DARK_SHARE = 0.5
WATER_ORDER = {"dry": 0, "splash": 1, "under": 2}
STEEP = frozenset({"descent", "sled", "sail"})
BRIGHT_DEG = 30.0
SUNNY_EV = 15.0
F_NUMBER = 2.8


def _modes(seen: Seen) -> Iterator[tuple[int, str, str, str, Mode]]:
    """Filmed assignments: number, camera's key and name, leg, mode."""
    for number, assignment, camera in seen.assignments():
        mode = next((m for m in camera.modes if m.id == assignment.mode), None)
        if mode is not None and not isinstance(assignment.pattern, Interval):
            yield number, camera.id, camera.name, assignment.item, mode


@check("slower_than_delivery", "warn")
def slower_than_delivery(seen: Seen) -> Iterator[Found]:
    """Fewer frames a second than the film will have."""
    wanted = seen.played.document.plan.delivery_fps
    said: set[tuple[str, str]] = set()
    for number, key, name, item, mode in _modes(seen):
        if mode.fps < wanted - 0.01 * wanted and (key, mode.id) not in said:
            said.add((key, mode.id))
            values: Values = {"camera": name, "mode": mode.name, "fps": mode.fps, "film": wanted}
            yield Found(f"plan.assignments[{number}].mode", values, key, item)


@check("no_sound_in_slow_motion", "note")
def no_sound_in_slow_motion(seen: Seen) -> Iterator[Found]:
    """A mode without sound, or one whose frames are meant to be slowed."""
    wanted = seen.played.document.plan.delivery_fps
    said: set[tuple[str, str]] = set()
    for number, key, name, item, mode in _modes(seen):
        slow = mode.fps / wanted
        if (not mode.sound or slow >= 2.0 * SLOW_MOTION) and (key, mode.id) not in said:
            said.add((key, mode.id))
            values: Values = {"camera": name, "mode": mode.name, "slow": round(slow, 1)}
            yield Found(f"plan.assignments[{number}].mode", values, key, item)


@check("dark_for_frame_rate", "warn")
def dark_for_frame_rate(seen: Seen) -> Iterator[Found]:
    """Many frames a second in twilight or night: each gets little light."""
    timeline = seen.played.timeline
    dark = [band for band in timeline.light if band.kind != "day"]
    ends_ms = [band.end_ms for band in dark]
    for number, key, name, item, mode in _modes(seen):
        part = timeline.by_id[item]
        if mode.fps < FAST_FPS:
            continue
        dark_ms = 0
        for band in dark[bisect_right(ends_ms, part.start_ms) :]:
            if band.start_ms >= part.end_ms:
                break
            dark_ms += min(band.end_ms, part.end_ms) - max(band.start_ms, part.start_ms)
        if dark_ms > DARK_SHARE * (part.end_ms - part.start_ms):
            values: Values = {"camera": name, "mode": mode.name, "leg": part.name}
            yield Found(f"plan.assignments[{number}].mode", values, key, item)


@check("filter_for_half_interval", "note")
def filter_for_half_interval(seen: Seen) -> Iterator[Found]:
    """In full sun a shutter of half the frame interval wants a neutral density filter.

    Sunny exposure value 15 at ISO 100 and f/2.8: t = N^2 / 2^EV; stops = log2(half / t).
    """
    played = seen.played
    sun = played.timeline.sun
    said: set[str] = set()
    for number, key, name, item, mode in _modes(seen):
        part = played.timeline.by_id[item]
        if sun is None or key in said or part.item is None or part.item.sky < 0.5:
            continue
        step = ((part.start_ms + part.end_ms) // 2 + played.timeline.into_ms) // 600_000
        if sun.height_deg[min(step, len(sun.height_deg) - 1)] < BRIGHT_DEG:
            continue
        said.add(key)
        shutter_s = 0.5 / mode.fps
        stops = math.log2(shutter_s * 2.0**SUNNY_EV / F_NUMBER**2)
        if stops >= 1.0:
            values: Values = {
                "camera": name,
                "mode": mode.name,
                "shutter": round(2 * mode.fps),
                "stops": round(stops),
                "density": 2 ** round(stops),
            }
            yield Found(f"plan.assignments[{number}].mode", values, key, item)


@check("water_against_set_up", "stop")
def water_against_set_up(seen: Seen) -> Iterator[Found]:
    """A set-up that does not stand the leg's water."""
    for number, assignment, camera in seen.assignments():
        item = seen.played.timeline.by_id[assignment.item].item
        set_up = next((s for s in camera.set_ups if s.id == assignment.set_up), None)
        if not isinstance(item, Leg) or set_up is None:
            continue
        if WATER_ORDER[item.wet] > WATER_ORDER[set_up.water]:
            values: Values = {"camera": camera.name, "set_up": set_up.name, "leg": item.name}
            path = f"plan.assignments[{number}].set_up"
            yield Found(path, values, camera.id, assignment.item)


@check("mount_against_activity", "warn")
def mount_against_activity(seen: Seen) -> Iterator[Found]:
    """A hand-held stick where hands are needed, or a chest mount that shakes on a climb."""
    mounts = {c.camera: c.mount for c in seen.played.document.plan.cameras}
    for number, assignment, camera in seen.assignments():
        item = seen.played.timeline.by_id[assignment.item].item
        mount = mounts.get(camera.id, "other")
        if not isinstance(item, Leg):
            continue
        held = mount == "hand_held" and (item.activity in STEEP or item.hands == "never")
        shaken = mount == "chest" and item.activity == "climb"
        if held or shaken:
            why = "a hand is needed for the way" if held else "it shakes on a steep climb"
            values: Values = {"camera": camera.name, "leg": item.name, "why": why}
            path = f"plan.assignments[{number}]"
            yield Found(path, values, camera.id, assignment.item)
