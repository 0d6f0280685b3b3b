"""`tumbrel card plan.json --out day.html`: the card to take along, on the command line."""

from __future__ import annotations

from datetime import UTC, datetime
from pathlib import Path

from .card import card_of
from .cli_clips import WHOLE, say_bad
from .document import BadDocument, FieldFault, read_document
from .formats.card_out import moves_of, page_parts, write_csv, write_ics, write_page
from .formats.tracks_out import write_track
from .report import rehearse

FORMS = (".html", ".ics", ".gpx", ".csv")
BUILT = Path(__file__).resolve().parents[3] / "web" / "dist"


def write_card(plan: Path, out: Path, built: Path = BUILT) -> int:
    """Rehearse a plan file and write its card in the form that the ending names; the exit code."""
    try:
        if out.suffix not in FORMS:
            why = f"ends in '{out.suffix}'; a card is written as {', '.join(FORMS)}"
            raise BadDocument((FieldFault(str(out), why),))
        document = read_document(plan.read_bytes())
        told = rehearse(document)
        card, made = card_of(document, told), datetime.now(UTC)
        if out.suffix == ".ics":
            data = write_ics(card, made)
        elif out.suffix == ".html":
            data = write_page(card, made, *page_parts(built)).encode("utf-8")
        elif out.suffix == ".csv":
            data = write_csv(card).encode("utf-8")
        else:
            data = write_track(document, told, "gpx").encode("utf-8")
        out.write_bytes(data)
    except (OSError, BadDocument) as error:
        return say_bad(error, plan)
    print(f"{out}: {len(moves_of(card))} moves")
    return WHOLE
