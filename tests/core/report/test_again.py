"""A battery that goes in twice within the hour says why."""

from __future__ import annotations

from tumbrel.core.rehearsal.hands.tasks import TaskDone
from tumbrel.core.report.hand_work import again

MINUTE = 60_000


def swap(at_min: int, out: str, put_in: str) -> TaskDone:
    """A swap of a minute's length."""
    return TaskDone(at_min * MINUTE, (at_min + 1) * MINUTE, 0, "swap", out, put_in, put_in)


def plug(at_min: int, what: str) -> TaskDone:
    """Something put on to charge."""
    return TaskDone(at_min * MINUTE, (at_min + 1) * MINUTE, 0, "plug", what, "Dock", what)


def test_it_says_what_would_not_last_or_that_it_charged() -> None:
    assert again([swap(0, "", "A1"), swap(20, "A1", "A2"), swap(50, "A2", "A1")], 2) == (
        " again: A2 would not last"
    )
    assert again([swap(0, "", "A1"), plug(5, "A1"), swap(59, "A2", "A1")], 2) == (
        " again, charged meanwhile"
    )
    assert again([swap(0, "", "A1"), swap(30, "", "A1")], 1) == " again"


def test_nothing_is_said_of_what_is_believed_anyway() -> None:
    assert again([swap(0, "", "A1")], 0) == ""
    assert again([swap(0, "", "A1"), swap(62, "A2", "A1")], 1) == ""  # over an hour later
    assert again([swap(0, "", "A1"), swap(20, "A1", "A2")], 1) == ""
    assert again([swap(0, "", "A1"), plug(20, "A1")], 1) == ""
    charged_before = [plug(0, "A1"), swap(5, "", "A1"), swap(30, "A2", "A1")]
    assert again(charged_before, 2) == " again: A2 would not last"
