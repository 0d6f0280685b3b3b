"""Hourly weather as CSV: time, temperature, wind and cloud."""

from __future__ import annotations

import re
from datetime import datetime
from zoneinfo import ZoneInfo

from pydantic import ValidationError

from ..document import BadDocument, FieldFault
from ..document.plan_file import faults_of
from ..document.rows import made_of, read_rows
from ..route.weather import Weather, WeatherHour

COLUMNS = ("time", "temp_c", "wind_mps", "cloud", "doubt_k", "wind_doubt_mps", "cloud_doubt")
OTHER_NAMES = {
    "temperature": "temp_c",
    "temp": "temp_c",
    "t": "temp_c",
    "wind": "wind_mps",
    "wind_speed": "wind_mps",
    "clouds": "cloud",
    "cloud_cover": "cloud",
    "date": "time",
    "hour": "time",
    "doubt": "doubt_k",
    "spread": "doubt_k",
}
MOST_LINES = 2001


def read_weather(text: str, name: str, height_m: float, zone: str) -> Weather:
    """Weather of a CSV file with a line of names. Raises BadDocument naming every line at fault.

    `time` like 2027-06-12 06:00 is in the `zone` unless it has an offset; `cloud` and its
    doubt are shares or per cent. The temperatures are of `height_m`.
    """
    rows = read_rows(text, MOST_LINES, empty="one hour on each line, with a line of names first")
    line, head = rows[0]
    columns = [_column(cell) for cell in head]
    missing = [one for one in COLUMNS[:2] if one not in columns]
    if missing:
        why = f"lacks the column '{missing[0]}'; known are {', '.join(COLUMNS)}"
        raise BadDocument((FieldFault(f"line {line}", why),))

    def hour_of(cells: list[str]) -> WeatherHour:
        pairs = zip(columns, cells, strict=False)
        return _hour({c: cell for c, cell in pairs if c in COLUMNS and cell}, ZoneInfo(zone))

    hours = made_of(rows[1:], hour_of)
    try:
        return Weather(source=name.strip()[:60] or "weather", height_m=height_m, hours=tuple(hours))
    except ValidationError as error:
        raise BadDocument(tuple(faults_of(error))) from None


def _column(cell: str) -> str:
    name = re.sub(r"\s*[(\[].*$", "", cell.lower()).strip().replace(" ", "_").replace("-", "_")
    return OTHER_NAMES.get(name, name)


def _hour(row: dict[str, str], zone: ZoneInfo) -> WeatherHour:
    try:
        moment = datetime.fromisoformat(row.get("time", ""))
    except ValueError:
        raise ValueError(f"time '{row.get('time', '')}' is not like 2027-06-12 06:00") from None
    aware = moment if moment.tzinfo is not None else moment.replace(tzinfo=zone)
    if "temp_c" not in row:
        raise ValueError("has no temp_c")
    values = {name: _number(row[name], name) for name in COLUMNS[1:] if name in row}
    for share in {"cloud", "cloud_doubt"} & values.keys():
        if row[share].endswith("%") or values[share] > 1.0:
            values[share] /= 100.0
    return WeatherHour.model_validate({"at": aware, **values})


def _number(text: str, name: str) -> float:
    try:
        return float(text.rstrip("% ").replace("\u2212", "-").replace(",", "."))
    except ValueError:
        raise ValueError(f"{name} '{text}' is no number") from None
