"""Each finding where it fires, and where it does not (model/results#findings)."""

from __future__ import annotations

from typing import Any

import pytest

from tests.build import asks, battery, camera, card, codes, leg, mode, raw, rehearsed, stop
from tumbrel.core.document import PlanDocument
from tumbrel.core.findings import CHECKS
from tumbrel.core.rehearsal.result.result import Finding, Rehearsal
from tumbrel.core.report import rehearse
from tumbrel.core.wording.findings import SENTENCES, finding_words

HOUR = 3600
WAY = [leg("way", 600)]
ASKED = [asks("cam", "way")]


def found(told: Rehearsal, code: str) -> Finding:
    """The only finding of a code."""
    (one,) = [finding for finding in told.findings if finding.code == code]
    return one


def test_every_check_has_a_sentence_and_every_sentence_a_check() -> None:
    assert set(SENTENCES) == set(CHECKS)


def test_an_unknown_code_has_no_words() -> None:
    with pytest.raises(KeyError):
        finding_words("unheard_of", {})


def test_a_good_plan_finds_nothing() -> None:
    assert rehearsed(WAY, ASKED).findings == ()


def test_card_too_large() -> None:
    narrow = camera(memory={"kind": "slot", "largest_gb": 64})
    chosen = {"cameras": [{"camera": "cam", "card": "k1"}]}
    told = rehearsed(WAY, ASKED, cameras=[narrow], cards=[card(gb=128)], plan=chosen)
    one = found(told, "card_too_large")
    assert (one.severity, one.path) == ("stop", "plan.cameras[0].card")
    assert one.text == "Cam takes cards up to 64 GB; K1 is 128 GB. Fit a smaller card."
    fits = rehearsed(WAY, ASKED, cameras=[narrow], cards=[card(gb=64)], plan=chosen)
    assert "card_too_large" not in codes(fits)


def test_card_too_slow() -> None:
    told = rehearsed(WAY, ASKED, cards=[card(speed_class="V6")])
    one = found(told, "card_too_slow")
    assert (one.severity, one.path, one.item) == ("stop", "plan.assignments[0].mode", "way")
    assert one.values["sustains_mb_s"] == 5
    assert "card_too_slow" not in codes(rehearsed(WAY, ASKED, cards=[card(speed_class="V30")]))


def test_card_too_slow_is_said_once_a_mode() -> None:
    items = [leg("one", 60), leg("two", 60)]
    plan = [asks("cam", "one"), asks("cam", "two")]
    told = rehearsed(items, plan, cards=[card(speed_class="V6")])
    assert [f.code for f in told.findings].count("card_too_slow") == 1


def test_battery_of_wrong_family() -> None:
    parts = raw(WAY, ASKED, batteries=[battery(), battery("b1", family="b")])
    parts["kit"]["families"].append({"id": "b", "name": "B", "mah": 900, "nominal_v": 3.8})
    parts["plan"]["cameras"] = [{"camera": "cam", "battery": "b1"}]
    told = rehearse(PlanDocument.model_validate(parts))
    one = found(told, "battery_of_wrong_family")
    assert (one.severity, one.path) == ("stop", "plan.cameras[0].battery")
    assert told.cameras[0].gaps[0].cause == "no_battery"
    parts["plan"]["cameras"] = [{"camera": "cam", "battery": "a1"}]
    assert "battery_of_wrong_family" not in codes(rehearse(PlanDocument.model_validate(parts)))


def test_a_manual_swap_with_a_battery_of_the_wrong_family() -> None:
    parts = raw([stop("s", 600), *WAY], ASKED, batteries=[battery(), battery("b1", family="b")])
    parts["kit"]["families"].append({"id": "b", "name": "B", "mah": 900, "nominal_v": 3.8})
    parts["plan"]["swaps"] = [{"camera": "cam", "item": "s", "battery": "b1"}]
    told = rehearse(PlanDocument.model_validate(parts))
    assert found(told, "battery_of_wrong_family").path == "plan.swaps[0].battery"


