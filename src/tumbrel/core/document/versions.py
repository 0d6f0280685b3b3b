"""Documents carry the number of their schema; older ones are brought up wherever they are read.

What is kept is never rewritten: a file, a row, a step back or a variant stays as it was written,
and goes through `brought_up` each time. A step from one number to the next is one function.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any, Literal

from .faults import BadDocument, FieldFault

CURRENT = 5
NUMBER = "tumbrel"
UNNUMBERED = 1  # rows of the first schema did not say theirs
Kind = Literal["file", "kit", "trip", "notebook"]
Raw = dict[str, Any]


def _numbered_everywhere(document: Raw, _kind: Kind) -> Raw:
    """From 1 to 2: kits, trips and notebooks say their number too; nothing else changed."""
    return document


def _moves_took_no_time(document: Raw, kind: Kind) -> Raw:
    """From 2 to 3: moving a camera to another mount takes time; in what was kept it took none."""
    if kind == "file" and isinstance(document.get("kit"), dict):
        return {**document, "kit": _moves_took_no_time(document["kit"], "kit")}
    cameras = document.get("cameras")
    if kind != "kit" or not isinstance(cameras, list):
        return document
    no_time = {"move_s": 0.0, "move_gloved_s": 0.0}
    still = [{**no_time, **one} if isinstance(one, dict) else one for one in cameras]
    return {**document, "cameras": still}


def _as_it_was(document: Raw, _kind: Kind) -> Raw:
    """From 3 to 4: what is new is left unsaid; typical figures have changed for all documents."""
    return document


def _every_draw_is_known(document: Raw, _kind: Kind) -> Raw:
    """From 4 to 5: a mode's draw may be not known; in what was kept it was said."""
    return document


UPGRADES: dict[int, Callable[[Raw, Kind], Raw]] = {
    1: _numbered_everywhere,
    2: _moves_took_no_time,
    3: _as_it_was,
    4: _every_draw_is_known,
}


def brought_up(document: Mapping[str, Any], kind: Kind) -> Raw:
    """A document as the present schema has it, without its number; the given one stays as it is.

    Raises BadDocument when its number is none, or newer than this version of Tumbrel knows.
    """
    number = document.get(NUMBER, UNNUMBERED)
    known = isinstance(number, int) and not isinstance(number, bool)
    if not known or not UNNUMBERED <= number <= CURRENT:
        why = f"is {number!r}; this version of Tumbrel reads 1 to {CURRENT}"
        raise BadDocument((FieldFault(NUMBER, why),))
    raw = {name: value for name, value in document.items() if name != NUMBER}
    for step in range(number, CURRENT):
        raw = UPGRADES[step](raw, kind)
    return raw


def numbered(document: Mapping[str, Any]) -> Raw:
    """A document of the present schema as it is kept: with its number."""
    return {NUMBER: CURRENT, **document}
