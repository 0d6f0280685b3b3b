"""A plan at which Tumbrel fails has an answer, and is kept for nobody but those who mend it."""

from __future__ import annotations

import json
import logging
import stat
from pathlib import Path
from typing import Any

import pytest
from django.conf import settings

from tests.apps.conftest import Api
from tests.build import asks, leg, raw
from tumbrel.core.document import PlanDocument, read_document
from tumbrel.core.rehearsal.engine.played import Played
from tumbrel.trips import kept_plans, rehearsing
from tumbrel.trips.kept_plans import FOLDER, keep_plan

Doc = dict[str, Any]


@pytest.fixture
def folder(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    """A data folder of its own, with nothing kept."""
    monkeypatch.setattr(settings, "DATA", tmp_path)
    return tmp_path / FOLDER


def plan(name: str = "Trial") -> Doc:
    asked = [asks("cam", "way", importance="must")]
    return raw([leg("way", 3600)], asked, trip={"name": name})


def broken(*_: object, **__: object) -> Played:
    raise KeyError("what somebody typed")


def test_a_plan_that_cannot_be_played_is_told_and_kept(
    api: Api, folder: Path, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    """Owner-only, as it can be read again; the log names the file, and nothing that was typed."""
    monkeypatch.setattr(rehearsing, "play_from", broken)
    monkeypatch.setattr(rehearsing, "play_once", broken)
    with caplog.at_level(logging.ERROR):
        told = api.post("/rehearsals", plan())
    assert told["verdict"]["headline"] == "Not rehearsed: Tumbrel failed at this plan."
    assert [one["code"] for one in told["findings"]] == ["engine_failed"]
    assert not told["verdict"]["covered"]
    (kept,) = folder.iterdir()
    assert stat.S_IMODE(kept.stat().st_mode) == 0o600
    assert stat.S_IMODE(folder.stat().st_mode) == 0o700
    assert read_document(kept.read_bytes()) == PlanDocument.model_validate(plan())
    assert f"{FOLDER}/{kept.name}" in caplog.text
    assert "(KeyError)" in caplog.text


def test_what_a_checkpoint_fails_at_is_played_from_its_start(
    api: Api, folder: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(rehearsing, "play_from", broken)
    told = api.post("/rehearsals", plan())
    assert told["verdict"]["covered"]
    assert len(list(folder.iterdir())) == 1  # it failed all the same


def test_a_ledger_that_does_not_balance_is_told_beside_what_can_be(
    api: Api, folder: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    play = rehearsing.play_from

    def leaking(*words: Any, **more: Any) -> Any:
        trip, known = play(*words, **more)
        trip.cameras[0].energy.drawn_wh += 1.0
        return trip, known

    monkeypatch.setattr(rehearsing, "play_from", leaking)
    told = api.post("/rehearsals", plan())
    stops = [one for one in told["findings"] if one["severity"] == "stop"]
    assert [(one["code"], one["camera"]) for one in stops] == [("does_not_balance", "cam")]
    assert told["cameras"][0]["filmed_ms"] == 3_600_000
    assert len(list(folder.iterdir())) == 1


def test_cards_and_variants_have_an_answer_too(
    api: Api, folder: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    trip = api.post("/plan-files", plan())
    monkeypatch.setattr(rehearsing, "play_once", broken)
    card = api.get(f"/trips/{trip['id']}/card")
    assert card["card"]["trip"] == "Trial"
    assert folder.exists()


def test_the_newest_twenty_are_kept_each_plan_once(folder: Path) -> None:
    for number in (*range(23), 22, 5):
        document = PlanDocument.model_validate(plan(f"Trial {number}"))
        assert keep_plan(document, "KeyError") is not None
    names = {json.loads(one.read_text())["trip"]["name"] for one in folder.iterdir()}
    assert len(names) == kept_plans.MOST_KEPT
    assert {"Trial 5", "Trial 22"} <= names


def test_a_folder_that_cannot_be_written_to_takes_no_answer_away(
    api: Api, folder: Path, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    folder.write_text("in the way")
    monkeypatch.setattr(rehearsing, "play_from", broken)
    with caplog.at_level(logging.ERROR):
        told = api.post("/rehearsals", plan())
    assert told["verdict"]["covered"]
    assert "could not be kept" in caplog.text
