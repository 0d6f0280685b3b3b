"""Things with a battery through the trip: when each dies, and what then has a gap.

Source: model/energy#gear.
"""

from __future__ import annotations

from ...document import GearKind
from ...document.base import Part
from ...gear import LOSES
from ...rounding import rounded
from ..engine.played import Played
from ..power.stores import GearRun


class GearGap(Part):
    """From when to when something was wanted and dead [ms], and where that began."""

    start_ms: int
    end_ms: int
    item: str


class GearTold(Part):
    """A thing with a battery: what it serves, its course, and the gaps of its own kind.

    `loses` is what is missing in them; `used_ms` how long it was wanted; `least` its lowest charge.
    """

    id: str
    name: str
    kind: GearKind
    serves: str | None
    loses: str
    used_ms: int
    gaps: tuple[GearGap, ...]
    least: float
    t_ms: tuple[int, ...]
    charge: tuple[float, ...]


def gear_told(played: Played) -> tuple[GearTold, ...]:
    """Each thing of the kit, in its order."""
    return tuple(_told(played, one) for one in played.grid.gears)


def _told(played: Played, run: GearRun) -> GearTold:
    laid_at = played.timeline.laid_at
    gaps = tuple(
        GearGap(start_ms=start_ms, end_ms=end_ms, item=laid_at(start_ms).id)
        for start_ms, end_ms in run.missing
    )
    return GearTold(
        id=run.id,
        name=run.name,
        kind=run.gear.kind,
        serves=run.gear.serves,
        loses=LOSES[run.gear.kind],
        used_ms=sum(end_ms - start_ms for start_ms, end_ms in run.uses),
        gaps=gaps,
        least=round(min(row[1] for row in run.rows), 4),
        t_ms=tuple(row[0] for row in run.rows),
        charge=rounded([row[1] for row in run.rows], 4),
    )
