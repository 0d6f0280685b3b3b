"""Batteries that do not fit, and batteries that nobody uses."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final

from ..document import Module
from ..rehearsal.camera.causes import Cause
from ..rehearsal.result.record import CameraRecord
from .registry import Found, Seen, Values, check

WORTH_SAYING: Final = 0.2
WORTH_CHARGING_MS: Final = 1_800_000
RUNS_OUT: Final = frozenset({Cause.EMPTY, Cause.NO_BATTERY})


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
    short = {run.camera.battery_family for run in seen.record.cameras if _runs_out(run)}
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


@check("module_unused", "note")
def module_unused(seen: Seen) -> Iterator[Found]:
    """A charged module is never put on, while the camera that it fits runs empty."""
    fed = {one.source for one in seen.record.outside} | {one.source for one in seen.record.hung}
    short = {run.camera.id: run.camera.name for run in seen.record.cameras if _runs_out(run)}
    for number, source in enumerate(seen.record.written.kit.sources):
        if not isinstance(source, Module) or source.id in fed:
            continue
        if source.fits in short and source.charge >= WORTH_SAYING:
            values: Values = {"module": source.name, "camera": short[source.fits]}
            yield Found(f"kit.sources[{number}]", values, source.fits)


@check("never_charged", "warn")
def never_charged(seen: Seen) -> Iterator[Found]:
    """A camera runs empty whose battery nothing that is carried can ever charge.

    It does not come out and has no port for power; or no charger takes its family. Told where
    there is something to charge it from, and time with free hands.
    """
    kit, timeline = seen.record.written.kit, seen.record.timeline
    gives = any(not isinstance(one, Module) for one in kit.sources)
    charged = {family for one in kit.chargers for family in one.families}
    free_ms = sum(one.end_ms - one.start_ms for one in timeline.free_hands)
    for run in seen.record.cameras:
        camera = run.camera
        fed = any(one.power != "battery" for one in camera.set_ups)
        in_charger = camera.battery_comes_out and camera.battery_family in charged
        shut = camera.charges_in_w is None and not fed and not in_charger
        if gives and shut and free_ms >= WORTH_CHARGING_MS and _runs_out(run):
            why = (
                "it has no port for power, and no charger takes its battery"
                if camera.battery_comes_out
                else "its battery stays in, and it has no port for power"
            )
            values: Values = {"camera": camera.name, "why": why}
            path = f"kit.cameras[{run.index}].charges_in_w"
            yield Found(path, values, camera.id)


def _runs_out(run: CameraRecord) -> bool:
    return any(gap.cause in RUNS_OUT for gap in run.gaps)
