"""Edits that the page makes by itself: every state they come to is a document, and plays."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from tumbrel.core.document import PlanDocument
from tumbrel.core.report import rehearse

VECTORS: dict[str, Any] = json.loads(
    (Path(__file__).resolve().parents[1] / "vectors" / "edits.json").read_text("utf-8")
)
BEFORE = VECTORS["before"]


def after(case: dict[str, Any]) -> dict[str, Any]:
    """The whole document that an edit comes to."""
    kept = [item for item in BEFORE["trip"]["items"] if item["id"] in case["items"]]
    return {**BEFORE, "trip": {**BEFORE["trip"], "items": kept}, "plan": case["plan"]}


@pytest.mark.parametrize("case", VECTORS["after"], ids=lambda case: case["does"])
def test_what_an_edit_comes_to_is_a_document_that_plays(case: dict[str, Any]) -> None:
    document = PlanDocument.model_validate(after(case))
    told = rehearse(document)
    assert [item.id for item in told.items] == case["items"]
    assert case["plan"] != BEFORE["plan"]


@pytest.mark.parametrize("gone", ["camp", "way"])
def test_nothing_names_a_leg_or_stop_that_went(gone: str) -> None:
    (case,) = [one for one in VECTORS["after"] if gone not in one["items"]]
    assert f'"{gone}"' not in json.dumps(after(case))
    kept = [one for one in BEFORE["plan"]["swaps"] if one["item"] != gone]
    assert case["plan"]["swaps"] == kept, "what was said for other stops stays"


def test_a_piece_of_work_done_elsewhere_is_done_once() -> None:
    cases = {one["does"]: one["plan"] for one in VECTORS["after"]}
    swaps = cases["a swap is done elsewhere"]["swaps"]
    said = [(one["item"], one["battery"]) for one in swaps]
    assert said == [("camp", None), ("hut", "a2")], "and what is in it stays in it at the first"
    plugs = {(p["item"], p["unit"]): p["plug"] for p in cases["a plug is done elsewhere"]["plugs"]}
    assert plugs == {("camp", "a2"): False, ("hut", "a2"): True, ("hut", "a1"): False}
    copies = [(c["item"], c["camera"]) for c in cases["a copying is done elsewhere"]["copies"]]
    assert ("camp", "cam") not in copies
    assert ("hut", "cam") in copies
