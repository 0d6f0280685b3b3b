"""The hands' work in a few words."""

from __future__ import annotations

from collections.abc import Mapping

from ..document import Assignment, Camera, Kit

PATTERN_WORDS = {
    "roll": "roll",
    "takes": "takes",
    "loop": "loop",
    "windows": "by the clock",
    "interval": "interval",
    "armed": "trigger on,",
}


MOUNT_WORDS: Mapping[str, str] = {
    "helmet": "helmet",
    "chest": "chest",
    "hand_held": "stick",
    "vehicle": "vehicle",
    "tripod": "tripod",
    "wing": "wing",
    "other": "other mount",
}


def set_up_words(camera: Camera, key: str) -> str:
    """A set-up by its name; one that is no more by its key."""
    built = camera.built(key)
    return key if built is None else built.name


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


def task_words(kind: str, takes_out: str, puts_in: str, *, cable: bool = True) -> str:
    """A swap as "A3 → A2", a move as "chest → stick", a set-up as "rebuilt cased".

    A copy by radio has no cable to take off.
    """
    change = f"{takes_out} → {puts_in}" if takes_out else f"{puts_in} in"
    words = {
        "restart": "start again",
        "wake": f"switch {puts_in} on",
        "move": f"{takes_out} → {puts_in}" if takes_out else f"rebuilt {puts_in}",
        "plug": f"plug {takes_out} into {puts_in}" if puts_in else f"plug {takes_out}",
        "copy": f"copy {takes_out} to {puts_in}",
        "copy_end": _ends_copy(takes_out, puts_in, cable=cable),
        "swap": change,
    }
    return words.get(kind, f"{kind} {change}")


def _ends_copy(takes_out: str, puts_in: str, *, cable: bool) -> str:
    if not takes_out:
        return f"check {puts_in}, then delete what it has"
    return f"take the cable off {puts_in}" if cable else f"check that {puts_in} has it all"


def together_words(text: str, others: Mapping[str, str]) -> str:
    """One press that starts linked cameras: what the first does, and the others, by name."""
    told = (name if what == text else f"{name} ({what})" for name, what in others.items())
    return f"{text}, with {', '.join(told)}: one press" if others else text
