"""Plans for both engines, made from a seed: each kind would have met a fault that once was there.

Several cameras, one pair of hands with both policies and manual work, free and sleeping hands,
sockets with hours, banks shared and cold, pockets and gloves, failed starts, dead cameras over
borders of legs, standby, loops.
"""

from __future__ import annotations

import random
from typing import Any

from tests.build import FAMILY, asks, battery, camera, card, leg, mode, raw, set_up, stop, takes
from tests.reference.one_camera import one_camera

Doc = dict[str, Any]
QUARTER = 1440  # seconds: takes of a count up to four begin in whole ones


class Making:
    """A plan that is put together."""

    def __init__(self, seed: int) -> None:
        self.draw = random.Random(seed)
        self.cameras: list[Doc] = []
        self.items: list[Doc] = []
        self.asked: list[Doc] = []
        self.batteries: list[Doc] = []
        self.plan: Doc = {"cameras": []}
        self.kit: Doc = {
            "pockets": [
                {"id": name, "name": name, "warmth": warmth}
                for name, warmth in (("in", "inside"), ("out", "outer"), ("sack", "bag"))
            ]
        }
        self.family: Doc = dict(FAMILY)
        self.cards: list[Doc] = []

    def camera(self, name: str, **more: Any) -> Doc:
        """A camera with the next card; figures drawn."""
        draw = self.draw
        given = {
            "boot_s": draw.choice([0, 4]),
            "standby_w": 0.5,
            "starts_itself": False,
            "limits": {"stop_c": 90, "restart_c": 50},
            "set_ups": [
                set_up(
                    swap_s=draw.choice([20, 40]),
                    swap_gloved_s=draw.choice([60, 90]),
                    tau_s=draw.choice([500.0, 900.0]),
                    air_share=draw.choice([0.0, 1.0]),
                    power=more.pop("power", "battery"),
                )
            ],
            "modes": [mode(watts=round(draw.uniform(2.5, 5.0), 2), mbps=40.0, rise_k=20.0)],
            **more,
        }
        one = camera(name, **given)
        self.cameras.append(one)
        self.cards.append(card(f"k{len(self.cards)}"))
        return one

    def spares(self, count: int, least: float = 0.3) -> None:
        """Batteries with some charge, in any pocket."""
        for _ in range(count):
            charge = round(self.draw.uniform(least, 1.0), 3)
            pocket = self.draw.choice(["in", "out", "sack"])
            name = f"b{len(self.batteries)}"
            self.batteries.append(battery(name, charge=charge, pocket=pocket))

    def temps(self, low: float, high: float) -> Doc:
        """Air at both ends."""
        return {f"temp_{end}_c": round(self.draw.uniform(low, high), 1) for end in ("start", "end")}

    def leg(self, quarters: int, hands: str = "stops", **more: Any) -> str:
        """One more leg."""
        name = f"l{len(self.items)}"
        self.items.append(leg(name, QUARTER * quarters, hands=hands, **more))
        return name

    def stop(self, seconds: int, **more: Any) -> str:
        """One more stop."""
        name = f"s{len(self.items)}"
        self.items.append(stop(name, seconds, **more))
        return name

    def ask(self, name: str, item: str, **more: Any) -> None:
        """One more stretch."""
        self.asked.append(asks(name, item, **more))

    def ask_all(self, first: str, second: str) -> None:
        """Every camera on two items, the second a must."""
        for one in self.cameras:
            self.ask(one["id"], first)
            self.ask(one["id"], second, importance="must")

    def done(self) -> Doc:
        """The document."""
        self.plan["swap_policy"] = self.plan.get("swap_policy") or self.draw.choice(
            ["early", "early", "run_flat"]
        )
        self.plan.setdefault("charging", "never")
        start = f"2027-06-12T06:{self.draw.randint(0, 59):02d}:00"
        document = raw(
            self.items,
            self.asked,
            self.cameras,
            self.batteries,
            self.cards,
            trip={"start": start},
            plan=self.plan,
            family=self.family,
        )
        document["kit"] |= self.kit
        self._season(document)
        return document

    def _season(self, document: Doc) -> None:
        """On every other plan what most plans leave as it usually is."""
        draw = random.Random(len(self.items) + 7 * self.draw.randint(0, 10**6))
        if draw.random() < 0.5:
            return
        for one in document["kit"]["batteries"]:
            one["health"] = draw.choice([1.0, 0.9, 0.75, 0.6])
        for number, family in enumerate(document["kit"]["families"], len(self.items)):
            family["rate_per_h"] = draw.choice([0.4, 0.6, 1.0, 2.2])
            family["taper_from"] = (None, 0.7, 0.9)[number % 3]
        for pocket in document["kit"]["pockets"]:
            if draw.random() < 0.3:
                pocket["kept_c"] = draw.choice([8.0, 18.0, 34.0])
        for one in document["kit"]["cameras"]:
            for built in one["set_ups"]:
                built["lag_factor"] = draw.choice([1.0, 0.7, 1.6])
                built["charges_recording"] = draw.random() < 0.6
                built["case_factor"] = draw.choice([1.0, 0.3, 1.3])
        place = {"latitude": 46.0, "longitude": 9.0, "height_m": draw.choice([0.0, 2600.0])}
        document["trip"]["place"] = place
        for item in document["trip"]["items"]:
            item |= {"sun_share": draw.choice([0.0, 0.5, 1.0]), "sky": draw.choice([1.0, 0.5])}
            item["snow"] = draw.random() < 0.3
            if item["kind"] == "leg":
                item["air_mps"] = draw.choice([0.0, 2.0, 9.0])
                item["height_start_m"] = draw.choice([0.0, 1800.0, 4200.0])


