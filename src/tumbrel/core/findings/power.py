"""Cold, charging, sources and reserves (model/cold#reach, model/charging#cell)."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final

from ..document import Bank, Stop
from ..energy import nominal_wh
from ..rehearsal.camera.causes import Cause
from ..rehearsal.stock.batteries import CHARGER_MARK
from ..rehearsal.stock.stays import stays_within
from ..wording.units import clock, counted
from .registry import Found, Seen, Values, check

CABIN_WH: Final = 100.0
ASK_WH: Final = 160.0
WORTH_WH: Final = 0.2


@check("cold_holds_charge", "warn", curable=True)
def cold_holds_charge(seen: Seen) -> Iterator[Found]:
    """A battery gives out in the cold with charge left that it would give when warm.

    Source: model/cold#reach.
    """
    for run in seen.record.cameras:
        cold = next((gap for gap in run.gaps if gap.cause is Cause.COLD), None)
        if cold is None:
            continue
        place = max(n for n, at_ms in enumerate(run.trace.t_ms) if at_ms <= cold.start_ms)
        item = seen.item_of(cold.assignment)
        values: Values = {
            "camera": run.camera.name,
            "left": round(run.trace.charge[place] * 100),
            "cell_c": round(run.trace.cell_c[place]),
            "free": _what_frees(seen, run.camera.battery_family),
        }
        yield Found(f"plan.assignments[{cold.assignment}]", values, run.camera.id, item)


def _what_frees(seen: Seen, family: str) -> str:
    """What frees charge from the cold: no warmer pocket where all lie in the warmest."""
    kit = seen.record.written.kit
    warmth = {pocket.id: pocket.warmth for pocket in kit.pockets}
    mine = [one for one in kit.batteries if one.family == family]
    if all(warmth.get(one.pocket or "") == "inside" for one in mine):
        return "A case over it, or a swap just before leaving the warm, frees some."
    return "A warmer pocket before, or a case over it, frees some."


@check("charge_refused_cold", "warn", curable=True, harm=True)
def charge_refused_cold(seen: Seen) -> Iterator[Found]:
    """A cell on a charger or port is below freezing and takes no charge.

    Source: model/charging#refusal.
    """
    yield from _refused(seen, "cold")


@check("charge_refused_hot", "warn")
def charge_refused_hot(seen: Seen) -> Iterator[Found]:
    """A cell or its camera is too hot to charge (model/charging#refusal, model/heat#limits)."""
    yield from _refused(seen, "hot")
    yield from _refused(seen, "body")


def _refused(seen: Seen, why: str) -> Iterator[Found]:
    trip, start = seen.record.written.trip, seen.record.timeline.start_utc
    events = [(e.at_ms, e.unit) for e in seen.record.switched if e.what == f"refused_{why}"]
    for run in seen.record.cameras:
        events += [(at_ms, unit) for at_ms, unit, said in run.refusals if said == why]
    told: set[str] = set()
    for at_ms, unit in sorted(events):
        number = seen.battery_number(unit)
        if unit in told or number is None:
            continue
        told.add(unit)
        battery = seen.record.written.kit.batteries[number]
        values: Values = {"battery": battery.name, "when": clock(trip, start, at_ms)}
        item = seen.record.timeline.laid_at(at_ms).id
        yield Found(f"kit.batteries[{number}]", values, None, item)


@check("cold_to_charge", "warn", curable=True, harm=True)
def cold_to_charge(seen: Seen) -> Iterator[Found]:
    """At a stop with power, a low spare is below freezing: it must be warmed before.

    Source: model/charging#refusal.
    """
    record = seen.record
    if not record.written.kit.chargers or record.written.plan.charging == "never":
        return
    refuse_c = seen.defaults.refuse_cold_c.value
    for part in record.timeline.laid:
        item = part.item
        if not isinstance(item, Stop) or item.socket is None:
            continue
        for number, cell in enumerate(record.batteries):
            cell_c = cell.home_climate.settled(part.end_ms - 1)
            if cell_c > refuse_c:
                continue
            here = stays_within(cell.stays, part.start_ms, part.end_ms)
            lies = [s for s in here if s.place == cell.home]
            if len(lies) != len(here) or not lies:
                continue
            if lies[-1].level_to < seen.defaults.chargeable_below.value:
                values: Values = {
                    "battery": cell.name,
                    "stop": part.name,
                    "cell_c": round(cell_c),
                }
                yield Found(f"kit.batteries[{number}].pocket", values, None, part.id)


@check("unattended_charging", "warn", curable=True, harm=True)
def unattended_charging(seen: Seen) -> Iterator[Found]:
    """Something charges in the hours asleep."""
    record = seen.record
    for part in record.timeline.laid:
        item = part.item
        if not isinstance(item, Stop) or item.asleep is None:
            continue
        from_ms = part.start_ms + item.asleep.start_s * 1000
        to_ms = from_ms + item.asleep.duration_s * 1000
        charging = [
            cell.name
            for cell in record.batteries
            if any(
                CHARGER_MARK in stay.place and stay.level_to > stay.level_from + 0.01
                for stay in stays_within(cell.stays, from_ms, to_ms)
            )
        ]
        if charging:
            index = seen.item_number(part.id)
            verb = "charges" if len(charging) == 1 else "charge"
            told = f"{counted(len(charging), 'battery', 'batteries')} {verb}"
            values: Values = {"stop": part.name, "batteries": told}
            yield Found(f"trip.items[{index}].asleep", values, None, part.id)


@check("reserve_touched", "warn")
def reserve_touched(seen: Seen) -> Iterator[Found]:
    """Other loads eat into a bank's emergency reserve (model/charging#reserve)."""
    trip, start = seen.record.written.trip, seen.record.timeline.start_utc
    for bank in seen.record.banks:
        if bank.reserve_touched_ms is None:
            continue
        when = clock(trip, start, bank.reserve_touched_ms)
        values: Values = {"bank": bank.name, "when": when}
        yield Found(f"kit.sources[{seen.source_number(bank.id)}].reserve_wh", values)


@check("bank_switched_off", "warn", curable=True)
def bank_switched_off(seen: Seen) -> Iterator[Found]:
    """A bank with a camera on it switches itself off under low load (model/charging#bank)."""
    trip, start = seen.record.written.trip, seen.record.timeline.start_utc
    told: set[str] = set()
    for event in seen.record.switched:
        if event.what != "switched_off_camera" or event.unit in told:
            continue
        told.add(event.unit)
        number = seen.source_number(event.unit)
        name = seen.record.written.kit.sources[number].name
        values: Values = {"bank": name, "when": clock(trip, start, event.at_ms)}
        item = seen.record.timeline.laid_at(event.at_ms).id
        yield Found(f"kit.sources[{number}]", values, None, item)


@check("no_outside_source", "stop", curable=True)
def no_outside_source(seen: Seen) -> Iterator[Found]:
    """A set-up on outside power, and the plan names no source for the camera."""
    plan = seen.record.written.plan
    sources = {chosen.camera: chosen.source for chosen in plan.cameras}
    for number, assignment, camera in seen.assignments():
        set_up = camera.built(assignment.set_up)
        if set_up is None or set_up.power == "battery" or sources.get(camera.id) is not None:
            continue
        values: Values = {"camera": camera.name, "set_up": set_up.name}
        path = f"plan.assignments[{number}].set_up"
        yield Found(path, values, camera.id, assignment.item)


@check("full_by_missed", "warn")
def full_by_missed(seen: Seen) -> Iterator[Found]:
    """A battery or bank that must be full at a time is not."""
    for number, wanted in enumerate(seen.record.written.plan.full_by):
        at_ms = seen.at_ms(wanted.at)
        rows = [
            (cell.name, list(cell.rows)) for cell in seen.record.batteries if cell.id == wanted.unit
        ] + [(bank.name, list(bank.rows)) for bank in seen.record.banks if bank.id == wanted.unit]
        for name, course in rows:
            before = [row for row in course if row[0] <= at_ms]
            charge = before[-1][1] if before else course[0][1]
            if charge < seen.defaults.chargeable_below.value:
                values: Values = {"unit": name, "charge": round(charge * 100)}
                yield Found(f"plan.full_by[{number}]", values)


@check("air_carriage", "note")
def air_carriage(seen: Seen) -> Iterator[Found]:
    """Cells of over 100 W h want the carrier's consent, over 160 they are refused by most."""
    document = seen.record.written
    if not document.plan.by_air:
        return
    families = {f.id: f for f in document.kit.families}
    units = [
        (
            f"kit.batteries[{n}]",
            b.name,
            nominal_wh(families[b.family].mah, families[b.family].nominal_v),
        )
        for n, b in enumerate(document.kit.batteries)
    ] + [
        (f"kit.sources[{n}]", s.name, nominal_wh(s.mah, seen.defaults.bank_v.value))
        for n, s in enumerate(document.kit.sources)
        if isinstance(s, Bank)
    ]
    units += [(f"kit.gear[{n}]", g.name, g.wh) for n, g in enumerate(document.kit.gear)]
    for path, name, wh in units:
        if wh > CABIN_WH:
            limit = ASK_WH if wh > ASK_WH else CABIN_WH
            yield Found(path, {"unit": name, "wh": round(wh), "limit": round(limit)})


@check("radio_left_on", "note", curable=True)
def radio_left_on(seen: Seen) -> Iterator[Found]:
    """A radio left on costs a camera charge while it is off."""
    plans = {c.camera: n for n, c in enumerate(seen.record.written.plan.cameras)}
    for run in seen.record.cameras:
        if run.off_w <= 0.0 or run.camera.id not in plans:
            continue
        spans = zip(run.trace.t_ms, run.trace.t_ms[1:], run.trace.state[1:], strict=False)
        off_h = sum(end - start for start, end, state in spans if state == 0) / 3_600_000
        wh = run.off_w * off_h
        if wh >= WORTH_WH:
            values: Values = {"camera": run.camera.name, "wh": round(wh, 1)}
            path = f"plan.cameras[{plans[run.camera.id]}].radio_left_on"
            yield Found(path, values, run.camera.id)


@check("hot_housing", "note")
def hot_housing(seen: Seen) -> Iterator[Found]:
    """A body that grows hot enough to hurt skin."""
    for number, run in enumerate(seen.record.cameras):
        if run.hottest_c >= 60.0:
            values: Values = {"camera": run.camera.name, "body_c": round(run.hottest_c)}
            yield Found(f"kit.cameras[{number}]", values, run.camera.id)
