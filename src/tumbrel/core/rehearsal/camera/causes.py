"""Why an asked minute is not filmed, and what a camera is doing."""

from __future__ import annotations

from enum import IntEnum, StrEnum, auto


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
    COPYING = "copying"
    SAVE = "save"
    BOOT = "boot"
    NO_HAND = "no_hand"
    NO_START = "no_start"

    __hash__ = str.__hash__  # the enumeration's own is written in Python and asked at every event


CAUSE_ORDER = {cause: number for number, cause in enumerate(Cause)}

SHORT_ONES_ARE_NOTES = frozenset({Cause.BOOT, Cause.SAVE, Cause.CLIP_LIMIT})
GAVE_OUT = frozenset({Cause.EMPTY, Cause.COLD, Cause.NO_BATTERY, Cause.NO_POWER})


class State(IntEnum):
    """What a camera is doing."""

    OFF = 0
    STANDBY = 1
    BOOTING = 2
    RECORDING = 3
    ARMED = 4
    BETWEEN_FRAMES = 5
    COPYING = 6


# a member looked up by its class costs three times more
OFF, STANDBY, BOOTING, RECORDING, ARMED, BETWEEN_FRAMES, COPYING = State
FILMING = frozenset({RECORDING, ARMED, BETWEEN_FRAMES})


class Priority(IntEnum):
    """Order of events at one instant."""

    ENDS = 1
    CONDITIONS = 2
    HEAT = 3
    EMPTY = 4
    CARD_FULL = 5
    CLIP_LIMIT = 6
    PATTERN_ENDS = 7
    STARTS = 8
    HANDS = 9


class Due(IntEnum):
    """What a camera meets next."""

    NOTHING = auto()
    PREPARE = auto()
    ASK = auto()
    UNASK = auto()
    BOOTED = auto()
    BEAT = auto()
    BY_ITSELF = auto()
