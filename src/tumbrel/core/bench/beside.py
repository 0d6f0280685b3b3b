"""What was measured and not taken, beside the figure of the kit that stands for it.

Source: model/learning#foretold.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from ..document import Kit
from ..document.base import Celsius, Key, Part
from ..parameters import DEFAULTS, Defaults
from ..shelf import Cord, ShelfQuestion, mode_runtimes
from .fit import Learned, usable
from .outlook import Outlook, outlook
from .predict import Air, BenchQuestion, bench_in

ALIKE_MIN, ALIKE_SHARE = 1.0, 0.03


class AirThere(Part):
    """An air in which modes are to be told, and a set-up; none: each camera's first."""

    ambient_c: Celsius = 20.0
    air_mps: Annotated[float, Field(ge=0.0, le=60.0)] = 0.0
    set_up: Key | None = None


class MeasuredBeside(Part):
    """A mode that was measured: what the runs foretell of it there, and what the kit says."""

    camera: str
    mode: str
    set_up: str
    minutes: float
    end: Literal["empty", "hot"]
    kit_minutes: float | None = Field(description="None: nothing ends it within 48 hours.")
    kit_end: str | None


def measured_beside(
    question: BenchQuestion, learned: Learned, there: AirThere, defaults: Defaults = DEFAULTS
) -> Iterator[MeasuredBeside]:
    """Modes with runs that count of which the kit foretells something else: they were not taken.

    Apart by more than a minute and 3 %, or ended by something else.
    """
    camera = question.camera
    run_in = {run.mode for run in usable(camera, question.runs)}
    set_up = next((s for s in camera.set_ups if s.id == there.set_up), camera.set_ups[0])
    if not run_in or set_up.power != "battery":
        return
    kit = Kit.model_construct(families=(question.family,), cameras=(camera,), cards=())
    asked = ShelfQuestion.model_construct(
        kit=kit, trip=None, ambient_c=there.ambient_c, air_mps=there.air_mps, set_up=set_up.id
    )
    for cord in mode_runtimes(asked, defaults).cords:
        if cord.mode not in run_in:
            continue
        air = Air(mode=cord.mode, set_up=set_up.id, ambient_c=there.ambient_c,
                  air_mps=there.air_mps)  # fmt: skip
        seen = outlook(learned, bench_in(camera, air), defaults)
        if not _alike(seen, cord):
            yield MeasuredBeside(
                camera=camera.id,
                mode=cord.mode,
                set_up=set_up.id,
                minutes=round(seen.likely_min, 1),
                end="hot" if seen.end == "hot" else "empty",
                kit_minutes=cord.minutes,
                kit_end=cord.end,
            )


def _alike(seen: Outlook, cord: Cord) -> bool:
    """Whether both foretell the same: clips that end are nobody's drain or heat."""
    if cord.end == "clip_limit":
        return True
    if cord.minutes is None or (seen.end == "hot") != (cord.end == "hot"):
        return False
    apart = abs(seen.likely_min - cord.minutes)
    return apart <= max(ALIKE_MIN, ALIKE_SHARE * seen.likely_min)
