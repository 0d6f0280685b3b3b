"""Cures: what they promise is what keeping them gives, planted faults are cured, nothing unsafe."""

from __future__ import annotations

import copy
from pathlib import Path
from typing import Any

import pytest

from tests.build import asks, battery, camera, card, leg, mode, played, raw, set_up, stop, takes
from tests.core.route.test_correcting import over_a_pass, trip_of
from tumbrel.core.cures import Cure, CureTarget, Outcome, cures_of
from tumbrel.core.cures.findings import AS_THE_LOSS, PROPOSES
from tumbrel.core.cures.weighing import lost_ms, open_ms
from tumbrel.core.document import IMPORTANCES, BadDocument, PlanDocument, read_document
from tumbrel.core.findings import CHECKS
from tumbrel.core.rehearsal.result.minutes import time_filmed
from tumbrel.core.rehearsal.result.result import Rehearsal
from tumbrel.core.report import rehearse, tell

DEMO = Path(__file__).resolve().parents[3] / "src" / "tumbrel" / "demo"
Doc = dict[str, Any]
HOUR = 3600
MODES = [mode("m", 4.0), mode("low", 2.0, 20.0, width_px=1920, height_px=1080)]
COLD = {"temp_start_c": -20.0, "temp_end_c": -20.0}
LOST = CureTarget(camera="cam", item="way")
MOMENT = {"name": "gust", "count": 2, "seconds": 20, "importance": "want"}


def searched(document: PlanDocument, target: CureTarget) -> tuple[list[Cure], Outcome]:
    """The cures that stand, the best first, and the outcome."""
    *cures, outcome = cures_of(document, target, played)
    assert isinstance(outcome, Outcome)
    told = [one for one in cures if isinstance(one, Cure)]
    assert len(told) == len(cures)
    return [told[place] for place in outcome.order], outcome


def of(document: Doc, target: CureTarget = LOST) -> list[str]:
    """Sentences of the cures of a planted fault."""
    cures, _ = searched(PlanDocument.model_validate(document), target)
    return [one.text for one in cures]


def kept(document: PlanDocument, cure: Cure) -> Rehearsal:
    """The document rehearsed with a cure kept."""
    parts = {"kit": cure.kit, "trip": cure.trip, "plan": cure.plan}
    changed = {name: part for name, part in parts.items() if part is not None}
    return rehearse(document.model_copy(update=changed))


def all_kept(told: Rehearsal) -> int:
    return sum(told.kept_of(one) for one in IMPORTANCES)


# -- what is promised ------------------------------------------------------------------------------


@pytest.mark.parametrize("name", ["ostrel-crossing", "skarre-fell-run", "halde-flat-regatta"])
def test_every_shown_gain_is_that_of_keeping_it(name: str) -> None:
    """All cures of all losses of each demo, kept and rehearsed from the start."""
    document = read_document((DEMO / f"{name}.json").read_bytes())
    before = rehearse(document)
    losses = [loss for one in before.cameras for loss in one.losses]
    assert losses
    for loss in losses:
        cures, _ = searched(document, CureTarget(camera=loss.camera, item=loss.item))
        for cure in cures:
            after = kept(document, cure)
            gained = all_kept(after) - all_kept(before)
            assert gained == cure.must_ms + cure.want_ms + cure.nice_ms
            moments = sum(m.whole for m in after.verdict.moments)
            moments -= sum(m.whole for m in before.verdict.moments)
            told = cure.must_moments + cure.want_moments + cure.nice_moments
            assert moments == pytest.approx(told, abs=2e-3)
            barred = {(f.code, f.camera) for f in after.findings if f.harm or f.severity == "stop"}
            assert barred <= {(f.code, f.camera) for f in before.findings}
            left = [
                one
                for other in after.cameras
                for one in other.losses
                if (one.camera, one.item) == (loss.camera, loss.item)
            ]
            assert cure.closes == (not left)


