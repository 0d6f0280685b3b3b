"""A camera on the bench and its runs, for tests."""

from __future__ import annotations

from typing import Any

from tests.build import FAMILY, camera, mode, set_up
from tumbrel.core.bench import BenchRun, Learned, RunEnd, learn
from tumbrel.core.document import BatteryFamily, Camera

A = BatteryFamily.model_validate(FAMILY)  # 5.70 W h
CAM = Camera.model_validate(
    camera(
        modes=[mode(watts=3.0, rise_k=None), mode("fast", watts=5.0, rise_k=None)],
        set_ups=[set_up(), set_up("cased", case_factor=1.3)],
    )
)


def run(name: str, minutes: float, end: RunEnd, **more: Any) -> BenchRun:
    """A run of mode "m", bare, in a still room of 22 degC, from a full battery."""
    told = {"camera": "cam", "set_up": "bare", "mode": "m", "ambient_c": 22.0, **more}
    return BenchRun.model_validate({"id": name, "minutes": minutes, "end": end, **told})


def learned(*runs: BenchRun) -> Learned:
    """What runs of that camera teach."""
    return learn(CAM, A, runs)
