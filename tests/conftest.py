"""What every test may ask for."""

from __future__ import annotations

import os
from pathlib import Path

import pytest
from hypothesis import settings

from tumbrel.core.document import PlanDocument, read_document

if "TUMBREL_BUILT_ONLY" not in os.environ:
    os.environ.setdefault("TUMBREL_PURE", "1")  # servers that tests start build nothing
settings.register_profile("untimed", deadline=None)  # machines are noisy; benchmarks/ tells speed
settings.load_profile("untimed")


def pytest_addoption(parser: pytest.Parser) -> None:
    """`python3 run.py test --long` compares the two engines on more plans."""
    parser.addoption("--long", action="store_true", help="300 plans for both engines, not 60")


DEMO = Path(__file__).resolve().parents[1] / "src" / "tumbrel" / "demo" / "ostrel-crossing.json"


@pytest.fixture(scope="session")
def demo_text() -> bytes:
    """The main demo's plan file."""
    return DEMO.read_bytes()


@pytest.fixture(scope="session")
def demo(demo_text: bytes) -> PlanDocument:
    """The main demo."""
    return read_document(demo_text)
