"""Cameras of our own making, measured with modules, chargers, fans, pauses and cold.

They are stepped through by rules written anew here: a body of two nodes, a cell that follows it, a
draw that grows with warmth, a taper; each with figures of its own. Source: model/learning#special.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from random import Random
from typing import Any

import numpy as np

from tests.reference.rigs import MODES, kit_of, that_day
from tests.reference.second.physics import hidden
from tumbrel.core.bench import BenchRun, learn
from tumbrel.core.bench.outlook import run_outlook
from tumbrel.core.document import BatteryFamily, Camera
from tumbrel.simulators.rig import INNER_SHARE, Truth, some_truth

STEP_S = 2.0
NOISE = 0.02  # of charging; of other runs, as on another day
LONGEST_S = 6 * 3600.0
ENDED = ("empty", "both_empty", "hot", "full")


@dataclass(frozen=True)
class Measured:
    """A camera's truth beside that of its body: module, charging, cold, fan, pauses."""

    body: Truth
    store_wh: float
    store_gives: float
    rate: float
    cold: float
    fan: float
    pause_c: float
    resume_c: float
    tail: float


@dataclass(frozen=True)
class Try:
    """One run to be made."""

    mode: int
    ambient_c: float
    fan: bool = False
    store: bool = False
    plugged: bool = False
    charging: bool = False
    start: float = 1.0
    pocket_c: float | None = None
    until: float = 0.99


TRIES = (
    Try(0, 21.0),
    Try(1, 23.0),
    Try(2, 24.0),
    Try(2, 34.0),
    Try(2, 30.0, fan=True),
    Try(1, 36.0, fan=True),
    Try(0, 21.0, store=True),
    Try(1, 18.0, store=True),
    Try(0, 21.0, charging=True, start=0.2),
    Try(0, 23.0, charging=True, start=0.1, until=0.8),
    Try(1, 25.0, plugged=True, start=0.3),
    Try(0, 29.0, plugged=True, start=0.2),
    Try(1, -15.0),
    Try(0, -12.0),
    Try(1, -15.0, pocket_c=24.0),
)


def some_measured(draw: Random) -> Measured:
    """A camera at random."""
    pause_c = draw.gauss(45.0, 3.0)
    return Measured(
        body=some_truth(draw),
        store_wh=draw.uniform(3.0, 12.0),
        store_gives=0.92 * math.exp(draw.gauss(0.0, 0.05)),
        rate=draw.choice([0.5, 0.8, 1.2, 1.9]) * math.exp(draw.gauss(0.0, 0.1)),
        cold=math.exp(draw.gauss(0.0, 0.2)),
        fan=math.exp(draw.gauss(0.0, 0.25)),
        pause_c=pause_c,
        resume_c=pause_c - draw.uniform(4.0, 6.0),
        tail=0.2 * math.exp(draw.gauss(0.0, 0.2)),
    )


