"""Small documents for tests: every figure that a test leans on is said in the test itself."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from tumbrel.core.document import PlanDocument
from tumbrel.core.rehearsal.engine.played import Played, play
from tumbrel.core.rehearsal.result.result import CameraResult, Rehearsal
from tumbrel.core.rehearsal.trip.prepare import prepare
from tumbrel.core.report import rehearse

Part = dict[str, Any]
SLAB = {"kind": "bank", "id": "slab", "name": "Slab", "mah": 10_000}


def mode(name: str = "m", watts: float = 4.0, mbps: float = 60.0, **more: Any) -> Part:
    """A mode in watts that never grows warm unless told to."""
    return {
        "id": name,
        "name": name.upper(),
        "width_px": 3840,
        "height_px": 2160,
        "fps": 30,
        "video_mbps": mbps,
        "draw": {"kind": "watts", "watts": watts},
        "rise_k": 0.0,
        **more,
    }


def set_up(name: str = "bare", **more: Any) -> Part:
    """A set-up with the default times of hands."""
    return {"id": name, "name": name, **more}


def camera(name: str = "cam", **more: Any) -> Part:
    """A 70 g camera with a card slot that boots at once."""
    return {
        "id": name,
        "name": name.capitalize(),
        "battery_family": "a",
        "memory": {"kind": "slot", "largest_gb": 1024},
        "boot_s": 0,
        "set_ups": [set_up()],
        "modes": [mode()],
        **more,
    }


def battery(name: str = "a1", **more: Any) -> Part:
    """A labelled battery of family A."""
    return {"id": name, "name": name.upper(), "family": "a", **more}


def card(name: str = "k1", gb: int = 512, **more: Any) -> Part:
    """A labelled card, large and fast."""
    return {"id": name, "name": name.upper(), "gb": gb, "speed_class": "V90", **more}


def leg(name: str, seconds: int, **more: Any) -> Part:
    """A leg with hands free at stops only, 25 degC, still air."""
    still = {"temp_start_c": 25.0, "temp_end_c": 25.0}
    return {"kind": "leg", "id": name, "name": name, "duration_s": seconds, **still, **more}


def stop(name: str, seconds: int, **more: Any) -> Part:
    """A stop at 25 degC."""
    warm = {"temp_start_c": 25.0, "temp_end_c": 25.0}
    return {"kind": "stop", "id": name, "name": name, "duration_s": seconds, **warm, **more}


def asks(camera_id: str, item: str, **more: Any) -> Part:
    """Roll mode "m" in set-up "bare"."""
    return {"camera": camera_id, "item": item, "mode": "m", "set_up": "bare", **more}


def must(item: str = "way", **more: Any) -> Part:
    """The camera "cam", a must there."""
    return asks("cam", item, importance="must", **more)


def takes(seconds: int, **more: Any) -> Part:
    """A takes pattern."""
    return {"kind": "takes", "seconds": seconds, **more}


FAMILY: Part = {"id": "a", "name": "A", "mah": 1500, "nominal_v": 3.8}


def raw(
    items: Sequence[Part],
    assignments: Sequence[Part],
    cameras: Sequence[Part] | None = None,
    batteries: Sequence[Part] | None = None,
    cards: Sequence[Part] | None = None,
    trip: Part | None = None,
    plan: Part | None = None,
    family: Part | None = None,
) -> Part:
    """A document as loaded from JSON; one camera, battery and card unless told otherwise."""
    return {
        "tumbrel": 5,
        "kit": {
            "families": [family or FAMILY],
            "cameras": list(cameras if cameras is not None else [camera()]),
            "batteries": list(batteries if batteries is not None else [battery()]),
            "cards": list(cards if cards is not None else [card()]),
        },
        "trip": {
            "name": "Trial",
            "start": "2027-06-12T06:00:00",
            "items": list(items),
            **(trip or {}),
        },
        "plan": {"assignments": list(assignments), **(plan or {})},
    }


def document(*parts: Any, **more: Any) -> PlanDocument:
    """The same, validated."""
    return PlanDocument.model_validate(raw(*parts, **more))


def played(document: PlanDocument) -> Played:
    """A document played from its start."""
    return play(prepare(document))


def rehearsed(*parts: Any, **more: Any) -> Rehearsal:
    """The same, rehearsed."""
    return rehearse(document(*parts, **more))


def told_of(made: Part, **kit: Any) -> Rehearsal:
    """A document as loaded from JSON rehearsed, with more in its kit."""
    made["kit"] |= kit
    return rehearse(PlanDocument.model_validate(made))


def only(told: Rehearsal) -> CameraResult:
    """The result of the only camera."""
    (one,) = told.cameras
    return one


def gaps(result: CameraResult) -> list[tuple[str, int, int]]:
    """Cause, start and end [ms] of every gap."""
    return [(str(gap.cause), gap.start_ms, gap.end_ms) for gap in result.gaps]


def codes(told: Rehearsal) -> set[str]:
    """Codes of all findings."""
    return {finding.code for finding in told.findings}
