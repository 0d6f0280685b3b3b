"""Docks on sockets and banks against the march: charges within 0.2 %, refusals within 2 s."""

from __future__ import annotations

import random
from typing import Any

import pytest

from tests.build import battery, leg, raw, stop
from tests.reference.charging_march import Dock, Docked, Store, ambient_by_second
from tumbrel.core.document import PlanDocument
from tumbrel.core.rehearsal.engine.played import Played, play
from tumbrel.core.rehearsal.trip.prepare import prepare

CHARGE = 0.002


def made(seed: int) -> tuple[dict[str, Any], Dock]:
    """Two to four low batteries in a dock, on a bank or a socket, in cold or heat."""
    draw = random.Random(seed)
    on_bank = draw.random() < 0.6
    low = draw.choice([-12.0, 3.0, 20.0, 38.0])
    hours = draw.choice([3, 5, 8])

    def temps() -> dict[str, float]:
        return {f"temp_{end}_c": draw.uniform(low, low + 14) for end in ("start", "end")}

    items = [stop("camp", hours * 3600, **temps())]
    if on_bank:
        items.append(leg("on", 3600 * draw.choice([1, 4]), **temps()))
    charges = [draw.uniform(0.02, 0.9) for _ in range(draw.choice([2, 3, 4]))]
    charges.sort()
    dock = {
        "id": "dock",
        "name": "Dock",
        "families": ["a"],
        "bays": len(charges),
        "in_w": draw.choice([4.0, 9.0, 30.0]),
        "together": draw.random() < 0.5,
    }
    port = draw.choice([3.0, 10.0])
    reserve, wh = draw.choice([0.0, 5.0]), 6000 * 3.7 / 1000
    bank = {"kind": "bank", "id": "bank", "name": "Bank", "mah": 6000, "ports": [port]}
    bank |= {"reserve_wh": reserve, "stays_on": True}
    plug = {"kind": "mains", "id": "plug", "name": "Plug", "ports": [port]}
    load = {"id": "lamp", "name": "Lamp", "wh_per_day": draw.choice([0.0, 12.0])}
    units = [battery(f"b{n}", charge=charge) for n, charge in enumerate(charges)]
    items[0]["socket"] = {"watts": 100.0}
    document = raw(items, [], cameras=[], batteries=units, cards=[])
    document["kit"] |= {"chargers": [dock], "sources": [bank if on_bank else plug]}
    document["kit"]["loads"] = [load] if on_bank else []
    start_c = ambient_by_second(items)[0]
    store = Store(wh, 1.0, start_c, reserve / (wh * 0.85), load["wh_per_day"] / 24)
    marched = Dock(
        [Docked(5.7, charge, start_c) for charge in charges],
        dock["in_w"],
        dock["together"],
        port,
        store if on_bank else None,
    )
    air = ambient_by_second(items)
    marched.march(air, [1000.0 if on_bank else 100.0] * len(air))
    return document, marched


def rehearsed(document: dict[str, Any]) -> Played:
    return play(prepare(PlanDocument.model_validate(document)))


@pytest.mark.parametrize("seed", range(40))
def test_docks_agree_with_the_march(seed: int) -> None:
    """A dock in a place too cold or hot to plug into at the start is left out by both."""
    document, marched = made(seed)
    played = rehearsed(document)
    plugged = [done for done in played.hands.done if done.kind == "plug"]
    if len(plugged) < len(marched.cells) or any(
        done.end_ms != 15_000 * (n + 1) for n, done in enumerate(plugged)
    ):
        pytest.skip("some are refused before they are plugged")
    for cell, other in zip(played.cells, marched.cells, strict=True):
        assert cell.charge == pytest.approx(other.charge, abs=CHARGE)
    given = played.grid.supplies[0].given_wh
    assert given == pytest.approx(marched.given_wh, rel=CHARGE, abs=0.01)
    if marched.bank is not None:
        assert played.grid.banks[0].charge == pytest.approx(marched.bank.charge, abs=CHARGE)
    refused = sorted(e.at_ms / 1000 for e in played.grid.log if e.what.startswith("refused"))
    assert refused == pytest.approx([at for at, _ in marched.log], abs=2)


def test_the_generated_docks_hold_refusals_and_empty_banks() -> None:
    """A comparison without them would prove little."""
    refused, dry, compared = 0, 0, 0
    for seed in range(40):
        document, marched = made(seed)
        played = rehearsed(document)
        compared += len(played.hands.done) >= len(marched.cells)
        refused += len(marched.log) > 0
        dry += any(bank.dry for bank in played.grid.banks)
    assert compared >= 20
    assert refused >= 2
    assert dry >= 2
