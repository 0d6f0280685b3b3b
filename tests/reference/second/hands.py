"""One pair of hands: who can start what, and what is swapped, plugged and brought back when."""

from __future__ import annotations

from math import ceil
from typing import TYPE_CHECKING, Any

from .choosing import Choosing
from .copying import Copying
from .moving import Moving
from .physics import CHARGEABLE
from .plugging import Plugging
from .tasks import PLUG_S, RESTART_S, Task

if TYPE_CHECKING:
    from .camera import Cam
    from .world import World

Doc = dict[str, Any]


class Hands:
    """The person of the trip."""

    def __init__(self, world: World) -> None:
        self.world = world
        self.free: list[bool] = []
        self.press: list[bool] = []
        self.awake: list[bool] = []
        for item in world.items:
            for second in range(item["duration_s"]):
                asleep = item.get("asleep") or {"start_s": 0, "duration_s": 0}
                sleeps = asleep["start_s"] <= second < asleep["start_s"] + asleep["duration_s"]
                hands = "free" if item["kind"] == "stop" else item.get("hands", "stops")
                self.awake.append(not sleeps)
                self.free.append(hands == "free" and not sleeps)
                self.press.append(hands != "never" and not sleeps)
        self.free.append(False)
        self.ends = [0] * len(self.free)
        for second in reversed(range(len(self.free))):
            goes_on = self.free[second] and second + 1 < len(self.free)
            self.ends[second] = self.ends[second + 1] if goes_on else second
        self.policy = world.document["plan"].get("swap_policy", "early")
        self.charging = world.document["plan"].get("charging", "auto")
        self.manual: dict[tuple[str, str], str | None] = {
            (s["camera"], s["item"]): s.get("battery")
            for s in world.document["plan"].get("swaps", [])
        }
        self.swapped: set[tuple[str, str]] = set()
        self.cards: dict[tuple[str, str], str | None] = {
            (s["camera"], s["item"]): s.get("card")
            for s in world.document["plan"].get("card_swaps", [])
        }
        self.cards_done: set[tuple[str, str]] = set()
        plan = world.document["plan"]
        self.leaving = {
            (kind, s["camera"], s["item"])
            for kind in ("swaps", "card_swaps")
            for s in plan.get(kind, [])
            if s.get("when") == "leaving"
        }
        taken = {memory.name for memory in world.memories if memory.inside is not None}
        kit = world.document["kit"]
        self.loose_gb = [card["gb"] for card in kit.get("cards", []) if card["id"] not in taken]
        self.plugging = Plugging(self)
        self.modules_done: set[tuple[str, str]] = set()
        self.task: Task | None = None
        self.done: list[tuple[str, str, int, str]] = []
        self.queue = self.settling = self.plugged = False
        self.choosing = Choosing(self)
        self.copying = Copying(self)
        self.moving = Moving(self)
        self.last: dict[int, int] = {}
        starts, items = world.starts, world.items
        left = {item for _, _, item in self.leaving}
        self.leaves = {
            self.leaving_s(start) for start, i in zip(starts, items, strict=True) if i["id"] in left
        }

    # -- who starts ------------------------------------------------------------------

    def pressed(self, cam: Cam, at_s: int) -> bool:
        """Whether a press, or a word, reaches a camera now."""
        return self._press(cam, at_s, at_s) or (
            bool(cam.doc.get("answers_to")) and self.awake[at_s]
        )

    def _press(self, cam: Cam, at_s: int, wanted_s: int) -> bool:
        """Whether a hand presses at a second what sits as another second wants it."""
        mount = cam.asked.worn(wanted_s)[1]
        known = [one for one in cam.doc.get("mounts", []) if one["mount"] == mount]
        reached = all(one.get("pressed", True) for one in known)
        return self.press[at_s] if reached else self.free[at_s]

    def starts(self, cam: Cam, at_s: int) -> bool:
        """Whether somebody or something starts a camera that is asked and off."""
        if "clip_limit" in cam.causes:
            # the longest clip is over, and it does not go on by itself (model/memory#clips)
            return False
        if cam.alone or self._power_is_back(cam, at_s):
            return True
        fresh = cam.asked.begins(at_s) or (cam.asked.parted(at_s) and "no_start" in cam.causes)
        before = at_s == 0 or self._press(cam, at_s - 1, at_s)
        return not cam.wants_hand and fresh and (self.pressed(cam, at_s) or before)

    def _power_is_back(self, cam: Cam, at_s: int) -> bool:
        covered = cam.feed_w * cam.through >= cam.watts(at_s)
        return covered and ("no_power" in cam.causes or cam.dead)

    # -- looking ---------------------------------------------------------------------

    def finish(self, at_s: int) -> None:
        """What ends now."""
        if self.task is None or self.task.end_s > at_s:
            return
        task, self.task = self.task, None
        cam, self.queue = task.cam, True
        self.done.append((task.kind, cam.doc["id"] if cam else "", at_s, task.named()))
        if cam is None:
            self.plugging.cable(task, at_s)
            self.plugged = True
            return
        cam.busy = False
        if task.kind == "module" and task.store:
            cam.store = task.store
            task.store.loose()
        if task.kind == "swap" and task.cell:
            if cam.cell:
                cam.cell.inside = None
                if not task.by_word:
                    cam.cell.left = cam.number, at_s, cam.cell.held_wh()
            self.plugging.take_out(task.cell)
            cam.cell, task.cell.inside = task.cell, cam.number
            cam.dead, cam.cause, cam.off_for = False, "", ""
        if task.kind == "card" and task.card:
            cam.memory, task.card.inside = task.card, cam.number
        if task.kind == "plug":
            cam.plugged = task.store
            return
        if task.kind in ("copy", "copy_end"):
            self.copying.cable(task, at_s)
            return
        if task.kind == "wake" and task.store:
            task.store.awake, task.store.idle_s, task.store.woken_s = True, 0.0, at_s
            return
        if task.kind == "move":
            cam.worn = cam.asked.worn(task.goal)
        cam.wants_hand = False
        cam.causes = []
        self.begin(cam, at_s)

    def begin(self, cam: Cam, at_s: int) -> None:
        """After a hand was on it: on, if it is asked."""
        if cam.asked.asked[at_s] and cam.state in ("off", "standby"):
            cam.choose_memory(at_s)
            if cam.can_go_on(at_s):
                cam.start(at_s)
            else:
                cam.wants_hand = not cam.alone
                cam.ran_full = "card_full" in cam.causes
                self.queue = True

    def look(self, at_s: int) -> bool:
        """At an instant of decision, begin the work that comes first."""
        self._unplug(at_s)
        if self.task or not self.free[at_s]:
            self.world.stirred = self.world.stirred and not self.free[at_s]
            return False
        begins = at_s == 0 or not self.free[at_s - 1]
        first = (
            at_s in self.moving.looks
            or at_s in self.plugging.unloading.looks
            or at_s in self.leaves
            or self.world.rows[at_s][1] == 0
            or any(job.end_s <= at_s for job in self.copying.jobs)
        )
        if not (begins or first or self.queue or self.world.stirred or at_s == self.last_s(at_s)):
            return False
        if begins:
            self.plugging.unloading.begin(at_s)
        if begins or at_s >= self.last_s(at_s):
            self.settling = True
        elif not self.queue:
            self.settling = False
        self.queue = self.world.stirred = False
        tasks = sorted(self._tasks(at_s), key=lambda found: found[0])
        for _, task in tasks:
            if task.end_s <= self.until(at_s):
                self._take_up(task, at_s)
                return True
        return False

    def until(self, at_s: int) -> int:
        """End of the present interval of free hands."""
        return self.ends[at_s]

    def horizon(self, at_s: int) -> int:
        """Start of the next interval of free hands, else the trip's end."""
        at_s = self.until(at_s)
        while at_s < self.world.end_s and not self.free[at_s]:
            at_s += 1
        return at_s

    def horizon_of(self, cam: Cam, at_s: int) -> int:
        """That; one whose battery is out must have it back before the next stop ends."""
        after = self.horizon(at_s)
        return self.until(after) if cam.cell is None and after < self.world.end_s else after

    def last_s(self, at_s: int) -> int:
        """The end of free hands less the swaps still due, as they take then."""
        end_s = self.until(at_s)
        if end_s in self.last:
            return self.last[end_s]
        gloved = self.world.item(end_s - 1).get("gloves")
        asked = [cam for cam in self.world.cams if any(cam.asked.asked)]
        wanted = self._changing_s(asked, end_s, gloved=bool(gloved))
        start_s = end_s
        while start_s and self.free[start_s - 1]:
            start_s -= 1
        wanted += sum(self.moving.due_s(cam, end_s) for cam in self.world.cams)
        here = {self.world.item(second)["id"] for second in range(start_s, end_s)}
        cables = [one for one in self.copying.copies if one.get("by") != "radio"]
        wanted += PLUG_S * sum(one["item"] in here for one in cables)
        self.last[end_s] = max(start_s, end_s - wanted)
        return self.last[end_s]

    def _changing_s(self, asked: list[Cam], end_s: int, *, gloved: bool) -> int:
        """Seconds to change whatever can be changed in cameras before a second, and to boot."""
        at_s, whole = min(end_s, self.world.end_s - 1), 0
        for cam in asked:
            swap_s = self.seconds(cam, at_s, gloved=gloved)
            modules = [s for s in self.world.stores if s.doc.get("fits") == cam.doc["id"]]
            whole += swap_s if cam.doc.get("battery_comes_out", True) else 0
            whole += swap_s if len(modules) > 1 else 0
            slot = cam.slot()
            if slot and any(gb <= slot.get("largest_gb", 0) for gb in self.loose_gb):
                whole += self.choosing.card_s(cam, at_s, gloved=gloved)
        return whole + self.boots_s(asked, end_s)

    def boots_s(self, asked: list[Cam], end_s: int) -> int:
        """The longest boot of what is asked as hands go."""
        boots = 0
        for cam in asked:
            ahead = range(end_s, min(self.world.end_s, end_s + cam.boot_s))
            if any(cam.asked.asked[second] for second in ahead):
                boots = max(boots, cam.boot_s)
        return boots

    def leaving_s(self, at_s: int) -> int:
        """The last chance for what the plan does as the present leg or stop is left."""
        number, _ = self.world.rows[at_s]
        item = self.world.items[number]
        start_s = self.world.starts[number]
        end_s = start_s + item["duration_s"]
        if not self.free[end_s - 1]:
            return start_s
        if self.until(end_s - 1) <= end_s:
            return max(start_s, self.last_s(end_s - 1))
        words = {*self.manual, *self.cards}
        named = [c for c in self.world.cams if (c.doc["id"], item["id"]) in words]
        gloved = bool(item.get("gloves"))
        return max(start_s, end_s - self._changing_s(named, end_s, gloved=gloved))

    def seconds(self, cam: Cam, at_s: int, *, gloved: bool | None = None) -> int:
        """How long a swap takes, bare or gloved."""
        set_up = cam.set_up(at_s)
        if gloved is None:
            gloved = self.world.item(at_s).get("gloves", False)
        takes = set_up.get("swap_gloved_s", 60) if gloved else set_up.get("swap_s", 30)
        return ceil(takes + set_up.get("door_blocked_s", 0))

    def _take_up(self, task: Task, at_s: int) -> None:
        cam, self.task = task.cam, task
        if cam is None:
            return
        if task.kind == "swap":
            self.swapped.add((cam.doc["id"], self.world.item(at_s)["id"]))
        if task.kind == "plug":
            if task.store and task.store.is_bank:
                task.store.awake, task.store.idle_s = True, 0.0
            return
        if task.kind in ("restart", "wake", "copy", "copy_end"):
            self.copying.begun |= {task.copy}
            return
        if task.kind == "module" and task.store and task.by_word:
            self.modules_done.add((task.store.doc["id"], self.world.item(at_s)["id"]))
        hot_swap = cam.set_up(at_s).get("hot_swap", False) and task.kind in ("swap", "module")
        if not hot_swap:
            cam.stop()
            cam.busy = True
            cam.causes = ["move" if task.kind == "move" else "swap"]
        if task.kind == "card" and cam.memory:
            cam.memory.inside = None
        if task.kind == "card":
            self.cards_done.add((cam.doc["id"], self.world.item(at_s)["id"]))

    # -- what there is to do ---------------------------------------------------------

    def _tasks(self, at_s: int) -> list[tuple[tuple[float, ...], Task]]:
        found: list[tuple[tuple[float, ...], Task]] = []
        for cam in self.world.cams:
            rank, left = self.choosing.rank(cam, at_s)
            key = (rank, left, cam.number)
            module = self.choosing.module(cam, at_s)
            back = self.choosing.back_in(cam, at_s)
            swap = None if module or back else self.choosing.swap(cam, at_s)
            for_copy = self.choosing.for_copy(cam, at_s)
            if back:
                found.append(((6.5, 0.0, cam.number), back))
            elif module:
                found.append(((0.0, 0.0, cam.number) if module.by_word else key, module))
            elif swap:
                found.append(((0.0, 0.0, cam.number) if swap.by_word else key, swap))
            elif for_copy:
                found.append(((9.5, 0.0, cam.number), for_copy))
            elif self._restarts(cam, at_s):
                found.append((key, Task("restart", cam, at_s + RESTART_S)))
            move = self.moving.task(cam, at_s)
            if move:
                found.append(move)
            card = None if back else self.choosing.card(cam, at_s)
            if card:
                found.append(((0.0, -1.0, cam.number, 1) if card.by_word else (*key, 1), card))
            store = self.plugging.port(cam, at_s) if self._low(cam, at_s) else None
            if store:
                charge = round(cam.cell.charge, 2) if cam.cell else 1.0
                found.append(
                    ((9, charge, cam.number), Task("plug", cam, at_s + PLUG_S, store=store))
                )
        return found + self.plugging.tasks(at_s) + self.copying.tasks(at_s)

    def _restarts(self, cam: Cam, at_s: int) -> bool:
        if cam.state != "off" or cam.busy or not cam.asked.asked[at_s] or cam.alone:
            return False
        kept = list(cam.causes)
        possible = cam.can_go_on(at_s)
        cam.causes = kept
        return possible

    # -- plugging --------------------------------------------------------------------

    def _low(self, cam: Cam, at_s: int) -> bool:
        """Whether its battery wants a port, in the camera."""
        able = cam.doc.get("charges_in_w") and cam.cell and cam.plugged is None
        if self.charging == "never" or not able or cam.busy:
            return False
        assert cam.cell is not None
        wanted_s = self.plugging.unloading.wanted_s(cam, at_s)
        return cam.cell.charge < CHARGEABLE and self.plugging.hangs_long(wanted_s, at_s)

    def _unplug(self, at_s: int) -> None:
        """Off when it is wanted, when its power has gone, when the stop is left."""
        number, second = self.world.rows[at_s]
        item = self.world.items[number]
        left = at_s > 0 and self.free[at_s - 1] and not self.free[at_s] and second == 0
        for cam in self.world.cams:
            store = cam.plugged
            if store is None:
                continue
            ahead = range(at_s, min(self.world.end_s, at_s + cam.boot_s) + 1)
            gone = not store.is_bank and store.live(item, second, at_s) <= 0
            if left or gone or any(cam.asked.asked[s] for s in ahead):
                cam.plugged = None
                self.world.stir()
        if left:
            self.plugging.left()
