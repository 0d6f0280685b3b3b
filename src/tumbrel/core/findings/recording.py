"""Patterns against modes, hands and the sky (model/patterns#asked)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date

from ..document import Armed, Camera, Interval, Leg, Loop, Takes, Windows
from ..document.patterns import Window
from ..memory import longest_clip_s
from ..patterns import frame_takes_ms
from ..rehearsal.camera.asked_time import GapSpan
from ..rehearsal.camera.causes import Cause
from ..rehearsal.trip.asked import Looping
from ..rehearsal.trip.timeline import Laid, place_of
from ..rehearsal.trip.triggers import never_comes
from ..rehearsal.trip.windows import days_of, span_of
from ..wording.units import counted, hours, kept_of, opening
from .registry import Found, Seen, Values, check


@check("mode_cannot_loop", "stop", curable=True)
def mode_cannot_loop(seen: Seen) -> Iterator[Found]:
    """A loop is asked in a mode that has none."""
    for number, assignment, camera in seen.assignments():
        mode = next((m for m in camera.modes if m.id == assignment.mode), None)
        if isinstance(assignment.pattern, Loop) and mode is not None and not mode.loops:
            values: Values = {"camera": camera.name, "mode": mode.name}
            path = f"plan.assignments[{number}].pattern"
            yield Found(path, values, camera.id, assignment.item)


@check("loop_too_short", "warn", curable=True)
def loop_too_short(seen: Seen) -> Iterator[Found]:
    """A loop that would have overwritten the start of moments before they are saved."""
    assignments = seen.record.written.plan.assignments
    for advice in seen.loops:
        if advice.length_s >= advice.shortest_s:
            continue
        assignment = assignments[advice.assignment]
        camera = seen.camera(assignment.camera)
        values: Values = {
            "camera": camera.name,
            "length_s": advice.length_s,
            "shortest_s": advice.shortest_s,
        }
        path = f"plan.assignments[{advice.assignment}].pattern.length_s"
        yield Found(path, values, camera.id, assignment.item)


@check("loop_not_offered", "warn", curable=True)
def loop_not_offered(seen: Seen) -> Iterator[Found]:
    """A loop of a length, or in segments, that the camera does not have."""
    for number, assignment, camera in seen.assignments():
        pattern = assignment.pattern
        if not isinstance(pattern, Loop) or not camera.loops:
            continue
        offered = [(one.length_s, one.segments) for one in camera.loops]
        if (pattern.length_s, pattern.segments) in offered:
            continue
        values: Values = {
            "camera": camera.name,
            "length_s": pattern.length_s,
            "segments": pattern.segments,
            "has": ", ".join(f"{length_s} s in {segments}" for length_s, segments in offered),
        }
        path = f"plan.assignments[{number}].pattern.length_s"
        yield Found(path, values, camera.id, assignment.item)


@check("frames_come_too_fast", "warn")
def frames_come_too_fast(seen: Seen) -> Iterator[Found]:
    """A frame is still exposed or written when the next one is due (model/patterns#asked)."""
    for number, assignment, camera in seen.assignments():
        pattern = assignment.pattern
        if not isinstance(pattern, Interval):
            continue
        takes_s = frame_takes_ms(pattern, 0) / 1000
        if takes_s > pattern.every_s:
            values: Values = {
                "camera": camera.name,
                "every": f"{pattern.every_s:g}",
                "takes": f"{takes_s:g}",
            }
            path = f"plan.assignments[{number}].pattern.every_s"
            yield Found(path, values, camera.id, assignment.item)


@check("save_comes_too_late", "warn", curable=True)
def save_comes_too_late(seen: Seen) -> Iterator[Found]:
    """On a leg without a free hand, a loop can only be kept by voice or remote."""
    for run in seen.record.cameras:
        for span in run.spans:
            if not isinstance(span.how, Looping) or span.how.lost_presses == 0:
                continue
            lost = span.how.lost_presses
            verb = "comes" if lost == 1 else "come"
            values: Values = {"camera": run.camera.name, "keeps": f"{counted(lost, 'keep')} {verb}"}
            path = f"plan.assignments[{span.assignment}].pattern"
            yield Found(path, values, run.camera.id, seen.item_of(span.assignment))


UNMET = {
    "voice": "a word, and it answers to none",
    "power": "power, and no source gives any there",
}


@dataclass(frozen=True)
class _Opening:
    """A window of a stretch: whether it opens there, and whether its sun does so at all."""

    number: int
    place: int
    window: Window
    camera: Camera
    part: Laid
    days: frozenset[date]
    opens: bool
    no_sun: bool


def _openings(seen: Seen) -> Iterator[_Opening]:
    trip, timeline = seen.record.written.trip, seen.record.timeline
    for number, assignment, camera in seen.assignments():
        if not isinstance(assignment.pattern, Windows):
            continue
        part = timeline.by_id[assignment.item]
        within = (part.start_ms, part.end_ms)
        where = place_of(trip, part.item)
        touching = list(days_of(trip, timeline, within))  # one that began the day before, too
        for place, window in enumerate(assignment.pattern.windows):
            spans = [span_of(window, trip, timeline, day, where) for day in touching]
            opens = any(s is not None and s[0] < within[1] and s[1] > within[0] for s in spans)
            no_sun = all(span is None for span in spans)
            days = frozenset(touching[1:])
            yield _Opening(number, place, window, camera, part, days, opens, no_sun)


def _shut(seen: Seen) -> Iterator[tuple[_Opening, bool]]:
    """Windows that open on none of their camera's legs that day, and if nothing else opens there.

    One that is given to several legs counts by the day: a sunrise on the first of them is enough.
    """
    found = list(_openings(seen))
    filmed = {one.number for one in found if one.opens}
    for one in found:
        same = [each for each in found if (each.camera, each.window) == (one.camera, one.window)]
        if not any(each.opens and each.days & one.days for each in same):
            yield one, one.number not in filmed


def _told_shut(one: _Opening) -> Found:
    values: Values = {
        "camera": one.camera.name,
        "leg": one.part.name,
        "why": "the sun does not do so there" if one.no_sun else "it lies at another hour",
    }
    path = f"plan.assignments[{one.number}].pattern.windows[{one.place}]"
    return Found(path, values, one.camera.id, one.part.id)


@check("window_never_opens", "stop")
def window_never_opens(seen: Seen) -> Iterator[Found]:
    """A stretch of which no minute can be filmed, since no window of it opens there or that day."""
    for one, alone in _shut(seen):
        if alone:
            yield _told_shut(one)


@check("window_stays_shut", "warn")
def window_stays_shut(seen: Seen) -> Iterator[Found]:
    """A window that never opens, of a stretch that is filmed in another."""
    for one, alone in _shut(seen):
        if not alone:
            yield _told_shut(one)


@check("trigger_never_comes", "stop")
def trigger_never_comes(seen: Seen) -> Iterator[Found]:
    """An armed camera waits for a word that it does not hear, or for power that nothing gives."""
    record = seen.record
    for number, assignment, camera in seen.assignments():
        pattern = assignment.pattern
        part = record.timeline.by_id[assignment.item]
        if isinstance(pattern, Armed) and never_comes(
            pattern, camera, record.written, part, record.timeline, seen.defaults
        ):
            why = UNMET[pattern.trigger]
            values: Values = {"camera": camera.name, "leg": part.name, "why": why}
            yield Found(f"plan.assignments[{number}].pattern.trigger", values, camera.id, part.id)


@check("loop_larger_than_card", "warn")
def loop_larger_than_card(seen: Seen) -> Iterator[Found]:
    """A loop for which the card has less room: it overwrites sooner (model/patterns#asked)."""
    for run in seen.record.cameras:
        told: set[int] = set()
        for _, number, holds_ms in run.shortened:
            pattern = seen.record.written.plan.assignments[number].pattern
            if number in told or not isinstance(pattern, Loop):
                continue
            told.add(number)
            values: Values = {
                "camera": run.camera.name,
                "length_s": pattern.length_s,
                "holds": hours(max(1, holds_ms // 60_000)),
            }
            path = f"plan.assignments[{number}].pattern.length_s"
            yield Found(path, values, run.camera.id, seen.item_of(number))


@check("takes_where_no_hand", "warn", curable=True)
def takes_where_no_hand(seen: Seen) -> Iterator[Found]:
    """Takes want a press each, on a leg on which no hand is ever free."""
    for number, assignment, camera in seen.assignments():
        item = seen.record.timeline.by_id[assignment.item].item
        never = isinstance(item, Leg) and item.hands == "never"
        by_itself = camera.starts_itself or camera.answers_to
        if isinstance(assignment.pattern, Takes) and never and not by_itself and item:
            values: Values = {"camera": camera.name, "leg": item.name}
            path = f"plan.assignments[{number}].pattern"
            yield Found(path, values, camera.id, assignment.item)


@check("moment_not_expected", "warn", curable=True)
def moment_not_expected(seen: Seen) -> Iterator[Found]:
    """A must moment that nobody is asked to film, or that what is kept would hardly hold.

    Source: model/results#verdict.
    """
    for caught in seen.moments:
        if caught.importance != "must" or not caught.missed:
            continue
        part = seen.record.timeline.by_id[caught.item]
        values: Values = {
            "moment": opening(caught.moment),
            "leg": part.name,
            "kept": kept_of(caught.whole, caught.count),
        }
        yield Found(f"trip.items[{seen.item_number(caught.item)}].moments", values, None, part.id)


@check("clip_limit_stops", "warn", curable=True)
def clip_limit_stops(seen: Seen) -> Iterator[Found]:
    """A clip limit ends the recording and nobody is there to start it again.

    Source: model/memory#clips.
    """
    for run in seen.record.cameras:
        gap = next((g for g in run.gaps if g.cause is Cause.CLIP_LIMIT and _long(seen, g)), None)
        if gap is None:
            continue
        assignment = seen.record.written.plan.assignments[gap.assignment]
        mode = next(m for m in run.camera.modes if m.id == assignment.mode)
        set_up = run.camera.built(assignment.set_up)
        frames = isinstance(assignment.pattern, Interval)
        values: Values = {
            "camera": run.camera.name,
            "mode": mode.name,
            "minutes": round((longest_clip_s(mode, set_up, frames=frames) or 0) / 60),
        }
        path = f"plan.assignments[{gap.assignment}].mode"
        yield Found(path, values, run.camera.id, assignment.item)


def _long(seen: Seen, gap: GapSpan) -> bool:
    """Whether a gap is too long for a note."""
    return gap.end_ms - gap.start_ms > seen.defaults.note_gap_s.value * 1000
