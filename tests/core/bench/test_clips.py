"""Clips joined into recordings and measured; spoiled files told and skipped."""

from __future__ import annotations

import json
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any

import pytest

from tests.build import camera, mode
from tests.conftest import DEMO
from tests.reference.clips import spoiled_card
from tumbrel.core.bench.clips import Clip, ClipsQuestion, SkippedFile, joined, tell_clips
from tumbrel.core.cli import main
from tumbrel.core.document import Camera
from tumbrel.core.formats.media import read_folder

CAM = Camera.model_validate(
    camera(
        modes=[
            mode(mbps=60.0),
            mode("low", mbps=40.0),
            mode("fast", mbps=100.0, fps=60),
            mode("tall", width_px=1080, height_px=1920),
        ]
    )
)
START = datetime.fromisoformat("2027-06-12T09:00:00+00:00")


def clip(name: str, seconds: float = 600.0, at_s: float | None = None, **more: Any) -> Clip:
    """Ten minutes of mode "m" at 60 Mbit/s unless told otherwise."""
    told = {
        "name": name,
        "bytes": int(seconds * 60e6 / 8.0),
        "duration_s": seconds,
        "width_px": 3840,
        "height_px": 2160,
        "fps": 29.97,
        "started_at": None if at_s is None else START + timedelta(seconds=at_s),
    }
    return Clip.model_validate({**told, **more})


def names(*clips: Clip) -> list[list[str]]:
    return [[one.name for one in chapters] for chapters in joined(clips)]


def test_chapters_go_on_where_the_one_before_stopped() -> None:
    parts = [clip("C", at_s=1201.0), clip("A", at_s=0.0), clip("B", at_s=600.0)]
    assert names(*parts) == [["A", "B", "C"]]
    assert names(clip("A", at_s=0.0), clip("B", at_s=604.0)) == [["A"], ["B"]]


@pytest.mark.parametrize("other", [{"fps": 59.94}, {"width_px": 1920, "height_px": 1080}])
def test_another_picture_is_another_recording(other: dict[str, Any]) -> None:
    assert names(clip("A", at_s=0.0), clip("B", at_s=600.0, **other)) == [["A"], ["B"]]


def test_without_start_times_a_full_chapter_goes_on_in_the_next_number() -> None:
    full, last = clip("P1-0042.MP4"), clip("P2-0042.MP4", 100.0)
    assert names(last, full) == [["P1-0042.MP4", "P2-0042.MP4"]]
    short = clip("R0001.MP4", 100.0)
    assert names(short, clip("R0002.MP4"), clip("R0004.MP4")) == [
        ["R0001.MP4"],
        ["R0002.MP4"],
        ["R0004.MP4"],
    ]


def test_chapters_that_all_bear_the_start_of_the_recording_are_joined_by_number() -> None:
    assert names(clip("A_1", at_s=0.0), clip("A_2", at_s=0.0)) == [["A_1", "A_2"]]


def test_rates_are_all_bytes_over_all_time() -> None:
    """600 s at 60 and 300 s at 30 Mbit/s: (36 + 9) / 0.9 = 50 Mbit/s over 15 minutes."""
    half = clip("B", 300.0, 2000.0, bytes=int(300 * 30e6 / 8))
    told = tell_clips(ClipsQuestion(camera=CAM, clips=(clip("A", at_s=0.0), half)))
    rates = {one.mode: one for one in told.rates}
    assert [one.mode for one in told.recordings] == ["m", "low"]
    assert (rates["m"].mbps, rates["low"].mbps) == (pytest.approx(60.0), pytest.approx(30.0))
    both = tell_clips(
        ClipsQuestion(
            camera=CAM.model_copy(update={"modes": CAM.modes[:1]}),
            clips=(clip("A", at_s=0.0), half),
        )
    )
    (rate,) = both.rates
    assert (rate.mbps, rate.minutes, rate.recordings) == (pytest.approx(50.0), 15.0, 2)
    assert (rate.longest_min, rate.assumed_mbps) == (10.0, pytest.approx(60.192))


