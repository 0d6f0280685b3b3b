"""The three ledgers; a breach is a fault of the engine and raises (model/results#verdict).

Source: model/results#ledgers.
"""

from __future__ import annotations

from typing import Final

from ..engine.played import Played
from .result import Ledgers

ENERGY_TOLERANCE: Final = 1e-6
DRAWN_TOLERANCE: Final = 1e-4  # a battery gives out in a whole millisecond


class LedgerBreach(Exception):
    """A ledger that does not balance: the rehearsal must not be told."""


def balance(played: Played) -> Ledgers:
    """Add up energy, bytes and milliseconds. Raises LedgerBreach when one does not balance."""
    grid, cameras, cards = played.grid, played.cameras, played.cards
    lost_wh = sum((run.energy.lost_wh for run in cameras), 0.0)
    lost_wh += sum((cell.lost_wh for cell in played.cells), 0.0)
    stores = (*grid.banks, *grid.gears)
    lost_wh += sum((one.lost_wh for one in stores), 0.0)
    lost_wh += sum((charger.lost_wh for charger in grid.chargers), 0.0)
    for run in cameras:
        drawn_wh, had_wh = run.energy.drawn_wh, run.energy.used_wh
        if had_wh < drawn_wh * (1.0 - DRAWN_TOLERANCE) - DRAWN_TOLERANCE:
            why = f"energy: {run.id} drew {drawn_wh} W h and {had_wh} were given it"
            raise LedgerBreach(why)
    used_wh = sum((run.energy.used_wh for run in cameras), 0.0)
    used_wh += sum((one.used_wh for one in stores), 0.0)
    ledgers = Ledgers(
        energy_start_wh=played.start_wh,
        energy_brought_wh=sum((s.given_wh for s in grid.supplies if s.bank is None), 0.0),
        energy_end_wh=played.end_wh,
        energy_used_wh=used_wh,
        energy_lost_wh=lost_wh,
        bytes_start=played.start_bytes,
        bytes_written=sum(run.recorder.written for run in cameras),
        bytes_overwritten=sum(card.overwritten for card in cards),
        bytes_wiped=sum(card.wiped for card in cards),
        bytes_end=sum(card.used for card in cards),
        asked_ms=sum(s.end_ms - s.start_ms for run in cameras for s in run.schedule.spans),
        filmed_ms=sum(s.end_ms - s.start_ms for run in cameras for s in run.time.filmed),
        gap_ms=sum(s.end_ms - s.start_ms for run in cameras for s in run.time.gaps),
    )
    check(ledgers)
    return ledgers


def check(ledgers: Ledgers) -> None:
    """Raise LedgerBreach unless all three balance."""
    brought = ledgers.energy_start_wh + ledgers.energy_brought_wh
    accounted = ledgers.energy_end_wh + ledgers.energy_used_wh + ledgers.energy_lost_wh
    if abs(brought - accounted) > ENERGY_TOLERANCE * max(brought, 1e-9):
        raise LedgerBreach(
            f"energy: {brought} W h there or brought in, {accounted} W h accounted for"
        )
    written = ledgers.bytes_start + ledgers.bytes_written
    placed = ledgers.bytes_end + ledgers.bytes_overwritten + ledgers.bytes_wiped
    if written != placed:
        raise LedgerBreach(f"bytes: {written} written or there before, {placed} accounted for")
    told = ledgers.filmed_ms + ledgers.gap_ms
    if ledgers.asked_ms != told:
        raise LedgerBreach(f"time: {ledgers.asked_ms} ms asked, {told} ms told")
