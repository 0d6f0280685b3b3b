"""Corrections by hand on a way: what moves, what stays, and what a new import keeps."""

from __future__ import annotations

from datetime import datetime
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.reference.tracks import Recorder, day_out, slope_up
from tumbrel.core.document import Assignment, BadDocument, Leg, ManualSwap, Plan, Stop, Trip
from tumbrel.core.formats.tracks import read_track
from tumbrel.core.route.cleaning import cleaned
from tumbrel.core.route.correcting import (
    Corrected,
    Correction,
    Cut,
    Done,
    EdgeMoved,
    Halted,
    Merged,
    corrected,
    laid_again,
)
from tumbrel.core.route.laying import TrackQuestion, lay_track
from tumbrel.core.route.track import Track

MORNING = datetime(2027, 6, 12, 8, 0)  # noqa: DTZ001 - a local clock
QUESTION = TrackQuestion(start=MORNING)


def track_of(way: Recorder) -> Track:
    return cleaned(read_track(way.gpx()))


def trip_of(way: Recorder, **more: Any) -> Trip:
    found = lay_track(track_of(way), TrackQuestion(start=MORNING, **more))
    return Trip(name="t", start=MORNING, items=found.items, ways=(found.way,), place=found.place)


def over_a_pass(step_m: float = 20.0) -> Recorder:
    """4 km up at 15 %, 4 km down at 10 %, without times."""
    way = Recorder()
    way.walk(
        8000.0, lambda m: 1000.0 + (0.15 * m if m < 4000.0 else 1000.0 - 0.1 * m), None, step_m
    )
    return way


PASS = trip_of(over_a_pass())


def ask(item: str, camera: str = "chin") -> Assignment:
    return Assignment(camera=camera, item=item, mode="m", set_up="s")


def done(correction: Correction, trip: Trip = PASS, plan: Plan | None = None) -> Corrected:
    return corrected(trip, plan or Plan(), correction)


def legs(trip: Trip) -> list[Leg]:
    return [one for one in trip.items if isinstance(one, Leg)]


def ends(trip: Trip) -> list[tuple[float, float]]:
    return [(one.on_way.from_m, one.on_way.to_m) for one in trip.items if one.on_way]


def test_the_pass_is_cut_at_its_top() -> None:
    up, down = legs(PASS)
    assert (up.activity, down.activity) == ("climb", "descent")
    assert up.on_way is not None
    assert up.on_way.to_m == pytest.approx(4000.0, abs=100.0)


def test_an_edge_moved_by_hand_takes_time_and_height_along() -> None:
    """1 km of the climb, at 15 %, given to the leg after: 1 km at 6 exp(-0.7) = 2.98 km/h."""
    up, down = legs(PASS)
    assert up.on_way is not None
    after = legs(done(EdgeMoved(item=up.id, to_m=up.on_way.to_m - 1000.0)).trip)
    moved_s = 1000.0 / (6.0 / 3.6 * 2.718281828**-0.7)
    assert up.duration_s - after[0].duration_s == pytest.approx(moved_s, rel=0.02)
    assert after[1].duration_s - down.duration_s == pytest.approx(moved_s, rel=0.02)
    assert after[0].height_end_m == after[1].height_start_m
    assert after[0].height_end_m == pytest.approx(1000.0 + 0.15 * 3000.0, abs=15.0)
    assert after[0].temp_end_c == pytest.approx(15.0 - 0.0065 * 1450.0, abs=0.2)


def test_an_edge_stays_between_the_ends_of_its_legs_and_takes_stops_along() -> None:
    trip = done(Halted(item=legs(PASS)[0].id, at_m=2000.0, name="Tarn", duration_s=600)).trip
    far = done(EdgeMoved(item=trip.items[0].id, to_m=30_000.0), trip).trip
    first, stop, second = far.items[:3]
    assert first.on_way
    assert stop.on_way
    assert second.on_way
    assert first.on_way.to_m == stop.on_way.from_m == stop.on_way.to_m == second.on_way.from_m
    assert second.on_way.to_m - second.on_way.from_m == pytest.approx(20.0)
    assert isinstance(stop, Stop)
    assert stop.height_m == first.height_end_m  # type: ignore[union-attr]


