"""Cameras whose set-ups run on outside power: put on their source in time, and taken off."""

from __future__ import annotations

from mypy_extensions import mypyc_attr

from ...charging import NEVER_MS
from ..camera.camera_run import CameraRun
from ..power.consumer import Consumer
from ..power.grid import Grid
from ..power.loads import Supply
from ..trip.outside_power import OutsidePower


def _is_built(run: CameraRun, fed: OutsidePower) -> bool:
    """Whether a camera is built as a stretch on outside power wants it."""
    return any(run.is_built(worn) for worn in fed.worn)


@mypyc_attr(serializable=True)
class Feeding:
    """Stretches on outside power in order of time, and those that hold now."""

    def __init__(self, stretches: tuple[OutsidePower, ...]) -> None:
        self.stretches = stretches
        self.next = 0
        self.held: list[OutsidePower] = []

    def due_ms(self) -> int:
        """When a stretch begins or ends next [ms]."""
        return min([self._starts_ms(), *(one.end_ms for one in self.held)])

    def _starts_ms(self) -> int:
        later = self.next < len(self.stretches)
        return self.stretches[self.next].start_ms if later else NEVER_MS

    def holds(self, consumer: Consumer, cameras: list[CameraRun]) -> bool:
        """Whether it is a camera that its set-up keeps on a source now."""
        return any(
            cameras[one.camera] is consumer and _is_built(cameras[one.camera], one)
            for one in self.held
        )

    def happen(self, at_ms: int, cameras: list[CameraRun], grid: Grid) -> list[CameraRun]:
        """Put cameras on their source, or take them off it; gives back those it touched."""
        touched = []
        for one in [one for one in self.held if one.end_ms <= at_ms]:
            self.held.remove(one)
            run = cameras[one.camera]
            run.advance(at_ms)
            run.energy.outside_w, run.energy.outside_alone = 0.0, False
            grid.detach(run)
            touched.append(run)
        while self._starts_ms() <= at_ms:
            self.held.append(self.stretches[self.next])
            self.next += 1
        for one in self.held:  # who found no port waits until one is free, or until it is built so
            run = cameras[one.camera]
            if not _is_built(run, one):
                continue
            energy = run.energy
            if (energy.outside_w, energy.outside_alone) != (one.draw_w, one.battery_out):
                run.advance(at_ms)
                energy.outside_w, energy.outside_alone = one.draw_w, one.battery_out
                touched.append(run)
            key = grid.rides.get(one.camera, one.source)
            supply = next(s for s in grid.supplies if s.source.id == key)
            if supply.port_of(run) is None or run in touched:
                run.advance(at_ms)
                if self._make_room(run, supply, cameras, grid):
                    grid.attach(run, supply)
                touched.append(run)
        return touched

    def _make_room(
        self, run: CameraRun, supply: Supply, cameras: list[CameraRun], grid: Grid
    ) -> bool:
        """A port for a camera that is fed: its own, a free one, or one that only charges.

        Source: model/hands#plug.
        """
        if supply.port_of(run) is not None:
            grid.detach(run)
        if supply.free_port() is None:
            ports = [one for one in supply.ports if one is not None]
            loose = [one for one in ports if not self.holds(one, cameras)]
            if not loose:
                return False
            grid.detach(loose[-1])
            loose[-1].plan_next()
        return True

    def adopt(self, stretches: tuple[OutsidePower, ...], at_ms: int) -> None:
        """Go on with the stretches of a scene that was the same until now."""
        self.stretches = stretches
        self.next = sum(one.start_ms < at_ms for one in stretches)
        on = {one.camera for one in self.held}
        begun = stretches[: self.next]
        self.held = [one for one in begun if one.end_ms >= at_ms and one.camera in on]
