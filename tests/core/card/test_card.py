"""The card in the pocket: every form tells what the rehearsal told, move by move."""

from __future__ import annotations

import csv
import io
import re
from collections import Counter
from datetime import UTC, datetime, timedelta
from pathlib import Path
from zoneinfo import ZoneInfo

import gpxpy
import pytest
import vobject
from icalendar import Calendar

from tests.build import asks, battery, leg, raw, stop
from tumbrel.core.card import TripCard, card_of, changes_between
from tumbrel.core.card.told import CardMove
from tumbrel.core.document import FullBy, PlanDocument, read_document
from tumbrel.core.formats.card_out import moves_of, write_csv, write_ics, write_page
from tumbrel.core.formats.tracks_out import write_track
from tumbrel.core.rehearsal.result.result import Rehearsal
from tumbrel.core.report import rehearse

DEMOS = sorted((Path(__file__).resolve().parents[3] / "src" / "tumbrel" / "demo").glob("*.json"))
MADE = datetime(2027, 6, 1, 18, 30, tzinfo=UTC)
MINUTE_MS = 60_000


@pytest.fixture(scope="module", params=DEMOS, ids=lambda file: file.stem)
def told(request: pytest.FixtureRequest) -> tuple[PlanDocument, Rehearsal, TripCard]:
    """A demo, its rehearsal and its card."""
    document = read_document(request.param.read_bytes())
    rehearsal = rehearse(document)
    return document, rehearsal, card_of(document, rehearsal)


def words_of(move: CardMove) -> str:
    """Whose move and what, where it is a camera's."""
    return ": ".join(one for one in (move.camera, move.say) if one)


def test_there_are_three_demos() -> None:
    assert len(DEMOS) == 3


def test_every_move_of_the_rehearsal_is_on_the_card_once(
    told: tuple[PlanDocument, Rehearsal, TripCard],
) -> None:
    document, rehearsal, card = told
    kit = document.kit
    names = {one.id: one.name for one in kit.cameras}
    lie_about = {one.name for one in (*kit.sources, *kit.gear)}  # no camera is in the hands
    wanted = Counter(
        (one.item, one.at_ms, "" if one.alone else names[one.camera], one.kind)
        for one in rehearsal.moves
    )
    for one in rehearsal.moves:
        of = one.puts_in if one.kind == "wake" else one.takes_out
        assert one.alone or one.kind not in ("plug", "wake") or of not in lie_about
        assert not one.alone or one.kind in ("plug", "wake")
    found = Counter(
        (place.item, move.at_ms, move.camera, move.kind) for place, move in moves_of(card)
    )
    assert found == wanted
    keys = [move.key for _, move in moves_of(card)]
    assert len(set(keys)) == len(keys)


def test_places_follow_each_other_without_a_hole(
    told: tuple[PlanDocument, Rehearsal, TripCard],
) -> None:
    _, rehearsal, card = told
    assert [place.item for place in card.places] == [one.id for one in rehearsal.items]
    assert all(a.end_ms == b.start_ms for a, b in zip(card.places, card.places[1:], strict=False))
    for place in card.places:
        assert set(place.leave_out) <= {move.key for move in place.moves}


def test_table_calendar_and_page_tell_the_same_moves(
    told: tuple[PlanDocument, Rehearsal, TripCard],
) -> None:
    _, _, card = told
    rows = list(csv.DictReader(io.StringIO(write_csv(card))))
    moves = moves_of(card)
    assert [
        (row["clock"], row["camera"], row["what"].strip(), row["where"], row["how"], row["why"])
        for row in rows
    ] == [(m.clock, m.camera, m.say, m.where, m.how, m.why) for _, m in moves]
    calendar = vobject.readOne(write_ics(card, MADE).decode("utf-8"))
    zone = ZoneInfo(card.time_zone)
    events = {
        one.uid.value: (one.summary.value, one.dtstart.value.astimezone(zone))
        for one in calendar.vevent_list
        if "/full/" not in one.uid.value
    }
    dear = [(place, move) for place, move in moves if move.dear]
    assert dear
    assert len(events) == len(dear)
    for (summary, at), (_, move) in zip(
        sorted(events.values(), key=lambda pair: pair[1]),
        sorted(dear, key=lambda pair: pair[1].at_ms),
        strict=True,
    ):
        assert at == (card.start_utc + timedelta(milliseconds=move.at_ms)).replace(microsecond=0)
        assert f"{at:%H:%M}" == move.clock
        assert summary in {words_of(m) for _, m in dear if m.at_ms == move.at_ms}
    page = write_page(card, MADE, "", "", None)
    for _, move in moves:
        assert f'"say":"{move.say}"' in page


