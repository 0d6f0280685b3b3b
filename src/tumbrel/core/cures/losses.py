"""What may be tried against minutes that are not filmed, the likeliest first.

Source: model/cures#weighed, model/cures#proposed.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import islice

from ..document import (
    Bank,
    Battery,
    Copy,
    Item,
    Leg,
    Mode,
    Module,
    PlanDocument,
    SetUp,
    Source,
    Stop,
)
from ..rehearsal.camera.causes import GAVE_OUT, Cause
from ..rehearsal.result.result import Loss, Rehearsal
from ..serving import carried as carried_plan
from ..serving import stands_water
from ..wording.cures import more_words
from .changes import (
    Proposal,
    Values,
    both,
    carried_with,
    halted_on,
    handed_over,
    module_on,
    on_item,
    on_stretch,
    one_more_battery,
    one_more_card,
    one_more_like,
    spares_inside,
    stand_ins,
    swapped_at,
    with_plan,
)
from .otherwise import StretchAsked, kept_loops, last_minutes, nicer_left_out, started_by_itself

MORE_BATTERIES = more_words("battery", "batteries")
MORE_BANKS = more_words("power bank", "power banks")
MORE_CHARGERS = more_words("charger", "chargers")
MORE_CARDS = more_words("card", "cards")
HALT_S = 600
HALT_BEFORE = 0.9  # of the way to the gap
SHADE = 0.1
LATE_STOPS, SPARES, OTHERS = 2, 3, 2
MOST_UNITS, MOST_SOURCES = 12, 3
HANDS_NEVER = frozenset({"flight", "sail", "drive", "sled"})
BY_BATTERY = GAVE_OUT | {Cause.NO_HAND, Cause.SWAP}
BY_CARD = frozenset({Cause.CARD_FULL, Cause.NO_CARD, Cause.CARD_UNFIT, Cause.CARD_SWAP})
BY_HEAT = frozenset({Cause.HOT, Cause.NO_HAND})


def proposals(document: PlanDocument, told: Rehearsal, loss: Loss) -> Iterator[Proposal]:
    """Everything to try against a loss, cheap and likely ones first."""
    assignment = document.plan.assignments[loss.assignment]
    camera = next(one for one in document.kit.cameras if one.id == loss.camera)
    mode = next((one for one in camera.modes if one.id == assignment.mode), None)
    item = document.trip.item(loss.item)
    if mode is None:
        return
    asked = StretchAsked(document, told, loss, assignment, camera, item, mode)
    cause = loss.cause
    if cause in BY_BATTERY:
        yield from _batteries(asked)
    if cause in BY_CARD:
        yield from _cards(asked)
    yield from _features_off(asked)
    if cause in BY_BATTERY | BY_HEAT:
        yield from _set_ups(asked)
    if cause in BY_BATTERY:
        yield from _modules(asked)
    if cause in BY_CARD:
        yield from kept_loops(document, asked.camera, asked.assignment)
    yield from _modes(asked)
    if cause in BY_HEAT:
        yield from _shade(asked)
    if cause in BY_BATTERY:
        yield from _more_batteries(asked)
        yield from _more_power(asked)
    if cause in BY_BATTERY | BY_CARD:
        yield from nicer_left_out(asked)
    if cause is Cause.NO_START:
        yield from started_by_itself(document, asked.camera, asked.assignment)
    yield from _other_cameras(asked)
    if cause in BY_BATTERY | BY_CARD | BY_HEAT | {Cause.CLIP_LIMIT}:
        yield from _halts(asked)
    if cause in BY_BATTERY | BY_CARD:
        yield from last_minutes(asked)


def _modes(asked: StretchAsked) -> Iterator[Proposal]:
    now = _pixels(asked.mode)
    others = [one for one in asked.camera.modes if one.id != asked.mode.id]
    for mode in sorted(others, key=lambda one: -_pixels(one)):
        yield Proposal(
            "mode",
            on_stretch(*asked.where, mode=mode.id, preset=None),
            {"camera": asked.camera.name, "leg": asked.item.name, "mode": mode.name},
            picture=max(0.0, 1.0 - _pixels(mode) / now),
        )


def _pixels(mode: Mode) -> float:
    return mode.width_px * mode.height_px * mode.fps


def _features_off(asked: StretchAsked) -> Iterator[Proposal]:
    names = {"camera": asked.camera.name, "leg": asked.item.name}
    for feature in asked.assignment.features:
        kept = tuple(one for one in asked.assignment.features if one != feature)
        yield Proposal(
            "feature_off",
            on_stretch(*asked.where, features=kept),
            {**names, "feature": feature},
            sets=f"feature {feature}",
        )
    plan = carried_plan(asked.document.plan, asked.camera.id)
    if plan.radio_left_on:
        yield Proposal("radio_off", carried_with(asked.camera.id, radio_left_on=False), names)
    if plan.between != "off":
        yield Proposal("off_between", carried_with(asked.camera.id, between="off"), names)


def _set_ups(asked: StretchAsked) -> Iterator[Proposal]:
    document, camera = asked.document, asked.camera
    source = carried_plan(document.plan, camera.id).source
    for set_up in camera.set_ups:
        if set_up.id == asked.assignment.set_up or not stands_water(set_up, asked.item):
            continue
        if set_up.power != "battery" and source is None:
            yield from _fed_by_each(asked, set_up)
            continue
        yield Proposal(
            "set_up",
            on_stretch(*asked.where, set_up=set_up.id),
            {"camera": camera.name, "leg": asked.item.name, "set_up": set_up.name},
            carried=set_up.power != "battery",
        )


def _fed_by_each(asked: StretchAsked, set_up: SetUp) -> Iterator[Proposal]:
    """A set-up on outside power, with a source chosen for it."""
    camera = asked.camera
    kept = (one for one in asked.document.kit.sources if _feeds(one, camera.id))
    for source in islice(kept, MOST_SOURCES):
        built = on_stretch(*asked.where, set_up=set_up.id)
        names = {"camera": camera.name, "leg": asked.item.name, "set_up": set_up.name}
        change = both(built, carried_with(camera.id, source=source.id))
        values: Values = {**names, "source": source.name}
        yield Proposal("fed", change, values, sets="set_up", carried=True)


def _modules(asked: StretchAsked) -> Iterator[Proposal]:
    """A module that fits the camera and is carried, put on as it is built now."""
    document, camera = asked.document, asked.camera
    now = camera.built(asked.assignment.set_up)
    if now is None or now.power != "battery":
        return
    for module in document.kit.sources:
        if isinstance(module, Module) and module.fits == camera.id:
            names = {"camera": camera.name, "leg": asked.item.name, "module": module.name}
            change = module_on(camera, asked.item.id, now, module)
            yield Proposal("module_on", change, names, sets="set_up", carried=True)


def _feeds(source: Source, camera: str) -> bool:
    return not isinstance(source, Module) or source.fits == camera


def _shade(asked: StretchAsked) -> Iterator[Proposal]:
    if asked.item.sun_share > SHADE:
        yield Proposal("shade", on_item(asked.item.id, sun_share=SHADE), {"leg": asked.item.name})


def _batteries(asked: StretchAsked) -> Iterator[Proposal]:
    """Spares that are carried: put in at a stop before, fitted at the start, kept warm."""
    document, camera = asked.document, asked.camera
    mine = [one for one in document.kit.batteries if one.family == camera.battery_family]
    if not camera.battery_comes_out:
        return
    idle = _idle(asked, mine)
    stops = _free_before(asked)
    for stop in stops[-LATE_STOPS:]:
        for battery in _unlike(idle)[:SPARES]:
            yield Proposal(
                "swap_at",
                swapped_at(camera.id, stop.id, battery.id),
                {"camera": camera.name, "battery": battery.name, "stop": stop.name},
                sets=f"swap {stop.id}",
                carried=True,
            )
    if asked.loss.cause is Cause.COLD or _is_cold(asked):
        yield from _swaps_leaving(asked, stops, idle)
    for battery in idle[:1]:
        yield Proposal(
            "start_with",
            carried_with(camera.id, battery=battery.id),
            {"camera": camera.name, "battery": battery.name},
            carried=True,
        )
    warmth = {pocket.id: pocket.warmth for pocket in document.kit.pockets}
    cold = asked.loss.cause is Cause.COLD or _is_cold(asked)
    if cold and any(warmth.get(one.pocket or "") != "inside" for one in mine):
        name = next(f.name for f in document.kit.families if f.id == camera.battery_family)
        yield Proposal("warm_pocket", spares_inside(camera.battery_family), {"family": name})
    if document.plan.swap_policy == "run_flat":
        yield Proposal("swap_early", lambda given: with_plan(given, swap_policy="early"))


def _swaps_leaving(
    asked: StretchAsked, stops: list[Item], idle: list[Battery]
) -> Iterator[Proposal]:
    """A battery kept warm until the last moment, and put in just before leaving."""
    for stop in stops[-1:]:
        for battery in _unlike(idle)[:SPARES]:
            yield Proposal(
                "swap_leaving",
                swapped_at(asked.camera.id, stop.id, battery.id, "leaving"),
                {"camera": asked.camera.name, "battery": battery.name, "stop": stop.name},
                sets=f"swap {stop.id}",
                carried=True,
            )


def _is_cold(asked: StretchAsked) -> bool:
    return min(asked.item.temp_start_c, asked.item.temp_end_c) < 0.0


def _idle(asked: StretchAsked, mine: list[Battery]) -> list[Battery]:
    """Spares that no camera holds just before the gap, the best charged then first."""
    at_ms = asked.loss.start_ms
    ranked: list[tuple[float, Battery]] = []
    fitted = {one.battery for one in asked.document.plan.cameras if one.battery}
    courses = {one.id: one for one in asked.told.batteries}
    for battery in mine:
        course = courses.get(battery.id)
        charge = battery.charge
        if course is not None:
            spans = [stay for stay in course.stays if stay.start_ms <= at_ms]
            if spans and spans[-1].place in _camera_ids(asked.document):
                continue
            charge = spans[-1].level_end if spans else charge
        elif battery.id in fitted:
            continue
        ranked.append((-charge, battery))
    return [battery for _, battery in sorted(ranked, key=lambda pair: pair[0])]


def _unlike(idle: list[Battery]) -> list[Battery]:
    """One of each kind: as full, and from as warm a place."""
    found: dict[tuple[float, str | None], Battery] = {}
    for battery in idle:
        found.setdefault((battery.charge, battery.pocket), battery)
    return list(found.values())


def _camera_ids(document: PlanDocument) -> set[str]:
    return {camera.id for camera in document.kit.cameras}


def _free_before(asked: StretchAsked) -> list[Item]:
    """Stops before the gap, in order, at which a hand is free for a while."""
    ends = {one.id: one.end_ms for one in asked.told.items if one.hands_free}
    before = [
        item
        for item in asked.document.trip.items
        if isinstance(item, Stop) and ends.get(item.id, 2**53) <= asked.loss.start_ms
    ]
    return [*before]


def _more_batteries(asked: StretchAsked) -> Iterator[Proposal]:
    document, camera = asked.document, asked.camera
    if not camera.battery_comes_out or len(document.kit.batteries) >= 60:
        return
    family = next(one for one in document.kit.families if one.id == camera.battery_family)
    inside = next((one.id for one in document.kit.pockets if one.warmth == "inside"), None)
    yield Proposal(
        "one_more_battery",
        one_more_battery(family.id, inside),
        {"family": family.name, "more": MORE_BATTERIES[1]},
        grams=family.mass_g,
        once_more=MORE_BATTERIES,
    )


def _more_power(asked: StretchAsked) -> Iterator[Proposal]:
    """One more bank or charger like the ones that are carried, where there are any."""
    kit = asked.document.kit
    banks = [one for one in kit.sources if isinstance(one, Bank)]
    if banks and len(kit.sources) < MOST_UNITS:
        like = max(banks, key=lambda one: one.mah)
        bank = one_more_like("sources", like)
        values: Values = {"bank": like.name, "more": MORE_BANKS[1]}
        yield Proposal("one_more_bank", bank, values, grams=like.mass_g, once_more=MORE_BANKS)
    fits = [one for one in kit.chargers if asked.camera.battery_family in one.families]
    if fits and len(kit.chargers) < MOST_UNITS:
        dock = max(fits, key=lambda one: one.bays)
        more = one_more_like("chargers", dock)
        values = {"charger": dock.name, "more": MORE_CHARGERS[1]}
        yield Proposal("one_more_charger", more, values, grams=dock.mass_g, once_more=MORE_CHARGERS)


def _cards(asked: StretchAsked) -> Iterator[Proposal]:
    document, camera = asked.document, asked.camera
    fitted = {one.card for one in document.plan.cameras if one.card}
    slot = camera.card_slot
    if slot is not None:
        free = [one for one in document.kit.cards if one.id not in fitted]
        for card in sorted(free, key=lambda one: -one.gb)[:2]:
            yield Proposal(
                "start_with_card",
                carried_with(camera.id, card=card.id),
                {"camera": camera.name, "card": card.name},
                carried=True,
            )
        takes = [one for one in document.kit.cards if one.gb <= slot.largest_gb]
        if takes:
            like = max(takes, key=lambda one: one.gb)
            values: Values = {"gb": like.gb, "camera": camera.name, "more": MORE_CARDS[1]}
            change = one_more_card(like)
            yield Proposal("one_more_card", change, values, grams=like.mass_g, once_more=MORE_CARDS)
    yield from _copies(asked)


def _copies(asked: StretchAsked) -> Iterator[Proposal]:
    """Emptied at a stop before onto two drives, and wiped when both copies stand."""
    document, camera = asked.document, asked.camera
    drives = document.kit.drives[:2]
    if len(drives) < 2:
        return
    for stop in _free_before(asked)[-LATE_STOPS:]:
        first = Copy(item=stop.id, camera=camera.id, drive=drives[0].id)
        second = Copy(item=stop.id, camera=camera.id, drive=drives[1].id, wipe="with_two_copies")

        def change(given: PlanDocument, more: tuple[Copy, Copy] = (first, second)) -> PlanDocument:
            return with_plan(given, copies=(*given.plan.copies, *more))

        names = {"camera": camera.name, "stop": stop.name}
        yield Proposal("copy_and_wipe", change, names, sets=f"copy {stop.id}", carried=True)


def _other_cameras(asked: StretchAsked) -> Iterator[Proposal]:
    """Another camera in its stead, where one serves well and is not asked."""
    for other, set_up in islice(stand_ins(asked.document, asked.item), OTHERS):
        yield Proposal(
            "other_camera",
            handed_over(*asked.where, other, set_up),
            {"camera": other.name, "leg": asked.item.name, "instead": asked.camera.name},
            picture=max(0.0, 1.0 - _pixels(other.modes[0]) / _pixels(asked.mode)),
        )


def _halts(asked: StretchAsked) -> Iterator[Proposal]:
    """A halt just before the gap, on a leg where one can stop at all."""
    leg = asked.item
    if not isinstance(leg, Leg) or leg.activity in HANDS_NEVER or leg.hands == "never":
        return
    laid = next(one for one in asked.told.items if one.id == leg.id)
    share = (asked.loss.start_ms - laid.start_ms) / max(1, laid.end_ms - laid.start_ms)
    if share * HALT_BEFORE * leg.duration_s < HALT_S / 10:
        return
    values: Values = {"leg": leg.name, "minutes": HALT_S // 60}
    yield Proposal("halt", halted_on(leg, share * HALT_BEFORE, HALT_S), values, halts=1)