def test_no_cure_is_worse_in_everything_and_none_loses_a_must() -> None:
    document = read_document((DEMO / "ostrel-crossing.json").read_bytes())
    cures, _ = searched(document, CureTarget(camera="chin", item="d2-flight"))
    assert len(cures) >= 2
    assert all(one.must_ms > 0 or one.asked_ms < 0 for one in cures)
    assert cures[0].closes
    best = cures[0]
    assert not any(
        one.must_ms <= best.must_ms and one.picture > best.picture and one.closes
        and one.grams >= best.grams and one.halts >= best.halts and len(one.side) >= len(best.side)
        for one in cures[1:]
    )  # fmt: skip


# -- planted faults --------------------------------------------------------------------------------


def empties(**more: Any) -> Doc:
    """5.70 W h at 4 W lasts 85 min of two hours."""
    return raw([stop("camp", 1200), leg("way", 2 * HOUR)], [asks("cam", "way")], **more)


def test_an_empty_battery_wants_a_lower_mode_first() -> None:
    two = camera(modes=MODES)
    assert of(empties(cameras=[two]))[0] == "Film way with Cam in LOW."


def test_a_spare_that_is_carried_is_put_in_and_a_halt_is_made_for_it() -> None:
    """Two hours on one leg, hands free at stops only: a halt before the end, with a spare."""
    found = of(empties(batteries=[battery(), battery("a2")]))
    assert "Halt for 10 min on way before it gives out." in found[:3]


def test_a_halt_on_a_way_lies_where_one_is_by_then() -> None:
    """The pass of 8 km: the camera empties on the way up, and the halt cuts the leg in two."""
    document = PlanDocument.model_validate(empties(batteries=[battery(), battery("a2")]))
    trip = trip_of(over_a_pass())
    climb = trip.items[0].model_copy(update={"id": "way", "duration_s": 7200, "timed_by": "hand"})
    trip = trip.model_copy(update={"items": (climb, *trip.items[1:])})
    document = document.model_copy(update={"trip": trip})
    cures, _ = searched(document, LOST)
    halted = next(one for one in cures if one.halts == 1)
    assert halted.trip is not None
    first, halt, second = halted.trip.items[:3]
    assert first.on_way is not None
    assert halt.on_way is not None
    assert second.on_way is not None
    assert first.on_way.to_m == halt.on_way.from_m == second.on_way.from_m
    assert second.on_way.to_m == climb.on_way.to_m  # type: ignore[union-attr]
    assert halt.spot is not None


def test_nothing_is_asked_of_hands_in_the_air() -> None:
    """On a flight no halt is ever proposed."""
    flight = raw(
        [stop("camp", 1200), leg("way", 2 * HOUR, activity="flight", hands="never")],
        [asks("cam", "way")],
        batteries=[battery(), battery("a2")],
    )
    assert not [text for text in of(flight) if "Halt" in text]


def test_one_more_battery_where_none_is_left() -> None:
    """Two legs of an hour and a quarter, a stop between, one battery."""
    items = [leg("before", 4500), stop("s", 1200), leg("way", 4500)]
    asked = [asks("cam", "before"), asks("cam", "way")]
    found, _ = searched(PlanDocument.model_validate(raw(items, asked)), LOST)
    more = next(one for one in found if one.text == "Carry one more battery A.")
    assert more.closes
    assert more.grams == 30.0
    assert more.kit is not None
    assert [one.name for one in more.kit.batteries] == ["A1", "A2"]
    assert more.plan is None


def test_one_more_bank_where_what_is_carried_does_not_refill() -> None:
    """Three legs of 5 W h, one heavy battery, and a bank with 4.5 W h in all for two refills."""
    items = [leg("a", 4500), stop("s", 4 * 3600), leg("b", 4500), stop("t", 4 * 3600)]
    items.append(leg("way", 4500))
    heavy = {"id": "a", "name": "A", "mah": 1500, "nominal_v": 3.8, "mass_g": 300}
    document = raw(items, [asks("cam", one) for one in ("a", "b", "way")], family=heavy)
    bank = {"id": "slab", "name": "Slab", "kind": "bank", "mah": 1600, "ports": [10], "mass_g": 90}
    dock = {"id": "dock", "name": "Dock", "families": ["a"], "bays": 1, "in_w": 10, "mass_g": 50}
    document["kit"] |= {"sources": [bank], "chargers": [dock]}
    found, _ = searched(PlanDocument.model_validate(document), LOST)
    more = next(one for one in found if one.text == "Carry one more power bank like Slab.")
    assert more.grams == 90.0
    assert more.kit is not None
    assert [one.name for one in more.kit.sources] == ["Slab", "Slab 2"]
    assert more.must_ms + more.want_ms > 600_000


