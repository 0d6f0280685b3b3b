"""Loop, windows, interval, armed and copies: bytes and times worked by hand.

Source: model/memory#rate, model/patterns#asked, model/results#moments.
"""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any
from zoneinfo import ZoneInfo

import pytest
from astral import LocationInfo
from astral.sun import dawn, sunrise, sunset

from tests.build import asks, camera, leg, mode, raw, set_up, stop
from tumbrel.core.document import PlanDocument, SunEdge
from tumbrel.core.patterns import shortest_loop_s
from tumbrel.core.rehearsal.engine.played import Played, play
from tumbrel.core.rehearsal.trip.prepare import prepare
from tumbrel.core.rehearsal.trip.timeline import lay_out
from tumbrel.core.rehearsal.trip.windows import edge_ms
from tumbrel.core.report import rehearse

HOUR = 3600
RATE = 7_599_240  # (60 + 0.192) Mbit/s / 8 x 1.01
DRIVE = {"id": "d", "name": "Drive", "free_gb": 500, "write_mb_s": 100, "link_mb_s": 30}


def document(items: list[Any], pattern: Any, **more: Any) -> PlanDocument:
    kit = more.pop("kit", {})
    loaded = raw(items, [asks("cam", "way", pattern=pattern)], **more)
    loaded["kit"].update(kit)
    return PlanDocument.model_validate(loaded)


def played(items: list[Any], pattern: Any, **more: Any) -> Played:
    return play(prepare(document(items, pattern, **more)))


def test_a_loop_keeps_what_is_on_the_card_when_saved() -> None:
    """Five segments of 60 s; saved at 500 s and at 1500 s: 4 x 60 + 20 s, then 4 x 60 + 37 s.

    The second loop begins 3 s after the first save and has run 997 s = 16 x 60 + 37.
    """
    run = played([leg("way", 2000)], {"kind": "loop", "length_s": 300, "saves": 2}).cameras[0]
    assert [(k.start_ms, k.end_ms) for k in run.recorder.kept] == [
        (240_000, 500_000),
        (1_223_000, 1_500_000),
    ]
    assert [k.bytes for k in run.recorder.kept] == [RATE * 260, RATE * 277]
    assert [(g.cause, g.end_ms - g.start_ms) for g in run.time.gaps] == [("save", 3000)] * 2
    assert run.card is not None
    assert run.card.used == RATE * (260 + 277)
    assert run.recorder.written == RATE * (500 + 997 + 497)
    assert run.card.overwritten == run.recorder.written - run.card.used


def test_a_loop_larger_than_its_card_holds_what_that_holds_and_never_stops() -> None:
    """An hour of loop is 27 GB; the card holds 16 x 0.985 GB, 2,073 s of it in five segments.

    Kept after 5,000 s it holds four whole ones and what of the fifth has run: 414 s each.
    """
    small = [{"id": "k1", "name": "K1", "gb": 16, "speed_class": "V90"}]
    loop = {"kind": "loop", "length_s": HOUR, "saves": 1}
    light = [camera(modes=[mode(watts=1.0)])]
    run = played([leg("way", 10_000)], loop, cameras=light, cards=small).cameras[0]
    assert [g.cause for g in run.time.gaps if g.cause != "save"] == []
    holds_ms = 15_760_000_000 * 1000 // 7_599_240
    first = run.recorder.kept[0]
    assert 0.8 * holds_ms <= first.end_ms - first.start_ms <= holds_ms
    assert run.recorder.shortened[0][2] == pytest.approx(holds_ms, rel=1e-4)


def test_a_card_with_no_room_for_a_second_of_each_segment_is_full() -> None:
    full = [{"id": "k1", "name": "K1", "gb": 16, "used_bytes": 15_740_000_000}]
    run = played([leg("way", 600)], {"kind": "loop", "length_s": HOUR}, cards=full).cameras[0]
    assert [g.cause for g in run.time.gaps] == ["card_full"]


@pytest.mark.parametrize(("length", "whole"), [(60, 0), (63, 2), (120, 2)])
def test_a_moment_is_whole_when_it_and_the_wait_fit_the_loop(length: int, whole: int) -> None:
    """40 s answered after 10 s: 50 <= length - length/5 from 62.5 s on (model/patterns#asked)."""
    moments = [{"name": "wave", "count": 2, "seconds": 40, "reaction_s": 10}]
    items = [leg("way", 3000, moments=moments)]
    told = rehearse(document(items, {"kind": "loop", "length_s": length}))
    (caught,) = told.moments
    assert (caught.count, caught.of_s) == (2, 80.0)
    assert caught.whole == whole or caught.caught_s >= 80.0 - 4 * (63 - length)
    assert told.loops[0].shortest_s == 63


