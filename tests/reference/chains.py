"""Plans of chains, of modules that are swapped, of gear that charges, and of moves inside a camera.

Each from a seed, for both engines.
"""

from __future__ import annotations

import random
from typing import Any

from tests.build import set_up, takes
from tests.reference.many import QUARTER, Making, two_memories

Doc = dict[str, Any]


def rider(m: Making, draw: random.Random, name: str, modules: int) -> None:
    """A camera on the first of some modules; it stops for a swap, or does not."""
    m.camera(name)
    power = draw.choice(["outside", "outside", "outside_only"])
    m.cameras[-1]["set_ups"] = [set_up(power=power, hot_swap=draw.random() < 0.6, swap_s=20)]
    m.spares(1, 0.4)
    for number in range(modules):
        key = f"m-{name}-{number}"
        module = {"kind": "module", "id": key, "name": key, "fits": name, "in_w": 8.0}
        module |= {"mah": draw.choice([500, 1200]), "out_w": draw.choice([4.0, 9.0])}
        m.kit["sources"].append(module | {"charge": round(draw.uniform(0.2, 1.0), 2)})
    m.plan["cameras"].append({"camera": name, "source": f"m-{name}-0"})


def bank(draw: random.Random, key: str, **more: Any) -> Doc:
    """A bank that holds some."""
    made = {"kind": "bank", "id": key, "name": key, "mah": draw.choice([3000, 9000])}
    made |= {"stays_on": draw.random() < 0.5, "charge": round(draw.uniform(0.3, 1.0), 2)}
    return made | {"ports": draw.choice([[5.0], [6.0, 9.0]]), "in_w": 7.0} | more


def chained(seed: int) -> Doc:
    """Bank, module, camera: by the plan's word or by itself, with spare modules or none."""
    m, draw = Making(seed), random.Random(seed)
    m.plan |= {"charging": draw.choice(["auto", "never"]), "plugs": []}
    m.kit["sources"] = []
    for name in ("one", "two")[: draw.choice([1, 1, 2])]:
        rider(m, draw, name, draw.choice([1, 2, 3]))
    m.kit["sources"].append(bank(draw, "sack-bank"))
    air = m.temps(14, 28)
    first = m.stop(draw.choice([600, 1800]), **air)
    if draw.random() < 0.6:
        m.plan["plugs"].append({"unit": "m-one-0", "item": first, "to": "sack-bank"})
    for number in range(draw.choice([1, 2])):
        item = m.leg(draw.choice([2, 3]), draw.choice(["stops", "never", "free"]), **air)
        pattern = takes(300, count=2) if draw.random() < 0.3 else {"kind": "roll"}
        for one in m.cameras:
            m.ask(one["id"], item, pattern=pattern, importance=draw.choice(["must", "want"]))
        rest = m.stop(draw.choice([120, 900, 3600]), **air)
        spare = next((s["id"] for s in m.kit["sources"] if s["id"] == "m-one-1"), None)
        if spare and number == 0 and draw.random() < 0.4:
            m.plan["plugs"].append({"unit": spare, "item": rest, "to": "one"})
    m.ask("one", m.leg(2, "never", **air), importance="must")
    return m.done()


def into_banks(seed: int) -> Doc:
    """A bank into a bank that feeds a camera, cold or warm, and back at a socket."""
    m, draw = Making(seed), random.Random(seed)
    m.camera("fed", power=draw.choice(["outside", "outside_only"]))
    m.spares(1, 0.4)
    m.plan |= {"charging": draw.choice(["auto", "never"])}
    m.plan["cameras"] = [{"camera": "fed", "source": "near"}]
    pocket = draw.choice(["in", "out", "sack"])
    m.kit["sources"] = [bank(draw, "near", charge=0.3), bank(draw, "far", pocket=pocket)]
    m.kit["sources"].append({"kind": "mains", "id": "p", "name": "P", "ports": [8.0, 8.0]})
    air = m.temps(-6, 16)
    first = m.stop(draw.choice([300, 1800]), **air)
    m.plan["plugs"] = [{"unit": "near", "item": first, "to": "far"}]
    m.ask("fed", m.leg(draw.choice([2, 4]), draw.choice(["stops", "never"]), **air))
    socket = {"watts": draw.choice([6.0, 30.0])} if draw.random() < 0.6 else None
    warm = m.temps(2, 20)
    rest = m.stop(draw.choice([900, 3600]), **warm, **({"socket": socket} if socket else {}))
    if draw.random() < 0.4:
        m.plan["plugs"].append({"unit": "far", "item": rest, "plug": False})
    m.ask("fed", m.leg(3, "never", **warm), importance="must")
    return m.done()


