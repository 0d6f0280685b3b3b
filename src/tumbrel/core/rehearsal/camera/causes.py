"""Why an asked minute is not filmed."""

from __future__ import annotations

from enum import StrEnum


class Cause(StrEnum):
    """Causes of a gap; where two begin at one instant, the earlier one here is named."""

    PLAN = "plan"
    NO_BATTERY = "no_battery"
    NO_POWER = "no_power"
    NO_CARD = "no_card"
    CARD_UNFIT = "card_unfit"
    HOT = "hot"
    EMPTY = "empty"
    COLD = "cold"
    CARD_FULL = "card_full"
    CLIP_LIMIT = "clip_limit"
    SWAP = "swap"
    CARD_SWAP = "card_swap"
    MOVE = "move"
    COPYING = "copying"
    SAVE = "save"
    BOOT = "boot"
    NO_HAND = "no_hand"
    NO_START = "no_start"

    __hash__ = str.__hash__  # the enumeration's own is written in Python and asked at every event


CAUSE_ORDER = {cause: number for number, cause in enumerate(Cause)}

SHORT_ONES_ARE_NOTES = frozenset({Cause.BOOT, Cause.SAVE, Cause.CLIP_LIMIT})
GAVE_OUT = frozenset({Cause.EMPTY, Cause.COLD, Cause.NO_BATTERY, Cause.NO_POWER})
STOPPED_FOR_GOOD = frozenset(
    {Cause.PLAN, Cause.NO_CARD, Cause.CARD_UNFIT, Cause.HOT, Cause.CARD_FULL}
)
