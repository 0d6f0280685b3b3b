"""Build the core's hot modules in machine code: `python -m tumbrel.compiling`.

What is built is used from the next start on, by `compiled`. The same sources give the same results
to the last digit: nothing is contracted or reordered. Without a C compiler nothing is built.
"""

from __future__ import annotations

import argparse
import importlib
import os
import shutil
import signal
import subprocess
import sys
import sysconfig
import tempfile
import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

from .compiled import (
    BUILT_FOR_GOOD,
    HERE,
    PURE,
    builds,
    digest,
    find_in,
    hot_sources,
    name_of,
)

MAKING = "making-"
SLOWLY = "the core runs as plain Python, a third as fast"
KEPT = 2  # builds, so that one may go back to the sources of before
NO_CONTRACTION = "-ffp-contract=off"
LEVEL = "2"  # of the compiler's optimisation; the third gains nothing here
LEFT_OVER_S = 3600.0
CONFIG = """[mypy]
python_version = 3.11
plugins = pydantic.mypy
ignore_missing_imports = True
follow_imports = silent
"""


class CannotBuild(Exception):
    """Why nothing was built; the plain modules serve as well."""


def has_compiler() -> bool:
    """Whether a C compiler is there."""
    named = os.environ.get("CC") or sysconfig.get_config_var("CC") or "cc"
    return any(shutil.which(one) for one in (str(named).split()[0], "cc", "gcc", "clang"))


def is_built() -> bool:
    """Whether the sources as they are were built."""
    return (builds() / digest() / BUILT_FOR_GOOD).exists()


def build(level: str = LEVEL) -> Path:
    """Build the hot modules and put them where they are found; the folder. Raises CannotBuild."""
    if not has_compiler():
        raise CannotBuild("no C compiler is there")
    done = builds() / digest()
    builds().mkdir(parents=True, exist_ok=True)
    _drop_left_over()
    with tempfile.TemporaryDirectory(dir=builds(), prefix=MAKING) as making:
        words = [sys.executable, "-m", "tumbrel.compiling", "--into", making, "--level", level]
        told = subprocess.run(  # noqa: S603 - ourselves, in a process that may fail
            words,
            cwd=HERE.parent,
            env={**os.environ, PURE: "1", "PYTHONPATH": str(HERE.parent)},
            capture_output=True,
            text=True,
            check=False,
        )
        if told.returncode != 0:
            raise CannotBuild(_why(told.stdout + told.stderr))
        shutil.rmtree(done, ignore_errors=True)
        (Path(making) / "lib").rename(done)
    (done / BUILT_FOR_GOOD).touch()
    _drop_old(done)
    return done


def _why(told: str) -> str:
    """The first line that names an error, else the last one."""
    lines = [line.strip() for line in told.splitlines() if line.strip()]
    errors = [line for line in lines if "error" in line.lower()]
    return errors[0] if errors else lines[-1] if lines else "the compiler failed"


def _drop_left_over() -> None:
    """What builds that were cut off have left."""
    for one in builds().glob(f"{MAKING}*"):
        if time.time() - one.stat().st_mtime > LEFT_OVER_S:
            shutil.rmtree(one, ignore_errors=True)


def build_behind() -> subprocess.Popen[bytes] | None:
    """Begin to build in a process of its own that gives way to all others; None when not needed.

    Says in one line when there is nothing to build with.
    """
    if os.environ.get(PURE) or is_built():
        return None
    if not has_compiler():
        print(f"{SLOWLY}: no C compiler is there", flush=True)
        return None
    print("the core is being built in machine code, for the next start", flush=True)
    words = [sys.executable, "-m", "tumbrel.compiling", "--behind"]
    return subprocess.Popen(words, start_new_session=True)  # noqa: S603 - ourselves


def end_behind(building: subprocess.Popen[bytes] | None) -> None:
    """Stop a build that is under way; the next start begins it again."""
    if building is None or building.poll() is not None:
        return
    if os.name == "nt":
        building.terminate()
    else:
        os.killpg(building.pid, signal.SIGTERM)
    building.wait()


def _drop_old(newest: Path) -> None:
    old = [one for one in builds().iterdir() if (one / BUILT_FOR_GOOD).exists() and one != newest]
    for one in sorted(old, key=lambda each: each.stat().st_mtime)[: -(KEPT - 1)]:
        shutil.rmtree(one, ignore_errors=True)


def _make(folder: Path, level: str) -> None:
    """The core's hot modules, and import them; ends the process when one of these fails."""
    sources = hot_sources()
    translate([str(path.relative_to(HERE.parent)) for path in sources], folder, level)
    names = [name_of(path) for path in sources]
    find_in(folder / "lib", names)
    for name in names:
        importlib.import_module(name)


def translate(sources: list[str], folder: Path, level: str = LEVEL) -> None:
    """Translate modules, named from where we are, and compile them into `lib` of a folder."""
    from mypyc.build import mypycify  # noqa: PLC0415 - only here, and slow to import
    from setuptools import Distribution  # noqa: PLC0415 - as above
    from setuptools.command.build_ext import build_ext  # noqa: PLC0415 - as above

    config = folder / "mypy.ini"
    config.write_text(CONFIG, encoding="ascii")
    found = mypycify(
        ["--config-file", str(config), "--cache-dir", str(folder / "cache"), *sources],
        opt_level=level,
        debug_level="0",
        target_dir=str(folder / "c"),
        multi_file=True,
    )
    for extension in found:
        if os.name != "nt":
            extension.extra_compile_args.append(NO_CONTRACTION)
    command = build_ext(Distribution({"name": "tumbrel-core", "ext_modules": found}))
    in_turn = command.build_extensions

    def at_once() -> None:  # the compiler is there from here on
        command.compiler.compile = _on_each_processor(command.compiler.compile)
        in_turn()

    command.build_extensions = at_once
    command.build_lib = str(folder / "lib")
    command.build_temp = str(folder / "objects")
    command.ensure_finalized()
    command.run()


def _on_each_processor(compile_all: Callable[..., list[str]]) -> Callable[..., list[str]]:
    """Compile files side by side; by itself a compiler takes one after the other."""

    def side_by_side(sources: list[str], **asked: Any) -> list[str]:
        with ThreadPoolExecutor(os.cpu_count()) as pool:
            made = pool.map(lambda source: compile_all([source], **asked), sources)
            return [file for files in made for file in files]

    return side_by_side


def main(words: list[str] | None = None) -> int:
    """Build unless that is done, and say in one line what came of it."""
    reader = argparse.ArgumentParser(prog="python -m tumbrel.compiling")
    reader.add_argument("--level", default=LEVEL, choices="0123", help="of optimisation")
    reader.add_argument("--behind", action="store_true", help="give way to all other processes")
    reader.add_argument("--into", type=Path, help="only build, into a folder")
    asked = reader.parse_args(words)
    if asked.into is not None:
        _make(asked.into, asked.level)
        return 0
    if asked.behind and hasattr(os, "nice"):
        os.nice(15)
    try:
        if not is_built():
            build(asked.level)
    except CannotBuild as error:
        print(f"{SLOWLY}: {error}", flush=True)
        return 1
    print("the core is built in machine code; the next start uses it", flush=True)
    return 0


if __name__ == "__main__":
    sys.exit(main())
