"""The data folder: one owner's alone, and told in one line where it cannot be used."""

from __future__ import annotations

import hashlib
import os
import secrets
from contextlib import suppress
from pathlib import Path

OWNER_ONLY = 0o077
FOLDER_MODE = 0o700
FILE_MODE = 0o600
DATABASE = "tumbrel.sqlite3"
COPIES = "copies"
LEAST_SECRET = 32


class Unusable(Exception):
    """The data cannot be used as they are; the text says what, where and what to do."""


def ready(folder: Path) -> Path:
    """Make the folder or take it as it is, readable by its owner alone. Raises Unusable."""
    os.umask(OWNER_ONLY)
    try:
        folder.mkdir(parents=True, exist_ok=True)
        folder.chmod(FOLDER_MODE)
        for path in folder.rglob("*"):
            with suppress(FileNotFoundError):  # SQLite's and the cache's come and go
                path.chmod(FOLDER_MODE if path.is_dir() else FILE_MODE)
    except OSError as error:
        raise Unusable(_cannot_write(folder, error)) from error
    return folder


def _cannot_write(folder: Path, error: OSError) -> str:
    why = error.strerror or type(error).__name__
    return f"{folder} cannot be written to ({why}). Name another folder in TUMBREL_DATA."


def refuse_read_only(folder: Path) -> None:
    """Raise Unusable where nothing can be written, for want of leave or of room."""
    probe = folder / f".probe-{secrets.token_hex(4)}"
    try:
        probe.write_bytes(b"\0" * 4096)
        probe.unlink()
    except OSError as error:
        probe.unlink(missing_ok=True)
        raise Unusable(_cannot_write(folder, error)) from error


def secret_of(folder: Path) -> str:
    """A key of this installation's own, kept beside its data. Raises Unusable when spoiled."""
    path = folder / "secret"
    try:
        if not path.exists():
            fresh = folder / f".secret-{secrets.token_hex(4)}"
            fresh.write_text(secrets.token_urlsafe(48), encoding="ascii")
            fresh.chmod(FILE_MODE)
            fresh.replace(path)
        found = path.read_text(encoding="ascii", errors="replace").strip()
    except OSError as error:
        raise Unusable(_cannot_write(folder, error)) from error
    if len(found) < LEAST_SECRET:
        raise Unusable(
            f"{path} is empty or cut off. Put it back as it was, or delete it: "
            "the printed address then has to be opened once more. Your trips are not in it."
        )
    return found


def installation_of(secret: str) -> str:
    """A name of this installation that tells nothing of its secret: 12 hexadecimal digits."""
    return hashlib.sha256(b"installation " + secret.encode("ascii", "replace")).hexdigest()[:12]
