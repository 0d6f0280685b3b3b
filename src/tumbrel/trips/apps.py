"""Trips tell kits who uses them."""

from __future__ import annotations

from django.apps import AppConfig


class TripsConfig(AppConfig):
    """Trips, as an application."""

    name = "tumbrel.trips"

    def ready(self) -> None:
        """Let kits know that trips are built upon them."""
        from tumbrel.kit.uses import register  # noqa: PLC0415 - once all rows are known

        from .uses import TripUsers  # noqa: PLC0415 - as above

        register(TripUsers())
