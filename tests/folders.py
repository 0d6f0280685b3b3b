"""Data folders made once for all workers, and copied for each server that a test starts."""

from __future__ import annotations

import fcntl
import os
import shutil
from pathlib import Path

import pytest

from tools.driving import served


def folder_of(factory: pytest.TempPathFactory, to: Path, *, demo: bool) -> Path:
    """A data folder as after a first start, with the demo trips or without any.

    Each is an installation of its own: what makes it that is left out of the copy.
    """
    base = factory.getbasetemp()
    shared = base.parent if "PYTEST_XDIST_WORKER" in os.environ else base
    whole = shared / ("with-demo" if demo else "empty")
    with (shared / "lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)  # one worker makes it, the others wait
        if not whole.exists():
            made = shared / f"{whole.name}-begun"
            with served(made, demo=demo):
                pass
            made.rename(whole)
    shutil.copytree(whole, to, dirs_exist_ok=True, ignore=shutil.ignore_patterns("secret"))
    return to
