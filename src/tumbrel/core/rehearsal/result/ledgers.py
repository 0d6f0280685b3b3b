"""The three ledgers; a breach is a fault of the engine (model/results#verdict).

Source: model/results#ledgers.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from ..camera.camera_run import CameraRun
from ..engine.played import Played
from .result import Ledgers

ENERGY_TOLERANCE: Final = 1e-6
DRAWN_TOLERANCE: Final = 1e-4  # a battery gives out in a whole millisecond


@dataclass(frozen=True, slots=True)
class Breach:
    """A ledger that does not balance: of which camera, where it is one's, and how."""

    camera: str | None
    why: str


class LedgerBreach(Exception):
    """A ledger that does not balance: a fault of the engine."""


def balance(played: Played) -> tuple[Ledgers, tuple[Breach, ...]]:
    """Add up energy, bytes and milliseconds; what does not balance, each camera's own first."""
    grid, cameras, cards = played.grid, played.cameras, played.cards
    lost_wh = sum((run.energy.lost_wh for run in cameras), 0.0)
    lost_wh += sum((cell.lost_wh for cell in played.cells), 0.0)
    stores = (*grid.banks, *grid.gears)
    lost_wh += sum((one.lost_wh for one in stores), 0.0)
    lost_wh += sum((charger.lost_wh for charger in grid.chargers), 0.0)
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
        asked_ms=sum(_asked_ms(run) for run in cameras),
        filmed_ms=sum(_filmed_ms(run) for run in cameras),
        gap_ms=sum(_gap_ms(run) for run in cameras),
    )
    of_cameras = [breach for run in cameras for breach in _of_camera(run)]
    return ledgers, (*of_cameras, *breaches_of(ledgers))


def _of_camera(run: CameraRun) -> Iterator[Breach]:
    """What a camera drew was given to it, and what it was asked is filmed or told as missing."""
    drawn_wh, had_wh = run.energy.drawn_wh, run.energy.used_wh
    if had_wh < drawn_wh * (1.0 - DRAWN_TOLERANCE) - DRAWN_TOLERANCE:
        why = f"energy: {run.id} drew {drawn_wh} W h and {had_wh} were given it"
        yield Breach(run.id, why)
    asked_ms, told_ms = _asked_ms(run), _filmed_ms(run) + _gap_ms(run)
    if asked_ms != told_ms:
        yield Breach(run.id, f"time: {run.id} was asked {asked_ms} ms, {told_ms} ms are told")


def _asked_ms(run: CameraRun) -> int:
    return sum(span.end_ms - span.start_ms for span in run.schedule.spans)


def _filmed_ms(run: CameraRun) -> int:
    return sum(span.end_ms - span.start_ms for span in run.time.filmed)


def _gap_ms(run: CameraRun) -> int:
    return sum(span.end_ms - span.start_ms for span in run.time.gaps)


def breaches_of(ledgers: Ledgers) -> Iterator[Breach]:
    """Which of the three does not balance over the whole trip."""
    brought = ledgers.energy_start_wh + ledgers.energy_brought_wh
    accounted = ledgers.energy_end_wh + ledgers.energy_used_wh + ledgers.energy_lost_wh
    if abs(brought - accounted) > ENERGY_TOLERANCE * max(brought, 1e-9):
        why = f"energy: {brought} W h there or brought in, {accounted} W h accounted for"
        yield Breach(None, why)
    written = ledgers.bytes_start + ledgers.bytes_written
    placed = ledgers.bytes_end + ledgers.bytes_overwritten + ledgers.bytes_wiped
    if written != placed:
        why = f"bytes: {written} written or there before, {placed} accounted for"
        yield Breach(None, why)
    told = ledgers.filmed_ms + ledgers.gap_ms
    if ledgers.asked_ms != told:
        yield Breach(None, f"time: {ledgers.asked_ms} ms asked, {told} ms told")


def refuse(breaches: tuple[Breach, ...]) -> None:
    """Raise LedgerBreach on the first, if there is any."""
    for breach in breaches:
        raise LedgerBreach(breach.why)
