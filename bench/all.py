"""All figures of speed and size: `python3 run.py bench`."""

from __future__ import annotations

import sys

from bench import core, learning, page, tracks


def main() -> int:
    """Print every figure; 1 when a target is missed."""
    return 0 if all([core.main(), learning.main(), tracks.main(), page.main()]) else 1


if __name__ == "__main__":
    sys.exit(main())
