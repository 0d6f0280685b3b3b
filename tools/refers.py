"""The table of what a plan names, as the page reads it."""

from __future__ import annotations

import json
from dataclasses import asdict

from tumbrel.core.document.references import REFERS


def main() -> None:
    """Print the table of references as JSON."""
    print(json.dumps([asdict(refers) for refers in REFERS], indent=1))


if __name__ == "__main__":
    main()
