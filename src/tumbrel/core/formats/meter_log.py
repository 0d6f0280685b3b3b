"""A power meter's log: time, volts and amps (or watts), by the names that meters use."""

from __future__ import annotations

import math
import re
from collections.abc import Sequence
from datetime import datetime
from itertools import pairwise
from typing import Literal

from ..document import BadDocument, FieldFault
from ..document.base import Part
from ..document.rows import Row, read_rows

Quantity = Literal["time", "volts", "amps", "watts"]
SHOWN = 200
MOST_LINES = 400_000
LIVE_SHARE = 0.15  # below this part of its usual power a camera is not recording
LONGEST_S = 48 * 3600.0
SAMPLED = 10  # lines by which columns without names are told apart

# What a unit makes of a column: the quantity and the factor to seconds, volts, amps, watts.
UNITS: dict[str, tuple[Quantity, float]] = {
    "s": ("time", 1.0),
    "sec": ("time", 1.0),
    "seconds": ("time", 1.0),
    "ms": ("time", 0.001),
    "min": ("time", 60.0),
    "minutes": ("time", 60.0),
    "h": ("time", 3600.0),
    "v": ("volts", 1.0),
    "mv": ("volts", 0.001),
    "a": ("amps", 1.0),
    "ma": ("amps", 0.001),
    "w": ("watts", 1.0),
    "mw": ("watts", 0.001),
}
NAMES: dict[str, Quantity] = {
    "time": "time",
    "elapsed": "time",
    "t": "time",
    "timestamp": "time",
    "date": "time",
    "datetime": "time",
    "volts": "volts",
    "volt": "volts",
    "voltage": "volts",
    "u": "volts",
    "vbus": "volts",
    "amps": "amps",
    "amp": "amps",
    "amperes": "amps",
    "current": "amps",
    "i": "amps",
    "ibus": "amps",
    "watts": "watts",
    "watt": "watts",
    "power": "watts",
    "p": "watts",
}
PLAIN_UNIT = {"time": "s", "volts": "V", "amps": "A", "watts": "W"}


class MeterColumn(Part):
    """A column as it was understood."""

    heading: str
    quantity: Quantity
    unit: str


class MeterRead(Part):
    """What a log tells, to be looked at before it is taken.

    `from_min` and `to_min` are where the camera recorded, from the log's first line; `minutes`,
    `mean_w` and `wh` are of that stretch. `t_min` and `watts` are for drawing.
    """

    columns: tuple[MeterColumn, ...]
    lines: int
    from_min: float
    to_min: float
    minutes: float
    mean_w: float
    wh: float
    t_min: tuple[float, ...]
    watts: tuple[float, ...]


def read_meter(text: str) -> MeterRead:
    """Read a log of time, volts and amps, or time and watts. Raises BadDocument with the line.

    Energy is the trapezoid sum over the stretch between the first and the last moment at which more
    than 15 % of the usual (median of the upper half) power flowed.
    """
    lines = read_rows(text, MOST_LINES, empty="drop the file that a power meter wrote", marks="\t;")
    start = _head_at(lines)
    number, head = lines[start]
    columns = _understood(head, number)
    t_s, watts = _readings(lines[start + 1 :], columns)
    return _read(tuple(columns.values()), t_s, watts)


def _head_at(lines: Sequence[Row]) -> int:
    """The line with names: the first on which two columns are understood."""
    for place, (_, cells) in enumerate(lines[:SAMPLED]):
        if sum(_column(cell) is not None for cell in cells) >= 2:
            return place
    why = "no line names its columns; wanted are time, volts and amps (or watts), with units"
    raise BadDocument((FieldFault(f"line {lines[0][0]}", why),))


def _column(heading: str) -> MeterColumn | None:
    """A heading like "Voltage (V)", "time_s", "Current [mA]", "amps"; None when it is another."""
    words = [word for word in re.split(r"[^a-z]+", heading.lower()) if word]
    quantity = next((NAMES[word] for word in words if word in NAMES), None)
    unit = next((word for word in reversed(words) if word in UNITS), None)
    if unit is not None and quantity in (None, UNITS[unit][0]):
        return MeterColumn(heading=heading, quantity=UNITS[unit][0], unit=unit)
    if quantity is None:
        return None
    return MeterColumn(heading=heading, quantity=quantity, unit=PLAIN_UNIT[quantity].lower())


