"""Copies from the command line: `python -m tumbrel.site.keep backup FILE` and `restore FILE`."""

from __future__ import annotations

import argparse
import os
import sys
from datetime import UTC, datetime
from pathlib import Path

import django

from tumbrel.history.data_folder import Unusable


def main() -> int:
    """Back up to a file, or restore from one; 0 when done, 2 with one line why when not."""
    parser = argparse.ArgumentParser(prog="run.py")
    parser.add_argument("what", choices=("backup", "restore"))
    parser.add_argument("file", type=Path)
    chosen = parser.parse_args()
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tumbrel.site.settings")
    try:
        django.setup()
        told = _backup(chosen.file) if chosen.what == "backup" else _restore(chosen.file)
    except Unusable as error:
        print(f"Tumbrel cannot {chosen.what}: {error}", file=sys.stderr)
        return 2
    print(told)
    return 0


def _backup(file: Path) -> str:
    from django.conf import settings  # noqa: PLC0415 - after django.setup()

    from tumbrel.history.copies import copy_database, database_of, refuse_spoiled  # noqa: PLC0415 - as above

    if not database_of(settings.DATA).exists():
        raise Unusable(f"there is nothing in {settings.DATA} yet.")
    if file.is_dir():
        raise Unusable(f"{file} is a folder; name a file.")
    refuse_spoiled(database_of(settings.DATA))
    copy_database(database_of(settings.DATA), file)
    return f"Everything is in {file}: {file.stat().st_size / 1e6:.1f} MB, checked."


def _restore(file: Path) -> str:
    from django.conf import settings  # noqa: PLC0415 - after django.setup()

    from .starting import restore  # noqa: PLC0415 - as above

    before = restore(settings.DATA, file, datetime.now(UTC))
    beside = f" What was there before is kept in {before}." if before else ""
    return f"Everything is as it was in {file}.{beside}"


if __name__ == "__main__":
    sys.exit(main())
