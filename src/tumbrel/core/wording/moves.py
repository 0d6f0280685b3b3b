"""The hands' work in a few words."""

from __future__ import annotations

from ..document import Assignment, Kit

PATTERN_WORDS = {
    "roll": "roll",
    "takes": "takes",
    "loop": "loop",
    "windows": "by the clock",
    "interval": "interval",
    "armed": "trigger on,",
}


def start_words(kit: Kit, assignment: Assignment) -> str:
    """What to start: the pattern, and the mode's name."""
    camera = next(c for c in kit.cameras if c.id == assignment.camera)
    mode = next((m.name for m in camera.modes if m.id == assignment.mode), "?")
    return f"{PATTERN_WORDS[assignment.pattern.kind]} {mode}"


def stop_words() -> str:
    """What to do at the end of a stretch."""
    return "stop"


def again_words(charged: bool, gave_out: str) -> str:
    """Why a battery goes in again soon after it went in before."""
    if charged:
        return " again, charged meanwhile"
    return f" again: {gave_out} would not last" if gave_out else " again"


def task_words(kind: str, takes_out: str, puts_in: str) -> str:
    """A swap as "A3 → A2"; a card named as one; a restart as such."""
    if kind == "restart":
        return "start again"
    if kind == "wake":
        return f"switch {puts_in} on"
    if kind == "plug":
        return f"plug {takes_out} into {puts_in}" if puts_in else f"plug {takes_out}"
    if kind == "copy":
        return f"copy {takes_out} to {puts_in}"
    if kind == "copy_end":
        return f"take the cable off {puts_in}"
    change = f"{takes_out} → {puts_in}" if takes_out else f"{puts_in} in"
    return change if kind == "swap" else f"card {change}"
