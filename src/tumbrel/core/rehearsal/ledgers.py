"""The three ledgers; a breach is a fault of the engine and raises (E9)."""

from __future__ import annotations

from .engine import Played
from .result import Ledgers

ENERGY_TOLERANCE = 1e-6


class LedgerBreach(AssertionError):
    """A ledger that does not balance: the rehearsal must not be told."""


def balance(played: Played) -> Ledgers:
    """Add up energy, bytes and milliseconds. Raises LedgerBreach when one does not balance."""
    ledgers = Ledgers(
        energy_start_wh=played.start_wh,
        energy_end_wh=sum(cell.wh * cell.charge for cell in played.cells),
        energy_used_wh=sum(run.used_wh for run in played.cameras),
        energy_lost_wh=sum(run.lost_wh for run in played.cameras)
        + sum(cell.lost_wh for cell in played.cells),
        bytes_start=played.start_bytes,
        bytes_written=sum(run.written for run in played.cameras),
        bytes_end=sum(card.used for card in played.cards),
        asked_ms=sum(s.end_ms - s.start_ms for run in played.cameras for s in run.asked_list),
        filmed_ms=sum(s.end_ms - s.start_ms for run in played.cameras for s in run.filmed),
        gap_ms=sum(s.end_ms - s.start_ms for run in played.cameras for s in run.gaps),
    )
    check(ledgers)
    return ledgers


def check(ledgers: Ledgers) -> None:
    """Raise LedgerBreach unless all three balance."""
    brought = ledgers.energy_start_wh
    accounted = ledgers.energy_end_wh + ledgers.energy_used_wh + ledgers.energy_lost_wh
    if abs(brought - accounted) > ENERGY_TOLERANCE * max(brought, 1e-9):
        raise LedgerBreach(f"energy: {brought} W h at start, {accounted} W h accounted for")
    written = ledgers.bytes_start + ledgers.bytes_written
    if written != ledgers.bytes_end:
        raise LedgerBreach(
            f"bytes: {written} written or there before, {ledgers.bytes_end} on cards"
        )
    told = ledgers.filmed_ms + ledgers.gap_ms
    if ledgers.asked_ms != told:
        raise LedgerBreach(f"time: {ledgers.asked_ms} ms asked, {told} ms told")
