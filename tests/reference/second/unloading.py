"""Batteries taken out of a camera to charge, and when they must be back in it.

Source: model/hands#plug, model/hands#overnight.
"""

from __future__ import annotations

from math import ceil
from typing import TYPE_CHECKING

from .physics import CHARGEABLE, Cell, refusal
from .tasks import PLUG_S

if TYPE_CHECKING:
    from .camera import Cam
    from .hands import Hands

WORTH_S = 1800


class Unloading:
    """Out of cameras that are not wanted for a while, and back in time."""

    def __init__(self, hands: Hands) -> None:
        self.hands, self.world = hands, hands.world
        self.looks: set[int] = set()

    def wanted_s(self, cam: Cam, at_s: int) -> int:
        """When a camera is wanted next: as it may boot for it; the trip's end if never."""
        end_s, boot_s = self.world.end_s, cam.boot_s
        asked = next((s for s in range(at_s, end_s) if cam.asked.asked[s]), end_s)
        ahead = range(max(at_s, asked - boot_s), asked) if asked < end_s else range(0)
        return next((s for s in ahead if cam.alone or self.hands.free[s]), asked)

    def back_by(self, cam: Cam, at_s: int) -> int:
        """The last chance before it is asked: over the night, where hands wake before that."""
        hands, end_s = self.hands, self.hands.until(at_s)
        due_s, wanted = end_s - hands.last_s(at_s), self.wanted_s(cam, at_s)
        if wanted < end_s:
            return self.late_as_can_be(cam, at_s)
        after = hands.horizon(at_s)
        sleeps = end_s < self.world.end_s and not hands.awake[end_s]
        wakes = sleeps and self.world.rows[end_s][1] > 0 and after < self.world.end_s
        if wakes and wanted >= after + due_s:
            return self.back_by(cam, after)
        return end_s - due_s

    def late_as_can_be(self, cam: Cam, at_s: int) -> int:
        """The last chance to put something in before it is asked, or hands go."""
        end_s, last_s, ready = (
            self.hands.until(at_s),
            self.hands.last_s(at_s),
            self.wanted_s(cam, at_s),
        )
        asked = [one for one in self.world.cams if any(one.asked.asked)]
        boot_s = self.hands.boots_s(asked, end_s)
        return last_s if ready >= end_s - boot_s else ready - (end_s - boot_s - last_s)

    def may_wait(self, cam: Cam, at_s: int) -> bool:
        """Whether a camera does without its battery for now."""
        return cam.cell is None and at_s < self.back_by(cam, at_s)

    def holder(self, cell: Cell, at_s: int, *, by_word: bool) -> Cam | None:
        """The camera that a low battery is worth taking out of."""
        cam = None if cell.inside is None else self.world.cams[cell.inside]
        able = cam is not None and cam.doc.get("battery_comes_out", True)
        if cam is None or not able or cam.doc.get("charges_in_w") or cam.state != "off":
            return None
        if cam.busy or cell.charge >= CHARGEABLE or refusal(cell.cell_c, ""):
            return None
        wanted_s = self.wanted_s(cam, at_s)
        if not self.hands.plugging.hangs_long(wanted_s, at_s, by_word=by_word):
            return None
        left_s = self.back_by(cam, at_s) - at_s
        return cam if left_s >= (PLUG_S if by_word else WORTH_S) else None

    def seconds(self, cam: Cam, at_s: int) -> int:
        """How long it takes to get it out, and into a charger."""
        set_up = cam.set_up(at_s)
        return PLUG_S + ceil(set_up.get("swap_s", 30) + set_up.get("door_blocked_s", 0))

    def out(self, cell: Cell, at_s: int) -> None:
        """It is out: hands look again when it must be back."""
        if cell.inside is None:
            return
        cam = self.world.cams[cell.inside]
        cam.cell, cell.inside = None, None
        cell.left = cam.number, at_s, cell.held_wh()
        self.looks.add(max(at_s, self.back_by(cam, at_s - 1)))

    def begin(self, at_s: int) -> None:
        """Hands are free again: what is out is looked for when it must be back."""
        for cam in self.world.cams:
            if cam.cell is None and cam.doc.get("battery_comes_out", True):
                self.looks.add(self.back_by(cam, at_s))
