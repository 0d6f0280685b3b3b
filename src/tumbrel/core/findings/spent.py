"""What a nicer stretch has spent of a battery or card that a dearer one then lacks."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final

from ..document import IMPORTANCES
from ..rehearsal.camera.causes import Cause
from ..rehearsal.result.result import CameraResult, Filmed, Loss
from .registry import Found, Seen, Values, check

ENDS: Final = frozenset({Cause.EMPTY, Cause.COLD, Cause.CARD_FULL})


@check("nicer_spends_it", "warn", curable=True)
def nicer_spends_it(seen: Seen) -> Iterator[Found]:
    """A stretch gives out on a battery or card that a nicer one before it has drawn on."""
    trip, plan = seen.record.written.trip, seen.record.written.plan
    for result in seen.cameras:
        for loss in result.losses:
            rank = IMPORTANCES.index(loss.importance)
            shared = [
                one
                for one in _on_the_same(result, loss)
                if IMPORTANCES.index(plan.assignments[one.assignment].importance) > rank
            ]
            if not shared:
                continue
            longest = max(shared, key=lambda one: one.end_ms - one.start_ms)
            nicer = plan.assignments[longest.assignment]
            mine = [one for one in shared if one.assignment == longest.assignment]
            minutes = round(sum(one.end_ms - one.start_ms for one in mine) / 60_000)
            if minutes < 1:
                continue
            values: Values = {
                "camera": seen.camera(result.camera).name,
                "nicer": trip.item(nicer.item).name,
                "nice": nicer.importance,
                "minutes": minutes,
                "leg": trip.item(loss.item).name,
                "wanted": loss.importance,
                "why": loss.text,
            }
            path = f"plan.assignments[{longest.assignment}]"
            yield Found(path, values, result.camera, loss.item)


def _on_the_same(result: CameraResult, loss: Loss) -> Iterator[Filmed]:
    """What was filmed before a loss on the battery, or the card, that gave out in it."""
    if loss.cause not in ENDS:
        return
    before = [one for one in result.filmed if one.end_ms <= loss.start_ms]
    if not before:
        return
    by_card = loss.cause is Cause.CARD_FULL
    spent = before[-1].card if by_card else before[-1].battery
    for one in reversed(before):
        if (one.card if by_card else one.battery) != spent:
            return
        yield one
