"""Tables of parameters in docs/model, and as JSON, written from the parameters themselves.

`python -m tools.model` writes them; with `--check` it fails when one is old.
"""

from __future__ import annotations

import json
import re
import sys
from dataclasses import asdict, fields
from pathlib import Path

from tumbrel.core.mistakes import LEAST_APART_K, LEAST_LAG_S
from tumbrel.core.parameters import DEFAULTS, Parameter

PAGES = Path(__file__).resolve().parents[1] / "docs" / "model"
JSON = PAGES.parent / "formats" / "parameters.json"
MARK = re.compile(r"<!-- parameters: ([\w ]+) -->\n(?:\|.*\n)*")


def table(names: list[str]) -> str:
    """A row each: name, value, range, unit and source."""
    rows = ["| parameter | value | range | unit | source |", "|---|---|---|---|---|"]
    for name in names:
        given = getattr(DEFAULTS, name)
        each = {name: given} if isinstance(given, Parameter) else given
        for key, one in each.items():
            title = f"`{key}`" if key == name else f"`{name}`: {key}"
            low_high = "" if one.low == one.high else f"{one.low:g} to {one.high:g}"
            rows.append(f"| {title} | {one.value:g} | {low_high} | {one.unit} | {one.source} |")
    return "\n".join(rows) + "\n"


def told(page: str) -> str:
    """A page with its tables as they are now."""
    return MARK.sub(lambda m: f"<!-- parameters: {m[1]} -->\n{table(m[1].split())}", page)


def named(page: str) -> list[str]:
    """Parameters that a page tells of."""
    return [name for found in MARK.finditer(page) for name in found[1].split()]


def as_json() -> str:
    """Every parameter by its name, for whoever shows what is assumed."""
    named_ones = {field.name: getattr(DEFAULTS, field.name) for field in fields(DEFAULTS)}
    told_ones = {n: asdict(one) for n, one in named_ones.items() if isinstance(one, Parameter)}
    told_ones["least_apart_k"] = {"value": LEAST_APART_K, "unit": "K"}
    told_ones["least_lag_s"] = {"value": LEAST_LAG_S, "unit": "s"}
    return json.dumps(told_ones, indent=1, sort_keys=True) + "\n"


def main() -> int:
    """Write or check all pages."""
    old = []
    if not JSON.exists() or JSON.read_text("utf-8") != as_json():
        old.append(JSON.name)
        if "--check" not in sys.argv:
            JSON.write_text(as_json(), "utf-8")
    for path in sorted(PAGES.glob("*.md")):
        page = path.read_text("utf-8")
        if told(page) != page:
            old.append(path.name)
            if "--check" not in sys.argv:
                path.write_text(told(page), "utf-8")
    if old and "--check" in sys.argv:
        print(f"{', '.join(old)}: older than the parameters; run python3 run.py describe")
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