def test_a_camera_too_hot_wants_air_shade_or_less() -> None:
    hot = mode("m", 4.0, rise_k=35.0)
    cool = mode("low", 2.0, rise_k=20.0, width_px=1920, height_px=1080)
    bare = [set_up("cased", case_factor=1.5), set_up()]
    one = camera(modes=[hot, cool], set_ups=bare)
    asked = [asks("cam", "way", set_up="cased")]
    found = of(raw([leg("way", HOUR)], asked, cameras=[one]))
    assert found == ["Build Cam as 'bare' for way."]  # a lower mode too, but it costs picture


def test_a_cold_spare_is_carried_warm() -> None:
    """8 W for 28 min are 3.78 W h. A spare from a bag at -20 gives 0.6 x 5.7 = 3.42; from against
    the body it has cooled to -15.8 by then, -20 + 45 exp(-1700 / 720), and gives 0.676 x 5.7."""
    items = [leg("before", 1500, **COLD), stop("s", 1200, **COLD), leg("way", 1700, **COLD)]
    asked = [asks("cam", "before"), asks("cam", "way")]
    cells = [battery(), battery("a2")]
    found = of(raw(items, asked, batteries=cells, cameras=[camera(modes=[mode("m", 8.0)])]))
    assert "Carry all batteries A in an inside pocket." in found[:3]


def test_a_full_card_wants_another_card_or_fewer_bits() -> None:
    one = camera(modes=[mode("m", 2.0, 100.0), mode("low", 2.0, 20.0)])
    small = [card("k1", 16), card("k2", 256)]
    plan = {"cameras": [{"camera": "cam", "card": "k1"}]}
    found = of(raw([leg("way", HOUR)], [asks("cam", "way")], [one], None, small, plan=plan))
    assert "Start with K2 in Cam." in found[:2]
    assert "Film way with Cam in LOW." in found[:3]


def test_two_changes_together_where_none_is_enough_alone() -> None:
    """Half the draw gives 171 of 240 min; with the screen (0.55 W) off it gives more."""
    one = camera(modes=[mode("m", 4.0, features=["screen"]), mode("low", 2.0, features=["screen"])])
    asked = [asks("cam", "way", features=["screen"])]
    long = raw([leg("way", 4 * HOUR, hands="never", activity="flight")], asked, cameras=[one])
    cures, _ = searched(PlanDocument.model_validate(long), LOST)
    pairs = [cure for cure in cures if cure.edits == 2]
    assert [pair.text for pair in pairs] == [
        "Film way with Cam in LOW; turn Cam's screen off on way."
    ]
    assert pairs[0].closed_ms > max(cure.closed_ms for cure in cures if cure.edits == 1)


def test_what_is_offered_is_what_something_is_proposed_against() -> None:
    """A link to cures stands where there are any to look for, and nowhere else."""
    assert set(PROPOSES) | AS_THE_LOSS == {one.code for one in CHECKS.values() if one.curable}


def test_a_warning_that_a_cure_brings_is_a_cost_and_no_bar() -> None:
    """A halt cuts the leg: the tether's warning is told of its first half as before, and a second
    battery wants a longer look at nothing else. Both cures stand."""
    untied = {"cameras": [{"camera": "cam", "mount": "hand_held"}]}
    items = [stop("camp", 1200), leg("way", 2 * HOUR, activity="climb")]
    document = raw(items, [asks("cam", "way")], batteries=[battery(), battery("a2")], plan=untied)
    assert "Halt for 10 min on way before it gives out." in of(document)


