"""Copies of everything: asked for, before each migration, and daily; and back from one.

A copy is an SQLite database, made by SQLite's own backup while Tumbrel may be running, checked,
and put in its place only when it is whole.
"""

from __future__ import annotations

import os
import secrets
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from datetime import datetime
from pathlib import Path

from .data_folder import COPIES, DATABASE, Unusable

KEPT_OF_A_KIND = 7
MAGIC = b"SQLite format 3\0"
OURS = {"kit_kit", "trips_trip", "trips_variant", "bench_benchnotebook", "django_migrations"}


def database_of(folder: Path) -> Path:
    """The database of a data folder."""
    return folder / DATABASE


def refuse_spoiled(path: Path, *, whole: bool = False) -> None:
    """Raise Unusable unless a file is a sound SQLite database of Tumbrel; changes nothing.

    One whose first start was cut off has not all its tables yet; with `whole` it is refused too.
    """
    try:
        with path.open("rb") as file:
            head = file.read(len(MAGIC))
    except OSError as error:
        raise Unusable(f"{path} cannot be read ({error.strerror}).") from error
    if head != MAGIC:
        raise Unusable(f"{path} is not a database of Tumbrel.")
    try:
        with _reading(path) as base:
            told = base.execute("PRAGMA quick_check(1)").fetchone()[0]
            tables = {row[0] for row in base.execute("SELECT name FROM sqlite_master")}
    except sqlite3.DatabaseError as error:
        raise Unusable(f"{path} is damaged or cut off ({error}).") from error
    if told != "ok":
        raise Unusable(f"{path} is damaged or cut off ({told}).")
    needed = OURS if whole else {"django_migrations"} if tables else set()
    if not tables >= needed:
        raise Unusable(f"{path} is not a database of Tumbrel.")


def migrations_in(path: Path) -> set[tuple[str, str]]:
    """The migrations that a database has been through."""
    with _reading(path) as base:
        known = base.execute("SELECT 1 FROM sqlite_master WHERE name = 'django_migrations'")
        if known.fetchone() is None:
            return set()
        return set(base.execute("SELECT app, name FROM django_migrations"))


def refuse_newer(path: Path, known: set[tuple[str, str]], apps: set[str]) -> None:
    """Raise Unusable when a database has been through migrations of ours that nobody here knows."""
    ahead = sorted(one for one in migrations_in(path) - known if one[0] in apps)
    if ahead:
        raise Unusable(
            f"{path} was written by a newer Tumbrel ({ahead[0][0]} {ahead[0][1]}). "
            "Start that one, or name another folder in TUMBREL_DATA. Nothing was changed."
        )


def copy_database(source: Path, target: Path) -> None:
    """Copy a database whole to a file that is there only when it is checked. Raises Unusable."""
    part = target.with_name(f".{target.name}-{secrets.token_hex(4)}")
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        with _reading(source) as base, closing(sqlite3.connect(part)) as copy:
            base.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE")
        refuse_spoiled(part)
        with part.open("rb+") as file:
            os.fsync(file.fileno())
        part.replace(target)
    except sqlite3.Error as error:
        raise Unusable(f"{target} could not be written ({error}).") from error
    except OSError as error:
        raise Unusable(f"{target} could not be written ({error.strerror}).") from error
    finally:
        part.unlink(missing_ok=True)


def copy_before(folder: Path, what: str, now: datetime) -> Path:
    """A copy before something is done to the database: `before-<what>-<time>`."""
    return _kept(folder, f"before-{what}-{now:%Y-%m-%d-%H%M%S}", "before-")


def copy_of_day(folder: Path, now: datetime) -> Path | None:
    """The day's copy, unless there is one."""
    target = folder / COPIES / f"daily-{now:%Y-%m-%d}.sqlite3"
    return None if target.exists() else _kept(folder, target.stem, "daily-")


def _kept(folder: Path, stem: str, kind: str) -> Path:
    """Make a copy, and let the oldest of its kind go once the new one is whole."""
    target = folder / COPIES / f"{stem}.sqlite3"
    copy_database(database_of(folder), target)
    for old in sorted((folder / COPIES).glob(f"{kind}*.sqlite3"))[:-KEPT_OF_A_KIND]:
        old.unlink(missing_ok=True)
    return target


def put_back(folder: Path, source: Path, now: datetime) -> Path | None:
    """Everything as it was in a sound copy; what is there now is kept beside. Raises Unusable.

    Nobody may be serving the folder. Returns the copy of what was there, if anything was.
    """
    target = database_of(folder)
    before = None
    if target.exists() and target.stat().st_size:
        before = _kept_as_it_is(folder, now)
    copy_database(source, target.with_suffix(".restored"))
    for rest in ("-wal", "-shm"):  # of the one that goes; folded into its copy just now
        target.with_name(target.name + rest).unlink(missing_ok=True)
    target.with_suffix(".restored").replace(target)
    return before


def _kept_as_it_is(folder: Path, now: datetime) -> Path:
    """A copy of what is there, or the files themselves where they are spoiled."""
    try:
        return copy_before(folder, "restore", now)
    except Unusable:
        kept = folder / COPIES / f"spoiled-{now:%Y-%m-%d-%H%M%S}.sqlite3"
        kept.parent.mkdir(parents=True, exist_ok=True)
        for rest in ("", "-wal", "-shm"):
            path = database_of(folder).with_name(DATABASE + rest)
            if path.exists():
                path.replace(kept.with_name(kept.name + rest))
        return kept


def fold(folder: Path) -> None:
    """Fold the log into the database, so that its file alone holds everything."""
    with closing(sqlite3.connect(database_of(folder), timeout=5.0)) as base:
        base.execute("PRAGMA wal_checkpoint(TRUNCATE)")


@contextmanager
def _reading(path: Path) -> Iterator[sqlite3.Connection]:
    """A connection that makes no file where there is none."""
    with closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=rw", uri=True)) as base:
        yield base
