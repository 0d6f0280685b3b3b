"""The second engine in machine code, for tests that march it by the hundred: `-m tools.second`.

Its sources stay what is read; without a compiler, or with TUMBREL_PURE, they serve as they are.
"""

from __future__ import annotations

import argparse
import hashlib
import os
import shutil
import sys
import tempfile
from pathlib import Path

from tumbrel import compiling
from tumbrel.compiled import PURE, SUFFIX, builds, find_in

ROOT = Path(__file__).resolve().parents[1]
HOME = ROOT / "tests" / "reference" / "second"


def sources() -> list[str]:
    """Its modules, as paths from the root."""
    found = (path for path in sorted(HOME.glob("*.py")) if path.stem != "__init__")
    return [str(path.relative_to(ROOT)) for path in found]


def built() -> Path:
    """The folder that it is built in: named by its sources, the optimisation and this Python."""
    whole = hashlib.sha256(f"{sys.version} {SUFFIX} {compiling.LEVEL}".encode())
    for name in sources():
        whole.update(name.encode() + (ROOT / name).read_bytes())
    return builds() / "second" / whole.hexdigest()[:20]


def use() -> bool:
    """Let it be found where it was built and is wanted; whether it is."""
    if os.environ.get(PURE) or not built().exists():
        return False
    find_in(built(), [name.removesuffix(".py").replace("/", ".") for name in sources()])
    return True


def main(words: list[str] | None = None) -> int:
    """Build it, unless that is done or nothing is there to build with; 1 without a built core."""
    reader = argparse.ArgumentParser(prog="python -m tools.second")
    reader.add_argument("--after-the-core", action="store_true", help="build that one first")
    without = compiling.main([]) if reader.parse_args(words).after_the_core else 0
    if built().exists() or not compiling.has_compiler():
        return without
    shutil.rmtree(built().parent, ignore_errors=True)  # what was built of other sources
    built().parent.mkdir(parents=True)
    os.chdir(ROOT)
    with tempfile.TemporaryDirectory(dir=built().parent) as making:
        compiling.translate(sources(), Path(making))
        (Path(making) / "lib").rename(built())
    return without


if __name__ == "__main__":
    sys.exit(main())
