"""Footage copied at stops: the cable in, the files that land, and what is wiped.

Source: model/memory#copies.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from .tasks import PLUG_S, Task

if TYPE_CHECKING:
    from .camera import Cam, Clip
    from .hands import Hands
    from .physics import Memory

Doc = dict[str, Any]
INSIDE_MB_S, SUSTAINED, RADIO_W = 20.0, 0.9, 0.35
CLASS_MB_S = {"V6": 6, "V10": 10, "V30": 30, "V60": 60, "V90": 90}


@dataclass
class Job:
    """A copy that runs: which clips land when."""

    number: int
    cam: Cam
    drive: str
    own: Memory
    lands: list[tuple[Clip, float]]
    end_s: float


class Copying:
    """What the plan copies, and the copies that run."""

    def __init__(self, hands: Hands) -> None:
        self.hands, self.world = hands, hands.world
        self.copies: list[Doc] = self.world.document["plan"].get("copies", [])
        self.begun: set[int] = set()
        self.jobs: list[Job] = []
        drives = self.world.document["kit"].get("drives", [])
        self.room = {d["id"]: d["free_gb"] * 1e9 for d in drives}

    def tasks(self, at_s: int) -> list[tuple[tuple[float, ...], Task]]:
        """Cables to take off, and to put in, in the order of the plan."""
        found: list[tuple[tuple[float, ...], Task]] = []
        for job in self.jobs:
            if job.end_s <= at_s:
                end = Task("copy_end", job.cam, at_s + PLUG_S, copy=job.number)
                found.append(((10, 0.0, job.number), end))
        here = self.world.item(at_s)["id"]
        for number, copy in enumerate(self.copies):
            cam = next(c for c in self.world.cams if c.doc["id"] == copy["camera"])
            asked = cam.asked.asked[at_s] or cam.busy
            power = cam.cell is not None and cam.cell.charge > cam.cell.line(0.0) and not cam.dead
            if copy["item"] != here or number in self.begun or asked or cam.state != "off":
                continue
            if copy.get("drive") is None and None in (cam.beside, cam.memory):
                continue
            if (power or cam.feed_w > 0) and at_s + PLUG_S < self._until(cam, copy, at_s):
                begin = Task("copy", cam, at_s + PLUG_S, copy=number)
                found.append(((11, 0.0, number), begin))
        return found

    def cable(self, task: Task, at_s: int) -> None:
        """A cable is off, or in: then it is told which clips will land when."""
        cam, copy = task.cam, self.copies[task.copy]
        assert cam is not None
        if task.kind == "copy_end":
            job = next(job for job in self.jobs if job.number == task.copy)
            self.jobs.remove(job)
            self._landed(job, copy)
            cam.state = "off"
            self.hands.begin(cam, at_s)
            return
        kit = self.world.document["kit"]
        inside = copy.get("drive") is None
        source, drive = (self._own(cam), self._card(cam)) if inside else (cam.memory, None)
        assert source is not None
        if drive is None:
            drive = next(d for d in kit["drives"] if d["id"] == copy["drive"])
        read, link = self._read_mb_s(cam, source), self._link_mb_s(cam, copy)
        cam.by_radio = copy.get("by") == "radio"
        rate = min(read, link, drive.get("write_mb_s", 60.0)) * 1e6
        lands, now, room = [], float(at_s), self.room[drive["id"]]
        for clip in cam.clips:
            if clip.gone or clip.memory is not source or drive["id"] in clip.copies:
                continue
            if clip.size > room:
                continue
            room -= clip.size
            now += clip.size / rate
            lands.append((clip, now))
        end_s = min(self._until(cam, copy, at_s - 1), lands[-1][1] if lands else at_s)
        self.jobs.append(Job(task.copy, cam, drive["id"], source, lands, end_s))
        cam.state = "copying"

    def _until(self, cam: Cam, copy: Doc, at_s: int) -> int:
        """Its stop, its free hands, and what its camera is asked next; the cable off before."""
        number = next(n for n, item in enumerate(self.world.items) if item["id"] == copy["item"])
        ends = self.world.starts[number] + self.world.items[number]["duration_s"]
        wanted = self.hands.plugging.unloading.wanted_s(cam, at_s)
        if wanted >= self.world.end_s:
            wanted = ends
        return min(self.hands.until(at_s), ends, wanted) - PLUG_S

    def needs_wh(self, cam: Cam, at_s: int) -> float:
        """What a camera draws for a copy that is wanted here and not begun."""
        here = self.world.item(at_s)["id"]
        for number, copy in enumerate(self.copies):
            if copy["item"] != here or number in self.begun or copy["camera"] != cam.doc["id"]:
                continue
            inside = copy.get("drive") is None
            if inside and None in (cam.beside, cam.memory):
                continue
            source = self._own(cam) if inside else cam.memory
            size = sum(c.size for c in cam.clips if not c.gone and c.memory is source)
            read, link = self._read_mb_s(cam, source), self._link_mb_s(cam, copy)
            watts = cam.doc.get("standby_w", 0.5)
            watts += RADIO_W if copy.get("by") == "radio" else 0.0
            return float(watts * size / (min(read, link) * 1e6) / 3600)
        return 0.0

    def _read_mb_s(self, cam: Cam, source: Memory | None) -> float:
        kit, memory = self.world.document["kit"], cam.doc["memory"]
        if source is None or source.name == "fixed":
            return float(memory.get("read_mb_s", memory.get("speed_mb_s", 90.0)))
        card = next(c for c in kit["cards"] if c["id"] == source.name)
        return float(card.get("read_mb_s", 60.0))

    def _link_mb_s(self, cam: Cam, copy: Doc) -> float:
        if copy.get("drive") is None:
            return float(cam.doc.get("inside_mb_s") or INSIDE_MB_S)
        drive = next(d for d in self.world.document["kit"]["drives"] if d["id"] == copy["drive"])
        if copy.get("by") == "radio":
            return float(drive.get("radio_mb_s") or 5.0)
        return float(drive.get("link_mb_s", 30.0))

    @staticmethod
    def _own(cam: Cam) -> Memory | None:
        return next(one for one in (cam.memory, cam.beside) if one and one.name == "fixed")

    def _card(self, cam: Cam) -> Doc:
        """The card beside its own memory, as a drive that a cable inside leads to."""
        card = next(one for one in (cam.memory, cam.beside) if one and one.name != "fixed")
        doc = next(c for c in self.world.document["kit"]["cards"] if c["id"] == card.name)
        self.room[card.name] = card.room - card.used
        link = cam.doc.get("inside_mb_s") or INSIDE_MB_S
        write = CLASS_MB_S[doc.get("speed_class", "V30")] * SUSTAINED
        return {"id": card.name, "link_mb_s": link, "write_mb_s": write}

    def _landed(self, job: Job, copy: Doc) -> None:
        """Whole files count; then what has copies enough may be wiped (model/memory#copies)."""
        for clip, at_s in job.lands:
            if at_s <= job.end_s + 1e-6:
                self.room[job.drive] -= clip.size
                if copy.get("drive") is not None:
                    clip.copies.add(job.drive)
                    continue
                clip.memory.used -= clip.size  # copied, checked, deleted
                card = next(one for one in self.world.memories if one.name == job.drive)
                clip.memory, clip.moved = card, True
                card.used += clip.size
        for clip in job.cam.clips:
            least = {"no": 99, "with_two_copies": 2, "anyway": 1}[copy.get("wipe", "no")]
            if clip.memory is job.own and not clip.gone and len(clip.copies) >= least:
                clip.gone = True
                clip.memory.used -= clip.size