def gear_charged(seed: int) -> Doc:
    """Microphone, stabiliser and phone, on sockets and banks between uses."""
    m, draw = Making(seed), random.Random(seed)
    m.camera("cam")
    m.spares(2, 0.5)
    m.plan |= {"charging": draw.choice(["auto", "auto", "never"]), "plugs": [], "gear": []}
    m.kit["sources"] = [bank(draw, "bank")]
    m.kit["sources"].append({"kind": "mains", "id": "p", "name": "P", "ports": [8.0]})
    m.kit["gear"] = [
        {
            "id": key,
            "name": key,
            "wh": draw.choice([0.6, 2.0]),
            "use_w": draw.choice([0.5, 1.5]),
            "in_w": draw.choice([2.0, 5.0]),
            "charge": round(draw.uniform(0.1, 1.0), 2),
            "serves": "cam" if key == "mic" else None,
            "pocket": draw.choice(["in", "out", None]),
        }
        for key in ("mic", "gimbal", "phone")[: draw.choice([1, 2, 3])]
    ]
    for _ in range(draw.choice([2, 3])):
        air = m.temps(-8, 18)
        item = m.leg(draw.choice([1, 2]), draw.choice(["stops", "never", "free"]), **air)
        if draw.random() < 0.8:
            pattern = takes(300, count=2) if draw.random() < 0.3 else {"kind": "roll"}
            m.ask("cam", item, pattern=pattern)
        rest = m.stop(draw.choice([300, 1800]), **air)
        m.items[-1] |= {"socket": {"watts": 20.0}} if draw.random() < 0.4 else {}
        for one in m.kit["gear"]:
            if draw.random() < 0.3:
                m.plan["gear"].append({"gear": one["id"], "item": draw.choice([item, rest])})
            elif draw.random() < 0.3:
                to = draw.choice([{"to": "bank"}, {"plug": False}, {}])
                m.plan["plugs"].append({"unit": one["id"], "item": rest, **to})
    return m.done()


def moved_inside(seed: int) -> Doc:
    """What a camera's own memory holds goes to its card at stops that are long enough, or not."""
    document, draw = two_memories(seed), random.Random(seed)
    document["kit"]["cards"][-1]["speed_class"] = draw.choice(["V10", "V30", "V90"])
    document["kit"]["cameras"][0]["inside_mb_s"] = draw.choice([None, 8.0, 45.0])
    air = document["trip"]["items"][0]
    copies, items, last = [], [], len(document["trip"]["items"]) - 1
    for number, item in enumerate(document["trip"]["items"]):
        items.append(item)
        if item["kind"] == "leg" and (number == last or draw.random() < 0.7):
            rest = {key: value for key, value in air.items() if key != "id"}
            seconds = draw.choice([60, 400, QUARTER])
            items.append(rest | {"id": f"move{number}", "duration_s": seconds})
            wipe = draw.choice(["no", "no", "anyway"])
            copies.append({"item": f"move{number}", "camera": "cam", "wipe": wipe})
    document["trip"]["items"] = items
    document["plan"]["copies"] = copies
    return document


def cold_inn(seed: int) -> Doc:
    """From frost, or from heat, to a socket at which cameras charge in place, and out again."""
    m, draw = Making(seed), random.Random(seed)
    for name in ("bead", "bell")[: draw.choice([1, 2])]:
        m.camera(name, charges_in_w=draw.choice([4, 10]), battery_comes_out=False)
        m.spares(1, 0.5)
    m.plan["charging"] = "auto"
    mains = {"kind": "mains", "id": "p", "name": "P", "ports": [9.0, 9.0]}
    m.kit["sources"] = [mains, bank(draw, "bank", ports=[6.0])]
    harsh = m.temps(-18, -6) if draw.random() < 0.7 else m.temps(40, 49)
    mild = m.temps(12, 22)
    m.stop(600, **harsh)
    first = m.leg(draw.choice([1, 2]), draw.choice(["stops", "never"]), **harsh)
    m.stop(draw.choice([3600, 7200]), socket={"watts": draw.choice([8.0, 40.0])}, **mild)
    second = m.leg(2, "never", **draw.choice([harsh, mild]))
    m.ask_all(first, second)
    return m.done()


