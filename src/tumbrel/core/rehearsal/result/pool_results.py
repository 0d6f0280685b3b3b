"""Batteries, banks, cards and ports through the trip, as they are told (model/results#verdict)."""

from __future__ import annotations

from typing import Final

from ...rounding import rounded
from ..engine.played import Played
from ..stock.batteries import CHARGER_MARK, Cell
from ..stock.cards import CardRun
from ..stock.stays import PlaceStay as PoolStay
from .result import BankCourse, Hung, Pooled, SourceTold, Stay

SAMPLE_MS: Final = 3_600_000
EARLY_MS: Final = (720_000, 2_160_000)
SETTLED_MS: Final = 3 * SAMPLE_MS


def batteries_told(played: Played) -> tuple[Pooled, ...]:
    """Each battery's places, and its charge and temperature where it lies outside a camera."""
    cameras = {run.camera.id for run in played.cameras}
    return tuple(_battery(cell, cameras) for cell in played.cells)


def _battery(cell: Cell, cameras: set[str]) -> Pooled:
    rows = _rows(cell, cameras)
    return Pooled(
        id=cell.id,
        name=cell.name,
        size=cell.wh,
        stays=_stays(cell.stays),
        t_ms=tuple([row[0] for row in rows]),
        charge=rounded([row[1] for row in rows], 4),
        cell_c=rounded([row[2] for row in rows], 1),
    )


def _rows(cell: Cell, cameras: set[str]) -> list[tuple[int, float, float]]:
    """What was noted while it charged, and the way of its temperature in a pocket."""
    noted = {row[0]: row for row in cell.rows}
    for stay in cell.stays:
        if stay.place in cameras or CHARGER_MARK in stay.place:
            continue
        start = noted.get(stay.from_ms)
        if start is None:
            continue
        length_ms = max(1, stay.to_ms - stay.from_ms)
        climate = cell.home_climate
        even = climate.coldest_c == climate.hottest_c  # what settles there stays as it is
        until_ms = min(length_ms, SETTLED_MS) if even else length_ms
        steps = [*EARLY_MS, *range(SAMPLE_MS, until_ms, SAMPLE_MS)]
        times_ms = [stay.from_ms + step_ms for step_ms in steps if step_ms < length_ms]
        slope = (stay.level_to - stay.level_from) / length_ms
        cells_c = climate.path(start[2], stay.from_ms, times_ms)
        for at_ms, cell_c in zip(times_ms, cells_c, strict=True):
            noted[at_ms] = (at_ms, stay.level_from + slope * (at_ms - stay.from_ms), cell_c)
    return [noted[at_ms] for at_ms in sorted(noted)]


def cards_told(cards: list[CardRun]) -> tuple[Pooled, ...]:
    """Each card's places and bytes."""
    return tuple(
        Pooled(
            id=card.store.id,
            name=card.store.name,
            size=float(card.store.usable_bytes),
            stays=_stays(card.stays),
        )
        for card in cards
    )


def _stays(stays: list[PoolStay]) -> tuple[Stay, ...]:
    return tuple(
        Stay(
            place=stay.place,
            start_ms=stay.from_ms,
            end_ms=stay.to_ms,
            level_start=stay.level_from,
            level_end=stay.level_to,
        )
        for stay in stays
    )


def sources_told(played: Played) -> tuple[SourceTold, ...]:
    """What each source gave, what hung on its ports when, and a bank's course."""
    told = []
    for supply in played.grid.supplies:
        bank = supply.bank
        course = None
        if bank is not None:
            course = BankCourse(
                wh=bank.wh,
                reserve=bank.bank.reserve_wh
                / (bank.wh * played.grid.defaults.bank_efficiency.value),
                t_ms=tuple(row[0] for row in bank.rows),
                charge=rounded([row[1] for row in bank.rows], 4),
                cell_c=rounded([row[2] for row in bank.rows], 1),
            )
        told.append(
            SourceTold(
                id=supply.source.id,
                name=supply.source.name,
                kind=supply.source.kind,
                ports=len(supply.ports),
                given_wh=supply.given_wh,
                bank=course,
                hung=tuple(
                    Hung(at_ms=one.at_ms, port=one.port, unit=one.unit)
                    for one in played.grid.hung
                    if one.source == supply.source.id
                ),
            )
        )
    return tuple(told)