def test_a_length_typed_by_hand_stays_and_the_speed_follows() -> None:
    typed = PASS.items[0].model_copy(update={"duration_s": 7200, "timed_by": "hand"})
    trip = PASS.model_copy(update={"items": (typed, *PASS.items[1:])})
    first = legs(done(EdgeMoved(item=typed.id, to_m=3000.0), trip).trip)[0]
    assert first.duration_s == 7200
    assert first.speed_mps == pytest.approx(3000.0 / 7200.0, abs=0.05)


def test_air_from_weather_or_typed_stays_where_the_leg_is_cut_elsewhere() -> None:
    aired = PASS.items[0].model_copy(update={"air_from": "made-up weather", "temp_end_c": -3.0})
    trip = PASS.model_copy(update={"items": (aired, *PASS.items[1:])})
    assert legs(done(EdgeMoved(item=aired.id, to_m=3000.0), trip).trip)[0].temp_end_c == -3.0


def test_cut_and_merged_again_is_the_same_leg() -> None:
    up = legs(PASS)[0]
    plan = Plan(assignments=(ask(up.id),))
    cut = done(Cut(item=up.id, at_m=1500.0), plan=plan)
    first, second, _ = legs(cut.trip)
    assert first.duration_s + second.duration_s == pytest.approx(up.duration_s, abs=1)
    assert [one.item for one in cut.plan.assignments] == [first.id, second.id]
    again = done(Merged(item=first.id), cut.trip, cut.plan)
    assert ends(again.trip) == ends(PASS)
    assert legs(again.trip)[0].duration_s == up.duration_s
    assert again.plan == plan


def test_merging_over_a_stop_drops_it_and_keeps_what_both_legs_asked() -> None:
    up, down = legs(PASS)
    halted = done(Halted(item=up.id, at_m=up.on_way.to_m - 500.0)).trip  # type: ignore[union-attr]
    first, halt, second = halted.items[:3]
    plan = Plan(
        assignments=(ask(first.id), ask(second.id), ask(second.id, "boom"), ask(down.id)),
        swaps=(ManualSwap(camera="chin", item=halt.id),),
    )
    merged = done(Merged(item=first.id), halted, plan)
    assert [(one.camera, one.item) for one in merged.plan.assignments] == [
        ("chin", first.id),
        ("boom", first.id),
        ("chin", down.id),
    ]
    assert merged.plan.swaps == ()
    assert halt.id not in {one.id for one in merged.trip.items}


def test_another_activity_is_paced_anew_by_slope() -> None:
    """4 km flown at 9 m/s: 444 s; back on foot it takes what it took."""
    down = legs(PASS)[1]
    flown = done(Done(item=down.id, activity="flight")).trip
    flight = legs(flown)[1]
    assert flight.duration_s == pytest.approx(4000.0 / 9.0, rel=0.03)
    assert flight.hands == "never"
    assert flight.air_mps == pytest.approx(9.0, abs=0.2)
    back = legs(done(Done(item=down.id, activity="descent"), flown).trip)[1]
    assert back == down


def test_a_recorded_time_is_true_whatever_is_done_there() -> None:
    trip = trip_of(day_out())
    first = legs(trip)[0]
    assert legs(done(Done(item=first.id, activity="ride"), trip).trip)[0].duration_s == (
        first.duration_s
    )