def test_the_shortest_loop_for_95_in_100() -> None:
    """19 of 20 wait 50 s: the one that waits 500 s may be lost. 50 x 5/4 = 62.5."""
    assert shortest_loop_s([(50.0, 19), (500.0, 1)], 5) == 63
    assert shortest_loop_s([(50.0, 18), (500.0, 2)], 5) == 625
    assert shortest_loop_s([], 5) is None


def test_schools_are_compared_by_caught_seconds() -> None:
    """Roll catches all, a take beside them nothing, all on the same leg."""
    moments = [{"name": "wave", "count": 4, "seconds": 10}]
    items = [leg("way", 4000, moments=moments)]

    def caught(pattern: Any) -> float:
        return rehearse(document(items, pattern)).moments[0].caught_s

    assert caught({"kind": "roll"}) == 40.0
    assert caught({"kind": "takes", "seconds": 20, "count": 1}) == 0.0
    assert caught({"kind": "armed", "count": 4, "seconds": 10, "pre_record_s": 0}) == 40.0


@pytest.mark.parametrize(
    ("every", "frames", "watts"),
    [(2, 500, 4.0), (20, 50, 4.0 * 5 / 20), (100, 10, 4.0 * (1 + 9 * 5) / 1000)],
)
def test_frames_and_what_they_drink(every: float, frames: int, watts: float) -> None:
    """1000 s with 4 s to boot and a second a frame: always on, at mean power, or frame by frame."""
    one = camera(boot_s=4, starts_itself=True)
    pattern = {"kind": "interval", "every_s": every, "frame_mb": 5.0}
    items = [stop("s", 60), leg("way", 1000)]
    run = played(items, pattern, cameras=[one]).cameras[0]
    assert run.recorder.frames == frames
    assert run.recorder.written == frames * 5_000_000
    boot_wh = 4.0 * 4 / 3600
    assert run.energy.used_wh == pytest.approx(watts * 1000 / 3600 + boot_wh, abs=3e-3)


def test_frames_become_video_at_their_playback() -> None:
    """A frame a second for 1000 s at 25 a second: 40 s of playback in one video."""
    told = rehearse(document([leg("way", 1000)], {"kind": "interval", "every_s": 1}))
    assert told.footage_ms == 40_000
    assert told.files == 1
    stills = {"kind": "interval", "every_s": 1, "frame_mb": 6}
    assert rehearse(document([leg("way", 1000)], stills)).files == 1000


def test_a_long_time_lapse_video_is_cut_into_chapters_and_by_the_longest_clip() -> None:
    """1000 frames of 303,970 B are 304 MB: four chapters of 0.1 GB; runs of 400 s are three.

    A mode's longest clip of 400 s is none of frames.
    """
    pattern = {"kind": "interval", "every_s": 1}
    cut = camera(chapter_gb=0.1)
    told = rehearse(document([leg("way", 1000)], pattern, cameras=[cut]))
    assert (told.cameras[0].bytes_written, told.files) == (303_970_000, 4)
    for one, files in ((set_up(lapse_limit_s=400), 3), (set_up(clip_limit_s=400), 1)):
        limited = camera(modes=[mode(clip_limit_s=400)], set_ups=[one])
        told = rehearse(document([leg("way", 1000)], pattern, cameras=[limited]))
        assert told.files == files


def test_an_interval_ends_at_the_longest_clip_where_nothing_restarts_it() -> None:
    """On at 0, off at 400 s, and no hand is free: 600 s are missing."""
    one = camera(set_ups=[set_up(lapse_limit_s=400)], continues_after_clip=False)
    pattern = {"kind": "interval", "every_s": 1, "frame_mb": 6}
    run = played([leg("way", 1000)], pattern, cameras=[one]).cameras[0]
    assert [(str(g.cause), g.start_ms, g.end_ms) for g in run.time.gaps] == [
        ("clip_limit", 400_000, 1_000_000)
    ]


