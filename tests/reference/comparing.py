"""The first engine beside the second: gaps, film and bytes within 2 s, charge within 0.2 %.

Causes too, and which battery, card or module went in when.
"""

from __future__ import annotations

import json
from collections import Counter
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

from tests.reference.second import World, march
from tests.reference.second.camera import Cam
from tumbrel.core.document import PlanDocument
from tumbrel.core.rehearsal.camera.camera_run import CameraRun
from tumbrel.core.rehearsal.engine.played import Played, play
from tumbrel.core.rehearsal.trip.prepare import prepare

EVENT_S = 2.0
CHARGE = 0.002
HAIR = 0.0005
WORK_S = 10.0  # a swap may wait for what charges, which is seen every half second
PUT_IN = ("swap", "card", "module")
OF_HANDS = {"swap": "hands", "card_swap": "hands", "move": "hands", "copying": "hands"}
SLACK_W = 10.0  # what may flow while events lie two seconds apart
Doc = dict[str, Any]
Spans = list[tuple[float, float]]


@dataclass
class Compared:
    """Both, and in what they differ."""

    played: Played
    marched: World
    differences: list[str]


def joined(spans: Spans) -> Spans:
    """Spans that touch as one; those within the tolerance left out."""
    whole: Spans = []
    for start, end in sorted(spans):
        if whole and start - whole[-1][1] < EVENT_S:
            whole[-1] = (whole[-1][0], max(end, whole[-1][1]))
        else:
            whole.append((start, end))
    return [one for one in whole if one[1] - one[0] > EVENT_S]


def apart(one: Spans, other: Spans) -> float:
    """Seconds that lie in one and not in the other, or the other way."""
    edges = sorted({edge for span in (*one, *other) for edge in span})
    total = 0.0
    for start, end in pairwise(edges):
        middle = (start + end) / 2
        inside = [any(a <= middle < b for a, b in spans) for spans in (one, other)]
        total += (end - start) * (inside[0] != inside[1])
    return total


def shifted(document: Doc, hair: float) -> Doc:
    """The same with charges a hair lower, and air a hair warmer."""
    other: Doc = json.loads(json.dumps(document))
    kit = other["kit"]
    for unit in (*kit["batteries"], *kit.get("sources", []), *kit.get("gear", [])):
        if {"mah", "family", "wh"} & set(unit):
            unit["charge"] = min(1.0, unit.get("charge", 1.0) * (1 - hair))
    for item in other["trip"]["items"]:
        for end in ("temp_start_c", "temp_end_c"):
            item[end] += 20 * hair
    return other


def tells_little(document: Doc) -> bool:
    """Whether the second engine itself moves by more than the tolerance for a hair's difference."""
    one = march(document)
    others = [march(shifted(document, hair)) for hair in (HAIR, -HAIR)]
    return any(
        apart(_missing(a), _missing(b)) > EVENT_S * (1 + len(_missing(a)))
        for other in others
        for a, b in zip(one.cams, other.cams, strict=True)
    ) or any(
        abs(a.missing_s - b.missing_s) > EVENT_S
        for other in others
        for a, b in zip(one.gears, other.gears, strict=True)
    )


def _missing(cam: Cam) -> Spans:
    return joined([(start, end) for start, end, _ in cam.missing])


def _copies(played: Played, marched: World) -> list[str]:
    """How many clips landed on each drive, how many were wiped, and what memories hold."""
    told = []
    for drive in played.hands.copying.room:
        landed = sum(one.drive == drive for one in played.hands.copying.landed)
        clips = [clip for cam in marched.cams for clip in cam.clips]
        other = sum(drive in c.copies or (c.moved and c.memory.name == drive) for c in clips)
        if landed != other:
            told.append(f"{drive} got {landed} and {other} clips")
    for run, cam in zip(played.cameras, marched.cams, strict=True):
        used = run.card.used if run.card else 0
        turns = 2 + len(run.recorder.kept) + len(run.time.gaps)
        held = run.beside.used if run.beside else 0
        if cam.beside and abs(held - cam.beside.used) > 16e6 * EVENT_S * turns:
            told.append(f"{run.camera.id} holds {held} and {cam.beside.used} B beside")
        if cam.memory and abs(used - cam.memory.used) > 16e6 * EVENT_S * turns:
            told.append(f"{run.camera.id} holds {used} and {cam.memory.used} B")
    return told


def _moves(played: Played, marched: World) -> list[str]:
    """When each camera was put onto another mount."""
    names = [run.camera.id for run in played.cameras]
    one = [(names[d.camera], d.end_ms / 1000) for d in played.hands.done if d.kind == "move"]
    other = [(name, float(at_s)) for kind, name, at_s, _ in marched.hands.done if kind == "move"]
    same = len(one) == len(other) and all(
        a[0] == b[0] and abs(a[1] - b[1]) <= EVENT_S for a, b in zip(one, other, strict=True)
    )
    return [] if same else [f"moved {one} and {other}"]


