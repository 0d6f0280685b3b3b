"""The pages of the model: examples that run, parameters told once, places that are cited exist."""

from __future__ import annotations

import re
from dataclasses import fields
from pathlib import Path

import pytest

from tools.model import PAGES, named, told
from tumbrel.core.parameters import DEFAULTS, Parameter

ROOT = Path(__file__).resolve().parents[2]
TOPICS = sorted(path for path in PAGES.glob("*.md") if path.name != "README.md")
CITED = re.compile(r"\bmodel/([a-z]+)#([a-z][a-z-]*)")
RULE = re.compile(r"\bE1?\d(?:\.\d+[a-z]?)\b")
SOURCES = ("src", "tests", "benchmarks", "tools", "web/src", "docs")
KINDS = {".py", ".ts", ".tsx", ".md", ".json"}


def texts() -> list[tuple[Path, str]]:
    """Everything that is written by hand or described from it."""
    paths = [path for folder in SOURCES for path in sorted((ROOT / folder).rglob("*"))]
    kept = [path for path in paths if path.suffix in KINDS and "node_modules" not in path.parts]
    return [(path, path.read_text("utf-8")) for path in kept]


def anchors(page: str) -> set[str]:
    """Places of a page, as its headings are linked to."""
    return {
        re.sub(r"[^a-z0-9 -]", "", heading.lower()).strip().replace(" ", "-")
        for heading in re.findall(r"^## (.+)$", page, re.M)
    }


@pytest.mark.parametrize("path", TOPICS, ids=lambda path: path.stem)
def test_the_examples_of_a_topic_come_out_as_they_say(path: Path) -> None:
    page = path.read_text("utf-8")
    examples = re.findall(r"^```python\n(.*?)^```", page, re.M | re.S)
    assert examples
    for example in examples:
        assert "assert" in example
        exec(compile(example, path.name, "exec"), {})


@pytest.mark.parametrize("path", TOPICS, ids=lambda path: path.stem)
def test_a_topic_names_its_source(path: Path) -> None:
    assert re.search(r"^Sources?: ", path.read_text("utf-8"), re.M)


def test_every_place_that_is_cited_exists() -> None:
    known = {path.stem: anchors(path.read_text("utf-8")) for path in TOPICS}
    cited = {pair for _, text in texts() for pair in CITED.findall(text)}
    assert len(cited) > 30
    assert {(page, at) for page, at in cited if at not in known.get(page, set())} == set()


def test_every_place_of_the_model_is_cited_by_the_code_or_only_explains() -> None:
    core = "".join(text for path, text in texts() if "core" in path.parts)
    uncited = {
        f"{path.stem}#{at}"
        for path in TOPICS
        for at in anchors(path.read_text("utf-8")) - {"example", "parameters"}
        if f"model/{path.stem}#{at}" not in core
    }
    assert uncited == set()


def test_no_rule_is_cited_by_a_number_alone() -> None:
    found = [str(path) for path, text in texts() if RULE.search(text) and path != Path(__file__)]
    assert found == []


def test_every_parameter_is_told_on_one_page_with_its_range_and_a_source() -> None:
    pages = [path.read_text("utf-8") for path in TOPICS]
    assert [told(page) for page in pages] == pages, "run python3 run.py describe"
    names = [name for page in pages for name in named(page)]
    mine = [f.name for f in fields(DEFAULTS) if isinstance(getattr(DEFAULTS, f.name), Parameter)]
    assert sorted(names) == sorted([*mine, "feature_w"])
    assert all(len(getattr(DEFAULTS, name).source) > 3 for name in mine)


def test_links_between_pages_lead_somewhere() -> None:
    link = re.compile(r"\]\(([\w/.-]+\.md)(?:#([\w-]+))?\)")
    for path in [*TOPICS, PAGES / "README.md"]:
        for target, at in link.findall(path.read_text("utf-8")):
            other = (path.parent / target).resolve()
            assert other.exists(), (path.name, target)
            assert not at or at in anchors(other.read_text("utf-8")), (path.name, target, at)
