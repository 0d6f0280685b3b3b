"""What a battery family does: what it gives in the cold, and how it fills at each place.

Source: model/cold#reach, model/cold#worn, model/charging#cell.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final

from .charging import Intake, cool_intake_of, intake_of
from .cold import cold_curve, points_of
from .document import (
    AvailableAt,
    BadDocument,
    BatteryFamily,
    Charger,
    FieldFault,
    Kit,
    Source,
)
from .document.base import Key, Part
from .energy import nominal_wh
from .parameters import DEFAULTS, Defaults

COLDS_C: Final = tuple(range(25, -31, -1))
FILLED: Final = (0.8, 0.99)
POINTS: Final = 24


class FamilyQuestion(Part):
    """Which family of a kit."""

    kit: Kit
    family: Key


class ColdTold(Part):
    """What cells of one health give by temperature, as a share of what they hold when full."""

    health: float
    names: tuple[str, ...]
    shares: tuple[float, ...]


class FillTold(Part):
    """A cell that fills at one place: minutes and charge from empty, and which link binds.

    `binds_w` is what that link takes or gives at its port [W]; `cool_80_min` how long a cool cell
    takes to 80 %.
    """

    where: str
    binds: str
    binds_w: float
    into_w: float
    to_80_min: float
    full_min: float
    cool_80_min: float
    minutes: tuple[float, ...]
    charge: tuple[float, ...]


class FamilyTold(Part):
    """The family's curves; shares stand at `temps_c`."""

    wh: float
    temps_c: tuple[int, ...]
    cold: tuple[ColdTold, ...]
    typical: tuple[AvailableAt, ...]
    fills: tuple[FillTold, ...]


def family_told(question: FamilyQuestion, defaults: Defaults = DEFAULTS) -> FamilyTold:
    """Curves of one family. Raises BadDocument when the kit has it not."""
    kit = question.kit
    family = next((one for one in kit.families if one.id == question.family), None)
    if family is None:
        raise BadDocument((FieldFault("family", f"is '{question.family}', which no kit has"),))
    wh = nominal_wh(family.mah, family.nominal_v)
    healths: dict[float, list[str]] = {1.0: []}
    for battery in kit.batteries:
        if battery.family == family.id:
            healths.setdefault(battery.health, []).append(battery.name)
    points = points_of(family, defaults)
    cold = tuple(
        ColdTold(
            health=health,
            names=tuple(names),
            shares=tuple(round(1.0 - curve.at(float(at)), 4) for at in COLDS_C),
        )
        for health, names in sorted(healths.items(), reverse=True)
        for curve in (cold_curve(points, health),)
    )
    return FamilyTold(
        wh=round(wh, 3),
        temps_c=COLDS_C,
        cold=cold,
        typical=tuple(
            AvailableAt(cell_c=cell_c, share=share)
            for cell_c, share in sorted(defaults.available, reverse=True)
        ),
        fills=tuple(_fills(kit, family, wh, defaults)),
    )


def _fills(kit: Kit, family: BatteryFamily, wh: float, defaults: Defaults) -> Iterator[FillTold]:
    """By itself; in each charger that takes it; in each camera that charges it in place."""
    intake = intake_of(wh, family, defaults)
    cool = cool_intake_of(wh, family, defaults)
    yield _fill("by itself", [], intake, cool, defaults)
    best = max(kit.sources, key=lambda one: max(one.ports), default=None)
    for charger in kit.chargers:
        if family.id in charger.families:
            links = [*_charger_links(charger), *_port_links(best)]
            yield _fill(f"in {charger.name}", links, intake, cool, defaults)
    for camera in kit.cameras:
        if camera.battery_family == family.id and camera.charges_in_w is not None:
            links = [(f"{camera.name}'s own port", camera.charges_in_w), *_port_links(best)]
            yield _fill(f"in {camera.name}", links, intake, cool, defaults)


def _charger_links(charger: Charger) -> list[tuple[str, float]]:
    bay = [] if charger.bay_w is None else [("one bay", charger.bay_w)]
    return [*bay, (charger.name, charger.in_w)]


def _port_links(source: Source | None) -> list[tuple[str, float]]:
    return [] if source is None else [(f"a port of {source.name}", max(source.ports))]


def _fill(
    where: str, links: list[tuple[str, float]], intake: Intake, cool: Intake, defaults: Defaults
) -> FillTold:
    """A chain of links with their watts at the port, the cell last: the least of them binds."""
    efficiency = defaults.charge_efficiency.value
    cell_w = intake.most_w / efficiency
    name, port_w = min([*links, ("the cell itself", cell_w)], key=lambda link: link[1])
    available_w = min(port_w, cell_w) * efficiency
    to_80, full = (intake.ms_to(0.0, available_w, share) / 60_000 for share in FILLED)
    minutes = tuple(full * n / POINTS for n in range(POINTS + 1))
    return FillTold(
        where=where,
        binds=name,
        binds_w=round(port_w, 3),
        into_w=round(available_w, 3),
        to_80_min=round(to_80, 1),
        full_min=round(full, 1),
        cool_80_min=round(cool.ms_to(0.0, available_w, FILLED[0]) / 60_000, 1),
        minutes=tuple(round(at, 2) for at in minutes),
        charge=tuple(
            round(intake.charge_after(0.0, available_w, at * 60_000), 4) for at in minutes
        ),
    )
