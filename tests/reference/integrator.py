"""A brute-force rehearsal of one camera in steps of half a second, written from the rules alone.

It knows nothing of the engine: temperatures and charges are marched forward by their rates, and
every step asks anew what holds. It covers one camera with its batteries and one memory, all six
patterns, cold, heat, outside power, and a pair of hands that swaps what is flat at stops.
"""

from __future__ import annotations

import itertools
from dataclasses import dataclass, field
from datetime import datetime
from math import ceil, floor
from typing import Any

STEP_S = 0.5
STEP_H = STEP_S / 3600
AMBIENT_STEP_S = 600
A_DEFAULT = 0.8
OVERHEAD = 1.01
USABLE = 0.985
SELF_DISCHARGE_PER_S = 0.025 / (30 * 86_400)
CELL_LAG_S = 720.0
THROUGH, INTO = 0.95, 0.90
K_PER_W = 14.0  # of a camera of 70 g
SAVE_S = 3
COLD = ((25, 1.0), (10, 0.97), (0, 0.90), (-10, 0.78), (-20, 0.60), (-30, 0.35))

STREAMS = {"roll", "takes", "windows"}
Doc = dict[str, Any]


def hidden(cell_c: float) -> float:
    """Share of the charge that the cold holds back."""
    if cell_c >= COLD[0][0]:
        return 0.0
    for (warm, more), (cool, less) in itertools.pairwise(COLD):
        if cell_c >= cool:
            return 1.0 - (less + (more - less) * (cell_c - cool) / (warm - cool))
    return 1.0 - COLD[-1][1]


@dataclass
class Battery:
    """A cell that is marched."""

    wh: float
    charge: float
    cell_c: float
    refused: str = ""


@dataclass
class Marched:
    """What came out, step by step."""

    filmed_s: float = 0
    gaps: list[tuple[str, float, float]] = field(default_factory=list)
    body_c: float = 0.0
    bytes_on_card: float = 0
    bytes_written: float = 0
    used_wh: float = 0.0
    kept_s: float = 0.0
    frames: int = 0
    swaps_s: list[int] = field(default_factory=list)
    steps: int = 0


