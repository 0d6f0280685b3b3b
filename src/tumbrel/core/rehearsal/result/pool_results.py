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
    times_ms, charges, cells_c = _course(cell, cameras)
    return Pooled(
        id=cell.id,
        name=cell.name,
        size=cell.wh,
        stays=_stays(cell.stays),
        t_ms=tuple(times_ms),
        charge=rounded(charges, 4),
        cell_c=rounded(cells_c, 1),
    )


def _course(cell: Cell, cameras: set[str]) -> tuple[list[int], list[float], list[float]]:
    """What was noted while it charged, and the way of its temperature in a pocket [ms, degC]."""
    noted = {row[0]: row for row in cell.rows}
    order = sorted(noted)
    times_ms: list[int] = []
    charges: list[float] = []
    cells_c: list[float] = []
    place = 0
    for stay in cell.stays:
        start = noted.get(stay.from_ms)
        lies = stay.place not in cameras and CHARGER_MARK not in stay.place
        if start is None or not lies:
            continue
        while place < len(order) and order[place] <= stay.from_ms:
            _add(noted[order[place]], times_ms, charges, cells_c)
            place += 1
        length_ms = max(1, stay.to_ms - stay.from_ms)
        climate = cell.home_climate
        even = climate.coldest_c == climate.hottest_c  # what settles there stays as it is
        until_ms = min(length_ms, SETTLED_MS) if even else length_ms
        steps = [*EARLY_MS, *range(SAMPLE_MS, until_ms, SAMPLE_MS)]
        there_ms = [stay.from_ms + step_ms for step_ms in steps if step_ms < length_ms]
        slope = (stay.level_to - stay.level_from) / length_ms
        times_ms += there_ms
        charges += [stay.level_from + slope * (at_ms - stay.from_ms) for at_ms in there_ms]
        cells_c += climate.path(start[2], stay.from_ms, there_ms)
    for at_ms in order[place:]:
        _add(noted[at_ms], times_ms, charges, cells_c)
    return times_ms, charges, cells_c


def _add(
    row: tuple[int, float, float], times_ms: list[int], charges: list[float], cells_c: list[float]
) -> None:
    times_ms.append(row[0])
    charges.append(row[1])
    cells_c.append(row[2])


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
                reserve=bank.bank.reserve_wh / (bank.wh * bank.efficiency),
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