@pytest.mark.parametrize(
    ("correction", "why"),
    [
        (EdgeMoved(item="gone", to_m=1.0), "leg 'gone' is not in the trip any more"),
        (EdgeMoved(item="descent-1", to_m=9.0), "no leg of the same way follows 'descent 1'"),
        (Merged(item="descent-1"), "no leg of the same way follows"),
        (Cut(item="climb-1", at_m=7000.0), "cannot be cut at 7000 m: that is not within it"),
        (Cut(item="climb-1", at_m=5.0), "cannot be cut at 5 m"),
    ],
)
def test_what_cannot_be_corrected_is_refused_with_its_place(
    correction: Correction, why: str
) -> None:
    with pytest.raises(BadDocument, match=r"trip\.items") as caught:
        done(correction)
    assert why in str(caught.value)


TYPED = Trip(
    name="t",
    start=MORNING,
    items=(
        Leg(id="a", name="a", duration_s=600, temp_start_c=10.0, temp_end_c=16.0),
        Stop(id="s", name="s", duration_s=300),
        Leg(id="b", name="b", duration_s=1200, temp_start_c=16.0, temp_end_c=20.0),
    ),
)


def test_a_leg_that_was_typed_is_cut_by_the_clock() -> None:
    """200 s of 600 s: a third of the way from 10 to 16 degC."""
    plan = Plan(assignments=(ask("a"),))
    cut = done(Cut(item="a", after_s=200), TYPED, plan)
    assert [one.duration_s for one in cut.trip.items] == [200, 400, 300, 1200]
    assert cut.trip.items[0].temp_end_c == cut.trip.items[1].temp_start_c == 12.0
    assert [one.item for one in cut.plan.assignments] == ["a", cut.trip.items[1].id]
    again = done(Merged(item="a"), cut.trip, cut.plan)
    assert again.trip == TYPED.model_copy(
        update={"items": (TYPED.items[0].model_copy(update={"timed_by": "hand"}), *TYPED.items[1:])}
    )
    assert again.plan == plan


def test_a_halt_on_a_typed_leg_stands_in_its_air() -> None:
    halted = done(Halted(item="a", after_s=300, name="Look out", duration_s=120), TYPED)
    first, halt, second = halted.trip.items[:3]
    assert (first.duration_s, halt.duration_s, second.duration_s) == (300, 120, 300)
    assert halt.kind == "stop"
    assert halt.temp_start_c == 13.0


def test_typed_legs_are_made_one_over_a_stop() -> None:
    plan = Plan(assignments=(ask("b"), ask("s")))
    one = done(Merged(item="a"), TYPED, plan)
    (leg,) = one.trip.items
    assert (leg.id, leg.duration_s, leg.temp_start_c, leg.temp_end_c) == ("a", 1800, 10.0, 20.0)
    assert [each.item for each in one.plan.assignments] == ["a"]


