"""The address at which a page has older notes of its own brought up to the present schema."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from tumbrel.core.document.versions import CURRENT, NUMBER, brought_up
from tumbrel.history.api import REFUSALS

router = Router(tags=["versions"])


class OlderAsked(Schema):
    """Documents that a page wrote down under an older schema, all of one kind and number."""

    kind: Literal["trip", "kit", "notebook"]
    tumbrel: int
    documents: Annotated[list[dict[str, Any]], Field(max_length=20)]


class BroughtUp(Schema):
    """The same documents in the present schema, with its number."""

    tumbrel: int
    documents: list[dict[str, Any]]


@router.post("/brought-up", response={200: BroughtUp, **REFUSALS}, operation_id="bringUp")
def bring_up(request: HttpRequest, asked: OlderAsked) -> BroughtUp:  # noqa: ARG001 - ninja names it
    """Documents of an older schema in the present one; keeps nothing."""
    documents = [brought_up({**one, NUMBER: asked.tumbrel}, asked.kind) for one in asked.documents]
    return BroughtUp(tumbrel=CURRENT, documents=documents)