class Marcher:
    """One camera, marched through a document as loaded from JSON."""

    def __init__(self, document: Doc, camera: int = 0) -> None:
        kit, plan = document["kit"], document["plan"]
        self.camera = kit["cameras"][camera]
        name = self.camera["id"]
        self.mass = (self.camera.get("mass_g", 70.0) / 70.0) ** (2 / 3)
        self.k_per_w = self.camera.get("resistance_k_per_w", K_PER_W / self.mass)
        self.fed_heat = self.camera.get("charge_heat", 1.0)
        self.boot_s = round(self.camera.get("boot_s", 4.0))
        self.items = document["trip"]["items"]
        self.asked = {a["item"]: a for a in plan["assignments"] if a["camera"] == name}
        start = datetime.fromisoformat(document["trip"]["start"])
        self.into_step_s = (start.minute * 60 + start.second) % AMBIENT_STEP_S
        self.midnight_s = start.hour * 3600 + start.minute * 60 + start.second
        self.out = Marched()
        self.rows = self._rows()
        self.out.body_c = self._ambient(0)
        family = next(f for f in kit["families"] if f["id"] == self.camera["battery_family"])
        full = family["mah"] * family["nominal_v"] / 1000
        cells = [b for b in kit["batteries"] if b["family"] == family["id"]]
        warm = {p["id"]: p["warmth"] for p in kit.get("pockets", [])}
        self.homes = [warm.get(b.get("pocket", ""), "bag") for b in cells]
        self.cells = [
            Battery(full * b.get("health", 1), b.get("charge", 1.0), self._place_c(home, 0))
            for b, home in zip(cells, self.homes, strict=True)
        ]
        self.inside: int | None = 0 if cells else None
        if cells:
            self.cells[0].cell_c = self.out.body_c
        self.source_w = sum(sum(s["ports"]) for s in kit.get("sources", []))
        memory = self.camera["memory"]
        gb = memory["gb"] if memory["kind"] == "fixed" else kit["cards"][0]["gb"]
        self.room = floor(gb * 1e9 * USABLE + 0.5)
        self.state = "off"
        self.boot_left_s = 0.0
        self.holds: list[str] = []
        self.gap_cause = ""
        self.dead = False
        self.body_pause = False
        self.clip_s = 0.0
        self.on_left_s = 0.0
        self.loop_bytes = 0.0
        self.busy_left_s = 0
        self.incoming = 0
        self.plans: dict[str, tuple[list[bool], list[bool], set[int]]] = {}

    # -- the trip by second ----------------------------------------------------------

    def _rows(self) -> list[tuple[int, Doc, int]]:
        """For every second: number of its item, the item, seconds into it."""
        return [
            (number, item, second)
            for number, item in enumerate(self.items)
            for second in range(item["duration_s"])
        ]

    def march(self) -> Marched:
        """The whole trip."""
        for at_s in range(len(self.rows)):
            self._step(at_s)
            self._step(at_s, late=True)
        self._close_gap(len(self.rows))
        self._close_clip(save=False)
        self.out.steps = 2 * len(self.rows)
        return self.out

    def _step(self, at_s: int, *, late: bool = False) -> None:
        """Half a second: the first of a second looks at what is asked, both at what holds."""
        number, item, second = self.rows[at_s]
        wanted, recording, saves = self._plan(item)
        asks = wanted[second]
        now_s = at_s + STEP_S * late
        if not late:
            self._look(at_s, asks=asks)
        if self.state == "booting" and self.boot_left_s <= 0:
            self._record()
        early = self._boots_now(number, second)
        if early and self.state == "off" and not asks and self._may_start(early, at_s, press=True):
            self.state, self.boot_left_s = "booting", self.boot_s
        begins = not late and asks and (second == 0 or not wanted[second - 1])
        if asks and self.state == "off" and self._may_start(item, at_s, press=begins):
            self.state, self.boot_left_s = "booting", self.boot_s
            if self.boot_s == 0:
                self._record()
        if asks and self.state == "on" and second in saves and not late:
            self._close_clip(save=True)
            self.state, self.boot_left_s = "booting", SAVE_S
            self.holds.append("save")
        self._account(now_s, asks=asks)
        mode_item = item if asks or not early else early
        if self.state == "booting" and not asks:
            following = self.items[number + 1] if number + 1 < len(self.items) else item
            mode_item = following if not any(wanted[second:]) else item
        self._march_on(at_s, item, mode_item, recording=asks and recording[second])

    def _look(self, at_s: int, *, asks: bool) -> None:
        """What ends or changes with a second, and what hands do."""
        number, item, second = self.rows[at_s]
        if not asks and self.state != "booting":
            self._stop(at_s)
        if second == 0 and asks and number and self._changes(number):
            if self._pattern(self.items[number - 1])["kind"] not in STREAMS:
                self._stop(at_s)
            elif self.state == "on":
                self._record()
        self._hands(at_s, number, item, second)

    def _account(self, now_s: float, *, asks: bool) -> None:
        if not asks or self.state == "on":
            self._close_gap(now_s)
        if asks and self.state == "on":
            self.out.filmed_s += STEP_S
        if asks and self.state != "on":
            causes = self.holds or ["boot"]
            if self.gap_cause not in causes:
                self._close_gap(now_s)
                self.gap_cause = causes[0]
                self.out.gaps.append((self.gap_cause, now_s, now_s))

    def _close_gap(self, at_s: float) -> None:
        if self.gap_cause:
            cause, start_s, _ = self.out.gaps.pop()
            self.out.gaps.append((cause, start_s, at_s))
        self.gap_cause = ""

    # -- starting and stopping -------------------------------------------------------

    def _may_start(self, item: Doc, at_s: int, *, press: bool) -> bool:
        """A cell that gave out is tried again only by a press (E3.4)."""
        if press or not {"cold", "empty"} & set(self.holds):
            self._look_at_power(item, at_s)
        pattern = self._pattern(item)
        free = self.room - self.out.bytes_on_card
        if pattern["kind"] == "loop":
            length = self._rate(self._mode(item)) * pattern["length_s"]
            self._hold("card_full", free < length)
        else:
            self._hold("card_full", free < 1)
        return not self.holds

    def _look_at_power(self, item: Doc, at_s: int) -> None:
        power, watts = self._set_up(item).get("power", "battery"), self._feed_w(at_s, item)
        covered = watts * THROUGH >= self._mode(item)["draw"]["watts"]
        if power == "outside_only":
            self._hold("no_power", not covered)
            return
        cell = self._cell()
        if cell is None:
            self._hold("no_battery", not covered)
            return
        line = hidden(cell.cell_c)
        if self.dead and cell.charge >= line + 0.03:
            self.dead = False
        out = (self.dead or cell.charge <= line) and not covered
        self._hold("cold", out and cell.charge >= 0.03)
        self._hold("empty", out and cell.charge < 0.03)

    def _hold(self, cause: str, holds: bool) -> None:
        if holds and cause not in self.holds:
            self.holds.append(cause)
        elif not holds and cause in self.holds:
            self.holds.remove(cause)

    def _record(self) -> None:
        self.state, self.clip_s, self.loop_bytes = "on", 0.0, 0.0
        self.on_left_s = 1
        self.holds = [h for h in self.holds if h not in ("clip_limit", "save")]

    def _stop(self, at_s: int) -> None:
        self._close_gap(at_s)
        self._close_clip(save=False)
        self.state = "off"
        self.holds = [h for h in self.holds if h not in ("no_hand", "clip_limit", "save")]

    def _off(self, *causes: str) -> None:
        self._close_clip(save=False)
        self.state = "off"
        self.holds += [cause for cause in causes if cause not in self.holds]

    def _close_clip(self, *, save: bool) -> None:
        """An unsaved loop is not kept."""
        if self.state == "on" and self.loop_bytes:
            if save:
                self.out.kept_s += self.loop_bytes / self.loop_rate
            else:
                self.out.bytes_on_card -= self.loop_bytes
            self.loop_bytes = 0.0

    def _changes(self, number: int) -> bool:
        """Whether a camera that films begins anew where two asked items touch."""
        before, item = self.items[number - 1], self.items[number]
        if before["id"] not in self.asked:
            return False
        kinds = {self._pattern(before)["kind"], self._pattern(item)["kind"]}
        return not kinds <= STREAMS or self._mode(before)["id"] != self._mode(item)["id"]

    # -- physics ---------------------------------------------------------------------

    def _march_on(self, at_s: int, item: Doc, mode_item: Doc, *, recording: bool) -> None:
        mode, set_up = self._mode(mode_item), self._set_up(mode_item)
        watts, rise = 0.0, 0.0
        if self.state == "booting":
            watts, rise = mode["draw"]["watts"], mode["rise_k"]
        elif self.state == "on":
            watts, rise = self._film(item, mode, recording=recording)
        feed = self._feed_w(at_s, item)
        rise += self._power(watts, feed, set_up)
        self._temperatures(at_s, item, set_up, rise)
        if self.state == "booting":
            self.boot_left_s -= STEP_S
        self._give_out(item, mode, set_up, feed, watts)

    def _film(self, item: Doc, mode: Doc, *, recording: bool) -> tuple[float, float]:
        """Draw and rise of a second of filming, by pattern; writes its bytes."""
        pattern = self._pattern(item)
        kind, watts, rise = pattern["kind"], mode["draw"]["watts"], mode["rise_k"]
        rate = self._rate(mode)
        self.clip_s += STEP_S
        if kind == "interval":
            return self._frame(pattern, watts, rise)
        if kind == "armed" and not recording:
            if pattern.get("pre_record_s"):
                return watts, rise
            waits = self.camera["standby_w"]
            return waits, self.k_per_w * waits
        if kind == "loop":
            segment = pattern["length_s"] / pattern.get("segments", 5)
            self.loop_rate = rate
            held = self.clip_s
            if held >= pattern["length_s"]:
                held = pattern["length_s"] - segment + self.clip_s % segment
            self.out.bytes_on_card += rate * held - self.loop_bytes
            self.loop_bytes = rate * held
        else:
            self.out.bytes_on_card += rate * STEP_S
        self.out.bytes_written += rate * STEP_S
        return watts, rise

    def _frame(self, pattern: Doc, watts: float, rise: float) -> tuple[float, float]:
        every = pattern["every_s"]
        begun = self.clip_s - STEP_S
        if begun % every == 0:
            self.out.bytes_on_card += pattern["frame_mb"] * 1e6
            self.out.bytes_written += pattern["frame_mb"] * 1e6
            self.out.frames += 1
            if begun:
                self.on_left_s = self.boot_s + 1
        if every <= self.boot_s + 2:
            return watts, rise
        if every <= 45:
            share = (self.boot_s + 1) / every
            return watts * share, rise * share
        self.on_left_s -= STEP_S
        return (watts, rise) if self.on_left_s >= 0 else (0.0, 0.0)

    def _power(self, watts: float, feed: float, set_up: Doc) -> float:
        """From the port, into or out of the cell; gives the rise by charging and feeding."""
        cell = self._cell()
        out = set_up.get("power") == "outside_only"
        port = min(feed, watts / THROUGH)
        short = max(0.0, watts - feed * THROUGH)
        heat = port * (1 - THROUGH)
        surplus = (feed - port) * INTO
        self.out.used_wh += port * THROUGH * STEP_H
        if cell is not None and not out:
            if (
                feed > 0
                and surplus > 0
                and not (cell.refused or self.body_pause)
                and cell.charge < 0.99
            ):
                most = cell.wh  # at 1 per hour
                into = min(surplus, most * min(1.0, (1 - cell.charge) / 0.2))
                cell.charge += into * STEP_H / cell.wh
                kink = 1 - 0.2 * min(surplus, most) / most
                held = [min(surplus, most * min(1, (1 - c) / 0.2)) for c in (0.8, 0.85, 0.9, 0.95)]
                held.append(min(surplus, most * 0.05))
                seen = min(surplus, most) if cell.charge < kink else sum(held) / 5
                heat += seen * (1 / INTO - 1)
            elif short > 0:
                self.out.used_wh += short * STEP_H
                cell.charge -= short * STEP_H / cell.wh
        if cell is not None and self.state == "off":
            cell.charge -= min(cell.charge, SELF_DISCHARGE_PER_S * STEP_S)
        for number, spare in enumerate(self.cells):
            if number != self.inside:
                spare.charge -= min(spare.charge, SELF_DISCHARGE_PER_S * STEP_S)
        return self.k_per_w * self.fed_heat * heat

    def _temperatures(self, at_s: int, item: Doc, set_up: Doc, rise: float) -> None:
        """Bodies and cells by their rates, with a half step looked at first (midpoint rule)."""
        air = item.get("air_mps", 0.0) * set_up.get("air_share", 1.0)
        shed = set_up.get("case_factor", 1.0) / (
            1 + A_DEFAULT * set_up.get("case_a", 1.0) * air**0.5
        )
        level = self._ambient(at_s) + shed * rise
        lag_s = set_up.get("tau_s", 900.0 * self.mass**0.5) * shed
        cell, body = self._cell(), self.out.body_c
        half = body + (level - body) / lag_s * STEP_S / 2
        self.out.body_c = body + (level - half) / lag_s * STEP_S
        if cell is not None:
            half_cell = cell.cell_c + (body - cell.cell_c) / CELL_LAG_S * STEP_S / 2
            cell.cell_c += (half - half_cell) / CELL_LAG_S * STEP_S
        for number, spare in enumerate(self.cells):
            if number != self.inside:
                to_go = self._place_c(self.homes[number], at_s) - spare.cell_c
                spare.cell_c += to_go / (CELL_LAG_S + STEP_S / 2) * STEP_S

    def _give_out(self, item: Doc, mode: Doc, set_up: Doc, feed: float, watts: float) -> None:
        limits, cell = self.camera["limits"], self._cell()
        if "hot" in self.holds and self.out.body_c <= limits["restart_c"]:
            self.holds.remove("hot")
        if cell is not None and feed > 0:
            self._refusal(cell)
        if self.state == "off":
            return
        if self.out.body_c >= limits["stop_c"]:
            self._off("hot", *(() if self.camera["starts_itself"] else ("no_hand",)))
            return
        out = set_up.get("power") == "outside_only"
        drains = not out and watts > feed * THROUGH
        if drains and cell is not None and cell.charge <= hidden(cell.cell_c):
            self.dead = True
            if hidden(cell.cell_c) <= 0:
                cell.charge = 0.0
            self._off("cold" if cell.charge >= 0.03 else "empty")
            return
        if out and watts > feed * THROUGH + 1e-9:
            self._off("no_power")
            return
        if self.state == "on" and self.out.bytes_on_card >= self.room and not self.loop_bytes:
            self.out.bytes_on_card = self.room
            self._off("card_full")
            return
        limit_s = mode.get("clip_limit_s")
        streams = self._pattern(item)["kind"] in STREAMS
        if self.state == "on" and streams and limit_s and self.clip_s >= limit_s:
            self.holds.append("clip_limit")
            self.state = "booting" if self.camera["continues_after_clip"] else "off"
            self.boot_left_s = self.boot_s

    def _refusal(self, cell: Battery) -> None:
        if cell.refused == "cold":
            cell.refused = "cold" if cell.cell_c < 2 else ""
        elif cell.refused == "hot":
            cell.refused = "hot" if cell.cell_c > 43 else ""
        else:
            cell.refused = "cold" if cell.cell_c <= 0 else "hot" if cell.cell_c > 45 else ""
        self.body_pause = self.out.body_c > (40 if self.body_pause else 45)

    # -- hands that swap what is flat at stops ---------------------------------------

    def _hands(self, at_s: int, number: int, item: Doc, second: int) -> None:
        if self.busy_left_s > 0:
            self.busy_left_s -= 1
            if self.busy_left_s == 0:
                self.inside, self.dead = self.incoming, False
                self.out.swaps_s.append(at_s)
                self.holds = [
                    h
                    for h in self.holds
                    if h not in ("swap", "no_hand", "empty", "cold", "no_battery", "clip_limit")
                ]
            return
        cell = self._cell()
        takes_s = round(self.camera["set_ups"][0].get("swap_s", 30))
        if item["kind"] != "stop" or not self.camera.get("battery_comes_out", True):
            return
        follows = number > 0 and self.items[number - 1]["kind"] == "stop"
        goes_on = number + 1 < len(self.items) and self.items[number + 1]["kind"] == "stop"
        first = second == 0 and not follows
        last_chance = second == max(0, item["duration_s"] - takes_s) and not goes_on
        if not (first or last_chance) or item["duration_s"] - second < takes_s:
            return
        if cell is None or not (self.dead or cell.charge <= hidden(cell.cell_c)):
            return
        spares = [n for n in range(len(self.cells)) if n != self.inside]
        spares = [n for n in spares if self.cells[n].charge > 0.5]
        if spares and self._asked_before_next_stop(number, second):
            self.incoming, self.busy_left_s = spares[0], takes_s
            self._off("swap")

    def _asked_before_next_stop(self, number: int, second: int) -> bool:
        if any(self._plan(self.items[number])[0][second:]):
            return True
        left = True
        for item in self.items[number + 1 :]:
            left = left and item["kind"] == "stop"
            if item["kind"] == "stop" and not left:
                return False
            if any(self._plan(item)[0]):
                return True
        return False

    # -- what the rules say ----------------------------------------------------------

    def _plan(self, item: Doc) -> tuple[list[bool], list[bool], set[int]]:
        """By second of an item: whether it is asked, whether a clip runs; and its saves."""
        if item["id"] not in self.plans:
            self.plans[item["id"]] = self._made(item)
        return self.plans[item["id"]]

    def _made(self, item: Doc) -> tuple[list[bool], list[bool], set[int]]:
        whole = item["duration_s"]
        nothing = [False] * whole
        if item["id"] not in self.asked:
            return nothing, nothing, set()
        pattern, everything = self._pattern(item), [True] * whole
        kind = pattern["kind"]
        if kind == "takes":
            asked = list(nothing)
            for k in range(self._count(pattern, whole)):
                start = (k + 0.5) * whole / self._count(pattern, whole) - pattern["seconds"] / 2
                for second in range(round(start), round(start) + pattern["seconds"]):
                    asked[second] = True
            return asked, asked, set()
        if kind == "windows":
            start_s = sum(i["duration_s"] for i in self.items[: self.items.index(item)])
            asked = [self._in_window(pattern, start_s + second) for second in range(whole)]
            return asked, asked, set()
        if kind == "armed":
            clips = list(nothing)
            n = self._count(pattern, whole)
            for k in range(n):
                at = floor((k + 0.5) * whole / n)
                first = max(0, at - pattern.get("pre_record_s", 0))
                for second in range(first, min(whole, at + pattern["seconds"])):
                    clips[second] = True
            return everything, clips, set()
        if kind == "loop":
            n = pattern["saves"]
            return everything, everything, {floor((k + 0.5) * whole / n) for k in range(n)}
        return everything, everything, set()

    def _in_window(self, pattern: Doc, at_s: int) -> bool:
        clock = (self.midnight_s + at_s) % 86_400
        for window in pattern["windows"]:
            opens, closes = (_clock_s(window[edge]["at"]) for edge in ("opens", "closes"))
            inside = opens <= clock < closes
            if inside or (closes <= opens and (clock >= opens or clock < closes)):
                return True
        return False

    def _count(self, pattern: Doc, whole: int) -> int:
        if pattern.get("count"):
            return int(pattern["count"])
        return floor(pattern["per_hour"] * whole / 3600 + 0.5)

    def _boots_now(self, number: int, second: int) -> Doc | None:
        """The item whose asked start is just a boot away, when a hand or a clock can start it."""
        item = self.items[number]
        start = second + self.boot_s
        if self.boot_s == 0:
            return None
        if start == item["duration_s"] and number + 1 < len(self.items):
            following: Doc = self.items[number + 1]
            begins = self._plan(following)[0][0]
            by_hand = item["kind"] == "stop"
            return following if begins and (by_hand or self.camera["starts_itself"]) else None
        asked = self._plan(item)[0]
        begins = start < len(asked) and asked[start] and not asked[start - 1]
        by_hand = item["kind"] == "stop"
        return item if begins and (by_hand or self.camera["starts_itself"]) else None

    def _pattern(self, item: Doc) -> Doc:
        found: Doc = self.asked.get(item["id"], {}).get("pattern", {"kind": "roll"})
        return found

    def _mode(self, item: Doc) -> Doc:
        modes = self.camera["modes"]
        wanted = self.asked.get(item["id"], {}).get("mode", modes[0]["id"])
        mode = next(m for m in modes if m["id"] == wanted)
        watts = mode["draw"]["watts"]
        return {**mode, "rise_k": mode.get("rise_k", self.k_per_w * watts)}

    def _set_up(self, item: Doc) -> Doc:
        set_ups = self.camera["set_ups"]
        wanted = self.asked.get(item["id"], {}).get("set_up", set_ups[0]["id"])
        found: Doc = next(s for s in set_ups if s["id"] == wanted)
        return found

    def _cell(self) -> Battery | None:
        return None if self.inside is None else self.cells[self.inside]

    def _feed_w(self, at_s: int, item: Doc) -> float:
        """A vehicle's socket while it runs, where the set-up is on outside power."""
        fed = self._set_up(item).get("power", "battery") != "battery" and item["id"] in self.asked
        return self.source_w if fed and self.rows[at_s][1].get("vehicle_runs") else 0.0

    def _place_c(self, warmth: str, at_s: int) -> float:
        ambient = self._ambient(at_s)
        return {"inside": 25.0, "outer": (25.0 + ambient) / 2}.get(warmth, ambient)

    def _ambient(self, at_s: int) -> float:
        """Constant over ten minutes of the clock, as in the middle of them, within the item."""
        _, item, second = self.rows[at_s]
        clock_s = at_s + self.into_step_s
        middle_s = clock_s // AMBIENT_STEP_S * AMBIENT_STEP_S + AMBIENT_STEP_S / 2
        into_item_s = middle_s - self.into_step_s - (at_s - second)
        way = min(1.0, max(0.0, into_item_s / item["duration_s"]))
        low, high = item["temp_start_c"], item["temp_end_c"]
        return float(low + (high - low) * way)

    @staticmethod
    def _rate(mode: Doc) -> int:
        return ceil((mode["video_mbps"] + mode.get("audio_mbps", 0.192)) * 1e6 / 8 * OVERHEAD)


def _clock_s(text: str) -> int:
    hour, minute, *rest = (int(part) for part in text.split(":"))
    return hour * 3600 + minute * 60 + (rest[0] if rest else 0)
