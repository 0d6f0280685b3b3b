"""What comes nearest to giving out: battery, heat, card, bank, module or port.

Source: model/results#least.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Final

from ..rehearsal.camera.camera_run import CameraRun
from ..rehearsal.engine.played import Played
from ..rehearsal.power.loads import Supply
from ..rehearsal.power.stores import BankRun
from ..rehearsal.result.result import LeastLeft, Resource

ROOM_C: Final = 25.0  # a body that is as warm as a room has all of its way to the limit left


def least_left(played: Played, held: list[list[float]]) -> tuple[LeastLeft, ...]:
    """Everything that was used by how much was left of it at the least, the narrowest first.

    `held` is what the cold held back of each camera's battery, by the points of its trace.
    """
    found = [*_cameras(played, held), *_sources(played)]
    return tuple(sorted(found, key=lambda one: one.left))


def _cameras(played: Played, held: list[list[float]]) -> Iterator[LeastLeft]:
    for run, hidden in zip(played.cameras, held, strict=True):
        if not run.time.filmed:
            continue
        on = [n for n, state in enumerate(run.trace.state) if state]
        limit_c = run.thermal.body.limits.stop_c
        charges, bodies_c, times_ms = run.trace.charge, run.trace.body_c, run.trace.t_ms
        left = [charges[n] - hidden[n] for n in on] or [1.0]
        charge = min(left)
        at_ms = times_ms[on[left.index(charge)]] if on else 0
        if any(span.battery for span in run.time.filmed):
            yield _told(played, run.camera.id, run.name, "battery", charge, at_ms)
        if on:
            on_c = [bodies_c[n] for n in on]
            hottest_c = max(on_c)
            at_ms = times_ms[on[on_c.index(hottest_c)]]
            share = (limit_c - hottest_c) / (limit_c - ROOM_C)
            yield _told(played, run.camera.id, run.name, "heat", share, at_ms)
        card = run.card
        if card is not None and run.recorder.written:
            share, end_ms = card.free / card.store.usable_bytes, run.time.filmed[-1].end_ms
            yield _told(played, run.camera.id, run.name, "card", share, end_ms)


def held_back(run: CameraRun) -> list[float]:
    """What the cold held back of the battery that was in, point by point of the trace [0..1]."""
    trace, curves = run.trace, run.energy.curves
    found, place, before_ms = [], 0, -1
    for at_ms, cell_c in zip(trace.t_ms, trace.cell_c, strict=True):
        # where one gives way to another, the row that ends there is still of the one before
        while place + 1 < len(curves) and curves[place + 1][0] <= at_ms - (before_ms < at_ms):
            place += 1
        found.append(curves[place][1].at(cell_c))
        before_ms = at_ms
    return found


def _sources(played: Played) -> Iterator[LeastLeft]:
    for supply in played.grid.supplies:
        bank = supply.bank
        if bank is not None and (supply.given_wh > 0.0 or bank.used_wh > 0.0):
            left, at_ms = _least_of(bank)
            kind: Resource = "module" if bank.module else "bank"
            yield _told(played, bank.id, bank.name, kind, left, at_ms)
        yield from _ports(played, supply)


def _least_of(bank: BankRun) -> tuple[float, int]:
    """The lowest charge above what cold and reserve hold back, of all above it when full."""
    curve, reserve = bank.curve, bank.reserve
    least, least_ms, under = math.inf, 0, 0.0
    for at_ms, charge, cell_c in bank.rows:
        hidden = curve.at(cell_c)
        floor = hidden if hidden > reserve else reserve
        if charge - floor < least:
            least, least_ms, under = charge - floor, at_ms, floor
    return least / max(1e-9, 1.0 - under), least_ms


def _ports(played: Played, supply: Supply) -> Iterator[LeastLeft]:
    """How much a port could give beyond what cameras that it feeds draw, where it feeds any."""
    efficiency = played.scene.defaults.feed_efficiency.value
    fed = [one for one in played.scene.outside if one.source == supply.source.id]
    rows = [
        (1.0 - one.draw_w / efficiency / most_w, _begins_ms(played, one.start_ms))
        for one in fed
        for most_w in (min(max(supply.source.ports), supply.table.at(one.start_ms)),)
        if most_w > 0.0
    ]
    if rows:
        left, at_ms = min(rows)
        source = supply.source
        yield _told(played, source.id, source.name, "port", left, at_ms + 1)


def _begins_ms(played: Played, start_ms: int) -> int:
    """When the leg or stop begins for which a camera is put on its port, perhaps before it [ms]."""
    part = played.timeline.laid_at(max(0, start_ms))
    return start_ms if start_ms <= part.start_ms else part.end_ms


def _told(
    played: Played, unit: str, name: str, resource: Resource, left: float, at_ms: int
) -> LeastLeft:
    return LeastLeft(
        unit=unit,
        name=name,
        resource=resource,
        left=round(min(1.0, max(0.0, left)), 4),
        at_ms=at_ms,
        item=played.timeline.laid_at(max(0, at_ms - 1)).id,
    )
