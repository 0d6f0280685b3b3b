"""Checks that names inside a document are unique and known."""

from __future__ import annotations

from collections.abc import Iterable


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
