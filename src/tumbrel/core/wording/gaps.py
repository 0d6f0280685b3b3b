"""Why a gap, in a few words for the lane's gutter."""

from __future__ import annotations

from ..measures import degrees
from ..rehearsal.camera.causes import Cause

CAUSE_WORDS: dict[Cause, str] = {
    Cause.PLAN: "mode missing",
    Cause.NO_BATTERY: "no battery in it",
    Cause.NO_POWER: "outside power stopped",
    Cause.COLD: "too cold for its battery",
    Cause.COPYING: "copying",
    Cause.SAVE: "keeping the loop",
    Cause.NO_CARD: "no card in it",
    Cause.CARD_UNFIT: "card too slow",
    Cause.HOT: "too hot",
    Cause.EMPTY: "battery empty",
    Cause.CARD_FULL: "card full",
    Cause.CLIP_LIMIT: "clip limit",
    Cause.SWAP: "battery swap",
    Cause.CARD_SWAP: "card swap",
    Cause.MOVE: "being moved",
    Cause.BOOT: "starting up",
    Cause.NO_HAND: "waits for a hand",
    Cause.NO_START: "no one starts it",
}


def gap_words(cause: Cause, battery: str, stop_c: float, *, fixed_memory: bool) -> str:
    """A gap's cause: names the battery that is empty, the level that is too hot."""
    if cause is Cause.EMPTY and battery:
        return f"{battery} empty"
    if cause is Cause.COLD and battery:
        return f"{battery} too cold"
    if cause is Cause.HOT:
        return f"too hot, {degrees(stop_c, unit=False)}"
    if cause is Cause.CARD_FULL and fixed_memory:
        return "memory full"
    return CAUSE_WORDS[cause]
