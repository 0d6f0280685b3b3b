"""Stretches in which a camera's set-up runs on outside power.

Source: model/energy#set-up, model/charging#through.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from ...document import Camera, Mount, PlanDocument
from ...serving import carried, mount_and_angle
from ...shared import Shared
from .asked import Asked, Worn
from .timeline import Laid, Timeline


@dataclass(frozen=True, slots=True)
class OutsidePower(Shared):
    """A stretch in which a camera's set-up runs on a source: what it draws [W], battery out.

    Only while it is built so: `worn` is where its legs and stops want it.
    """

    start_ms: int
    end_ms: int
    camera: int
    source: str
    draw_w: float
    battery_out: bool
    worn: tuple[Worn, ...]


def outside_power_of(
    document: PlanDocument, timeline: Timeline, asked: Iterable[Sequence[Asked]], standby_w: float
) -> tuple[OutsidePower, ...]:
    """Legs and stops on outside power in order of time; those that touch are one.

    A module feeds what it rides on at rest too (model/charging#chains). `asked` is what each camera
    is asked, in the kit's order; `standby_w` what one draws that has no figure of its own [W].
    """
    sources = {c.camera: c.source for c in document.plan.cameras}
    by_item = {(a.camera, a.item): a for a in reversed(document.plan.assignments)}
    modules = {one.id for one in document.kit.sources if one.kind == "module"}
    found: list[OutsidePower] = []
    for index, (camera, spans) in enumerate(zip(document.kit.cameras, asked, strict=True)):
        source = sources.get(camera.id)
        if source is None:
            continue
        own_w = standby_w if camera.standby_w is None else camera.standby_w
        angles = carried(document.plan, camera.id)
        own: list[OutsidePower] = []
        by_part: list[tuple[Laid, bool | None]] = []
        for part in timeline.laid:
            assignment = by_item.get((camera.id, part.id))
            if assignment is None:
                by_part.append((part, None))
                continue
            worn = Worn(assignment.set_up, mount_and_angle(angles, assignment)[0])
            if _blocked(camera, worn.mount):
                by_part.append((part, False))
                continue
            one = _outside(camera, index, worn, spans, part, source, own_w)
            by_part.append((part, one is not None))
            if one is None:
                continue
            last = own[-1] if own else None
            touches = last is not None and last.end_ms >= one.start_ms
            if last is not None and touches and last.battery_out == one.battery_out:
                most_w = max(last.draw_w, one.draw_w)
                either = tuple(dict.fromkeys((*last.worn, *one.worn)))
                own[-1] = replace(last, end_ms=one.end_ms, draw_w=most_w, worn=either)
            else:
                own.append(one)
        if source in modules:
            own += _riding(own, by_part)
        found += own
    return tuple(sorted(found, key=lambda one: (one.start_ms, one.camera)))


def _riding(own: list[OutsidePower], by_part: list[tuple[Laid, bool | None]]) -> list[OutsidePower]:
    """Where nothing is asked of a camera that sits on its module: before the first, and after.

    `by_part` says of each leg and stop whether it is on its module there; None: nothing is asked.
    """
    first = next((on for _, on in by_part if on is not None), None)
    found: list[OutsidePower] = []
    sits = first is True
    for part, on in by_part:
        sits = sits if on is None else on
        if on is not None or not sits:
            continue
        start_ms = max([part.start_ms, *(o.end_ms for o in own if o.start_ms < part.start_ms)])
        end_ms = min([part.end_ms, *(o.start_ms for o in own if o.start_ms >= part.start_ms)])
        if start_ms < end_ms:
            like = next((o for o in reversed(own) if o.start_ms < part.start_ms), own[0])
            rest = replace(like, start_ms=start_ms, end_ms=end_ms, draw_w=0.0, battery_out=False)
            found.append(rest)
    return found


def _outside(
    camera: Camera,
    index: int,
    worn: Worn,
    asked: Sequence[Asked],
    part: Laid,
    source: str,
    standby_w: float,
) -> OutsidePower | None:
    """What a leg or stop wants on outside power, a boot too; from when it can begin to boot."""
    set_up = camera.built(worn.set_up)
    if set_up is None or set_up.power == "battery":
        return None
    spans = [s for s in asked if part.start_ms <= s.start_ms < part.end_ms]
    recordings = [span.recording for span in spans if span.recording is not None]
    draws = [max(one.draw_w, one.boot_w) for one in recordings]
    first = spans[0].prepare_ms if spans and spans[0].prepare_ms is not None else None
    early_ms = part.start_ms if first is None else min(first, part.start_ms)
    draw_w = max(draws, default=standby_w)
    out = set_up.power == "outside_only"
    return OutsidePower(early_ms, part.end_ms, index, source, draw_w, out, (worn,))


def _blocked(camera: Camera, mount: Mount) -> bool:
    """Whether its port cannot be reached on a mount, so that nothing feeds it there."""
    known = camera.mounted(mount)
    return known is not None and "port" in known.covers