def fed_pair(seed: int) -> Doc:
    """Two cameras with ports on one bank; one is fed, the other only charges."""
    m, draw = Making(seed), random.Random(seed)
    m.camera("fed", power=draw.choice(["outside_only", "outside"]), charges_in_w=10)
    m.camera("low", charges_in_w=draw.choice([4, 10]), battery_comes_out=False)
    m.spares(2, 0.2)
    m.plan |= {"charging": "auto", "cameras": [{"camera": "fed", "source": "x"}]}
    ports = draw.choice([[10.0], [10.0, 10.0], [6.0, 10.0]])
    bank = {"kind": "bank", "id": "x", "name": "X", "mah": draw.choice([3000, 9000])}
    m.kit["sources"] = [bank | {"ports": ports, "stays_on": draw.random() < 0.5}]
    air = m.temps(12, 24)
    m.stop(1800, **air)
    m.ask("fed", m.leg(draw.choice([2, 4]), **air))
    m.stop(draw.choice([600, 3600]), **air)
    item = m.leg(2, draw.choice(["stops", "never"]), **air)
    m.ask("low", item)
    m.ask("fed", item, importance="must")
    return m.done()


def inn(seed: int) -> Doc:
    """An inn with a socket that has hours, for a camera that charges in place over night."""
    m, draw = Making(seed), random.Random(seed)
    for name in ("bead", "bell")[: draw.choice([1, 2])]:
        m.camera(name, charges_in_w=10, battery_comes_out=False, starts_itself=draw.random() < 0.3)
        m.spares(1, 0.4)
    m.plan["charging"] = "auto"
    m.kit["sources"] = [{"kind": "mains", "id": "p", "name": "P", "ports": [9.0, 9.0]}]
    hands, air = draw.choice(["free", "stops", "never"]), m.temps(8, 18)
    m.stop(600, **air)
    first = m.leg(draw.choice([2, 3]), hands, **air)
    socket: Doc = {"watts": draw.choice([8.0, 40.0])}
    if draw.random() < 0.5:
        socket |= {"start_s": draw.choice([0, 1200]), "duration_s": draw.choice([2400, 7200])}
    asleep = {"start_s": draw.choice([0, 1200]), "duration_s": 5400}
    m.stop(draw.choice([7200, 9000]), socket=socket, asleep=asleep, **air)
    second = m.leg(3, hands, **air)
    m.ask_all(first, second)
    return m.done()