def test_another_reader_finds_the_work_in_the_gpx_and_the_hours_of_the_rehearsal(
    told: tuple[PlanDocument, Rehearsal, TripCard],
) -> None:
    document, rehearsal, card = told
    read = gpxpy.parse(write_track(document, rehearsal, "gpx"))
    names = [one.name for one in document.trip.items if one.kind == "stop" and one.on_way]
    assert [one.name for one in read.waypoints] == names
    work = {place.name: place.moves for place in card.places if place.moves}
    for point in read.waypoints:
        wanted = [f"{one.clock} {words_of(one)}" for one in work.pop(point.name, ())]
        assert point.description == ("; ".join(wanted) or "no work for the hands")
        nearest = min(point.distance_2d(one) for one in read.walk(only_points=True))
        assert nearest < 30, point.name
    assert not work.keys() & set(names)
    (way,) = document.trip.ways
    assert 0.9 * way.length_m < read.length_2d() <= way.length_m  # columns cut bends
    times = [one.time for one in read.walk(only_points=True) if one.time]
    assert times == sorted(times)
    legs = [one for one in rehearsal.items if one.kind == "leg"]
    start = rehearsal.start_utc.astimezone(UTC)
    assert times[0] == (start + timedelta(milliseconds=legs[0].start_ms)).replace(microsecond=0)


def test_a_second_import_takes_the_place_of_the_first(
    told: tuple[PlanDocument, Rehearsal, TripCard],
) -> None:
    _, _, card = told
    first, second = (
        re.findall(rb"^UID:.*$", write_ics(card, at), re.MULTILINE)
        for at in (MADE, MADE + timedelta(days=1))
    )
    assert first == second
    assert len(set(first)) == len(first)


def test_a_swap_tells_where_from_where_to_and_what_is_left() -> None:
    document = read_document(_ostrel())
    card = card_of(document, rehearse(document))
    brow = next(place for place in card.places if place.name == "Brow launch")
    swap = next(move for move in brow.moves if move.kind == "swap" and move.camera == "Chin")
    assert (swap.clock, swap.say) == ("11:11", "A4 in")
    assert swap.where == "A4 is in the Twin dock"
    assert swap.why == "for long flight, A4 lasts 1 h 42"
    assert swap.dear
    start = next(move for move in brow.moves if move.kind == "start" and move.camera == "Chin")
    assert start.how.startswith("slot 1, In the air; ")
    assert next((one.camera, one.until, one.ends) for one in brow.films) == (
        "Chin",
        "12:57",
        "A4 empty",
    )
    assert {(one.name, one.importance) for one in brow.shots} == {
        ("shared thermal", "must"),
        ("low save", "must"),
    }
    assert brow.spare_s == 3600 - sum(move.takes_s for move in brow.moves)


def _ostrel() -> bytes:
    return next(file for file in DEMOS if "ostrel" in file.name).read_bytes()


def test_a_swap_tells_how_long_what_goes_in_lasts() -> None:
    """5.7 W h at 4 W is 85 min, by the mean of the stretch that it is for."""
    items = [leg("one", 4700), stop("rest", 600), leg("two", 1800)]
    asked = [asks("cam", "one"), asks("cam", "two")]
    document = PlanDocument.model_validate(
        raw(items, asked, batteries=[battery("a1"), battery("a2")])
    )
    moves = [move for _, move in moves_of(card_of(document, rehearse(document)))]
    (swap,) = (one for one in moves if one.kind == "swap")
    assert swap.why.endswith("for two, A2 lasts 1 h 25")


def test_the_same_plan_has_the_same_revision_and_another_another() -> None:
    document = read_document(_ostrel())
    told = rehearse(document)
    assert card_of(document, told).revision == card_of(document, told).revision
    trip = document.trip.model_copy(update={"name": "Another"})
    other = document.model_copy(update={"trip": trip})
    assert card_of(other, told).revision != card_of(document, told).revision


def test_what_another_plan_changes_is_told_by_stop_and_move() -> None:
    document = read_document(_ostrel())
    card = card_of(document, rehearse(document))
    assert changes_between(card, card) == ()
    kept = tuple(
        one for one in document.plan.assignments if (one.item, one.camera) != ("d2-flight", "foot")
    )
    plan = document.plan.model_copy(update={"assignments": kept})
    other = document.model_copy(update={"plan": plan})
    told = changes_between(card, card_of(other, rehearse(other)))
    brow = next(one for one in told if one.stop == "Brow launch")
    assert "Foot takes 2.7K60 is gone" in brow.said


