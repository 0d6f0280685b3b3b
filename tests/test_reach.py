"""Which tests a change can reach: too many are a wait, one too few is a fault unseen."""

from __future__ import annotations

from pathlib import Path

import pytest

from tools import reach
from tools.reach import Graph, Reached

ROOT = reach.ROOT
SOME = [
    ("src/tumbrel/core/cli_clips.py", "tests/core/bench/test_clips.py", "tests/e2e/"),
    ("src/tumbrel/core/sums/power.py", "tests/core/sums/test_answering.py", "tests/reference/"),
    ("src/tumbrel/core/heat.py", "tests/reference/test_two_engines.py", "tests/test_run"),
    ("tests/reference/second/world.py", "tests/reference/test_two_engines.py", "tests/apps/"),
    ("tests/apps/conftest.py", "tests/apps/test_kits.py", "tests/serving/"),
    ("docs/model/heat.md", "tests/core/test_model_pages.py", "tests/apps/"),
    ("docs/formats/plan-file.md", "tests/core/test_docs.py", "tests/e2e/"),
    ("tests/vectors/units.json", "tests/core/report/test_outcome.py", "tests/e2e/"),
    ("web/src/features/bench/BenchPlace.tsx", "tests/e2e/test_bench.py", "tests/serving/"),
]


@pytest.fixture(scope="module")
def graph() -> Graph:
    return Graph()


@pytest.mark.parametrize(("file", "reached", "left"), SOME)
def test_a_file_reaches_what_needs_it_and_no_more(
    graph: Graph, file: str, reached: str, left: str
) -> None:
    assert (ROOT / file).exists()
    tests = graph.reached_from(file).tests
    assert tests is not None
    assert reached in tests
    assert not [one for one in tests if one.startswith(left)]


@pytest.mark.parametrize(
    "file",
    [
        "src/tumbrel/site/problems.py",  # named by the settings, in a string
        "src/tumbrel/kit/models.py",  # an installed app's
        "src/tumbrel/core/rehearsal/engine/played.py",
        "src/tumbrel/demo/ostrel-crossing.json",  # read by its folder's name
        "tools/driving.py",
    ],
)
def test_what_is_served_reaches_the_tests_of_servers_and_pages(graph: Graph, file: str) -> None:
    assert (ROOT / file).exists()
    tests = graph.reached_from(file).tests
    assert tests is not None
    assert {"tests/serving/test_busy.py", "tests/e2e/test_working.py"} <= tests


NOBODYS = ".".join(("odd", "file"))  # in one piece this file would name it


@pytest.mark.parametrize("file", ["run.py", "tests/conftest.py", NOBODYS, "web/package.json"])
def test_what_fits_nowhere_reaches_everything(graph: Graph, file: str) -> None:
    assert graph.reached_from(file) == Reached(None, None)


def test_a_place_reaches_the_tests_that_open_it_alone(graph: Graph) -> None:
    """A module of one place; one that several share; one that is part of every place."""
    bench = graph.reached_from("web/src/features/bench/ClipsIn.tsx").tests
    every = graph.reached_from("web/src/app/Shell.tsx").tests
    assert bench is not None
    assert every is not None
    assert "tests/e2e/test_bench.py" in bench
    assert "tests/e2e/test_sums.py" in every - bench
    assert every == {str(one.relative_to(ROOT)) for one in (ROOT / "tests/e2e").glob("test_*.py")}


def test_a_vector_that_both_languages_read_reaches_both(graph: Graph) -> None:
    reached = graph.reached_from("tests/vectors/edits.json")
    assert reached.tests == {"tests/core/test_edits.py"}
    assert reached.page == {"web/src/domain/edits.vectors.test.ts"}


def test_units_of_the_page_go_by_its_own_imports(graph: Graph) -> None:
    reached = graph.reached_from("web/src/domain/clock.test.ts")
    assert reached == Reached(frozenset(), frozenset({"web/src/domain/clock.test.ts"}))


def test_every_test_is_found_by_its_own_change(graph: Graph) -> None:
    files = [str(one.relative_to(ROOT)) for one in (ROOT / "tests").rglob("test_*.py")]
    assert len(files) > 80
    assert [one for one in files if one not in (graph.reached_from(one).tests or ())] == []


def test_nothing_changed_reaches_nothing_and_several_add_up(
    graph: Graph, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(reach, "Graph", lambda: graph)
    assert reach.reached_by([]).tests == frozenset()
    both = reach.reached_by(["docs/model/heat.md", "tests/core/sums/test_answering.py"]).tests
    assert both == reach.ALWAYS | {"tests/core/sums/test_answering.py"}


def test_an_unknown_commit_is_said() -> None:
    with pytest.raises(ValueError, match="git knows no commit 'nowhere'"):
        reach.changed_files("nowhere")


def test_files_that_git_does_not_know_yet_count(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    def git(*words: str) -> None:
        reach.subprocess.run(["git", *words], cwd=tmp_path, check=True, capture_output=True)

    monkeypatch.setattr(reach, "ROOT", tmp_path)
    git("init", "-q")
    (tmp_path / "kept").write_text("1")
    git("add", "kept")
    git("-c", "user.name=a", "-c", "user.email=a@b.example", "commit", "-qm", "first")
    assert reach.changed_files("HEAD") == []
    (tmp_path / "kept").write_text("2")
    (tmp_path / "new").write_text("1")
    assert reach.changed_files("HEAD") == ["kept", "new"]
