"""Who may import whom: the core knows nothing of the site, and apps reach it by their own doors."""

from __future__ import annotations

import ast
from pathlib import Path

import grimp
import pytest

from tools.imports import PAGE, circles, drawn, packages
from tumbrel.bench.models import BenchNotebook, BenchStep
from tumbrel.history.models import Owned
from tumbrel.kit.models import Kit, KitStep
from tumbrel.trips.models import CardMade, CardTick, Trip, TripStep

SRC = Path(__file__).resolve().parents[2] / "src" / "tumbrel"
CORE = SRC / "core"
APPS = ("history", "kit", "bench", "trips", "site")
ORDER = ("state", "trip", "stock", "power", "camera", "hands", "engine", "result")
CLOCKS_AND_FILES = {"time", "pathlib", "os", "io", "socket", "urllib", "requests", "sqlite3"}
OUTSIDE_MAY = {"cli.py", "cli_card.py", "cli_clips.py"}  # and everything under formats/
ROWS = (CardMade, CardTick, Kit, KitStep, Trip, TripStep, BenchNotebook, BenchStep)
IN_MEMORY_ONLY = {"snapshot.py": {"io"}, "rows.py": {"io"}}  # bytes and pasted text, never files


@pytest.fixture(scope="module")
def graph() -> grimp.ImportGraph:
    """All imports of the package."""
    return grimp.build_graph("tumbrel", include_external_packages=True, cache_dir=None)


def imported(path: Path) -> set[str]:
    """Top-level names that a module imports, wherever in it."""
    names: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        if isinstance(node, ast.Import):
            names |= {alias.name.split(".")[0] for alias in node.names}
        elif isinstance(node, ast.ImportFrom) and node.level == 0 and node.module:
            names.add(node.module.split(".")[0])
    return names


def modules(folder: Path) -> list[Path]:
    return sorted(folder.rglob("*.py"))


def test_the_core_imports_no_app_and_no_framework(graph: grimp.ImportGraph) -> None:
    core = {m for m in graph.modules if m == "tumbrel.core" or m.startswith("tumbrel.core.")}
    for module in core:
        for other in graph.find_modules_directly_imported_by(module):
            assert not other.startswith(("django", "ninja", "waitress")), (module, other)
            assert other in core or not other.startswith("tumbrel."), (module, other)


@pytest.mark.parametrize("path", modules(CORE), ids=lambda path: str(path.relative_to(CORE)))
def test_the_core_has_no_clock_no_files_and_no_randomness(path: Path) -> None:
    if path.name in OUTSIDE_MAY or "formats" in path.parts:
        return
    barred = CLOCKS_AND_FILES | {"random", "secrets"}
    assert not imported(path) & (barred - IN_MEMORY_ONLY.get(path.name, set()))
    assert "datetime.now" not in path.read_text("utf-8")


@pytest.mark.parametrize("root", ["tumbrel", "tumbrel.core", "tumbrel.core.rehearsal"])
def test_no_packages_import_each_other_in_a_circle(root: str) -> None:
    assert circles(packages(root, grimp.build_graph("tumbrel", cache_dir=None))) == []


def test_the_rehearsals_packages_import_only_those_before_them(graph: grimp.ImportGraph) -> None:
    found = packages("tumbrel.core.rehearsal", graph)
    for number, name in enumerate(ORDER):
        assert found[name] <= set(ORDER[:number]), name
    assert set(found) == set(ORDER)


def test_only_preparing_sees_the_document(graph: grimp.ImportGraph) -> None:
    """Beyond the first door nobody takes a whole document."""
    for path in modules(CORE / "rehearsal"):
        if path.parent.name == "trip" or path.name == "checkpoints.py":
            continue
        assert "PlanDocument" not in path.read_text("utf-8"), path
    for path in modules(CORE / "findings"):
        assert "PlanDocument" not in path.read_text("utf-8"), path


def test_findings_see_a_record_and_never_the_engine(graph: grimp.ImportGraph) -> None:
    engine = ("engine", "hands.hands", "power", "camera.camera_run")
    barred = tuple(f"tumbrel.core.rehearsal.{part}" for part in engine)
    for module in graph.modules:
        if module.startswith("tumbrel.core.findings"):
            for other in graph.find_modules_directly_imported_by(module):
                assert not other.startswith(barred), (module, other)


def test_the_drawn_imports_are_those_that_are() -> None:
    whole = grimp.build_graph("tumbrel", cache_dir=None)
    for root in ("tumbrel", "tumbrel.core", "tumbrel.core.rehearsal"):
        assert drawn(root, packages(root, whole)) in PAGE.read_text("utf-8"), "run.py describe"


def test_no_class_of_the_core_is_named_twice() -> None:
    names: dict[str, list[str]] = {}
    for path in modules(CORE):
        for node in ast.parse(path.read_text("utf-8")).body:
            if isinstance(node, ast.ClassDef) and not node.name.startswith("_"):
                names.setdefault(node.name, []).append(path.stem)
    assert {name: where for name, where in names.items() if len(where) > 1} == {}


def test_apps_reach_the_engine_only_through_to_core_and_api(graph: grimp.ImportGraph) -> None:
    """Rules never live in rows, actions or queries: these do not import the rehearsal."""
    for app in ("kit", "bench", "trips", "history"):
        for part in ("models", "queries", "schemas", "uses"):
            name = f"tumbrel.{app}.{part}"
            if name not in graph.modules:
                continue
            for other in graph.find_modules_directly_imported_by(name):
                assert not other.startswith("tumbrel.core.rehearsal"), (name, other)
                assert not other.startswith("tumbrel.core.findings"), (name, other)


def test_rows_know_no_http(graph: grimp.ImportGraph) -> None:
    for app in ("kit", "bench", "trips", "history"):
        for part in ("models", "actions", "queries", "to_core", "uses", "steps", "refusals"):
            name = f"tumbrel.{app}.{part}"
            if name not in graph.modules:
                continue
            others = graph.find_modules_directly_imported_by(name)
            assert "django.http" not in others, name
            assert not any(other.startswith("tumbrel.site") for other in others), name


def test_every_query_goes_through_the_owner_scope() -> None:
    """`.objects` is followed by `.of(owner)`, or by `create(owner=…)`; nothing else touches it."""
    for app in APPS:
        for path in modules(SRC / app):
            if "migrations" in path.parts:
                continue
            for number, line in enumerate(path.read_text("utf-8").splitlines(), 1):
                if ".objects." not in line or "User" in line or "get_user_model" in line:
                    continue
                after = line.split(".objects.", 1)[1]
                assert after.startswith(("of(", "in_bin_of(", "create(owner=")), (
                    f"{path}:{number}: {line}"
                )


def test_every_row_of_an_app_has_an_owner() -> None:
    assert all(issubclass(row, Owned) for row in ROWS)


def test_no_bare_except_and_no_swallowed_failure() -> None:
    for path in modules(SRC):
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            if isinstance(node, ast.ExceptHandler):
                assert node.type is not None, f"{path}:{node.lineno}"
                only_pass = len(node.body) == 1 and isinstance(node.body[0], ast.Pass)
                assert not only_pass, f"{path}:{node.lineno}"
