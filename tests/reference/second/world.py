"""The whole trip, marched in half seconds."""

from __future__ import annotations

from datetime import datetime, timedelta
from math import exp, floor
from typing import Any

from numpy import array
from pandas import DatetimeIndex
from pvlib.irradiance import erbs
from pvlib.solarposition import get_solarposition

from .camera import Cam
from .feeding import Feeding
from .hands import Hands
from .physics import (
    CELL_LAG_S,
    CHARGEABLE,
    FULL,
    RATE_PER_H,
    SELF_DISCHARGE_PER_S,
    STEP_S,
    STORED,
    TAIL,
    Cell,
    Dock,
    Gear,
    Memory,
    Store,
    clear_sky_w_m2,
    refusal,
)

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
        self.start = start = datetime.fromisoformat(document["trip"]["start"])
        self.into_step_s = (start.minute * 60 + start.second) % AIR_STEP_S
        self.at_s = 0
        self.airs: dict[int, float] = {}
        self.stirred = False
        self.shone: dict[tuple[int, int], float] = {}
        self.clear: dict[int, tuple[float, Any, DatetimeIndex]] = {}
        self.warmth = {p["id"]: p.get("kept_c", p["warmth"]) for p in kit.get("pockets", [])}
        self.cells = [self._cell(b) for b in kit["batteries"]]
        self.stores = [self._store(s) for s in kit.get("sources", [])]
        self.cams = [Cam(self, n, document) for n in range(len(kit["cameras"]))]
        self.memories: list[Memory] = [
            Memory(c["id"], floor(c["gb"] * 1e9 * USABLE + 0.5) - c.get("used_bytes", 0))
            for c in kit.get("cards", [])
        ]
        self.gears = [self._gear(one) for one in kit.get("gear", [])]
        self.docks = [Dock(one, [None] * one.get("bays", 1)) for one in kit.get("chargers", [])]
        self._fit()
        self.feeding = Feeding(self)
        self.live_before: list[object] = []
        self.full: set[int] = set()
        self.barred: set[int] = set()
        self.low = {store.doc["id"] for store in self.stores}
        self.turns: dict[int, tuple[str, bool]] = {}
        self.hands = Hands(self)

    # -- how it begins ---------------------------------------------------------------

    def _cell(self, doc: Doc) -> Cell:
        family = next(f for f in self.document["kit"]["families"] if f["id"] == doc["family"])
        full = family["mah"] * family["nominal_v"] / 1000 * doc.get("health", 1.0)
        home = self.warmth.get(doc.get("pocket") or "", "bag")
        cell = Cell(doc["id"], doc["family"], full, doc.get("charge", 1.0), 0.0, home)
        cell.k, cell.health = family.get("cold_k", 0.0), doc.get("health", 1.0)
        cell.rate = family.get("rate_per_h") or RATE_PER_H
        cell.tail = 1.0 - (family.get("taper_from") or 1.0 - TAIL)
        cell.cell_c = self.place(home, 0)
        return cell

    def _store(self, doc: Doc) -> Store:
        store = Store(doc)
        if doc["kind"] in ("dynamo", "panel"):
            store.given = [self._given_w(doc, at_s) for at_s in range(self.end_s)]
        if store.is_bank:
            store.wh = self._store_wh(doc) * doc.get("health", 1.0)
            store.charge = doc.get("charge", 1.0)
            store.home = self.warmth.get(doc.get("pocket") or "", "bag")
            store.cell_c = self.place(store.home, 0)
            store.dead = store.charge <= store.floor()
        return store

    def _given_w(self, doc: Doc, at_s: int) -> float:
        """By speed over the ground, or by the light on a panel that lies level."""
        item = self.item(at_s)
        if doc["kind"] == "dynamo":
            way = (item.get("speed_mps", 0.0) - 2.8) / (4.2 - 2.8)
            return float(doc["rated_w"] * min(1.0, max(0.0, way)) * 0.7)
        if not self.document["trip"].get("place") or doc.get("out_at", "always") not in (
            "always",
            item["kind"] + "s",
        ):
            return 0.0
        laid = item["kind"] == "stop" or doc.get("on_legs") == "laid"
        light = self._clear(at_s)[0] * item.get("sky", 1.0)
        return float(doc["rated_w"] * light / 1000 * (0.6 if laid else 0.35))

    def _store_wh(self, doc: Doc) -> float:
        """By its label, or by how long its camera lasts with it."""
        if doc.get("mah"):
            return float(doc["mah"] * 3.7 / 1000)
        cameras = self.document["kit"]["cameras"]
        camera = next(one for one in cameras if one["id"] == doc["fits"])
        drawn = camera["modes"][0]["draw"]["watts"] * doc["lasts_min"] / 60
        families = self.document["kit"]["families"]
        family = next(one for one in families if one["id"] == camera["battery_family"])
        return float((drawn - family["mah"] * family["nominal_v"] / 1000) / STORED)

    def _gear(self, doc: Doc) -> Gear:
        named = {
            one["item"] for one in self.document["plan"].get("gear", []) if one["gear"] == doc["id"]
        }
        used = [self.items[number]["id"] in named for number, _ in self.rows]
        for cam in self.cams:
            if cam.doc["id"] == doc.get("serves"):
                used = [a or b for a, b in zip(used, cam.asked.asked, strict=False)]
        home = self.warmth.get(doc.get("pocket") or "", "bag")
        return Gear(doc, doc["wh"], doc.get("charge", 1.0), self.place(home, 0), home, used=used)

    def _fit(self) -> None:
        """Each camera what the plan names, else the first of its family that no plan names.

        One that is never asked, nor copied from, takes nothing out of the bag.
        """
        named = {
            p.get(k) for p in self.document["plan"].get("cameras", []) for k in ("battery", "card")
        }
        copied = {one.get("camera") for one in self.document["plan"].get("copies", [])}
        for cam in self.cams:
            cam.body_c = self.air(0)
            wanted = cam.plan.get("battery")
            takes = bool(cam.asked.jobs) or cam.doc["id"] in copied
            built_in = not cam.doc.get("battery_comes_out", True)
            for cell in self.cells:
                fits = cell.family == cam.doc["battery_family"] and cell.inside is None
                fits = fits and (takes or built_in)
                if cell.name == wanted or (fits and not wanted and cell.name not in named):
                    cam.cell, cell.inside, cell.cell_c = cell, cam.number, cam.body_c
                    break
            wanted, memory = cam.plan.get("card"), cam.doc["memory"]
            if memory["kind"] == "fixed":
                reserved = memory.get("reserved_gb", 0.0) * 1e9
                cam.memory = Memory("fixed", floor(memory["gb"] * 1e9 * USABLE + 0.5) - reserved)
                if cam.doc.get("slot") and takes:
                    free = (card for card in self.memories if card.inside is None)
                    cam.beside = next(free, None)
                    if cam.beside:
                        cam.beside.inside = cam.number
                    cam.choose_memory(0)
            else:
                sizes = {one["id"]: one["gb"] for one in self.document["kit"].get("cards", [])}
                for card in self.memories:
                    free_one = card.inside is None and card.name not in named
                    free_one = free_one and sizes[card.name] <= memory["largest_gb"]
                    if card.name == wanted or (not wanted and free_one and takes):
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

    def piece(self, at_s: int) -> tuple[int, int]:
        """The item of a second and its step of the clock: air, height and light hold in it."""
        return self.rows[at_s][0], (at_s + self.into_step_s) // AIR_STEP_S

    def _air(self, at_s: int) -> float:
        item, way = self.middle(at_s)
        low, high = item["temp_start_c"], item["temp_end_c"]
        return float(low + (high - low) * way)

    def middle(self, at_s: int) -> tuple[Doc, float]:
        """The leg or stop of a second, and how much of it is over in the middle of its step."""
        number, _ = self.rows[min(at_s, self.end_s - 1)]
        clock_s = min(at_s, self.end_s - 1) + self.into_step_s
        middle_s = clock_s // AIR_STEP_S * AIR_STEP_S + AIR_STEP_S / 2
        into_s = middle_s - self.into_step_s - self.starts[number]
        item = self.items[number]
        return item, min(1.0, max(0.0, into_s / item["duration_s"]))

    def height_m(self, at_s: int) -> float:
        """Over the sea."""
        item, way = self.middle(at_s)
        here: float = (self.document["trip"].get("place") or {}).get("height_m", 0.0)
        if item["kind"] == "stop":
            return float(item.get("height_m", here))
        start, end = item.get("height_start_m"), item.get("height_end_m")
        first = start if start is not None else end if end is not None else here
        last = end if end is not None else first
        return float(first + (last - first) * way)

    def sun_w_m2(self, at_s: int) -> float:
        """On a small body: beam, half the sky, and what the ground throws back, by the share."""
        item, place = self.item(at_s), self.document["trip"].get("place")
        share = item.get("sun_share", 0.0)
        if not place or not share:
            return 0.0
        key = at_s - (at_s + self.into_step_s) % AIR_STEP_S, self.rows[at_s][0]
        if key not in self.shone:
            clear, zenith, times = self._clear(at_s)
            level = array([clear * item.get("sky", 1.0)])
            parted = erbs(level, zenith, times.day_of_year.to_numpy())
            thrown = (0.8 if item.get("snow") else 0.2) * level
            self.shone[key] = float((parted["dni"] + 0.5 * parted["dhi"] + thrown)[0])
        return share * self.shone[key]

    def _clear(self, at_s: int) -> tuple[float, Any, DatetimeIndex]:
        """Clear light on level ground in the middle of a step, the sun's zenith, and when."""
        step_s = at_s - (at_s + self.into_step_s) % AIR_STEP_S
        if step_s not in self.clear:
            place = self.document["trip"]["place"]
            times = DatetimeIndex([self.start + timedelta(seconds=step_s + AIR_STEP_S / 2)])
            args = place["latitude"], place["longitude"], place.get("height_m", 0.0)
            zenith = get_solarposition(times.tz_localize("UTC"), *args, method="nrel_numpy")
            degrees = zenith["zenith"].to_numpy()
            self.clear[step_s] = clear_sky_w_m2(90.0 - degrees[0]), degrees, times
        return self.clear[step_s]

    def place(self, home: str | float, at_s: int) -> float:
        """How warm it is where a unit lies."""
        if isinstance(home, float | int):
            return float(home)
        air = self.air(at_s)
        warm = 20 + max(-5.0, min(5.0, air))
        return {"inside": 25.0, "outer": (warm + air) / 2}.get(home, air)

    def hanging(self) -> list[Store | Gear | Dock]:
        """What may hang on a port, but cameras."""
        return [*self.stores, *self.gears, *self.docks]

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
        self.feeding.settle(at_s)
        for cam in self.cams:
            self._start(cam, at_s)
        if self.hands.look(at_s):
            self.feeding.settle(at_s)

    def _ends(self, cam: Cam, at_s: int) -> None:
        asked = cam.asked
        border = asked.parted(at_s)
        if cam.save_waits and self.hands.free[at_s] and cam.state == "on" and cam.loop_bytes:
            cam.save()
            if border:
                cam.state, cam.boot_left_s = "boot", 0.0
        if border:
            cam.choose_memory(at_s)
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
        elif cam.state == "on" and cam.can_go_on(at_s):
            cam.record()
        elif cam.state == "on":
            cam.gives_out("card_full", hand=True)

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
                covered = cam.feed_w * cam.through >= cam.watts(at_s) - 1e-9
                alone = cam.power(at_s) == "outside_only" and not covered
                cam.causes = ["no_power" if alone else "no_start"]  # of two at once the graver
            if asked.parted(at_s):
                self.stir()
            return
        store = cam.store
        by_hand = at_s == 0 or self.hands.free[at_s] or self.hands.free[at_s - 1]
        by_hand = by_hand and (not asked.asked[at_s] or asked.begins(at_s))
        if cam.power(ahead) != "battery" and store and store.is_bank and by_hand:
            while store is not None:
                if not store.awake:
                    store.awake, store.idle_s = True, 0.0
                store = store.on
            self.feeding.settle(at_s)
        cam.choose_memory(ahead)
        if cam.can_go_on(ahead):
            cam.start(ahead)
        elif not asked.asked[at_s] or asked.begins(at_s) or asked.parted(at_s):
            cam.wants_hand = cam.wants_hand or not (cam.alone or "no_power" in cam.causes)
            cam.ran_full = cam.ran_full or "card_full" in cam.causes
            self.stir()

    def _half(self, at_s: int, now_s: float) -> None:
        for store in self.stores:
            store.load_w = 0.0
        for cam in self.cams:
            cam.account(now_s, asks=cam.asked.asked[at_s])
        for cam in self.cams:
            cam.march(at_s)
        docked = {id(cell) for dock in self.docks for cell in dock.cells}
        for cell in self.cells:
            holder = None if cell.inside is None else self.cams[cell.inside]
            if holder is None or holder.power(at_s) == "outside_only":
                lies = cell.home if holder is None and id(cell) not in docked else "bag"
                cell.cell_c += (self.place(lies, at_s) - cell.cell_c) * (
                    1 - exp(-STEP_S / CELL_LAG_S)
                )
                if id(cell) not in docked:
                    cell.charge -= min(cell.charge, SELF_DISCHARGE_PER_S * STEP_S)
        for dock in self.docks:
            dock.march()
        for gear in self.gears:
            gear.march(at_s, self.place(gear.home, at_s))
        number, second = self.rows[at_s]
        for store in sorted(self.stores, key=lambda one: not one.is_module):
            store.fill()
        for store in self.stores:
            store.drain(self.place(store.home, at_s))
        item = self.items[number]
        live: list[object] = [
            (store.live(item, second, at_s) > 0, store.awake) for store in self.stores
        ]
        for one in (*self.stores, *self.gears):
            done = not one.accepts() and not one.refused
            live.append((one.dead, one.refused, done and one.on is not None))
        low = {s.doc["id"] for s in self.stores if s.is_bank and s.charge < CHARGEABLE}
        if low - self.low:
            self.stir()
        self.low = low
        live += [one.used[at_s] for one in self.gears]
        for cell in self.cells:
            if id(cell) in docked:
                live.append((cell.name, cell.refused, cell.topped))
            elif self.docks and cell.inside is None and cell.charge < CHARGEABLE:
                live.append((cell.name, refusal(cell.cell_c, "")))
        barred = {c.number for c in self.cams if c.cell and refusal(c.cell.cell_c, "")}
        if self.docks and any(self.cams[n].state == "off" for n in self.barred - barred):
            self.stir()  # what was too hot or cold in it may be taken out to charge
        self.barred = barred
        hung = [c for c in self.cams if c.cell and any(c in store.hung for store in self.stores)]
        turns = {c.number: (c.cell.refused, c.pause) for c in hung if c.cell}
        if any(self.turns.get(number, turn) != turn for number, turn in turns.items()):
            self.stir()
        self.turns = turns
        full = {c.number for c in hung if c.cell and c.cell.charge >= FULL - 1e-6}
        if full - self.full:
            self.stir()
        self.full = full
        if live != self.live_before:
            self.live_before = live
            if not self.hands.plugged:  # what hands did they have looked at
                self.stir()
        self.hands.plugged = False


def march(document: Doc) -> World:
    """March a document as loaded from JSON through its whole trip."""
    return World(document).march()
