"""How long the hands take for a task, and until when it can still be begun.

Source: model/hands#tasks, model/hands#instants.
"""

from __future__ import annotations

from mypy_extensions import mypyc_attr

from ...document import SetUp
from ..camera.camera_run import CameraRun
from ..trip.asked import Recording
from ..trip.scene import Scene
from ..trip.timeline import FreeHands, Laid
from .moving import changes, moved_before_ms


@mypyc_attr(serializable=True)
class Handling:
    """Times of tasks, and last chances of the intervals of free hands."""

    def __init__(
        self,
        scene: Scene,
        cameras: list[CameraRun],
    ) -> None:
        self.cameras = cameras
        self.defaults = scene.defaults
        self.use_scene(scene)

    def use_scene(self, scene: Scene) -> None:
        """Go by a scene that was the same until now."""
        self.copies = scene.hands.copies
        self.timeline = scene.timeline
        self.changes = [changes(run) for run in self.cameras]
        self._last_chances: dict[int, int] = {}

    def last_chance_ms(self, interval: FreeHands) -> int:
        """The end of free hands less the swaps and cables still due, as they will take then.

        Of the cameras that are asked anything: others are left alone.
        """
        known = self._last_chances.get(interval.start_ms)
        if known is None:
            due_ms = sum(
                self._swap_ms(_worn_at(run, interval.end_ms), run, interval.end_ms - 1)
                for run in self.cameras
                if run.camera.battery_comes_out and run.schedule.spans
            )
            here = self.timeline.places(interval.start_ms, interval.end_ms)
            due_ms += sum(
                moved_before_ms(run.camera, self.changes[run.index], interval, self.timeline)
                for run in self.cameras
            )
            cables = sum(copy.item in here for copy in self.copies)
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

    @property
    def restart_ms(self) -> int:
        """How long a hand takes to start a camera again [ms]."""
        return round(self.defaults.restart_hand_s.value * 1000)

    def swap_ms(self, run: CameraRun, now_ms: int) -> int:
        """How long a battery's swap takes [ms], bare or gloved, a blocked door added.

        Source: model/hands#tasks.
        """
        return self._swap_ms(_built(run), run, now_ms)

    def card_ms(self, run: CameraRun, now_ms: int) -> int:
        """How long a card's swap takes [ms]."""
        bare_s = self.defaults.card_swap_s.value
        return self._handling_ms(_built(run), run, now_ms, bare_s)

    def unloading_ms(self, run: CameraRun) -> int:
        """How long it takes to get a battery out of a camera [ms]."""
        set_up = _set_up(run.recording, run)
        return round((set_up.swap_s + set_up.door_blocked_s) * 1000)

    def _swap_ms(self, recording: Recording | None, run: CameraRun, now_ms: int) -> int:
        set_up = _set_up(recording, run)
        return self._handling_ms(recording, run, now_ms, set_up.swap_s)

    def _handling_ms(
        self, recording: Recording | None, run: CameraRun, now_ms: int, bare_s: float
    ) -> int:
        set_up = _set_up(recording, run)
        item = self.timeline.laid_at(now_ms).item
        gloved_s = set_up.swap_gloved_s - set_up.swap_s if item and item.gloves else 0.0
        return max(1, round((bare_s + max(0.0, gloved_s) + set_up.door_blocked_s) * 1000))


def _built(run: CameraRun) -> Recording | None:
    """How a camera is built now, or will be for the first thing that it is asked."""
    if run.recording is not None or not run.schedule.spans:
        return run.recording
    return run.schedule.spans[0].recording


def _set_up(recording: Recording | None, run: CameraRun) -> SetUp:
    return recording.set_up if recording is not None else run.camera.set_ups[0]


def _worn_at(run: CameraRun, at_ms: int) -> Recording | None:
    """How the camera is built for what it is asked next after a time, else for its last."""
    asked = run.schedule.asked_at(at_ms)
    return asked.recording if asked is not None else None
