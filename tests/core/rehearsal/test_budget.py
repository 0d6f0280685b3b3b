"""Nothing is played without end: counted before, stopped in the midst, or not begun at all."""

from __future__ import annotations

import pytest

from tests.build import asks, battery, camera, card, document, leg, mode, only, set_up, stop, takes
from tumbrel.core.document import BadDocument
from tumbrel.core.mistakes import idle, mistakes_of
from tumbrel.core.rehearsal.engine import budget
from tumbrel.core.rehearsal.engine.budget import Budget, TooMuch
from tumbrel.core.rehearsal.engine.checkpoints import play_from
from tumbrel.core.rehearsal.engine.played import play
from tumbrel.core.rehearsal.trip.prepare import prepare
from tumbrel.core.report import rehearse

DAY_S = 86_400


def month(*cameras: str, **more: object) -> list[dict[str, object]]:
    return [asks(name, f"d{day}", **more) for name in cameras for day in range(30)]


DAYS = [leg(f"d{day}", DAY_S) for day in range(30)]
LARGE = {"id": "a", "name": "A", "mah": 200_000, "nominal_v": 3.8}


def test_clips_of_a_second_over_a_month_are_counted_before() -> None:
    asked = document(DAYS, month("cam"), cameras=[camera(modes=[mode(clip_limit_s=1)])])
    with pytest.raises(BadDocument, match="86400 of 2592000 takes and clips") as refused:
        play(prepare(asked))
    assert refused.value.faults[0].path == "plan.assignments[0]"


def test_what_asks_for_most_is_named() -> None:
    items = [leg(f"l{n}", 7200) for n in range(24)]
    counts = [100, 2000, *[1900] * 22]
    asked = [asks("cam", f"l{n}", pattern=takes(1, count=counts[n])) for n in range(24)]
    with pytest.raises(BadDocument) as refused:
        play(prepare(document(items, asked)))
    assert refused.value.faults[0].path == "plan.assignments[1]"


def test_a_frame_a_minute_on_eight_cameras_over_a_month_is_played() -> None:
    names = [f"c{number}" for number in range(8)]
    frames = {"kind": "interval", "every_s": 60, "frame_mb": 2.0}
    told = rehearse(
        document(
            DAYS,
            month(*names, pattern=frames),
            cameras=[camera(name, boot_s=3, modes=[mode(watts=0.05, mbps=1.0)]) for name in names],
            batteries=[battery(f"a{number}") for number in range(8)],
            cards=[card(f"k{number}") for number in range(8)],
            family=LARGE,
        )
    )
    assert [one.frames for one in told.cameras] == [30 * 24 * 60] * 8


@pytest.mark.plain("a budget of its own is laid into the module")
def test_events_are_counted_and_the_day_is_told(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(budget, "MOST_EVENTS", 200)
    cool = camera(modes=[mode(clip_limit_s=60)])
    items = [leg(f"l{n}", 3600) for n in range(48)]
    asked = document(items, [asks("cam", f"l{n}") for n in range(48)], cameras=[cool], family=LARGE)
    with pytest.raises(TooMuch, match=r"plan: day 1 of the trip takes over 200 events"):
        play(prepare(asked))


def test_bytes_are_counted() -> None:
    Budget.hold(rows=1_000_000, clips=100_000, at_ms=0)
    with pytest.raises(TooMuch, match="day 3 of the trip would write down over 400 MB"):
        Budget.hold(rows=2_000_000, clips=0, at_ms=2 * DAY_S * 1000)


NEVER = [
    (camera(set_ups=[set_up(tau_s=29.9)]), "kit.cameras[0].set_ups[0].tau_s"),
    (camera(set_ups=[set_up(tau_s=1e-6)]), "kit.cameras[0].set_ups[0].tau_s"),
    (camera(limits={"stop_c": 50.0, "restart_c": 48.1}), "kit.cameras[0].limits.restart_c"),
    (camera(limits={"stop_c": 50.0, "restart_c": 49.999}), "kit.cameras[0].limits.restart_c"),
]
FINE = [
    camera(set_ups=[set_up(tau_s=30.0)]),
    camera(set_ups=[set_up()]),
    camera(limits={"stop_c": 50.0, "restart_c": 48.0}),
]


@pytest.mark.parametrize(("wrong", "path"), NEVER)
def test_a_figure_that_only_a_mistake_makes_stops_everything_until_it_is_mended(
    wrong: dict[str, object], path: str
) -> None:
    asked = document([stop("s", 600), leg("way", 3600)], [asks("cam", "way")], cameras=[wrong])
    told = rehearse(asked)
    (finding,) = told.findings
    assert (finding.code, finding.severity, finding.path) == ("figure_mistaken", "stop", path)
    assert not told.verdict.covered
    assert told.verdict.headline == "Not rehearsed: a figure of the kit is to be mended first."
    assert only(told).filmed == ()
    assert [item.id for item in told.items] == ["s", "way"]
    played, earlier = play_from(asked)
    assert [one.path for one in played.mistakes] == [path]
    mended = document([stop("s", 600), leg("way", 3600)], [asks("cam", "way")])
    again, _ = play_from(mended, earlier)
    assert again.mistakes == ()
    assert again.cameras[0].time.filmed


@pytest.mark.parametrize("fine", FINE)
def test_figures_at_the_edge_are_played(fine: dict[str, object]) -> None:
    asked = document([leg("way", 3600)], [asks("cam", "way")], cameras=[fine])
    assert mistakes_of(asked.kit) == ()
    assert only(rehearse(asked)).filmed


def test_an_idle_document_keeps_trip_and_names_and_asks_nothing() -> None:
    asked = document([leg("way", 3600)], [asks("cam", "way")], cameras=[NEVER[1][0]])
    bare = idle(asked)
    assert bare.trip == asked.trip
    assert mistakes_of(bare.kit) == ()
    assert bare.plan.assignments == ()
    assert [one.id for one in bare.kit.cameras] == ["cam"]
