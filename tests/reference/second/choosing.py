"""Which battery or card goes in, and whether it is worth the hand (model/hands#swap)."""

from __future__ import annotations

from math import ceil, exp
from typing import TYPE_CHECKING, Any

from .asked import frame_s
from .physics import CELL_LAG_S, COLD, FULL, REVIVAL, Cell, Memory, Store, hidden
from .tasks import Task

if TYPE_CHECKING:
    from .camera import Cam
    from .hands import Hands

Doc = dict[str, Any]
Words = dict[tuple[str, str], str | None]
CARD_S = 25
MARGIN, MORE = 1.15, 1.01
LEAST_S, LEAST_SHARE = 60.0, 0.02  # what a swap must gain at least
LEFT_S, WARMER_K, HOT_C, DECIDES, ALIKE = 3600, 0.5, 70.0, 0.01, 0.02
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
        watts = self.mean_w(cam, last)
        held = max(0.0, cam.cell.charge - cam.cell.line(watts)) * cam.cell.wh if cam.cell else 0.0
        by_card = (cam.memory.room - cam.memory.used) / cam.rate(last) / 3600 if cam.memory else 0.0
        return rank, min(0.0 if cam.dead else held / watts, by_card)

    def mean_w(self, cam: Cam, second: int) -> float:
        """What a pattern draws on the mean."""
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
            return self._by_word(cam, key, at_s, end_s)
        if hands.plugging.unloading.may_wait(cam, at_s):
            return None
        horizon = hands.horizon_of(cam, at_s)
        need, asked_s = self._need(cam, at_s, horizon)
        if not asked_s or self._next_power(cam, at_s) == "outside_only":
            return None
        mean_w = need * 3600 / asked_s
        if cam.store and cam.store.is_module:  # the battery gives what its module does not
            need = max(0.0, need - cam.store.gives_wh())
        if need <= 0 or (cam.cell and self._said_next(cam, hands.manual, "swaps", at_s)):
            return None
        old = self._held(cam, at_s, horizon, mean_w)
        wanted = need * MARGIN
        if old is not None and (hands.policy == "run_flat" or old >= wanted):
            return None
        if old and not hands.settling and at_s + old * 3600 / mean_w < hands.last_s(at_s):
            return None  # the same hands serve when it is empty
        least = mean_w * min(LEAST_S, LEAST_SHARE * asked_s) / 3600
        back = 0.0 if old is None else least  # what is spent is changed for whatever there is
        best = self._best(cam, at_s, horizon, wanted, old or 0.0, back)
        if best is None or self._waits_warm(cam, best[0], at_s, horizon, wanted):
            return None
        most = min(need, self._room_wh(cam, at_s, horizon, need))
        gain = min(most, best[1]) - min(most, old or 0.0)
        costs = mean_w * self._costs_s(cam, at_s, end_s) / 3600
        return Task("swap", cam, end_s, best[0]) if gain - costs >= least else None

    def _by_word(self, cam: Cam, key: tuple[str, str], at_s: int, end_s: int) -> Task | None:
        """The plan's own swap, where it can be made now."""
        hands, wanted = self.hands, self.hands.manual[key]
        if wanted is None or key in hands.swapped:
            return None
        if ("swaps", *key) in hands.leaving and at_s < hands.leaving_s(at_s):
            return None
        cell = next(c for c in self.world.cells if c.name == wanted)
        free = cell.inside is None and cell.family == cam.doc["battery_family"]
        if free and end_s <= hands.until(at_s):
            return Task("swap", cam, end_s, cell, by_word=True)
        return None

    def _next_power(self, cam: Cam, at_s: int) -> str:
        second = next((s for s in range(at_s, self.world.end_s) if cam.asked.asked[s]), at_s)
        return str(cam.set_up(second).get("power", "battery"))

    def _said_next(self, cam: Cam, words: Words, kind: str, at_s: int) -> bool:
        """Whether the plan changes it, by hands that are free, before more is asked."""
        wanted_s = self.hands.plugging.unloading.wanted_s(cam, at_s)
        keys = [item["id"] for item in self.world.items]
        for (who, item), named in words.items():
            number = keys.index(item)
            when = self.world.starts[number]
            if (kind, who, item) in self.hands.leaving:
                when += self.world.items[number]["duration_s"]
            there = any(self.hands.free[s] for s in (max(0, when - 1), when))
            if who == cam.doc["id"] and named and at_s <= when < wanted_s and there:
                return True
        return False

    def _held(self, cam: Cam, at_s: int, horizon: int, mean_w: float) -> float | None:
        """What the battery in it gives; None where it would not even start what comes next."""
        cell = cam.cell
        if cell is None:
            return None
        first = next((s for s in range(at_s, horizon) if cam.asked.asked[s]), at_s)
        line = cell.line(cam.watts(first))
        if cell.charge <= (line + REVIVAL if cam.dead else line):
            return None
        return self._reach(cam, cell, at_s, horizon)

    def _best(
        self, cam: Cam, at_s: int, horizon: int, wanted: float, old: float, least: float
    ) -> tuple[Cell, float] | None:
        """The least charged that suffices, or the warmest; else what gives most, or the warmest."""
        spares = [
            c
            for c in self._spares(cam, at_s)
            if not (least and self._came_from(cam, c, at_s, least))
        ]
        reaches = {c.name: self._reach(cam, c, at_s, horizon) for c in spares}
        best: Cell | None = None
        for cell in sorted(spares, key=lambda c: c.charge):
            if reaches[cell.name] < wanted or (best and cell.cell_c <= best.cell_c + WARMER_K):
                continue
            best = cell
            if not self._cold_decides(cam, cell, at_s, horizon, wanted):
                break
        if best:
            return best, reaches[best.name]
        more = [c for c in spares if reaches[c.name] > old + 1e-9]
        if not more:
            return None
        best = max(more, key=lambda c: reaches[c.name])
        most = reaches[best.name]
        if self._cold_decides(cam, best, at_s, horizon, wanted):
            alike = [c for c in more if reaches[c.name] >= most * (1 - ALIKE)]
            best = max(alike, key=lambda c: (round(c.cell_c, 1), reaches[c.name]))
            same = cam.cell is not None and old >= most * (1 - ALIKE)
            if same and cam.cell and cam.cell.cell_c >= best.cell_c:
                return None
        return best, reaches[best.name]

    def _spares(self, cam: Cam, at_s: int) -> list[Cell]:
        hands = self.hands
        return [
            c
            for c in self.world.cells
            if c.family == cam.doc["battery_family"]
            and c.inside is None
            and not self._promised(c.name, hands.manual, hands.swapped, at_s)
        ]

    @staticmethod
    def _came_from(cam: Cam, cell: Cell, at_s: int, least: float) -> bool:
        """Whether hands took it out of this camera within the hour, and nothing came to it."""
        if cell.left is None or cell.left[0] != cam.number or at_s >= cell.left[1] + LEFT_S:
            return False
        return cell.held_wh() - cell.left[2] < least

    def _cold_decides(self, cam: Cam, cell: Cell, at_s: int, horizon: int, wanted: float) -> bool:
        """Whether as cold as it may get it would not suffice, and in the warm it gives more."""
        asked = [s for s in range(at_s, horizon) if cam.asked.asked[s]]
        if not asked:
            return False
        coldest = min(cell.cell_c, cam.body_c)
        for second in range(at_s, asked[-1] + 1, 30):
            coldest = min(coldest, cam.level(second, 0.0)[0])
        draws = {cam.watts(second) for second in asked}
        held, warm = (
            max(hidden(t, cell.health, COLD, w / cell.wh, cell.k) for w in draws)
            for t in (coldest, HOT_C)
        )
        return held > warm + DECIDES and cell.wh * (cell.charge - held) < wanted

    def _waits_warm(self, cam: Cam, cell: Cell, at_s: int, horizon: int, wanted: float) -> bool:
        """Whether it stays where it is until as late as can be."""
        unloading = self.hands.plugging.unloading
        if unloading.wanted_s(cam, at_s) <= at_s:
            return False
        if not self._cold_decides(cam, cell, at_s, horizon, wanted):
            return False
        late_s = unloading.late_as_can_be(cam, at_s)
        if at_s >= late_s:
            return False
        unloading.looks.add(late_s)
        return True

    def back_in(self, cam: Cam, at_s: int) -> Task | None:
        """Its own battery, full from a charger, of a camera that is asked later."""
        wanted_s = self.hands.plugging.unloading.wanted_s(cam, at_s)
        said = (cam.doc["id"], self.world.item(at_s)["id"]) in self.hands.manual
        if cam.cell is not None or said or not at_s < wanted_s < self.world.end_s:
            return None
        after = self.hands.horizon(at_s)
        horizon = self.hands.until(after) if after < self.world.end_s else after
        need, _ = self._need(cam, at_s, horizon)
        for cell in self._spares(cam, at_s):
            own = cell.left is not None and cell.left[0] == cam.number
            if not own or cell.charge < FULL - 1e-6:
                continue
            if not self._waits_warm(cam, cell, at_s, horizon, need * MARGIN):
                return Task("swap", cam, at_s + self.hands.seconds(cam, at_s), cell)
        return None

    def for_copy(self, cam: Cam, at_s: int) -> Task | None:
        """A battery for a copy, into a camera that has nothing to run on."""
        wanted = self.hands.plugging.unloading.wanted_s(cam, at_s)
        powered = cam.cell is not None and not cam.dead and cam.cell.charge > cam.cell.line(0.0)
        barred = cam.state != "off" or cam.busy or powered or cam.feed_w > 0
        if barred or wanted <= at_s or not cam.doc.get("battery_comes_out", True):
            return None
        wh = self.hands.copying.needs_wh(cam, at_s)
        gives = {c.name: c.wh * (c.charge - c.line(0.0)) for c in self._spares(cam, at_s)}
        able = [c for c in self._spares(cam, at_s) if gives[c.name] > 0]
        if wh <= 0 or not able:
            return None
        enough = [c for c in able if gives[c.name] >= wh]
        best = min(enough, key=lambda c: c.charge, default=None)
        best = best or max(able, key=lambda c: gives[c.name])
        return Task("swap", cam, at_s + self.hands.seconds(cam, at_s), best)

    @staticmethod
    def _costs_s(cam: Cam, at_s: int, end_s: int, *, power: bool = True) -> int:
        """Seconds asked that a swap costs, with the boot after it."""
        hot_swap = power and cam.set_up(at_s).get("hot_swap")
        lost = 0 if hot_swap else sum(cam.asked.asked[at_s:end_s])
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
        if gives > 0 and (hands.policy == "run_flat" or not hands.settling):
            return None
        enough = [one for one in spares if one.gives_wh() >= wanted]
        best = min(enough, key=Store.gives_wh, default=None)
        best = best or max(spares, key=Store.gives_wh, default=None)
        if best is None or best.gives_wh() <= gives * MORE:
            return None
        gain = min(need, best.gives_wh()) - min(need, gives)
        gain_s = gain * 3600 / mean_w - self._costs_s(cam, at_s, end_s)
        worth = gain_s >= min(LEAST_S, LEAST_SHARE * asked_s)
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
        """Watt-hours that a cell has given where its charge meets its line, or holds at last."""
        if cell is None:
            return 0.0
        charge, held, body, cell_c = cell.charge, 0.0, cam.body_c, cell.cell_c
        follows, before = 1 - exp(-1 / CELL_LAG_S), None
        waits, resting, seconds = cam.plan.get("between") == "standby", 0, 0
        for second in range(at_s, horizon):
            asks, piece = cam.asked.asked[second], self.world.piece(second)
            if (piece, asks) != before:  # all but the temperatures holds until either changes
                before = piece, asks
                watts = cam.watts(second) if asks else 0.0
                mean = self.mean_w(cam, second) if asks else 0.0
                level, lag = cam.level(second, self._rise(cam, second))
                warms = 1 - exp(-1 / lag)
            cell_c += (body - cell_c) * follows
            body += (level - body) * warms
            if not asks:
                resting += 1
                continue
            begins = cam.asked.begins(second) and not (second == at_s and cam.state == "on")
            joules = watts * cam.boot_s if begins and not waits else 0.0
            joules += cam.doc.get("standby_w", 0.5) * resting if waits and seconds else 0.0
            resting, seconds = 0, seconds + 1
            charge -= joules / 3600 / cell.wh
            held = hidden(cell_c, cell.health, COLD, watts / cell.wh, cell.k)
            if charge <= held:
                return cell.wh * max(0.0, cell.charge - charge)
            charge -= mean / 3600 / cell.wh
        return cell.wh * max(0.0, cell.charge - held)

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

    def card_s(self, cam: Cam, at_s: int, *, gloved: bool) -> int:
        """How long a card's swap takes."""
        set_up = cam.set_up(at_s)
        bare, gloves = set_up.get("swap_s", 30), set_up.get("swap_gloved_s", 60)
        more = max(0.0, gloves - bare) if gloved else 0.0
        return ceil(CARD_S + more + set_up.get("door_blocked_s", 0))

    def _written(self, cam: Cam, at_s: int, horizon: int) -> float:
        """Bytes asked until then."""
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
        return need

    def _writes_own(self, cam: Cam, at_s: int) -> bool:
        second = next((s for s in range(at_s, self.world.end_s) if cam.asked.asked[s]), at_s)
        if cam.doc["memory"]["kind"] == "slot":
            return False
        return not cam.doc.get("slot") or cam.set_up(second).get("writes_to", "own") == "own"

    def _gb(self, card: Memory) -> int:
        cards = self.world.document["kit"].get("cards", [])
        return int(next((one["gb"] for one in cards if one["id"] == card.name), 0))

    def _cards(self, cam: Cam, at_s: int) -> list[Memory]:
        """Cards in the bag that fit and are promised to none."""
        most = (cam.slot() or {}).get("largest_gb", 0)
        words, done = self.hands.cards, self.hands.cards_done
        return [
            m
            for m in self.world.memories
            if m.inside is None
            and self._gb(m) <= most
            and not self._promised(m.name, words, done, at_s)
        ]

    def _room_wh(self, cam: Cam, at_s: int, horizon: int, need: float) -> float:
        """What can be filmed on the card in it, or the best to go in."""
        written = self._written(cam, at_s, horizon)
        if written <= 0:
            return 1e9
        free = cam.memory.room - cam.memory.used if cam.memory else 0.0
        if not self._writes_own(cam, at_s):
            free = max([free, *(m.room - m.used for m in self._cards(cam, at_s))])
        return need * free / written

    def _powered(self, cam: Cam, at_s: int, horizon: int) -> float:
        """Of what is asked, the share that its battery, or the best to go in, gives."""
        need, asked_s = self._need(cam, at_s, horizon)
        mean_w = need * 3600 / asked_s
        if cam.store and cam.store.is_module:
            need = max(0.0, need - cam.store.gives_wh())
        if need <= 0 or self._next_power(cam, at_s) != "battery":
            return 1.0
        held = self._held(cam, at_s, horizon, mean_w)
        gives = self._reach(cam, cam.cell, at_s, horizon) if held is None else held
        if gives < need and cam.doc.get("battery_comes_out", True):
            spares = self._spares(cam, at_s)
            gives = max([gives, *(self._reach(cam, c, at_s, horizon) for c in spares)])
        return min(1.0, gives / need)

    def card(self, cam: Cam, at_s: int) -> Task | None:
        """The card with least room that suffices, else the one with most (model/hands#swap)."""
        hands = self.hands
        end_s = at_s + self.card_s(cam, at_s, gloved=bool(self.world.item(at_s).get("gloves")))
        key = (cam.doc["id"], self.world.item(at_s)["id"])
        slot = cam.slot()
        if slot is None:
            return None
        if key in hands.cards:
            wanted = next((m for m in self.world.memories if m.name == hands.cards[key]), None)
            if wanted is None or wanted.inside is not None or key in hands.cards_done:
                return None
            if self._gb(wanted) > slot.get("largest_gb", 0):
                return None
            if ("card_swaps", *key) in hands.leaving and at_s < hands.leaving_s(at_s):
                return None
            return Task("card", cam, end_s, card=wanted, by_word=True)
        horizon = hands.horizon_of(cam, at_s)
        need, (_, asked_s) = self._written(cam, at_s, horizon), self._need(cam, at_s, horizon)
        free = cam.memory.room - cam.memory.used if cam.memory else 0.0
        full = "card_full" in cam.causes or free < 1
        if self._writes_own(cam, at_s) or not need or free >= need * MARGIN:
            return None
        if hands.policy == "run_flat" and not full:
            return None
        last = max(s for s in range(at_s, horizon) if cam.asked.asked[s])
        waits = at_s + free / cam.rate(last) < hands.last_s(at_s)
        if not full and not hands.settling and waits:
            return None  # the same hands serve when it is full
        if cam.memory and self._said_next(cam, hands.cards, "card_swaps", at_s):
            return None
        cards = [m for m in self._cards(cam, at_s) if m.room - m.used > free]
        enough = [m for m in cards if m.room - m.used >= need * MARGIN]
        best = min(enough, key=lambda m: m.room - m.used, default=None) or max(
            cards, key=lambda m: m.room - m.used, default=None
        )
        if best is None:
            return None
        most = need * self._powered(cam, at_s, horizon)
        gain = min(most, best.room - best.used) - min(most, 0.0 if full else free)
        gain_s = gain * asked_s / need - self._costs_s(cam, at_s, end_s, power=False)
        worth = gain_s >= min(LEAST_S, LEAST_SHARE * asked_s)
        return Task("card", cam, end_s, card=best) if worth else None