def test_battery_unused_only_where_one_runs_empty() -> None:
    """A2 could not be put in: no stop. On a short leg it is a spare, and no finding."""
    spare = [battery("a1"), battery("a2")]
    long_one = rehearsed([leg("way", 3 * HOUR)], ASKED, batteries=spare)
    assert found(long_one, "battery_unused").text == "A2 is charged and nobody uses it."
    assert "battery_unused" not in codes(rehearsed(WAY, ASKED, batteries=spare))


@pytest.mark.parametrize("code", ["mode_missing", "set_up_missing"])
def test_what_the_camera_does_not_have(code: str) -> None:
    field = code.removesuffix("_missing")
    one = found(rehearsed(WAY, [asks("cam", "way", **{field: "gone"})]), code)
    assert (one.severity, one.path) == ("stop", f"plan.assignments[0].{field}")
    assert "'gone'" in one.text
    assert code not in codes(rehearsed(WAY, ASKED))


def test_feature_not_in_mode() -> None:
    plan = [asks("cam", "way", features=["radio", "screen"])]
    some = camera(modes=[mode(features=["screen"])])
    one = found(rehearsed(WAY, plan, cameras=[some]), "feature_not_in_mode")
    assert (one.severity, one.values["feature"]) == ("warn", "radio")
    both = camera(modes=[mode(features=["screen", "radio"])])
    assert "feature_not_in_mode" not in codes(rehearsed(WAY, plan, cameras=[both]))


def test_swap_where_no_hand_wants_a_spare_that_lay_in_the_bag() -> None:
    spare = [battery("a1"), battery("a2")]
    told = rehearsed([leg("way", 3 * HOUR)], ASKED, batteries=spare)
    one = found(told, "swap_where_no_hand")
    assert (one.severity, one.path) == ("warn", "trip.items[0].hands")
    assert "swap_where_no_hand" not in codes(rehearsed([leg("way", 3 * HOUR)], ASKED))


def test_swap_where_no_hand_is_not_said_where_hands_are_free() -> None:
    spare = [battery("a1"), battery("a2")]
    walk = [leg("way", 2 * HOUR, hands="free")]
    assert "swap_where_no_hand" not in codes(rehearsed(walk, ASKED, batteries=spare))


def test_a_card_that_fills_where_no_hand_is_free() -> None:
    told = rehearsed([leg("way", HOUR)], ASKED, cards=[card(gb=8), card("k2")])
    assert found(told, "swap_where_no_hand").values["what"] == "card"


def test_place_unknown_only_where_sun_is_asked() -> None:
    sunny = [leg("way", 600, sun_share=0.5)]
    assert found(rehearsed(sunny, ASKED), "place_unknown").path == "trip.place"
    assert "place_unknown" not in codes(rehearsed(WAY, ASKED))
    here = {"place": {"latitude": 10.0, "longitude": 10.0}}
    assert "place_unknown" not in codes(rehearsed(sunny, ASKED, trip=here))


def test_nothing_asked_only_beside_a_camera_that_is_used() -> None:
    two = [camera(), camera("idle")]
    one = found(rehearsed(WAY, ASKED, cameras=two), "nothing_asked")
    assert (one.path, one.text) == ("kit.cameras[1]", "Idle is carried and never used.")
    assert "nothing_asked" not in codes(rehearsed(WAY, [], cameras=two))


def test_the_gravest_come_first() -> None:
    plan = [asks("cam", "way", mode="gone"), asks("two", "way", features=["radio"])]
    cameras = [camera(), camera("two"), camera("idle")]
    told = rehearsed(WAY, plan, cameras=cameras, batteries=[battery(), battery("a2")])
    order = [finding.severity for finding in told.findings]
    assert order == sorted(order, key=("stop", "warn", "note").index)
    assert len(set(order)) == 3


def test_findings_of_the_main_demo(demo: PlanDocument) -> None:
    told = rehearse(demo)
    assert "swap_where_no_hand" in codes(told)
    assert not [finding for finding in told.findings if finding.severity == "stop"]


def test_paths_lead_to_a_field_of_the_document(demo: PlanDocument) -> None:
    loaded: Any = demo.model_dump(mode="json")
    for finding in rehearse(demo).findings:
        at = loaded
        for step in finding.path.replace("[", ".").replace("]", "").split("."):
            at = at[int(step)] if step.isdigit() else at[step]
