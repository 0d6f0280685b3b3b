"""What the plan asks of one camera, second by second."""

from __future__ import annotations

from math import floor
from typing import Any

Doc = dict[str, Any]
STREAMS = {"roll", "takes", "windows"}


class Asked:
    """One camera's stretches, each second of the trip told apart."""

    def __init__(self, document: Doc, camera: Doc) -> None:
        self.camera = camera
        self.items: list[Doc] = document["trip"]["items"]
        plan = document["plan"]["assignments"]
        self.jobs = {a["item"]: a for a in plan if a["camera"] == camera["id"]}
        self.midnight_s = _clock_s(document["trip"]["start"].split("T")[1])
        links: list[Doc] = document["plan"].get("links", [])
        with_it: list[str] = next(
            (one["cameras"] for one in links if camera["id"] in one["cameras"]), []
        )
        together = {camera["id"], *with_it}
        near = [c for c in document["kit"]["cameras"] if c["id"] in together]
        self.hears = {how for one in near for how in one.get("answers_to", ())}
        self.asked: list[bool] = []
        self.clip: list[bool] = []
        self.saves: set[int] = set()
        self.where: list[int] = []
        for number, item in enumerate(self.items):
            start_s = len(self.asked)
            asked, clip, saves = self._item(item, start_s)
            self.asked += asked
            self.clip += clip
            self.saves |= {start_s + s for s in saves}
            self.where += [number] * item["duration_s"]
        self.asked.append(False)
        self.where.append(self.where[-1])
        by_item = [self.jobs.get(item["id"]) for item in self.items]
        modes = {m["id"]: m for m in camera["modes"]}
        set_ups = {s["id"]: s for s in camera["set_ups"]}
        self._job = by_item
        self._pattern = [(job or {}).get("pattern", {"kind": "roll"}) for job in by_item]
        self._mode = [modes[(job or {}).get("mode", camera["modes"][0]["id"])] for job in by_item]
        first = camera["set_ups"][0]["id"]
        plans = document["plan"].get("cameras", [])
        own_plan: Doc = next((p for p in plans if p["camera"] == camera["id"]), {})
        own = own_plan.get("mount", "other")
        self._worn = [
            ((job or {}).get("set_up", ""), (job or {}).get("mount") or own) for job in by_item
        ]
        self._set_up = [set_ups[(job or {}).get("set_up", first)] for job in by_item]

    def job(self, at_s: int) -> Doc | None:
        """The assignment of the item that a second lies in."""
        return self._job[self.where[at_s]]

    def pattern(self, at_s: int) -> Doc:
        """How it records there."""
        return self._pattern[self.where[at_s]]

    def mode(self, at_s: int) -> Doc:
        """What it records in there."""
        return self._mode[self.where[at_s]]

    def set_up(self, at_s: int) -> Doc:
        """How it is built there."""
        return self._set_up[self.where[at_s]]

    def worn(self, at_s: int) -> tuple[str, str]:
        """How it is built there, and on what it sits."""
        return self._worn[self.where[at_s]]

    def begins(self, at_s: int) -> bool:
        """Whether a stretch begins here that wants a start of its own."""
        if not self.asked[at_s]:
            return False
        if at_s == 0 or not self.asked[at_s - 1]:
            return True
        return self.parted(at_s) and not self.flows(at_s)

    def parted(self, at_s: int) -> bool:
        """Whether an item ends here."""
        return at_s > 0 and self.where[at_s] != self.where[at_s - 1]

    def flows(self, at_s: int) -> bool:
        """Whether what was recorded before a border goes on without stopping."""
        return self.pattern(at_s - 1)["kind"] in STREAMS

    def _item(self, item: Doc, start_s: int) -> tuple[list[bool], list[bool], set[int]]:
        whole: int = item["duration_s"]
        nothing, everything = [False] * whole, [True] * whole
        if item["id"] not in self.jobs:
            return nothing, nothing, set()
        pattern = self.jobs[item["id"]].get("pattern", {"kind": "roll"})
        kind = pattern["kind"]
        if kind == "takes":
            asked, n = list(nothing), _count(pattern, whole)
            if n * pattern["seconds"] >= whole:
                return everything, everything, set()
            for k in range(n):
                first = round((k + 0.5) * whole / n - pattern["seconds"] / 2)
                for second in range(first, first + pattern["seconds"]):
                    asked[second] = True
            return asked, asked, set()
        if kind == "windows":
            asked = [self._in_window(pattern, start_s + second) for second in range(whole)]
            return asked, asked, set()
        if kind == "armed":
            clips = list(nothing)
            for at in self._triggers(item, pattern, whole):
                first = max(0, at - pattern.get("pre_record_s", 0))
                for second in range(first, min(whole, at + pattern["seconds"])):
                    clips[second] = True
            return everything, clips, set()
        if kind == "loop":
            n = pattern.get("saves") or 0
            return everything, everything, {floor((k + 0.5) * whole / n) for k in range(n)}
        return everything, everything, set()

    def _triggers(self, item: Doc, pattern: Doc, whole: int) -> list[int]:
        """When an armed camera is set off: evenly, or by a word or press after each moment."""
        if pattern.get("trigger") == "voice" and "voice" not in self.hears:
            return []
        if pattern.get("trigger") not in ("voice", "press") or not item.get("moments"):
            n = _count(pattern, whole)
            return [floor((k + 0.5) * whole / n) for k in range(n)]
        found = []
        for moment in item["moments"]:
            n = _count(moment, whole)
            for k in range(n):
                at = floor((k + 0.5) * whole / n) + moment.get("reaction_s", 5)
                asleep = item.get("asleep") or {"start_s": 0, "duration_s": 0}
                sleeps = asleep["start_s"] <= at < asleep["start_s"] + asleep["duration_s"]
                by_hand = pattern["trigger"] == "press" and item.get("hands") == "never"
                if not (sleeps or by_hand):
                    found.append(min(at, whole - 1))
        return found

    def _in_window(self, pattern: Doc, at_s: int) -> bool:
        clock = (self.midnight_s + at_s) % 86_400
        for window in pattern["windows"]:
            opens, closes = (_clock_s(window[edge]["at"]) for edge in ("opens", "closes"))
            inside = opens <= clock < closes
            if inside or (closes <= opens and (clock >= opens or clock < closes)):
                return True
        return False


def _count(pattern: Doc, whole: int) -> int:
    if pattern.get("count"):
        return int(pattern["count"])
    return floor(pattern["per_hour"] * whole / 3600 + 0.5)


def _clock_s(text: str) -> int:
    hour, minute, *rest = (int(part) for part in text.split(":"))
    return hour * 3600 + minute * 60 + (rest[0] if rest else 0)


def frame_s(pattern: Doc) -> float:
    """Seconds of a frame: exposure and writing, where they are said."""
    exposure, writing = pattern.get("exposure_s"), pattern.get("writing_s")
    if exposure is None and writing is None:
        return 1.0
    return float((exposure or 0.0) + (1.0 if writing is None else writing))
