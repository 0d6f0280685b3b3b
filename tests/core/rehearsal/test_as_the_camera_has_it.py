"""Clips, loops, frames and copies as cameras have them; figures reckoned by hand."""

from __future__ import annotations

from typing import Any

import pytest

from tests.build import asks, camera, gaps, leg, mode, only, played, raw, rehearsed, set_up, stop
from tumbrel.core.document import PlanDocument

Doc = dict[str, Any]
HOUR = 3600
RATE = 1_000_000  # 7.92 Mbit/s and no sound, with a hundredth for the container, a proxy of nothing
PLAIN = mode(mbps=8.0 / 1.01, audio_mbps=0.0)


def filmed(pattern: Doc | None = None, seconds: int = HOUR, **more: Any) -> Any:
    """One leg on one camera of a million bytes a second."""
    asked = [asks("cam", "way", **({"pattern": pattern} if pattern else {}))]
    return rehearsed([leg("way", seconds)], asked, [camera(modes=[PLAIN], **more)])


@pytest.mark.parametrize(
    ("by_mode", "by_set_up", "clips"), [(None, None, 1), (1200, None, 3), (1200, 900, 4)]
)
def test_the_longest_clip_is_the_shorter_of_mode_and_set_up(
    by_mode: int | None, by_set_up: int | None, clips: int
) -> None:
    """An hour in clips of 20 min is three, in clips of 15 min four; booting takes no time here."""
    told = filmed_with(by_mode, by_set_up)
    assert only(told).files == clips


def filmed_with(by_mode: int | None, by_set_up: int | None) -> Any:
    """An hour, with longest clips."""
    one = camera(
        modes=[{**PLAIN, "clip_limit_s": by_mode}], set_ups=[set_up(clip_limit_s=by_set_up)]
    )
    return rehearsed([leg("way", HOUR)], [asks("cam", "way")], [one])


def test_a_run_of_frames_has_a_longest_of_its_own_and_waits_for_a_hand() -> None:
    """Frames for 50 min at most; the camera does not go on by itself, and no hand is free."""
    one = camera(
        modes=[PLAIN],
        set_ups=[set_up(lapse_limit_s=3000, clip_limit_s=600)],
        continues_after_clip=False,
    )
    pattern = {"kind": "interval", "every_s": 10, "frame_mb": 5}
    told = rehearsed([leg("way", HOUR)], [asks("cam", "way", pattern=pattern)], [one])
    assert gaps(only(told)) == [("clip_limit", 3_000_000, 3_600_000)]
    assert only(told).frames == 300


def test_chapters_are_cut_by_minutes_or_by_size_whichever_is_smaller() -> None:
    """An hour at 1 MB/s is 3.6 GB: 6 files of 10 min, 4 of 1 GB, 6 where both are said."""
    assert only(filmed(chapter_min=10)).files == 6
    assert only(filmed(chapter_gb=1)).files == 4
    assert only(filmed(chapter_min=10, chapter_gb=1)).files == 6


def test_a_loop_that_is_kept_is_a_file_a_segment() -> None:
    """Five minutes in five segments: as the 31st minute begins, the last four are there."""
    pattern = {"kind": "loop", "length_s": 300, "segments": 5, "saves": 1}
    (kept,) = played(document_of(pattern)).cameras[0].recorder.kept
    assert (kept.end_ms - kept.start_ms, kept.files) == (240_000, 4)


def document_of(pattern: Doc) -> PlanDocument:
    """An hour of a pattern."""
    asked = [asks("cam", "way", pattern=pattern)]
    return PlanDocument.model_validate(raw([leg("way", HOUR)], asked, [camera(modes=[PLAIN])]))


def test_frames_tell_film_bytes_files_and_how_fast_they_run() -> None:
    """A frame every 10 s for an hour: 360, at 24 a second 15 s of film, 240 times as fast."""
    pattern = {"kind": "interval", "every_s": 10, "frame_mb": 5, "playback_fps": 24}
    (told,) = filmed(pattern).lapses
    assert (told.asked, told.frames, told.files) == (360, 360, 360)
    assert told.film_s == pytest.approx(15.0)
    assert told.bytes == 360 * 5_000_000
    assert told.times_as_fast == pytest.approx(240.0)
    (video,) = filmed({**pattern, "frame_mb": None}).lapses
    assert video.files == 1


def test_long_exposures_keep_the_camera_on_for_longer() -> None:
    """Boot 4 s, exposure 20 s, writing 3 s of every 60 s at 4 W: 27/60 h is 1.8 W h an hour.

    Without either it is one second, 5/60: 0.333 W h.
    """
    pattern = {"kind": "interval", "every_s": 60, "frame_mb": 5}
    long = filmed({**pattern, "exposure_s": 20, "writing_s": 3}, boot_s=4)
    short = filmed(pattern, boot_s=4)
    assert long.ledgers.energy_used_wh == pytest.approx(4.0 * 27 / 60, rel=0.02)
    assert short.ledgers.energy_used_wh == pytest.approx(4.0 * 5 / 60, rel=0.05)


