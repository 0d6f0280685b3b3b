#!/usr/bin/env python3
"""Everything that Tumbrel needs done, with nothing but Python's standard library.

python3 run.py demo         set up, load the demo trips, serve, print the address
python3 run.py test         set up and run every test; more words go to pytest
python3 run.py test --core  only the core's rules
python3 run.py test --changed  only what the changes since the last commit can reach
python3 run.py serve        the same as demo, without loading the demo trips
python3 run.py backup FILE   everything into one file, while it runs or not
python3 run.py restore FILE  everything as it was in such a file; what was there is kept beside
python3 run.py check        ruff, mypy, import rules, drift, eslint, prettier, tsc
python3 run.py shots        take the pictures of docs/screenshots
python3 run.py benchmarks   print the figures of speed and size
python3 run.py reset-demo   put the demo trips back as they came
python3 run.py describe     write the API's and the plan file's descriptions anew
"""

from __future__ import annotations

import argparse
import hashlib
import os
import shutil
import socket
import subprocess
import sys
import venv
from collections.abc import Iterable, Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

ROOT = Path(__file__).resolve().parent
VENV = ROOT / ".venv"
WEB = ROOT / "web"
DIST = WEB / "dist"
WINDOWS = os.name == "nt"
BIN = VENV / ("Scripts" if WINDOWS else "bin")
PYTHON = BIN / ("python.exe" if WINDOWS else "python")
DEFAULT_PORT = 8737
NEEDS_PYTHON = (3, 11)
NEEDS_NODE = 20
UV = "uv==0.13.9"
CHROMIUM_NAMES = (
    "chromium-headless-shell",
    "chromium",
    "chromium-browser",
    "google-chrome",
    "chrome",
)
LOCK_RUN = ROOT / "requirements.lock"
LOCK_DEV = ROOT / "requirements-dev.lock"


class CannotGoOn(Exception):
    """Something is missing that this script cannot get; the text says what to do."""


