"""`tumbrel card plan.json --out day.html`: the card to take along, on the command line."""

from __future__ import annotations

from datetime import UTC, datetime
from pathlib import Path

from .card import card_of
from .cli_clips import BAD_INPUT, WHOLE, say_bad
from .document import BadDocument, FieldFault, PlanDocument, read_document
from .formats.card_out import write_csv, write_ics, write_page
from .formats.tracks_out import write_track
from .rehearsal.result.result import Rehearsal
from .report import rehearse

FORMS = (".html", ".ics", ".gpx", ".csv")
BUILT = Path(__file__).resolve().parents[3] / "web" / "dist"
LATIN = "archivo-latin-wdth-normal-*.woff2"


def write_card(plan: Path, out: Path, built: Path = BUILT) -> int:
    """Rehearse a plan file and write its card in the form that the ending names; the exit code."""
    try:
        if out.suffix not in FORMS:
            why = f"ends in '{out.suffix}'; a card is written as {', '.join(FORMS)}"
            raise BadDocument((FieldFault(str(out), why),))
        document = read_document(plan.read_bytes())
        told = rehearse(document)
        out.write_bytes(_bytes(document, told, out.suffix, built))
    except (OSError, BadDocument) as error:
        say_bad(error, plan)
        return BAD_INPUT
    print(f"{out}: {sum(len(one.moves) for one in card_of(document, told).places)} moves")
    return WHOLE


def _bytes(document: PlanDocument, told: Rehearsal, form: str, built: Path) -> bytes:
    if form == ".gpx":
        return write_track(document, told, "gpx").encode("utf-8")
    card, made = card_of(document, told), datetime.now(UTC)
    if form == ".ics":
        return write_ics(card, made)
    if form == ".csv":
        return write_csv(card).encode("utf-8")
    return write_page(card, made, *page_parts(built)).encode("utf-8")


def page_parts(built: Path) -> tuple[str, str, bytes | None]:
    """Script, style and font of a built page. Raises BadDocument where none is built."""
    try:
        script = (built / "pocket" / "card.js").read_text("utf-8")
        style = (built / "pocket" / "card.css").read_text("utf-8")
    except OSError:
        why = "the page is not built here; start once with python3 run.py demo"
        raise BadDocument((FieldFault("(page)", why),)) from None
    font = next((built / "assets").glob(LATIN), None)
    return script, style, font.read_bytes() if font is not None else None
