"""Documents of every schema are read by the present one; newer ones are refused by number."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from tests.build import asks, leg, raw
from tumbrel.core.document import BadDocument, Kit, read_document, versions, write_document
from tumbrel.core.document.versions import CURRENT, brought_up, numbered
from tumbrel.core.report import rehearse

SAMPLES = Path(__file__).resolve().parents[2] / "vectors"
FIRST, SECOND = (sorted((SAMPLES / f"schema-{n}").glob("*.json")) for n in (1, 2))


@pytest.mark.parametrize("path", FIRST, ids=lambda path: path.stem)
def test_a_file_of_the_first_schema_reads_as_that_of_the_second(path: Path) -> None:
    assert json.loads(path.read_bytes())["tumbrel"] == 1
    later = SAMPLES / "schema-2" / path.name
    assert read_document(path.read_bytes()) == read_document(later.read_bytes())


@pytest.mark.parametrize("path", SECOND, ids=lambda path: path.stem)
def test_in_a_file_of_the_second_schema_nothing_takes_time_to_move(path: Path) -> None:
    assert json.loads(path.read_bytes())["tumbrel"] == 2
    document = read_document(path.read_bytes())
    assert {(one.move_s, one.move_gloved_s) for one in document.kit.cameras} == {(0.0, 0.0)}
    assert all(move.kind != "move" for move in rehearse(document).moves)
    cameras = json.loads(path.read_bytes())["kit"]["cameras"]
    kit = brought_up({"tumbrel": 2, "cameras": cameras}, "kit")
    assert Kit.model_validate({**kit, "families": document.kit.families}).cameras


def test_there_are_samples_of_every_schema_before_this_one() -> None:
    kept = sorted(int(path.name.removeprefix("schema-")) for path in SAMPLES.glob("schema-*"))
    assert kept == list(range(1, CURRENT))
    assert sorted(versions.UPGRADES) == kept


def test_what_is_written_says_the_present_number() -> None:
    text = write_document(read_document(FIRST[0].read_bytes()))
    assert json.loads(text)["tumbrel"] == CURRENT


def test_rows_without_a_number_are_of_the_first_schema() -> None:
    kit = Kit().model_dump(mode="json")
    assert brought_up(kit, "kit") == brought_up(numbered(kit), "kit") == kit


@pytest.mark.parametrize("number", [0, -1, CURRENT + 1, 10**30, "1", 1.5, True, None, [1]])
def test_a_number_that_is_none_or_newer_is_refused_and_told(number: Any) -> None:
    with pytest.raises(BadDocument, match=r"tumbrel: is .*reads 1 to"):
        brought_up({"tumbrel": number, "cameras": []}, "kit")
    document = {**raw([leg("way", 60)], [asks("cam", "way")]), "tumbrel": number}
    with pytest.raises(BadDocument, match=r"tumbrel"):
        read_document(json.dumps(document))


def test_steps_follow_each_other_and_leave_what_was_kept_as_it_was(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    def renamed(old: str, new: str) -> Any:
        return lambda given, _kind: {new if k == old else k: v for k, v in given.items()}

    monkeypatch.setattr(versions, "CURRENT", 6)
    monkeypatch.setitem(versions.UPGRADES, 4, renamed("a", "b"))
    monkeypatch.setitem(versions.UPGRADES, 5, renamed("b", "c"))
    kept = {"a": 1}
    assert brought_up(kept, "trip") == {"c": 1}
    assert brought_up({"tumbrel": 5, "b": 1}, "trip") == {"c": 1}
    assert brought_up({"tumbrel": 6, "c": 1}, "trip") == {"c": 1}
    assert kept == {"a": 1}
