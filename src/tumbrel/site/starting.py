"""What is looked at before anything is served or restored: nothing is overwritten."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import datetime
from pathlib import Path

from django.apps import apps
from django.core.files import locks
from django.core.management import call_command
from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor

from tumbrel.history.copies import (
    copy_before,
    copy_of_day,
    database_of,
    put_back,
    refuse_newer,
    refuse_spoiled,
)
from tumbrel.history.data_folder import COPIES, Unusable, refuse_read_only

LOCK = "serving.lock"
HELP = (
    "Put a copy back with `python3 run.py restore FILE`; copies are in {copies}. "
    "Nothing was changed."
)


@contextmanager
def alone_on(folder: Path) -> Iterator[None]:
    """Hold the folder for oneself. Raises Unusable while another Tumbrel has it."""
    refuse_read_only(folder)
    with (folder / LOCK).open("w") as file:
        if not locks.lock(file, locks.LOCK_EX | locks.LOCK_NB):
            raise Unusable(
                f"another Tumbrel is running on {folder}. Stop that one first, "
                "or name another folder in TUMBREL_DATA."
            )
        yield


def make_ready(folder: Path, now: datetime) -> None:
    """Bring the database up to date, with a copy before. Raises Unusable."""
    path = database_of(folder)
    try:
        there = _is_there(folder)
        if there:
            refuse_spoiled(path)
            refuse_newer(path, _known_migrations(), set(_own_apps()))
            if _waits_for_migration():
                copy_before(folder, "migration", now)
        call_command("migrate", verbosity=0)
        if there:
            copy_of_day(folder, now)
    except Unusable as error:
        raise Unusable(f"{error} {HELP.format(copies=folder / COPIES)}") from error
    except (DatabaseError, OSError) as error:
        raise Unusable(f"{path} cannot be used ({error}). Nothing was lost.") from error


def restore(folder: Path, source: Path, now: datetime) -> Path | None:
    """Everything as it was in a copy; returns the copy of what was there. Raises Unusable."""
    with alone_on(folder):
        refuse_spoiled(source, whole=True)
        refuse_newer(source, _known_migrations(), set(_own_apps()))
        connection.close()
        before = put_back(folder, source, now)
        make_ready(folder, now)
        return before


def _is_there(folder: Path) -> bool:
    """Whether there is a database; an empty file where copies are is one that was lost."""
    path = database_of(folder)
    if not path.exists():
        return False
    return path.stat().st_size > 0 or any((folder / COPIES).glob("*.sqlite3"))


def _own_apps() -> Iterator[str]:
    return (one.label for one in apps.get_app_configs() if one.name.startswith("tumbrel."))


def _known_migrations() -> set[tuple[str, str]]:
    loader = MigrationExecutor(None).loader
    return set(loader.disk_migrations)


def _waits_for_migration() -> bool:
    executor = MigrationExecutor(connection)
    return bool(executor.migration_plan(executor.loader.graph.leaf_nodes()))
