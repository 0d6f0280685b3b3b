"""Who hangs on what, and what each may take.

Source: model/charging#through, model/charging#chains, model/hands#plug.
"""

from __future__ import annotations

from typing import TYPE_CHECKING

from .asked import frame_s
from .camera import Cam
from .physics import FULL, INTO, Cell, Dock, Gear, Store

if TYPE_CHECKING:
    from .world import World


BANK_WAITS_S = 30


class Feeding:
    """Cables, and what goes through each in a second."""

    def __init__(self, world: World) -> None:
        self.world = world
        self.feeds: dict[int, Store] = {}

    def settle(self, at_s: int) -> None:
        """Everything on its port, and given what it may take: modules after what feeds them."""
        world = self.world
        number, second = world.rows[at_s]
        self.feeds = {}
        for gear in world.gears:
            if gear.used[at_s]:
                gear.loose()
        for store in sorted(world.stores, key=lambda one: one.is_module):
            self._give(store, at_s, store.live(world.items[number], second, at_s))
        for cam in world.cams:
            if cam.number not in self.feeds:
                cam.feed_w = 0.0

    def _give(self, store: Store, at_s: int, left: float) -> None:
        cams = self.world.cams
        fed = [c for c in cams if c.store is store and self.wants_feed(c, at_s)]
        charged: list[object] = [c for c in cams if c.plugged is store and c not in fed]
        charged += [one for one in self.world.hanging() if one.on is store]
        self._hang(store, list(fed), charged)
        here = [(n, one) for n, one in enumerate(store.hung) if one is not None]
        here.sort(key=lambda pair: (not _runs(pair[1]), pair[0]))
        for port, one in here:
            given = min(store.ports()[port], left, self.wants(one, at_s))
            left -= given
            if isinstance(one, Cam):
                one.feed_w = given
                self.feeds[one.number] = store
            elif isinstance(one, Store | Gear | Dock):
                one.granted_w = given

    @staticmethod
    def _hang(store: Store, fed: list[object], charged: list[object]) -> None:
        """Each on the first port that was free when it came; who is fed goes before who charges."""
        here = fed + charged
        store.hung = [one if one in here else None for one in store.hung]
        for one in here:
            if one in store.hung:
                continue
            if None not in store.hung and one in fed:
                loose = [n for n, other in enumerate(store.hung) if other in charged]
                if loose:
                    store.hung[loose[-1]] = None
            if None in store.hung:
                store.hung[store.hung.index(None)] = one
                if isinstance(one, Cam) and one.cell:  # told anew with each cable
                    one.cell.refused, one.cell.cool = "", False
        for one in charged:
            if one not in store.hung and isinstance(one, Store | Gear | Dock):
                one.loose()

    def wants_feed(self, cam: Cam, at_s: int) -> bool:
        """Whether a camera is to be fed from outside now, or as soon as it has booted."""
        return self.fed_to_film(cam, at_s) or self.rests_on_module(cam, at_s)

    def fed_to_film(self, cam: Cam, at_s: int) -> bool:
        """Whether that is for what it is asked there."""
        return any(
            cam.power(s) != "battery" and cam.asked.job(s) is not None
            for s in (at_s, min(at_s + cam.boot_s, self.world.end_s - 1))
        )

    def rests_on_module(self, cam: Cam, at_s: int) -> bool:
        """Whether it sits on its module where nothing is asked: as before, or as it sets out."""
        if cam.store is None or not cam.store.is_module or cam.asked.job(at_s) is not None:
            return False
        number = cam.asked.where[at_s]
        jobs = [cam.asked.jobs.get(item["id"]) for item in self.world.items]
        before = [job for job in jobs[:number] if job]
        job = before[-1] if before else next((one for one in jobs if one), None)
        set_ups = {one["id"]: one for one in cam.doc["set_ups"]}
        return job is not None and set_ups[job["set_up"]].get("power", "battery") != "battery"

    def wants(self, one: object, at_s: int) -> float:
        """Granted at most: what recording draws and what charges."""
        if isinstance(one, Cam):
            return self._camera_wants(one, at_s)
        if isinstance(one, Gear):
            return one.charging_w()
        if isinstance(one, Dock):
            return one.wants()
        assert isinstance(one, Store)
        wanted = one.charging_w()
        if one.is_module:
            riders = [c for c in self.world.cams if c.store is one and self.wants_feed(c, at_s)]
            taken = sum(self._camera_wants(cam, at_s) for cam in riders)
            wanted += min(one.ports()[0], taken)
        return min(float(one.doc.get("in_w", 10.0)), wanted)

    def would_take(self, one: object, at_s: int) -> float:
        """What it would take now, were its bank switched on."""
        if isinstance(one, Store | Gear):
            return self._fills(one, at_s)
        if isinstance(one, Dock):
            taking = [cell for cell in one.cells if cell and cell.takes_w() > 0]
            taking = taking if one.doc.get("together", True) else taking[:1]
            most = one.doc.get("bay_w") or one.doc.get("in_w", 10.0)
            later = sum(min(most, _later_w(c, c.most_w(fed=True)) / INTO) for c in taking)
            return float(min(one.doc.get("in_w", 10.0), later))
        if not isinstance(one, Cam):
            return 0.0 if one is None else self.wants(one, at_s)
        cell, asked = one.cell, one.asked.asked[at_s] and self._keeps_on(one, at_s)
        wanted = one.watts(at_s) / one.through if asked else 0.0
        if cell and one.power(at_s) != "outside_only" and not (cell.refused or one.pause):
            wanted += _later_w(cell, cell.most_w(fed=one.feed_w > 0)) / 0.9
        return min(wanted, one.doc.get("charges_in_w") or wanted)

    def _fills(self, one: Store | Gear, at_s: int) -> float:
        """What it takes for so long that a bank stays on for it."""
        watts = one.charging_w()
        short = (FULL - one.charge) * one.wh * 3600 < watts * INTO * BANK_WAITS_S
        wanted = self.wants(one, at_s)
        return max(0.0, wanted - watts) if short else wanted

    @staticmethod
    def _keeps_on(cam: Cam, at_s: int) -> bool:
        """Not stopped for good, and no short frame now and then."""
        pattern = cam.asked.pattern(at_s)
        if cam.memory is None or not {"card_full", "hot"}.isdisjoint(cam.causes):
            return False
        if pattern["kind"] != "interval" or pattern["every_s"] <= cam.boot_s + 2:
            return True
        return bool(pattern["every_s"] - cam.boot_s - frame_s(pattern) < BANK_WAITS_S)

    def _camera_wants(self, cam: Cam, at_s: int) -> float:
        ahead = min(at_s + cam.boot_s, self.world.end_s - 1)
        fed = self.fed_to_film(cam, at_s) or cam.state in ("on", "boot")
        draw = max(cam.watts(at_s), cam.watts(ahead)) / cam.through if fed else 0.0
        wanted, cell = draw, cam.cell
        bars = not cam.set_up(at_s).get("charges_recording", True)
        if cell is not None and cam.power(at_s) != "outside_only":
            rests = cell.refused or cam.pause or cell.charge >= 0.99
            if not rests and not (bars and cam.state == "on"):
                wanted += cell.most_w(fed=cam.feed_w > 0) / 0.9
        return float(min(wanted, cam.doc.get("charges_in_w") or wanted))


def _later_w(cell: Cell, most_w: float) -> float:
    """What a cell takes once a bank has stayed on for it; nothing when it is full by then."""
    charge = cell.charge
    for _ in range(BANK_WAITS_S):
        charge += most_w * min(1.0, (1 - charge) / cell.tail) / 3600 / cell.wh
    return 0.0 if charge >= FULL else most_w * min(1.0, (1 - charge) / cell.tail)


def _runs(one: object) -> bool:
    return isinstance(one, Cam) and one.state in ("on", "boot")