@pytest.mark.parametrize(("mount", "offered"), [("helmet", True), ("hand_held", False)])
def test_harm_is_never_brought_about_however_much_it_gains(mount: str, offered: bool) -> None:
    """Two would film all of the ride; held in the hand there it is against the leg."""
    two = camera("two", modes=[mode("m", 2.0)])
    plan = {"cameras": [{"camera": "cam", "battery": "a1"},
                        {"camera": "two", "battery": "a2", "mount": mount}]}  # fmt: skip
    items = [stop("camp", 1200), leg("way", 2 * HOUR, activity="ride")]
    document = raw(items, [asks("cam", "way")], [camera(), two], [battery(), battery("a2")],
                   [card("k1"), card("k2")], plan=plan)  # fmt: skip
    assert ("Ask Two on way instead of Cam." in of(document)) is offered


def test_a_loop_is_a_cure_only_where_it_keeps_moments() -> None:
    """12 GB at 60 Mbit/s last 27 min; a loop of five minutes is watched to the end.

    Kept twice an hour it holds 15 min, which is 12 less: watched minutes are no gain.
    """
    one = camera(memory={"kind": "fixed", "gb": 12}, modes=[mode(loops=True)])
    for moments in ([], [MOMENT]):
        way = leg("way", HOUR, moments=moments)
        texts = of(raw([stop("camp", 600), way], [asks("cam", "way")], [one]))
        loops = [text for text in texts if text.startswith("Loop")]
        kept = ["Loop Cam on way, 5 min, and keep it at moments."]
        assert loops == (kept if moments else [])


def test_moments_gained_are_told_and_a_must_moment_is_worth_more_than_minutes() -> None:
    """A take of a minute hardly meets the launch; rolled, or looped and kept, it is whole."""
    launch = {"name": "launch", "count": 1, "seconds": 60, "importance": "must"}
    way = leg("way", HOUR, moments=[launch])
    document = PlanDocument.model_validate(
        raw([stop("camp", 600), way], [asks("cam", "way", pattern=takes(60, count=2))])
    )
    finding = CureTarget(item="way", code="moment_not_expected", path="trip.items[1].moments")
    cures, _ = searched(document, finding)
    assert [one.text for one in cures] == ["Roll Cam on way."]  # a loop films no more, and less
    assert all(one.must_moments > 0.9 for one in cures)


def test_a_nicer_stretch_is_left_out_for_a_must_and_the_last_minutes_can_be_chosen() -> None:
    """An hour of nice and an hour of must on 85 min, and nothing to put in between."""
    items = [leg("fun", HOUR), leg("way", HOUR)]
    asked = [asks("cam", "fun", importance="nice"), asks("cam", "way", importance="must")]
    document = PlanDocument.model_validate(raw(items, asked))
    cures, _ = searched(document, LOST)
    texts = [one.text for one in cures]
    assert "Leave Cam off on fun, for way." in texts
    last = next(one for one in cures if one.text.startswith("Film only the last"))
    assert abs(last.must_ms) < 60_000
    assert last.asked_ms < -30 * 60_000
    assert any("are asked" in side for side in last.side)
    assert texts.index("Leave Cam off on fun, for way.") < texts.index(last.text)


def test_a_source_is_chosen_with_the_set_up_that_wants_one() -> None:
    fed = camera(set_ups=[set_up(), set_up("rig", power="outside")], charges_in_w=10.0)
    document = empties(cameras=[fed])
    document["kit"]["sources"] = [{"kind": "bank", "id": "x", "name": "Slab", "mah": 9000}]
    assert "Build Cam as 'rig' for way and feed it from Slab." in of(document)


def test_what_is_carried_and_full_is_named_where_no_cure_is_found() -> None:
    """A full battery that fits, and no hand before it is wanted."""
    items = [leg("way", 2 * HOUR, hands="never", activity="flight")]
    cells = [battery(), battery("a2", charge=0.9)]
    one = camera(set_ups=[set_up(swap_s=900)])
    document = PlanDocument.model_validate(
        raw(items, [asks("cam", "way")], cameras=[one], batteries=cells,
            plan={"swaps": [], "cameras": [{"camera": "cam", "battery": "a1"}]})
    )  # fmt: skip
    _, outcome = searched(document, LOST)
    assert "Nothing you carry" not in outcome.why
    assert "A2 is carried and well charged." in outcome.why


