"""Legs and stops from a pasted table: one line each, columns by tab, semicolon, bar or comma."""

from __future__ import annotations

import re
from typing import Any, get_args

from pydantic import TypeAdapter

from ..document import Item
from ..document.angles import Activity
from ..document.base import Part
from ..document.rows import free_key, made_of, read_rows
from ..document.trip import Hands
from ..parameters import DEFAULTS

COLUMNS = ("name", "activity", "duration", "temperature", "air", "sun", "hands", "height")
ACTIVITIES = get_args(Activity)
HANDS = get_args(Hands)
ITEM: TypeAdapter[Item] = TypeAdapter(Item)
MOST_LINES = 1000
ALSO = {
    "climbing": "climb",
    "walking": "walk",
    "hike": "walk",
    "hiking": "walk",
    "foot": "walk",
    "down": "descent",
    "descending": "descent",
    "flying": "flight",
    "fly": "flight",
    "glide": "flight",
    "sledding": "sled",
    "sailing": "sail",
    "riding": "ride",
    "paddling": "paddle",
    "driving": "drive",
    "rest": "stop",
    "camp": "stop",
    "break": "stop",
}


class Pasted(Part):
    """What a pasted table gave."""

    items: tuple[Item, ...]


def read_table(text: str, taken: frozenset[str] = frozenset()) -> Pasted:
    """Legs and stops of a pasted table. Raises BadDocument naming every line at fault.

    Columns, unless a first line names them: name, activity or "stop", duration ("1:35", "95",
    "1 h 35", "95 min"), temperature ("8" or "6 to 11"), air [m/s], sun ("60 %" or 0.6), hands,
    height [m] ("1240" or "1240 to 1980"). Only the first three are needed.
    """
    lines = read_rows(text, MOST_LINES, empty="paste one leg or stop a line")
    columns: tuple[str, ...] = COLUMNS
    head = tuple(cell.lower() for cell in lines[0][1])
    if "name" in head and "duration" in head:
        columns, lines = head, lines[1:]
    names = set(taken)

    def item_of(cells: list[str]) -> Item:
        item = ITEM.validate_python(_item(dict(zip(columns, cells, strict=False)), names))
        names.add(item.id)
        return item

    return Pasted(items=tuple(made_of(lines, item_of)))


def _item(row: dict[str, str], names: set[str]) -> dict[str, Any]:
    name = row.get("name", "")
    if not name:
        raise ValueError("has no name in its first column")
    said = row.get("activity", "").lower()
    activity = ALSO.get(said, said)
    low_c, high_c = _pair(row.get("temperature", ""), "temperature", 15.0)
    item: dict[str, Any] = {
        "id": free_key(name, names, "part"),
        "name": name,
        "duration_s": _duration_s(row.get("duration", "")),
        "temp_start_c": low_c,
        "temp_end_c": high_c,
        "sun_share": _share(row.get("sun", "")),
    }
    heights = row.get("height", "")
    if activity == "stop":
        item |= {"kind": "stop"}
        return item | ({"height_m": _pair(heights, "height", 0.0)[0]} if heights else {})
    if activity not in ACTIVITIES:
        raise ValueError(f"activity '{activity}' is none of stop, {', '.join(ACTIVITIES)}")
    hands = row.get("hands", "").lower() or "stops"
    if hands not in HANDS:
        raise ValueError(f"hands '{hands}' is none of {', '.join(HANDS)}")
    air = _number(row.get("air", ""), "air", DEFAULTS.usual_air_mps(activity))
    item |= {"kind": "leg", "activity": activity, "hands": hands, "air_mps": air}
    if heights:
        start_m, end_m = _pair(heights, "height", 0.0)
        item |= {"height_start_m": start_m, "height_end_m": end_m}
    return item


def _duration_s(text: str) -> int:
    """Seconds of "1:35", "95", "95 min", "1 h 35", "2 h"."""
    found = re.fullmatch(r"(?:(\d+)\s*(?:h|:)\s*)?(\d+)?\s*(?:min|m)?", text.strip().lower())
    if found is None or not any(found.groups()):
        raise ValueError(f"duration '{text}' is not like 1:35, 95 or 1 h 35")
    return int(found[1] or 0) * 3600 + int(found[2] or 0) * 60


def _pair(text: str, what: str, default: float) -> tuple[float, float]:
    parts = re.split(r"\s*(?:to|\.\.|…|/)\s*", text.replace("\u2212", "-").strip())
    values = [_number(part, what, default) for part in parts]
    if len(values) > 2:
        raise ValueError(f"{what} '{text}' is not like 8 or 6 to 11")
    return values[0], values[-1]


def _share(text: str) -> float:
    """A share of "50 %", "50" or "0.5"; up to 1 it is a share, above it per cent."""
    value = _number(text.strip().removesuffix("%"), "sun", 0.0)
    if not 0.0 <= value <= 100.0:
        raise ValueError(f"sun '{text}' is not between 0 and 100 per cent")
    return value / 100.0 if text.strip().endswith("%") or value > 1.0 else value


def _number(text: str, what: str, default: float) -> float:
    if not text.strip():
        return default
    try:
        return float(text.strip().rstrip("°CcmMs/ "))
    except ValueError:
        raise ValueError(f"{what} '{text}' is no number") from None
