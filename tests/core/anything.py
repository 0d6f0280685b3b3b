"""Plans with everything at once, from a seed: whatever two things meet, a plan has an answer.

Other generators make plans that a second engine knows too; these need only be readable.
"""

from __future__ import annotations

import random
from typing import Any

from tests.build import FAMILY, asks, battery, camera, card, leg, mode, raw, set_up, stop

Doc = dict[str, Any]
MOUNTS = ["other", "chest", "helmet", "hand_held"]
IMPORTANCES = ["must", "must", "want", "nice"]


class Anything:
    """One plan, drawn from a seed."""

    def __init__(self, seed: int) -> None:
        self.draw = random.Random(seed)
        self.cameras = [self._camera(f"c{n}") for n in range(self._some(1, 3))]
        self.items = [self._item(n) for n in range(self._some(2, 6))]
        if not any(one["kind"] == "leg" for one in self.items):
            self.items.append(leg("last", 3600))

    def _maybe(self, chance: float, value: Any, other: Any = None) -> Any:
        return value if self.draw.random() < chance else other

    def _some(self, least: int, most: int) -> int:
        return self.draw.randint(least, most)

    def _pick(self, *values: Any) -> Any:
        return self.draw.choice(values)

    def _between(self, low: float, high: float) -> float:
        return round(self.draw.uniform(low, high), 2)

    # -- kit ------------------------------------------------------------------------

    def _camera(self, name: str) -> Doc:
        """Built in up to three ways, on mounts that block or do not."""
        fixed = {"kind": "fixed", "gb": self._pick(4, 32, 128)}
        slot = {"kind": "slot", "largest_gb": 512}
        memory = self._pick(slot, slot, fixed)
        beside = slot if memory is fixed and self.draw.random() < 0.5 else None
        set_ups = [self._set_up("bare", "battery", has_slot=beside is not None)]
        for key in ("fed", "cased")[: self._some(0, 2)]:
            power = self._pick("battery", "outside", "outside_only")
            set_ups.append(self._set_up(key, power, has_slot=beside is not None))
        return camera(
            name,
            memory=memory,
            slot=beside,
            set_ups=set_ups,
            modes=[self._mode("m"), self._mode("n")],
            boot_s=self._pick(0, 3, 8),
            standby_w=self._maybe(0.5, 0.4),
            armed_w=self._maybe(0.3, 1.0),
            charges_in_w=self._maybe(0.7, self._pick(4.0, 10.0)),
            battery_comes_out=self.draw.random() < 0.7,
            starts_itself=self.draw.random() < 0.3,
            continues_after_clip=self.draw.random() < 0.6,
            answers_to=self._pick([], [], ["voice"], ["remote"]),
            move_s=self._pick(0.0, 30.0, 90.0),
            limits=self._maybe(0.6, {"stop_c": self._pick(45, 60, 80), "restart_c": 40}),
            mounts=[
                {"mount": mount, "covers": self._pick([], ["port"], ["door", "port"]),
                 "pressed": self.draw.random() < 0.7, "move_s": self._pick(None, 0.0, 20.0)}
                for mount in MOUNTS[: self._some(0, 3)]
            ],
        )  # fmt: skip

    def _set_up(self, key: str, power: str, *, has_slot: bool) -> Doc:
        return set_up(
            key,
            power=power,
            hot_swap=self.draw.random() < 0.3,
            charges_recording=self.draw.random() < 0.7,
            clip_limit_s=self._maybe(0.2, self._pick(300, 1800)),
            lapse_limit_s=self._maybe(0.3, self._pick(600, 5400)),
            door_blocked_s=self._maybe(0.2, 120.0, 0.0),
            case_factor=self._pick(1.0, 1.0, 1.6),
            tau_s=self._maybe(0.3, 500.0),
            water=self._pick("dry", "splash", "under"),
            writes_to="card" if has_slot and self.draw.random() < 0.4 else "own",
        )

    def _mode(self, key: str) -> Doc:
        return mode(
            key,
            watts=self._between(0.5, 9.0),
            mbps=self._pick(10.0, 60.0, 200.0),
            rise_k=self._maybe(0.6, self._between(0.0, 60.0)),
            loops=self.draw.random() < 0.9,
            clip_limit_s=self._maybe(0.2, self._pick(120, 900)),
        )

    def _sources(self) -> list[Doc]:
        found = [
            {"kind": "bank", "id": f"b{n}", "name": f"B{n}", "mah": self._pick(1500, 10_000),
             "charge": self._between(0.0, 1.0), "stays_on": self.draw.random() < 0.4,
             "ports": self._pick([5.0], [10.0, 10.0]), "reserve_wh": self._pick(0.0, 0.0, 3.0),
             "pocket": self._maybe(0.4, "in")}
            for n in range(self._some(0, 2))
        ]  # fmt: skip
        kinds = ("mains", "vehicle", "dynamo", "panel")
        found += [{"kind": kind, "id": kind, "name": kind}
                  for kind in kinds if self.draw.random() < 0.4]  # fmt: skip
        for one in self.cameras:
            for n in range(self._pick(0, 0, 1, 2)):
                by = self._pick({"mah": 900}, {"lasts_min": 150.0})
                found.append({"kind": "module", "id": f"m{n}-{one['id']}", "name": f"M{n}",
                              "fits": one["id"], "charge": self._between(0.0, 1.0),
                              **by})  # fmt: skip
        return found[:12]

    def _kit(self) -> Doc:
        gear = [
            {"id": f"g{n}", "name": f"G{n}", "wh": self._pick(0.5, 4.0), "use_w": 1.5,
             "charge": self._between(0.0, 1.0), "serves": self._maybe(0.5, self.cameras[0]["id"])}
            for n in range(self._some(0, 2))
        ]  # fmt: skip
        charger = {"id": "ch", "name": "Ch", "families": ["a"], "bays": self._some(1, 3),
                   "together": self.draw.random() < 0.5}  # fmt: skip
        drives = [{"id": f"d{n}", "name": f"D{n}", "free_gb": self._pick(0.0, 20.0, 500.0)}
                  for n in range(self._some(0, 2))]  # fmt: skip
        return {
            "sources": self._sources(),
            "gear": gear,
            "chargers": self._maybe(0.6, [charger], []),
            "drives": drives,
            "pockets": [{"id": "in", "name": "In", "warmth": "inside"}],
        }

    # -- trip -----------------------------------------------------------------------

    def _item(self, number: int) -> Doc:
        air = {"temp_start_c": self._between(-25, 42), "temp_end_c": self._between(-25, 42),
               "gloves": self.draw.random() < 0.3, "sun_share": self._pick(0.0, 1.0),
               "snow": self.draw.random() < 0.2}  # fmt: skip
        seconds = self._pick(120, 900, 3600, 5400, 4 * 3600)
        moments = [{"name": "event", "count": self._some(1, 3), "seconds": 20,
                    "importance": self._pick(*IMPORTANCES)}]  # fmt: skip
        air["moments"] = self._maybe(0.4, moments, [])
        if self.draw.random() < 0.45:
            half = {"start_s": seconds // 2, "duration_s": seconds // 3}
            return stop(f"s{number}", seconds, **air, asleep=self._maybe(0.2, half),
                        socket=self._maybe(0.4, {"watts": self._pick(6.0, 30.0)}))  # fmt: skip
        return leg(
            f"l{number}",
            seconds,
            **air,
            hands=self._pick("free", "stops", "never"),
            air_mps=self._pick(0.0, 3.0, 12.0),
            wet=self._pick("dry", "dry", "splash", "under"),
            vehicle_runs=self.draw.random() < 0.3,
            speed_mps=self._pick(0.0, 4.0),
        )

    # -- plan -----------------------------------------------------------------------

    def _pattern(self) -> Doc:
        hours = ("06:00:00", "08:00:00", "18:00:00")
        edge = {"kind": "clock", "at": self._pick(*hours)}
        dusk = {"kind": "sun", "event": self._pick("sunrise", "dusk"), "plus_min": 30}
        return dict(self._pick(
            {"kind": "roll"},
            {"kind": "takes", "seconds": self._pick(20, 300), "count": self._some(1, 9)},
            {"kind": "loop", "length_s": self._pick(60, 900, 18_000), "saves": self._pick(None, 2)},
            {"kind": "windows", "windows": [{"opens": edge, "closes": dusk}]},
            {"kind": "interval", "every_s": self._pick(1, 10, 30, 120), "exposure_s": None,
             "frame_mb": self._pick(None, 5.0)},
            {"kind": "armed", "seconds": 30, "count": self._some(1, 4),
             "pre_record_s": self._pick(0, 10),
             "trigger": self._pick("motion", "speed", "voice", "press", "power")},
        ))  # fmt: skip

    def _plan(self, kit: Doc) -> tuple[list[Doc], Doc]:
        places = [one["id"] for one in self.items]
        asked = [
            asks(one["id"], place, mode=self._pick("m", "n"), pattern=self._pattern(),
                 set_up=self._pick(*(each["id"] for each in one["set_ups"])),
                 importance=self._pick(*IMPORTANCES), mount=self._maybe(0.4, self._pick(*MOUNTS)))
            for one in self.cameras
            for place in places
            if self.draw.random() < 0.6
        ]  # fmt: skip
        return asked, {
            "cameras": [self._chosen(one["id"], kit) for one in self.cameras],
            "swap_policy": self._pick("early", "run_flat"),
            "charging": self._pick("auto", "auto", "never"),
            "swaps": self._words(places, "battery", [None, "a0", "a1"]),
            "card_swaps": self._words(places, "card", [None, "k0", "k1"]),
            "plugs": self._plugs(places, kit),
            "gear": [{"gear": one["id"], "item": self._pick(*places)}
                     for one in kit["gear"] if self.draw.random() < 0.5],
            "copies": self._copies(places, kit),
            "full_by": self._maybe(0.2, [{"unit": "a0", "at": "2027-06-12T09:00:00"}], []),
            "links": self._maybe(0.2, [{"cameras": [one["id"] for one in self.cameras]}], [])
            if len(self.cameras) > 1 else [],
        }  # fmt: skip

    def _chosen(self, key: str, kit: Doc) -> Doc:
        """How a camera sets out: perhaps on a source, of modules one of its own."""
        fits = [s["id"] for s in kit["sources"] if s.get("fits", key) == key]
        return {"camera": key, "source": self._pick(*fits) if fits else None,
                "between": self._pick("off", "off", "standby", "on"),
                "radio_left_on": self.draw.random() < 0.2}  # fmt: skip

    def _words(self, places: list[str], field: str, units: list[Any]) -> list[Doc]:
        return [
            {"camera": one["id"], "item": place, field: self._pick(*units),
             "when": self._pick("arrival", "leaving")}
            for one in self.cameras
            for place in places
            if self.draw.random() < 0.15
        ]  # fmt: skip

    def _plugs(self, places: list[str], kit: Doc) -> list[Doc]:
        stores = [s["id"] for s in kit["sources"] if s["kind"] in ("bank", "module")]
        units = ["a0", *stores, *(one["id"] for one in kit["gear"])]
        return [
            {"unit": unit, "item": place, "plug": self.draw.random() < 0.8,
             "to": self._maybe(0.5, self._to(unit, kit))}
            for unit in units
            for place in places
            if self.draw.random() < 0.12
        ]  # fmt: skip

    def _to(self, unit: str, kit: Doc) -> str | None:
        """Where to: a source that is no store, so that no circle closes; a charger for a cell."""
        plain = [s["id"] for s in kit["sources"] if s["kind"] not in ("bank", "module")]
        plain += [one["id"] for one in kit["chargers"]] if unit == "a0" else []
        return self._pick(*plain) if plain else None

    def _copies(self, places: list[str], kit: Doc) -> list[Doc]:
        found: list[Doc] = []
        for place in places:
            for drive in kit["drives"]:
                what = self._pick({"camera": self.cameras[0]["id"]}, {"card": "k0"})
                by = self._pick("cable", "radio") if "camera" in what else "cable"
                wipe = self._pick("no", "with_two_copies", "anyway")
                if self.draw.random() < 0.25:
                    found.append({"item": place, "drive": drive["id"], "by": by,
                                  "wipe": wipe, **what})  # fmt: skip
            inside = self.cameras[0]["slot"] is not None
            if inside and self.draw.random() < 0.3:
                found.append({"item": place, "camera": self.cameras[0]["id"], "wipe": "anyway"})
        return found

    def document(self) -> Doc:
        """The plan file, as loaded."""
        kit = self._kit()
        asked, plan = self._plan(kit)
        batteries = [
            battery(f"a{n}", charge=self._between(0.0, 1.0), pocket=self._maybe(0.4, "in"),
                    health=self._pick(1.0, 1.0, 0.7))
            for n in range(self._some(1, 4))
        ]  # fmt: skip
        batteries += [battery("a1")] if len(batteries) == 1 else []
        cards = [card(f"k{n}", gb=self._pick(2, 32, 256), speed_class=self._pick("V10", "V90"))
                 for n in range(self._some(2, 4))]  # fmt: skip
        place = {"latitude": 47.0, "longitude": 11.0, "height_m": 900.0}
        family = FAMILY | {"cold_k": self._pick(0.0, 0.0, 0.3)}
        made = raw(self.items, asked, self.cameras, batteries, cards,
                   {"place": self._maybe(0.7, place)}, plan, family)  # fmt: skip
        made["kit"] |= kit
        return made


def anything(seed: int) -> Doc:
    """A plan file with everything at once, as loaded."""
    return Anything(seed).document()