def test_where_nothing_helps_it_says_why() -> None:
    lonely = raw([leg("way", 2 * HOUR, hands="never", activity="flight")], [asks("cam", "way")],
                 cameras=[camera(battery_comes_out=False)])  # fmt: skip
    cures, outcome = searched(PlanDocument.model_validate(lonely), LOST)
    assert cures == []
    assert "No hand is ever free on it" in outcome.why or "no hand is ever free" in outcome.why


def test_a_cure_never_brings_what_a_finding_forbids() -> None:
    """The only other camera is a hand-held stick: not on a descent."""
    stick = {"cameras": [{"camera": "two", "mount": "hand_held"}]}
    items = [leg("way", 2 * HOUR, activity="descent")]
    cameras = [camera("cam"), camera("two")]
    cells = [battery(), battery("a2")]
    found = of(raw(items, [asks("cam", "way")], cameras, cells, plan=stick))
    assert not [text for text in found if "Ask Two" in text]


# -- findings --------------------------------------------------------------------------------------

PRESET = {"id": "p", "slot": 1, "name": "Day", "mode": "m"}


def test_findings_are_cured_by_what_their_sentence_asks() -> None:
    cases: list[tuple[str, Doc, str]] = [
        ("tether_wanted", raw([leg("way", 600, activity="flight")], [asks("cam", "way")]),
         "Tie Cam to a tether of its own."),
        ("clock_not_set", raw([leg("way", 600)], [asks("cam", "way")],
                              cameras=[camera(clock_set=False)]),
         "Set Cam's clock, and say so in the kit."),
        ("preset_in_another_mode",
         raw([leg("way", 600)], [asks("cam", "way", preset="p", mode="low")],
             cameras=[camera(modes=MODES, presets=[PRESET])]),
         "Plan Cam in the mode of its preset Day."),
        ("feature_not_in_mode", raw([leg("way", 600)], [asks("cam", "way", features=["screen"])]),
         "Turn Cam's screen off on way."),
        ("water_against_set_up",
         raw([leg("way", 600, wet="splash")], [asks("cam", "way")],
             cameras=[camera(set_ups=[set_up(), set_up("wet", water="under")])]),
         "Build Cam as 'wet' for way."),
    ]  # fmt: skip
    for code, planted, text in cases:
        document = PlanDocument.model_validate(copy.deepcopy(planted))
        finding = next(one for one in rehearse(document).findings if one.code == code)
        target = CureTarget(code=code, camera=finding.camera, item=finding.item)
        cures, _ = searched(document, target)
        assert text in [one.text for one in cures][:3]
        after = kept(document, cures[0])
        assert code not in {one.code for one in after.findings}


def test_a_target_that_is_not_there_is_refused() -> None:
    fine = PlanDocument.model_validate(raw([leg("way", 600)], [asks("cam", "way")]))
    with pytest.raises(BadDocument, match="the gap is not there any more"):
        searched(fine, LOST)
    with pytest.raises(BadDocument, match="the finding 'clock_not_set' is not there any more"):
        searched(fine, CureTarget(code="clock_not_set", camera="cam"))


@pytest.mark.parametrize("name", ["ostrel-crossing", "skarre-fell-run", "halde-flat-regatta"])
def test_what_is_reckoned_before_telling_is_what_is_told(name: str) -> None:
    demo = read_document((DEMO / f"{name}.json").read_bytes())
    trip = played(demo)
    told = tell(trip)
    assert any(one.losses for one in told.cameras)
    for each in told.cameras:
        for loss in each.losses:
            target = CureTarget(camera=each.camera, item=loss.item)
            assert lost_ms(trip, target, {}) == open_ms(told, target, {}) > 0
    reckoned = time_filmed(trip)
    for one in IMPORTANCES:
        rows = [row for row in told.coverage if (row.by, row.key) == ("importance", one)]
        assert reckoned[one].filmed_ms == sum(row.filmed_ms for row in rows)
        assert reckoned[one].missing_ms == sum(row.asked_ms - row.filmed_ms for row in rows)
