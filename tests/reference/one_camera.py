"""One camera in every pattern, in cold or heat, on its battery or a vehicle's socket."""

from __future__ import annotations

import random
from typing import Any

from tests.build import asks, battery, camera, leg, mode, raw, set_up, stop, takes

Doc = dict[str, Any]


def pattern_of(draw: random.Random, seconds: int) -> Doc:
    """One of the six patterns, in whole seconds on a leg of a whole number of 24 minutes."""
    kind = draw.choice(["roll", "roll", "takes", "loop", "windows", "interval", "armed"])
    if kind == "takes":
        return takes(draw.choice([20, 60, 120]), count=draw.choice([1, 2, 3, 4]))
    if kind == "loop":
        length = draw.choice([60, 120, 300])
        return {"kind": "loop", "length_s": length, "saves": draw.choice([1, 2, 3])}
    if kind == "windows":
        opens, length = draw.randint(0, 23), draw.randint(1, 5)
        edges = [f"{hour % 24:02d}:{draw.randint(0, 59):02d}" for hour in (opens, opens + length)]
        window = {
            "opens": {"kind": "clock", "at": edges[0]},
            "closes": {"kind": "clock", "at": edges[1]},
        }
        return {"kind": "windows", "windows": [window]}
    if kind == "interval":
        return {"kind": "interval", "every_s": draw.choice([2, 20, 60, 120]), "frame_mb": 6.0}
    if kind == "armed":
        return {
            "kind": "armed",
            "count": draw.choice([2, 3, 6]),
            "seconds": draw.choice([20, 40]),
            "pre_record_s": draw.choice([0, 10]),
        }
    return {"kind": "roll"}


def one_camera(seed: int) -> Doc:
    """A camera in cold or heat, on its battery or a vehicle's socket, with a spare or without."""
    draw = random.Random(seed)
    measured = random.Random(seed + 3000)
    comes_out = draw.random() < 0.5
    one = camera(
        battery_comes_out=comes_out,
        memory={"kind": "fixed", "gb": draw.choice([16, 64, 256])},
        boot_s=draw.choice([0, 3, 6]),
        standby_w=0.5,
        starts_itself=draw.random() < 0.5,
        continues_after_clip=draw.random() < 0.7,
        limits={"stop_c": draw.choice([55, 62, 70]), "restart_c": draw.choice([44, 50])},
        resistance_k_per_w=measured.choice([9.0, 14.0, 20.0]),
        charge_heat=measured.choice([1.0, 1.4]),
        set_ups=[
            set_up(
                tau_s=draw.choice([500.0, 720.0, 900.0, 1400.0]),
                case_factor=draw.choice([0.8, 1.0, 1.5]),
                air_share=draw.choice([0.0, 0.2, 1.0]),
                power=draw.choice(["battery", "battery", "outside", "outside_only"]),
                swap_s=draw.choice([20, 40]),
            )
        ],
        modes=[
            mode(
                "m",
                watts=draw.uniform(1.5, 6.0),
                mbps=draw.uniform(20, 120),
                rise_k=draw.uniform(5, 70),
                clip_limit_s=draw.choice([None, None, 700]),
            ),
            mode("n", watts=2.0, mbps=30.0, rise_k=20.0),
        ],
    )
    low = draw.choice([-30, -15, 0, 15])
    way, asked = [], []
    for number in range(draw.randint(2, 7)):
        temps = {f"temp_{end}_c": draw.uniform(low, low + 22) for end in ("start", "end")}
        seconds = 1440 * draw.choice([1, 2, 3])
        if draw.random() < 0.3:
            way.append(stop(f"s{number}", seconds, **temps))
        else:
            runs = draw.random() < 0.6
            air = draw.choice([0, 1, 8])
            way.append(
                leg(f"l{number}", seconds, hands="stops", air_mps=air, vehicle_runs=runs, **temps)
            )
            if draw.random() < 0.8:
                pattern = pattern_of(draw, seconds)
                asked.append(asks("cam", f"l{number}", mode=draw.choice("mmmn"), pattern=pattern))
    batteries = [battery(charge=draw.uniform(0.3, 1.0))]
    if comes_out and draw.random() < 0.7:
        batteries.append(battery("a2", charge=1.0, pocket=draw.choice(["in", "out", "sack"])))
    document = raw(
        way,
        asked,
        cameras=[one],
        batteries=batteries,
        cards=[],
        trip={"start": f"2027-06-12T06:{draw.randint(0, 59):02d}:00"},
        plan={
            "cameras": [{"camera": "cam", "battery": "a1", "source": "van"}],
            "swap_policy": "run_flat",
            "charging": "never",
        },
    )
    document["kit"]["sources"] = [
        {"kind": "vehicle", "id": "van", "name": "Van", "ports": [draw.choice([2.0, 5.0, 10.0])]}
    ]
    document["kit"]["pockets"] = [
        {"id": name, "name": name, "warmth": warmth}
        for name, warmth in (("in", "inside"), ("out", "outer"), ("sack", "bag"))
    ]
    return document
