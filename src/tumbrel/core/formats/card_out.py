"""The card as a table, as a calendar, and as one page for a phone's own storage."""

from __future__ import annotations

import base64
import csv
import io
import json
from datetime import UTC, date, datetime, timedelta
from pathlib import Path
from typing import Any, Literal
from zoneinfo import ZoneInfo

from icalendar import Alarm, Calendar, Event, Timezone

from ..card import CardMove, CardPlace, FullUnit, TripCard
from ..document import BadDocument, FieldFault

CardForm = Literal["html", "ics", "csv"]
COLUMNS = ("day", "clock", "place", "number", "camera", "what", "where", "how", "why", "seconds")
FORMULA = ("=", "+", "-", "@", "\t", "\r")
ALARM_MIN = 5
FULL_ALARM_MIN = 180
LEAST_EVENT = timedelta(minutes=1)
OWN = "tumbrel"
LATIN = "archivo-latin-wdth-normal-*.woff2"  # the part of the font that a card needs


def moves_of(card: TripCard) -> list[tuple[CardPlace, CardMove]]:
    """All moves with their places, in order."""
    return [(place, move) for place in card.places for move in place.moves]


def write_csv(card: TripCard) -> str:
    """All moves, one a line; text that a table would take for a formula is quoted by a blank."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for place, move in moves_of(card):
        row = (
            f"{card.local(move.at_ms):%Y-%m-%d}",
            move.clock,
            place.name,
            move.number,
            move.camera,
            move.say,
            move.where,
            move.how,
            move.why,
            move.takes_s,
        )
        writer.writerow([_plain(str(one)) for one in row])
    return out.getvalue()


def _plain(text: str) -> str:
    return f" {text}" if text.startswith(FORMULA) else text


def write_ics(card: TripCard, made: datetime) -> bytes:
    """What must not be missed as events with alarms, in local time with its zone (RFC 5545).

    A move keeps its identity from plan to plan, so that a second import takes the first's place.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Tumbrel//card//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", card.trip)
    for place, move in moves_of(card):
        if move.dear:
            calendar.add_component(_of_move(card, place, move, made))
    for unit in card.full_by:
        calendar.add_component(_of_full(card, unit, made))
    # the years of the trip alone: many dates in one line are not understood everywhere
    begins, ends = card.local(0), card.local(card.duration_ms)
    calendar.add_missing_timezones(date(begins.year, 1, 1), date(ends.year + 1, 1, 1))
    for zone in calendar.timezones:
        _mend_onsets(zone, ZoneInfo(card.time_zone))
    return bytes(calendar.to_ical())


def _mend_onsets(told: Timezone, zone: ZoneInfo) -> None:
    """Let each change of clocks begin on the clock of before, as RFC 5545, 3.6.5 has it.

    The library gives the first hour of after, which is an hour late in spring.
    """
    parts: list[Any] = list(told.subcomponents)
    for part in parts:
        before, after = part["TZOFFSETFROM"].td, part["TZOFFSETTO"].td
        onset = part["DTSTART"].dt
        for offset in (before, after):
            instant = (onset - offset).replace(tzinfo=UTC)
            earlier = (instant - timedelta(seconds=1)).astimezone(zone).utcoffset()
            if before != after and earlier == before != instant.astimezone(zone).utcoffset():
                part["DTSTART"].dt = (instant + before).replace(tzinfo=None)


def _of_move(card: TripCard, place: CardPlace, move: CardMove, made: datetime) -> Event:
    event = _event(card, move.key, move.told, made)
    begins = card.local(move.at_ms)
    event.add("dtstart", begins)
    event.add("dtend", begins + max(LEAST_EVENT, timedelta(seconds=move.takes_s)))
    event.add("location", place.name)
    event.add("description", "\n".join(one for one in (move.where, move.how, move.why) if one))
    event.add_component(_alarm(event, ALARM_MIN))
    return event


def _of_full(card: TripCard, unit: FullUnit, made: datetime) -> Event:
    """Told long enough before that it may still be plugged in."""
    event = _event(card, f"full/{unit.unit}", unit.say, made)
    at = card.local(unit.at_ms)
    event.add("dtstart", at)
    event.add("dtend", at + LEAST_EVENT)
    event.add_component(_alarm(event, FULL_ALARM_MIN))
    return event


def _event(card: TripCard, key: str, summary: str, made: datetime) -> Event:
    event = Event()
    event.add("uid", f"{card.trip}/{key}@{OWN}".replace(" ", "-"))
    event.add("dtstamp", made)
    event.add("summary", summary)
    return event


def _alarm(event: Event, minutes: int) -> Alarm:
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("trigger", timedelta(minutes=-minutes))
    alarm.add("description", str(event["summary"]))
    return alarm


def write_page(card: TripCard, made: datetime, script: str, style: str, font: bytes | None) -> str:
    """The whole card as one HTML file that asks for nothing else.

    `script` and `style` are those of the built page; `font` a WOFF2 file, or none.
    """
    data = json.dumps(
        {"card": card.model_dump(mode="json"), "made": made.isoformat(timespec="minutes")},
        ensure_ascii=False,
        separators=(",", ":"),
    ).replace("<", "\\u003c")  # nothing in it ends the data or opens a comment
    face = ""
    if font is not None:
        coded = base64.b64encode(font).decode("ascii")
        face = (
            '@font-face{font-family:"Archivo Variable";font-weight:100 900;font-stretch:62% 125%;'
            f"src:url(data:font/woff2;base64,{coded})}}"
        )
    title = _escaped(f"{card.trip}: card")
    return (
        '<!doctype html><html lang="en"><head><meta charset="utf-8">'
        '<meta name="viewport" content="width=device-width, initial-scale=1">'
        '<meta http-equiv="Content-Security-Policy" content="default-src \'none\'; '
        "script-src 'unsafe-inline'; style-src 'unsafe-inline'; font-src data:\">"
        f"<title>{title}</title><style>{face}{style}</style></head>"
        '<body><main id="card" class="pocket"></main>'
        f'<script type="application/json" id="data">{data}</script>'
        f"<script>{script}</script></body></html>\n"
    )


def _escaped(text: str) -> str:
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")


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
