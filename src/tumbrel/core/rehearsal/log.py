"""Lists that only grow, so that a checkpoint need only remember how far they were."""

from __future__ import annotations

from typing import Any, Generic, TypeVar

T = TypeVar("T")


class Log(list[T]):
    """A list that is only appended to. Copying it deeply marks its length; see `Mark`."""

    def __deepcopy__(self, memo: dict[int, Any]) -> Mark[T]:
        """What a checkpoint keeps of it."""
        return Mark(self, len(self))


class Mark(Generic[T]):
    """A log up to a length; copying it deeply gives a log again, with just that much in it."""

    def __init__(self, log: Log[T], length: int) -> None:
        self.log = log
        self.length = length

    def __deepcopy__(self, memo: dict[int, Any]) -> Log[T]:
        """The log as it was when marked."""
        return Log(self.log[: self.length])
