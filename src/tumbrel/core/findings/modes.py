"""Modes, set-ups, presets and features that a camera does not have."""

from __future__ import annotations

from collections.abc import Iterator

from ..document import DrawNotKnown
from ..energy import assumed_draw
from .registry import Found, Seen, Values, check


@check("draw_assumed", "note")
def draw_assumed(seen: Seen) -> Iterator[Found]:
    """A mode is asked of which nobody knows what it draws."""
    kit = seen.record.written.kit
    families = {family.id: family for family in kit.families}
    told: set[tuple[str, str]] = set()
    for number, assignment, camera in seen.assignments():
        mode = next((m for m in camera.modes if m.id == assignment.mode), None)
        if mode is None or not isinstance(mode.draw, DrawNotKnown) or (camera.id, mode.id) in told:
            continue
        told.add((camera.id, mode.id))
        family = families[camera.battery_family]
        watts, by = assumed_draw(camera, mode, family, seen.defaults)
        values: Values = {
            "camera": camera.name,
            "mode": mode.name,
            "watts": f"{watts:.1f}",
            "by": by,
        }
        yield Found(f"plan.assignments[{number}].mode", values, camera.id, assignment.item)


@check("mode_missing", "stop", curable=True)
def mode_missing(seen: Seen) -> Iterator[Found]:
    """An assignment names a mode that its camera no longer has."""
    for number, assignment, camera in seen.assignments():
        if all(mode.id != assignment.mode for mode in camera.modes):
            values: Values = {"camera": camera.name, "mode": assignment.mode}
            path = f"plan.assignments[{number}].mode"
            yield Found(path, values, camera.id, assignment.item)


@check("set_up_missing", "stop", curable=True)
def set_up_missing(seen: Seen) -> Iterator[Found]:
    """An assignment names a set-up that its camera no longer has."""
    for number, assignment, camera in seen.assignments():
        if all(set_up.id != assignment.set_up for set_up in camera.set_ups):
            values: Values = {"camera": camera.name, "set_up": assignment.set_up}
            path = f"plan.assignments[{number}].set_up"
            yield Found(path, values, camera.id, assignment.item)


@check("feature_not_in_mode", "warn", curable=True)
def feature_not_in_mode(seen: Seen) -> Iterator[Found]:
    """A feature is asked that the mode does not allow; it is rehearsed without.

    Source: model/energy#set-up.
    """
    for number, assignment, camera in seen.assignments():
        mode = next((m for m in camera.modes if m.id == assignment.mode), None)
        if mode is None:
            continue
        for feature in assignment.features:
            if feature not in mode.features:
                values: Values = {"camera": camera.name, "mode": mode.name, "feature": feature}
                path = f"plan.assignments[{number}].features"
                yield Found(path, values, camera.id, assignment.item)


@check("preset_missing", "warn", curable=True)
def preset_missing(seen: Seen) -> Iterator[Found]:
    """An assignment names a preset that its camera no longer has."""
    for number, assignment, camera in seen.assignments():
        known = {preset.id for preset in camera.presets}
        if assignment.preset is not None and assignment.preset not in known:
            values: Values = {"camera": camera.name, "preset": assignment.preset}
            path = f"plan.assignments[{number}].preset"
            yield Found(path, values, camera.id, assignment.item)


@check("preset_in_another_mode", "warn", curable=True)
def preset_in_another_mode(seen: Seen) -> Iterator[Found]:
    """A stretch uses a preset, but is planned in another mode than the preset's."""
    for number, assignment, camera in seen.assignments():
        preset = next((p for p in camera.presets if p.id == assignment.preset), None)
        if preset is None or preset.mode == assignment.mode:
            continue
        names = {mode.id: mode.name for mode in camera.modes}
        values: Values = {
            "camera": camera.name,
            "preset": preset.name,
            "has": names.get(preset.mode, preset.mode),
            "mode": names.get(assignment.mode, assignment.mode),
        }
        path = f"plan.assignments[{number}].preset"
        yield Found(path, values, camera.id, assignment.item)
