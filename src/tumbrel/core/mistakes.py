"""Figures that only a slip of the finger makes: refused where they are typed, never played.

A body that follows its surroundings within seconds, or that stops and restarts within a breath of
warmth, would be looked at anew without end; no camera is like that.
"""

from __future__ import annotations

from dataclasses import dataclass

from .document import FieldFault, Kit, Limits, Plan, PlanDocument, SetUp
from .measures import degrees, kelvins

LEAST_LAG_S = 30.0
LEAST_APART_K = 2.0


@dataclass(frozen=True)
class Mistake:
    """A figure of the kit that cannot be meant: its path, whose it is, what it is, and why."""

    path: str
    camera: str
    figure: tuple[str, float, float]
    why: str

    @property
    def fault(self) -> FieldFault:
        """The same, as a refusal."""
        return FieldFault(self.path, self.why)

    @property
    def known_by(self) -> tuple[str, tuple[str, float, float]]:
        """What stays the same when the camera is renamed or moved."""
        return self.camera, self.figure


def _is_near(limits: Limits | None) -> bool:
    return limits is not None and limits.stop_c - limits.restart_c < LEAST_APART_K


def _is_quick(set_up: SetUp) -> bool:
    return set_up.tau_s is not None and set_up.tau_s < LEAST_LAG_S


def mistakes_of(kit: Kit) -> tuple[Mistake, ...]:
    """Every figure of a kit that only a mistake makes, in the order of the kit."""
    found = []
    for number, camera in enumerate(kit.cameras):
        where = f"kit.cameras[{number}]"
        limits = camera.limits
        if limits is not None and _is_near(limits):
            why = (
                f"{camera.name} stops at {degrees(limits.stop_c)} and restarts at "
                f"{degrees(limits.restart_c)}; write limits at least {kelvins(LEAST_APART_K)} apart"
            )
            figure = ("limits", limits.stop_c, limits.restart_c)
            found.append(Mistake(f"{where}.limits.restart_c", camera.id, figure, why))
        for place, set_up in enumerate(camera.set_ups):
            if set_up.tau_s is not None and _is_quick(set_up):
                why = (
                    f"{camera.name} warms within {set_up.tau_s:g} s in {set_up.name}; write a lag "
                    f"of at least {LEAST_LAG_S:g} s, or none"
                )
                figure = (set_up.id, set_up.tau_s, set_up.tau_s)
                found.append(Mistake(f"{where}.set_ups[{place}].tau_s", camera.id, figure, why))
    return tuple(found)


def idle(document: PlanDocument) -> PlanDocument:
    """The same kit and trip with nothing asked, and without the figures that cannot be played."""
    cameras = tuple(
        camera.model_copy(
            update={
                "limits": None if _is_near(camera.limits) else camera.limits,
                "set_ups": tuple(
                    one.model_copy(update={"tau_s": None}) if _is_quick(one) else one
                    for one in camera.set_ups
                ),
            }
        )
        for camera in document.kit.cameras
    )
    kit = document.kit.model_copy(update={"cameras": cameras})
    return document.model_copy(update={"kit": kit, "plan": Plan()})
