"""What every part of a plan document has in common: frozen, strict, finite, bounded."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

DAY_S = 86_400
LONGEST_TRIP_S = 31 * DAY_S


class Part(BaseModel):
    """A frozen piece of a document; unknown fields, NaN and infinities are refused."""

    model_config = ConfigDict(
        frozen=True, extra="forbid", allow_inf_nan=False, ser_json_inf_nan="constants"
    )


def whole_text(text: str) -> str:
    """A text without halves of characters (lone surrogates), that no file can hold."""
    return text.encode("utf-8", "replace").decode("utf-8")


Key = Annotated[
    str,
    StringConstraints(pattern=r"^[a-z0-9][a-z0-9_-]{0,39}$"),
    Field(description="Short name inside one document: a to z, 0 to 9, - and _; up to 40."),
]
Label = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]
Share = Annotated[float, Field(ge=0.0, le=1.0)]
Watts = Annotated[float, Field(ge=0.0, le=60.0)]
Celsius = Annotated[float, Field(ge=-60.0, le=70.0)]
Money = Annotated[
    float | None,
    Field(ge=0.0, le=1_000_000.0, description="What it costs, in a currency of one's own."),
]
HandSeconds = Annotated[float, Field(ge=0.0, le=1800.0)]
