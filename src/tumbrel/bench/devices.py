"""Devices that can be tested: what one shows, and the simulated camera behind that."""

from __future__ import annotations

from datetime import datetime
from typing import Protocol

from tumbrel.core.bench.notebook import RunningTest
from tumbrel.core.bench.runs import RunEnd
from tumbrel.core.document import Kit
from tumbrel.history.refusals import NotThere
from tumbrel.simulators.rig import LONGEST_S, Rig, Room, truth_like

from .schemas import Reading
from .to_core import camera_and_family


class Device(Protocol):
    """What a camera on the bench lets others see and do, simulated or real."""

    @property
    def recording(self) -> bool:
        """Whether it records now."""

    @property
    def elapsed_s(self) -> float:
        """How long it has recorded since its start."""

    @property
    def warned_s(self) -> float | None:
        """When it first warned of heat, counted the same."""

    @property
    def used_bytes(self) -> float:
        """What it has written."""

    @property
    def reason(self) -> str:
        """Why it stopped; empty while it records."""

    def stop(self) -> None:
        """Stop by hand."""

    def battery(self) -> float:
        """Charge left, as the camera shows it [0..1]."""

    def warns(self) -> bool:
        """Whether it shows its temperature warning."""

    def free_bytes(self) -> int:
        """Room left on its card."""


def simulated(kit: Kit, test: RunningTest, at: datetime) -> Rig:
    """The simulated camera as it is at an instant: played anew from its start, it keeps no state.

    Raises NotThere when the kit has no such camera, mode or set-up any more.
    """
    camera, family = camera_and_family(kit, test.camera)
    mode = next((n for n, m in enumerate(camera.modes) if m.id == test.mode), None)
    set_up = next((s for s in camera.set_ups if s.id == test.set_up), None)
    if mode is None or set_up is None:
        raise NotThere("mode or set-up")
    rig = Rig(truth_like(camera, family, set_up, f"{camera.model or camera.name}"))
    room = Room(
        ambient_c=test.ambient_c,
        air_mps=test.air_mps * set_up.air_share,
        cased=set_up is not camera.set_ups[0],
        plugged=test.plugged or set_up.power != "battery",
    )
    rig.start(mode, room, test.charge_start)
    passed_s = max(0.0, (at - test.started_at).total_seconds()) * test.speed
    rig.let_pass(min(passed_s, LONGEST_S))
    return rig


def reading_of(device: Device) -> Reading:
    """What a device shows now."""
    ends: dict[str, RunEnd] = {"empty": "empty", "hot": "hot", "card_full": "card_full"}
    return Reading(
        minutes=device.elapsed_s / 60.0,
        battery=device.battery(),
        warns=device.warns(),
        warned_min=device.warned_s / 60.0 if device.warned_s is not None else None,
        used_bytes=int(device.used_bytes),
        free_bytes=device.free_bytes(),
        recording=device.recording,
        end=None if device.recording else ends.get(device.reason, "stopped"),
    )
