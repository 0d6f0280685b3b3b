"""All figures of speed and size: `python3 run.py benchmarks`."""

from __future__ import annotations

import sys

from benchmarks import core, learning, page, serving, tracks


def main() -> int:
    """Print every figure; 1 when a target is missed."""
    met = [part.main() for part in (core, learning, tracks, serving, page)]
    return 0 if all(met) else 1


if __name__ == "__main__":
    sys.exit(main())
