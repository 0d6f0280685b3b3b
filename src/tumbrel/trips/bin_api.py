"""The addresses of the bin, and of everything as one file."""

from __future__ import annotations

import tempfile
from pathlib import Path

from django.conf import settings
from django.http import FileResponse, HttpRequest
from django.utils import timezone
from ninja import Router, Status

from tumbrel.history.api import REFUSALS, owner_of
from tumbrel.history.copies import copy_database, database_of

from .bin import binned, let_go, take_out
from .schemas import BinKind, Binned

router = Router(tags=["bin"])
ONE = "/bin/{kind}/{number}"


@router.get("/bin", response={200: list[Binned], **REFUSALS}, operation_id="listBin")
def list_bin(request: HttpRequest) -> list[Binned]:
    """Deleted trips and kits of the last 30 days."""
    return binned(owner_of(request))


@router.post(ONE, response={204: None, **REFUSALS}, operation_id="takeOut")
def out(request: HttpRequest, kind: BinKind, number: int) -> Status[None]:
    """Put a trip or kit back where it was."""
    take_out(owner_of(request), kind, number)
    return Status(204, None)


@router.delete(ONE, response={204: None, **REFUSALS}, operation_id="letGo")
def gone(request: HttpRequest, kind: BinKind, number: int) -> Status[None]:
    """Delete a trip or kit in the bin for good."""
    let_go(owner_of(request), kind, number)
    return Status(204, None)


@router.get("/everything", response={200: bytes, **REFUSALS}, operation_id="saveEverything")
def everything(request: HttpRequest) -> FileResponse:  # noqa: ARG001 - ninja names it
    """Kits, trips, variants, runs and settings as one file, that `run.py restore` takes."""
    folder = Path(tempfile.mkdtemp(dir=settings.DATA))
    try:
        path = folder / "everything.sqlite3"
        copy_database(database_of(settings.DATA), path)
        file = path.open("rb")
        path.unlink()
    finally:
        folder.rmdir()
    name = f"tumbrel-{timezone.now():%Y-%m-%d-%H%M}.sqlite3"
    return FileResponse(
        file, as_attachment=True, filename=name, content_type="application/vnd.sqlite3"
    )
