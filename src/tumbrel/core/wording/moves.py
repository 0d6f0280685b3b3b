"""The hands' work in a few words."""

from __future__ import annotations

from ..document import Assignment, Kit, Mount

PATTERN_WORDS = {
    "roll": "roll",
    "takes": "takes",
    "loop": "loop",
    "windows": "by the clock",
    "interval": "interval",
    "armed": "trigger on,",
}


MOUNT_WORDS: dict[Mount, str] = {
    "helmet": "helmet",
    "chest": "chest",
    "hand_held": "stick",
    "vehicle": "vehicle",
    "tripod": "tripod",
    "wing": "wing",
    "other": "other mount",
}


def seat_words(kit: Kit, camera: str, key: str) -> str:
    """Where a camera sits, by the key of a mount or of one of its set-ups."""
    for mount, words in MOUNT_WORDS.items():
        if mount == key:
            return words
    owner = next(one for one in kit.cameras if one.id == camera)
    return next((one.name for one in owner.set_ups if one.id == key), key)


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
    change = f"{takes_out} → {puts_in}" if takes_out else f"{puts_in} in"
    words = {
        "restart": "start again",
        "wake": f"switch {puts_in} on",
        "move": f"{takes_out} → {puts_in}" if takes_out else f"onto {puts_in}",
        "plug": f"plug {takes_out} into {puts_in}" if puts_in else f"plug {takes_out}",
        "copy": f"copy {takes_out} to {puts_in}",
        "copy_end": f"take the cable off {puts_in}",
        "swap": change,
    }
    return words.get(kind, f"card {change}")
