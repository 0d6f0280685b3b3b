"""Who does which work: edits at one desk, what takes its time at another, the newest first."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass
from threading import Condition, Thread, Timer
from typing import Any

from django.http import HttpRequest

from tumbrel.core.measures import Measures, chosen

from .watch import Abandoned, TooLong, Watch
from .worker import Gone, Work, Worker

QUICK_S = 2.0
SLOW_S = 30.0
SLOW_AFTER_S = 10.0
MOST_WAITING = 12
LOOK_S = 0.1


class Busy(Exception):
    """So many newer questions wait that this one is not answered."""


@dataclass(eq=False)
class _Ticket:
    turned_away: bool = False


class Desk:
    """Some processes and a pile of questions: the newest is taken first."""

    def __init__(self, workers: int, seconds: float, *, yields: bool = False) -> None:
        self.seconds = seconds
        self._free = [Worker(yields=yields) for _ in range(workers)]
        self._all = tuple(self._free)
        self._pile: list[_Ticket] = []
        self._turn = Condition()
        self._later: Timer | None = None

    def start(self, first: Work | None = None) -> None:
        """Start the processes and have each do a first work, so that no question need wait."""
        for worker in self._all:
            worker.start()
        if first is not None:
            self._warm_all(first)

    def start_later(self, first: Work, after_s: float) -> None:
        """Have each process do a first work a while later, if it is not needed before."""
        self._later = Timer(after_s, self._warm_all, (first,))
        self._later.daemon = True
        self._later.start()

    def _warm_all(self, first: Work) -> None:
        for _ in self._all:
            Thread(target=self._warm, args=(first,), daemon=True).start()

    def _warm(self, first: Work) -> None:
        with suppress(Exception):  # what fails here fails again where it is told
            for _ in self.do(first, (), _still_there):
                continue

    def end(self) -> None:
        """End the processes."""
        if self._later is not None:
            self._later.cancel()
        for worker in self._all:
            worker.end(for_good=True)

    def do(
        self, work: Work, words: tuple[Any, ...], gone: Gone, measures: Measures = "metric"
    ) -> Iterator[bytes]:
        """Parts of the answer. Raises Busy, Abandoned, TooLong, or what the work raises."""
        worker = self._taken(gone)
        try:
            yield from worker.do(work, words, self.seconds, gone, measures)
        finally:
            with self._turn:
                self._free.append(worker)
                self._turn.notify_all()

    def _taken(self, gone: Gone) -> Worker:
        mine = _Ticket()
        with self._turn:
            self._pile.append(mine)
            if len(self._pile) > MOST_WAITING:
                self._pile.pop(0).turned_away = True
            try:
                while not (self._free and self._pile[-1] is mine):
                    self._turn.wait(LOOK_S)
                    if mine.turned_away:
                        raise Busy
                    if gone():
                        raise Abandoned
            finally:
                if mine in self._pile:
                    self._pile.remove(mine)
                self._turn.notify_all()
            return self._free.pop()


class _Apart:
    """The desks of a served Tumbrel; without them work is done where it is asked."""

    quick: Desk | None = None
    slow: Desk | None = None


def work_apart(quick: Work | None = None, slow: Work | None = None) -> None:
    """From now on, do work in processes of its own; a first work of each loads what it needs.

    Those of the slow desk start when they are needed, or a while later: the first page comes first.
    """
    _Apart.quick, _Apart.slow = Desk(1, QUICK_S), Desk(2, SLOW_S, yields=True)
    _Apart.quick.start(quick)
    if slow is not None:
        _Apart.slow.start_later(slow, SLOW_AFTER_S)


def end_work() -> None:
    """End the processes."""
    for desk in (_Apart.quick, _Apart.slow):
        if desk is not None:
            desk.end()
    _Apart.quick = _Apart.slow = None


def edit(work: Work, *words: Any, gone: Gone) -> bytes:
    """The whole answer to an edit: at the quick desk, or the slow one when it takes longer."""
    if _Apart.quick is None:
        return b"".join(work(Watch(SLOW_S, gone), *words))
    try:
        return b"".join(_Apart.quick.do(work, words, gone, chosen()))
    except TooLong:
        return b"".join(heavy(work, *words, gone=gone))


def heavy(work: Work, *words: Any, gone: Gone) -> Iterator[bytes]:
    """Parts of the answer to what takes its time."""
    if _Apart.slow is None:
        return work(Watch(SLOW_S, gone), *words)
    return _Apart.slow.do(work, words, gone, chosen())


def gone_from(request: HttpRequest) -> Gone:
    """Tells whether whoever asked has closed the connection."""
    told = request.META.get("waitress.client_disconnected")
    return told if callable(told) else _still_there


def _still_there() -> bool:
    return False
