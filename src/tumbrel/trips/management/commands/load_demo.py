"""Load the demo trips when they are missing."""

from __future__ import annotations

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand

from tumbrel.core.document import read_document
from tumbrel.core.rehearsal.outcome import rehearse
from tumbrel.kit.models import Kit
from tumbrel.site.local import local_owner
from tumbrel.trips.files import open_plan_file
from tumbrel.trips.models import Trip
from tumbrel.trips.to_core import sun_days

DEMOS = Path(__file__).resolve().parents[3] / "demo"


class Command(BaseCommand):
    """`manage load_demo [--reset]`."""

    help = "Load the demo trips when they are missing; --reset puts them back as they came."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """The one switch."""
        parser.add_argument("--reset", action="store_true")

    def handle(self, *_args: Any, **options: Any) -> None:
        """Load each demo once; warm the sun tables that it needs."""
        owner = local_owner()
        for path in sorted(DEMOS.glob("*.json")):
            text = path.read_bytes()
            document = read_document(text)
            mine = Trip.objects.of(owner).filter(name=document.trip.name)
            if options["reset"]:
                mine.delete()
                Kit.objects.of(owner).filter(
                    name=f"Kit of {document.trip.name}", trips__isnull=True
                ).delete()
            if not mine.exists():
                open_plan_file(owner, text)
                rehearse(document, sun_days=sun_days)
                self.stdout.write(f"loaded {document.trip.name}")
