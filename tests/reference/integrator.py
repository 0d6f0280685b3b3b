"""A brute-force rehearsal of one camera in steps of half a second, written from the rules alone.

It knows nothing of the engine: temperatures and charges are marched forward by their rates, and
every step asks anew what holds. It covers a camera with a fixed battery and fixed memory, so
that hands only ever start it.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime
from math import floor
from typing import Any

STEP_S = 0.5
AMBIENT_STEP_S = 600
A_DEFAULT = 0.8
OVERHEAD = 1.01
USABLE = 0.985
SELF_DISCHARGE_PER_S = 0.025 / (30 * 86_400)


@dataclass
class Marched:
    """What came out, step by step."""

    filmed_s: float = 0
    gaps: list[tuple[str, float, float]] = field(default_factory=list)
    charge: float = 0.0
    body_c: float = 0.0
    bytes_written: float = 0
    used_wh: float = 0.0


class Marcher:
    """One camera, marched through a document as loaded from JSON."""

    def __init__(self, document: dict[str, Any]) -> None:
        kit = document["kit"]
        self.camera = kit["cameras"][0]
        family = kit["families"][0]
        self.wh = family["mah"] * family["nominal_v"] / 1000 * kit["batteries"][0].get("health", 1)
        self.items = document["trip"]["items"]
        self.asked = {a["item"]: a for a in document["plan"]["assignments"]}
        start = datetime.fromisoformat(document["trip"]["start"])
        self.into_step_s = (start.minute * 60 + start.second) % AMBIENT_STEP_S
        self.out = Marched(charge=kit["batteries"][0].get("charge", 1.0))
        self.state = "off"
        self.boot_left_s = 0.0
        self.booting_for: dict[str, Any] = {}
        self.wanted: dict[str, range | set[int]] = {}
        self.holds: list[str] = []
        self.gap_cause = ""
        self.clip_s = 0.0
        self.room = floor(self.camera["memory"]["gb"] * 1e9 * USABLE + 0.5)

    def march(self) -> Marched:
        """The whole trip."""
        at_s = 0.0
        self.out.body_c = self._ambient(0, self.items[0], 0)
        for number, item in enumerate(self.items):
            for step in range(round(item["duration_s"] / STEP_S)):
                self._step(at_s, number, item, step * STEP_S)
                at_s += STEP_S
            self._leave(number)
        self._close_gap(at_s)
        return self.out

    # -- one step --------------------------------------------------------------------

    def _step(self, at_s: float, number: int, item: dict[str, Any], second: float) -> None:
        wanted = int(second) in self._wanted_seconds(item)
        mode = self._mode(item)
        if not wanted and self.state != "booting":
            self._stop_asking(at_s)
        self._cool_enough()
        early = self._boots_now(number, second)
        if early is not None and self.state == "off" and not self.holds and not wanted:
            self.state, self.boot_left_s, self.booting_for = "booting", self.camera["boot_s"], early
        if self.state == "booting" and not wanted:
            mode = self._mode(self.booting_for)
        if wanted and self.state == "off" and not self.holds:
            self.state, self.clip_s = "recording", 0.0
            if self.camera["boot_s"] > 0:
                self.state, self.boot_left_s = "booting", self.camera["boot_s"]
        self._account(at_s, wanted=wanted)
        self._march_on(at_s, item, second, mode)
        self._give_out(mode)

    def _account(self, at_s: float, *, wanted: bool) -> None:
        if not wanted or self.state == "recording":
            self._close_gap(at_s)
        if wanted and self.state == "recording":
            self.out.filmed_s += STEP_S
        if wanted and self.state != "recording":
            causes = self.holds or ["boot"]
            if self.gap_cause not in causes:
                self._close_gap(at_s)
                self.gap_cause = causes[0]
                self.out.gaps.append((self.gap_cause, at_s, at_s))

    def _close_gap(self, at_s: float) -> None:
        if self.gap_cause:
            cause, start_s, _ = self.out.gaps.pop()
            self.out.gaps.append((cause, start_s, at_s))
        self.gap_cause = ""

    def _march_on(
        self, at_s: float, item: dict[str, Any], second: float, mode: dict[str, Any]
    ) -> None:
        on = self.state != "off"
        set_up = self.camera["set_ups"][0]
        air = item.get("air_mps", 0.0) * set_up.get("air_share", 1.0)
        shed = set_up.get("case_factor", 1.0) / (
            1 + A_DEFAULT * set_up.get("case_a", 1.0) * air**0.5
        )
        level = self._ambient(at_s, item, second) + shed * (mode["rise_k"] if on else 0.0)
        lag_s = set_up.get("tau_s", 900.0) * shed
        pieces = 4  # small steps keep the march within 0.01 K
        for _ in range(pieces):
            self.out.body_c += (level - self.out.body_c) / lag_s * (STEP_S / pieces)
        if on:
            self._spend(mode["draw"]["watts"], STEP_S)
        else:
            self.out.charge -= min(self.out.charge, SELF_DISCHARGE_PER_S * STEP_S)
        if self.state == "recording":
            self.clip_s += STEP_S
            self.out.bytes_written += self._rate(mode) * STEP_S
        elif self.state == "booting":
            self.boot_left_s -= STEP_S
            if self.boot_left_s <= 0:
                self.state, self.clip_s = "recording", 0
                self.holds = [h for h in self.holds if h != "clip_limit"]

    def _give_out(self, mode: dict[str, Any]) -> None:
        limits = self.camera["limits"]
        if self.state == "off":
            return
        if self.out.body_c >= limits["stop_c"]:
            self.state = "off"
            self.holds.append("hot")
            if not self.camera["starts_itself"]:
                self.holds.append("no_hand")
        if self.out.charge <= 0.0:
            self.out.charge = 0.0
            self.state = "off"
            self.holds.append("empty")
        if self.state == "recording" and self.out.bytes_written >= self.room:
            self.out.bytes_written = self.room
            self.state = "off"
            self.holds.append("card_full")
        limit_s = mode.get("clip_limit_s")
        if self.state == "recording" and limit_s and self.clip_s >= limit_s:
            self.holds.append("clip_limit")
            goes_on = self.camera["continues_after_clip"]
            self.state = "booting" if goes_on else "off"
            self.boot_left_s = self.camera["boot_s"]

    def _cool_enough(self) -> None:
        if "hot" in self.holds and self.out.body_c <= self.camera["limits"]["restart_c"]:
            self.holds.remove("hot")

    def _stop_asking(self, at_s: float) -> None:
        self._close_gap(at_s)
        self.state = "off"
        self.holds = [h for h in self.holds if h not in ("no_hand", "clip_limit")]

    def _leave(self, number: int) -> None:
        following = self.items[number + 1] if number + 1 < len(self.items) else None
        if following is None or following["id"] not in self.asked:
            self.state = "off"
            self.holds = [h for h in self.holds if h not in ("no_hand", "clip_limit")]

    # -- what the rules say ----------------------------------------------------------

    def _wanted_seconds(self, item: dict[str, Any]) -> range | set[int]:
        if item["id"] not in self.wanted:
            self.wanted[item["id"]] = self._seconds_asked(item)
        return self.wanted[item["id"]]

    def _seconds_asked(self, item: dict[str, Any]) -> range | set[int]:
        assignment = self.asked.get(item["id"])
        if assignment is None:
            return range(0)
        pattern = assignment.get("pattern", {"kind": "roll"})
        if pattern["kind"] == "roll":
            return range(item["duration_s"])
        count, length, whole = pattern["count"], pattern["seconds"], item["duration_s"]
        wanted: set[int] = set()
        for k in range(count):
            start = (k + 0.5) * whole / count - length / 2
            wanted |= set(range(round(start), round(start) + length))
        return wanted

    def _boots_now(self, number: int, second: float) -> dict[str, Any] | None:
        """The item whose asked start is just a boot away, when a hand or a clock can start it."""
        item, boot_s = self.items[number], self.camera["boot_s"]
        start = second + boot_s
        if boot_s == 0:
            return None
        if start == item["duration_s"] and number + 1 < len(self.items):
            following: dict[str, Any] = self.items[number + 1]
            begins = 0 in self._wanted_seconds(following)
            by_hand = item["kind"] == "stop"
            return following if begins and (by_hand or self.camera["starts_itself"]) else None
        wanted = self._wanted_seconds(item)
        begins = start in wanted and start - 1 not in wanted
        return item if begins and self.camera["starts_itself"] else None

    def _mode(self, item: dict[str, Any]) -> dict[str, Any]:
        wanted = self.asked.get(item["id"], {}).get("mode", "m")
        found: dict[str, Any] = next(m for m in self.camera["modes"] if m["id"] == wanted)
        return found

    def _spend(self, watts: float, seconds: float) -> None:
        self.out.used_wh += watts * seconds / 3600
        self.out.charge -= watts * seconds / 3600 / self.wh

    def _ambient(self, at_s: float, item: dict[str, Any], second: float) -> float:
        """Constant over ten minutes of the clock, as in the middle of them, within the item."""
        clock_s = at_s + self.into_step_s
        middle_s = clock_s // AMBIENT_STEP_S * AMBIENT_STEP_S + AMBIENT_STEP_S / 2
        into_item_s = middle_s - self.into_step_s - (at_s - second)
        way = min(1.0, max(0.0, into_item_s / item["duration_s"]))
        low, high = item["temp_start_c"], item["temp_end_c"]
        return float(low + (high - low) * way)

    @staticmethod
    def _rate(mode: dict[str, Any]) -> int:
        return round((mode["video_mbps"] + 0.192) * 1e6 / 8 * OVERHEAD + 0.5)
