"""Plans in which two things meet that no plan put together, each from a seed, for both engines."""

from __future__ import annotations

import random
from typing import Any

from tests.build import card, set_up, takes
from tests.reference.chains import bank, rider
from tests.reference.many import Making

Doc = dict[str, Any]


def leaving(seed: int) -> Doc:
    """Cards and batteries put in on arrival or on leaving, bare or gloved, behind a door or not."""
    m, draw = Making(seed), random.Random(seed)
    for name in ("one", "two")[: draw.choice([1, 1, 2])]:
        m.camera(name, boot_s=draw.choice([0, 4, 6]), battery_comes_out=draw.random() < 0.7)
        m.cameras[-1]["memory"] = {"kind": "slot", "largest_gb": draw.choice([32, 512])}
        m.cameras[-1]["set_ups"][0]["door_blocked_s"] = draw.choice([0, 0, 45])
    m.spares(len(m.cameras) + 2, 0.3)
    m.cards = [card(f"k{n + 1}", gb=draw.choice([16, 32, 64])) for n in range(len(m.cameras) + 1)]
    m.plan |= {"swaps": [], "card_swaps": []}
    for _ in range(2):
        gloves = {"gloves": draw.random() < 0.5}
        for _ in range(draw.choice([1, 2])):
            stop = m.stop(draw.choice([300, 900]), **m.temps(14, 26), **gloves)
            words = {"camera": "one", "item": stop, "when": draw.choice(["arrival", "leaving"])}
            if draw.random() < 0.5 and m.cameras[0]["battery_comes_out"]:
                m.plan["swaps"].append(words | {"battery": m.batteries[-1]["id"]})
            if draw.random() < 0.6:
                m.plan["card_swaps"].append(words | {"card": m.cards[-1]["id"]})
        item = m.leg(draw.choice([1, 2]), draw.choice(["stops", "never"]), **m.temps(14, 26))
        for one in m.cameras:
            m.ask(one["id"], item, importance=draw.choice(["must", "want"]))
    return m.done()


def frost(seed: int) -> Doc:
    """Worn and warm cells in the cold, with hands that are free all along, or at stops."""
    m, draw = Making(seed), random.Random(seed)
    m.camera("cam", boot_s=draw.choice([0, 4]))
    m.spares(draw.choice([2, 3]), 0.5)
    for one in m.batteries:
        one["health"] = draw.choice([1.0, 0.8, 0.6])
    air = m.temps(-22, -4)
    for _ in range(draw.choice([2, 3])):
        if draw.random() < 0.7:
            m.stop(draw.choice([600, 1800]), gloves=draw.random() < 0.5, **air)
        pattern = takes(300, count=2) if draw.random() < 0.3 else {"kind": "roll"}
        hands = draw.choice(["free", "free", "stops"])
        m.ask("cam", m.leg(draw.choice([1, 2]), hands, **air), pattern=pattern, importance="must")
    return m.done()


def sources(seed: int) -> Doc:
    """Frames with the battery out, gear in the other port, modules, a bank that sleeps or not."""
    m, draw = Making(seed), random.Random(seed)
    m.kit["sources"] = [bank(draw, "slab", ports=[6.0, 9.0])]
    m.plan |= {"charging": "auto", "plugs": []}
    if draw.random() < 0.5:
        rider(m, draw, "cam", draw.choice([1, 2]))
    else:
        m.camera("cam", boot_s=4)
        m.cameras[-1]["set_ups"] = [set_up(power="outside_only"), set_up("bare2")]
        m.spares(1, 0.5)
        m.plan["cameras"] = [{"camera": "cam", "source": "slab"}]
    mic = {"id": "mic", "name": "mic", "wh": draw.choice([1.0, 2.0]), "use_w": 0.6, "in_w": 4.0}
    m.kit["gear"] = [mic | {"charge": draw.choice([0.4, 0.9]), "serves": "cam"}]
    air = m.temps(14, 26)
    first = m.stop(draw.choice([600, 1800]), **air)
    if draw.random() < 0.5:
        m.plan["plugs"].append({"unit": "mic", "item": first, "to": "slab"})
    for _ in range(2):
        item = m.leg(draw.choice([1, 2]), draw.choice(["free", "stops"]), **air)
        every = draw.choice([20, 60, 120])
        frames = {"kind": "interval", "every_s": every, "frame_mb": 12.0}
        m.ask("cam", item, pattern=draw.choice([frames, {"kind": "roll"}]), importance="must")
        m.stop(draw.choice([300, 1800]), **air)
    return m.done()


def over_borders(seed: int) -> Doc:
    """Copies that would run into what is asked next, and windows that open in part or never."""
    m, draw = Making(seed), random.Random(seed)
    m.camera("cam")
    m.spares(2, draw.choice([0.3, 0.9]))
    m.kit["drives"] = [{"id": "phone", "name": "phone", "free_gb": draw.choice([6.0, 200.0])}]
    m.kit["drives"][0]["radio_mb_s"] = 8.0
    m.plan["copies"] = []
    for _ in range(2):
        m.ask("cam", m.leg(draw.choice([1, 2]), draw.choice(["stops", "free"])))
        where = m.stop(draw.choice([120, 600, 1800]))
        by = draw.choice(["radio", "cable"])
        m.plan["copies"].append({"item": where, "camera": "cam", "drive": "phone", "by": by})
        if draw.random() < 0.4:
            m.stop(900)
        hour = draw.choice([6, 7, 8, 18])
        edges = {
            "opens": {"kind": "clock", "at": f"{hour:02d}:20:00"},
            "closes": {"kind": "clock", "at": f"{hour + 1:02d}:10:00"},
        }
        window = {"kind": "windows", "windows": [edges]}
        pattern = draw.choice([window, {"kind": "roll"}])
        m.ask("cam", m.leg(2, "free"), pattern=pattern, importance="must")
    return m.done()


MET = (leaving, frost, sources, over_borders)


def met_of(seed: int) -> Doc:
    """The plan of a seed; every kind in its turn."""
    return MET[seed % len(MET)](seed)