def test_an_armed_camera_waits_and_writes_clips_with_what_came_before() -> None:
    """Two clips of 10 + 30 s in 1000 s; to keep what came before it draws as when recording."""
    one = camera(armed_w=0.4)
    pattern = {"kind": "armed", "count": 2, "seconds": 30, "pre_record_s": 10}
    run = played([leg("way", 1000)], pattern, cameras=[one]).cameras[0]
    assert [(k.start_ms, k.end_ms) for k in run.recorder.kept] == [
        (240_000, 280_000),
        (740_000, 780_000),
    ]
    assert run.energy.used_wh == pytest.approx(1000 * 4.0 / 3600)
    waits = {"kind": "armed", "count": 2, "seconds": 40}
    run = played([leg("way", 1000)], waits, cameras=[one]).cameras[0]
    assert run.energy.used_wh == pytest.approx((80 * 4.0 + 920 * 0.4) / 3600)
    assert sum(s.end_ms - s.start_ms for s in run.time.filmed) == 1_000_000


def test_clips_of_an_armed_camera_that_overlap_are_one() -> None:
    pattern = {"kind": "armed", "count": 10, "seconds": 120}
    run = played([leg("way", 1000)], pattern).cameras[0]
    assert len(run.recorder.kept) == 1


def clock(opens: str, closes: str) -> Any:
    edges = {
        name: {"kind": "clock", "at": at} for name, at in (("opens", opens), ("closes", closes))
    }
    return {"kind": "windows", "windows": [edges]}


@pytest.mark.parametrize(
    ("opens", "closes", "spans"),
    [
        ("07:00", "08:30", [(1, 2.5)]),
        ("05:00", "06:30", [(0, 0.5), (23, 24)]),
        ("23:00", "01:00", [(17, 19)]),
        ("12:00", "12:00", [(0, 24)]),
    ],
)
def test_windows_of_the_clock(opens: str, closes: str, spans: list[tuple[float, float]]) -> None:
    """A day from 06:00; a window over midnight is one, equal edges are the whole day."""
    asked = played([leg("way", 24 * HOUR)], clock(opens, closes)).cameras[0].schedule.spans
    got = [(span.start_ms / 3.6e6, span.end_ms / 3.6e6) for span in asked]
    assert got == spans


def test_a_window_over_the_change_of_the_clock_is_an_hour_shorter() -> None:
    """On 28 March 2027 the clocks of this zone go from 02:00 to 03:00: 01:00 to 04:00 is 2 h."""
    trip = {"start": "2027-03-28T00:00:00", "time_zone": "Europe/Berlin"}
    asked = played([leg("way", 10 * HOUR)], clock("01:00", "04:00"), trip=trip).cameras[0]
    (span,) = asked.schedule.spans
    assert span.end_ms - span.start_ms == 2 * HOUR * 1000


@pytest.mark.parametrize("latitude", [-54.0, -33.0, 0.0, 44.0, 57.0])
@pytest.mark.parametrize("day", [date(2027, 3, 20), date(2027, 6, 12), date(2027, 12, 21)])
def test_sunrise_and_sunset_against_another_library(latitude: float, day: date) -> None:
    """Within a minute of astral, in both hemispheres."""
    place = {"latitude": latitude, "longitude": 12.0, "height_m": 0.0}
    trip = {"start": f"{day}T00:00:00", "place": place, "time_zone": "Etc/GMT-1"}
    laid = document([leg("way", 24 * HOUR)], {"kind": "roll"}, trip=trip).trip
    timeline = lay_out(laid)
    there = LocationInfo("", "", "UTC", latitude, 12.0).observer
    zone = ZoneInfo("Etc/GMT-1")
    for event, known in (("sunrise", sunrise), ("sunset", sunset), ("dawn", dawn)):
        at_ms = edge_ms(SunEdge(event=event), laid, timeline, day, laid.place)  # type: ignore[arg-type]
        assert at_ms is not None
        expected = known(there, date=day, tzinfo=zone)
        found = timeline.start_utc + timedelta(milliseconds=at_ms)
        assert abs((found - expected).total_seconds()) < 60


@pytest.mark.parametrize(("event", "day"), [("sunset", "2027-06-12"), ("sunrise", "2027-12-21")])
def test_above_the_polar_circle_there_may_be_no_such_sun(event: str, day: str) -> None:
    place = {"latitude": 75.0, "longitude": 12.0}
    trip = {"start": f"{day}T00:00:00", "place": place}
    laid = document([leg("way", 24 * HOUR)], {"kind": "roll"}, trip=trip).trip
    edge = SunEdge.model_validate({"event": event})
    assert edge_ms(edge, laid, lay_out(laid), date.fromisoformat(day), laid.place) is None


