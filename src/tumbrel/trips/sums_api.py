"""The address of the quick sums: no trip, no owner's data, nothing is kept."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Schema

from tumbrel.core.sums import Question, SumTold, answer_of
from tumbrel.history.api import REFUSALS

router = Router(tags=["sums"])


class SumAsked(Schema):
    """One question."""

    question: Question


@router.post("/sums", response={200: SumTold, **REFUSALS}, operation_id="tellSum")
def tell_sum(request: HttpRequest, asked: SumAsked) -> SumTold:  # noqa: ARG001 - ninja names it
    """The answer to one question, with its arithmetic."""
    return answer_of(asked.question)
