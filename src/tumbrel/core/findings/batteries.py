"""Batteries that do not fit, and batteries that nobody uses."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final

from .registry import Found, Seen, Values, check

WORTH_SAYING: Final = 0.2


@check("battery_of_wrong_family", "stop", curable=True)
def battery_of_wrong_family(seen: Seen) -> Iterator[Found]:
    """The plan fits or swaps in a battery of another family."""
    document = seen.record.written
    cameras = {camera.id: camera for camera in document.kit.cameras}
    batteries = {battery.id: battery for battery in document.kit.batteries}
    named = [
        (f"plan.cameras[{n}].battery", chosen.camera, chosen.battery, None)
        for n, chosen in enumerate(document.plan.cameras)
    ] + [
        (f"plan.swaps[{n}].battery", swap.camera, swap.battery, swap.item)
        for n, swap in enumerate(document.plan.swaps)
    ]
    for path, camera_id, battery_id, item in named:
        camera, battery = cameras[camera_id], batteries.get(battery_id or "")
        if battery and battery.family != camera.battery_family:
            values: Values = {
                "battery": battery.name,
                "family": battery.family,
                "camera": camera.name,
                "wanted": camera.battery_family,
            }
            yield Found(path, values, camera_id, item)


@check("battery_unused", "note")
def battery_unused(seen: Seen) -> Iterator[Found]:
    """A charged spare is never used while a camera that takes it runs empty."""
    short = {
        run.camera.battery_family
        for run in seen.record.cameras
        if any(gap.cause in ("empty", "no_battery") for gap in run.gaps)
    }
    for family in sorted(short):
        idle = [
            (number, cell.name)
            for number, cell in enumerate(seen.record.batteries)
            if cell.family == family
            and cell.charge >= WORTH_SAYING
            and all(stay.place == cell.home for stay in cell.stays)
        ]
        if idle:
            names = ", ".join(name for _, name in idle)
            one = len(idle) == 1
            values: Values = {
                "battery": f"{names} {'is' if one else 'are'}",
                "it": "it" if one else "them",
            }
            yield Found(f"kit.batteries[{idle[0][0]}]", values)
