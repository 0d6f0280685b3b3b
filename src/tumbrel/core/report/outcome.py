"""From the trip as played to the rehearsal as told (model/results#verdict)."""

from __future__ import annotations

from bisect import bisect_right
from collections import defaultdict
from dataclasses import replace
from typing import Final

from ..document import Armed, Loop, Plan, PlanDocument
from ..findings import findings_of
from ..light import SunDays, sun_heights_of_day
from ..mistakes import idle
from ..parameters import DEFAULTS, Defaults
from ..rehearsal.camera.asked_time import FilmedSpan, GapSpan
from ..rehearsal.camera.camera_run import CameraRun
from ..rehearsal.camera.causes import GAVE_OUT
from ..rehearsal.engine.played import Played, play
from ..rehearsal.result.gear_results import gear_told
from ..rehearsal.result.home import home_told
from ..rehearsal.result.lapses import lapses_told
from ..rehearsal.result.ledgers import balance, refuse
from ..rehearsal.result.minutes import notes_of, share_out, whole_minutes
from ..rehearsal.result.moments import caught_of, loop_advice
from ..rehearsal.result.pool_results import batteries_told, cards_told, sources_told
from ..rehearsal.result.reaching import reaches_told
from ..rehearsal.result.record import record_of
from ..rehearsal.result.result import (
    CameraResult,
    Copied,
    Course,
    Coverage,
    CoverageBy,
    Filmed,
    Gap,
    LaidItem,
    Light,
    Loss,
    Margins,
    Minutes,
    Rehearsal,
)
from ..rehearsal.result.risk import at_risk, largest_loss, playback_ms, singles_of
from ..rehearsal.result.stretch_results import RunRate
from ..rehearsal.trip.prepare import prepare
from ..rehearsal.trip.timeline import Timeline
from ..rounding import rounded
from ..wording.gaps import gap_words
from .hand_work import moves_of
from .least import held_back, least_left
from .verdict import verdict_of

UNTOUCHED: Final = 1.0
NOT_PLAYED: Final = ("figure_mistaken", "engine_failed")


def rehearse(
    document: PlanDocument,
    defaults: Defaults = DEFAULTS,
    sun_days: SunDays = sun_heights_of_day,
) -> Rehearsal:
    """Play the whole trip through with the kit carried, and tell what comes out.

    `sun_days` gives the sun's heights of a UTC day at a place; pass a table kept elsewhere.
    Raises BadDocument when the trip's times make no trip, LedgerBreach on a fault of the engine.
    """
    return tell(play(prepare(document, defaults, sun_days)))


def not_rehearsed(
    document: PlanDocument,
    kind: str,
    defaults: Defaults = DEFAULTS,
    sun_days: SunDays = sun_heights_of_day,
) -> Rehearsal:
    """What is told of a trip that a fault of ours, of a kind, kept from being played: it stops."""
    scene = prepare(idle(document), defaults, sun_days)
    return tell(replace(play(scene), failed=kind))


def tell(played: Played, *, strict: bool = True) -> Rehearsal:
    """What comes out of a trip that was played.

    Raises LedgerBreach on a fault of the engine; where it is not to be strict that becomes a stop,
    and what can be told is (model/results#ledgers).
    """
    defaults = played.scene.defaults
    ledgers, breaches = balance(played)
    if strict:
        refuse(breaches)
    held = [held_back(run) for run in played.cameras]
    least = least_left(played, held)
    cameras = tuple(
        _camera(played, run, hidden, defaults)
        for run, hidden in zip(played.cameras, held, strict=True)
    )
    footage_ms = sum(_playback_ms(played, run) for run in played.cameras)
    singles = singles_of(played)
    loops = loop_advice(played)
    moments = caught_of(played)
    home = home_told(played, footage_ms, moments, defaults)
    record = record_of(played, breaches)
    findings = findings_of(record, cameras, defaults, singles, loops, moments)
    if played.mistakes or played.failed:  # what else there is to say of such a trip misleads
        findings = tuple(one for one in findings if one.code in NOT_PLAYED)
    return Rehearsal(
        start_utc=played.timeline.start_utc,
        duration_ms=played.timeline.duration_ms,
        items=_items(played.timeline),
        light=tuple(
            Light(start_ms=b.start_ms, end_ms=b.end_ms, kind=b.kind) for b in played.timeline.light
        ),
        cameras=cameras,
        batteries=batteries_told(played),
        cards=cards_told(played.cards),
        sources=sources_told(played),
        moments=moments,
        loops=loops,
        lapses=lapses_told(played),
        rates=_rates(played),
        reaches=reaches_told(played),
        at_risk=at_risk(played, singles),
        copies=tuple(
            Copied(
                number=c.number,
                start_ms=c.start_ms,
                end_ms=c.end_ms,
                store=c.store,
                drive=c.drive,
                clips=c.clips,
                bytes=c.bytes,
                left_clips=c.left_clips,
            )
            for c in played.hands.copying.copied
        ),
        moves=moves_of(played),
        findings=findings,
        coverage=_coverage(played.written.plan, played.cameras),
        verdict=verdict_of(played, cameras, findings, moments, least),
        least=least,
        gear=gear_told(played),
        largest_loss=largest_loss(played, singles),
        footage_ms=footage_ms,
        looking_through_ms=home.looking_ms + home.clips_ms + home.cameras_ms,
        home=home,
        files=sum(camera.files for camera in cameras),
        ledgers=ledgers,
    )


