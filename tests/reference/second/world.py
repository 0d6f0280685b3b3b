"""The whole trip, marched in half seconds."""

from __future__ import annotations

from datetime import datetime
from math import exp, floor
from typing import Any

from .camera import Cam
from .hands import Hands
from .physics import CELL_LAG_S, SELF_DISCHARGE_PER_S, STEP_S, Cell, Memory, Store

Doc = dict[str, Any]
AIR_STEP_S = 600
USABLE = 0.985


class World:
    """Everything that is carried, and the clock."""

    def __init__(self, document: Doc) -> None:
        self.document, kit = document, document["kit"]
        self.items: list[Doc] = document["trip"]["items"]
        self.starts: list[int] = []
        self.rows: list[tuple[int, int]] = []
        for number, item in enumerate(self.items):
            self.starts.append(len(self.rows))
            self.rows += [(number, second) for second in range(item["duration_s"])]
        self.end_s = len(self.rows)
        start = datetime.fromisoformat(document["trip"]["start"])
        self.into_step_s = (start.minute * 60 + start.second) % AIR_STEP_S
        self.at_s = 0
        self.airs: dict[int, float] = {}
        self.stirred = False
        self.warmth = {p["id"]: p["warmth"] for p in kit.get("pockets", [])}
        self.cells = [self._cell(b) for b in kit["batteries"]]
        self.stores = [self._store(s) for s in kit.get("sources", [])]
        self.cams = [Cam(self, n, document) for n in range(len(kit["cameras"]))]
        self.memories: list[Memory] = [
            Memory(c["id"], floor(c["gb"] * 1e9 * USABLE + 0.5) - c.get("used_bytes", 0))
            for c in kit.get("cards", [])
        ]
        self._fit()
        self.feeds: dict[int, Store] = {}
        self.live_before: list[tuple[bool, bool, bool]] = []
        self.hands = Hands(self)

    # -- how it begins ---------------------------------------------------------------

    def _cell(self, doc: Doc) -> Cell:
        family = next(f for f in self.document["kit"]["families"] if f["id"] == doc["family"])
        full = family["mah"] * family["nominal_v"] / 1000 * doc.get("health", 1.0)
        home = self.warmth.get(doc.get("pocket") or "", "bag")
        cell = Cell(doc["id"], doc["family"], full, doc.get("charge", 1.0), 0.0, home)
        cell.k = family.get("cold_k", 0.0)
        cell.cell_c = self.place(home, 0)
        return cell

    def _store(self, doc: Doc) -> Store:
        store = Store(doc)
        if store.is_bank:
            store.wh = doc["mah"] * 3.7 / 1000 * doc.get("health", 1.0)
            store.charge = doc.get("charge", 1.0)
            store.home = self.warmth.get(doc.get("pocket") or "", "bag")
            store.cell_c = self.place(store.home, 0)
            store.dead = store.charge <= store.floor()
        return store

    def _fit(self) -> None:
        """Each camera what the plan names, else the first of its family that no plan names."""
        named = {
            p.get(k) for p in self.document["plan"].get("cameras", []) for k in ("battery", "card")
        }
        for cam in self.cams:
            cam.body_c = self.air(0)
            wanted = cam.plan.get("battery")
            for cell in self.cells:
                fits = cell.family == cam.doc["battery_family"] and cell.inside is None
                if cell.name == wanted or (fits and not wanted and cell.name not in named):
                    cam.cell, cell.inside, cell.cell_c = cell, cam.number, cam.body_c
                    break
            wanted, memory = cam.plan.get("card"), cam.doc["memory"]
            if memory["kind"] == "fixed":
                reserved = memory.get("reserved_gb", 0.0) * 1e9
                cam.memory = Memory("fixed", floor(memory["gb"] * 1e9 * USABLE + 0.5) - reserved)
            else:
                for card in self.memories:
                    if card.name == wanted or (
                        not wanted and card.inside is None and card.name not in named
                    ):
                        cam.memory, card.inside = card, cam.number
                        break
            for store in self.stores:
                if store.doc["id"] == cam.plan.get("source"):
                    cam.store = store

    # -- what holds at a second ------------------------------------------------------

    def item(self, at_s: int) -> Doc:
        """The leg or stop of a second."""
        return self.items[self.rows[min(at_s, self.end_s - 1)][0]]

    def air(self, at_s: int) -> float:
        """Constant over ten minutes of the clock, as in their middle, within the item."""
        known = self.airs.get(at_s)
        if known is None:
            known = self.airs[at_s] = self._air(at_s)
        return known

    def _air(self, at_s: int) -> float:
        number, _ = self.rows[min(at_s, self.end_s - 1)]
        item, clock_s = self.items[number], min(at_s, self.end_s - 1) + self.into_step_s
        middle_s = clock_s // AIR_STEP_S * AIR_STEP_S + AIR_STEP_S / 2
        into_s = middle_s - self.into_step_s - self.starts[number]
        way = min(1.0, max(0.0, into_s / item["duration_s"]))
        low, high = item["temp_start_c"], item["temp_end_c"]
        return float(low + (high - low) * way)

    def place(self, home: str, at_s: int) -> float:
        """How warm it is where a unit lies."""
        return {"inside": 25.0, "outer": (25.0 + self.air(at_s)) / 2}.get(home, self.air(at_s))

    def stir(self) -> None:
        """Something happened that hands may want to look at."""
        self.stirred = True

    # -- the march -------------------------------------------------------------------

    def march(self) -> World:
        """The whole trip."""
        for at_s in range(self.end_s):
            self.at_s = at_s
            self._second(at_s)
            for half in (0.0, STEP_S):
                self._half(at_s, at_s + half)
        self.hands.finish(self.end_s)
        for cam in self.cams:
            cam.stop()
        return self

    def _second(self, at_s: int) -> None:
        self.hands.finish(at_s)
        for cam in self.cams:
            self._ends(cam, at_s)
        self._feed(at_s)
        for cam in self.cams:
            self._start(cam, at_s)
        if self.hands.look(at_s):
            self._feed(at_s)

    def _ends(self, cam: Cam, at_s: int) -> None:
        asked = cam.asked
        border = asked.parted(at_s)
        if cam.save_waits and self.hands.free[at_s] and cam.state == "on" and cam.loop_bytes:
            cam.save()
            if border:
                cam.state, cam.boot_left_s = "boot", 0.0
        cam.save_waits = cam.save_waits and not border
        if cam.state == "boot" and cam.boot_left_s <= 0:
            cam.causes = []
            cam.record()
        if not asked.asked[at_s]:
            if cam.state == "on" or (cam.state == "boot" and cam.boot_for <= at_s):
                cam.stop(at_s)
            if at_s and asked.asked[at_s - 1]:
                cam.causes = []
                if cam.state == "standby" and not any(asked.asked[at_s:]):
                    cam.state = "off"
        elif asked.parted(at_s) and at_s and asked.asked[at_s - 1]:
            self._border(cam, at_s)
        if at_s in asked.saves and cam.state == "on":
            if self.hands.pressed(cam, at_s):
                cam.save()
            else:
                cam.save_waits = True

    def _border(self, cam: Cam, at_s: int) -> None:
        asked = cam.asked
        same = asked.mode(at_s)["id"] == asked.mode(at_s - 1)["id"]
        streams = {asked.pattern(s)["kind"] for s in (at_s - 1, at_s)} <= {
            "roll",
            "takes",
            "windows",
        }
        if same and streams:
            return
        if not asked.flows(at_s):
            cam.stop()
        elif cam.state == "on":
            cam.record()

    def _start(self, cam: Cam, at_s: int) -> None:
        """What begins by itself, by a press or by a free hand ahead of time."""
        if cam.state not in ("off", "standby") or cam.busy:
            return
        asked = cam.asked
        if cam.state == "standby" and not asked.asked[at_s]:
            return
        ahead = next(
            (s for s in range(at_s, min(at_s + cam.boot_s, self.end_s - 1) + 1) if asked.asked[s]),
            None,
        )
        if self.hands.free[at_s] and cam.wants_hand and not asked.asked[at_s]:
            kept = list(cam.causes)
            cam.wants_hand = not cam.can_go_on(at_s)
            cam.causes = kept
        if ahead is None:
            return
        if not asked.asked[at_s]:
            if not (cam.alone or (self.hands.free[at_s] and not cam.wants_hand)):
                return
        elif not self.hands.starts(cam, at_s):
            if not cam.causes and not cam.wants_hand:
                cam.causes = ["no_start"]
            if asked.parted(at_s):
                self.stir()
            return
        store = cam.store
        by_hand = at_s == 0 or self.hands.free[at_s] or self.hands.free[at_s - 1]
        by_hand = by_hand and (not asked.asked[at_s] or asked.begins(at_s))
        if cam.power(ahead) != "battery" and store and store.is_bank and by_hand:
            if not store.awake:
                store.awake, store.idle_s = True, 0.0
            self._feed(at_s)
        if cam.can_go_on(ahead):
            cam.start(ahead)
        elif not asked.asked[at_s] or asked.begins(at_s) or asked.parted(at_s):
            cam.wants_hand = cam.wants_hand or not (cam.alone or "no_power" in cam.causes)
            self.stir()

    def _feed(self, at_s: int) -> None:
        """Who hangs on what, and what each may take."""
        number, second = self.rows[at_s]
        item = self.items[number]
        self.feeds = {}
        for store in self.stores:
            left = store.live(item, second)
            fed = [c for c in self.cams if c.store is store and self._wants_feed(c, at_s)]
            charged = [c for c in self.cams if c.plugged is store and c not in fed]
            self._hang(store, fed, charged)
            here = [cam for cam in fed + charged if cam.number in store.hung]
            here.sort(key=lambda c: (c.state not in ("on", "boot"), store.hung.index(c.number)))
            for cam in here:
                most = cam.doc.get("charges_in_w") or 1e9
                wants = self._wants(cam, at_s)
                port_w = store.doc["ports"][store.hung.index(cam.number)]
                cam.feed_w = min(port_w, most, left, wants)
                left -= cam.feed_w
                self.feeds[cam.number] = store
        for cam in self.cams:
            if cam.number not in self.feeds:
                cam.feed_w = 0.0

    @staticmethod
    def _hang(store: Store, fed: list[Cam], charged: list[Cam]) -> None:
        """Each on the first port that was free when it came; who is fed goes before who charges."""
        here = [cam.number for cam in fed + charged]
        store.hung = [one if one in here else None for one in store.hung]
        for cam in fed + charged:
            if cam.number in store.hung:
                continue
            if None not in store.hung and cam in fed:
                loose = [
                    n for n, one in enumerate(store.hung) if one in {c.number for c in charged}
                ]
                if loose:
                    store.hung[loose[-1]] = None
            if None in store.hung:
                store.hung[store.hung.index(None)] = cam.number

    def _wants_feed(self, cam: Cam, at_s: int) -> bool:
        return any(
            cam.power(s) != "battery" and cam.asked.job(s) is not None
            for s in (at_s, min(at_s + cam.boot_s, self.end_s - 1))
        )

    def _wants(self, cam: Cam, at_s: int) -> float:
        """Granted at most: what recording draws and the cell takes."""
        ahead = min(at_s + cam.boot_s, self.end_s - 1)
        fed = self._wants_feed(cam, at_s) or cam.state in ("on", "boot")
        draw = max(cam.watts(at_s), cam.watts(ahead)) / 0.95 if fed else 0.0
        takes = cam.cell is not None and cam.power(at_s) != "outside_only"
        takes = takes and not (cam.cell.refused or cam.pause or cam.cell.charge >= 0.99)
        return draw + (cam.cell.wh / 0.9 if takes else 0.0)

    def _half(self, at_s: int, now_s: float) -> None:
        for store in self.stores:
            store.load_w = 0.0
        for cam in self.cams:
            cam.account(now_s, asks=cam.asked.asked[at_s])
        for cam in self.cams:
            cam.march(at_s)
        for cell in self.cells:
            holder = None if cell.inside is None else self.cams[cell.inside]
            if holder is None or holder.power(at_s) == "outside_only":
                to_go = self.place(cell.home if holder is None else "bag", at_s) - cell.cell_c
                cell.cell_c += to_go * (1 - exp(-STEP_S / CELL_LAG_S))
                cell.charge -= min(cell.charge, SELF_DISCHARGE_PER_S * STEP_S)
        number, second = self.rows[at_s]
        for store in self.stores:
            store.drain(self.place(store.home, at_s))
        live = [
            (store.live(self.items[number], second) > 0, store.dead, store.awake)
            for store in self.stores
        ]
        if live != self.live_before:
            self.live_before = live
            self.stir()


def march(document: Doc) -> World:
    """March a document as loaded from JSON through its whole trip."""
    return World(document).march()
