"""Work in processes of its own: parts as they come, bounds, refusals, and who has gone."""

from __future__ import annotations

import multiprocessing
import os
import signal
import threading
import time
from collections.abc import Callable, Iterator

import pytest

from tumbrel.core.document import BadDocument, FieldFault
from tumbrel.working import desks
from tumbrel.working.desks import Busy, Desk
from tumbrel.working.watch import Abandoned, OutOfBounds, TooLong, Watch
from tumbrel.working.worker import Failed, Worker

Breathe = Callable[[], None]


def counting(breathe: Breathe, parts: int) -> Iterator[bytes]:
    for number in range(parts):
        breathe()
        yield str(number).encode()


def endless(breathe: Breathe, first: bytes = b"begun") -> Iterator[bytes]:
    yield first
    while True:
        breathe()


def deaf(_breathe: Breathe) -> Iterator[bytes]:
    yield b"begun"
    time.sleep(600)


def refusing(_breathe: Breathe) -> Iterator[bytes]:
    raise BadDocument((FieldFault("plan", "is not to be"),))
    yield b""


def failing(_breathe: Breathe) -> Iterator[bytes]:
    raise ZeroDivisionError
    yield b""


def dying(_breathe: Breathe) -> Iterator[bytes]:
    os._exit(1)
    yield b""


def here() -> bool:
    return False


@pytest.fixture(scope="module")
def desk() -> Iterator[Desk]:
    made = Desk(1, 3.0)
    made.start()
    yield made
    made.end()


def test_parts_come_one_by_one(desk: Desk) -> None:
    assert list(desk.do(counting, (5,), here)) == [b"0", b"1", b"2", b"3", b"4"]


def test_a_refusal_comes_back_as_it_is(desk: Desk) -> None:
    with pytest.raises(BadDocument) as refused:
        list(desk.do(refusing, (), here))
    assert refused.value.faults == (FieldFault("plan", "is not to be"),)


@pytest.mark.parametrize("work", [failing, dying])
def test_a_fault_of_ours_spoils_nothing_that_comes_after(
    desk: Desk, work: Callable[..., Iterator[bytes]]
) -> None:
    with pytest.raises(Failed):
        list(desk.do(work, (), here))
    assert list(desk.do(counting, (2,), here)) == [b"0", b"1"]


def test_work_that_takes_too_long_is_stopped_with_its_reason(desk: Desk) -> None:
    with pytest.raises(TooLong, match="takes over 3 s to play through and was stopped"):
        list(desk.do(endless, (), here))
    assert list(desk.do(counting, (1,), here)) == [b"0"]


def test_who_stops_reading_ends_the_work(desk: Desk) -> None:
    parts = desk.do(endless, (), here)
    assert next(parts) == b"begun"
    assert isinstance(parts, Iterator)
    parts.close()  # type: ignore[attr-defined] - a generator
    assert list(desk.do(counting, (1,), here)) == [b"0"]


def test_who_has_gone_ends_the_work(desk: Desk) -> None:
    gone = threading.Event()
    parts = desk.do(endless, (), gone.is_set)
    next(parts)
    gone.set()
    with pytest.raises(Abandoned):
        list(parts)
    assert list(desk.do(counting, (1,), here)) == [b"0"]


def test_work_that_does_not_listen_is_killed(desk: Desk) -> None:
    parts = desk.do(deaf, (), here)
    next(parts)
    parts.close()  # type: ignore[attr-defined] - a generator
    assert list(desk.do(counting, (1,), here)) == [b"0"]


def ask_while_held(
    desk: Desk,
    first: Iterator[bytes],
    hold: threading.Event,
    ask: Callable[[int], None],
    count: int,
) -> None:
    """Ask one after the other while the desk works on a first question; then let that go."""
    threads = [threading.Thread(target=ask, args=(number,)) for number in range(count)]
    for thread in threads:
        newest = desk._pile[-1:]
        thread.start()
        while desk._pile[-1:] == newest:
            time.sleep(0.01)
    hold.set()
    with pytest.raises(Abandoned):
        list(first)
    for thread in threads:
        thread.join()