def test_cells_are_no_formulas_and_names_are_no_code() -> None:
    document = read_document(_ostrel())
    first = document.kit.cameras[0].model_copy(update={"name": "=1+1</script>"})
    kit = document.kit.model_copy(update={"cameras": (first, *document.kit.cameras[1:])})
    other = document.model_copy(update={"kit": kit})
    card = card_of(other, rehearse(other))
    rows = list(csv.DictReader(io.StringIO(write_csv(card))))
    assert {row["camera"] for row in rows if "script" in row["camera"]} == {" =1+1</script>"}
    page = write_page(card, MADE, "", "", None)
    assert page.count("</script>") == 2  # its own two


@pytest.mark.parametrize(
    "start", ["2027-03-27T20:00", "2027-10-30T20:00"], ids=["an hour less", "an hour more"]
)
def test_alarms_stand_at_their_instant_over_a_change_of_clocks_and_midnights(start: str) -> None:
    """Read by another parser with the calendar's own time zone, each is the very instant."""
    document = read_document(_ostrel())
    moved = {"start": datetime.fromisoformat(start), "time_zone": "Europe/Berlin"}
    items = tuple(one.model_copy(update={"not_before": None}) for one in document.trip.items)
    trip = document.trip.model_copy(update={**moved, "items": items})
    other = document.model_copy(update={"trip": trip})
    card = card_of(other, rehearse(other))
    calendar = vobject.readOne(write_ics(card, MADE).decode("utf-8"))
    offsets = set()
    found = []
    for event in calendar.vevent_list:
        if "/full/" in event.uid.value:
            continue
        at = event.dtstart.value
        offsets.add(at.utcoffset())
        found.append(at.astimezone(UTC))
    wanted = [
        (card.start_utc + timedelta(milliseconds=move.at_ms)).replace(microsecond=0)
        for _, move in moves_of(card)
        if move.dear
    ]
    assert sorted(found) == sorted(wanted)
    assert offsets == {timedelta(hours=1), timedelta(hours=2)}
    assert len({at.date() for at in found}) > 1
    zone = ZoneInfo("Europe/Berlin")
    for part in Calendar.from_ical(write_ics(card, MADE)).timezones[0].subcomponents[1:]:
        before, after = part["TZOFFSETFROM"].td, part["TZOFFSETTO"].td
        onset = (part["DTSTART"].dt - before).replace(tzinfo=UTC)  # RFC 5545, 3.6.5
        assert (onset - timedelta(seconds=1)).astimezone(zone).utcoffset() == before
        assert onset.astimezone(zone).utcoffset() == after


def test_what_must_be_full_is_told_and_rings_three_hours_before() -> None:
    document = read_document(_ostrel())
    by = FullBy(unit=document.kit.batteries[0].id, at=datetime(2027, 6, 13, 5, 40))  # noqa: DTZ001
    plan = document.plan.model_copy(update={"full_by": (by,)})
    other = document.model_copy(update={"plan": plan})
    card = card_of(other, rehearse(other))
    assert [one.say for one in card.full_by] == ["A1 full by 05:40"]
    events = vobject.readOne(write_ics(card, MADE).decode("utf-8")).vevent_list
    full = next(one for one in events if one.summary.value == "A1 full by 05:40")
    assert f"{full.dtstart.value:%Y-%m-%d %H:%M}" == "2027-06-13 05:40"
    assert full.valarm.trigger.value == timedelta(hours=-3)


def test_a_leg_tells_its_own_filming_and_a_stop_what_it_and_the_next_legs_film(
    told: tuple[PlanDocument, Rehearsal, TripCard],
) -> None:
    """However legs follow each other, only cameras that are asked there are told of."""
    document, _, card = told
    names = {one.id: one.name for one in document.kit.cameras}
    for number, place in enumerate(card.places):
        items = {place.item}
        if place.kind == "stop":
            for after in card.places[number + 1 :]:
                if after.kind == "stop":
                    break
                items.add(after.item)
        asked = {names[one.camera] for one in document.plan.assignments if one.item in items}
        assert {one.camera for one in place.films} == asked


def test_a_card_and_a_battery_of_one_name_are_not_taken_for_each_other() -> None:
    document = read_document(_ostrel())
    cells = [
        one.model_copy(update={"name": "K1"} if one.name == "A4" else {})
        for one in document.kit.batteries
    ]
    kit = document.kit.model_copy(update={"batteries": tuple(cells)})
    other = document.model_copy(update={"kit": kit})
    card = card_of(other, rehearse(other))
    plug = next(move for _, move in moves_of(card) if move.say == "plug K1 into Twin dock")
    assert plug.where == "K1 is in Chin"
    assert plug.why.startswith("K1 has")
