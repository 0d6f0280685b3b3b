"""Which camera can be had filming for what comes unasked, and how much of it is then left.

Source: model/results#reach.
"""

from __future__ import annotations

from ...document import Assignment, Camera, Leg, Moment, Mounted, Plan
from ..engine.played import Played
from ..trip.timeline import Laid
from .stretch_results import ReachTold


def reaches_told(played: Played) -> tuple[ReachTold, ...]:
    """For each moment, the cameras whose reach is said, the one that is soonest first.

    A camera that already films there in one piece needs no reaching. On a leg where hands only
    press, what is in a pocket stays there, and what is mounted is pressed; where they are never
    free, nothing is reached.
    """
    plan, told = played.written.plan, []
    if all(known.reach_s is None for one in played.written.kit.cameras for known in one.mounts):
        return ()
    carried = {one.camera: one.mount for one in plan.cameras}
    for part in played.timeline.laid:
        item = part.item
        if item is None or not item.moments:
            continue
        rows = []
        for camera in played.written.kit.cameras:
            asked = _asked(plan, camera, part)
            sits = (asked.mount if asked else None) or carried.get(camera.id, "other")
            known = next((one for one in camera.mounts if one.mount == sits), None)
            if known is None or known.reach_s is None or _rolls(plan, camera, part):
                continue
            if not _can(part, known):
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


def _asked(plan: Plan, camera: Camera, part: Laid) -> Assignment | None:
    mine = (one for one in plan.assignments if (one.camera, one.item) == (camera.id, part.id))
    return next(mine, None)


def _rolls(plan: Plan, camera: Camera, part: Laid) -> bool:
    """Whether it films there all the time, or keeps what has been."""
    asked = _asked(plan, camera, part)
    return asked is not None and asked.pattern.kind in ("roll", "loop")


def _can(part: Laid, known: Mounted) -> bool:
    """Whether hands may: take it out where they are free, else press what they reach."""
    item = part.item
    if not isinstance(item, Leg) or item.hands == "free":
        return True
    return item.hands == "stops" and known.mount != "other" and known.pressed