def test_the_newest_question_is_answered_first(desk: Desk) -> None:
    hold, order = threading.Event(), []
    first = desk.do(endless, (), hold.is_set)
    next(first)

    def ask(number: int) -> None:
        list(desk.do(counting, (1,), here))
        order.append(number)

    ask_while_held(desk, first, hold, ask, 3)
    assert order == [2, 1, 0]


def test_the_oldest_of_too_many_is_turned_away(desk: Desk, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(desks, "MOST_WAITING", 2)
    hold, told = threading.Event(), []
    first = desk.do(endless, (), hold.is_set)
    next(first)

    def ask(number: int) -> None:
        try:
            list(desk.do(counting, (1,), here))
        except Busy:
            told.append(number)

    ask_while_held(desk, first, hold, ask, 4)
    assert sorted(told) == [0, 1]


def test_an_edit_that_takes_longer_goes_to_the_slow_desk(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(desks, "QUICK_S", 0.2)
    desks.work_apart()
    try:
        assert desks.edit(patient, 1.0, gone=here) == b"done"
    finally:
        desks.end_work()


def patient(breathe: Breathe, seconds: float) -> Iterator[bytes]:
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        breathe()
    yield b"done"


def test_memory_is_watched() -> None:
    watch = Watch(60.0, here, memory_bytes=1_000_000)
    with pytest.raises(OutOfBounds, match="GB of memory"):
        watch.look()


def test_seconds_are_those_that_a_processor_works() -> None:
    watch = Watch(0.1, here)
    time.sleep(0.3)  # others have the processors
    watch.look()
    until = time.thread_time() + 0.2
    while time.thread_time() < until:
        pass
    with pytest.raises(TooLong):
        watch.look()


def processes() -> set[int | None]:
    return {one.pid for one in multiprocessing.active_children()}


def test_a_process_that_starts_is_left_to_it_whoever_goes() -> None:
    desk, others = Desk(1, 3.0), processes()
    try:
        asked = time.monotonic()
        for _ in range(3):
            with pytest.raises(Abandoned):
                list(desk.do(counting, (1,), lambda: True))
        started = processes() - others
        assert len(started) == 1
        assert time.monotonic() - asked < 5.0  # nobody who has gone is waited for
        assert list(desk.do(counting, (2,), here)) == [b"0", b"1"]
        assert processes() - others == started
    finally:
        desk.end()


def test_a_process_that_cannot_start_is_told_and_started_anew(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    desk = Desk(1, 3.0)
    try:
        monkeypatch.setenv("DJANGO_SETTINGS_MODULE", "tumbrel.nowhere")
        with pytest.raises(Failed, match="as it started"):
            list(desk.do(counting, (1,), here))
        monkeypatch.undo()
        assert list(desk.do(counting, (1,), here)) == [b"0"]
    finally:
        desk.end()


def test_a_process_that_a_late_thread_would_start_does_not_outlive_the_server() -> None:
    """The slow desk's first work comes just as the server ends: nobody may start it any more."""
    desk, others = Desk(2, 5.0), processes()
    desk.start_later(counting, 0.0)
    desk.end()
    with pytest.raises(Failed, match="no more work"):
        list(desk.do(counting, (1,), here))
    assert processes() <= others


def test_a_process_can_be_ended_though_its_server_ignored_that_as_it_started() -> None:
    before = signal.signal(signal.SIGTERM, signal.SIG_IGN)
    worker, others = Worker(), processes()
    try:
        assert list(worker.do(counting, (1,), 20.0, here)) == [b"0"]
        (child,) = [one for one in multiprocessing.active_children() if one.pid not in others]
        child.terminate()
        child.join(20.0)
        assert not child.is_alive()
    finally:
        signal.signal(signal.SIGTERM, before)
        worker.end()
