"""Rows of trips and their plans."""

from __future__ import annotations

from django.db import models

from tumbrel.keeping.models import Kept, Step


class Trip(Kept):
    """A trip with its plan, on a kit."""

    kit = models.ForeignKey("kit.Kit", on_delete=models.PROTECT, related_name="trips")


class TripStep(Step):
    """A state that a trip was in."""

    trip = models.ForeignKey(Trip, on_delete=models.CASCADE, related_name="steps")

    class Meta(Step.Meta):
        constraints = (
            models.UniqueConstraint(fields=("trip", "number"), name="one_state_a_trip_step"),
        )
