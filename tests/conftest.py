"""What every test may ask for, which form of the core it runs on, and how long it took."""

from __future__ import annotations

import os
from collections import defaultdict
from pathlib import Path

import pytest
from hypothesis import settings

import tumbrel
from tools import durations
from tumbrel.core.document import PlanDocument, read_document

if not tumbrel.BUILT:
    os.environ.setdefault("TUMBREL_PURE", "1")  # servers that tests start build nothing
settings.register_profile("untimed", deadline=None)  # machines are noisy; benchmarks/ tells speed
settings.load_profile("untimed")

FORM = "built" if tumbrel.BUILT else "plain"
MARKS = (
    "plain(why): wants the core in plain Python",
    "alone(why): wants the machine to itself",
)
DEMO = Path(__file__).resolve().parents[1] / "src" / "tumbrel" / "demo" / "ostrel-crossing.json"
_took: dict[str, float] = defaultdict(float)


def pytest_addoption(parser: pytest.Parser) -> None:
    """`python3 run.py test --long` compares the two engines on more plans."""
    parser.addoption("--long", action="store_true", help="300 plans for both engines, not 60")


def pytest_configure(config: pytest.Config) -> None:
    """What tests may be marked with; each mark says why."""
    for mark in MARKS:
        config.addinivalue_line("markers", mark)


def pytest_report_header() -> str:
    """Which form of the core this run is of."""
    return f"core: {FORM}"


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """Among several workers the long ones first, so that none ends with one."""
    if hasattr(config, "workerinput"):
        known = durations.known()
        items.sort(key=lambda item: -known.get(item.nodeid, 0.0))
    for item in items:
        for mark in (*item.iter_markers("plain"), *item.iter_markers("alone")):
            assert mark.args, f"{item.nodeid}: {mark.name} says no reason"
            if mark.name == "plain" and tumbrel.BUILT:
                item.add_marker(pytest.mark.skip(reason=f"TUMBREL_PURE=1 runs it: {mark.args[0]}"))


def pytest_runtest_logreport(report: pytest.TestReport) -> None:
    """Add up what a test took, with what it was given."""
    _took[report.nodeid] += report.duration


def pytest_sessionfinish(session: pytest.Session) -> None:
    """Put away how long the tests took; of several workers their head has heard of all."""
    if not hasattr(session.config, "workerinput"):
        durations.write(FORM, dict(_took))


@pytest.fixture(scope="session")
def demo_text() -> bytes:
    """The main demo's plan file."""
    return DEMO.read_bytes()


@pytest.fixture(scope="session")
def demo(demo_text: bytes) -> PlanDocument:
    """The main demo."""
    return read_document(demo_text)
