"""The words of the card in the pocket: short, and the same in every form that it takes."""

from __future__ import annotations

from ..document import Camera, Preset
from .units import hours, per_cent


def say_words(kind: str, takes_out: str, puts_in: str, text: str) -> str:
    """What to do: "A1 out, A4 in", "card K1 out, K2 in", and modules; else as the board says it."""
    if kind not in ("swap", "card", "module"):
        return text
    parts = (f"{takes_out} out" if takes_out else "", f"{puts_in} in" if puts_in else "")
    change = ", ".join(one for one in parts if one)
    return change if kind == "swap" else f"{kind} {change}"


def going_words(what: str, verb: str, place: str) -> str:
    """Where something is or goes, "A4 is in the vest pocket"; nothing where it is not known."""
    if not what or not place:
        return ""
    return f"{what} {verb} {place}"


def slot_words(preset: Preset | None) -> str:
    """A preset by its slot, "slot 2, On foot"; one without a slot by its name."""
    if preset is None:
        return ""
    told = preset.name if preset.slot is None else f"slot {preset.slot}, {preset.name}"
    if preset.turned:
        told += ", turned by 180°"
    return f"{told} ({preset.note})" if preset.note else told


def gesture_words(camera: Camera) -> str:
    """The camera's own way to be started."""
    return camera.start_gesture


def left_words(unit: str, level: float) -> str:
    """What is left in a battery: "A1 has 12 %"."""
    return f"{unit} has {per_cent(level)}"


def lasts_words(unit: str, minutes: float) -> str:
    """How long something lasts in the mode that follows: "A4 lasts 1 h 41"."""
    return f"{unit} lasts {hours(int(minutes))}"


def lasting_words(cause: str | None) -> str:
    """What ends it there."""
    return "lasts" if cause is None else cause


def full_words(unit: str, clock: str) -> str:
    """That something must be full at a time."""
    return f"{unit} full by {clock}"