def _items(timeline: Timeline) -> tuple[LaidItem, ...]:
    return tuple(
        LaidItem(
            id=part.id,
            name=part.name,
            kind=part.kind,
            start_ms=part.start_ms,
            end_ms=part.end_ms,
            hands_free=timeline.hands_free_within(part.start_ms, part.end_ms),
        )
        for part in timeline.laid
    )


def _camera(played: Played, run: CameraRun, held: list[float], defaults: Defaults) -> CameraResult:
    assignments = played.written.plan.assignments
    noted = notes_of(run, defaults)
    gaps = tuple(
        _gap(played, run, span, note=note) for span, note in zip(run.time.gaps, noted, strict=True)
    )
    asked_ms = sum(s.end_ms - s.start_ms for s in run.schedule.spans)
    gap_ms = sum(g.end_ms - g.start_ms for g in gaps if not g.note)
    note_ms = sum(g.end_ms - g.start_ms for g in gaps if g.note)
    watched_ms = _watched_ms(played, run)
    minutes = _minutes(asked_ms, gap_ms, note_ms, watched_ms)
    trace = run.trace
    return CameraResult(
        camera=run.camera.id,
        asked_ms=asked_ms,
        filmed_ms=sum(s.end_ms - s.start_ms for s in run.time.filmed),
        gap_ms=gap_ms,
        note_ms=note_ms,
        hottest_c=round(run.thermal.hottest_c, 2),
        stop_c=run.thermal.body.limits.stop_c,
        minutes=minutes,
        margins=_margins(run, held),
        bytes_written=run.recorder.written,
        files=run.recorder.files,
        frames=run.recorder.frames,
        kept_ms=sum(clip.end_ms - clip.start_ms for clip in run.recorder.kept if not clip.frames),
        watched_ms=watched_ms,
        course=Course(
            t_ms=tuple(trace.t_ms),
            charge=rounded(trace.charge, 4),
            body_c=rounded(trace.body_c, 1),
            cell_c=rounded(trace.cell_c, 1),
            held=rounded(held, 3),
            used_bytes=tuple(trace.used_bytes),
            state=tuple(trace.state),
        ),
        filmed=tuple(
            Filmed(
                start_ms=s.start_ms,
                end_ms=s.end_ms,
                assignment=s.assignment,
                item=assignments[s.assignment].item,
                card=s.card,
                battery=s.battery,
            )
            for s in run.time.filmed
        ),
        gaps=gaps,
        losses=_losses(run.camera.id, gaps, minutes.missing),
    )


def _minutes(asked_ms: int, gap_ms: int, note_ms: int, watched_ms: int) -> Minutes:
    asked, missing = whole_minutes(asked_ms), whole_minutes(gap_ms)
    starting = min(whole_minutes(note_ms), asked - missing)
    filmed = asked - missing - starting
    watched = min(filmed, whole_minutes(watched_ms))
    return Minutes(asked=asked, filmed=filmed, missing=missing, starting=starting, watched=watched)


def _losses(camera: str, gaps: tuple[Gap, ...], missing: int) -> tuple[Loss, ...]:
    """Counted gaps joined by leg and cause, with minutes that add up to the camera's."""
    joined: dict[tuple[str, str], list[Gap]] = defaultdict(list)
    for gap in gaps:
        if not gap.note:
            joined[gap.item, gap.cause].append(gap)
    lengths = [sum(g.end_ms - g.start_ms for g in group) for group in joined.values()]
    shares = share_out(missing, lengths)
    return tuple(
        Loss(
            camera=camera,
            item=group[0].item,
            cause=group[0].cause,
            importance=group[0].importance,
            assignment=group[0].assignment,
            start_ms=group[0].start_ms,
            end_ms=group[-1].end_ms,
            lost_ms=lost_ms,
            minutes=minutes,
            text=group[0].text,
        )
        for group, lost_ms, minutes in zip(joined.values(), lengths, shares, strict=True)
    )


