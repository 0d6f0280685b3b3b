"""How long the hands take for a task, and until when it can still be begun (E8.1, E8.2)."""

from __future__ import annotations

from bisect import bisect_left

from ...document import PlanDocument
from ...parameters import Defaults
from ..camera.camera_run import CameraRun
from ..trip.asked import Recording
from ..trip.timeline import FreeHands, Laid, Timeline
from .tasks import TaskKind


class Handling:
    """Times of tasks, and last chances of the intervals of free hands."""

    def __init__(
        self,
        document: PlanDocument,
        timeline: Timeline,
        cameras: list[CameraRun],
        defaults: Defaults,
    ) -> None:
        self.cameras = cameras
        self.defaults = defaults
        self.read(document, timeline)

    def read(self, document: PlanDocument, timeline: Timeline) -> None:
        """Go by a document."""
        self.document = document
        self.timeline = timeline
        self._last_chances: dict[int, int] = {}

    def last_chance_ms(self, interval: FreeHands) -> int:
        """The end of free hands less the swaps and cables still due, as they will take then."""
        known = self._last_chances.get(interval.start_ms)
        if known is None:
            due_ms = sum(
                self._swap_ms(_worn_at(run, interval.end_ms), run, interval.end_ms - 1)
                for run in self.cameras
                if run.camera.battery_comes_out
            )
            here = self.timeline.places(interval.start_ms, interval.end_ms)
            cables = sum(copy.item in here for copy in self.document.plan.copies)
            due_ms += cables * round(self.defaults.plug_s.value * 1000)
            known = max(interval.start_ms, interval.end_ms - due_ms)
            self._last_chances[interval.start_ms] = known
        return known

    def leaving_ms(self, part: Laid) -> int:
        """The last chance for a swap before a leg or stop is left; its start, where none is."""
        interval = self.timeline.free_interval(part.end_ms - 1)
        if interval is None:
            return part.start_ms
        due_ms = interval.end_ms - self.last_chance_ms(interval)
        return max(part.start_ms, part.end_ms - due_ms)

    def takes_ms(self, run: CameraRun, kind: TaskKind, now_ms: int) -> int:
        """How long a task takes [ms], bare or gloved, a blocked door added (E8.1)."""
        if kind == "restart":
            return round(self.defaults.restart_hand_s.value * 1000)
        recording = run.recording or (run.asked_list[0].recording if run.asked_list else None)
        if kind == "swap":
            return self._swap_ms(recording, run, now_ms)
        bare_s = self.defaults.card_swap_s.value
        return self._handling_ms(recording, run, now_ms, bare_s)

    def _swap_ms(self, recording: Recording | None, run: CameraRun, now_ms: int) -> int:
        set_up = recording.set_up if recording else run.camera.set_ups[0]
        return self._handling_ms(recording, run, now_ms, set_up.swap_s)

    def _handling_ms(
        self, recording: Recording | None, run: CameraRun, now_ms: int, bare_s: float
    ) -> int:
        set_up = recording.set_up if recording else run.camera.set_ups[0]
        item = self.timeline.laid_at(now_ms).item
        gloved_s = set_up.swap_gloved_s - set_up.swap_s if item and item.gloves else 0.0
        return max(1, round((bare_s + max(0.0, gloved_s) + set_up.door_blocked_s) * 1000))


def _worn_at(run: CameraRun, at_ms: int) -> Recording | None:
    """How the camera is built for what it is asked next after a time, else for its last."""
    place = bisect_left(run.asked_starts, at_ms)
    return run.asked_list[min(place, len(run.asked_list) - 1)].recording if run.asked_list else None
