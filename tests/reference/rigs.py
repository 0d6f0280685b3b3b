"""Simulated cameras put through bench runs, and conditions that the fit has not seen.

Source: model/learning#fit.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from random import Random

from tumbrel.core.bench import BenchRun, Learned, learn, outlook
from tumbrel.core.bench.model import Bench
from tumbrel.core.document import BatteryFamily, Camera
from tumbrel.simulators.rig import Rig, Room, Truth, some_truth

TIME_NOISE, RISE_NOISE = 0.06, 0.08  # of a repeated run
MODES = ("slow", "plain", "fast")
TAUGHT: tuple[tuple[int, Room, float], ...] = (
    (1, Room(22.0), 1.0),
    (2, Room(22.0), 1.0),
    (2, Room(22.0, air_mps=1.5), 1.0),
    (2, Room(33.0), 1.0),
    (1, Room(22.0, cased=True), 1.0),
    (2, Room(22.0, plugged=True), 0.3),
)


@dataclass(frozen=True)
class Foretold:
    """One unseen condition: true and foretold minutes, the box's, and whether the end was right."""

    true_min: float
    low_min: float
    likely_min: float
    high_min: float
    box_min: float
    end_right: bool


def kit_of(truth: Truth, draw: Random) -> tuple[Camera, BatteryFamily]:
    """The camera as its owner would type it in: mass, battery and what the box claims."""
    box = [truth.wh / watts * 60.0 * draw.uniform(0.95, 1.2) for watts in truth.draw_w]
    family = BatteryFamily(id="a", name="A", mah=truth.wh / 3.8 * 1000.0, nominal_v=3.8)
    modes = [
        {
            "id": name,
            "name": name,
            "width_px": 3840,
            "height_px": 2160,
            "fps": 30,
            "video_mbps": 60,
            "draw": {"kind": "lasts", "minutes": minutes},
        }
        for name, minutes in zip(MODES, box, strict=True)
    ]
    set_ups = [
        {"id": "bare", "name": "bare"},
        {"id": "cased", "name": "cased", "case_factor": 1.25},
    ]
    camera = {
        "id": "cam",
        "name": "Cam",
        "mass_g": truth.mass_g,
        "battery_family": "a",
        "memory": {"kind": "slot", "largest_gb": 512},
        "modes": modes,
        "set_ups": set_ups,
    }
    return Camera.model_validate(camera), family


def that_day(truth: Truth, draw: Random) -> Truth:
    """The camera on one day: its energy by 6 %, its rise by 8 % as on no other."""
    rise = math.exp(draw.gauss(0.0, RISE_NOISE))
    return replace(
        truth,
        wh=truth.wh * math.exp(draw.gauss(0.0, TIME_NOISE)),
        inner_k_per_w=truth.inner_k_per_w * rise,
        shell_k_per_w=truth.shell_k_per_w * rise,
    )


def taught_runs(truth: Truth, draw: Random) -> list[BenchRun]:
    """Six runs, each on a day of its own."""
    runs = []
    for number, (mode, room, charge) in enumerate(TAUGHT):
        rig = Rig(that_day(truth, draw))
        minutes, reason = rig.run_down(mode, room, charge)
        runs.append(
            BenchRun(
                id=f"r{number}",
                camera="cam",
                set_up="cased" if room.cased else "bare",
                mode=MODES[mode],
                ambient_c=room.ambient_c,
                air_mps=room.air_mps,
                plugged=room.plugged,
                charge_start=charge,
                minutes=minutes,
                end=reason or "stopped",
                warned_min=rig.warned_s / 60.0 if rig.warned_s else None,
            )
        )
    return runs


def foretell(camera: Camera, learned: Learned, truth: Truth, draw: Random) -> Foretold:
    """Another mode, temperature, airflow, case or charging, foretold and then tried."""
    mode = draw.randrange(3)
    plugged = draw.random() < 0.25
    room = Room(
        draw.uniform(5.0, 40.0),
        draw.choice((0.0, 1.0, 3.0, 8.0)),
        cased=draw.random() < 0.3,
        plugged=plugged,
    )
    charge = draw.uniform(0.2, 0.9) if plugged else 1.0
    minutes, reason = Rig(that_day(truth, draw)).run_down(mode, room, charge)
    bench = Bench(
        "cased" if room.cased else "bare",
        MODES[mode],
        (),
        room.ambient_c,
        room.air_mps,
        plugged,
        charge,
    )
    seen = outlook(learned, bench)
    box = camera.modes[mode].draw
    box_min = getattr(box, "minutes", 0.0) if not plugged else LONGEST_MIN
    likely = min(seen.likely_min, LONGEST_MIN)
    return Foretold(
        minutes,
        min(seen.low_min, LONGEST_MIN),
        likely,
        min(seen.high_min, LONGEST_MIN),
        box_min,
        seen.end == reason or (reason == "stopped" and likely >= LONGEST_MIN),
    )


LONGEST_MIN = 360.0


def tried(rigs: int, each: int, seed: int = 1) -> list[Foretold]:
    """Some random cameras, six runs each, and some unseen conditions of each."""
    draw = Random(seed)
    found = []
    for _ in range(rigs):
        truth = replace(some_truth(draw), card_bytes=1e15)  # here only battery and heat end runs
        camera, family = kit_of(truth, draw)
        learned = learn(camera, family, taught_runs(truth, draw))
        found += [foretell(camera, learned, truth, draw) for _ in range(each)]
    return found


def off(one: Foretold, foretold_min: float) -> float:
    """Relative error of a foretold time, the same up and down."""
    return math.expm1(abs(math.log(foretold_min / one.true_min)))
