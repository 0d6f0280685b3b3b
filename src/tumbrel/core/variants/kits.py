"""The same trip with a lighter, a safer and a sharper kit; each step is rehearsed."""

from __future__ import annotations

from collections.abc import Iterator

from ..cures import Play
from ..cures.changes import Change, one_more_battery, one_more_card, spares_inside, with_plan
from ..document import IMPORTANCES, Assignment, Bank, Kit, Mode, PlanDocument, check_references
from ..document.units import without_missing
from ..rehearsal.engine.played import Played
from ..rehearsal.result.minutes import time_filmed
from .ledger import battery_g

MOST_MORE = 4
SLACK_MS = 30_000


def lighter(document: PlanDocument, play: Play) -> PlanDocument:
    """What is carried for nothing left at home: the heaviest first, as long as no minute goes.

    Batteries, cards, chargers, sources and drives; cameras only where nothing is asked of them.
    A bank with an emergency reserve, or that other loads hang on, is carried for more than film.
    """
    before = time_filmed(play(document))
    floor = {one: before[one].filmed_ms for one in IMPORTANCES}
    kept = document
    for _, unit in sorted(_units(document), reverse=True):
        tried = without_unit(kept, unit)
        if tried is None:
            continue
        found = time_filmed(play(tried))
        if all(found[one].filmed_ms >= ms - SLACK_MS for one, ms in floor.items()):
            kept = tried
    return kept


def safer(document: PlanDocument, play: Play) -> PlanDocument:
    """One battery more of each family in use, one card more, spares warm, early swaps."""
    del play  # nothing here depends on what it would say
    used = {one.camera for one in document.plan.assignments}
    cameras = [one for one in document.kit.cameras if one.id in used]
    families = sorted({one.battery_family for one in cameras if one.battery_comes_out})
    inside = next((one.id for one in document.kit.pockets if one.warmth == "inside"), None)
    made = with_plan(document, swap_policy="early")
    for family in families:
        made = one_more_battery(family, inside)(made)
        made = spares_inside(family)(made)
    slotted = any(one.card_slot is not None for one in cameras)
    if slotted and document.kit.cards:
        made = one_more_card(max(document.kit.cards, key=lambda card: card.gb))(made)
    return made


def sharper(document: PlanDocument, play: Play) -> PlanDocument:
    """Every stretch in its camera's mode of most pixels a second, with up to four units more.

    Batteries and cards are added one by one, each the one that gains most, while musts are open.
    """
    asked = document.plan.assignments
    made = with_plan(document, assignments=tuple(_sharpest(document.kit, one) for one in asked))
    open_ms = _open_ms(play(made))
    for _ in range(MOST_MORE):
        if open_ms < SLACK_MS:
            break
        tried = [(_open_ms(play(one)), one) for one in _with_more(made)]
        best = min(tried, key=lambda pair: pair[0], default=None)
        if best is None or best[0] > open_ms - SLACK_MS:
            break
        open_ms, made = best
    return made


def pixels(mode: Mode) -> float:
    """Pixels a second of a mode."""
    return mode.width_px * mode.height_px * mode.fps


def _sharpest(kit: Kit, asked: Assignment) -> Assignment:
    camera = next(one for one in kit.cameras if one.id == asked.camera)
    loops = asked.pattern.kind == "loop"
    able = [mode for mode in camera.modes if mode.loops or not loops]
    if not able:
        return asked
    best = max(able, key=pixels)
    preset = asked.preset if best.id == asked.mode else None
    return asked.model_copy(update={"mode": best.id, "preset": preset})


def _with_more(document: PlanDocument) -> Iterator[PlanDocument]:
    used = {one.camera for one in document.plan.assignments}
    cameras = [one for one in document.kit.cameras if one.id in used]
    changes: list[Change] = [
        one_more_battery(family, None)
        for family in sorted({one.battery_family for one in cameras if one.battery_comes_out})
    ]
    if document.kit.cards:
        changes.append(one_more_card(max(document.kit.cards, key=lambda card: card.gb)))
    for change in changes:
        yield change(document)


def _open_ms(played: Played) -> int:
    """What of the musts is not filmed [ms]."""
    return time_filmed(played)["must"].missing_ms


# -- what can be left at home -------------------------------------------------------------------

UNITS = ("batteries", "cards", "chargers", "sources", "drives", "cameras")


def _units(document: PlanDocument) -> Iterator[tuple[float, str]]:
    """Everything that might be left at home: grams and key."""
    kit = document.kit
    asked = {one.camera for one in document.plan.assignments}
    for battery in kit.batteries:
        yield battery_g(kit, battery), battery.id
    relied_on = {load.bank for load in kit.loads}
    relied_on |= {one.id for one in kit.sources if isinstance(one, Bank) and one.reserve_wh > 0.0}
    for unit in (*kit.cards, *kit.chargers, *kit.sources, *kit.drives):
        if unit.id not in relied_on:
            yield unit.mass_g, unit.id
    for camera in kit.cameras:
        if camera.id not in asked:
            yield camera.mass_g, camera.id


def without_unit(document: PlanDocument, key: str) -> PlanDocument | None:
    """The document without a unit and all that names it; None where it cannot be taken out."""
    if any(one.camera == key for one in document.plan.assignments):
        return None
    kit = document.kit
    parts = {name: tuple(one for one in getattr(kit, name) if one.id != key) for name in UNITS}
    try:
        left = Kit.model_validate(kit.model_copy(update=parts).model_dump())
        plan = without_missing(document.plan, left)
        check_references(left, document.trip, plan)
    except ValueError:
        return None
    return document.model_copy(update={"kit": left, "plan": plan})
