"""What a variant gives and costs, in figures that stand side by side."""

from __future__ import annotations

from pydantic import Field

from ..document import Battery, Kit, PlanDocument
from ..document.base import Part
from ..rehearsal.result.result import FirstToGiveOut, LeastLeft, MomentsWhole, Rehearsal


class Share(Part):
    """Asked and filmed milliseconds."""

    key: str
    asked_ms: int
    filmed_ms: int


class StretchTold(Part):
    """One camera on one leg or stop: how it is asked, and what of it is filmed."""

    camera: str
    item: str
    how: str = Field(description="Pattern and mode in words; empty where it is not asked.")
    filmed_ms: int
    lost_ms: int


class Ledger(Part):
    """Figures of one rehearsal. `picture` is the mean of megapixels a second over filmed time."""

    headline: str
    detail: str
    importance: tuple[Share, ...]
    moments: tuple[MomentsWhole, ...] = Field(description="Moments whole, by importance.")
    legs: tuple[Share, ...]
    first: FirstToGiveOut | None
    least_left: LeastLeft | None
    grams: float
    money: float | None = Field(description="None where no unit says what it costs.")
    swaps: int
    bytes: int
    wh: float
    looking_ms: int
    picture: float
    stops: int = Field(description="Findings that stop, and …")
    warnings: int = Field(description="… those that warn.")
    stretches: tuple[StretchTold, ...]


class Compared(Part):
    """One state with its rehearsal and figures."""

    document: PlanDocument
    rehearsal: Rehearsal
    ledger: Ledger


def ledger_of(document: PlanDocument, told: Rehearsal) -> Ledger:
    """The figures of a document and its rehearsal."""
    shares = {
        by: tuple(
            Share(key=one.key, asked_ms=one.asked_ms, filmed_ms=one.filmed_ms)
            for one in told.coverage
            if one.by == by
        )
        for by in ("importance", "item")
    }
    severities = [finding.severity for finding in told.findings]
    return Ledger(
        headline=told.verdict.headline,
        detail=told.verdict.detail,
        importance=shares["importance"],
        moments=told.verdict.moments,
        legs=shares["item"],
        first=told.verdict.first,
        least_left=told.verdict.least_left,
        grams=round(mass_g(document.kit), 1),
        money=money_of(document.kit),
        swaps=sum(move.kind in ("swap", "card") for move in told.moves),
        bytes=sum(camera.bytes_written for camera in told.cameras),
        wh=round(told.ledgers.energy_used_wh, 1),
        looking_ms=told.looking_through_ms,
        picture=round(_picture(document, told), 1),
        stops=severities.count("stop"),
        warnings=severities.count("warn"),
        stretches=_stretches(document, told),
    )


def battery_g(kit: Kit, battery: Battery) -> float:
    """Mass of a battery, by its family [g]."""
    return next(family.mass_g for family in kit.families if family.id == battery.family)


def mass_g(kit: Kit) -> float:
    """Mass of everything carried [g]; other loads are carried for other reasons."""
    units = (*kit.cameras, *kit.cards, *kit.chargers, *kit.sources, *kit.gear, *kit.drives)
    batteries = sum(battery_g(kit, battery) for battery in kit.batteries)
    return sum(unit.mass_g for unit in units) + batteries


def money_of(kit: Kit) -> float | None:
    """What the units cost that say so; None where none does."""
    families = {family.id: family.cost for family in kit.families}
    units = (*kit.cameras, *kit.cards, *kit.chargers, *kit.sources, *kit.gear, *kit.drives)
    costs = [unit.cost for unit in units] + [families[one.family] for one in kit.batteries]
    given = [cost for cost in costs if cost is not None]
    return round(sum(given), 2) if given else None


def _picture(document: PlanDocument, told: Rehearsal) -> float:
    """Mean of megapixels a second over what is filmed; 0 where nothing is."""
    modes = {
        (camera.id, mode.id): mode.width_px * mode.height_px * mode.fps / 1e6
        for camera in document.kit.cameras
        for mode in camera.modes
    }
    asked = {(one.camera, one.item): one.mode for one in document.plan.assignments}
    total, weighed = 0, 0.0
    for camera in told.cameras:
        for span in camera.filmed:
            mode = asked.get((camera.camera, span.item), "")
            length_ms = span.end_ms - span.start_ms
            total += length_ms
            weighed += length_ms * modes.get((camera.camera, mode), 0.0)
    return weighed / total if total else 0.0


def _stretches(document: PlanDocument, told: Rehearsal) -> tuple[StretchTold, ...]:
    """Every stretch that is asked, in document order of cameras and legs."""
    results = {camera.camera: camera for camera in told.cameras}
    order = {item.id: place for place, item in enumerate(document.trip.items)}
    names = {
        (camera.id, mode.id): mode.name for camera in document.kit.cameras for mode in camera.modes
    }
    made = []
    for one in sorted(document.plan.assignments, key=lambda each: order[each.item]):
        result = results[one.camera]
        filmed = sum(s.end_ms - s.start_ms for s in result.filmed if s.item == one.item)
        lost = sum(loss.lost_ms for loss in result.losses if loss.item == one.item)
        mode = names.get((one.camera, one.mode), "a missing mode")
        made.append(
            StretchTold(
                camera=one.camera,
                item=one.item,
                how=f"{one.pattern.kind} {mode}",
                filmed_ms=filmed,
                lost_ms=lost,
            )
        )
    return tuple(made)
