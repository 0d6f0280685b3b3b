"""One camera: what it does in half a second."""

from __future__ import annotations

from dataclasses import dataclass, field
from math import ceil, exp
from typing import TYPE_CHECKING, Any

from .asked import STREAMS, Asked, frame_s
from .physics import (
    AIRFLOW,
    CELL_LAG_S,
    COLD,
    INTO,
    K_PER_W,
    LAG_S,
    REVIVAL,
    SELF_DISCHARGE_PER_S,
    STEP_H,
    STEP_S,
    STORED,
    THROUGH,
    Cell,
    Memory,
    Store,
    hidden,
)

if TYPE_CHECKING:
    from .world import World

Doc = dict[str, Any]
SPENT = ("empty", "cold", "card_full", "no_card", "no_power")
OVERHEAD, SAVE_S, RADIO_W, WARM_C = 1.01, 3, 0.35, 20.0


@dataclass
class Clip:
    """A piece of footage, where it lies and how many copies of it stand elsewhere."""

    memory: Memory
    size: float
    copies: set[str] = field(default_factory=set)
    gone: bool = False
    moved: bool = False


class Cam:
    """State of one camera and what came out of it."""

    def __init__(self, world: World, number: int, document: Doc) -> None:
        self.world, self.number = world, number
        self.doc: Doc = document["kit"]["cameras"][number]
        self.asked = Asked(document, self.doc)
        plans = document["plan"].get("cameras", [])
        self.plan: Doc = next((p for p in plans if p["camera"] == self.doc["id"]), {})
        self.mass = (self.doc.get("mass_g", 70.0) / 70.0) ** (2 / 3)
        self.k_per_w = self.doc.get("resistance_k_per_w") or K_PER_W / self.mass
        self.boot_s = round(self.doc.get("boot_s", 4.0))
        self.alone = bool(self.doc.get("starts_itself"))
        self.limits = self.doc.get("limits") or {"stop_c": 70.0, "restart_c": 55.0}
        self.cell: Cell | None = None
        self.memory: Memory | None = None
        self.beside: Memory | None = None
        self.ran_full = False
        self.store: Store | None = None
        self.plugged: Store | None = None
        self.body_c = 0.0
        self.state, self.boot_left_s = "off", 0.0
        self.boot_for = 0
        self.busy = False
        self.dead = False  # gave out by charge; wants charge above the line to go on
        self.wants_hand = False  # gave out, and only a hand brings it back
        self.hot = False
        self.frozen = False
        self.pause = False
        self.causes: list[str] = []
        self.by_radio = False
        self.worn: tuple[str, str] | None = None
        self.clip_s = self.on_left_s = 0.0
        self.loop_bytes = self.loop_s = 0.0
        self.feed_w = 0.0
        self.filmed_s = self.kept_s = self.used_wh = self.written = 0.0
        self.frames = 0
        self.save_waits = False
        self.clip_from = 0.0
        self.clips: list[Clip] = []
        self.around: dict[tuple[int, int], tuple[float, float, float, float]] = {}
        self.missing: list[tuple[float, float, str]] = []
        self.lost_s: dict[str, float] = {}
        self.cold_left_s = 0.0
        self.cause, self.off_for = "", ""

    # -- what holds at a second ------------------------------------------------------

    def slot(self) -> Doc | None:
        """Where cards go in and out of it."""
        memory: Doc = self.doc["memory"]
        return memory if memory["kind"] == "slot" else self.doc.get("slot")

    def ran_out(self, at_s: int, *, now: bool) -> str:
        """Empty; or cold, where warmth would have carried its battery on by a minute.

        How long it would is told as it gives out now.
        """
        cell, watts = self.cell, self.watts(at_s)
        if cell is None:
            return "empty"
        line = hidden(WARM_C, cell.health, COLD, watts / cell.wh, cell.k)
        mean_w = self.world.hands.choosing.mean_w(self, at_s)
        lasts_s = cell.wh * (cell.charge - line) / mean_w * 3600
        if now:
            self.cold_left_s = max(0.0, lasts_s)
        return "cold" if lasts_s >= 60 else "empty"

    def set_up(self, at_s: int) -> Doc:
        """How it is built there."""
        return self.asked.set_up(at_s)

    @property
    def through(self) -> float:
        """Of what comes to its port, what feeds it."""
        return STORED if self.store is not None and self.store.is_module else THROUGH

    def choose_memory(self, at_s: int) -> None:
        """To its own memory or to its card, as it is built there."""
        if self.beside is None or self.memory is None or self.asked.job(at_s) is None:
            return
        own = self.set_up(at_s).get("writes_to", "own") == "own"
        if (self.memory.name == "fixed") != own:
            self._let_go()
            self.close_clip()
            self.memory, self.beside = self.beside, self.memory
            self.clip_from = self.memory.used
            if self.ran_full:  # whoever rebuilt it has it in the hand
                self.wants_hand = self.ran_full = False
                self.causes = ["no_start"]

    def power(self, at_s: int) -> str:
        """On its battery, on outside power, or on that alone."""
        for second in (at_s, min(at_s + self.boot_s, self.world.end_s - 1)):
            if self.asked.job(second):
                return str(self.set_up(second).get("power", "battery"))
        return "battery"

    def watts(self, at_s: int) -> float:
        """What its mode draws."""
        watts: float = self.asked.mode(at_s)["draw"]["watts"]
        return watts

    def rate(self, at_s: int) -> int:
        """Bytes a second."""
        mode = self.asked.mode(at_s)
        return ceil((mode["video_mbps"] + mode.get("audio_mbps", 0.192)) * 1e6 / 8 * OVERHEAD)

    def can_go_on(self, at_s: int) -> bool:
        """Whether there is charge, cool and room enough to start; says why not."""
        self.causes = [c for c in self.causes if c in ("no_hand", "swap")]
        power, watts = self.power(at_s), self.watts(at_s)
        covered = self.feed_w * self.through >= watts - 1e-9
        if power == "outside_only":
            if not covered:
                self.causes.append("no_power")
        elif self.cell is None:
            if not covered:
                self.causes.append("no_battery")
        elif not covered:
            line = self.cell.line(watts)
            if self.cell.charge <= line or (self.dead and self.cell.charge < line + REVIVAL):
                self.causes.append(self.ran_out(at_s, now=not self.dead))
                self.dead = True
        if self.hot and self.body_c > self.limits["restart_c"]:
            self.causes.append("hot")
        free = self.memory.room - self.memory.used if self.memory else 0.0
        pattern = self.asked.pattern(at_s)
        wants = self.rate(at_s) * pattern.get("segments", 5) if pattern["kind"] == "loop" else 1
        if free < wants:
            self.causes.append("card_full" if self.memory else "no_card")
        self.off_for = next((one for one in self.causes if one in SPENT), self.off_for)
        return not {c for c in self.causes if c != "no_hand"}

    # -- starting and stopping -------------------------------------------------------

    def start(self, for_s: int) -> None:
        """Boot for a second at or after this one."""
        self.dead = self.hot = self.wants_hand = False
        self.causes, self.off_for = [], ""
        at_once = self.state == "standby" or self.boot_s == 0
        self.state, self.boot_left_s, self.boot_for = "boot", float(self.boot_s), for_s
        if at_once:
            self.record()

    def record(self) -> None:
        """A new clip."""
        self.close_clip()
        self.clip_from = self.memory.used if self.memory else 0.0
        self.state, self.clip_s, self.loop_bytes = "on", 0.0, 0.0
        self.loop_s = self._loop_s(min(self.world.at_s, self.world.end_s - 1))
        self.on_left_s = frame_s(self.asked.pattern(min(self.world.at_s, self.world.end_s - 1)))

    def _loop_s(self, at_s: int) -> float:
        """How long its loop is: as asked, or as much as its card has room for."""
        pattern = self.asked.pattern(at_s)
        if pattern["kind"] != "loop" or self.memory is None:
            return 0.0
        room_s = (self.memory.room - self.memory.used) / self.rate(at_s)
        return float(min(pattern["length_s"], room_s))

    def close_clip(self) -> None:
        """A clip of what was written since it began."""
        length = self.memory.used - self.clip_from if self.memory else 0.0
        if self.state == "on" and length > 0 and self.memory:
            self.clips.append(Clip(self.memory, length))

    def stop(self, at_s: int | None = None) -> None:
        """Off, a loop let go; or on standby where the plan wants it and more is to come."""
        self._let_go()
        self.close_clip()
        later = at_s is not None and any(self.asked.asked[at_s:])
        waits = later and self.plan.get("between") == "standby" and self.state != "off"
        self.state = "standby" if waits else "off"
        self.causes = []

    def gives_out(self, cause: str, *, hand: bool) -> None:
        """Off against the plan."""
        self._let_go()
        self.close_clip()
        self.state = "off"
        self.causes = [cause]
        self.off_for = cause
        self.ran_full = cause == "card_full"
        self.wants_hand = hand
        self.world.stir()

    def save(self) -> None:
        """Keep the loop; nothing is filmed while it does."""
        self.close_clip()
        self.kept_s += self.loop_bytes / self.rate(self.world.at_s)
        self.loop_bytes = 0.0
        self.state, self.boot_left_s, self.causes = "boot", float(SAVE_S), ["save"]

    def _let_go(self) -> None:
        if self.state == "on" and self.loop_bytes and self.memory:
            self.memory.used -= self.loop_bytes
        self.loop_bytes = 0.0

    # -- half a second ---------------------------------------------------------------

    def account(self, now_s: float, *, asks: bool) -> None:
        """Filmed or missing."""
        if asks and self.state == "on":
            self.filmed_s += STEP_S
        elif asks:
            cause = self._cause(goes_on=bool(self.missing) and self.missing[-1][1] == now_s)
            self.cause = cause
            if cause == "cold":
                cause = "cold" if self.cold_left_s > 0 else "empty"
                self.cold_left_s -= STEP_S
            self.lost_s[cause] = self.lost_s.get(cause, 0.0) + STEP_S
            if self.missing and self.missing[-1][1] == now_s:
                self.missing[-1] = (self.missing[-1][0], now_s + STEP_S, self.missing[-1][2])
            else:
                self.missing.append((now_s, now_s + STEP_S, cause))

    def _cause(self, *, goes_on: bool) -> str:
        """Why it is missing: what hands do in a gap is part of it; what is off stays so."""
        if self.busy and goes_on and self.cause not in ("", "swap", "move", "boot"):
            return self.cause
        if self.busy and not goes_on and self.off_for:
            return self.off_for
        if self.causes == ["no_hand"] and self.cell is None:
            return "no_battery"
        if not self.causes and self.state == "off" and self.off_for:
            return self.off_for
        return self.causes[0] if self.causes else "boot"

    def march(self, at_s: int) -> None:
        """Power, heat, bytes; then what gives out."""
        for_s = self.boot_for if self.state == "boot" and not self.asked.asked[at_s] else at_s
        mode, set_up = self.asked.mode(for_s), self.set_up(at_s)
        watts = rise = 0.0
        if self.state == "boot":
            watts = mode["draw"]["watts"]
            rise = mode.get("rise_k", self.k_per_w * watts)
        elif self.state == "on":
            watts, rise = self._film(at_s, mode)
        elif self.state in ("standby", "copying"):
            watts = self.doc.get("standby_w", 0.5)
            watts += RADIO_W if self.state == "copying" and self.by_radio else 0.0
            rise = self.k_per_w * watts
        rise += self._drink(at_s, watts)
        self._warm(at_s, set_up, rise)
        if self.state == "boot":
            self.boot_left_s -= STEP_S
        self._give_out(at_s, mode, watts)

    def _film(self, at_s: int, mode: Doc) -> tuple[float, float]:
        pattern, watts = self.asked.pattern(at_s), mode["draw"]["watts"]
        rise, rate, kind = (
            mode.get("rise_k", self.k_per_w * watts),
            self.rate(at_s),
            pattern["kind"],
        )
        self.clip_s += STEP_S
        assert self.memory is not None
        if kind == "interval":
            return self._frame(pattern, watts, rise)
        if kind == "armed" and not self.asked.clip[at_s]:
            waits = watts if pattern.get("pre_record_s") else self.doc.get("standby_w", 0.5)
            return waits, rise if pattern.get("pre_record_s") else self.k_per_w * waits
        if kind == "loop":
            length, segment = self.loop_s, self.loop_s / pattern.get("segments", 5)
            held = self.clip_s
            if held >= length:
                held = length - segment + self.clip_s % segment
            self.memory.used += rate * held - self.loop_bytes
            self.loop_bytes = rate * held
        else:
            self.memory.used += rate * STEP_S
        self.written += rate * STEP_S
        return watts, rise

    def _frame(self, pattern: Doc, watts: float, rise: float) -> tuple[float, float]:
        every, begun = pattern["every_s"], self.clip_s - STEP_S
        assert self.memory is not None
        if begun % every == 0:
            self.memory.used += pattern["frame_mb"] * 1e6
            self.written += pattern["frame_mb"] * 1e6
            self.frames += 1
            if begun:
                self.on_left_s = self.boot_s + frame_s(pattern)
        if every <= self.boot_s + 2:
            return watts, rise
        if every <= 45:
            share = min(1.0, (self.boot_s + frame_s(pattern)) / every)
            return watts * share, rise * share
        self.on_left_s -= STEP_S
        return (watts, rise) if self.on_left_s >= 0 else (0.0, 0.0)

    def _drink(self, at_s: int, watts: float) -> float:
        """From the port, into or out of the cell; gives the rise by charging and feeding."""
        cell, alone = self.cell, self.power(at_s) == "outside_only"
        feed = self.feed_w
        port = min(feed, watts / self.through)
        short = max(0.0, watts - feed * self.through)
        taken, heat = port, port * (1 - self.through)
        surplus = (feed - port) * INTO
        self.used_wh += port * self.through * STEP_H
        if cell is not None and not alone:
            resting = cell.refuses() or self.pause or cell.charge >= 0.99
            bars = not self.set_up(at_s).get("charges_recording", True)
            resting = resting or (bars and self.state == "on")
            if feed > 0 and surplus > 0 and not resting:
                most_w = cell.most_w(fed=True)
                into = min(surplus, most_w * min(1.0, (1 - cell.charge) / cell.tail))
                cell.charge += into * STEP_H / cell.wh
                taken += into / INTO
                heat += self._taper_heat(cell, surplus, most_w)
            elif short > 0:
                self.used_wh += short * STEP_H
                cell.charge -= short * STEP_H / cell.wh
            elif self.state == "off" and watts == 0:
                cell.charge -= min(cell.charge, SELF_DISCHARGE_PER_S * STEP_S)
        store = self.world.feeding.feeds.get(self.number)
        if store is not None:
            store.load_w += taken
        return self.k_per_w * float(self.doc.get("charge_heat", 1.0)) * heat

    @staticmethod
    def _taper_heat(cell: Cell, surplus: float, most_w: float) -> float:
        most = min(surplus, most_w)
        held = [min(surplus, most_w * share) for share in (1, 0.75, 0.5, 0.25, 0.05)]
        seen = most if cell.charge < 1 - cell.tail * most / most_w else sum(held) / 5
        return seen * (1 / INTO - 1)

    def level(self, at_s: int, rise: float) -> tuple[float, float]:
        """Where the body would settle, and its lag."""
        piece = self.world.piece(at_s)
        if piece not in self.around:
            self.around[piece] = self._around(at_s)
        air, shed, sun, lag = self.around[piece]
        return air + shed * (rise + sun), lag

    def _around(self, at_s: int) -> tuple[float, float, float, float]:
        """What holds over a step of the air: its temperature, share of rise, sun, and lag."""
        item, set_up = self.world.item(at_s), self.set_up(at_s)
        air = item.get("air_mps", 0.0) * set_up.get("air_share", 1.0)
        dense = exp(-self.world.height_m(at_s) / 8400)
        blown = 1 + AIRFLOW * set_up.get("case_a", 1.0) * dense**0.2 * air**0.5
        shed = max(0.25, set_up.get("case_factor", 1.0) / blown) * dense**-0.3
        lag: float = (set_up.get("tau_s") or LAG_S * self.mass**0.5) * shed
        lag *= set_up.get("lag_factor", 1.0)
        sun = self.k_per_w * 0.9 * 12e-4 * self.mass * self.world.sun_w_m2(at_s)
        return self.world.air(at_s), shed, sun, lag

    def _warm(self, at_s: int, set_up: Doc, rise: float) -> None:
        level, lag_s = self.level(at_s, rise)
        body, cell = self.body_c, self.cell
        half = body + (level - body) / lag_s * STEP_S / 2
        self.body_c = body + (level - half) / lag_s * STEP_S
        if cell is not None and self.power(at_s) != "outside_only":
            half_cell = cell.cell_c + (body - cell.cell_c) / CELL_LAG_S * STEP_S / 2
            cell.cell_c += (half - half_cell) / CELL_LAG_S * STEP_S

    def _give_out(self, at_s: int, mode: Doc, watts: float) -> None:
        self.pause = self.body_c > (40 if self.pause else 45)
        waits = "hot" in self.causes or (self.asked.asked[at_s] and not self.causes)
        if self.hot and self.body_c < self.limits["restart_c"] and waits:
            self.causes = ["no_hand"] if not self.alone else []
            self.world.stir()
        cell, frozen = self.cell, False
        if self.dead and self.state == "off" and cell is not None:
            frozen = cell.charge < cell.line(self.watts(at_s)) + REVIVAL
        if self.frozen and not frozen and self.dead and self.state == "off":
            self.causes = ["no_hand"] if not self.alone else []
            self.world.stir()
        self.frozen = frozen
        if watts <= 0:
            self._clip_limit(at_s, mode)
            return
        alone = self.power(at_s) == "outside_only"
        covered = self.feed_w * self.through >= watts - 1e-9
        idle = self.state == "off"
        if self.body_c >= self.limits["stop_c"] and not idle:
            self.hot = True
            self.gives_out("hot", hand=not self.alone)
        elif not alone and not covered and cell and cell.charge <= cell.line(watts):
            self.dead = True
            if cell.line(watts) <= 0:
                cell.charge = 0.0
            self.gives_out(self.ran_out(at_s, now=True), hand=not self.alone)
        elif alone and not covered:
            self.gives_out("no_power", hand=False)
        elif idle:
            return
        elif self.memory and self.memory.used >= self.memory.room and not self.loop_bytes:
            if self.state == "on":
                self.memory.used = self.memory.room
                self.gives_out("card_full", hand=True)
        else:
            self._clip_limit(at_s, mode)

    def _clip_limit(self, at_s: int, mode: Doc) -> None:
        lapses = self.asked.pattern(at_s)["kind"] == "interval"
        own = self.set_up(at_s).get("lapse_limit_s" if lapses else "clip_limit_s")
        by_mode = None if lapses else mode.get("clip_limit_s")  # frames are no clip
        limit_s = min((one for one in (by_mode, own) if one), default=None)
        streams = self.asked.pattern(at_s)["kind"] in (STREAMS | {"interval"})
        if self.state == "on" and streams and limit_s and self.clip_s >= limit_s:
            if self.doc.get("continues_after_clip", True):
                self.close_clip()
                self.state, self.boot_left_s, self.causes = (
                    "boot",
                    float(self.boot_s),
                    ["clip_limit"],
                )
            else:
                self.gives_out("clip_limit", hand=False)
