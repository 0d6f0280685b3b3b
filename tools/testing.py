"""Every test, in steps that fill two processors: `python3 run.py test` calls this.

The core is built while the page is, while the page's units run, and what is to run on the plain
core (some of it once more on the built one), or hardly needs one. All else runs on the core in
machine code, by two workers, each with a server, data and a browser of its own; what needs the
machine to itself comes last. A step that fails stops none of the others.
"""

from __future__ import annotations

import argparse
import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Sequence
from contextlib import suppress
from dataclasses import dataclass, field
from pathlib import Path

import psutil

import run
from tools import durations
from tools.reach import Reached, changed_files, reached_by
from tumbrel.compiling import end_behind, is_built

CORE = ("tests/core", "tests/reference")
ROOTS = ("tests/test_run.py", "tests/test_reach.py", "tests/test_steps.py")
APPS = ("tests/apps", "tests/architecture", *ROOTS)
DRIVEN = ("tests/serving", "tests/e2e")
BOTH_FORMS = (
    "tests/core/test_vectors.py",
    "tests/core/test_properties.py",
    "tests/core/test_checkpoints.py",
)
TWO = ("-n", "2", "--dist", "load", "--maxschedchunk", "1")  # one by one: the long ones first
NO_TEST = 5  # pytest's word for it: a choice may leave a step without one
LIMIT_S = 25 * 60.0  # the longest step takes 8 min; beside four busy processes three times that
TOO_LONG = 124  # its exit code, as the shell's own


@dataclass(frozen=True)
class Step:
    """One run of pytest: which tests, on which form of the core, by how many workers."""

    name: str
    where: tuple[str, ...]
    marks: str
    built: bool = True
    workers: tuple[str, ...] = TWO


PLAIN = (  # by one worker: the other processor builds
    Step("wants the plain core", CORE, "plain", built=False, workers=()),
    Step("both forms, plain; apps", (*BOTH_FORMS, *APPS), "not plain", built=False, workers=()),
)
REST = (
    Step("core", CORE, "not plain"),
    Step("serving and browser", DRIVEN, "not alone"),
    Step("alone", DRIVEN, "alone", workers=()),
)


@dataclass
class Whole:
    """All steps of one run: what they took and which failed."""

    words: list[str]
    chromium: str
    chosen: Reached = field(default_factory=lambda: Reached(None, None))
    seconds: dict[str, float] = field(default_factory=dict)
    failed: list[str] = field(default_factory=list)

    def timed(self, name: str, do: Callable[[], bool]) -> None:
        """Do a step and note what it took, and whether it failed."""
        print(f"\n== {name}", flush=True)
        begun = time.monotonic()
        if not do():
            self.failed.append(name)
        self.seconds[name] = time.monotonic() - begun

    def pytest(self, step: Step) -> None:
        """A step of pytest, or of those of its tests that a change can reach."""
        where = chosen(step, self.chosen.tests)
        if not where:
            return
        env = run.environment(TUMBREL_CHROMIUM=self.chromium)
        env.pop("TUMBREL_PURE", None)
        if not step.built:
            env["TUMBREL_PURE"] = "1"
        words = [run.PYTHON, "-m", "pytest", "-q", "-m", step.marks, *step.workers, *where]
        is_choice = bool(self.words) or self.chosen.tests is not None
        fine = (0, NO_TEST) if is_choice else (0,)
        self.timed(step.name, lambda: done([*words, *self.words], env) in fine)

    def units_of_the_page(self) -> None:
        """The page's own tests, or those that a change of the page can reach."""
        if self.chosen.page is None:
            words = ["test"]
        elif self.chosen.page:
            src = [file.removeprefix("web/") for file in sorted(self.chosen.page)]
            words = ["exec", "--", "vitest", "related", "--run", "src/architecture.test.ts", *src]
        else:
            return
        npm = [run.npm() or "npm", *(["run", "--silent"] if words == ["test"] else []), *words]
        self.timed("units of the page", lambda: done(npm, run.environment(), run.WEB) == 0)