def _gap(played: Played, run: CameraRun, span: GapSpan, *, note: bool) -> Gap:
    assignment = played.written.plan.assignments[span.assignment]
    name = _battery_before(played, run, span.start_ms) if span.cause in GAVE_OUT else ""
    return Gap(
        start_ms=span.start_ms,
        end_ms=span.end_ms,
        cause=span.cause,
        assignment=span.assignment,
        item=assignment.item,
        importance=assignment.importance,
        note=note,
        text=gap_words(
            span.cause,
            name,
            run.thermal.body.limits.stop_c,
            fixed_memory=run.camera.memory.kind == "fixed",
        ),
    )


def _battery_before(played: Played, run: CameraRun, at_ms: int) -> str:
    """The name of the battery that was filmed on last before a time."""
    place = bisect_right(run.time.filmed, at_ms, key=_filmed_end)
    battery = run.time.filmed[place - 1].battery if place else None
    return next((cell.name for cell in played.cells if cell.id == battery), "")


def _filmed_end(span: FilmedSpan) -> int:
    return span.end_ms


def _margins(run: CameraRun, held: list[float]) -> Margins:
    """The narrowest of charge above what the cold holds, and of heat, while on; room at the end."""
    rows = zip(run.trace.charge, held, run.trace.state, strict=True)
    left = [charge - share for charge, share, state in rows if state]
    return Margins(
        charge=round(max(0.0, min(left, default=UNTOUCHED)), 4),
        heat_k=round(run.thermal.body.limits.stop_c - run.thermal.hottest_c, 2),
        room=run.card.free if run.card is not None else 0,
    )


def _rates(played: Played) -> tuple[RunRate, ...]:
    """What each stretch draws and writes; one that is never filmed has none."""
    spans = [span for run in played.cameras for span in run.schedule.spans if span.recording]
    found = {span.assignment: span for span in spans}
    return tuple(
        RunRate(
            assignment=number,
            watts=round(found[number].need_w, 4),
            bytes_s=round(found[number].need_bytes_s, 1),
        )
        for number in sorted(found)
    )


def _playback_ms(played: Played, run: CameraRun) -> int:
    """Length of all footage that was kept, frames at their playback rate [ms]."""
    assignments = played.written.plan.assignments
    return sum(
        playback_ms(clip, assignments[clip.assignment].pattern) for clip in run.recorder.kept
    )


def _watched_ms(played: Played, run: CameraRun) -> int:
    """Filmed time that a loop overwrote or dropped [ms]."""
    assignments = played.written.plan.assignments
    looped = {n for n, one in enumerate(assignments) if isinstance(one.pattern, Loop)}
    filmed = sum(s.end_ms - s.start_ms for s in run.time.filmed if s.assignment in looped)
    kept = sum(c.end_ms - c.start_ms for c in run.recorder.kept if c.assignment in looped)
    return max(0, filmed - kept)


def _coverage(plan: Plan, cameras: list[CameraRun]) -> tuple[Coverage, ...]:
    angles = {c.camera: c.angle for c in plan.cameras}
    lets_go = {n for n, one in enumerate(plan.assignments) if isinstance(one.pattern, Loop | Armed)}
    rows: dict[tuple[CoverageBy, str], list[int]] = defaultdict(lambda: [0, 0, 0])
    for run in cameras:
        by_assignment: dict[int, list[int]] = defaultdict(lambda: [0, 0, 0])
        for filmed in run.time.filmed:
            length_ms = filmed.end_ms - filmed.start_ms
            row = by_assignment[filmed.assignment]
            row[0] += length_ms
            row[1] += length_ms
            row[2] += 0 if filmed.assignment in lets_go else length_ms
        for gap in run.time.gaps:
            by_assignment[gap.assignment][0] += gap.end_ms - gap.start_ms
        for clip in run.recorder.kept:
            if clip.assignment in lets_go:
                by_assignment[clip.assignment][2] += clip.end_ms - clip.start_ms
        for number, (asked_ms, filmed_ms, kept_ms) in by_assignment.items():
            assignment = plan.assignments[number]
            angle = assignment.angle or angles.get(run.id, "sight")
            for key in (
                ("item", assignment.item),
                ("angle", angle),
                ("importance", assignment.importance),
                ("camera", run.id),
            ):
                row = rows[key]
                row[0] += asked_ms
                row[1] += filmed_ms
                row[2] += min(filmed_ms, kept_ms)
    return tuple(
        Coverage(by=by, key=key, asked_ms=row[0], filmed_ms=row[1], kept_ms=row[2])
        for (by, key), row in rows.items()
    )
