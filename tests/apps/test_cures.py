"""Cures for the page: lines as they are found, the outcome last; nothing is kept."""

from __future__ import annotations

import json
from collections.abc import Iterator
from typing import Any

from tests.apps.conftest import Api
from tests.build import asks, camera, leg, mode, raw
from tumbrel.trips.advice import begun
from tumbrel.working.watch import Abandoned

MODES = [mode("m", 4.0), mode("low", 2.0, 20.0, width_px=1920, height_px=1080)]
EMPTIES = raw([leg("way", 7200)], [asks("cam", "way")], [camera(modes=MODES)])


def lines(api: Api, target: dict[str, Any]) -> list[dict[str, Any]]:
    """The lines of a search."""
    body = json.dumps({"document": EMPTIES, "target": target})
    answer = api.client.post("/api/cures", body, content_type="application/json")
    assert answer.status_code == 200
    assert answer["Content-Type"] == "application/x-ndjson"
    return [json.loads(line) for line in answer.getvalue().splitlines()]


def test_cures_come_as_lines_and_the_outcome_last(api: Api) -> None:
    *found, last = lines(api, {"camera": "cam", "item": "way"})
    assert found[last["outcome"]["order"][0]]["cure"]["text"] == "Film way with Cam in LOW."
    assert all(one["outcome"] is None for one in found)
    assert found[0]["cure"]["plan"]["assignments"][0]["mode"] == "low"
    assert found[0]["cure"]["kit"] is None
    assert api.get("/trips") == []


def test_what_is_not_there_is_refused_at_once(api: Api) -> None:
    asked = {"document": EMPTIES, "target": {"camera": "cam", "item": "elsewhere"}}
    problem = api.post("/cures", asked, 422)
    assert "the gap is not there any more" in problem["detail"]
    broken = {"document": {**EMPTIES, "tumbrel": 7}, "target": {}}
    assert api.post("/cures", broken, 422)["faults"]


def test_when_whoever_asked_has_gone_the_search_ends_and_is_no_fault() -> None:
    def found() -> Iterator[bytes]:
        yield b"first"
        yield b"second"
        raise Abandoned

    assert list(begun(found())) == [b"first", b"second"]


def test_serving_and_picture_are_told_and_nothing_is_kept(api: Api) -> None:
    told = api.post("/serving", EMPTIES)
    assert told["legs"][0]["cameras"][0]["verdict"] == "well"
    assert any(one["what"] == "hand_held" for one in told["matrix"])
    picture = {"document": EMPTIES, "camera": "cam", "item": "way"}
    sums = {one["what"]: one["text"] for one in api.post("/picture", picture)["sums"]}
    assert sums["slowing"] == "up to 1.2 times slower"
    assert sums["light"].startswith("not known")
    wrong = api.post("/picture", {**picture, "camera": "gone"}, 422)
    assert wrong["faults"] == [{"path": "camera", "why": "'gone' is not in the document"}]
