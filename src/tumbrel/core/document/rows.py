"""Rows of a pasted table or CSV, with the line that each begins on."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Callable, Iterable
from collections.abc import Set as AbstractSet
from itertools import islice
from typing import TypeVar

from pydantic import ValidationError

from . import BadDocument, FieldFault
from .plan_file import faults_of

Made = TypeVar("Made")
LOOKED_AT = 10
Row = tuple[int, list[str]]


def read_rows(text: str, most: int, *, empty: str, marks: str = "\t;|") -> list[Row]:
    """Rows of cells, parted by the first of `marks` that most first lines hold, else by comma.

    Empty lines fall away. Raises BadDocument when nothing is left (told as `empty`), when there are
    more than `most` rows, or when a quote is never closed.
    """
    text = text.lstrip("\ufeff")
    first = list(islice((line for line in text.splitlines() if line.strip()), LOOKED_AT))
    mark = next((m for m in marks if sum(m in line for line in first) * 2 > len(first)), ",")
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=mark, strict=True)
    found: list[Row] = []
    line = 1
    try:
        for cells in reader:
            if any(cell.strip() for cell in cells):
                found.append((line, [cell.strip() for cell in cells]))
            line = reader.line_num + 1
    except csv.Error as error:
        raise BadDocument((FieldFault(f"line {line}", f"cannot be read: {error}"),)) from None
    if not found:
        raise BadDocument((FieldFault("(table)", f"is empty: {empty}"),))
    if len(found) > most:
        raise BadDocument((FieldFault("(table)", f"has over {most} lines"),))
    return found


def made_of(lines: Iterable[Row], make: Callable[[list[str]], Made]) -> list[Made]:
    """What `make` makes of each row. Raises BadDocument naming every line at fault."""
    made: list[Made] = []
    faults: list[FieldFault] = []
    for number, cells in lines:
        try:
            made.append(make(cells))
        except ValidationError as error:
            faults += [FieldFault(f"line {number}, {f.path}", f.why) for f in faults_of(error)]
        except ValueError as error:
            faults.append(FieldFault(f"line {number}", str(error)))
    if faults:
        raise BadDocument(tuple(faults))
    return made


FORMULA_BEGINS = ("=", "+", "-", "@", "\t", "\r")


def defused(text: str) -> str:
    """A text that no spreadsheet takes for a formula: an apostrophe stands before it."""
    return f"'{text}" if text.startswith((*FORMULA_BEGINS, "'")) else text


def undefused(cell: str) -> str:
    """The text of a cell that may have been defused."""
    return cell[1:] if cell[:1] == "'" and cell[1:2] in (*FORMULA_BEGINS, "'") else cell


def free_key(text: str, taken: AbstractSet[str], fallback: str) -> str:
    """A key made of a text's letters and digits that is not taken yet."""
    base = re.sub(r"[^a-z0-9]+", "-", text.lower()).strip("-")[:30] or fallback
    key, number = base, 2
    while key in taken:
        key, number = f"{base}-{number}", number + 1
    return key
