"""Which battery or card goes in, and whether it is worth the hand (model/hands#swap)."""

from __future__ import annotations

from math import exp
from typing import TYPE_CHECKING, Any

from .asked import frame_s
from .physics import CELL_LAG_S, COLD, REVIVAL, Cell, Store, hidden
from .tasks import Task

if TYPE_CHECKING:
    from .camera import Cam
    from .hands import Hands

Doc = dict[str, Any]
Words = dict[tuple[str, str], str | None]
CARD_S = 25
MARGIN, MORE = 1.15, 1.01
RANK = {"must": 0, "want": 1, "nice": 2}


class Choosing:
    """Weighs what hands might put in."""

    def __init__(self, hands: Hands) -> None:
        self.hands, self.world = hands, hands.world

    def rank(self, cam: Cam, at_s: int) -> tuple[float, float]:
        """Importance of what is asked next, and hours until it gives out."""
        rank, last = 3, None
        for second in range(at_s, self.hands.horizon_of(cam, at_s)):
            if cam.asked.asked[second]:
                job = cam.asked.job(second) or {}
                rank, last = min(rank, RANK[job.get("importance", "want")]), second
        if last is None:
            return 3, 0.0
        watts = self._mean_w(cam, last)
        held = max(0.0, cam.cell.charge - cam.cell.line(watts)) * cam.cell.wh if cam.cell else 0.0
        by_card = (cam.memory.room - cam.memory.used) / cam.rate(last) / 3600 if cam.memory else 0.0
        return rank, min(0.0 if cam.dead else held / watts, by_card)

    def _mean_w(self, cam: Cam, second: int) -> float:
        return self._mean(cam, cam.asked.pattern(second), cam.watts(second), second)

    def swap(self, cam: Cam, at_s: int) -> Task | None:
        """What the plan names, else what falls short of what is asked (model/hands#swap)."""
        hands = self.hands
        item = self.world.item(at_s)["id"]
        end_s = at_s + hands.seconds(cam, at_s)
        key = (cam.doc["id"], item)
        if not cam.doc.get("battery_comes_out", True):
            return None
        if key in hands.manual:
            wanted = hands.manual[key]
            if wanted is None:
                return None
            cell = next(c for c in self.world.cells if c.name == wanted)
            if cell.inside is None and key not in hands.swapped and end_s <= hands.until(at_s):
                return Task("swap", cam, end_s, cell)
            return None
        if hands.plugging.unloading.may_wait(cam, at_s):
            return None
        horizon = hands.horizon_of(cam, at_s)
        need, asked_s = self._need(cam, at_s, horizon)
        if not asked_s:
            return None
        mean_w = need * 3600 / asked_s
        if cam.store and cam.store.is_module:  # the battery gives what its module does not
            need = max(0.0, need - cam.store.gives_wh())
        if need <= 0:
            return None
        line = cam.cell.line(mean_w) if cam.cell else 0.0
        least = line + REVIVAL if cam.dead else line
        flat = cam.cell is None or cam.cell.charge <= least
        old = 0.0 if flat else self._reach(cam, cam.cell, at_s, horizon)
        if not flat and (hands.policy == "run_flat" or old >= need * MARGIN):
            return None
        if not flat and not hands.settling and at_s + old * 3600 / mean_w < hands.last_s(at_s):
            return None  # the same hands serve when it is empty
        spares = [c for c in self.world.cells if c.family == cam.doc["battery_family"]]
        spares = [
            c
            for c in spares
            if c.inside is None and not self._promised(c.name, hands.manual, hands.swapped, at_s)
        ]
        reaches = [(c, self._reach(cam, c, at_s, horizon)) for c in spares]
        enough = [c for c, reach in reaches if reach >= need * MARGIN]
        if enough:
            best = min(enough, key=lambda c: c.charge)
        else:
            if not reaches:
                return None
            best = max(reaches, key=lambda pair: pair[1])[0]
        last = hands.last_s(at_s)
        if not flat and cam.cell and best.charge * best.wh <= cam.cell.charge * cam.cell.wh:
            idle = not any(cam.asked.asked[at_s : last + cam.boot_s])
            if at_s < last and idle and cam.state == "off":
                return None  # only warmer: it stays warm until the last chance
        new = next(reach for c, reach in reaches if c is best)
        gain = (min(need, new) - min(need, old)) * 3600 / mean_w
        return Task("swap", cam, end_s, best) if gain > self._costs_s(cam, at_s, end_s) else None

    @staticmethod
    def _costs_s(cam: Cam, at_s: int, end_s: int) -> int:
        """Seconds asked that a swap costs, with the boot after it."""
        lost = 0 if cam.set_up(at_s).get("hot_swap") else sum(cam.asked.asked[at_s:end_s])
        return lost + cam.boot_s if lost else 0

    def module(self, cam: Cam, at_s: int) -> Task | None:
        """The module that the plan names, else one for what this one does not last for.

        Source: model/charging#chains.
        """
        on, item = cam.store, self.world.item(at_s)["id"]
        if on is None or not on.is_module:
            return None
        horizon = self.hands.horizon(at_s)
        need, asked_s = self._need(cam, at_s, horizon)
        if not asked_s:
            return None
        end_s = at_s + self.hands.seconds(cam, at_s)
        spares = [s for s in self.world.stores if s.doc.get("fits") == cam.doc["id"] and s != on]
        for one in spares:
            said = self.hands.plugging.words.get(item, {}).get(one.doc["id"], {})
            named = said.get("to") == cam.doc["id"] and said.get("plug", True)
            if named and (one.doc["id"], item) not in self.hands.modules_done:
                return Task("module", cam, end_s, store=one, by_word=True)
        wanted, gives = need * MARGIN, on.gives_wh()
        if gives >= wanted:
            return None
        mean_w, hands = need * 3600 / asked_s, self.hands
        waits = not hands.settling and at_s + gives * 3600 / mean_w < hands.last_s(at_s)
        if gives > 0 and (hands.policy == "run_flat" or waits):
            return None
        enough = [one for one in spares if one.gives_wh() >= wanted]
        best = min(enough, key=Store.gives_wh, default=None)
        best = best or max(spares, key=Store.gives_wh, default=None)
        if best is None or best.gives_wh() <= gives * MORE:
            return None
        gain = min(need, best.gives_wh()) - min(need, gives)
        worth = gain * 3600 / mean_w > self._costs_s(cam, at_s, end_s)
        return Task("module", cam, end_s, store=best) if worth else None

    def _promised(self, name: str, words: Words, done: set[tuple[str, str]], at_s: int) -> bool:
        """Whether the plan names a battery or card for a swap within a day."""
        keys = [item["id"] for item in self.world.items]
        for (who, item), named in words.items():
            if (who, item) in done or named != name:
                continue
            start = self.world.starts[keys.index(item)]
            if self.world.item(at_s)["id"] == item or at_s <= start <= at_s + 86_400:
                return True
        return False

    def _need(self, cam: Cam, at_s: int, horizon: int) -> tuple[float, int]:
        """Watt-hours asked of the cell until then, and seconds asked."""
        joules, seconds, standby = 0.0, 0, cam.doc.get("standby_w", 0.5)
        waits = cam.plan.get("between") == "standby"
        resting = 0
        for second in range(at_s, horizon):
            if not cam.asked.asked[second]:
                resting += 1
                continue
            if waits and seconds:
                joules += standby * resting
            resting = 0
            pattern, watts = cam.asked.pattern(second), cam.watts(second)
            seconds += 1
            begins = cam.asked.begins(second) and not (second == at_s and cam.state == "on")
            if begins and not waits:
                joules += watts * cam.boot_s
            joules += self._mean(cam, pattern, watts, second)
        return joules / 3600, seconds

    def _mean(self, cam: Cam, pattern: Doc, watts: float, second: int) -> float:
        if pattern["kind"] == "interval" and pattern["every_s"] > cam.boot_s + 2:
            return watts * min(1.0, (cam.boot_s + frame_s(pattern)) / pattern["every_s"])
        waits = pattern["kind"] == "armed" and not pattern.get("pre_record_s")
        if waits and not cam.asked.clip[second]:
            return float(cam.doc.get("standby_w", 0.5))
        return watts

    def _reach(self, cam: Cam, cell: Cell | None, at_s: int, horizon: int) -> float:
        """Watt-hours that a cell gives over what is asked, by the coldest that it will be there."""
        if cell is None:
            return 0.0
        worst, body, cell_c = 0.0, cam.body_c, cell.cell_c
        follows, before = 1 - exp(-1 / CELL_LAG_S), None
        for second in range(at_s, horizon):
            asks, piece = cam.asked.asked[second], self.world.piece(second)
            if (piece, asks) != before:  # all but the temperatures holds until either changes
                before = piece, asks
                watts = cam.watts(second) if asks else 0.0
                level, lag = cam.level(second, self._rise(cam, second))
                warms = 1 - exp(-1 / lag)
            cell_c += (body - cell_c) * follows
            body += (level - body) * warms
            if asks:
                worst = max(worst, hidden(cell_c, cell.health, COLD, watts / cell.wh, cell.k))
        return max(0.0, cell.wh * (cell.charge - worst))

    def _rise(self, cam: Cam, second: int) -> float:
        """Rise of its body while it is asked, on standby, or off."""
        if cam.asked.asked[second]:
            return self._mean_rise(cam, second)
        if cam.plan.get("between") == "standby":
            return cam.k_per_w * float(cam.doc.get("standby_w", 0.5))
        return 0.0

    def _mean_rise(self, cam: Cam, second: int) -> float:
        """Rise at the mean draw of a pattern."""
        watts = cam.watts(second)
        whole = float(cam.asked.mode(second).get("rise_k", cam.k_per_w * watts))
        pattern, number = cam.asked.pattern(second), cam.asked.where[second]
        if pattern["kind"] == "interval" and pattern["every_s"] > cam.boot_s + 2:
            return whole * min(1.0, (cam.boot_s + frame_s(pattern)) / pattern["every_s"])
        if pattern["kind"] == "armed" and not pattern.get("pre_record_s"):
            start_s = self.world.starts[number]
            length_s = self.world.items[number]["duration_s"]
            share = sum(cam.asked.clip[start_s : start_s + length_s]) / length_s
            waits = cam.k_per_w * float(cam.doc.get("standby_w", 0.5))
            return whole * share + waits * (1 - share)
        return whole

    def card(self, cam: Cam, at_s: int) -> Task | None:
        """The card with least room that suffices, else the one with most (model/hands#swap)."""
        if cam.doc["memory"]["kind"] == "fixed":
            return None
        key = (cam.doc["id"], self.world.item(at_s)["id"])
        if key in self.hands.cards:
            wanted = next((m for m in self.world.memories if m.name == self.hands.cards[key]), None)
            if wanted is None or wanted.inside is not None or key in self.hands.cards_done:
                return None
            return Task("card", cam, at_s + CARD_S, card=wanted)
        horizon = self.hands.horizon(at_s)
        need = 0.0
        for second in range(at_s, horizon):
            pattern = cam.asked.pattern(second)
            if not cam.asked.asked[second]:
                continue
            if pattern["kind"] == "interval":
                need += pattern["frame_mb"] * 1e6 / pattern["every_s"]
            elif pattern["kind"] == "loop":
                need = max(need, float(cam.rate(second) * pattern["length_s"]))
            elif pattern["kind"] != "armed" or cam.asked.clip[second]:
                need += cam.rate(second)
        free = cam.memory.room - cam.memory.used if cam.memory else 0.0
        full = "card_full" in cam.causes or free < 1
        if not need or (free >= need * MARGIN) or (self.hands.policy == "run_flat" and not full):
            return None
        rate = cam.rate(min(horizon, self.world.end_s) - 1)
        if not full and not self.hands.settling and at_s + free / rate < self.hands.last_s(at_s):
            return None  # the same hands serve when it is full
        cards = [m for m in self.world.memories if m.inside is None]
        cards = [
            m
            for m in cards
            if not self._promised(m.name, self.hands.cards, self.hands.cards_done, at_s)
        ]
        enough = [m for m in cards if m.room - m.used >= need * MARGIN]
        best = min(enough, key=lambda m: m.room - m.used, default=None) or max(
            cards, key=lambda m: m.room - m.used, default=None
        )
        if best is None or best.room - best.used <= free:
            return None
        return Task("card", cam, at_s + CARD_S, card=best)