def docked(seed: int) -> Doc:
    """Spares in a charger's bays on a socket, a bank, a panel or a dynamo, in frost or heat."""
    m, draw = Making(seed), random.Random(seed)
    m.camera("cam", battery_comes_out=False)
    m.spares(draw.choice([3, 4, 5]), 0.1)
    m.plan["charging"] = "auto"
    m.kit["chargers"] = [
        {
            "id": "dock",
            "name": "Dock",
            "families": ["a"],
            "bays": draw.choice([1, 2, 3]),
            "in_w": draw.choice([5.0, 12.0]),
            "bay_w": draw.choice([None, 3.0]),
            "together": draw.random() < 0.7,
        }
    ]
    panel = {"kind": "panel", "id": "sun", "name": "Sun", "ports": [9.0]}
    panel |= {"rated_w": draw.choice([10.0, 24.0]), "out_at": draw.choice(["stops", "always"])}
    wheel = {"kind": "dynamo", "id": "hub", "name": "Hub", "rated_w": 6.0, "ports": [9.0]}
    mains = {"kind": "mains", "id": "p", "name": "P", "ports": [9.0]}
    power = bank(draw, "bank")
    m.kit["sources"] = draw.choice([[mains], [power], [panel], [panel, power], [wheel, power]])
    for number in range(draw.choice([2, 3])):
        air = m.temps(*draw.choice([(-12, 4), (8, 24), (38, 49)]))
        hands = draw.choice(["stops", "never", "free"])
        item = m.leg(draw.choice([1, 2, 4]), hands, speed_mps=draw.choice([2.0, 3.6, 6.0]), **air)
        if number == 0:
            m.ask("cam", item)
        m.stop(draw.choice([600, 3600]), **air)
        m.items[-1] |= {"socket": {"watts": 20.0}} if draw.random() < 0.5 else {}
    document = m.done()
    document["trip"]["place"] = {"latitude": 46.0, "longitude": 9.0, "height_m": 400.0}
    return document


def taken_out(seed: int) -> Doc:
    """Batteries out of cameras into a charger at stops and over a night, and back in time."""
    m, draw = Making(seed), random.Random(seed)
    for name in ("one", "two")[: draw.choice([1, 2])]:
        m.camera(name)
    m.spares(len(m.cameras) + draw.choice([0, 0, 1, 2]), 0.2)
    m.plan |= {"charging": draw.choice(["auto", "auto", "never"]), "plugs": []}
    bays = draw.choice([1, 2, 3])
    dock = {"id": "dock", "name": "Dock", "families": ["a"], "bays": bays, "in_w": 12.0}
    m.kit["chargers"] = [dock | {"together": draw.random() < 0.7}]
    mains = {"kind": "mains", "id": "p", "name": "P", "ports": [12.0]}
    m.kit["sources"] = draw.choice([[mains], [bank(draw, "bank")], [mains, bank(draw, "bank")]])
    for number in range(draw.choice([2, 3])):
        air = m.temps(4, 24)
        item = m.leg(draw.choice([1, 2, 3]), draw.choice(["stops", "never", "free"]), **air)
        for one in m.cameras:
            if draw.random() < 0.8:
                m.ask(one["id"], item, importance=draw.choice(["must", "want"]))
        more: Doc = {"socket": {"watts": 30.0}} if draw.random() < 0.7 else {}
        if number and draw.random() < 0.6:
            begins = draw.choice([1800, 3600])
            more["asleep"] = {"start_s": begins, "duration_s": 7200}
        rest = m.stop(
            draw.choice([10_800, 14_400]) if "asleep" in more else draw.choice([600, 2700, 5400]),
            **air,
            **more,
        )
        for unit in m.batteries:
            if draw.random() < 0.2:
                word = draw.choice([{"to": "dock"}, {"to": "dock", "place": bays}, {"plug": False}])
                m.plan["plugs"].append({"unit": unit["id"], "item": rest, **word})
    m.ask_all(m.leg(1, "stops", **m.temps(4, 24)), m.leg(2, "never", **m.temps(4, 24)))
    return m.done()


CHAINS = (chained, into_banks, gear_charged, moved_inside, cold_inn, docked)


def chain_of(seed: int) -> Doc:
    """A plan of the kind that a seed stands for."""
    return CHAINS[seed % len(CHAINS)](seed)
