"""What usually serves where: mounts and angles by activity, with the reason when not well.

Habits of people who film themselves, no law: each line can be changed in the kit, and local law,
event rules and makers' instructions come first. What is not listed serves well.
"""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from ..document import Angle, Mount, Verdict, Where

Rule = tuple[Verdict, str]

BUSY = "a hand is needed for the way"
SHAKES = "it shakes on a steep climb"
SWINGS = "the picture swings with every look"
NO_VEHICLE = "there is no vehicle"
LEFT = "it stays where you passed"
PACKED = "the wing is packed"
NO_CAMP = "there is no camp on the way"
DRY = "nothing is under water here"

HANDS_BUSY: tuple[Where, ...] = ("descent", "flight", "sled", "sail", "ride", "drive")
ON_FOOT: tuple[Where, ...] = ("climb", "walk", "descent")
MOVING: tuple[Where, ...] = (*ON_FOOT, "flight", "sled", "sail", "ride", "paddle", "drive", "other")
WINGLESS: tuple[Where, ...] = (*ON_FOOT, "sled", "ride", "paddle", "drive", "stop")


def _usual() -> dict[tuple[Mount | Angle, Where], Rule]:
    table: dict[tuple[Mount | Angle, Where], Rule] = {}
    table |= {("hand_held", where): ("never", BUSY) for where in HANDS_BUSY}
    table["hand_held", "paddle"] = ("poorly", "both hands hold the paddle")
    table["chest", "climb"] = ("poorly", SHAKES)
    table["chest", "flight"] = ("poorly", "harness and risers are before it")
    table |= {("helmet", where): ("poorly", SWINGS) for where in ("climb", "walk")}
    table |= {("vehicle", where): ("poorly", NO_VEHICLE) for where in (*ON_FOOT, "flight")}
    table |= {("tripod", where): ("poorly", LEFT) for where in MOVING}
    table |= {("wing", where): ("poorly", PACKED) for where in WINGLESS}
    table |= {("camp", where): ("poorly", NO_CAMP) for where in MOVING}
    table |= {("under_water", where): ("poorly", DRY) for where in (*MOVING, "stop")}
    del table["under_water", "paddle"]
    return table


USUAL: Mapping[tuple[Mount | Angle, Where], Rule] = MappingProxyType(_usual())

# Where a helmet mount asks for a look at the rules, and what falls on someone when it comes off
HELMET_RULES: frozenset[Where] = frozenset({"climb", "flight", "sled", "sail", "ride", "drive"})
FALLS_FROM: frozenset[Mount] = frozenset({"hand_held", "wing", "vehicle", "other"})
FALLS_ON_OTHERS: frozenset[Where] = frozenset({"flight", "sail"})
LOST_BELOW: frozenset[Where] = frozenset({"climb", "paddle"})
