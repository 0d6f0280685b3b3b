"""What must not change when a plan is written otherwise: 200 plans each."""

from __future__ import annotations

import copy
import json
from datetime import datetime, timedelta
from typing import Any

import pytest

from tests.build import battery, camera, card, stop
from tests.reference import many
from tumbrel.core.document import PlanDocument
from tumbrel.core.rehearsal.engine.checkpoints import play_from
from tumbrel.core.rehearsal.engine.played import Played, play
from tumbrel.core.rehearsal.trip.prepare import prepare

PLANS = 200
MOVED = 10
CLOSE_MS = 5  # roots rounded up, and self-discharge of what rests
STEP_S = 600
MINUTE_MS, HOUR_MS = 60_000, 3_600_000
Doc = dict[str, Any]
Account = list[tuple[list[tuple[str, int, int]], list[tuple[int, int]]]]


def played(document: Doc) -> Played:
    return play(prepare(PlanDocument.model_validate(document)))


def account(done: Played) -> Account:
    """Gaps and film of each camera, those that touch as one."""
    told = []
    for run in done.cameras:
        gaps: list[tuple[str, int, int]] = []
        for gap in run.time.gaps:
            if gaps and gaps[-1][2] == gap.start_ms and gaps[-1][0] == gap.cause:
                gaps[-1] = (gap.cause, gaps[-1][1], gap.end_ms)
            else:
                gaps.append((gap.cause, gap.start_ms, gap.end_ms))
        film: list[tuple[int, int]] = []
        for span in run.time.filmed:
            if film and film[-1][1] == span.start_ms:
                film[-1] = (film[-1][0], span.end_ms)
            else:
                film.append((span.start_ms, span.end_ms))
        told.append((gaps, film))
    return told


def charges(done: Played) -> list[float]:
    return [cell.charge for cell in done.cells]


def close(one: Account, other: Account) -> bool:
    """The same spans to a few milliseconds."""
    for (gaps, film), (other_gaps, other_film) in zip(one, other, strict=True):
        if len(gaps) != len(other_gaps) or len(film) != len(other_film):
            return False
        edges = [edge for _, *span in gaps for edge in span] + [e for span in film for e in span]
        others = [edge for _, *span in other_gaps for edge in span]
        others += [edge for span in other_film for edge in span]
        if any(abs(a - b) > CLOSE_MS for a, b in zip(edges, others, strict=True)):
            return False
    return True


def renamed(document: Doc) -> Doc:
    """Every key and name another one, of another alphabetical order."""
    text = json.dumps(document)
    kit = document["kit"]
    parts = ("cameras", "batteries", "cards", "sources", "pockets", "drives", "families")
    keys = {unit["id"] for part in parts for unit in kit.get(part, [])}
    keys |= {item["id"] for item in document["trip"]["items"]}
    for number, key in enumerate(sorted(keys, reverse=True)):
        text = text.replace(f'"{key}"', f'"z{number}-{key[::-1]}"')
    return dict(json.loads(text))


def with_unused(document: Doc) -> Doc:
    """A battery that fits nothing, a camera that is asked nothing, a drive, a pocket."""
    kit = document["kit"]
    kit["families"].append({"id": "other", "name": "Other", "mah": 900, "nominal_v": 3.6})
    kit["batteries"].append(battery("unused", family="other"))
    kit["cameras"].append(camera("idle", battery_family="other", battery_comes_out=False))
    kit["cards"].append(card("spare-card", gb=8))
    plans = document["plan"].setdefault("cameras", [])
    plans.append({"camera": "idle", "battery": "unused", "card": "spare-card"})
    kit.setdefault("drives", []).append({"id": "idle-drive", "name": "Idle", "free_gb": 5.0})
    kit["pockets"].append({"id": "empty", "name": "Empty", "warmth": "inside"})
    return document


def a_week_later(document: Doc) -> Doc:
    start = datetime.fromisoformat(document["trip"]["start"]) + timedelta(days=7)
    document["trip"]["start"] = start.isoformat()
    return document


