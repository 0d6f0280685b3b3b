"""What one piece of work may take, and when it is to end: seconds, memory, and who asked.

Seconds are those in which a processor worked on it: on a machine that is busy with other things
the same work takes longer, and is not stopped for that.
"""

from __future__ import annotations

import time
from collections.abc import Callable

import psutil

from tumbrel.core.document import BadDocument, FieldFault

CALLS_BETWEEN = 32
MEMORY_EVERY_S = 0.25
MOST_MEMORY_BYTES = 1_500_000_000


class Abandoned(Exception):
    """Nobody waits for the answer any more."""


class OutOfBounds(BadDocument):
    """Work that takes more seconds or memory than it may; says which."""

    def __init__(self, why: str) -> None:
        super().__init__((FieldFault("plan", why),))


class TooLong(OutOfBounds):
    """Work that takes too many seconds where it is done."""

    def __init__(self, seconds: float) -> None:
        super().__init__(
            f"takes over {seconds:.0f} s to play through and was stopped; nothing is lost. "
            "Ask for fewer clips and takes, carry fewer batteries, or make two trips of it"
        )


class Watch:
    """Called again and again while work goes on. Raises Abandoned, TooLong or OutOfBounds."""

    def __init__(
        self,
        seconds: float,
        is_abandoned: Callable[[], bool],
        memory_bytes: int = MOST_MEMORY_BYTES,
    ) -> None:
        self._seconds = seconds
        self._ends = time.thread_time() + seconds
        self._is_abandoned = is_abandoned
        self._memory_bytes = memory_bytes
        self._calls = 0
        self._look_at_memory = 0.0
        self._process = psutil.Process()

    def __call__(self) -> None:
        """Look at the clock now and then, at memory more seldom."""
        self._calls += 1
        if self._calls % CALLS_BETWEEN:
            return
        self.look()

    def look(self) -> None:
        """Look now."""
        if self._is_abandoned():
            raise Abandoned
        if time.thread_time() > self._ends:
            raise TooLong(self._seconds)
        now = time.monotonic()
        if now > self._look_at_memory:
            self._look_at_memory = now + MEMORY_EVERY_S
            if self._process.memory_info().rss > self._memory_bytes:
                most = self._memory_bytes / 1e9
                raise OutOfBounds(
                    f"takes over {most:.1f} GB of memory to play through and was stopped; nothing "
                    "is lost. Ask for fewer clips and takes, or make two trips of it"
                )
