"""Which tests a change can reach, for `python3 run.py test --changed`.

By the imports of both languages, and by what no import says: a module that another names in a
string (`-m tumbrel.site.serve`, an installed app), a file that one reads by its name or its
folder's, the conftest beside a test. What fits nowhere reaches everything.
"""

from __future__ import annotations

import ast
import re
import subprocess
from dataclasses import dataclass
from pathlib import Path

import grimp

ROOT = Path(__file__).resolve().parents[1]
PACKAGES = ("tumbrel", "tests", "tools", "benchmarks")
ALWAYS = frozenset({"tests/architecture/test_imports.py", "tests/core/test_model_pages.py"})
WHOLE = frozenset(
    {
        "run.py",
        "pyproject.toml",
        "requirements.lock",
        "requirements-dev.lock",
        "docs/formats/openapi.json",
        "docs/formats/parameters.json",
        "src/tumbrel/__init__.py",
        "src/tumbrel/compiled.py",
        "tests/conftest.py",
    }
)
UNSEEN = {"tests.apps.conftest": "tumbrel.site.settings"}  # named by pyproject.toml alone
TOPS = frozenset({"src", "tests", "docs", "web", "tumbrel"})
PROSE = frozenset({".md", ".png"})
PAGE_IMPORT = re.compile(r'(?:from |import |import\()"(\.[^"]+)"')
PLACED = frozenset({"__file__", "ROOT"})  # names by which a module finds files of the project
FEATURES = "features/"
PUTS_TOGETHER = "app/App.tsx"  # imports every place, each loaded when it is opened


@dataclass(frozen=True)
class Reached:
    """Tests that a change can reach; None for all of a kind."""

    tests: frozenset[str] | None
    page: frozenset[str] | None


def changed_files(since: str) -> list[str]:
    """Files changed since a commit, and those that git does not know yet. Raises ValueError."""
    told: list[str] = []
    for words in (
        ("diff", "--name-only", "--no-renames", since, "--"),
        ("ls-files", "--others", "--exclude-standard"),
    ):
        done = subprocess.run(
            ["git", *words], cwd=ROOT, capture_output=True, text=True, check=False
        )
        if done.returncode:
            raise ValueError(f"git knows no commit {since!r}: {done.stderr.strip()}")
        told += done.stdout.splitlines()
    return sorted(set(told))


def reached_by(files: list[str]) -> Reached:
    """The tests that a change of some files can reach; nothing for none."""
    graph = Graph()
    tests, page = set[str](), set[str]()
    for file in files:
        one = graph.reached_from(file)
        if one.tests is None:
            return Reached(None, None)
        tests |= one.tests
        page |= one.page or set()
    return Reached(frozenset(tests | ALWAYS) if files else frozenset(), frozenset(page))