def measure(truth: Measured, asked: Try, number: int, draw: Random) -> BenchRun:
    """Step through a run, and note what a person would."""
    body = truth.body if asked.charging else that_day(truth.body, draw)
    inner = shell = cell_c = asked.ambient_c
    cell_c = cell_c if asked.pocket_c is None else asked.pocket_c
    charge, store, at_s, end = asked.start, 1.0, 0.0, "stopped"
    air = 1.5 * truth.fan if asked.fan else 0.0
    paused = resumed = None
    resting = False
    told: dict[str, list[dict[str, float]]] = {"store_read": [], "charge_read": []}
    capacity = body.tau_s / (body.inner_k_per_w + body.shell_k_per_w)
    while at_s < (5400.0 if asked.plugged else LONGEST_S):
        watts = 0.0 if asked.charging else body.draw_w[asked.mode]
        watts *= 1.0 + body.draw_per_k * (inner - 40.0)
        into = 0.0
        if (asked.plugged or asked.charging) and not resting and charge < 0.99:
            into = body.wh * truth.rate * min(1.0, (1.0 - charge) / truth.tail)
        heat = watts + body.charge_heat * into * (1 / 0.9 - 1)
        heat += body.charge_heat * watts * (1 / 0.95 - 1) if asked.plugged else 0.0
        across = (inner - shell) / body.inner_k_per_w
        out = (shell - asked.ambient_c) * (1 + body.air_a * air**0.5) / body.shell_k_per_w
        inner += (heat - across) * STEP_S / (capacity * INNER_SHARE)
        shell += (across - out) * STEP_S / (capacity * (1 - INNER_SHARE))
        cell_c += (inner - cell_c) / 720.0 * STEP_S
        from_store = asked.store and store > 0.0
        if from_store:
            store -= watts * STEP_S / 3600 / (truth.store_wh * truth.store_gives)
        spent = 0.0 if from_store or asked.plugged else watts
        charge += (into - spent) * STEP_S / 3600 / body.wh
        at_s += STEP_S
        if asked.plugged and not resting and inner >= truth.pause_c:
            resting, paused = True, paused or at_s / 60
        elif resting and inner <= truth.resume_c:
            resting, resumed = False, resumed or at_s / 60
        if at_s % 900 == 0 and asked.charging and charge < asked.until - 0.02:
            told["charge_read"].append({"at_min": at_s / 60, "share": round(charge, 2)})
        if at_s % 900 == 0 and from_store and store > 0.03:
            told["store_read"].append({"at_min": at_s / 60, "share": round(store, 2)})
        held = min(1.0, hidden(cell_c, 1.0) * truth.cold)
        if asked.charging and charge >= asked.until:
            end = "full" if asked.until >= 0.99 else "stopped"
            break
        if inner >= body.stop_c and not asked.charging:
            end = "hot"
            break
        if not asked.plugged and not asked.charging and charge <= held:
            end = "both_empty" if asked.store else "empty"
            break
    noise = math.exp(draw.gauss(0.0, NOISE)) if asked.charging else 1.0
    more: dict[str, Any] = {}
    if asked.charging and end != "full":
        more["charge_end"] = round(charge, 2)
    if asked.ambient_c < 0.0:
        more |= {"charge_end": round(charge, 2), "cell_start_c": asked.pocket_c}
    if asked.store:
        more |= {"store_wh": truth.store_wh, "store_read": told["store_read"]}
    if asked.plugged and paused is not None:
        more |= {"paused_from_min": paused, "resumed_min": resumed}
    return BenchRun.model_validate(
        {
            "id": f"r{number}",
            "camera": "cam",
            "set_up": "bare",
            "mode": MODES[asked.mode],
            "ambient_c": asked.ambient_c,
            "air_mps": 1.5 if asked.fan else 0.0,
            "plugged": asked.plugged,
            "charging": asked.charging,
            "charge_start": asked.start,
            "charge_read": told["charge_read"],
            "minutes": at_s / 60 * noise,
            "end": end,
            **more,
        }
    )


@dataclass(frozen=True)
class LeftOut:
    """A run that was left out, and what the others foretold of it."""

    run: BenchRun
    low_min: float
    likely_min: float
    high_min: float

    @property
    def error(self) -> float:
        """Relative, the same up and down."""
        return math.expm1(abs(math.log(self.likely_min / self.run.minutes)))

    @property
    def held(self) -> bool:
        """Whether its range holds it."""
        return self.low_min <= self.run.minutes <= self.high_min


def camera_of(truth: Measured, draw: Random) -> tuple[Camera, BatteryFamily]:
    """As its owner would type it in."""
    return kit_of(truth.body, draw)


def leave_one_out(cameras: int, seed: int) -> list[LeftOut]:
    """Each run that ended by itself, foretold by the others of its camera."""
    draw, found = Random(seed), []
    for _ in range(cameras):
        truth = some_measured(draw)
        camera, family = camera_of(truth, draw)
        runs = [measure(truth, one, number, draw) for number, one in enumerate(TRIES)]
        for run in runs:
            if run.end not in ENDED:
                continue
            learned = learn(camera, family, [one for one in runs if one is not run])
            seen = run_outlook(learned, run)
            found.append(LeftOut(run, seen.low_min, seen.likely_min, seen.high_min))
    return found


def told_of(found: list[LeftOut]) -> tuple[float, float]:
    """Median error, and the share of ranges that hold the truth."""
    errors = [one.error for one in found]
    return float(np.median(errors)), sum(one.held for one in found) / len(found)
