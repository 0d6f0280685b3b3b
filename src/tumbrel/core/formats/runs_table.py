"""Bench runs as CSV, out and in, and as a pasted table."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable, Mapping
from typing import Any

from ..bench.runs import BenchRun
from ..bench.special import readings_text
from ..document import BadDocument, Camera, FieldFault
from ..document.base import Part
from ..document.rows import Row, defused, free_key, made_of, read_rows, undefused

COLUMNS = (
    "id",
    "camera",
    "mode",
    "set_up",
    "features",
    "ambient_c",
    "air_mps",
    "plugged",
    "charge_start",
    "charge_end",
    "minutes",
    "end",
    "warned_min",
    "charge_paused_min",
    "paused_from_min",
    "resumed_min",
    "store_wh",
    "store_kind",
    "store_read",
    "charging",
    "port_w",
    "charge_read",
    "cell_start_c",
    "mean_w",
    "metered",
    "bytes",
    "at",
    "firmware",
    "excluded",
)
PASTED = ("mode", "minutes", "end", "ambient_c", "air_mps", "set_up", "plugged", "at", "firmware")
NEEDED = ("mode", "minutes", "end", "ambient_c")
OTHER_NAMES = {
    "set-up": "set_up",
    "setup": "set_up",
    "temperature": "ambient_c",
    "room": "ambient_c",
    "air": "air_mps",
    "airflow": "air_mps",
    "warning": "warned_min",
    "why": "end",
    "reason": "end",
    "date": "at",
    "duration": "minutes",
    "time": "minutes",
}
ENDS = {
    "card full": "card_full",
    "full": "card_full",
    "clip limit": "clip_limit",
    "stopped by me": "stopped",
    "both empty": "both_empty",
    "charged": "full",
    "battery": "empty",
    "heat": "hot",
    "overheated": "hot",
}
AIRS = {"still": "0", "fan": "1.5", "light fan": "1.5", "riding": "9", "riding speed": "9"}
YES, NO = {"yes", "true", "1", "y"}, {"no", "false", "0", "n", ""}
MOST_LINES = 600
PER_CENT_ABOVE = 1.5  # "95" is meant as per cent


class RunsRead(Part):
    """Runs of a table, in its order."""

    runs: tuple[BenchRun, ...]


def write_runs(runs: Iterable[BenchRun]) -> str:
    """Runs as CSV with a line of column names."""
    out = io.StringIO()
    writer = csv.DictWriter(out, COLUMNS, lineterminator="\r\n")
    writer.writeheader()
    for run in runs:
        told = run.model_dump(mode="json")
        told["features"] = " ".join(run.features)
        told["plugged"] = "yes" if run.plugged else "no"
        told["charging"] = "yes" if run.charging else ""
        told["store_kind"] = "" if run.store_wh is None else run.store_kind
        told["store_read"] = readings_text(run.store_read)
        told["charge_read"] = readings_text(run.charge_read)
        writer.writerow({name: _cell(told[name]) for name in COLUMNS})
    return out.getvalue()


def _cell(value: str | float | None) -> str | float:
    if value is None:
        return ""
    return defused(value) if isinstance(value, str) else value


def read_runs(
    text: str,
    cameras: Iterable[Camera],
    camera: str | None = None,
    taken: frozenset[str] = frozenset(),
) -> RunsRead:
    """Runs of a CSV or pasted table. Raises BadDocument naming every line at fault.

    Without a line of names the columns are mode, minutes, end, temperature, air, set-up, plugged,
    date, firmware. Modes and set-ups go by key or by name. `camera` stands where no column names
    one. A run whose id is `taken` gets another one.
    """
    by_key = {one.id: one for one in cameras}
    columns, lines = _columns(read_rows(text, MOST_LINES + 1, empty="put one run on each line"))
    names = set(taken)

    def run_of(cells: list[str]) -> BenchRun:
        row = {name: undefused(cell) for name, cell in zip(columns, cells, strict=False) if cell}
        run = BenchRun.model_validate(_run(row, by_key, camera, names))
        names.add(run.id)
        return run

    return RunsRead(runs=tuple(made_of(lines, run_of)))


def _columns(lines: list[Row]) -> tuple[tuple[str, ...], list[Row]]:
    """Names of the columns, and the lines that are left."""
    cells = [cell.lower() for cell in lines[0][1]]
    head = tuple(_column(cell) for cell in cells)
    if "minutes" not in head and "mode" not in head:
        return PASTED, lines
    unknown = [cell for cell, name in zip(cells, head, strict=True) if name not in COLUMNS]
    missing = [name for name in NEEDED if name not in head]
    if unknown or missing:
        why = f"lacks the column '{missing[0]}'" if missing else f"has a column '{unknown[0]}'"
        raise BadDocument(
            (FieldFault(f"line {lines[0][0]}", f"{why}; known are {', '.join(COLUMNS)}"),)
        )
    return head, lines[1:]


def _column(cell: str) -> str:
    bare = re.sub(r"\s*[(\[,].*$|\s+(?:°\s*c|min|m/s|w)$", "", cell).strip()
    name = OTHER_NAMES.get(bare, bare).replace(" ", "_").replace("-", "_")
    return OTHER_NAMES.get(name, name)


def _run(
    row: Mapping[str, str], by_key: Mapping[str, Camera], camera: str | None, names: set[str]
) -> dict[str, Any]:
    key = _camera(row.get("camera", camera or ""), by_key)
    for name in NEEDED:
        if name not in row:
            raise ValueError(f"has no {name}")
    chosen = by_key[key]
    names_of = {s.id: s.name for s in chosen.set_ups}
    set_up = _part("set-up", row.get("set_up", chosen.set_ups[0].id), names_of)
    fed = next(s for s in chosen.set_ups if s.id == set_up).power != "battery"
    run: dict[str, Any] = {
        "id": free_key(row.get("id", ""), names, "run"),
        "camera": key,
        "mode": _part("mode", row["mode"], {m.id: m.name for m in chosen.modes}),
        "set_up": set_up,
        "features": row.get("features", "").replace(",", " ").split(),
        "minutes": _minutes(row["minutes"]),
        "end": ENDS.get(row["end"].lower(), row["end"].lower().replace(" ", "_")),
        "plugged": _yes(row["plugged"]) if "plugged" in row else fed,
    }
    air = row.get("air_mps", "")
    for name, cell in (("ambient_c", row["ambient_c"]), ("air_mps", AIRS.get(air.lower(), air))):
        if cell:
            run[name] = _number(cell, name)
    for name in ("charge_start", "charge_end"):
        if name in row:
            run[name] = _share(row[name], name)
    run |= _special(row)
    for name in ("warned_min", "charge_paused_min", "paused_from_min", "resumed_min", "mean_w"):
        if name in row:
            run[name] = _minutes(row[name]) if name.endswith("_min") else _number(row[name], name)
    return run | {n: row[n] for n in ("metered", "bytes", "at", "firmware", "excluded") if n in row}


def _special(row: Mapping[str, str]) -> dict[str, Any]:
    """What a run on a store, of charging or from a warm pocket has besides."""
    run: dict[str, Any] = {}
    if "charging" in row:
        run["charging"] = _yes(row["charging"])
    for name in ("store_read", "charge_read"):
        if name in row:
            run[name] = _readings(row[name], name)
    for name in ("store_wh", "port_w", "cell_start_c"):
        if name in row:
            run[name] = _number(row[name], name)
    if "store_kind" in row:
        run["store_kind"] = row["store_kind"].lower()
    return run


def _readings(text: str, name: str) -> list[dict[str, float]]:
    """Readings of "20:80 40:55": minutes, and the per cent then."""
    found = []
    for part in text.replace(";", " ").split():
        at, _, share = part.partition(":")
        if not share:
            raise ValueError(f"{name} '{part}' is no reading; write minutes and per cent, as 20:80")
        found.append({"at_min": _minutes(at), "share": _share(share, name)})
    return found


def _camera(key: str, by_key: Mapping[str, Camera]) -> str:
    found = [one.id for one in by_key.values() if key in (one.id, one.name)]
    if not found:
        raise ValueError(f"camera '{key}' is not in the kit; it has {', '.join(by_key)}")
    return found[0]


def _part(what: str, text: str, parts: Mapping[str, str]) -> str:
    alike = [key for key, name in parts.items() if text.lower() in (key, name.lower())]
    if not alike:
        raise ValueError(f"{what} '{text}' is none of {', '.join(parts.values())}")
    return alike[0]


def _minutes(text: str) -> float:
    """Minutes of "62", "62.5", "1:02", "1 h 02" or "62 min"."""
    found = re.fullmatch(r"(\d+)\s*(?:h|:)\s*(\d+)?\s*(?:min|m)?", text.strip().lower())
    if found is not None:
        return int(found[1]) * 60.0 + int(found[2] or 0)
    return _number(re.sub(r"\s*(?:min|m)$", "", text.strip().lower()), "minutes")


def _share(text: str, name: str) -> float:
    if text.endswith("%"):
        return _number(text[:-1], name) / 100.0
    value = _number(text, name)
    return value / 100.0 if value > PER_CENT_ABOVE else value


def _number(text: str, name: str) -> float:
    plain = text.strip().replace("\u2212", "-").replace(",", ".")
    plain = re.sub(r"\s*(?:°?\s*[cC]|m/s|[wW])$", "", plain)
    try:
        return float(plain)
    except ValueError:
        raise ValueError(f"{name} '{text}' is no number") from None


def _yes(text: str) -> bool:
    if text.lower() not in YES | NO:
        raise ValueError(f"plugged '{text}' is neither yes nor no")
    return text.lower() in YES