@pytest.mark.parametrize("changed", [renamed, with_unused, a_week_later])
def test_what_is_written_otherwise_is_rehearsed_the_same(changed: Any) -> None:
    for seed in range(PLANS):
        document = many.plan_of(seed)
        if changed is a_week_later:
            document["trip"].pop("place", None)  # the sun knows the date
        before = played(document)
        after = played(changed(copy.deepcopy(document)))
        asked = account(after)[: len(before.cameras)]
        assert asked == account(before), seed
        assert charges(after)[: len(before.cells)] == charges(before), seed


def split(document: Doc) -> Doc | None:
    """The first leg that is only rolled, parted where the air changes; None where there is none."""
    start = datetime.fromisoformat(document["trip"]["start"])
    asked, at_s = document["plan"]["assignments"], start.minute * 60 + start.second
    for place, item in enumerate(document["trip"]["items"]):
        mine = [one for one in asked if one["item"] == item["id"]]
        rolled = all(one.get("pattern", {"kind": "roll"})["kind"] == "roll" for one in mine)
        first_s = -at_s % STEP_S + STEP_S
        at_s += item["duration_s"]
        if item["kind"] != "leg" or item.get("hands") == "free" or not mine or not rolled:
            continue
        way = first_s / item["duration_s"]
        middle = item["temp_start_c"] + way * (item["temp_end_c"] - item["temp_start_c"])
        rest = {"id": "rest", "duration_s": item["duration_s"] - first_s, "temp_start_c": middle}
        items = document["trip"]["items"]
        items[place : place + 1] = [
            item | {"duration_s": first_s, "temp_end_c": middle},
            item | rest,
        ]
        document["plan"]["assignments"] = asked + [one | {"item": "rest"} for one in mine]
        return document
    return None


def test_a_leg_in_two_parts_is_the_same_leg() -> None:
    compared = 0
    for seed in range(2 * PLANS):
        document = many.plan_of(seed)
        parted = split(copy.deepcopy(document))
        if parted is None:
            continue
        compared += 1
        assert close(account(played(parted)), account(played(document))), seed
    assert compared >= PLANS // 2


def cut_in_two(document: Doc, place: int) -> tuple[Doc, Doc]:
    """The trip until an item, and from it on with what was in each battery, card and camera.

    Each sets out with what it would have for the whole trip: who is asked nothing takes nothing.
    """
    first, second = copy.deepcopy(document), copy.deepcopy(document)
    first["plan"]["cameras"] = [
        {"camera": one.camera.id, "battery": one.battery, "card": one.store}
        for one in prepare(PlanDocument.model_validate(document)).cameras
    ]
    items = document["trip"]["items"]
    first["trip"]["items"], second["trip"]["items"] = items[:place], items[place:]
    for half in (first, second):
        keys = {item["id"] for item in half["trip"]["items"]}
        plan = half["plan"]
        plan["assignments"] = [one for one in plan["assignments"] if one["item"] in keys]
    done = played(first)
    start = datetime.fromisoformat(document["trip"]["start"])
    start += timedelta(milliseconds=done.timeline.duration_ms)
    second["trip"]["start"] = start.isoformat()
    charge = {cell.id: max(0.0, min(1.0, cell.charge)) for cell in done.cells}
    used = {one.store.id: one.used for one in done.cards}
    for unit in second["kit"]["batteries"]:
        unit["charge"] = charge[unit["id"]]
    for unit in second["kit"]["cards"]:
        unit["used_bytes"] = used[unit["id"]]
    second["plan"]["cameras"] = [
        {
            "camera": run.camera.id,
            "battery": run.cell.id if run.cell else None,
            "card": run.card.store.id if run.card else None,
        }
        for run in done.cameras
    ]
    return first, second


def asked_of(document: Doc) -> set[str]:
    """The cameras of which something is asked."""
    return {one["camera"] for one in document["plan"]["assignments"]}


