"""The addresses of a trip's variants."""

from __future__ import annotations

from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router, Status

from tumbrel.core.document import BadDocument, FieldFault
from tumbrel.history.api import REFUSALS, owner_of
from tumbrel.working.desks import gone_from

from .schemas import VariantCompared, VariantKept, VariantLine, VariantNamed, VariantNew
from .variants import (
    compared,
    delete_variant,
    keep_variant,
    make_variant,
    rename_variant,
    variant_kept,
    variant_lines,
)

router = Router(tags=["variants"])
ALL = "/trips/{trip_id}/variants"
ONE = "/trips/{trip_id}/variants/{variant_id}"


@router.get(ALL, response={200: list[VariantLine], **REFUSALS}, operation_id="listVariants")
def list_variants(request: HttpRequest, trip_id: int) -> list[VariantLine]:
    """All variants of a trip."""
    return variant_lines(owner_of(request), trip_id)


@router.post(ALL, response={200: VariantLine, **REFUSALS}, operation_id="keepVariant")
def keep(request: HttpRequest, trip_id: int, asked: VariantNew) -> VariantLine:
    """Keep the trip as it is under a name, or make one of the starting set from it."""
    owner = owner_of(request)
    if asked.start is not None:
        return make_variant(owner, trip_id, asked.start, gone_from(request))
    return keep_variant(owner, trip_id, asked.name, asked.words)


@router.get(ONE, response={200: VariantKept, **REFUSALS}, operation_id="getVariant")
def get(request: HttpRequest, trip_id: int, variant_id: int) -> VariantKept:
    """A variant with its whole document."""
    return variant_kept(owner_of(request), trip_id, variant_id)


@router.put(ONE, response={200: VariantLine, **REFUSALS}, operation_id="renameVariant")
def rename(request: HttpRequest, trip_id: int, variant_id: int, asked: VariantNamed) -> VariantLine:
    """Give a variant another name."""
    return rename_variant(owner_of(request), trip_id, variant_id, asked.name)


@router.delete(ONE, response={204: None, **REFUSALS}, operation_id="deleteVariant")
def delete(request: HttpRequest, trip_id: int, variant_id: int) -> Status[None]:
    """Throw a variant away."""
    delete_variant(owner_of(request), trip_id, variant_id)
    return Status(204, None)


@router.get(
    "/trips/{trip_id}/comparison",
    response={200: list[VariantCompared], **REFUSALS},
    operation_id="compareVariants",
)
def comparison(
    request: HttpRequest, trip_id: int, of: Annotated[str, Query(max_length=80)]
) -> HttpResponse:
    """Up to four states rehearsed side by side: numbers of variants, 0 for the trip as it is."""
    try:
        ids = tuple(int(one) for one in of.split(","))
    except ValueError:
        why = "write numbers of variants with commas between, 0 for the trip as it is"
        raise BadDocument((FieldFault("of", why),)) from None
    states = b",".join(compared(owner_of(request), trip_id, ids, gone_from(request)))
    return HttpResponse(b"[" + states + b"]", content_type="application/json")