def test_a_leg_on_a_way_is_cut_where_one_is_by_then() -> None:
    up = legs(PASS)[0]
    first, second, _ = legs(done(Cut(item=up.id, after_s=up.duration_s // 4)).trip)
    assert first.duration_s == pytest.approx(up.duration_s / 4, abs=5)
    assert first.duration_s + second.duration_s == pytest.approx(up.duration_s, abs=2)


@pytest.mark.parametrize(
    ("correction", "why"),
    [
        (Cut(item="a", at_m=10.0), "lies on no way: say after how long"),
        (Cut(item="a", after_s=600), "lasts 10 min: it cannot be cut after that"),
        (Cut(item="s", after_s=60), "is a stop: only a leg can be cut"),
        (Merged(item="b"), "no leg that was typed follows 'b'"),
        (Merged(item="s"), "is a stop: only legs are made one"),
        (EdgeMoved(item="a", to_m=10.0), "is no leg on a way"),
    ],
)
def test_what_cannot_be_done_to_typed_legs_is_refused(correction: Correction, why: str) -> None:
    with pytest.raises(BadDocument, match=r"trip\.items") as caught:
        done(correction, TYPED)
    assert why in str(caught.value)


Edits = st.lists(
    st.tuples(
        st.sampled_from(["edge", "cut", "merge", "halt"]), st.integers(0, 9), st.floats(0.0, 1.0)
    ),
    max_size=8,
)


@given(Edits)
def test_however_it_is_corrected_the_legs_cover_the_whole_way_once(edits: Any) -> None:
    """Legs follow each other without gap or overlap, from the way's start to its end."""
    trip = PASS
    for kind, number, share in edits:
        leg = legs(trip)[number % len(legs(trip))]
        assert leg.on_way is not None
        at_m = leg.on_way.from_m + share * (leg.on_way.to_m - leg.on_way.from_m)
        made = {
            "edge": EdgeMoved(item=leg.id, to_m=at_m + 300.0),
            "cut": Cut(item=leg.id, at_m=at_m),
        }
        made |= {"merge": Merged(item=leg.id), "halt": Halted(item=leg.id, at_m=at_m)}
        try:
            trip = corrected(trip, Plan(), made[kind]).trip
        except BadDocument:
            continue
    spans = [(one.on_way.from_m, one.on_way.to_m) for one in legs(trip) if one.on_way]
    assert spans[0][0] == 0.0
    assert spans[-1][1] == pytest.approx(PASS.ways[0].length_m, abs=0.1)
    assert all(a[1] == b[0] for a, b in pairwise(spans))
    assert len({one.id for one in trip.items}) == len(trip.items)
    Trip.model_validate(trip.model_dump())


def test_a_new_import_of_the_same_track_keeps_every_correction() -> None:
    """Another recording of the same ground, thinned to 60 m, at a pace a quarter faster."""
    up = legs(PASS)[0]
    hand = done(Halted(item=up.id, at_m=2500.0, name="Tarn", duration_s=600)).trip
    hand = done(EdgeMoved(item=hand.items[0].id, to_m=2100.0), hand).trip
    named = hand.items[0].model_copy(update={"name": "to the tarn"})
    hand = hand.model_copy(update={"items": (named, *hand.items[1:])})
    other = track_of(over_a_pass(60.0))
    again = laid_again(hand, other, TrackQuestion(start=MORNING, factor=1.25))
    assert again is not None
    assert [one.name for one in again.items] == [one.name for one in hand.items]
    for before, after in zip(ends(hand), ends(again), strict=True):
        assert after == pytest.approx(before, rel=0.01)
    assert again.items[0].duration_s == pytest.approx(hand.items[0].duration_s / 1.25, rel=0.03)
    assert again.items[1].duration_s == 600
    assert again.ways[0].factor == 1.25
    assert again.ways[0].id == PASS.ways[0].id


def test_another_track_is_not_taken_for_the_same() -> None:
    elsewhere = Recorder(lat=46.21)
    elsewhere.walk(8000.0, slope_up(0.1), None)
    longer = Recorder()
    longer.walk(8400.0, slope_up(0.1), None)
    for way in (elsewhere, longer):
        assert laid_again(PASS, track_of(way), QUESTION) is None


def test_nights_end_in_the_morning_again_when_a_day_gets_longer() -> None:
    """A hut at 30 km; the walk before it flown instead: the night begins earlier, ends at eight."""
    way = Recorder()
    way.walk(60_000.0, slope_up(0.0), None, step_m=50.0)
    way.place(30_000.0, "Hut Orla")
    trip = trip_of(way)
    hut = trip.items[1]
    assert trip.items[0].duration_s + hut.duration_s == 24 * 3600
    flown = done(Done(item=trip.items[0].id, activity="flight"), trip).trip
    assert flown.items[0].duration_s == pytest.approx(30_000.0 / 9.0, rel=0.01)
    assert flown.items[0].duration_s + flown.items[1].duration_s == 24 * 3600
    typed = hut.model_copy(update={"timed_by": "hand"})
    kept = trip.model_copy(update={"items": (trip.items[0], typed, *trip.items[2:])})
    still = done(Done(item=trip.items[0].id, activity="flight"), kept).trip
    assert still.items[1].duration_s == hut.duration_s
