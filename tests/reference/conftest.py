"""The second engine in machine code, where it was built: the same marches, three times as fast."""

from __future__ import annotations

from tools import second

SECOND_IS_BUILT = second.use()


def pytest_report_header() -> str:
    """Which form of the second engine this run is of."""
    return f"second engine: {'built' if SECOND_IS_BUILT else 'plain'}"
