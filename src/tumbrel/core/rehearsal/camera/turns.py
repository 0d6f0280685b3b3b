"""What a camera is doing, what it meets next, and the order of events at one instant.

Plain whole numbers with names, since they are asked for at every event; a member of an
enumeration that is looked up by its class costs a hundred times as much in machine code.
"""

from __future__ import annotations

from typing import Final

State = int
OFF: Final = 0
STANDBY: Final = 1
BOOTING: Final = 2
RECORDING: Final = 3
ARMED: Final = 4
BETWEEN_FRAMES: Final = 5
COPYING: Final = 6
FILMING: Final = (RECORDING, ARMED, BETWEEN_FRAMES)


class Priority:
    """Order of events at one instant."""

    ENDS: Final = 1
    CONDITIONS: Final = 2
    HEAT: Final = 3
    EMPTY: Final = 4
    CARD_FULL: Final = 5
    CLIP_LIMIT: Final = 6
    PATTERN_ENDS: Final = 7
    STARTS: Final = 8
    HANDS: Final = 9


class Due:
    """What a camera meets next."""

    NOTHING: Final = 1
    PREPARE: Final = 2
    ASK: Final = 3
    UNASK: Final = 4
    BOOTED: Final = 5
    BEAT: Final = 6
    BY_ITSELF: Final = 7


class Turn:
    """What the loop sees to, in the order of its kinds at one instant and priority."""

    TASK: Final = 1
    LEAVE: Final = 2
    FEED: Final = 3
    GRID: Final = 4
    CAMERA: Final = 5
    DECIDE: Final = 6
