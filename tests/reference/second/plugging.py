"""Which port something low is put on, by the plan's word or by itself (model/hands#plug)."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from .physics import CHARGEABLE, FULL, Cell, Dock, Gear, Holds, Store, refusal
from .tasks import PLUG_S, Task
from .unloading import Unloading

if TYPE_CHECKING:
    from .camera import Cam
    from .hands import Hands

Doc = dict[str, Any]
BEST = {"mains": 0, "vehicle": 1, "bank": 2, "dynamo": 3, "panel": 4}
DAY_S = 86_400
WORTH, LOW_W = 0.02, 0.25
NEVER_S, WAKE_AGAIN_S, WORTH_A_CABLE_S = 10**9, 3600, 600


class Plugging:
    """Cables of stores, and of things with a battery."""

    def __init__(self, hands: Hands) -> None:
        self.hands, self.world = hands, hands.world
        self.unloading = Unloading(hands)
        self.words: dict[str, dict[str, Doc]] = {}
        for said in self.world.document["plan"].get("plugs", []):
            self.words.setdefault(said["item"], {})[said["unit"]] = said

    def tasks(self, at_s: int) -> list[tuple[tuple[float, ...], Task]]:
        """Banks to wake, and what is low onto a port: the plan's own words first."""
        found: list[tuple[tuple[float, ...], Task]] = []
        said = self.words.get(self.world.item(at_s)["id"], {})
        things: list[Holds] = [*self.world.stores, *self.world.gears]
        for number, store in enumerate(self.world.stores):
            asleep = store.is_bank and not store.awake and not store.dead
            asleep = asleep and at_s >= store.woken_s + WAKE_AGAIN_S
            wanted = sum(self.world.feeding.would_take(one, at_s) for one in store.hung)
            if asleep and wanted >= LOW_W:
                found.append(((8, 0.0, number), Task("wake", None, at_s + PLUG_S, store=store)))
        for number, one in enumerate(things):
            word = said.get(one.doc["id"])
            if word is not None and not word.get("plug", True):
                continue
            by_word = word is not None
            if not self._wants_port(one, at_s, by_word=by_word):
                continue
            if not by_word and self.hands.charging == "never":
                continue
            to = (word or {}).get("to") or ""
            port = self.port(one, at_s, to)
            if port:
                task = Task("plug", None, at_s + PLUG_S, store=port, one=one, stays=bool(to))
                found.append(((7 if word else 9, round(one.charge, 2), 1000 + number), task))
        return found + self._docked(at_s)

    def _docked(self, at_s: int) -> list[tuple[tuple[float, ...], Task]]:
        """Low spares into bays, and chargers onto a source that gives, where theirs does not."""
        found: list[tuple[tuple[float, ...], Task]] = []
        number, second = self.world.rows[at_s]
        item = self.world.items[number]
        said, never = self.words.get(item["id"], {}), self.hands.charging == "never"
        for order, dock in enumerate([] if never else self.world.docks):
            powered = dock.on is not None and dock.on.live(item, second, at_s) > 0
            better = None if powered or dock.wants() <= 0 else self.port(dock, at_s)
            other = better if better is not dock.on else None
            if other and (other.is_bank or other.live(item, second, at_s) > 0):
                hang = Task("plug", None, at_s + PLUG_S, store=other, one=dock)
                found.append(((8.5, 0.0, order), hang))
        for order, cell in enumerate(self.world.cells):
            word = said.get(cell.name)
            if (word is None and never) or not (word or {}).get("plug", True):
                continue
            lies = cell.inside is None and not any(cell in dock.cells for dock in self.world.docks)
            low = lies and cell.charge < CHARGEABLE and not refusal(cell.cell_c, "")
            if low or self.unloading.holder(cell, at_s, by_word=word is not None):
                task = self._lay_in(cell, at_s, word or {})
                if task:
                    found.append(((7 if word else 9, round(cell.charge, 2), order), task))
        return found

    def _lay_in(self, cell: Cell, at_s: int, word: Doc) -> Task | None:
        number, second = self.world.rows[at_s]
        takes_s = PLUG_S
        if cell.inside is not None:
            takes_s = self.unloading.seconds(self.world.cams[cell.inside], at_s)
        for dock in self.world.docks:
            bay = word.get("place") or 0
            bays = dock.cells[bay - 1 : bay] if bay else dock.cells
            free = any(one is None or one.charge >= FULL - 1e-9 for one in bays)
            if cell.family not in dock.doc["families"] or not free:
                continue
            if word.get("to") not in (None, dock.doc["id"]):
                continue
            store = None
            if dock.on is None or dock.on.live(self.world.items[number], second, at_s) <= 0:
                store = self.port(dock, at_s)
                if store is None and dock.on is None:
                    continue
            end_s = at_s + takes_s
            return Task("plug", None, end_s, cell=cell, store=store, dock=dock, goal=bay - 1)
        return None

    def take_out(self, cell: Cell) -> None:
        """Out of the bay that it lies in."""
        for dock in self.world.docks:
            dock.cells = [None if one is cell else one for one in dock.cells]

    def _wants_port(self, one: Holds, at_s: int, *, by_word: bool) -> bool:
        """Low, or named by the plan; and worth the hands on the way."""
        one.accepts()
        able = one.on is None and not one.refused and (by_word or one.charge < CHARGEABLE)
        if isinstance(one, Store):
            return one.is_bank and able and self.hangs_long(NEVER_S, at_s, by_word=by_word)
        assert isinstance(one, Gear)
        used = (s for s in range(at_s, self.world.end_s) if one.used[s])
        return able and self.hangs_long(next(used, NEVER_S), at_s, by_word=by_word)

    def hangs_long(self, until_s: int, at_s: int, *, by_word: bool = False) -> bool:
        """Whether a cable that comes out at a second is worth the hands."""
        if by_word or self.world.item(at_s)["kind"] != "leg":
            return until_s > at_s + PLUG_S
        return min(until_s, self.hands.until(at_s)) >= at_s + PLUG_S + WORTH_A_CABLE_S

    def port(self, one: Cam | Holds | Dock, at_s: int, to: str = "") -> Store | None:
        """The best source with a free port that gives something now, or the one that is named."""
        number, second = self.world.rows[at_s]
        item = self.world.items[number]
        kinds = [s for s in self.world.stores if s is not one and not s.is_module]
        for store in sorted(kinds, key=lambda s: BEST[s.doc["kind"]]):
            plain = isinstance(one, Store) and not one.is_module
            if (to and store.doc["id"] != to) or (plain and store.is_bank and not to):
                continue
            cams = self.world.cams
            taken = sum(c.plugged is store for c in cams)
            taken += sum(c.store is store and c is not one and c.plugged is not store for c in cams)
            taken += sum(o.on is store for o in self.world.hanging())
            alive = store.live(item, second, at_s) > 0
            if store.doc["kind"] not in ("mains", "bank"):
                alive = self._ever(store, at_s)
            if store.is_bank:
                alive = not store.dead and store.charge > store.floor() + WORTH
                alive = alive and not self._is_upstream(one, store)
            if alive and taken < len(store.ports()):
                return store
        return None

    def _ever(self, store: Store, at_s: int) -> bool:
        """Whether it gives anything within a day."""
        return any(
            store.live(self.world.item(then), self.world.rows[then][1], then) > 0
            for then in range(at_s, min(self.world.end_s, at_s + DAY_S), 10)
        )

    @staticmethod
    def _is_upstream(one: Cam | Holds | Dock, store: Store) -> bool:
        """Whether it would charge itself, by way of others perhaps."""
        at: Store | None = store
        while at is not None:
            if at is one:
                return True
            at = at.on
        return False

    def cable(self, task: Task, at_s: int) -> None:
        """The cable is in, the battery in its bay, or the bank's button pressed."""
        if task.dock and task.cell:
            free = [n for n, one in enumerate(task.dock.cells) if one is None]
            full = [n for n, one in enumerate(task.dock.cells) if one and one.charge >= FULL - 1e-9]
            self.unloading.out(task.cell, at_s)
            task.dock.cells[task.goal if task.goal >= 0 else (free + full)[0]] = task.cell
            task.cell.refused, task.cell.cool, task.cell.topped = "", False, False
        if task.store is None:
            return
        if task.kind == "wake":
            task.store.woken_s = at_s
        task.store.awake, task.store.idle_s = True, 0.0
        one = task.dock or task.one
        if one is not None and None in task.store.hung:
            one.on = task.store
        if isinstance(one, Holds):
            one.stays = task.stays

    def left(self) -> None:
        """A stop is left: what hangs on a socket comes off, and modules that the plan leaves."""
        for one in self.world.hanging():
            if one.on is None:
                continue
            module = isinstance(one, Store) and one.is_module and not one.stays
            if module or one.on.doc["kind"] == "mains":
                one.loose()
                self.world.stir()