def main(arguments: Sequence[str]) -> int:
    """Run one command and return its exit code."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("command", choices=sorted(COMMANDS))
    parser.add_argument("--port", type=int, help=f"for demo and serve; {DEFAULT_PORT} if free")
    chosen, rest = parser.parse_known_args(arguments)
    try:
        check_versions()
        return COMMANDS[chosen.command](chosen.port, rest)
    except CannotGoOn as error:
        print(f"Tumbrel cannot go on: {error}", file=sys.stderr)
        return 2
    except subprocess.CalledProcessError as error:
        print(f"This step failed: {' '.join(map(str, error.cmd))}", file=sys.stderr)
        return error.returncode or 1
    except KeyboardInterrupt:
        return 0


# -- what is there -------------------------------------------------------------------


def check_versions() -> None:
    """Raise CannotGoOn, in one line, when Python, Node or npm are missing or too old."""
    if sys.version_info < NEEDS_PYTHON:
        have = ".".join(map(str, sys.version_info[:3]))
        raise CannotGoOn(f"it needs Python 3.11 or newer and this is {have}; start it with that.")
    if DIST.exists() and not sources_changed():
        return  # built already: serving needs no Node
    node = shutil.which("node")
    if node is None or npm() is None:
        raise CannotGoOn("it needs Node 20 or newer with npm on the PATH; install it first.")
    told = subprocess.run([node, "--version"], capture_output=True, text=True, check=True).stdout
    if int(told.strip().lstrip("v").split(".")[0]) < NEEDS_NODE:
        raise CannotGoOn(f"it needs Node 20 or newer and this is {told.strip()}; update Node.")


def npm() -> str | None:
    """The npm on the PATH (a .cmd on Windows)."""
    return shutil.which("npm")


def run(*words: str | Path, cwd: Path = ROOT, env: dict[str, str] | None = None) -> None:
    """Run a step. Raises CalledProcessError when it fails."""
    subprocess.run([str(w) for w in words], cwd=cwd, env=env or environment(), check=True)


def environment(**more: str) -> dict[str, str]:
    """The environment of every step: the sources on the path, colours off in logs."""
    path = os.pathsep.join(filter(None, [str(ROOT / "src"), os.environ.get("PYTHONPATH", "")]))
    own = {"PYTHONPATH": path, "DJANGO_SETTINGS_MODULE": SETTINGS, **more}
    kept = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    return {**kept, **own}  # compiled modules make the second start a fast one


SETTINGS = "tumbrel.site.settings"


def digest(paths: Iterable[Path]) -> str:
    """One digest over the names and contents of files."""
    whole = hashlib.sha256()
    for path in sorted(paths):
        whole.update(str(path.relative_to(ROOT)).encode())
        whole.update(path.read_bytes())
    return whole.hexdigest()


def is_stamped(stamp: Path, value: str) -> bool:
    """Whether a step was done for just this input."""
    return stamp.exists() and stamp.read_text(encoding="ascii") == value


# -- setting up ----------------------------------------------------------------------


def set_up_python(*, dev: bool) -> None:
    """Make the virtual environment and install the locked pins, unless that is done."""
    lock = LOCK_DEV if dev else LOCK_RUN
    stamp = VENV / f"stamp-{lock.stem}"
    value = digest([lock, ROOT / "pyproject.toml"])
    if PYTHON.exists() and is_stamped(stamp, value):
        return
    if not PYTHON.exists():
        print("making the virtual environment …", flush=True)
        venv.create(VENV, with_pip=True, clear=VENV.exists())
    print(f"installing {lock.name} …", flush=True)
    install = installer()
    run(*install, "-r", lock)
    run(*install, "--no-deps", "-e", ROOT)
    stamp.write_text(value, encoding="ascii")


def installer() -> list[str | Path]:
    """The words that install: uv when it can be had, else pip."""
    uv = BIN / ("uv.exe" if WINDOWS else "uv")
    pip: list[str | Path] = [PYTHON, "-m", "pip", "install", "-q", "--disable-pip-version-check"]
    if not uv.exists() and shutil.which("uv") is None:
        subprocess.run([*pip, UV], cwd=ROOT, check=False)
    found = uv if uv.exists() else shutil.which("uv")
    return [found, "pip", "install", "-q", "--python", PYTHON] if found else pip


def web_sources() -> list[Path]:
    """Everything that the built page is made from."""
    kept = [path for path in (WEB / "src").rglob("*") if path.is_file()]
    tops = [path for path in WEB.iterdir() if path.is_file() and path.suffix != ".tsbuildinfo"]
    public = [path for path in (WEB / "public").rglob("*") if path.is_file()]
    made = {WEB / "src" / name for name in MADE_OF_THE_API}
    return [p for p in [*kept, *tops, *public, OPENAPI, PARAMETERS] if p not in made]


MADE_OF_THE_API = ("api/schema.d.ts", "domain/limits.ts", "domain/assumed.ts")
OPENAPI = ROOT / "docs" / "formats" / "openapi.json"
PARAMETERS = ROOT / "docs" / "formats" / "parameters.json"
PLAN_SCHEMA = ROOT / "docs" / "formats" / "plan.schema.json"
REFERS = WEB / "src" / "domain" / "refers.json"
BUILT = DIST / "stamp"


def sources_changed() -> bool:
    """Whether the page must be built anew."""
    return not is_stamped(BUILT, digest(web_sources()))


def set_up_node() -> None:
    """Install the locked packages and make the API's types, unless that is done."""
    stamp = WEB / "node_modules" / ".tumbrel-stamp"
    value = digest([WEB / "package-lock.json"])
    if not is_stamped(stamp, value):
        print("installing the page's packages …", flush=True)
        run(npm() or "npm", "ci", "--no-audit", "--no-fund", cwd=WEB)
        stamp.write_text(value, encoding="ascii")
    run(npm() or "npm", "run", "--silent", "types", cwd=WEB)


def set_up_web() -> None:
    """Build the page when its sources changed."""
    if not sources_changed():
        return
    set_up_node()
    print("building the page …", flush=True)
    run(npm() or "npm", "run", "--silent", "build", cwd=WEB)
    BUILT.write_text(digest(web_sources()), encoding="ascii")


def find_chromium() -> str:
    """The Chromium of the tests: named by TUMBREL_CHROMIUM, found, or installed with apt."""
    named = os.environ.get("TUMBREL_CHROMIUM")
    found = named or next(filter(None, map(shutil.which, CHROMIUM_NAMES)), None)
    if found is None and shutil.which("apt-get") and hasattr(os, "geteuid") and os.geteuid() == 0:
        print("installing Chromium …", flush=True)
        run("apt-get", "update", "-q")
        apt = ("apt-get", "install", "-y", "-q", "--no-install-recommends")
        run(*apt, CHROMIUM_NAMES[0], "fonts-liberation")
        found = shutil.which(CHROMIUM_NAMES[0])
    if found is None:
        raise CannotGoOn(
            "the tests drive the page in Chromium. Install it (on Debian, as root: apt-get install "
            "chromium) or name one in TUMBREL_CHROMIUM."
        )
    return found


# -- the commands --------------------------------------------------------------------


def free_port(wanted: int | None) -> int:
    """The wanted port; without one the default, or any free port when that is taken."""
    for port in (wanted or DEFAULT_PORT, 0):
        with socket.socket(socket.AF_INET, socket.SOCK_STREAM) as probe:
            if not WINDOWS:
                probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind(("127.0.0.1", port))
            except OSError as error:
                if wanted:
                    raise CannotGoOn(f"port {wanted} is taken; choose another.") from error
                continue
            return int(probe.getsockname()[1])
    raise CannotGoOn("no port is free on 127.0.0.1.")


