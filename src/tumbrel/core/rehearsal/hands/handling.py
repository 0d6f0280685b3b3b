"""How long the hands take for a task, and until when it can still be begun.

Source: model/hands#tasks, model/hands#instants.
"""

from __future__ import annotations

from mypy_extensions import mypyc_attr

from ...document import SetUp
from ..camera.camera_run import CameraRun
from ..camera.handled import next_start_ms
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
        in_cameras = {one for each in scene.cameras for one in (each.store, each.beside)}
        self._loose_gb = [one.gb for one in scene.cards if one.store.id not in in_cameras]
        fits = [one.source.fits for one in scene.sources if one.source.kind == "module"]
        self._modules = {key: fits.count(key) for key in fits}
        self.use_scene(scene)

    def use_scene(self, scene: Scene) -> None:
        """Go by a scene that was the same until now."""
        self.copies = scene.hands.copies
        self.said = {*scene.hands.swaps, *scene.hands.card_swaps}
        self.timeline = scene.timeline
        self.changes = [changes(run) for run in self.cameras]
        self._last_chances: dict[int, int] = {}

    def last_chance_ms(self, interval: FreeHands) -> int:
        """The end of free hands less all work that may be due then, as long as it will take.

        Batteries, cards and modules that have another to go in, moves, cables of copies, and the
        boot of what is asked at once. Cameras that are asked nothing are left alone.
        """
        known = self._last_chances.get(interval.start_ms)
        if known is None:
            asked = [run for run in self.cameras if run.schedule.spans]
            due_ms = self._all_changed_ms(asked, interval.end_ms)
            here = self.timeline.places(interval.start_ms, interval.end_ms)
            due_ms += sum(
                moved_before_ms(run.camera, self.changes[run.index], interval, self.timeline)
                for run in self.cameras
            )
            cables = sum(copy.item in here and copy.by != "radio" for copy in self.copies)
            due_ms += cables * round(self.defaults.plug_s.value * 1000)
            known = max(interval.start_ms, interval.end_ms - due_ms)
            self._last_chances[interval.start_ms] = known
        return known

    def _all_changed_ms(self, asked: list[CameraRun], end_ms: int) -> int:
        """How long it takes to change all that can be changed in cameras before a time [ms].

        With the boot of what is asked then.
        """
        return sum((self._changing_ms(run, end_ms) for run in asked), _boot_ms(asked, end_ms))

    def _changing_ms(self, run: CameraRun, end_ms: int) -> int:
        set_up, last_ms = self._built_at(run, end_ms), end_ms - 1
        swap_ms = self._handling_ms(set_up, last_ms, set_up.swap_s)
        due_ms = swap_ms if run.camera.battery_comes_out else 0
        due_ms += swap_ms if self._modules.get(run.id, 0) > 1 else 0
        slot = run.camera.card_slot
        if slot is not None and any(gb <= slot.largest_gb for gb in self._loose_gb):
            due_ms += self._handling_ms(set_up, last_ms, self.defaults.card_swap_s.value)
        return due_ms

    def late_as_can_be_ms(self, run: CameraRun, interval: FreeHands) -> int:
        """The last chance to put something into a camera before it is asked, or hands go [ms]."""
        last_ms, ready_ms = self.last_chance_ms(interval), next_start_ms(run)
        boot_ms = _boot_ms([run for run in self.cameras if run.schedule.spans], interval.end_ms)
        if ready_ms >= interval.end_ms - boot_ms:
            return last_ms
        return ready_ms - (interval.end_ms - boot_ms - last_ms)

    def leaving_ms(self, part: Laid) -> int:
        """The last chance for what the plan does as a leg or stop is left; its start at least.

        Of the cameras that the plan names there; of all where hands go too.
        """
        interval = self.timeline.free_interval(part.end_ms - 1)
        if interval is None:
            return part.start_ms
        if interval.end_ms <= part.end_ms:
            return max(part.start_ms, self.last_chance_ms(interval))
        said = [run for run in self.cameras if (run.id, part.id) in self.said]
        return max(part.start_ms, part.end_ms - self._all_changed_ms(said, part.end_ms))

    @property
    def restart_ms(self) -> int:
        """How long a hand takes to start a camera again [ms]."""
        return round(self.defaults.restart_hand_s.value * 1000)

    def swap_ms(self, run: CameraRun, now_ms: int) -> int:
        """How long a battery's swap takes [ms], bare or gloved, a blocked door added.

        Source: model/hands#tasks.
        """
        set_up = _built(run)
        return self._handling_ms(set_up, now_ms, set_up.swap_s)

    def card_ms(self, run: CameraRun, now_ms: int) -> int:
        """How long a card's swap takes [ms]."""
        return self._handling_ms(_built(run), now_ms, self.defaults.card_swap_s.value)

    def unloading_ms(self, run: CameraRun) -> int:
        """How long it takes to get a battery out of a camera [ms]."""
        set_up = _built(run)
        return round((set_up.swap_s + set_up.door_blocked_s) * 1000)

    @staticmethod
    def _built_at(run: CameraRun, at_ms: int) -> SetUp:
        """How a camera is built for what it is asked next after a time, else for its last."""
        asked = run.schedule.asked_at(at_ms)
        return _set_up(None if asked is None else asked.recording, run)

    def _handling_ms(self, set_up: SetUp, now_ms: int, bare_s: float) -> int:
        item = self.timeline.laid_at(now_ms).item
        gloved_s = set_up.swap_gloved_s - set_up.swap_s if item and item.gloves else 0.0
        return max(1, round((bare_s + max(0.0, gloved_s) + set_up.door_blocked_s) * 1000))


def _built(run: CameraRun) -> SetUp:
    """How a camera is built now: as a hand has left it, or as it sets out (model/hands#moving)."""
    spans, wanted = run.schedule.spans, run.schedule.last_wanted
    recording = run.recording if run.recording is not None or not spans else spans[0].recording
    sits = run.sits()
    if wanted is not None and sits is not None and not run.is_built(wanted.worn):
        known = run.camera.built(sits.set_up)
        if known is not None:
            return known
    return _set_up(recording, run)


def _set_up(recording: Recording | None, run: CameraRun) -> SetUp:
    return recording.set_up if recording is not None else run.camera.set_ups[0]


def _boot_ms(asked: list[CameraRun], end_ms: int) -> int:
    """The longest boot of what is asked as hands go [ms]."""
    return max((_boots_over(run, end_ms) for run in asked), default=0)


def _boots_over(run: CameraRun, end_ms: int) -> int:
    """How long a camera boots for what is asked of it as hands go [ms]; 0 where nothing is."""
    asked = run.schedule.asked_at(end_ms)
    at_once = asked is not None and asked.by_hand and 0 <= asked.start_ms - end_ms < run.boot_ms
    return run.boot_ms if at_once else 0
