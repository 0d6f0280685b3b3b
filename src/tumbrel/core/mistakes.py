"""Figures that only a slip of the finger makes: refused where they are typed, never played.

A body that follows its surroundings within seconds, or that stops and restarts within a breath of
warmth, would be looked at anew without end; no camera is like that.
"""

from __future__ import annotations

from dataclasses import dataclass

from .document import FieldFault, Kit, Limits, Plan, PlanDocument

LEAST_LAG_S = 30.0
LEAST_APART_K = 2.0


@dataclass(frozen=True)
class Mistake:
    """A figure of the kit that cannot be meant: its path, whose it is, and why."""

    path: str
    camera: str
    why: str

    @property
    def fault(self) -> FieldFault:
        """The same, as a refusal."""
        return FieldFault(self.path, self.why)


def mistakes_of(kit: Kit) -> tuple[Mistake, ...]:
    """Every figure of a kit that only a mistake makes, in the order of the kit."""
    found = []
    for number, camera in enumerate(kit.cameras):
        where = f"kit.cameras[{number}]"
        limits = camera.limits
        if limits is not None and limits.stop_c - limits.restart_c < LEAST_APART_K:
            why = (
                f"{camera.name} stops at {limits.stop_c:g} °C and restarts at "
                f"{limits.restart_c:g} °C; write limits at least {LEAST_APART_K:g} K apart"
            )
            found.append(Mistake(f"{where}.limits.restart_c", camera.id, why))
        for place, set_up in enumerate(camera.set_ups):
            if set_up.tau_s is not None and set_up.tau_s < LEAST_LAG_S:
                why = (
                    f"{camera.name} warms within {set_up.tau_s:g} s in {set_up.name}; write a lag "
                    f"of at least {LEAST_LAG_S:g} s, or none"
                )
                found.append(Mistake(f"{where}.set_ups[{place}].tau_s", camera.id, why))
    return tuple(found)


def idle(document: PlanDocument) -> PlanDocument:
    """The same kit and trip with nothing asked, and with figures that can be played."""
    cameras = []
    for camera in document.kit.cameras:
        limits = camera.limits
        if limits is not None and limits.stop_c - limits.restart_c < LEAST_APART_K:
            limits = Limits(stop_c=limits.stop_c, restart_c=limits.stop_c - LEAST_APART_K)
        set_ups = tuple(
            one.model_copy(
                update={"tau_s": None if (one.tau_s or 0.0) < LEAST_LAG_S else one.tau_s}
            )
            for one in camera.set_ups
        )
        cameras.append(camera.model_copy(update={"limits": limits, "set_ups": set_ups}))
    kit = document.kit.model_copy(update={"cameras": tuple(cameras)})
    return document.model_copy(update={"kit": kit, "plan": Plan()})
