"""What the description says is what the API does, whatever it is asked."""

from __future__ import annotations

import subprocess
import sys

import pytest

from tests.serving.conftest import Visitor, small
from tools.driving import ROOT, Server

CHECKS = "not_a_server_error,status_code_conformance,content_type_conformance"
KNOWN = ("/demo", "/everything")  # each call of these loads or copies everything
SHORT_S, LONG_S = 25, 600


def test_anything_that_the_description_allows_is_answered_as_it_says(
    own: Server, request: pytest.FixtureRequest
) -> None:
    """Half a minute of made-up questions, the first ones always the same; ten with --long."""
    visitor = Visitor(own)
    visitor.trip(small())
    seconds = LONG_S if request.config.getoption("--long") else SHORT_S
    cookies = "; ".join(f"{one.name}={one.value}" for one in visitor.session.cookies)
    headers = {**visitor.session.headers, "Cookie": cookies}
    words = [sys.executable, "-m", "schemathesis.cli", "run", "docs/formats/openapi.json"]
    words += ["--url", own.address, "--checks", CHECKS]
    words += ["--max-time", str(seconds), "--seed", "11", "--generation-database", "none"]
    words += ["--warnings", "off", "--no-color"]
    for name in ("X-CSRFToken", "Referer", "Cookie"):
        words += ["--header", f"{name}: {headers[name]}"]
    for path in KNOWN:
        words += ["--exclude-path", path, "--exclude-path", f"/api{path}"]
    done = subprocess.run(
        words, cwd=ROOT, capture_output=True, text=True, check=False, timeout=seconds + 240
    )
    assert done.returncode == 0, done.stdout[-6000:] + done.stderr[-2000:]
