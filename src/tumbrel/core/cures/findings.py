"""What may be tried against a finding: the change that its sentence asks for.

Source: model/cures#weighed.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import islice

from ..document import Loop, PlanDocument, Preset, Roll
from ..rehearsal.result.result import Finding, Rehearsal
from ..rehearsal.result.stretch_results import LoopAdvice
from ..serving import carried
from .by_mount import angle_as_seen, another_camera, known_set_up, not_moved
from .changes import (
    Proposal,
    Values,
    asked_too,
    carried_with,
    longer,
    on_stretch,
    spares_inside,
    stand_ins,
    swapped_at,
    with_kit,
    with_plan,
)
from .losses import proposals as against_loss
from .otherwise import kept_loops, started_by_itself
from .told_finding import Propose, ToldFinding

AS_THE_LOSS = frozenset({"swap_where_no_hand", "cold_holds_charge", "nicer_spends_it"})


def proposals(document: PlanDocument, told: Rehearsal, finding: Finding) -> Iterator[Proposal]:
    """What may be tried; nothing for a finding that only a person can settle."""
    known = PROPOSES.get(finding.code)
    if known is not None:
        yield from known(ToldFinding(document, told, finding))
    if finding.code in AS_THE_LOSS:
        for camera in told.cameras:
            for loss in camera.losses:
                if loss.camera == finding.camera and finding.item in (None, loss.item):
                    yield from against_loss(document, told, loss)
                    return


def _tethered(told: ToldFinding) -> Iterator[Proposal]:
    if told.camera is not None:
        change = carried_with(told.camera.id, tethered=True)
        yield Proposal("tether", change, {"camera": told.camera.name})


def _presets_mode(told: ToldFinding) -> Iterator[Proposal]:
    asked, camera = told.assignment, told.camera
    if asked is None or camera is None:
        return
    preset = next((one for one in camera.presets if one.id == asked.preset), None)
    names = {"camera": camera.name}
    if preset is not None and any(mode.id == preset.mode for mode in camera.modes):
        change = on_stretch(camera.id, asked.item, mode=preset.mode)
        yield Proposal("preset_mode", change, {**names, "preset": preset.name})
    yield Proposal("no_preset", on_stretch(camera.id, asked.item, preset=None), names)


def _without_feature(told: ToldFinding) -> Iterator[Proposal]:
    asked, camera = told.assignment, told.camera
    if asked is None or camera is None:
        return
    unfit = str(told.finding.values["feature"])
    kept = tuple(one for one in asked.features if one != unfit)
    item = told.document.trip.item(asked.item).name
    names = {"camera": camera.name, "feature": unfit, "leg": item}
    yield Proposal("feature_off", on_stretch(camera.id, asked.item, features=kept), names)


def _known_mode(told: ToldFinding) -> Iterator[Proposal]:
    """Modes that the camera has; for a loop, those that loop."""
    asked, camera = told.assignment, told.camera
    if asked is None or camera is None:
        return
    item = told.document.trip.item(asked.item).name
    for mode in camera.modes:
        if mode.id == asked.mode or (isinstance(asked.pattern, Loop) and not mode.loops):
            continue
        change = on_stretch(camera.id, asked.item, mode=mode.id, preset=None)
        yield Proposal("mode", change, {"camera": camera.name, "leg": item, "mode": mode.name})


def _longer_loop(told: ToldFinding) -> Iterator[Proposal]:
    number = told.numbers[0] if told.numbers else -1
    advice: LoopAdvice | None = next((a for a in told.told.loops if a.assignment == number), None)
    asked, camera = told.assignment, told.camera
    if advice is None or asked is None or camera is None or not isinstance(asked.pattern, Loop):
        return
    found = {"length_s": advice.shortest_s, "segments": advice.segments}
    pattern = asked.pattern.model_copy(update=found)
    change = on_stretch(camera.id, asked.item, pattern=pattern)
    yield Proposal("loop_length", change, {"camera": camera.name, "seconds": advice.shortest_s})


def _offered_loop(told: ToldFinding) -> Iterator[Proposal]:
    """The loops that the camera has, the next longer one first."""
    asked, camera = told.assignment, told.camera
    if asked is None or camera is None or not isinstance(asked.pattern, Loop):
        return
    length_s = asked.pattern.length_s
    for one in sorted(camera.loops, key=lambda one: (one.length_s < length_s, one.length_s)):
        parts = {"length_s": one.length_s, "segments": one.segments}
        change = on_stretch(camera.id, asked.item, pattern=asked.pattern.model_copy(update=parts))
        yield Proposal("loop_length", change, {"camera": camera.name, "seconds": one.length_s})


def _source_chosen(told: ToldFinding) -> Iterator[Proposal]:
    if told.camera is None:
        return
    for source in told.document.kit.sources:
        change = carried_with(told.camera.id, source=source.id)
        yield Proposal("source", change, {"camera": told.camera.name, "source": source.name})


def _clock_set(told: ToldFinding) -> Iterator[Proposal]:
    camera = told.camera
    if camera is None:
        return

    def change(given: PlanDocument) -> PlanDocument:
        cameras = tuple(
            one.model_copy(update={"clock_set": True}) if one.id == camera.id else one
            for one in given.kit.cameras
        )
        return with_kit(given, cameras=cameras)

    yield Proposal("clock", change, {"camera": camera.name})


def _radio_off(told: ToldFinding) -> Iterator[Proposal]:
    if told.camera is not None:
        change = carried_with(told.camera.id, radio_left_on=False)
        yield Proposal("radio_off", change, {"camera": told.camera.name})


def _not_charging(_told: ToldFinding) -> Iterator[Proposal]:
    yield Proposal("no_charging", lambda given: with_plan(given, charging="never"))


def _warm_pocket(told: ToldFinding) -> Iterator[Proposal]:
    for family in told.document.kit.families:
        yield Proposal("warm_pocket", spares_inside(family.id), {"family": family.name})


def _filter_fitted(told: ToldFinding) -> Iterator[Proposal]:
    """The filter written into the preset that the stretch uses."""
    asked, camera = told.assignment, told.camera
    if asked is None or camera is None:
        return
    preset = next((one for one in camera.presets if one.id == asked.preset), None)
    if preset is None:
        return
    stops = preset.filter_stops + float(told.finding.values["stops"])

    def change(given: PlanDocument) -> PlanDocument:
        def fitted(one: Preset) -> Preset:
            return one.model_copy(update={"filter_stops": stops}) if one.id == preset.id else one

        cameras = tuple(
            one.model_copy(update={"presets": tuple(map(fitted, one.presets))})
            if one.id == camera.id
            else one
            for one in given.kit.cameras
        )
        return with_kit(given, cameras=cameras)

    names = {"camera": camera.name, "preset": preset.name, "stops": f"{stops:g}"}
    yield Proposal("filter", change, names)


def _other_card(told: ToldFinding) -> Iterator[Proposal]:
    camera = told.camera
    if camera is None:
        return
    fitted = {one.card for one in told.document.plan.cameras if one.card}
    mine = carried(told.document.plan, camera.id).card
    for card in told.document.kit.cards:
        if card.id != mine and card.id not in fitted:
            change = carried_with(camera.id, card=card.id)
            yield Proposal("start_with_card", change, {"camera": camera.name, "card": card.name})


def _patterns(told: ToldFinding) -> Iterator[Proposal]:
    """What wants no press there: rolled, armed, or a loop that is kept."""
    asked, camera = told.assignment, told.camera
    if asked is None or camera is None:
        return
    yield from started_by_itself(told.document, camera, asked)
    yield from kept_loops(told.document, camera, asked)


def _moment_kept(told: ToldFinding) -> Iterator[Proposal]:
    """Of each camera asked there, a roll or a loop that is kept; a longer loop; another camera."""
    item = told.document.trip.item(told.finding.item or "")
    cameras = {camera.id: camera for camera in told.document.kit.cameras}
    for asked in told.document.plan.assignments:
        if asked.item != item.id:
            continue
        camera = cameras[asked.camera]
        names = {"camera": camera.name, "leg": item.name}
        yield from kept_loops(told.document, camera, asked)
        if not isinstance(asked.pattern, Roll):
            yield Proposal("roll", on_stretch(camera.id, item.id, pattern=Roll()), names)
        if isinstance(asked.pattern, Loop):
            longest = max(m.seconds + m.reaction_s for m in item.moments)
            segments = asked.pattern.segments
            length_s = -(-longest * segments // (segments - 1)) + 1
            parts = {"length_s": max(asked.pattern.length_s, length_s), "saves_per_hour": None}
            pattern = asked.pattern.model_copy(update={**parts, "saves": None})
            change = on_stretch(camera.id, item.id, pattern=pattern)
            yield Proposal("loop_at_moments", change, {**names, "seconds": pattern.length_s})
    for other, set_up in stand_ins(told.document, item):
        yield Proposal(
            "asked_too", asked_too(item.id, other, set_up), {"camera": other.name, "leg": item.name}
        )


def _longer_stop(told: ToldFinding) -> Iterator[Proposal]:
    """The stop longer by what the work that did not fit takes."""
    item = next((one for one in told.document.trip.items if one.id == told.finding.item), None)
    if item is None or item.kind != "stop":
        return
    takes_s = told.finding.values.get("takes_s", 600)
    more_s = max(60, -(-int(takes_s) // 60) * 60)
    values: Values = {"stop": item.name, "minutes": more_s // 60}
    yield Proposal("longer_stop", longer(item.id, more_s), values)


def _copied_elsewhere(told: ToldFinding) -> Iterator[Proposal]:
    """Another drive with more room; a longer stop."""
    copy = told.document.plan.copies[told.numbers[0]]
    for drive in sorted(told.document.kit.drives, key=lambda one: -one.free_gb):
        if drive.id == copy.drive:
            continue

        def change(given: PlanDocument, key: str = drive.id) -> PlanDocument:
            there = copy.model_copy(update={"drive": key})
            return with_plan(
                given, copies=tuple(there if one == copy else one for one in given.plan.copies)
            )

        stop = told.document.trip.item(copy.item).name
        yield Proposal("copy_to", change, {"drive": drive.name, "stop": stop})
    yield from _longer_stop(told)


def _other_source(told: ToldFinding) -> Iterator[Proposal]:
    """The cameras that hang on a bank which switches itself off, on another source."""
    bank = told.document.kit.sources[told.numbers[0]]
    names = {camera.id: camera.name for camera in told.document.kit.cameras}
    for chosen in told.document.plan.cameras:
        for source in told.document.kit.sources:
            if chosen.source == bank.id and source.id != bank.id:
                change = carried_with(chosen.camera, source=source.id)
                values = {"camera": names[chosen.camera], "source": source.name}
                yield Proposal("source", change, values)


def _fitting_battery(told: ToldFinding) -> Iterator[Proposal]:
    """One of its own family in it, at the start or in that swap."""
    camera = told.camera
    if camera is None:
        return
    fits = (b for b in told.document.kit.batteries if b.family == camera.battery_family)
    for battery in islice(fits, 2):
        names = {"camera": camera.name, "battery": battery.name}
        if told.finding.path.startswith("plan.swaps"):
            swap = told.document.plan.swaps[told.numbers[0]]
            stop = told.document.trip.item(swap.item).name
            change = swapped_at(camera.id, swap.item, battery.id, swap.when)
            yield Proposal("swap_at", change, {**names, "stop": stop})
        else:
            yield Proposal("start_with", carried_with(camera.id, battery=battery.id), names)


PROPOSES: dict[str, Propose] = {
    "takes_where_no_hand": _patterns,
    "save_comes_too_late": _patterns,
    "moment_not_expected": _moment_kept,
    "hands_not_long_enough": _longer_stop,
    "no_time_to_move": not_moved,
    "copy_not_finished": _copied_elsewhere,
    "bank_switched_off": _other_source,
    "battery_of_wrong_family": _fitting_battery,
    "charge_refused_cold": _warm_pocket,
    "tether_wanted": _tethered,
    "preset_in_another_mode": _presets_mode,
    "preset_missing": _presets_mode,
    "feature_not_in_mode": _without_feature,
    "mode_missing": _known_mode,
    "mode_cannot_loop": _known_mode,
    "dark_for_frame_rate": _known_mode,
    "slower_than_delivery": _known_mode,
    "more_than_editing_takes": _known_mode,
    "not_steadied": _known_mode,
    "clip_limit_stops": _known_mode,
    "set_up_missing": known_set_up,
    "water_against_set_up": known_set_up,
    "mount_against_activity": another_camera,
    "mount_holds_shorter": another_camera,
    "mount_too_warm": another_camera,
    "mount_sees_elsewhere": angle_as_seen,
    "mount_covers_port": known_set_up,
    "too_deep": known_set_up,
    "too_long_under": known_set_up,
    "serves_poorly": another_camera,
    "loop_too_short": _longer_loop,
    "loop_not_offered": _offered_loop,
    "no_outside_source": _source_chosen,
    "clock_not_set": _clock_set,
    "radio_left_on": _radio_off,
    "unattended_charging": _not_charging,
    "cold_to_charge": _warm_pocket,
    "cold_holds_charge": _warm_pocket,
    "filter_for_half_interval": _filter_fitted,
    "card_too_large": _other_card,
    "card_too_slow": _other_card,
}
