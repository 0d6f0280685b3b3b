"""Swaps that are needed where no hand is free, and work for which a stop is too short.

Source: model/hands#tasks.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final

from ..document import Camera, Leg
from ..rehearsal.camera.asked_time import GapSpan
from ..rehearsal.camera.causes import Cause
from ..rehearsal.hands.tasks import TaskKind
from .registry import Found, Seen, Values, check

SWAPPABLE: Final = {Cause.EMPTY: "battery", Cause.CARD_FULL: "card"}


@check("swap_where_no_hand", "warn", curable=True)
def swap_where_no_hand(seen: Seen) -> Iterator[Found]:
    """A battery or card gives out on a leg on which no hand is free, while a spare is carried."""
    timeline = seen.record.timeline
    for run in seen.record.cameras:
        said: set[tuple[str, str]] = set()
        for gap in run.gaps:
            part = timeline.laid_at(gap.start_ms)
            what = SWAPPABLE.get(gap.cause)
            barred = isinstance(part.item, Leg) and part.item.hands != "free"
            if what is None or not barred or (what, part.id) in said:
                continue
            if not _could_swap(seen, run.camera, what, gap):
                continue
            said.add((what, part.id))
            index, importance = _where(seen, gap.assignment)
            values: Values = {"camera": run.camera.name, "what": what, "leg": part.name}
            yield Found(f"trip.items[{index}].hands", values, run.camera.id, importance)


@check("manual_swap_not_possible", "warn")
def manual_swap_not_possible(seen: Seen) -> Iterator[Found]:
    """The plan wants a swap where no hand is free, or with a battery that is not in the bag."""
    done, document = _done(seen, "swap"), seen.record.written
    for number, swap in enumerate(document.plan.swaps):
        if swap.battery is None or (swap.camera, swap.item) in done:
            continue
        battery = next(b.name for b in document.kit.batteries if b.id == swap.battery)
        camera = next(c.name for c in document.kit.cameras if c.id == swap.camera)
        where = document.trip.item(swap.item).name
        values: Values = {"battery": battery, "camera": camera, "where": where}
        yield Found(f"plan.swaps[{number}]", values, swap.camera, swap.item)


@check("manual_card_not_possible", "warn")
def manual_card_not_possible(seen: Seen) -> Iterator[Found]:
    """A card that the plan wants in a camera where no hand is free, or that is not in the bag."""
    done, document = _done(seen, "card"), seen.record.written
    for number, change in enumerate(document.plan.card_swaps):
        if change.card is None or (change.camera, change.item) in done:
            continue
        card = next(one.name for one in document.kit.cards if one.id == change.card)
        camera = seen.camera(change.camera).name
        where = document.trip.item(change.item).name
        values: Values = {"card": card, "camera": camera, "where": where}
        yield Found(f"plan.card_swaps[{number}]", values, change.camera, change.item)


@check("manual_plug_not_possible", "warn")
def manual_plug_not_possible(seen: Seen) -> Iterator[Found]:
    """A unit is to be plugged in where no hand is free, no port gives, or it is full."""
    timeline = seen.record.timeline
    done = {(d.unit, timeline.laid_at(d.start_ms).id) for d in seen.record.done if d.kind == "plug"}
    kit = seen.record.written.kit
    names = {one.id: one.name for one in (*kit.batteries, *kit.sources, *kit.gear)}
    for number, plug in enumerate(seen.record.written.plan.plugs):
        if not plug.plug or (plug.unit, plug.item) in done:
            continue
        values: Values = {"unit": names[plug.unit], "where": timeline.by_id[plug.item].name}
        yield Found(f"plan.plugs[{number}]", values, None, plug.item)


@check("hands_not_long_enough", "warn", curable=True)
def hands_not_long_enough(seen: Seen) -> Iterator[Found]:
    """A task was due, but the free hands would not have lasted for it (model/hands#tasks)."""
    items = [item.id for item in seen.record.written.trip.items]
    for skipped in seen.record.skipped:
        part = seen.record.timeline.laid_at(skipped.at_ms)
        if part.item is None or skipped.kind == "move":  # that is told by its stretch
            continue
        camera = seen.record.cameras[skipped.camera].camera if skipped.camera >= 0 else None
        values: Values = {
            "camera": f"{camera.name}'s" if camera else "a",
            "task": skipped.kind,
            "where": part.name,
            "takes_s": round(skipped.takes_ms / 1000),
        }
        path = f"trip.items[{items.index(part.id)}].duration_s"
        yield Found(path, values, camera.id if camera else None, part.id)


def _done(seen: Seen, kind: TaskKind) -> set[tuple[str, str]]:
    """Cameras on which a kind of work was done, each with its leg or stop."""
    record = seen.record
    return {
        (record.cameras[one.camera].camera.id, record.timeline.laid_at(one.start_ms).id)
        for one in record.done
        if one.kind == kind
    }


def _could_swap(seen: Seen, camera: Camera, what: str, gap: GapSpan) -> bool:
    """Whether what gave out comes out, and (for a battery) a charged spare lay in the bag."""
    at_ms = gap.start_ms
    if what == "card":
        asked = seen.record.written.plan.assignments[gap.assignment]
        return camera.card_slot is not None and not camera.writes_own(camera.built(asked.set_up))
    if not camera.battery_comes_out:
        return False
    for cell in seen.record.batteries:
        if cell.family != camera.battery_family:
            continue
        for stay in cell.stays or ():
            spare = stay.place == cell.home or "/" in stay.place
            if spare and stay.from_ms <= at_ms < stay.to_ms and stay.level_to > 0.1:
                return True
    return False


def _where(seen: Seen, assignment: int) -> tuple[int, str]:
    document = seen.record.written
    item = document.plan.assignments[assignment].item
    return [i.id for i in document.trip.items].index(item), item
