"""What is lost when a thing with a battery that is no camera dies, in a word or two."""

from __future__ import annotations

from collections.abc import Mapping

from .document import GearKind

LOSES: Mapping[GearKind, str] = {
    "microphone": "sound",
    "recorder": "sound",
    "stabiliser": "a steady picture",
    "phone": "the phone",
    "flying_camera": "its view from the air",
    "other": "it",
}
