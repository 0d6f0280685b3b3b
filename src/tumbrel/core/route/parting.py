"""A leg parted in two, and a halt between: what the parts take over of the whole."""

from __future__ import annotations

from ..document import Leg, Plan, Stop


def parted(leg: Leg, share: float, key: str) -> tuple[Leg, Leg]:
    """A leg in two after a share of it; counted moments stay with the first part."""
    first_s = max(1, min(leg.duration_s - 1, round(leg.duration_s * share)))
    middle_c = round(leg.temp_start_c + share * (leg.temp_end_c - leg.temp_start_c), 1)
    low, high = leg.height_start_m, leg.height_end_m
    middle_m = None if low is None or high is None else low + (high - low) * share
    first = {"duration_s": first_s, "temp_end_c": middle_c, "height_end_m": middle_m}
    second = {
        "id": key,
        "name": f"{leg.name}, on"[:60],
        "not_before": None,
        "duration_s": max(1, leg.duration_s - first_s),
        "temp_start_c": middle_c,
        "height_start_m": middle_m,
        "moments": tuple(one for one in leg.moments if one.per_hour is not None),
    }
    return leg.model_copy(update=first), leg.model_copy(update=second)


def halt_after(before: Leg, key: str, name: str, duration_s: int) -> Stop:
    """A stop at the end of a leg, in its air."""
    return Stop(
        id=key,
        name=name,
        duration_s=duration_s,
        temp_start_c=before.temp_end_c,
        temp_end_c=before.temp_end_c,
        temp_doubt_k=before.temp_doubt_k,
        air_from=before.air_from,
        sky=before.sky,
        sky_doubt=before.sky_doubt,
        sun_share=before.sun_share,
        gloves=before.gloves,
        height_m=before.height_end_m,
        spot=before.spot,
    )


def asked_on_both(plan: Plan, first: str, second: str) -> Plan:
    """The plan with what is asked and used on one leg asked and used on its second part too."""
    asked = (
        one.model_copy(update={"item": second}) for one in plan.assignments if one.item == first
    )
    used = (one.model_copy(update={"item": second}) for one in plan.gear if one.item == first)
    both = {"assignments": (*plan.assignments, *asked), "gear": (*plan.gear, *used)}
    return plan.model_copy(update=both)