def _understood(head: Sequence[str], line: int) -> dict[int, MeterColumn]:
    """Columns by place, each quantity once; raises BadDocument when one is missing."""
    found: dict[int, MeterColumn] = {}
    for place, heading in enumerate(head):
        column = _column(heading)
        if column is not None and column.quantity not in {c.quantity for c in found.values()}:
            found[place] = column
    has = {column.quantity for column in found.values()}
    wanted = {"time"} | (set() if "watts" in has else {"volts", "amps"})
    if wanted - has:
        why = f"no column is {', '.join(sorted(wanted - has))}: {', '.join(head)}"
        raise BadDocument((FieldFault(f"line {line}", why),))
    return found


def _readings(
    rows: Sequence[Row], columns: dict[int, MeterColumn]
) -> tuple[list[float], list[float]]:
    """Seconds from the first reading, and watts. Raises BadDocument with the first bad lines."""
    t_s: list[float] = []
    watts: list[float] = []
    faults: list[FieldFault] = []
    for number, cells in rows:
        try:
            values = {
                column.quantity: _value(cells[place], column) for place, column in columns.items()
            }
        except (ValueError, IndexError):
            faults.append(FieldFault(f"line {number}", f"is no reading: {'; '.join(cells)[:60]}"))
            continue
        if t_s and values["time"] < t_s[-1]:
            faults.append(FieldFault(f"line {number}", "its time goes backwards"))
        t_s.append(values["time"])
        power = values["watts"] if "watts" in values else values["volts"] * values["amps"]
        watts.append(abs(power))
    if faults or len(t_s) < 2:
        raise BadDocument(tuple(faults[:20]) or (FieldFault("(log)", "has no readings"),))
    if t_s[-1] - t_s[0] > LONGEST_S:
        why = "lasts more than 48 hours; is its time in another unit?"
        raise BadDocument((FieldFault("(log)", why),))
    return [one - t_s[0] for one in t_s], watts


def _value(cell: str, column: MeterColumn) -> float:
    if column.quantity == "time" and ":" in cell:
        return _clock_s(cell)
    value = float(cell.replace(",", "."))
    if not math.isfinite(value):
        raise ValueError(cell)
    return value * UNITS[column.unit][1]


def _clock_s(cell: str) -> float:
    """Seconds of "1:02:03", "02:03" or an ISO date and time."""
    if re.fullmatch(r"(\d+:)?\d+:\d+(\.\d+)?", cell):
        seconds = 0.0
        for part in cell.split(":"):
            seconds = seconds * 60.0 + float(part)
        return seconds
    moment = datetime.fromisoformat(cell)
    return (moment.replace(tzinfo=None) - datetime(2000, 1, 1)).total_seconds()  # noqa: DTZ001 - differences only


def _read(columns: tuple[MeterColumn, ...], t_s: list[float], watts: list[float]) -> MeterRead:
    usual_w = sorted(watts)[len(watts) * 3 // 4]
    live = [number for number, power in enumerate(watts) if power > LIVE_SHARE * usual_w > 0.0]
    if len(live) < 2:
        why = "shows no power: nothing was drawn through the meter"
        raise BadDocument((FieldFault("(log)", why),))
    first, last = live[0], live[-1]
    recorded = zip(t_s[first : last + 1], watts[first : last + 1], strict=True)
    joules = sum((t1 - t0) * (w0 + w1) / 2.0 for (t0, w0), (t1, w1) in pairwise(recorded))
    seconds = max(t_s[last] - t_s[first], 1e-9)
    step = max(1, len(t_s) // SHOWN)
    return MeterRead(
        columns=columns,
        lines=len(t_s),
        from_min=t_s[first] / 60.0,
        to_min=t_s[last] / 60.0,
        minutes=seconds / 60.0,
        mean_w=joules / seconds,
        wh=joules / 3600.0,
        t_min=tuple(round(one / 60.0, 3) for one in t_s[::step]),
        watts=tuple(round(one, 4) for one in watts[::step]),
    )