def test_the_shortest_loop_that_the_camera_has_is_advised() -> None:
    """d + r = 100 s: in fifths 125 s are reckoned; of 60, 180 and 300 s the camera's 180 suffice.

    180 s in 60 s segments holds 120 s at least; in one of 90 s only 90.
    """
    moment = {"name": "launch", "count": 3, "seconds": 90, "reaction_s": 10}
    asked = [asks("cam", "way", pattern={"kind": "loop", "length_s": 60})]

    def advice(offered: list[tuple[int, int]]) -> tuple[int, int]:
        loops = [{"length_s": length, "segment_s": segment} for length, segment in offered]
        items = [leg("way", HOUR, moments=[moment])]
        (told,) = rehearsed(items, asked, [camera(modes=[PLAIN], loops=loops)]).loops
        return told.shortest_s, told.segments

    assert advice([]) == (125, 5)
    assert advice([(300, 60), (60, 12), (180, 60)]) == (180, 3)
    assert advice([(60, 12), (180, 90), (300, 60)]) == (300, 5)
    assert advice([(60, 12)]) == (125, 5)


@pytest.mark.parametrize(
    ("hands", "trigger", "starts"),
    [
        ("stops", "press", [605, 1805, 3005]),
        ("stops", "voice", [605, 1805, 3005]),
        ("never", "voice", [605, 1805, 3005]),
        ("never", "press", []),
        ("stops", "motion", [1800]),
    ],
)
def test_a_word_or_a_press_follows_the_moments_and_motion_does_not(
    hands: str, trigger: str, starts: list[int]
) -> None:
    """Three moments in an hour begin at 10, 30 and 50 min; 5 s later somebody calls."""
    moment = {"name": "gust", "count": 3, "seconds": 20, "reaction_s": 5}
    pattern = {"kind": "armed", "seconds": 60, "count": 1, "trigger": trigger}
    items = [leg("way", HOUR, hands=hands, moments=[moment])]
    hears = {"starts_itself": True, "answers_to": ["voice"]}
    document = PlanDocument.model_validate(
        raw(items, [asks("cam", "way", pattern=pattern)], [camera(**hears)])
    )
    kept = played(document).cameras[0].recorder.kept
    assert [one.start_ms // 1000 for one in kept] == starts


def copied(**more: Any) -> Any:
    """Ten minutes at 1.2 MB/s, a fifth of it in small files, copied to a phone."""
    one = camera(modes=[{**PLAIN, "proxy_share": 0.2}])
    document = raw(
        [leg("way", 600), stop("camp", HOUR)],
        [asks("cam", "way")],
        [one],
        plan={"copies": [{"item": "camp", "camera": "cam", "drive": "p", **more}]},
    )
    phone = {"id": "p", "name": "P", "free_gb": 100, "link_mb_s": 30, "radio_mb_s": 4}
    document["kit"]["drives"] = [phone]
    (done,) = played(PlanDocument.model_validate(document)).hands.copying.copied
    return done


def test_a_radio_is_slower_than_a_cable_and_small_files_may_stay() -> None:
    """720 MB take 24 s over 30 MB/s, 180 s over 4 MB/s; without the side files 600 MB, 150 s."""
    cable, radio = copied(), copied(by="radio")
    bare = copied(by="radio", side_files=False)
    assert [one.bytes for one in (cable, radio, bare)] == [720_000_000, 720_000_000, 600_000_000]
    lasted = [round((one.end_ms - one.start_ms) / 1000) for one in (cable, radio, bare)]
    assert lasted == [24, 180, 150]


def test_work_at_home_by_the_persons_own_figures() -> None:
    """Two takes of 5 min: 10 min x 2 + 2 clips x 3 min + 1 camera x 15 min = 41 min.

    With marks: one moment of 60 s, whole or in part caught, and what is left around it.
    """
    pattern = {"kind": "takes", "count": 2, "seconds": 300}
    home = {"hours_per_hour": 2, "clip_min": 3, "camera_min": 15}
    moment = {"name": "gust", "count": 1, "seconds": 60}
    told = rehearsed(
        [leg("way", HOUR, moments=[moment])],
        [asks("cam", "way", pattern=pattern)],
        plan={"home": home},
    )
    assert told.home.looking_ms == 20 * 60_000
    assert told.looking_through_ms == 41 * 60_000
    rolled = rehearsed(
        [leg("way", HOUR, moments=[moment])],
        [asks("cam", "way")],
        plan={"home": {**home, "marks": True, "lead_s": 5, "tail_s": 10}},
    )
    assert rolled.home.searched_ms == 75_000
    assert rolled.looking_through_ms == 150_000 + 3 * 60_000 + 15 * 60_000


@pytest.mark.parametrize(
    ("hands", "mount", "after"),
    [
        ("free", "other", 12.0),
        ("stops", "chest", 12.0),
        ("stops", "other", None),
        ("never", "chest", None),
    ],
)
def test_what_a_camera_catches_of_the_unasked_by_its_reach(
    hands: str, mount: str, after: float | None
) -> None:
    """A fox for 40 s, noticed after 5, reached in 7: the last 28 s; nothing where hands cannot."""
    moment = {"name": "fox", "count": 1, "seconds": 40, "reaction_s": 5}
    told = rehearsed(
        [leg("way", HOUR, hands=hands, moments=[moment])],
        [],
        [camera(mounts=[{"mount": mount, "reach_s": 7}])],
        plan={"cameras": [{"camera": "cam", "mount": mount}]},
    )
    rows = [(one.after_s, one.caught_s, one.of_s) for one in told.reaches]
    assert rows == ([] if after is None else [(after, 28.0, 40.0)])