def serve(port: int | None, *options: str) -> int:
    """Set up and serve until stopped."""
    set_up_python(dev=False)
    set_up_web()
    port_words = ["--port", str(free_port(port))]
    words = [str(PYTHON), "-m", "tumbrel.site.serve", *port_words, *options]
    if WINDOWS:
        return subprocess.run(words, env=environment(), check=False).returncode
    sys.stdout.flush()
    os.execve(PYTHON, words, environment())  # noqa: S606 - who ends this process ends the server
    return 0


def kept(what: str, rest: Sequence[str]) -> int:
    """Back everything up to a file, or restore it from one."""
    if len(rest) != 1:
        raise CannotGoOn(f"name one file: python3 run.py {what} FILE")
    set_up_python(dev=False)
    words = [str(PYTHON), "-m", "tumbrel.site.keep", what, str(Path(rest[0]).absolute())]
    return subprocess.run(words, env=environment(), check=False).returncode


def reset_demo() -> int:
    """Put the demo trips back as they came; other trips stay."""
    set_up_python(dev=False)
    run(PYTHON, "-m", "tumbrel.site.manage", "migrate", "-v", "0")
    run(PYTHON, "-m", "tumbrel.site.manage", "load_demo", "--reset")
    return 0


def test(rest: Sequence[str]) -> int:
    """Every test, or those that are asked for: `tools.testing` says how."""
    set_up_python(dev=True)
    words = [str(PYTHON), "-m", "tools.testing", *rest]
    return subprocess.run(words, cwd=ROOT, env=environment(), check=False).returncode


def check() -> int:
    """Style, types, import rules, and that what is written down is what is."""
    set_up_python(dev=True)
    set_up_node()
    with ThreadPoolExecutor(2) as both:  # each is of one processor
        for half in [both.submit(check_page), both.submit(check_python)]:
            half.result()
    print("check: clean")
    return 0


LONG_FILE = 400


def check_python() -> None:
    """The half of `check` that is Python's. Raises CalledProcessError or CannotGoOn."""
    described(write=False)
    run(PYTHON, "-m", "ruff", "check", ".")
    run(PYTHON, "-m", "ruff", "format", "--check", ".")
    run(PYTHON, "-m", "mypy")
    run(PYTHON, "-m", "pytest", "-q", "tests/architecture")
    for path in sorted((ROOT / "src").rglob("*.py")):
        lines = len(path.read_text("utf-8").splitlines())
        if lines > LONG_FILE:  # an alarm: what it holds may be several things
            print(f"long: {path.relative_to(ROOT)} has {lines} lines")


def check_page() -> None:
    """The half of `check` that is the page's. Raises CalledProcessError."""
    for script in ("lint", "format", "tsc"):
        run(npm() or "npm", "run", "--silent", script, cwd=WEB)


def described(*, write: bool) -> int:
    """Write the API's and the plan file's descriptions, or fail when the kept ones are old."""
    set_up_python(dev=True)
    for tool in ("tools.model", "tools.imports"):
        run(PYTHON, "-m", tool, *([] if write else ["--check"]))
    makers = {
        OPENAPI: ["tumbrel.site.openapi"],
        PLAN_SCHEMA: ["tumbrel.core.cli", "schema"],
        REFERS: ["tools.refers"],
    }
    for path, module in makers.items():
        words = [str(PYTHON), "-m", *module]
        pure = environment(TUMBREL_PURE="1")
        made = subprocess.run(words, env=pure, capture_output=True, check=True).stdout
        if write:
            path.write_bytes(made)
        elif not path.exists() or path.read_bytes() != made:
            name = path.relative_to(ROOT)
            raise CannotGoOn(f"{name} is older than the code. Run: python3 run.py describe")
    return 0


def driven(module: str, rest: Sequence[str]) -> int:
    """Run a module that drives the page in Chromium."""
    set_up_python(dev=True)
    chromium = find_chromium()
    set_up_web()
    run(PYTHON, "-m", module, *rest, env=environment(TUMBREL_CHROMIUM=chromium))
    return 0


COMMANDS = {
    "demo": lambda port, _: serve(port, "--demo"),
    "serve": lambda port, _: serve(port),
    "backup": lambda _, rest: kept("backup", rest),
    "restore": lambda _, rest: kept("restore", rest),
    "test": lambda _, rest: test(rest),
    "check": lambda _port, _rest: check(),
    "shots": lambda _, rest: driven("tools.shots", rest),
    "benchmarks": lambda _, rest: driven("benchmarks.all", rest),
    "reset-demo": lambda _port, _rest: reset_demo(),
    "describe": lambda _port, _rest: described(write=True),
}

if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
