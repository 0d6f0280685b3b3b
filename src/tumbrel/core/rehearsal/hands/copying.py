"""Footage copied at stops, counted per clip, and wiped (model/memory#copies)."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Final

from mypy_extensions import mypyc_attr

from ...charging import NEVER_MS
from ...document import Copy, Drive
from ...memory import memory_key
from ..camera.camera_run import CameraRun
from ..camera.handled import begin_copying, end_copying, may_copy, next_start_ms
from ..state.append_log import Log
from ..stock.cards import CardRun
from ..stock.clips import Kept
from ..trip.scene import Scene
from ..trip.timeline import FreeHands, Laid
from .copy_jobs import Job, run_on
from .tasks import COPY_RANK, BeginCopy, EndCopy

ENOUGH_COPIES: Final = 2
GONE: Final = "-"


class Landed:
    """A clip that reached a drive or card; or, with GONE before its key, was wiped from one."""

    __slots__ = ("at_ms", "drive", "start_ms", "store")

    def __init__(self, at_ms: int, store: str, start_ms: int, drive: str) -> None:
        self.at_ms: Final = at_ms
        self.store: Final = store
        self.start_ms: Final = start_ms
        self.drive: Final = drive


@dataclass(frozen=True, slots=True)
class CopyDone:
    """A copying as it went, for the board and the findings."""

    number: int
    start_ms: int
    end_ms: int
    store: str
    drive: str
    clips: int
    bytes: int
    left_clips: int
    left_bytes: int
    lacks_bytes: int
    why_left: str
    wiped_single: int
    not_wiped: int


@mypyc_attr(serializable=True)
class Copying:
    """Jobs of the plan, the copies that exist, and the room on the drives."""

    def __init__(
        self,
        scene: Scene,
        cameras: list[CameraRun],
        cards: list[CardRun],
    ) -> None:
        self.cameras = cameras
        self.cards = cards
        self.defaults = scene.defaults
        self.takes_ms = round(scene.defaults.plug_s.value * 1000)
        self.drives = {drive.id: drive for drive in scene.drives}
        self.radio_mb_s = scene.defaults.radio_mb_s.value
        self.room = {drive.id: round(drive.free_gb * 1e9) for drive in scene.drives}
        self.use_scene(scene)
        self.begun: set[int] = set()
        self.jobs: list[Job] = []
        self.landed: Log[Landed] = Log()
        self.held_by: dict[tuple[str, int], set[str]] = {}
        self.gone: set[tuple[str, int]] = set()
        self.moved_to: dict[tuple[str, int], str] = {}
        self.copied: Log[CopyDone] = Log()

    def use_scene(self, scene: Scene) -> None:
        """Go by a scene that was the same until now."""
        self.wanted = scene.hands.copies
        self.timeline = scene.timeline

    # -- when -----------------------------------------------------------------------

    def due_ms(self) -> int:
        """When the next running job is through."""
        return min((job.ends_ms for job in self.jobs), default=NEVER_MS)

    def due(self, here: Laid, now_ms: int, interval: FreeHands) -> BeginCopy | EndCopy | None:
        """The next cable to put in or take off."""
        for job in self.jobs:
            if now_ms >= job.ends_ms:
                return EndCopy(COPY_RANK, 0, job.number, self.takes_ms, job.run, job.number)
        for number, copy in enumerate(self.wanted):
            if copy.item != here.id or number in self.begun:
                continue
            run, card = self._where(copy)
            busy = run is not None and not may_copy(run)
            if (
                card is None
                or busy
                or self._to(copy, run) is None
                or now_ms + self.takes_ms >= self._until_ms(copy, run, interval)
            ):
                continue
            return BeginCopy(COPY_RANK, 1, number, self.takes_ms, run, number, copy)
        return None

    def by_radio(self, number: int) -> bool:
        """Whether a copy goes without a cable."""
        return self.wanted[number].by == "radio"

    def awaited(self, run: CameraRun) -> set[str]:
        """Where the plan still copies from a camera, for which it wants power."""
        return {
            copy.item
            for number, copy in enumerate(self.wanted)
            if number not in self.begun and self._where(copy)[0] is run
        }

    def needs_wh(self, run: CameraRun, here: Laid, now_ms: int) -> float:
        """What a camera draws for a copy that the plan wants here and that can be begun [W h]."""
        for number, copy in enumerate(self.wanted):
            if copy.item != here.id or number in self.begun:
                continue
            owner, card = self._where(copy)
            drive = self._to(copy, owner)
            if owner is not run or card is None or drive is None:
                continue
            size = sum(self._size(clip, copy) for clip in self.clips_on(card.store.id, now_ms))
            radio_w = run.energy.radio_w if copy.by == "radio" else 0.0
            seconds = size / self._own_rate(copy, card, drive)
            return (run.energy.standby_w + radio_w) * seconds / 3600.0
        return 0.0

    def _own_rate(self, copy: Copy, card: CardRun, drive: Drive) -> float:
        """How fast it goes by itself, as card and cable or radio allow [bytes/s]."""
        link_mb_s = drive.link_mb_s
        if copy.by == "radio":
            link_mb_s = self.radio_mb_s if drive.radio_mb_s is None else drive.radio_mb_s
        return min(card.read_bytes_s, link_mb_s * 1e6)

    def _where(self, copy: Copy) -> tuple[CameraRun | None, CardRun | None]:
        if copy.camera is not None:
            run = next(r for r in self.cameras if r.camera.id == copy.camera)
            return run, run.card if copy.drive is not None else _own(run)
        card = next(c for c in self.cards if c.store.id == copy.card)
        owner = next((r for r in self.cameras if r.card is card), None)
        return owner, card

    def _to(self, copy: Copy, run: CameraRun | None) -> Drive | None:
        """Where it goes: a drive, or the card beside the camera's own memory (model/memory#two)."""
        if copy.drive is not None:
            return self.drives[copy.drive]
        card = None if run is None else run.card if not run.writes_own else run.beside
        if run is None or card is None or _own(run) is None:
            return None
        own_mb_s = run.camera.inside_mb_s
        self.room[card.store.id] = card.free
        return Drive(
            id=card.store.id,
            name=card.store.name,
            free_gb=card.free / 1e9,
            link_mb_s=self.defaults.inside_mb_s.value if own_mb_s is None else own_mb_s,
            write_mb_s=card.store.sustained_bytes_s / 1e6,
        )

    # -- doing ----------------------------------------------------------------------

    def begin(self, number: int, now_ms: int, interval: FreeHands) -> None:
        """The cable is in: clips begin to land, in order, whole files only."""
        copy = self.wanted[number]
        self.begun.add(number)
        run, card = self._where(copy)
        drive = self._to(copy, run)
        if card is None or drive is None:
            return
        room = self.room[drive.id] - self._promised(drive)
        clips: list[Kept] = []
        wholes: list[int] = []
        without_room: list[Kept] = []
        for clip in self.clips_on(card.store.id, now_ms):
            if drive.id in self.copies_of(clip):
                continue
            size = self._size(clip, copy)
            if size > room:
                without_room.append(clip)
                continue
            room -= size
            clips.append(clip)
            wholes.append(size + (wholes[-1] if wholes else 0))
        if run is not None:
            begin_copying(run, by_radio=copy.by == "radio")
        own_rate = self._own_rate(copy, card, drive)
        until_ms = self._until_ms(copy, run, interval)
        job = Job(number, copy, card, run, drive, now_ms, until_ms, until_ms, clips, wholes,
                  without_room, own_rate, [], float(now_ms))  # fmt: skip
        self.jobs.append(job)
        self._reckon(drive, now_ms)

    def _until_ms(self, copy: Copy, run: CameraRun | None, interval: FreeHands) -> int:
        """Until when a copy may go on: its stop, its free hands, and what its camera is asked next.

        Its cable comes off before. Source: model/memory#copies.
        """
        ends_ms = min(interval.end_ms, self.timeline.by_id[copy.item].end_ms)
        if run is not None:
            ends_ms = min(ends_ms, next_start_ms(run))
        return ends_ms - self.takes_ms

    def _gone_on(self, drive: Drive, now_ms: int) -> list[Job]:
        """All that copy to a drive, moved to a time."""
        jobs = [job for job in self.jobs if job.drive.id == drive.id]
        run_on(jobs, drive.write_mb_s * 1e6, float(now_ms))
        return jobs

    def _promised(self, drive: Drive) -> int:
        """What running jobs will still take of a drive's room [bytes]."""
        running = (job for job in self.jobs if job.drive.id == drive.id)
        return sum(job.wholes[-1] for job in running if job.wholes)

    def _reckon(self, drive: Drive, now_ms: int) -> None:
        """When jobs on a drive are through, which writes at its own speed over all of them.

        Made anew when a job begins or ends there. Source: model/memory#copies.
        """
        jobs = self._gone_on(drive, now_ms)
        write_rate = drive.write_mb_s * 1e6
        ahead = [replace(job, lands_ms=list(job.lands_ms)) for job in jobs]
        run_on(ahead, write_rate, float(NEVER_MS))
        for job, foreseen in zip(jobs, ahead, strict=True):
            if job.ends_ms <= now_ms and job.start_ms < now_ms:
                continue  # it is through, and waits for a hand
            whole = len(foreseen.lands_ms) == len(job.clips)
            last_ms = foreseen.lands_ms[-1] if whole and job.clips else job.until_ms
            through_ms = last_ms if job.clips else now_ms + 1
            job.ends_ms = max(now_ms + 1, min(job.until_ms, through_ms))

    def end(self, number: int, now_ms: int) -> Job:
        """The cable is off: what landed whole counts; wipe what may be wiped."""
        job = next(job for job in self.jobs if job.number == number)
        self._gone_on(job.drive, now_ms)
        self.jobs.remove(job)
        stopped_ms = min(now_ms, job.ends_ms)
        landed = [
            (clip, at_ms)
            for clip, at_ms in zip(job.clips, job.lands_ms, strict=False)
            if at_ms <= stopped_ms
        ]
        for clip, at_ms in landed:
            self.landed.append(Landed(at_ms, clip.store, clip.start_ms, job.drive.id))
            if job.copy.drive is None:
                self._move(job, clip, at_ms)
                continue
            self.held_by.setdefault((clip.store, clip.start_ms), set()).add(job.drive.id)
            self.room[job.drive.id] -= self._size(clip, job.copy)
        wiped_single, not_wiped = self._wipe(job, now_ms)
        missed = job.clips[len(landed) :]
        left = [*missed, *job.without_room]
        left_bytes = sum(self._size(clip, job.copy) for clip in left)
        why = "no_room" if job.without_room else job.cut_by if missed else ""
        self.copied.append(
            CopyDone(
                number,
                job.start_ms,
                stopped_ms,
                job.card.store.id,
                job.drive.id,
                len(landed),
                sum(self._size(clip, job.copy) for clip, _ in landed),
                len(left),
                left_bytes,
                max(0, left_bytes - self._room_left(job)),
                why,
                wiped_single,
                not_wiped,
            )
        )
        if job.run is not None:
            end_copying(job.run)
        self._reckon(job.drive, now_ms)
        return job

    def _room_left(self, job: Job) -> int:
        """What is free of where a job that has ended copied to, beside what others take."""
        if job.copy.drive is not None:
            return self.room[job.drive.id] - self._promised(job.drive)
        return next(one.free for one in self.cards if one.store.id == job.drive.id)

    def _move(self, job: Job, clip: Kept, at_ms: int) -> None:
        """A clip that was copied to the card in the camera, checked, goes from its own memory."""
        card = next(one for one in self.cards if one.store.id == job.drive.id)
        job.card.used -= clip.bytes
        card.used += clip.bytes
        self.moved_to[clip.store, clip.start_ms] = job.drive.id
        self.landed.append(Landed(at_ms, clip.store, clip.start_ms, GONE + clip.store))

    def _size(self, clip: Kept, copy: Copy) -> int:
        """What of a clip goes over [bytes]: all, or all but the small files beside it."""
        if copy.side_files:
            return clip.bytes
        modes = (
            span.recording.mode
            for run in self.cameras
            for span in run.schedule.spans
            if span.assignment == clip.assignment and span.recording is not None
        )
        mode = next(modes, None)
        return clip.bytes if mode is None else round(clip.bytes / (1.0 + mode.proxy_share))

    def interrupt(self, run: CameraRun, now_ms: int) -> None:
        """The camera went off while it copied: whole files stay."""
        for job in list(self.jobs):
            if job.run is run:
                self._gone_on(job.drive, now_ms)
                job.cut_by = "too_hot" if run.hot else "no_power"
                job.ends_ms = job.until_ms = min(job.ends_ms, now_ms)
                self._reckon(job.drive, now_ms)

    def _wipe(self, job: Job, now_ms: int) -> tuple[int, int]:
        """Wipe clips with enough copies elsewhere; how many were risked with one, how many stay.

        What has no copy at all is never wiped.
        """
        if job.copy.wipe == "no":
            return 0, 0
        single = stay = 0
        for clip in self.clips_on(job.card.store.id, now_ms):
            copies = len(self.copies_of(clip))
            if copies < ENOUGH_COPIES and not (job.copy.wipe == "anyway" and copies):
                stay += 1
                continue
            single += copies < ENOUGH_COPIES
            job.card.used -= clip.bytes
            job.card.wiped += clip.bytes
            self.landed.append(Landed(now_ms, clip.store, clip.start_ms, GONE + job.card.store.id))
            self.gone.add((clip.store, clip.start_ms))
        return single, stay

    # -- what exists ----------------------------------------------------------------

    def clips_on(self, store: str, now_ms: int) -> list[Kept]:
        """Whole clips on a card or memory at a time, oldest first."""
        found = [
            clip
            for run in self.cameras
            for clip in run.recorder.kept
            if self.moved_to.get((clip.store, clip.start_ms), clip.store) == store
            and clip.end_ms <= now_ms
            and (clip.store, clip.start_ms) not in self.gone
        ]
        return sorted(found, key=lambda clip: clip.start_ms)

    def copies_of(self, clip: Kept) -> set[str]:
        """Drives that hold a clip."""
        return self.held_by.get((clip.store, clip.start_ms), set())


def _own(run: CameraRun) -> CardRun | None:
    """A camera's own memory, whether it writes to that or to its card."""
    stores = (run.card, run.beside)
    key = memory_key(run.camera)
    return next((one for one in stores if one is not None and one.store.id == key), None)