def _put_in(played: Played, marched: World) -> list[str]:
    """Which battery, card or module went into which camera, and when."""
    names = [run.camera.id for run in played.cameras]
    one = [
        (d.kind, names[d.camera], d.unit or d.in_name.lower(), d.end_ms / 1000)
        for d in played.hands.done
        if d.kind in PUT_IN
    ]
    other = [
        (kind, camera, unit, float(at_s))
        for kind, camera, at_s, unit in marched.hands.done
        if kind in PUT_IN
    ]
    same = [row[:3] for row in one] == [row[:3] for row in other] and all(
        abs(a[3] - b[3]) <= WORK_S for a, b in zip(one, other, strict=True)
    )
    return [] if same else [f"put in {one} and {other}"]


def _causes(run: CameraRun, cam: Cam) -> list[str]:
    """Seconds that each cause costs; those of the hands in one."""
    one: Counter[str] = Counter()
    for gap in run.time.gaps:
        one[OF_HANDS.get(str(gap.cause), str(gap.cause))] += (gap.end_ms - gap.start_ms) / 1000
    other: Counter[str] = Counter()
    for cause, seconds in cam.lost_s.items():
        other[OF_HANDS.get(cause, cause)] += seconds
    slack = EVENT_S * (2 + len(run.time.gaps) + len(run.recorder.kept))
    return [
        f"{run.camera.id} lost {one[cause]} and {other[cause]} to {cause}"
        for cause in sorted({*one, *other})
        if abs(one[cause] - other[cause]) > slack
    ]


def compare(document: Doc) -> Compared:
    """Rehearse a document with both engines."""
    played, marched = play(prepare(PlanDocument.model_validate(document))), march(document)
    told: list[str] = []
    for run, cam in zip(played.cameras, marched.cams, strict=True):
        name = run.camera.id
        gaps = joined([(g.start_ms / 1000, g.end_ms / 1000) for g in run.time.gaps])
        missing = _missing(cam)
        turns = 1 + len(gaps) + len(run.recorder.kept)
        if apart(gaps, missing) > EVENT_S * turns:
            told.append(f"{name} gaps {gaps} and {missing}")
        filmed = sum(s.end_ms - s.start_ms for s in run.time.filmed) / 1000
        if abs(filmed - cam.filmed_s) > EVENT_S * turns:
            told.append(f"{name} filmed {filmed} and {cam.filmed_s}")
        if abs(run.recorder.written - cam.written) > 16e6 * EVENT_S * turns:
            told.append(f"{name} wrote {run.recorder.written} and {cam.written}")
        if abs(run.energy.used_wh - cam.used_wh) > CHARGE * run.energy.used_wh + 0.01:
            told.append(f"{name} used {run.energy.used_wh} and {cam.used_wh}")
        told += _causes(run, cam)
        if abs(run.thermal.body_c - cam.body_c) > 0.3:
            told.append(f"{name} body {run.thermal.body_c} and {cam.body_c}")
    for cell, other in zip(played.cells, marched.cells, strict=True):
        if abs(cell.charge - other.charge) > CHARGE * 2:
            told.append(f"{cell.id} charge {cell.charge:.4f} and {other.charge:.4f}")
        if abs(cell.cell_c - other.cell_c) > 0.4:
            told.append(f"{cell.id} at {cell.cell_c:.2f} and {other.cell_c:.2f}")
    for run, gear in zip(played.grid.gears, marched.gears, strict=True):
        missed = sum(end_ms - start_ms for start_ms, end_ms in run.missing) / 1000
        if abs(missed - gear.missing_s) > EVENT_S * (1 + len(run.missing)):
            told.append(f"{run.id} missed {missed} and {gear.missing_s}")
        if abs(run.charge - gear.charge) > CHARGE + SLACK_W * EVENT_S / 3600 / run.wh:
            told.append(f"{run.id} charge {run.charge:.4f} and {gear.charge:.4f}")
    told += _copies(played, marched)
    told += _moves(played, marched)
    told += _put_in(played, marched)
    for bank in played.grid.banks:
        store = next(s for s in marched.stores if s.doc["id"] == bank.id)
        swaps = sum(done.kind == "module" for done in played.hands.done)
        slack = SLACK_W * EVENT_S * (1 + swaps) / 3600 / bank.wh
        if abs(bank.charge - store.charge) > CHARGE + slack:
            told.append(f"{bank.id} charge {bank.charge:.4f} and {store.charge:.4f}")
    return Compared(played, marched, told)
