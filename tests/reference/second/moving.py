"""Which camera is moved to another mount, and when (model/hands#moving)."""

from __future__ import annotations

from math import ceil
from typing import TYPE_CHECKING

from .tasks import Task

if TYPE_CHECKING:
    from .camera import Cam
    from .hands import Hands

RANK = {"must": 0, "want": 1, "nice": 2}


class Moving:
    """Moves of all cameras."""

    def __init__(self, hands: Hands) -> None:
        self.hands, self.world = hands, hands.world
        self.changes = {cam.number: self._changes(cam) for cam in self.world.cams}
        self.looks = {
            second
            for cam in self.world.cams
            for pair in self.changes[cam.number]
            for second in pair
            if self.takes(cam, pair[1], gloves=True)
        }

    def _changes(self, cam: Cam) -> list[tuple[int, int]]:
        """Where a stretch ends and the next, on another mount, begins."""
        found, last = [], None
        for second in range(self.world.end_s):
            if not cam.asked.asked[second]:
                continue
            if last is not None and cam.asked.worn(last) != cam.asked.worn(second):
                found.append((last + 1, second))
            last = second
        return found

    def takes(self, cam: Cam, at_s: int, *, gloves: bool) -> int:
        """Seconds to put it where a second wants it."""
        bare, gloved = cam.doc.get("move_s", 60.0), cam.doc.get("move_gloved_s", 120.0)
        for known in cam.doc.get("mounts", []):
            if known["mount"] == cam.asked.worn(at_s)[1] and known.get("move_s") is not None:
                bare = known["move_s"]
                gloved = bare if known.get("move_gloved_s") is None else known["move_gloved_s"]
        return ceil(max(bare, gloved) if gloves else bare)

    def task(self, cam: Cam, at_s: int) -> tuple[tuple[float, ...], Task] | None:
        """The move that is due now, with its rank."""
        asked = cam.asked
        goal = next((s for s in range(at_s, self.world.end_s) if asked.asked[s]), None)
        if goal is None or cam.busy or goal > self.hands.horizon(at_s):
            return None
        first = goal
        if goal == at_s:  # it is in its stretch: free hands must have held since that began
            while first and asked.asked[first - 1] and asked.where[first - 1] == asked.where[first]:
                first -= 1
                if not self.hands.free[first]:
                    return None
        start = next((s for s in range(self.world.end_s) if asked.asked[s]), at_s)
        sits = cam.worn or asked.worn(start)
        seconds = self.takes(cam, at_s=goal, gloves=bool(self.world.item(at_s).get("gloves")))
        if sits == asked.worn(goal) or not seconds:
            return None
        job = asked.job(goal) or {}
        key = (RANK[job.get("importance", "want")], (goal - at_s) / 3600, cam.number)
        return key, Task("move", cam, at_s + seconds, goal=goal)

    def due_s(self, cam: Cam, end_s: int) -> int:
        """Seconds of a move that is due in the free hands that end then."""
        horizon = end_s
        while horizon < self.world.end_s and not self.hands.free[horizon]:
            horizon += 1
        gloves = bool(self.world.item(end_s - 1).get("gloves"))
        for ended, begins in self.changes[cam.number]:
            if end_s <= begins <= horizon and ended <= end_s:
                return self.takes(cam, begins, gloves=gloves)
        return 0
