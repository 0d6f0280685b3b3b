"""The API's description as text; the committed copy is compared with it."""

from __future__ import annotations

import json
import sys
from typing import Any

import django

ANSWERS = {
    "findCures": ("application/x-ndjson",),
    "getRunsFile": ("text/csv",),
    "getTrackFile": ("application/gpx+xml", "application/geo+json"),
    "takeCard": ("text/html", "text/calendar", "text/csv"),
    "saveEverything": ("application/vnd.sqlite3",),
}
BODIES: dict[str, tuple[str, dict[str, Any]]] = {  # read where they are worked on
    "openFile": ("application/json", {}),
    "layTrack": ("application/octet-stream", {"type": "string", "format": "binary"}),
    "rehearse": ("application/json", {"$ref": "#/components/schemas/PlanDocument"}),
}


def openapi_text() -> str:
    """The OpenAPI document, keys sorted."""
    from tumbrel.history.api import PROBLEM_TYPE  # noqa: PLC0415 - after django.setup()

    from .api import api  # noqa: PLC0415 - as above

    schema = api.get_openapi_schema()
    for operations in schema["paths"].values():
        for operation in operations.values():
            _name_media(operation, PROBLEM_TYPE)
    for scheme in schema["components"]["securitySchemes"].values():
        scheme["name"] = "tumbrel_session"  # with the installation's own name behind it
    return json.dumps(schema, indent=1, sort_keys=True) + "\n"


def _name_media(operation: dict[str, Any], problem: str) -> None:
    """Say in which media type each answer and body of an operation comes."""
    name = operation["operationId"]
    for status, answer in operation["responses"].items():
        content = answer.get("content")
        if content is None:
            continue
        (told,) = content.values()
        media = ANSWERS.get(name, ("application/json",)) if int(status) < 400 else (problem,)
        answer["content"] = dict.fromkeys(media, told)
    if name in BODIES:
        kind, schema = BODIES[name]
        operation["requestBody"] = {"content": {kind: {"schema": schema}}, "required": True}


if __name__ == "__main__":
    django.setup()
    sys.stdout.write(openapi_text())