def hut(seed: int) -> Doc:
    """Frost, then a warm hut in which one films; or a cold night that is over."""
    m, draw = Making(seed), random.Random(seed)
    m.camera("tail", starts_itself=draw.random() < 0.3)
    m.spares(draw.choice([1, 2, 3]))
    cold, warm = m.temps(-28, -12), m.temps(8, 22)
    first, second = (cold, warm) if draw.random() < 0.7 else (warm, cold)
    m.stop(600, **first)
    m.ask("tail", m.leg(draw.choice([2, 4]), draw.choice(["stops", "never"]), **first))
    pattern = takes(300, count=4) if draw.random() < 0.4 else {"kind": "roll"}
    m.ask("tail", m.stop(QUARTER * draw.choice([2, 4]), **second), pattern=pattern)
    if draw.random() < 0.6:
        m.ask("tail", m.leg(2, draw.choice(["free", "stops"]), **warm), importance="must")
    return m.done()


def failed_start(seed: int) -> Doc:
    """A start that fails for cold while hands are free and a warm spare lies in a pocket."""
    m, draw = Making(seed), random.Random(seed)
    m.camera("dawn", starts_itself=draw.random() < 0.3)
    m.batteries.append(battery("b0", charge=round(draw.uniform(0.3, 0.6), 2)))
    m.spares(draw.choice([0, 1, 2]), 0.5)
    m.stop(600)
    air = m.temps(-30, -20)
    m.stop(QUARTER * draw.choice([1, 4]), **air)
    where = m.stop(QUARTER * 2, **air) if draw.random() < 0.6 else m.leg(2, "free", **air)
    m.ask("dawn", where, importance="must")
    m.ask("dawn", m.stop(QUARTER * 2, **m.temps(0, 15)))
    return m.done()


def gloves(seed: int) -> Doc:
    """Bare hands first, gloves later: the last chance is told by the gloves."""
    m, draw = Making(seed), random.Random(seed)
    for name in ("one", "two")[: draw.choice([1, 2])]:
        m.camera(name)
        m.spares(1, 0.8)
    m.spares(draw.choice([1, 2]), 0.6)
    air = m.temps(5, 25)
    m.stop(600, gloves=draw.random() < 0.3, **air)
    here = m.stop(QUARTER * draw.choice([1, 2]), gloves=draw.random() < 0.7, **air)
    away = m.leg(draw.choice([2, 3]), "never", gloves=True, **air)
    for one in m.cameras:
        if draw.random() < 0.8:
            m.ask(one["id"], here)
        m.ask(one["id"], away, importance=draw.choice(["must", "want"]))
    return m.done()


def borders(seed: int) -> Doc:
    """Cold or hot, off, and a new leg begins; with takes, loops and hands of every sort."""
    m, draw = Making(seed), random.Random(seed)
    hot = draw.random() < 0.5
    more: Doc = {"limits": {"stop_c": 60, "restart_c": 45}} if hot else {}
    m.camera("cam", starts_itself=draw.random() < 0.3, **more)
    m.spares(draw.choice([1, 2]), 0.3)
    low = 30 if hot else draw.choice([-25, -10])
    if draw.random() < 0.3:
        m.cameras[0]["answers_to"] = ["voice"]
    for _ in range(draw.randint(3, 5)):
        air = m.temps(low, low + 8) | {"gloves": draw.random() < 0.3}
        if draw.random() < 0.25:
            item = m.stop(draw.choice([60, 900, QUARTER]), **air)
        else:
            item = m.leg(draw.choice([1, 2]), draw.choice(["stops", "never", "free"]), **air)
        patterns: list[Doc] = [{"kind": "roll"}, {"kind": "roll"}]
        if m.items[-1]["duration_s"] % QUARTER == 0:
            patterns += [takes(300, count=2), {"kind": "loop", "length_s": 120, "saves": 2}]
        if draw.random() < 0.85:
            m.ask("cam", item, pattern=draw.choice(patterns))
    return m.done()