def test_a_mode_is_known_by_picture_and_rate_whichever_way_it_is_held() -> None:
    turned = clip("A", width_px=1920, height_px=1080)
    assert tell_clips(ClipsQuestion(camera=CAM, clips=(turned,))).recordings[0].mode == "tall"
    strange = clip("A", fps=120.0)
    assert tell_clips(ClipsQuestion(camera=CAM, clips=(strange,))).recordings[0].mode is None


def test_clips_without_bytes_length_or_picture_are_told_and_skipped() -> None:
    bad = (clip("a", bytes=0), clip("b", 0.0, bytes=9), clip("c", width_px=0))
    before = SkippedFile(name="z.txt", why="is no video")
    told = tell_clips(ClipsQuestion(camera=CAM, clips=bad, skipped=(before,)))
    assert (told.recordings, told.rates) == ((), ())
    assert [one.name for one in told.skipped] == ["a", "b", "c", "z.txt"]
    assert "no bytes" in told.skipped[0].why


@pytest.fixture(scope="module")
def card(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A card with three recordings and five files that are none."""
    folder = tmp_path_factory.mktemp("card")
    spoiled_card(folder)
    return folder


def test_a_spoiled_card_is_read_as_far_as_it_goes(card: Path) -> None:
    clips, skipped = read_folder(card)
    assert {one.name: round(one.duration_s, 1) for one in clips} == {
        "CH0001_1.mp4": 2.0,
        "CH0001_2.mp4": 2.0,
        "CH0001_3.mp4": 2.0,
        "CH0002_1.mp4": 3.0,
        "CH0003_1.mp4": 1.0,
    }
    assert {(one.width_px, one.height_px, one.fps) for one in clips} == {
        (320, 180, 30.0),
        (192, 108, 60.0),
    }
    assert clips[0].started_at == datetime.fromisoformat("2026-06-12T09:00:00+00:00")
    assert clips[0].bytes == (card / "CH0001_1.mp4").stat().st_size
    why = {one.name: one.why for one in skipped}
    assert why.pop("late.mp4").startswith("is damaged or cut off")
    assert why == {
        "early.mp4": "is cut off: it ends before its index says",
        "nothing.mp4": "has no bytes: it was never written",
        "notes.txt": "is no video",
        "voice.mp4": "holds no picture",
    }
    assert [len(one) for one in joined(clips)] == [3, 1, 1]


def test_the_command_line_tells_a_card(
    card: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    out = tmp_path / "told.json"
    assert main(["clips", str(card), str(DEMO), "Chin", "--json", str(out)]) == 1
    said = capsys.readouterr().out
    assert "3 recordings of Chin." in said
    assert "CH0001_1.mp4: 0.1 min" in said
    assert "3 chapters" in said
    assert "skipped: nothing.mp4 has no bytes" in said
    assert len(json.loads(out.read_text("utf-8"))["recordings"]) == 3


@pytest.mark.parametrize(
    ("words", "why"),
    [
        (["nowhere", str(DEMO), "chin"], "nowhere: is no folder"),
        ([".", str(DEMO), "nobody"], "camera 'nobody' is not in the kit; it has chin, boom"),
        ([".", "no-such.json", "chin"], "no-such.json: No such file"),
    ],
)
def test_the_command_line_says_what_is_wrong(
    words: list[str], why: str, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["clips", *words]) == 2
    assert why in capsys.readouterr().err


SPOILED: list[dict[str, Any]] = [
    {"duration_s": 1e9},
    {"fps": 1e6},
    {"bytes": -1},
    {"started_at": "2026-13-45T99:99:99Z"},
    {"name": "x" * 500},
]


@pytest.mark.parametrize("spoiled", SPOILED)
def test_one_clip_that_says_what_cannot_be_does_not_stop_the_card(spoiled: dict[str, Any]) -> None:
    size = {"width_px": 3840, "height_px": 2160, "fps": 30.0}
    good = {"name": "a.mp4", "bytes": 10**9, "duration_s": 60.0, **size}
    bad = {**good, "name": "b.mp4", **spoiled}
    long = {"name": "y" * 900, "why": "z" * 900}
    asked = {"camera": camera(), "clips": [good, bad], "skipped": [long]}
    told = tell_clips(ClipsQuestion.model_validate(asked))
    assert [one.names for one in told.recordings] == [("a.mp4",)]
    assert len(told.skipped) == 2
    assert any("says of itself what cannot be" in one.why for one in told.skipped)
