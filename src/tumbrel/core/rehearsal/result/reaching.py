"""Which camera can be had filming for what comes unasked, and how much of it is then left.

Source: model/results#reach.
"""

from __future__ import annotations

from ...document import Camera, Item, Leg, Moment, Mounted
from ...serving import carried, mount_and_angle
from ..engine.played import Played
from .stretch_results import ReachTold


def reaches_told(played: Played) -> tuple[ReachTold, ...]:
    """For each moment, the cameras whose reach is said, the one that is soonest first.

    A camera that already films there in one piece needs no reaching. On a leg where hands only
    press, what is in a pocket stays there, and what is mounted is pressed; where they are never
    free, nothing is reached.
    """
    kit, plan = played.written.kit, played.written.plan
    told: list[ReachTold] = []
    if all(known.reach_s is None for camera in kit.cameras for known in camera.mounts):
        return ()
    for part in played.timeline.laid:
        item = part.item
        if item is None or not item.moments:
            continue
        asked = {one.camera: one for one in plan.assignments if one.item == part.id}
        rows = []
        for camera in kit.cameras:
            here = asked.get(camera.id)
            mount, _ = mount_and_angle(carried(plan, camera.id), here)
            known = camera.mounted(mount)
            goes_on = here is not None and here.pattern.kind in ("roll", "loop")
            if known is None or known.reach_s is None or goes_on or not _can(item, known):
                continue
            rows += [_row(item.id, camera, moment, known.reach_s) for moment in item.moments]
        told += sorted(rows, key=lambda row: (row.moment, row.after_s))
    return tuple(told)


def _row(item: str, camera: Camera, moment: Moment, reach_s: float) -> ReachTold:
    after_s = moment.reaction_s + reach_s
    return ReachTold(
        item=item,
        moment=moment.name,
        camera=camera.id,
        after_s=after_s,
        caught_s=max(0.0, moment.seconds - after_s),
        of_s=float(moment.seconds),
    )


def _can(item: Item, known: Mounted) -> bool:
    """Whether hands may: take it out where they are free, else press what they reach."""
    if not isinstance(item, Leg) or item.hands == "free":
        return True
    return item.hands == "stops" and known.mount != "other" and known.pressed
