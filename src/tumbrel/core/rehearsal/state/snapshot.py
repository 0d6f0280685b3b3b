"""A state put away and taken up again: what changes is copied, the rest is shared."""

from __future__ import annotations

import io
import pickle
from collections.abc import Iterable
from enum import Enum
from typing import Generic, TypeVar

from pydantic import BaseModel

from ...shared import Shared
from .append_log import Log

State = TypeVar("State")

WHOLE = -1
WHOLES = (Shared, BaseModel, Enum)
_is_whole: dict[type, bool] = {}  # by type: asked for every object of a state


class Frozen(Generic[State]):
    """A state as it was, to be taken up any number of times.

    Logs only grow, so of them only their length is kept. Parts of a document, values that are
    `Shared`, enumerations and whatever is named in `fixed` are the same in all. Held in memory
    only: nothing is ever read that was not put away by the same process.
    """

    def __init__(self, state: State, fixed: Iterable[object]) -> None:
        out = io.BytesIO()
        freezer = _Freezer(out, fixed)
        freezer.dump(state)
        self.changing = out.getvalue()
        self.kept = freezer.kept

    def thaw(self) -> State:
        """A state of its own that goes on from there."""
        state: State = _Thawer(io.BytesIO(self.changing), self.kept).load()
        return state


class _Freezer(pickle.Pickler):
    """Writes down what changes; numbers what is shared, with the length of logs."""

    def __init__(self, out: io.BytesIO, fixed: Iterable[object]) -> None:
        super().__init__(out, protocol=pickle.HIGHEST_PROTOCOL)
        self.fixed = {id(one) for one in fixed}
        self.kept: list[tuple[object, int]] = []
        self.numbers: dict[int, int] = {}

    def persistent_id(self, one: object) -> int | None:
        """The number of something shared, None for what is copied."""
        kind = type(one)
        whole = _is_whole.get(kind)
        if whole is None:
            whole = _is_whole[kind] = issubclass(kind, WHOLES)
        if kind is Log:
            length = len(one)  # type: ignore[arg-type]
        elif whole or id(one) in self.fixed:
            length = WHOLE
        else:
            return None
        number = self.numbers.setdefault(id(one), len(self.kept))
        if number == len(self.kept):
            self.kept.append((one, length))
        return number


class _Thawer(pickle.Unpickler):
    """Reads it back; logs begin with what was in them then."""

    def __init__(self, data: io.BytesIO, kept: list[tuple[object, int]]) -> None:
        super().__init__(data)
        self.kept = kept
        self.made: dict[int, Log[object]] = {}

    def persistent_load(self, number: int) -> object:
        """What a number stands for; a log that two share is one again."""
        one, length = self.kept[number]
        if not isinstance(one, Log):
            return one
        if number not in self.made:
            self.made[number] = Log(one[:length])
        return self.made[number]
