"""What is kept, and what may be called green: plans on which the core once was wrong."""

from __future__ import annotations

from typing import Any

import pytest

from tests.build import asks, camera, codes, leg, raw, rehearsed, set_up, stop, takes, told_of
from tests.core.test_right_answers import HOUR, Doc
from tumbrel.core.rehearsal.result.result import Rehearsal


def with_moment(pattern: Doc, importance: str = "must", **more: Any) -> Rehearsal:
    """A leg of an hour with three moments of a minute."""
    moment = {"name": "gust", "count": 3, "seconds": 60, "importance": importance}
    way = leg("way", HOUR, moments=[moment], **more)
    asked = [asks("cam", "way", pattern=pattern, importance="must")]
    return rehearsed([stop("camp", 600), way], asked)


def test_a_loop_that_keeps_nothing_is_no_green() -> None:
    """Nobody presses: everything is watched, nothing is kept, and three moments are missed."""
    told = with_moment({"kind": "loop", "length_s": 300}, hands="never")
    assert told.cameras[0].gap_ms == 0
    assert not told.verdict.covered
    assert told.verdict.headline == "One must is broken."
    assert "Gust on way is not expected to be kept: 0 of 3." in told.verdict.detail
    assert "moment_not_expected" in codes(told)


def test_of_moments_that_are_kept_in_part_it_is_said_how_often() -> None:
    """Three takes of ten minutes hold the starts of 3 x 9 of 59 min: 1.4 of 3 are expected."""
    told = with_moment(takes(600, count=3))
    assert "Gust on way is not expected to be kept every time: 1.4 of 3." in told.verdict.detail
    text = next(one.text for one in told.findings if one.code == "moment_not_expected")
    assert text.startswith("Gust on way is not expected to be kept every time: 1.4 of 3 whole.")


def test_a_loop_that_is_kept_at_moments_holds_them() -> None:
    told = with_moment({"kind": "loop", "length_s": 300})
    assert told.verdict.covered
    assert [(m.count, m.whole) for m in told.verdict.moments] == [(3, 3.0)]


@pytest.mark.parametrize(
    ("pattern", "share"),
    [
        ({"kind": "roll"}, 1.0),
        (takes(600, count=3), 3 * 540 / 3540),  # each holds the starts of all but its last minute
        (takes(60, count=3), 0.0),
        ({"kind": "armed", "count": 2, "seconds": 1000, "trigger": "motion"}, 1780 / 3540),
        ({"kind": "interval", "every_s": 10, "frame_mb": 6}, 0.0),
    ],
)
def test_moments_are_counted_where_footage_follows_them_and_else_expected(
    pattern: Doc, share: float
) -> None:
    told = with_moment(pattern)
    (caught,) = told.moments
    assert caught.whole == pytest.approx(3 * share, abs=1e-3)
    assert caught.missed == (0 if share >= 0.5 else 3)
    assert told.verdict.covered is (share >= 0.5)
    assert with_moment(pattern, "want").verdict.covered


def test_a_must_moment_that_nobody_films_breaks_a_must() -> None:
    moment = {"name": "launch", "count": 1, "seconds": 20, "importance": "must"}
    items = [leg("way", HOUR), leg("alone", HOUR, moments=[moment])]
    told = rehearsed(items, [asks("cam", "way")])
    assert told.verdict.minutes.missing == 0
    assert told.verdict.broken_musts == 1
    assert not told.verdict.covered


def test_what_stops_is_never_green_and_its_minutes_are_not_trusted() -> None:
    items = [leg("dry", HOUR), leg("wet", 600, wet="under")]
    told = rehearsed(items, [asks("cam", "dry"), asks("cam", "wet")])
    assert (told.verdict.covered, told.verdict.stops) == (False, 1)
    assert told.verdict.headline == "It is filmed, but not all of it can be trusted."
    assert told.verdict.trusted_ms == HOUR * 1000
    assert told.verdict.filmed_ms == told.verdict.trusted_ms + 600_000
    musts = [asks("cam", "dry"), asks("cam", "wet", importance="must")]
    assert rehearsed(items, musts).verdict.headline == "One must is broken."
    unset = rehearsed(items[:1], [asks("cam", "dry")], [camera(clock_set=False)])
    assert unset.verdict.trusted_ms == 0


def test_copies_that_do_not_fit_are_counted_and_weighed() -> None:
    """Ten clips of a minute at 7,599,375 B/s (455.96 MB) on a drive of 2 GB: four land, six do
    not, 2.74 GB for which 0.18 are free, and only what has a copy is wiped."""
    drive = {"id": "d", "name": "Phone", "free_gb": 2.0}
    items = [leg("way", HOUR), stop("s", HOUR)]
    plan = {"copies": [{"item": "s", "camera": "cam", "drive": "d", "wipe": "anyway"}]}
    document = raw(items, [asks("cam", "way", pattern=takes(60, count=10))], plan=plan)
    told = told_of(document, drives=[drive])
    texts = {finding.code: finding.text for finding in told.findings}
    left = "6 clips do not reach Phone: 2.6 GB of room are missing on it."
    assert texts["copy_not_finished"] == left
    wiped, stay = (
        "4 clips wiped with one copy elsewhere",
        "6 clips not wiped, with no copy elsewhere",
    )
    assert texts["wiped_with_one_copy"] == f"{wiped}; {stay}."
    assert told.ledgers.bytes_wiped * 6 == (told.ledgers.bytes_end) * 4


def test_a_source_is_told_to_the_trips_end() -> None:
    """The camera is put on it at 600 s, a minute before the end: the course goes on to the end."""
    bank = {"kind": "bank", "id": "x", "name": "X", "mah": 9000}
    rig = camera(set_ups=[set_up(power="outside_only")])
    document = raw([stop("camp", 600), leg("way", 60)], [asks("cam", "way")], [rig],
                   plan={"cameras": [{"camera": "cam", "source": "x"}]})  # fmt: skip
    (source,) = told_of(document, sources=[bank]).sources
    assert source.bank is not None
    assert source.bank.t_ms[-1] == 660_000
    assert source.bank.charge[-1] < 1.0
