"""A process that does one piece of work after the other, as it is told over a pipe."""

from __future__ import annotations

import logging
import multiprocessing
import os
import pickle
import signal
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import suppress
from multiprocessing.connection import Connection
from threading import Lock
from typing import Any

from tumbrel.core.document import BadDocument
from tumbrel.core.measures import Measures, told_in

from .collecting import collect_seldom
from .watch import Abandoned, TooLong, Watch

Work = Callable[..., Iterator[bytes]]
Gone = Callable[[], bool]

LOOK_S = 0.05
GRACE_S = 8.0  # what is written down at the end is not looked at
PATIENCE = 4  # so many times its seconds, where other processes have the processors
STARTS_S = 120.0
HEARS_S = 5.0
NICE = 5  # far from nothing: on a busy machine it must get on, too
READY = b"ready"
LATE = "late"

log = logging.getLogger(__name__)
context = multiprocessing.get_context("spawn")


class Failed(Exception):
    """The work failed by a fault of ours; says of what kind."""


class Worker:
    """One process; started when it is first needed, and anew after it had to be killed.

    `yields` lets every other process of the machine go first.
    """

    def __init__(self, *, yields: bool = False) -> None:
        self._yields = yields
        self._process: Any = None
        self._pipe: Connection | None = None
        self._abandoned: Any = context.Value("q", 0, lock=False)
        self._number = 0
        self._is_ready = False
        self._starting = Lock()
        self._is_over = False

    def start(self) -> None:
        """Start the process unless it runs. Raises Failed once all is over."""
        with self._starting:
            if self._is_over:
                raise Failed("no more work is done")
            if self._process is not None and self._process.is_alive():
                return
            self._is_ready = False
            self._pipe, theirs = context.Pipe()
            self._process = context.Process(
                target=work_on,
                args=(theirs, self._abandoned, os.getpid(), self._yields),
                daemon=True,
            )
            self._process.start()
            theirs.close()

    def end(self, *, for_good: bool = False) -> None:
        """End the process at once; for good: whoever would start it from now on is too late.

        A process that a late thread starts while the server ends would outlive it, or hold it.
        """
        with self._starting:
            self._is_over = self._is_over or for_good
            if self._process is not None:
                self._process.kill()
                self._process.join()
                self._process = None

    def do(
        self,
        work: Work,
        words: tuple[Any, ...],
        seconds: float,
        gone: Gone,
        measures: Measures = "metric",
    ) -> Iterator[bytes]:
        """Parts of the answer as they come, told in some measures.

        Raises what the work raises, TooLong, or Abandoned.

        Whoever stops reading, or has gone, ends the work.
        """
        self.start()
        pipe = self._pipe
        assert pipe is not None
        self._wait_until_ready(pipe, gone)
        self._number += 1
        running = True
        try:
            told = (self._number, work, words, seconds, measures)
            pipe.send_bytes(pickle.dumps(told))
            ends = time.monotonic() + PATIENCE * seconds + GRACE_S
            while running:
                while not pipe.poll(LOOK_S):
                    if gone():
                        raise Abandoned
                    if time.monotonic() > ends:
                        raise TooLong(seconds)
                kind, part = pickle.loads(pipe.recv_bytes())  # noqa: S301 - from our own process
                running = kind == "part"
                if kind == "raised":
                    raise _raised(part, seconds)
                if running:
                    yield part
        except (EOFError, OSError) as error:
            running = True
            raise Failed("the worker process ended by itself") from error
        finally:
            if running:
                self._stop(pipe)

    def _wait_until_ready(self, pipe: Connection, gone: Gone) -> None:
        """A process that starts is left to it, whoever goes meanwhile: the next question has it."""
        ends = time.monotonic() + STARTS_S
        try:
            while not self._is_ready:
                if pipe.poll(LOOK_S):
                    self._is_ready = pipe.recv_bytes() == READY
                elif gone():
                    raise Abandoned
                elif time.monotonic() > ends:
                    self.end()
                    raise Failed("the worker process does not start")
        except (EOFError, OSError) as error:
            self.end()
            raise Failed("the worker process ended as it started") from error

    def _stop(self, pipe: Connection) -> None:
        """Have the work given up; a process that does not hear is killed."""
        self._abandoned.value = self._number
        ends = time.monotonic() + HEARS_S
        with suppress(EOFError, OSError):
            while time.monotonic() < ends:
                if pipe.poll(LOOK_S) and pickle.loads(pipe.recv_bytes())[0] != "part":  # noqa: S301
                    return
        self.end()


def _raised(told: tuple[str, Any], seconds: float) -> Exception:
    kind, more = told
    if kind == "bad":
        return BadDocument(more)
    if kind == LATE:
        return TooLong(seconds)
    return Abandoned() if kind == "abandoned" else Failed(str(more))


def work_on(pipe: Connection, abandoned: Any, parent: int, yields: bool) -> None:
    """The process: work until the pipe closes or its parent has gone."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    signal.signal(signal.SIGTERM, signal.SIG_DFL)  # a server that ends ignores it, and hands it on
    if yields and hasattr(os, "nice"):
        os.nice(NICE)
    import django  # noqa: PLC0415 - only here, in a process of its own

    django.setup()
    with suppress(OSError):  # the server has gone: told below
        pipe.send_bytes(READY)
    is_fresh = True
    while True:
        try:
            number, work, words, seconds, measures = pickle.loads(pipe.recv_bytes())  # noqa: S301 - as above
        except (EOFError, OSError):
            return

        def given_up(number: int = number) -> bool:
            if os.getppid() != parent:
                sys.exit(0)
            return bool(abandoned.value >= number)

        try:
            with told_in(measures):
                for part in work(Watch(seconds, given_up), *words):
                    pipe.send_bytes(pickle.dumps(("part", part)))
            told: tuple[str, Any] = ("end", None)
        except (BrokenPipeError, ConnectionError):  # the server has gone
            return
        except Exception as error:
            told = ("raised", _told(error))
        try:
            pipe.send_bytes(pickle.dumps(told))
        except (EOFError, OSError):
            return
        if is_fresh:  # what the first work loaded stays
            collect_seldom()
            is_fresh = False


def _told(error: Exception) -> tuple[str, Any]:
    if isinstance(error, TooLong):
        return LATE, None
    if isinstance(error, Abandoned):
        return "abandoned", None
    if isinstance(error, BadDocument):
        return "bad", error.faults
    log.error("work failed", exc_info=error)
    return "failed", type(error).__name__
