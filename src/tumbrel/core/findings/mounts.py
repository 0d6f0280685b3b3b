"""Mounts as the person knows them: how long and how warm they hold, what they see and block.

A reason given for a stretch silences the advice here, never what stops (model/results#findings).
"""

from __future__ import annotations

from collections.abc import Iterator

from ..document import Item, Leg, Mounted, SetUp
from ..wording.moves import MOUNT_WORDS
from ..wording.picture import ANGLE_WORDS
from ..wording.units import hours
from .registry import Found, Placed, Seen, Values, check


def _advised(seen: Seen) -> Iterator[tuple[Placed, Mounted, Values]]:
    """Stretches on a mount of which something is known, without a reason of the person's own."""
    for one in seen.placed:
        known = one.camera.mounted(one.mount)
        if known is not None and not one.assignment.reason:
            named = {"camera": one.camera.name, "mount": MOUNT_WORDS[one.mount]}
            yield one, known, {**named, "leg": one.item.name}


def _path(one: Placed) -> str:
    return f"plan.assignments[{one.number}].mount"


def _minutes(seen: Seen, item: Item) -> float:
    part = seen.record.timeline.by_id[item.id]
    return (part.end_ms - part.start_ms) / 60_000


@check("mount_holds_shorter", "warn", curable=True)
def mount_holds_shorter(seen: Seen) -> Iterator[Found]:
    """A leg that lasts longer than its mount holds without a look at it."""
    for one, known, values in _advised(seen):
        minutes = _minutes(seen, one.item)
        if isinstance(one.item, Leg) and known.holds_min is not None and minutes > known.holds_min:
            lasts = {"holds": hours(round(known.holds_min)), "lasts": hours(round(minutes))}
            yield Found(_path(one), {**values, **lasts}, one.camera.id, one.item.id)


@check("mount_too_warm", "warn", curable=True)
def mount_too_warm(seen: Seen) -> Iterator[Found]:
    """A leg that is warmer than its mount holds in."""
    for one, known, values in _advised(seen):
        warmest_c = max(one.item.temp_start_c, one.item.temp_end_c)
        if known.holds_to_c is not None and warmest_c > known.holds_to_c:
            air = {"holds_c": known.holds_to_c, "air_c": warmest_c}
            yield Found(_path(one), {**values, **air}, one.camera.id, one.item.id)


@check("mount_sees_elsewhere", "warn", curable=True)
def mount_sees_elsewhere(seen: Seen) -> Iterator[Found]:
    """An angle that the mount does not give."""
    for one, known, values in _advised(seen):
        if known.sees is not None and known.sees != one.angle:
            seen_as = {"sees": ANGLE_WORDS[known.sees], "wanted": ANGLE_WORDS[one.angle]}
            yield Found(_path(one), {**values, **seen_as}, one.camera.id, one.item.id)


@check("mount_in_the_picture", "note")
def mount_in_the_picture(seen: Seen) -> Iterator[Found]:
    """What of the picture a mount covers; once a camera and mount."""
    said: set[tuple[str, str]] = set()
    for one, known, values in _advised(seen):
        if known.seen_over and (one.camera.id, one.mount) not in said:
            said.add((one.camera.id, one.mount))
            yield Found(_path(one), {**values, "covers": known.seen_over}, one.camera.id)


@check("mount_covers_port", "stop", curable=True)
def mount_covers_port(seen: Seen) -> Iterator[Found]:
    """A camera that is to run on outside power on a mount that blocks its port."""
    for one in seen.placed:
        known, set_up = one.camera.mounted(one.mount), one.camera.built(one.assignment.set_up)
        if known is None or set_up is None or "port" not in known.covers:
            continue
        if set_up.power != "battery":
            values: Values = {
                "camera": one.camera.name,
                "mount": MOUNT_WORDS[one.mount],
                "leg": one.item.name,
                "set_up": set_up.name,
            }
            yield Found(_path(one), values, one.camera.id, one.item.id)


def _under(seen: Seen) -> Iterator[tuple[Placed, Leg, SetUp]]:
    """Stretches under water in a set-up that is built for it."""
    for one in seen.placed:
        set_up, item = one.camera.built(one.assignment.set_up), one.item
        under = isinstance(item, Leg) and item.wet == "under"
        if isinstance(item, Leg) and under and set_up is not None and set_up.water == "under":
            yield one, item, set_up


def _beyond(one: Placed, set_up: SetUp, **values: str) -> Found:
    told = {"camera": one.camera.name, "leg": one.item.name, "set_up": set_up.name, **values}
    path = f"plan.assignments[{one.number}].set_up"
    return Found(path, told, one.camera.id, one.item.id)


@check("too_deep", "stop", curable=True)
def too_deep(seen: Seen) -> Iterator[Found]:
    """A leg that goes deeper than the set-up stands."""
    for one, leg, set_up in _under(seen):
        if leg.depth_m is None or set_up.depth_m is None or leg.depth_m <= set_up.depth_m:
            continue
        yield _beyond(one, set_up, depth=f"{leg.depth_m:g}", most=f"{set_up.depth_m:g}")


@check("too_long_under", "stop", curable=True)
def too_long_under(seen: Seen) -> Iterator[Found]:
    """A leg under water that lasts longer than the set-up stands it."""
    for one, leg, set_up in _under(seen):
        minutes = _minutes(seen, leg)
        if set_up.under_min is None or minutes <= set_up.under_min:
            continue
        most = hours(round(set_up.under_min))
        yield _beyond(one, set_up, lasts=hours(round(minutes)), most=most)
