"""The API's description as text; the committed copy is compared with it."""

from __future__ import annotations

import json
import sys

import django


def openapi_text() -> str:
    """The OpenAPI document, keys sorted."""
    from .api import api  # noqa: PLC0415 - after django.setup()

    return json.dumps(api.get_openapi_schema(), indent=1, sort_keys=True) + "\n"


if __name__ == "__main__":
    django.setup()
    sys.stdout.write(openapi_text())
