"""Cards that are too slow or too large for a camera, and recordings cut into many files.

Source: model/memory#rate.
"""

from __future__ import annotations

from collections.abc import Iterator

from ..memory import card_is_too_large, peak_byte_rate, store_keeps_up
from .registry import Found, Seen, Values, check


@check("card_too_large", "stop", curable=True)
def card_too_large(seen: Seen) -> Iterator[Found]:
    """A card fitted by the plan is larger than its camera takes (model/memory#speed)."""
    document = seen.record.written
    cards = {card.id: card for card in document.kit.cards}
    cameras = {camera.id: camera for camera in document.kit.cameras}
    for number, chosen in enumerate(document.plan.cameras):
        camera = cameras[chosen.camera]
        card = cards.get(chosen.card or "")
        slot = camera.card_slot
        if card and slot is not None and card_is_too_large(card, camera):
            values: Values = {
                "card": card.name,
                "gb": card.gb,
                "camera": camera.name,
                "largest_gb": slot.largest_gb,
            }
            yield Found(f"plan.cameras[{number}].card", values, camera.id)


@check("card_too_slow", "stop", curable=True)
def card_too_slow(seen: Seen) -> Iterator[Found]:
    """The card or memory in a camera does not sustain a planned mode's peak.

    Source: model/memory#speed.
    """
    document = seen.record.written
    for run in seen.record.cameras:
        if run.store is None:
            continue
        store = run.store
        looked_at: set[str] = set()
        for span in run.spans:
            if span.recording is None or span.recording.mode.id in looked_at:
                continue
            mode = span.recording.mode
            looked_at.add(mode.id)
            if not store_keeps_up(store, mode, seen.defaults):
                values: Values = {
                    "card": store.name,
                    "camera": run.camera.name,
                    "mode": mode.name,
                    "sustains_mb_s": round(store.sustained_bytes_s / 1e6),
                    "peak_mb_s": round(peak_byte_rate(mode, seen.defaults) / 1e6, 1),
                }
                item = document.plan.assignments[span.assignment].item
                yield Found(
                    f"plan.assignments[{span.assignment}].mode", values, run.camera.id, item
                )


@check("card_below_class", "warn")
def card_below_class(seen: Seen) -> Iterator[Found]:
    """A card is used that is of a slower class than its camera's maker wants (model/memory#speed).

    Told of the first such card of each camera.
    """
    document, rates = seen.record.written, seen.defaults.class_mb_s
    cards = {card.id: card for card in document.kit.cards}
    for run in seen.record.cameras:
        slot = run.camera.card_slot
        if slot is None or slot.slowest_class is None:
            continue
        used = [one.card for one in run.filmed] + ([run.store.id] if run.store else [])
        slow = (
            cards[key]
            for key in dict.fromkeys(used)
            if key in cards and rates[cards[key].speed_class] < rates[slot.slowest_class]
        )
        card = next(slow, None)
        if card is None:
            continue
        values: Values = {
            "card": card.name,
            "has": card.speed_class,
            "camera": run.camera.name,
            "wants": slot.slowest_class,
        }
        field = "memory" if run.camera.slot is None else "slot"
        path = f"kit.cameras[{run.index}].{field}.slowest_class"
        yield Found(path, values, run.camera.id)