def test_a_trip_in_two_documents_is_the_same_trip() -> None:
    """In even warmth, where a document holds the whole state, cut where a stop begins."""
    compared = 0
    for seed in range(4 * PLANS):
        document = many.one_pair_of_hands(seed)
        for item in document["trip"]["items"]:
            item |= {"temp_start_c": 25.0, "temp_end_c": 25.0, "sun_share": 0.0}
        for pocket in document["kit"]["pockets"]:
            pocket["kept_c"] = 25.0
        for one in document["kit"]["cameras"]:
            one["modes"][0]["rise_k"] = 0.0
        _, way, there, *_ = document["trip"]["items"]
        running = any(one["item"] == there["id"] for one in document["plan"]["assignments"])
        if way.get("hands") == "free" or running:
            continue  # hands there look over the cut; no document says that a camera is on
        halves = [played(half) for half in cut_in_two(document, 2)]
        offset_ms = halves[0].timeline.duration_ms
        if any(one.left and one.left_ms > offset_ms - HOUR_MS for one in halves[0].cells):
            continue  # no document says what hands took out of which camera within the hour
        compared += 1
        whole = played(document)
        # a last chance counts those who are asked in its document: the swaps of no others
        alike = all(asked_of(half) == asked_of(document) for half in cut_in_two(document, 2))
        close_ms = 20 * CLOSE_MS if alike else MINUTE_MS
        for number, run in enumerate(whole.cameras):
            parts = [half.cameras[number] for half in halves]
            filmed = [
                sum(s.end_ms - s.start_ms for s in part.time.filmed) for part in (run, *parts)
            ]
            assert abs(filmed[0] - filmed[1] - filmed[2]) <= close_ms, (seed, run.camera.id)
        swaps = [d.start_ms for d in whole.hands.done if d.kind == "swap"]
        again = [d.start_ms for d in halves[0].hands.done if d.kind == "swap"]
        again += [offset_ms + d.start_ms for d in halves[1].hands.done if d.kind == "swap"]
        assert swaps == pytest.approx(again, abs=close_ms), seed
    assert compared >= PLANS // 2


def test_an_edit_of_the_last_stretch_is_the_same_from_a_checkpoint() -> None:
    """Every kind of plan, three nights after one another, its last stretch asked otherwise."""
    resumed = 0
    plans = [*map(many.plan_of, range(PLANS)), *map(many.movers, range(MOVED))]
    for seed, plan in enumerate(plans):
        document = nights(plan)
        edited = copy.deepcopy(document)
        edited["plan"]["assignments"][-1] |= {"importance": "nice", "mount": "wing"}
        edited["plan"]["assignments"][-1]["pattern"] = {"kind": "takes", "seconds": 30, "count": 2}
        _, earlier = play_from(PlanDocument.model_validate(document))
        late = PlanDocument.model_validate(edited)
        again, after = play_from(late, earlier)
        straight = play(prepare(late))
        resumed += bool(after.checkpoints) and after.checkpoints[0] is earlier.checkpoints[0]
        assert account(again) == account(straight), seed
        assert charges(again) == charges(straight), seed
    assert resumed >= PLANS // 4


def nights(document: Doc) -> Doc:
    """The same day three times, with a night at an inn between, and a dock for what comes out."""
    items, asked = document["trip"]["items"], document["plan"]["assignments"]
    document["trip"]["items"], document["plan"]["assignments"] = [], []
    document["plan"] |= {"swaps": [], "card_swaps": [], "copies": [], "charging": "auto"}
    document["kit"]["chargers"] = [
        {"id": "dock", "name": "Dock", "families": ["a"], "bays": 2, "in_w": 12.0}
    ]
    plug = {"kind": "mains", "id": "inn-plug", "name": "Plug", "ports": [12.0]}
    document["kit"]["sources"] = [*document["kit"].get("sources", []), plug]
    for day in range(3):
        document["trip"]["items"] += [one | {"id": f"{one['id']}-{day}"} for one in items]
        document["plan"]["assignments"] += [one | {"item": f"{one['item']}-{day}"} for one in asked]
        sleep = {"start_s": 3600, "duration_s": 8 * 3600}
        inn = stop(f"inn-{day}", 14 * 3600, socket={"watts": 30.0}, asleep=sleep)
        document["trip"]["items"].append(inn)
    return document