def cold_bank(seed: int) -> Doc:
    """A bank in the frost that warms on the way, and sleeps when little is asked of it."""
    m, draw = Making(seed), random.Random(seed)
    power = draw.choice(["outside_only", "outside"])
    m.camera("wheel", power=power, starts_itself=draw.random() < 0.5)
    m.spares(1, 0.3)
    bank = {"kind": "bank", "id": "x", "name": "X", "mah": draw.choice([4000, 9000])}
    bank |= {
        "ports": [10.0],
        "stays_on": draw.random() < 0.4,
        "pocket": draw.choice(["out", "sack"]),
    }
    bank |= {"charge": round(draw.uniform(0.2, 0.7), 2)}
    m.kit["sources"] = [bank]
    m.plan["cameras"] = [{"camera": "wheel", "source": "x"}]
    m.stop(600, **m.temps(-28, -10))
    for _ in range(draw.choice([1, 2])):
        pattern = takes(300, count=draw.choice([2, 4])) if draw.random() < 0.5 else {"kind": "roll"}
        air = m.temps(-5, 20)
        if draw.random() < 0.5:
            item = m.stop(QUARTER * draw.choice([2, 4]), **air)
        else:
            item = m.leg(draw.choice([2, 3]), draw.choice(["free", "stops", "never"]), **air)
        m.ask("wheel", item, pattern=pattern)
    return m.done()


def hard_draw(seed: int) -> Doc:
    """Cells that a hard draw costs charge, in the cold."""
    m, draw = Making(seed), random.Random(seed)
    m.family["cold_k"] = draw.choice([0.2, 0.5, 1.0])
    m.family["mah"] = draw.choice([900, 1500])
    m.camera("cam")
    m.spares(draw.choice([2, 3]), 0.5)
    m.stop(600, **m.temps(-20, 5))
    m.ask("cam", m.leg(draw.choice([2, 4]), draw.choice(["free", "stops"]), **m.temps(-20, 5)))
    m.ask("cam", m.stop(QUARTER, **m.temps(-10, 15)), importance="must")
    return m.done()


def standby(seed: int) -> Doc:
    """On standby between stretches."""
    m, draw = Making(seed), random.Random(seed)
    m.camera("cam", boot_s=draw.choice([4, 20]), starts_itself=draw.random() < 0.3)
    m.spares(draw.choice([1, 2]), 0.4)
    m.plan["cameras"] = [{"camera": "cam", "between": "standby"}]
    m.stop(900, **m.temps(-5, 20))
    for _ in range(draw.choice([2, 3])):
        pattern = takes(120, count=draw.choice([2, 4])) if draw.random() < 0.6 else {"kind": "roll"}
        hands = draw.choice(["free", "stops", "never"])
        item = m.leg(draw.choice([1, 2]), hands, **m.temps(-5, 20))
        m.ask("cam", item, pattern=pattern)
        if draw.random() < 0.6:
            m.stop(draw.choice([300, QUARTER]), **m.temps(-5, 20))
    return m.done()


def sleepers(seed: int) -> Doc:
    """Windows and takes while the person sleeps."""
    m, draw = Making(seed), random.Random(seed)
    for name in ("high", "camp")[: draw.choice([1, 2])]:
        m.camera(name, starts_itself=draw.random() < 0.5)
        if draw.random() < 0.4:
            m.cameras[-1]["answers_to"] = ["remote"]
        m.spares(1, 0.7)
    air = m.temps(2, 14)
    m.stop(900, **air)
    start = draw.choice([0, 1800])
    night = m.stop(QUARTER * 5, asleep={"start_s": start, "duration_s": 4320}, **air)
    for one in m.cameras:
        opens = 6 * 60 + draw.randint(20, 160)
        edges = [opens, opens + draw.choice([10, 40])]
        clocks = [f"{minute // 60 % 24:02d}:{minute % 60:02d}:00" for minute in edges]
        window = {
            edge: {"kind": "clock", "at": at}
            for edge, at in zip(("opens", "closes"), clocks, strict=True)
        }
        patterns = [{"kind": "windows", "windows": [window]}, takes(120, count=4), {"kind": "roll"}]
        m.ask(one["id"], night, pattern=draw.choice(patterns), importance="must")
        draw.random()  # the plans of seeds that once disagreed stay the same
    m.ask(m.cameras[0]["id"], m.leg(1, "never", **air))
    return m.done()


