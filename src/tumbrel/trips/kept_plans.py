"""Plans at which Tumbrel failed: kept for those who mend it, for nobody else to read."""

from __future__ import annotations

import hashlib
import logging
import os
from contextlib import suppress
from pathlib import Path

from django.conf import settings

from tumbrel.core.document import PlanDocument
from tumbrel.core.document.plan_file import write_document

FOLDER = "plans-that-failed"
MOST_KEPT = 20
FOLDER_MODE, FILE_MODE = 0o700, 0o600
DIGITS = 12

log = logging.getLogger(__name__)


def keep_plan(document: PlanDocument, why: str, error: Exception | None = None) -> Path | None:
    """Keep a plan as a plan file in the data folder, the newest twenty; the log names the file.

    The same plan is kept once. Where it cannot be written that is logged too, and None told.
    """
    text = write_document(document).encode("utf-8")
    folder = Path(settings.DATA) / FOLDER
    path = folder / f"plan-{hashlib.sha256(text).hexdigest()[:DIGITS]}.json"
    try:
        folder.mkdir(mode=FOLDER_MODE, exist_ok=True)
        path.unlink(missing_ok=True)  # as the newest
        with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, FILE_MODE), "wb") as out:
            out.write(text)
    except OSError as trouble:
        log.error("a plan failed (%s) and could not be kept", why, exc_info=trouble)
        return None
    log.error("a plan failed (%s); it is kept as %s/%s", why, FOLDER, path.name, exc_info=error)
    _let_go(folder)
    return path


def _let_go(folder: Path) -> None:
    """All but the newest."""
    kept = sorted(folder.glob("plan-*.json"), key=_written_at, reverse=True)
    for path in kept[MOST_KEPT:]:
        with suppress(OSError):
            path.unlink()


def _written_at(path: Path) -> float:
    try:
        return path.stat().st_mtime
    except OSError:  # another process let it go
        return 0.0
