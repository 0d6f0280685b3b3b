"""Load the demo trips when they are missing."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from tumbrel.core.report import rehearse
from tumbrel.demo.loading import load_demos
from tumbrel.history.owner import local_owner
from tumbrel.trips.to_core import sun_days


class Command(BaseCommand):
    """`manage load_demo [--reset]`."""

    help = "Load the demo trips when they are missing; --reset puts them back as they came."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """The one switch."""
        parser.add_argument("--reset", action="store_true")

    def handle(self, *_args: Any, **options: Any) -> None:
        """Load what is missing and say so."""
        _, opened = load_demos(local_owner(), reset=bool(options["reset"]))
        for document in opened:
            rehearse(document, sun_days=sun_days)  # keeps the sun's tables of its place
            self.stdout.write(f"loaded {document.trip.name}")
