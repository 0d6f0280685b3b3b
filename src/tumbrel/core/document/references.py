"""What a plan names, in one table; and checks that names are unique and known.

Everything that has to know where a plan leans on kit and trip reads REFERS: the check of a
document, which trips use a unit, what goes when a unit, leg or stop goes, and the page (as a made
file). A new field of a plan that names something is one more row here; a test walks the schema and
fails where a row is missing.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, Final, Literal

if TYPE_CHECKING:
    from .plan import Plan

Kind = Literal[
    "camera", "battery", "card", "source", "drive", "gear", "unit", "power", "item",
    "mode", "set_up", "preset",
]  # fmt: skip
Gone = Literal["row", "blank", "one", "stays"]


@dataclass(frozen=True, slots=True)
class Refers:
    """A field of a plan's rows that names something of the kit or the trip.

    `gone` says what becomes of a row when what it names is gone: the whole row goes, the field is
    left empty (and `too` with it), one name of several goes (and the row, when fewer than two are
    left), or all stays and a finding tells it.
    """

    rows: str
    field: str
    names: Kind
    gone: Gone = "row"
    too: tuple[str, ...] = ()


REFERS: Final = (
    Refers("cameras", "camera", "camera"),
    Refers("cameras", "battery", "battery", "blank"),
    Refers("cameras", "card", "card", "blank"),
    Refers("cameras", "source", "source", "blank"),
    Refers("assignments", "camera", "camera"),
    Refers("assignments", "item", "item"),
    Refers("assignments", "mode", "mode", "stays"),
    Refers("assignments", "set_up", "set_up", "stays"),
    Refers("assignments", "preset", "preset", "stays"),
    Refers("swaps", "camera", "camera"),
    Refers("swaps", "item", "item"),
    Refers("swaps", "battery", "battery"),  # empty would say that the one in it stays
    Refers("card_swaps", "camera", "camera"),
    Refers("card_swaps", "item", "item"),
    Refers("card_swaps", "card", "card"),
    Refers("plugs", "unit", "unit"),
    Refers("plugs", "item", "item"),
    Refers("plugs", "to", "power", "blank", ("place",)),
    Refers("gear", "gear", "gear"),
    Refers("gear", "item", "item"),
    Refers("full_by", "unit", "unit"),
    Refers("copies", "item", "item"),
    Refers("copies", "camera", "camera"),
    Refers("copies", "card", "card"),
    Refers("copies", "drive", "drive"),
    Refers("links", "cameras", "camera", "one"),
)
SAID: Final[Mapping[str, str]] = {
    "gear": "thing with a battery",
    "unit": "battery or bank",
    "power": "source or charger",
    "item": "leg or stop",
}
OF_CAMERA: Final = frozenset({"mode", "set_up", "preset"})
Known = Mapping[str, Collection[str]]


@dataclass(frozen=True, slots=True)
class Named:
    """One name in a plan: in which row, by which field, the name ("camera/mode" for a mode)."""

    number: int
    by: Refers
    name: str


def named_in(plan: Plan | Mapping[str, Any]) -> Iterator[Named]:
    """Every name by which a plan leans on kit and trip; of a plan as it is kept, too.

    A plan kept by an older application may lack any of the fields: it names nothing there.
    """
    for refers in REFERS:
        for number, row in enumerate(_of(plan, refers.rows) or ()):
            for name in _names(row, refers):
                yield Named(number, refers, name)


def _of(row: object, field: str) -> Any:
    return row.get(field) if isinstance(row, Mapping) else getattr(row, field)


def _names(row: object, refers: Refers) -> tuple[str, ...]:
    value = _of(row, refers.field)
    if value is None:
        return ()
    if refers.names in OF_CAMERA:
        return (f"{_of(row, 'camera')}/{value}",)
    return tuple(value) if refers.gone == "one" else (value,)


def refuse_missing(plan: Plan, known: Known) -> None:
    """Raise ValueError, with the path of the row, where a plan names what is not there.

    Shapes: `known` holds the keys by kind; a kind that it lacks is not looked at. A mode or set-up
    that is missing is no error but a finding: the kit may have changed since the plan was made.
    """
    for one in named_in(plan):
        keys = known.get(one.by.names)
        if keys is not None and one.by.gone != "stays" and one.name not in keys:
            what = SAID.get(one.by.names, one.by.names)
            refuse_unknown(f"plan.{one.by.rows}[{one.number}]: {what}", one.name, keys)


def without_missing(plan: Plan, known: Known) -> Plan:
    """The plan less all that names what is not among the known keys, as REFERS says for each field.

    Shapes: `known` holds the keys by kind; a kind that it lacks is not looked at.
    """
    left = {
        name: tuple(row for _, row in kept_rows(plan, name, known) if row is not None)
        for name in {refers.rows for refers in REFERS}
    }
    return plan.model_copy(update=left)


def kept_rows(plan: Plan, name: str, known: Known) -> Iterator[tuple[Any, Any]]:
    """Each row of a list of a plan, with what is left of it without what is missing, or None."""
    for row in getattr(plan, name):
        yield row, _all_without(row, name, known)


def _all_without(row: Any, name: str, known: Known) -> Any:
    for refers in REFERS:
        keys = known.get(refers.names)
        if row is not None and refers.rows == name and keys is not None and refers.gone != "stays":
            row = _without(row, refers, keys)
    return row


def _without(row: Any, refers: Refers, keys: Collection[str]) -> Any:
    """A row when what it names may be gone; None: it goes too."""
    names = _names(row, refers)
    there = tuple(name for name in names if name in keys)
    if there == names:
        return row
    if refers.gone == "one":
        return row.model_copy(update={refers.field: there}) if len(there) > 1 else None
    if refers.gone == "blank":
        return row.model_copy(update=dict.fromkeys((refers.field, *refers.too)))
    return None


def refuse_repeats(what: str, names: Iterable[str]) -> None:
    """Raise ValueError when a name stands twice."""
    seen: set[str] = set()
    for name in names:
        if name in seen:
            raise ValueError(f"{what} '{name}' stands twice; each needs a name of its own")
        seen.add(name)


def refuse_unknown(what: str, name: str, known: Iterable[str]) -> None:
    """Raise ValueError when a name is not among the known ones."""
    if name not in set(known):
        raise ValueError(f"{what} '{name}' is not in the document")
