"""Lists that only grow."""

from __future__ import annotations

from typing import TypeVar

T = TypeVar("T")


class Log(list[T]):
    """A list that is only appended to: a state that is put away need only keep its length."""
