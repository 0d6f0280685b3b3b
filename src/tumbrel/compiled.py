"""The core's hot modules in machine code, where they were built; else the plain ones.

What is built lies outside the sources, in a folder named by their digest, so that it is never used
for other sources than it was made from. Nothing else is imported here: this runs before all.
"""

from __future__ import annotations

import hashlib
import os
import sys
import sysconfig
from collections.abc import Sequence
from importlib.abc import MetaPathFinder
from importlib.machinery import ExtensionFileLoader, ModuleSpec
from importlib.util import spec_from_file_location
from pathlib import Path
from types import ModuleType

HERE = Path(__file__).resolve().parent
CORE = HERE / "core"
PURE = "TUMBREL_PURE"
FOLDER = "TUMBREL_BUILT"
SUFFIX = sysconfig.get_config_var("EXT_SUFFIX") or ".so"
BUILT_FOR_GOOD = "done"

HOT = (
    "parameters/defaults",
    "charging",
    "cold",
    "energy",
    "heat",
    "memory",
    "patterns",
    "rounding",
    "shared",
    "two_lags",
    "rehearsal/trip",
    "rehearsal/stock",
    "rehearsal/camera",
    "rehearsal/power",
    "rehearsal/hands",
    "rehearsal/engine",
    "rehearsal/result/ledgers",
    "rehearsal/result/minutes",
    "rehearsal/result/moments",
    "rehearsal/result/pool_results",
    "rehearsal/result/record",
    "rehearsal/result/risk",
    "report",
    "findings",
)


PLAIN = frozenset({"__init__", "causes"})  # enumerations keep their words for the description


def hot_sources() -> list[Path]:
    """The sources that are compiled, in order."""
    found: list[Path] = []
    for name in HOT:
        path = CORE / name
        found += sorted(path.glob("*.py")) if path.is_dir() else [path.with_suffix(".py")]
    return [p for p in found if p.stem not in PLAIN]


def name_of(source: Path) -> str:
    """The module that a source is."""
    return ".".join(source.relative_to(HERE.parent).with_suffix("").parts)


def digest() -> str:
    """What a build is named by: the core's sources, this file, and this Python."""
    whole = hashlib.sha256(f"{sys.version} {SUFFIX}".encode())
    whole.update(Path(__file__).read_bytes())
    for path in sorted(CORE.rglob("*.py")):
        whole.update(str(path.relative_to(CORE)).encode())
        whole.update(path.read_bytes())
    return whole.hexdigest()[:20]


def builds() -> Path:
    """The folder that builds lie in: beside the sources, or where TUMBREL_BUILT says."""
    return Path(os.environ.get(FOLDER) or HERE.parents[1] / ".built")


class _Built(MetaPathFinder):
    """Finds the built modules before the plain ones."""

    def __init__(self, folder: Path, names: frozenset[str]) -> None:
        self.folder = folder
        self.names = names

    def find_spec(
        self,
        fullname: str,
        path: Sequence[str] | None,  # noqa: ARG002 - as finders are asked
        target: ModuleType | None = None,  # noqa: ARG002 - as above
    ) -> ModuleSpec | None:
        """Where a built module is; None for all others."""
        if fullname not in self.names and not fullname.endswith("__mypyc"):
            return None
        file = self.folder / (fullname.replace(".", "/") + SUFFIX)
        if not file.exists():
            return None
        return spec_from_file_location(
            fullname, file, loader=ExtensionFileLoader(fullname, str(file))
        )


def use_built() -> bool:
    """Let the built modules be found, where they are there and wanted; whether they are."""
    if os.environ.get(PURE):
        return False
    folder = builds() / digest()
    if not (folder / BUILT_FOR_GOOD).exists():
        return False
    find_in(folder, [name_of(path) for path in hot_sources()])
    return True


def find_in(folder: Path, names: Sequence[str]) -> None:
    """Let modules be found in a folder before the plain ones."""
    sys.meta_path.insert(0, _Built(folder, frozenset(names)))