def one_pair_of_hands(seed: int) -> Doc:
    """Two or three cameras of one family, few spares, hands free on the way or at stops."""
    m, draw = Making(seed), random.Random(seed)
    for name in ("one", "two", "three")[: draw.choice([2, 3])]:
        more: Doc = {}
        if draw.random() < 0.2:
            more = {"set_ups": [set_up(hot_swap=True, swap_s=20)]}
        m.camera(name, **more)
        m.spares(1, 0.3)
    m.spares(draw.choice([1, 2, 3]), 0.5)
    for number in range(draw.choice([3, 4])):
        air = m.temps(5, 25)
        if number % 2 == 0:
            item = m.stop(draw.choice([60, 300, QUARTER]), **air)
        else:
            item = m.leg(draw.choice([2, 3]), draw.choice(["free", "stops", "never"]), **air)
        for one in m.cameras:
            if draw.random() < (0.85 if number % 2 else 0.3):
                m.ask(one["id"], item, importance=draw.choice(["must", "want", "nice"]))
    return m.done()


def by_word(seed: int) -> Doc:
    """Swaps that the plan names, beside those that hands find by themselves."""
    m, draw = Making(seed), random.Random(seed)
    for name in ("one", "two"):
        m.camera(name)
        m.spares(1, 0.3)
    m.spares(2, 0.6)
    stops = []
    for _ in range(2):
        stops.append(m.stop(draw.choice([300, 900]), **m.temps(5, 25)))
        item = m.leg(draw.choice([2, 3]), "stops", **m.temps(5, 25))
        for one in m.cameras:
            m.ask(one["id"], item, importance=draw.choice(["must", "want"]))
    word = {"camera": draw.choice(["one", "two"]), "item": draw.choice(stops)}
    m.plan["swaps"] = [word | {"battery": draw.choice(["b2", "b3", None])}]
    return m.done()


def small_cards(seed: int) -> Doc:
    """Cards that fill, and others in the bag."""
    m, draw = Making(seed), random.Random(seed)
    m.camera(
        "cam",
        modes=[mode(watts=2.0, mbps=100.0, rise_k=10.0, clip_limit_s=draw.choice([None, 700]))],
    )
    m.cameras[0]["continues_after_clip"] = draw.random() < 0.6
    m.spares(2, 0.9)
    m.cards = [card(f"k{n}", gb=draw.choice([16, 32, 64])) for n in range(draw.choice([1, 2, 3]))]
    m.stop(600)
    where = []
    for _ in range(2):
        m.ask("cam", m.leg(draw.choice([1, 2]), draw.choice(["free", "stops", "never"])))
        where.append(m.stop(draw.choice([20, 600])))
    if seed % 2:
        name = draw.choice([one["id"] for one in m.cards] + [None])
        m.plan["card_swaps"] = [{"camera": "cam", "item": draw.choice(where), "card": name}]
    return m.done()