# -- copies ---------------------------------------------------------------------------


def copied(seconds: int = 2 * HOUR, wipe: str = "no", drives: int = 1, **more: Any) -> Played:
    """Fixed memory of 64 GB filmed for 1000 s, then emptied at a stop."""
    one = camera(memory={"kind": "fixed", "gb": 64, "read_mb_s": 40}, standby_w=0.5)
    items = [leg("way", 1000), stop("s", seconds), leg("on", 600)]
    copies = [{"item": "s", "camera": "cam", "drive": f"d{n}", "wipe": wipe} for n in range(drives)]
    kit = {"drives": [DRIVE | {"id": f"d{n}"} | more for n in range(drives)]}
    plan = {"copies": copies}
    return played(items, {"kind": "roll"}, cameras=[one], cards=[], kit=kit, plan=plan)


def test_emptying_takes_its_time_and_its_charge() -> None:
    """7.599 GB over a link of 30 MB/s: 253.3 s, on standby at 0.5 W."""
    result = copied()
    (job,) = result.hands.copying.copied
    assert (job.end_ms - job.start_ms) / 1000 == pytest.approx(RATE * 1000 / 30e6, abs=0.1)
    assert (job.clips, job.bytes, job.why_left) == (1, RATE * 1000, "")
    assert [d.kind for d in result.hands.done] == ["copy", "copy_end"]
    copying = (job.end_ms - job.start_ms) / 3.6e6 + 15 / 3600
    assert result.cameras[0].energy.used_wh == pytest.approx(
        4.0 * 1000 / 3600 + 0.5 * copying, abs=1e-3
    )
    assert result.cards[-1].used == RATE * 1000


def test_an_interrupted_copy_keeps_whole_files_only() -> None:
    """120 s of stop are too short for 253 s: the one clip does not count."""
    (job,) = copied(seconds=120).hands.copying.copied
    assert (job.clips, job.why_left, job.left_clips) == (0, "cut_short", 1)


@pytest.mark.parametrize(
    ("wipe", "drives", "left"),
    [("with_two_copies", 1, 1), ("with_two_copies", 2, 0), ("anyway", 1, 0), ("no", 2, 1)],
)
def test_wiping_wants_two_copies_elsewhere(wipe: str, drives: int, left: int) -> None:
    result = copied(wipe=wipe, drives=drives)
    assert result.cards[-1].used == left * RATE * 1000
    assert result.cards[-1].wiped == (1 - left) * RATE * 1000


def test_what_is_at_risk_by_the_hour() -> None:
    """1000 s in one place from the end of the leg until they are copied, then in two."""
    one = camera(memory={"kind": "fixed", "gb": 64, "read_mb_s": 40})
    items = [leg("way", 1000), leg("on", 3 * HOUR), stop("s", 2 * HOUR)]
    plan = {"copies": [{"item": "s", "camera": "cam", "drive": "d"}]}
    more: Any = {"cameras": [one], "cards": [], "kit": {"drives": [DRIVE]}, "plan": plan}
    told = rehearse(document(items, {"kind": "roll"}, **more))
    (row,) = told.at_risk
    assert row.place == "cam:memory"
    assert list(row.by_hour_ms) == [0, 1_000_000, 1_000_000, 1_000_000, 0, 0]
    assert told.largest_loss is not None
    assert told.largest_loss.filmed_ms == 1_000_000


def test_a_mode_that_fills_memory_can_go_on_after_it_was_emptied() -> None:
    """8 GB hold 1036.9 s; emptied and wiped at the stop, the second leg fits as well."""
    one = camera(memory={"kind": "fixed", "gb": 8}, modes=[mode(mbps=60.0)])
    items = [leg("way", 900), stop("s", HOUR), leg("on", 900)]
    asked = [asks("cam", "way"), asks("cam", "on")]

    def gaps(wipe: str) -> int:
        plan = {"copies": [{"item": "s", "camera": "cam", "drive": "d", "wipe": wipe}]}
        loaded = raw(items, asked, cameras=[one], cards=[], plan=plan)
        loaded["kit"]["drives"] = [DRIVE]
        return len(play(prepare(PlanDocument.model_validate(loaded))).cameras[0].time.gaps)

    assert (gaps("no"), gaps("anyway")) == (1, 0)