class Graph:
    """Who needs whom, in both languages."""

    def __init__(self) -> None:
        self._imports = grimp.build_graph(*PACKAGES, cache_dir=None)
        self._paths = {name: path_of(name) for name in self._imports.modules}
        self._names = {path: name for name, path in self._paths.items()}
        self._strings = {name: strings_of(ROOT / path) for name, path in self._paths.items()}
        self._readers = [name for name in self._paths if self._strings[name] & PLACED]
        for name, strings in self._strings.items():
            for other in filter(None, map(self._named, strings)):
                self._link(name, other)
        for name, other in UNSEEN.items():
            self._link(name, other)
        for name in self._imports.modules:
            package = name
            while package := package.rpartition(".")[0]:
                if f"{package}.conftest" in self._paths and package != "tests":
                    self._link(name, f"{package}.conftest")
        self._page = page_imports(ROOT / "web" / "src")
        self._places = {name: places_of(ROOT / self._paths[name]) for name in self._browser()}

    def _named(self, text: str) -> str | None:
        """The module that a string names, or that holds what it names."""
        parts = text.split(".") if text.startswith(PACKAGES) else []
        for length in range(len(parts), 1, -1):
            if (name := ".".join(parts[:length])) in self._paths:
                return name
        return None

    def _link(self, name: str, other: str) -> None:
        """One needs another, and all that lies under it."""
        for each in {other, *self._imports.find_descendants(other)} - {name}:
            self._imports.add_import(importer=name, imported=each)

    def _browser(self) -> list[str]:
        return [name for name in self._paths if name.startswith("tests.e2e.test_")]

    def _tests_of(self, names: set[str]) -> frozenset[str]:
        tests = {name for name in names if name.rpartition(".")[2].startswith("test_")}
        return frozenset(self._paths[name] for name in tests)

    def reached_from(self, file: str) -> Reached:
        """The tests that one file can reach."""
        path = Path(file)
        if file in WHOLE:
            return Reached(None, None)
        if file in self._names:
            return Reached(self._tests_of(self._need({self._names[file]})), frozenset())
        if path.parts[0] == "web":
            return self._from_page(file)
        if path.suffix == ".py" and not (ROOT / file).exists() and len(path.parts) > 1:
            return Reached(frozenset(), frozenset())  # gone: who imported it has changed, too
        return self._from_data(path)

    def _need(self, names: set[str]) -> set[str]:
        """All that need some modules, and these."""
        return names.union(*(self._imports.find_downstream_modules(name) for name in names))

    def _from_page(self, file: str) -> Reached:
        """A module of the page reaches its units and those in the browser that open its places."""
        inner = file.removeprefix("web/src/")
        if inner not in self._page:
            return Reached(None, None)
        if ".test." in inner or inner.startswith("testing/"):
            return Reached(frozenset(), frozenset({file}))
        places = self._opened(inner)
        tests = {
            name
            for name, opens in self._places.items()
            if places is None or opens is None or places & opens
        }
        return Reached(self._tests_of(tests), frozenset({file}))

    def _opened(self, inner: str) -> set[str] | None:
        """The places that a module of the page is part of; None for all."""
        found, waiting = set[str](), [inner]
        seen = {PUTS_TOGETHER}
        while waiting:
            one = waiting.pop()
            if one in seen:
                if one == PUTS_TOGETHER == inner:
                    return None
                continue
            seen.add(one)
            if one.startswith(FEATURES):
                found.add(one.split("/")[1])
            elif one.startswith(("app/", "main")):
                return None
            waiting += [name for name, needs in self._page.items() if one in needs]
        return found or None

    def _from_data(self, path: Path) -> Reached:
        """A file that is read reaches who names it, or the folder that it lies in."""
        folders = set(path.parts[:-1])
        for names in ({path.name}, folders - TOPS, folders & {"docs"}):
            readers = {name for name in self._readers if names & self._strings[name]}
            if readers:
                return Reached(self._tests_of(self._need(readers)), self._units_on(path.name))
        if path.suffix in PROSE:
            return Reached(frozenset(), frozenset())
        return Reached(None, None)

    def _units_on(self, name: str) -> frozenset[str]:
        """Modules of the page that read a file by its name."""
        texts = ((one, ROOT / "web" / "src" / one) for one in self._page)
        named = (one for one, path in texts if name in path.read_text("utf-8"))
        return frozenset(f"web/src/{one}" for one in named)


def path_of(name: str) -> str:
    """Where a module stands, from the root."""
    top = Path("src") if name.split(".", maxsplit=1)[0] == "tumbrel" else Path()
    path = top.joinpath(*name.split("."))
    package = path / "__init__.py"
    return str(package if (ROOT / package).exists() else path.with_suffix(".py"))


def strings_of(path: Path) -> frozenset[str]:
    """Every string and every name that stands in a module."""
    nodes = list(ast.walk(ast.parse(path.read_text("utf-8"))))
    strings = {node.value for node in nodes if isinstance(node, ast.Constant)}
    names = {node.id for node in nodes if isinstance(node, ast.Name)}
    return frozenset(names | {value for value in strings if isinstance(value, str)})


def places_of(path: Path) -> frozenset[str] | None:
    """The places that tests in the browser say they open, `PLACES = {...}`; None if unsaid."""
    for node in ast.parse(path.read_text("utf-8")).body:
        if isinstance(node, ast.Assign) and getattr(node.targets[0], "id", "") == "PLACES":
            return frozenset(ast.literal_eval(node.value))
    return None


def page_imports(source: Path) -> dict[str, frozenset[str]]:
    """What each module of the page imports of the others, as paths from its sources."""
    files = [path for kind in ("*.ts", "*.tsx", "*.css") for path in source.rglob(kind)]
    known = {str(path.relative_to(source)) for path in files}
    found = {}
    for path in files:
        told = PAGE_IMPORT.findall(path.read_text("utf-8"))
        stems = [(path.parent / name).resolve().relative_to(source.resolve()) for name in told]
        ends = ("", ".ts", ".tsx", "/index.ts")
        needs = {f"{stem}{end}" for stem in stems for end in ends} & known
        found[str(path.relative_to(source))] = frozenset(needs)
    return found