def done(
    words: Sequence[object],
    env: dict[str, str],
    cwd: Path = run.ROOT,
    limit_s: float = LIMIT_S,
) -> int:
    """Run a command to its end; its exit code, TOO_LONG if it was ended at the limit."""
    with subprocess.Popen([str(word) for word in words], cwd=cwd, env=env) as running:
        try:
            return running.wait(limit_s)
        except subprocess.TimeoutExpired:
            print(f"not done in {limit_s / 60:.0f} min, ended: {words[1:]}", flush=True)
            here = psutil.Process(running.pid)
            all_of_it = [*here.children(recursive=True), here]
            for process in all_of_it:
                with suppress(psutil.NoSuchProcess):
                    process.kill()
            psutil.wait_procs(all_of_it, timeout=10.0)
            return TOO_LONG


def chosen(step: Step, tests: frozenset[str] | None) -> list[str]:
    """Where a step looks for tests: all of its folders, or those files in them that are wanted."""
    if tests is None:
        return list(step.where)
    inside = [test for test in tests if test.startswith(step.where)]
    return sorted(test for test in inside if (run.ROOT / test).exists())


def begin_building() -> subprocess.Popen[bytes]:
    """Build the core and the second engine in machine code, unless that is done."""
    env = run.environment()
    env.pop("TUMBREL_PURE", None)
    words = [run.PYTHON, "-m", "tools.second", "--after-the-core"]
    return subprocess.Popen(words, env=env, start_new_session=True)


def first_steps(whole: Whole) -> None:
    """The page, its units, and what runs on the plain core."""
    run.set_up_web()
    run.set_up_node()
    whole.units_of_the_page()
    for step in PLAIN:
        whole.pytest(step)


def all_steps(whole: Whole) -> None:
    """The steps, the first ones while the core is being built.

    For a choice of tests nothing is built: they run on the core as it is here.
    """
    if whole.chosen.tests is None:
        building = begin_building()
        try:
            first_steps(whole)
            whole.timed("waiting for the built core", lambda: building.wait() in (0, 1))
        finally:
            end_behind(building)
    else:
        first_steps(whole)
    if not is_built():
        print("the core is not built here: all tests run on the plain one", flush=True)
    for step in REST:
        whole.pytest(step)


def main(arguments: Sequence[str]) -> int:
    """Run what is asked for; 1 when a step failed."""
    reader = argparse.ArgumentParser(prog="python3 run.py test", allow_abbrev=False)
    reader.add_argument("--core", action="store_true", help="only what needs no page")
    reader.add_argument("--changed", nargs="?", const="HEAD", metavar="COMMIT")
    reader.add_argument("--keep-durations", action="store_true", help=f"in {durations.KEPT.name}")
    asked, words = reader.parse_known_args(arguments)
    if any(not word.startswith("-") for word in words):
        return only(words)
    reached = Reached(None, None)
    if asked.changed is not None:
        try:
            files = changed_files(asked.changed)
        except ValueError as error:
            print(f"Tumbrel cannot go on: {error}", file=sys.stderr)
            return 2
        reached = reached_by(files)
        tell(asked.changed, files, reached)
        if not files:
            return 0
    with tempfile.TemporaryDirectory(prefix="tumbrel-durations-") as folder:
        os.environ[durations.FOLDER] = folder
        whole = Whole(words, "" if asked.core else run.find_chromium(), reached)
        begun = time.monotonic()
        if asked.core:
            whole.pytest(Step("core", ("tests/core",), "", built=False))
        else:
            all_steps(whole)
        whole.seconds["whole"] = time.monotonic() - begun
        took = durations.read(Path(folder))
    print(durations.told(took, whole.seconds), flush=True)
    if asked.keep_durations:
        durations.keep(took, whole.seconds)
    print(f"failed: {', '.join(whole.failed)}" if whole.failed else "all passed", flush=True)
    return 1 if whole.failed else 0


def only(words: Sequence[str]) -> int:
    """Some tests by name, on the core as it is here."""
    run.set_up_web()
    run.set_up_node()
    env = run.environment(TUMBREL_CHROMIUM=run.find_chromium())
    return done([run.PYTHON, "-m", "pytest", *words], env)


def tell(since: str, files: Sequence[str], reached: Reached) -> None:
    """Say what a change can reach."""
    kinds = {"tests": reached.tests, "modules of the page": reached.page}
    told = ", ".join(f"{'all' if x is None else len(x)} {name}" for name, x in kinds.items())
    print(f"{len(files)} files changed since {since} reach: {told}", flush=True)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