def copies(seed: int) -> Doc:
    """Footage copied at stops, in time or not, onto drives with room or not, and wiped."""
    m, draw = Making(seed), random.Random(seed)
    m.camera("cam")
    m.cameras[0]["memory"] = {"kind": "fixed", "gb": draw.choice([32, 64]), "speed_mb_s": 90.0}
    m.cards = []
    m.spares(2, 0.9)
    m.kit["drives"] = [
        {"id": name, "name": name, "free_gb": draw.choice([6.0, 20.0, 200.0])}
        for name in ("phone", "disk")
    ]
    m.plan["copies"] = []
    m.kit["drives"][0]["radio_mb_s"] = 8.0
    for _ in range(2):
        quarters = draw.choice([1, 2])
        pattern = takes(300, count=2) if draw.random() < 0.5 else {"kind": "roll"}
        m.ask("cam", m.leg(quarters), pattern=pattern)
        where = m.stop(draw.choice([200, 900, 2400]))
        for drive in ("phone", "disk"):
            wipe = draw.choice(["no", "with_two_copies", "anyway"])
            copy = {"item": where, "camera": "cam", "drive": drive, "wipe": wipe}
            copy["by"] = "radio" if drive == "phone" and seed % 2 else "cable"
            if draw.random() < 0.8:
                m.plan["copies"].append(copy)
    return m.done()


def movers(seed: int) -> Doc:
    """Cameras that are moved to other mounts at stops that are long enough, or are not."""
    m, draw = Making(seed), random.Random(seed)
    for name in ("one", "two"):
        known = [{"mount": "hand_held", "move_s": 90.0, "move_gloved_s": 150.0, "pressed": False}]
        m.camera(name, move_s=draw.choice([0.0, 45.0, 120.0]), move_gloved_s=200.0)
        m.cameras[-1]["mounts"] = draw.choice([[], known])
        m.spares(draw.choice([1, 2]), 0.3)
    m.plan["cameras"] = [{"camera": "one", "mount": "chest"}]
    mounts = [None, None, "hand_held", "helmet"]
    for _ in range(3):
        air = m.temps(5, 25) | {"gloves": draw.random() < 0.3}
        where = [m.stop(draw.choice([30, 200, 600]), **air)] if draw.random() < 0.8 else []
        where.append(m.leg(draw.choice([1, 2]), draw.choice(["free", "stops", "never"]), **air))
        for item in where:
            for one in m.cameras:
                if draw.random() < (0.8 if item.startswith("l") else 0.25):
                    pattern = takes(60, count=2) if draw.random() < 0.3 else {"kind": "roll"}
                    rank = draw.choice(["must", "want", "nice"])
                    more = {"pattern": pattern, "importance": rank, "mount": draw.choice(mounts)}
                    m.ask(one["id"], item, **more)
    return m.done()


def lapses(seed: int) -> Doc:
    """Frames exposed long, longest runs and clips by set-up, loops, and clips that are called."""
    m, draw = Making(seed), random.Random(seed)
    m.camera("cam")
    bare = m.cameras[0]["set_ups"][0]
    bare |= {"clip_limit_s": draw.choice([None, 900]), "lapse_limit_s": draw.choice([None, 2000])}
    m.cameras[0]["continues_after_clip"] = draw.random() < 0.6
    m.cameras[0]["answers_to"] = [[], ["voice"], ["voice", "remote"]][seed % 3]
    m.spares(2, 0.8)
    for _ in range(3):
        times = {"exposure_s": draw.choice([None, 2.0, 20.0]), "writing_s": draw.choice([None, 3])}
        frames = {"kind": "interval", "every_s": draw.choice([30, 60, 90]), "frame_mb": 12.0}
        loop = {"kind": "loop", "length_s": 300, "segments": 5, "saves": draw.choice([0, 2])}
        called = {"kind": "armed", "seconds": 60, "count": 1, "pre_record_s": draw.choice([0, 10])}
        called |= {"trigger": draw.choice(["voice", "press"])}
        patterns = [frames | times, frames | times, loop, called, called, {"kind": "roll"}]
        seen = {"name": "gust", "count": draw.choice([1, 3]), "seconds": 20, "reaction_s": 4}
        item = m.leg(2, draw.choice(["free", "stops", "never"]), moments=[seen], **m.temps(0, 25))
        m.ask("cam", item, pattern=draw.choice(patterns))
        m.stop(draw.choice([60, 600]), **m.temps(0, 25))
    return m.done()


