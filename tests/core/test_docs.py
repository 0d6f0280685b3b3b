"""The examples of the documents are run."""

from __future__ import annotations

import json
import re
from dataclasses import fields
from pathlib import Path

import pytest
from jsonschema import Draft202012Validator
from pydantic import TypeAdapter

from tests.reference.tracks import SAMPLES
from tumbrel.core.cli import main, schema_text
from tumbrel.core.document import Pattern, read_document
from tumbrel.core.formats.meter_log import read_meter
from tumbrel.core.formats.runs_table import read_runs
from tumbrel.core.parameters import DEFAULTS, Parameter

ROOT = Path(__file__).resolve().parents[2]
PAGE = (ROOT / "docs" / "formats" / "plan-file.md").read_text("utf-8")


def blocks(kind: str) -> list[str]:
    """Fenced blocks of a kind."""
    fenced = re.findall(r"^```(\w*)\n(.*?)^```", PAGE, re.M | re.S)
    return [text for name, text in fenced if name == kind]


def test_the_worked_example_comes_out_as_the_page_says(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    (plan,) = blocks("json")
    (told,) = blocks("")
    path = tmp_path / "plan.json"
    path.write_text(plan, "utf-8")
    assert main(["rehearse", str(path)]) == 1
    assert capsys.readouterr().out == told


def test_every_pattern_on_the_page_is_one_and_none_is_left_out() -> None:
    (lines,) = blocks("jsonl")
    known = TypeAdapter(Pattern)
    kinds = [known.validate_json(line).kind for line in lines.splitlines()]
    assert kinds == ["roll", "takes", "loop", "windows", "interval", "armed"]


def test_the_committed_schema_is_the_codes_own() -> None:
    assert (ROOT / "docs" / "formats" / "plan.schema.json").read_text("utf-8") == schema_text()


def test_the_example_holds_to_the_schema() -> None:
    schema = json.loads(schema_text())
    Draft202012Validator.check_schema(schema)
    checker = Draft202012Validator(schema)
    (plan,) = blocks("json")
    assert list(checker.iter_errors(json.loads(plan))) == []
    assert list(checker.iter_errors(json.loads(plan) | {"trip": {}})) != []


def test_the_demo_holds_to_the_schema(demo_text: bytes) -> None:
    assert (
        list(Draft202012Validator(json.loads(schema_text())).iter_errors(json.loads(demo_text)))
        == []
    )


def test_every_default_has_a_source_and_lies_in_its_range() -> None:
    values = [getattr(DEFAULTS, one.name) for one in fields(DEFAULTS)]
    kept = [value for value in values if isinstance(value, Parameter)]
    kept += list(DEFAULTS.feature_w.values())
    assert len(kept) > 20
    for parameter in kept:
        assert parameter.low <= parameter.value <= parameter.high
        assert parameter.source


def test_the_readme_names_only_commands_and_files_that_are_there() -> None:
    text = (ROOT / "README.md").read_text("utf-8")
    for name in re.findall(r"\]\(([^)]+)\)", text):
        assert (ROOT / name).exists(), name
    script = (ROOT / "run.py").read_text("utf-8")
    for command in re.findall(r"python3 run\.py ([a-z-]+)", text):
        assert f'"{command}":' in script


def tables() -> list[str]:
    """The tables of the page on bench runs."""
    page = (ROOT / "docs" / "formats" / "bench-runs.md").read_text("utf-8")
    return re.findall(r"^```csv\n(.*?)^```", page, re.M | re.S)


def test_the_table_of_bench_runs_is_read_as_its_page_says() -> None:
    (plan,) = blocks("json")
    camera = read_document(plan.encode()).kit.cameras[0]
    found = read_runs(tables()[0], [camera], "chin").runs
    assert [(one.minutes, one.end, one.air_mps) for one in found] == [
        (62.0, "empty", 0.0),
        (41.0, "hot", 0.0),
        (65.0, "empty", 1.5),
    ]


def test_the_meter_log_is_read_as_its_page_says() -> None:
    found = read_meter(tables()[1])
    assert (found.minutes, found.mean_w, found.wh) == (
        pytest.approx(60.0),
        pytest.approx(3.8),
        pytest.approx(3.8),
    )


@pytest.mark.parametrize("name", SAMPLES)
def test_the_tracks_to_try_are_what_their_code_writes(name: str) -> None:
    file = ROOT / "docs" / "formats" / "tracks" / f"{name}.gpx"
    assert file.read_bytes() == SAMPLES[name]().gpx()
    assert f"[{name}.gpx](tracks/{name}.gpx)" in (file.parents[1] / "tracks.md").read_text("utf-8")