KINDS = (
    fed_pair,
    inn,
    hut,
    failed_start,
    gloves,
    borders,
    cold_bank,
    hard_draw,
    standby,
    sleepers,
    one_pair_of_hands,
    by_word,
    small_cards,
    copies,
    one_camera,
)


def plan_of(seed: int) -> Doc:
    """A plan of the kind that a seed stands for."""
    return KINDS[seed % len(KINDS)](seed)


def riders(seed: int) -> Doc:
    """Cameras on modules and with microphones, in frost and warmth, which give out on the way."""
    m, draw = Making(seed), random.Random(seed)
    names = ("one", "two")[: draw.choice([1, 2])]
    m.plan["cameras"], m.kit["sources"], m.kit["gear"] = [], [], []
    for name in names:
        m.camera(name, power="outside")
        m.spares(1, 0.2)
        watts = m.cameras[-1]["modes"][0]["draw"]["watts"]
        alone = 5.7 / watts * 60
        known: Doc = {"mah": draw.choice([600, 1500])}
        if draw.random() < 0.5:
            known = {"lasts_min": round(alone + draw.choice([15, 40]))}
        module = {"kind": "module", "id": f"m-{name}", "name": name, "fits": name, **known}
        out_w = draw.choice([3.0, 8.0])
        m.kit["sources"].append(module | {"charge": draw.choice([0.5, 1.0]), "out_w": out_w})
        m.plan["cameras"].append({"camera": name, "source": f"m-{name}"})
        m.kit["gear"].append(
            {
                "id": f"g-{name}",
                "name": name,
                "wh": draw.choice([0.3, 0.8]),
                "use_w": 0.4,
                "serves": name,
                "pocket": draw.choice(["in", "out", "sack", None]),
            }
        )
    m.stop(600, **m.temps(8, 20))
    for _ in range(draw.choice([1, 2])):
        pattern = takes(300, count=2) if draw.random() < 0.3 else {"kind": "roll"}
        item = m.leg(draw.choice([2, 4]), draw.choice(["stops", "never"]), **m.temps(-12, 4))
        for name in names:
            m.ask(name, item, pattern=pattern)
    if draw.random() < 0.5:
        m.plan["gear"] = [{"gear": "g-one", "item": m.leg(1, **m.temps(-10, 20))}]
    return m.done()


def two_memories(seed: int) -> Doc:
    """A small memory of its own and a card, written to by turns; one of them may be full."""
    m, draw = Making(seed), random.Random(seed)
    m.camera("cam", memory={"kind": "fixed", "gb": draw.choice([4, 8]), "speed_mb_s": 90.0})
    one = m.cameras[-1]
    one |= {"slot": {"kind": "slot", "largest_gb": 256}, "move_s": 0.0, "move_gloved_s": 0.0}
    one["set_ups"].append(
        one["set_ups"][0] | {"id": "backed", "name": "backed", "writes_to": "card"}
    )
    m.cards[-1]["gb"] = draw.choice([4, 64])
    m.spares(2, 0.8)
    air = m.temps(10, 24)
    m.stop(600, **air)
    for _ in range(draw.choice([2, 3, 4])):
        patterns: list[Doc] = [{"kind": "roll"}, takes(300, count=2)]
        patterns.append({"kind": "loop", "length_s": 120, "saves": 2})
        item = m.leg(1, draw.choice(["stops", "never", "free"]), **air)
        set_up_key = draw.choice(["bare", "backed"])
        m.ask("cam", item, pattern=draw.choice(patterns), set_up=set_up_key)
        if draw.random() < 0.4:
            m.stop(draw.choice([60, 600]), **air)
    document = m.done()
    bare, backed = document["kit"]["cameras"][0]["set_ups"]
    backed |= {key: value for key, value in bare.items() if key not in ("id", "name")}
    return document
