"""Rows of trips and their plans."""

from __future__ import annotations

from typing import ClassVar

from django.db import models

from tumbrel.history.models import Binnable, Owned, Step


class Trip(Binnable):
    """A trip with its plan, on a kit."""

    kit = models.ForeignKey("kit.Kit", on_delete=models.PROTECT, related_name="trips")


class Variant(Owned):
    """A state of a trip that was kept beside it, with the kit as it was."""

    trip = models.ForeignKey(Trip, on_delete=models.CASCADE, related_name="variants")
    name = models.CharField(max_length=60)
    words = models.CharField(max_length=200, blank=True)
    document = models.JSONField()
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering: ClassVar[list[str]] = ["pk"]
        constraints = (models.UniqueConstraint(fields=("trip", "name"), name="one_variant_a_name"),)


class TripStep(Step):
    """A state that a trip was in.

    One that its kit led to says between which of the kit's states: it goes back and on with them.
    """

    kit_left = models.PositiveBigIntegerField(null=True, default=None)
    kit_reached = models.PositiveBigIntegerField(null=True, default=None)
    trip = models.ForeignKey(Trip, on_delete=models.CASCADE, related_name="steps")

    class Meta(Step.Meta):
        constraints = (
            models.UniqueConstraint(fields=("trip", "number"), name="one_state_a_trip_step"),
        )


class CardTick(Owned):
    """Something ticked, noted or read on the way: only added to, and apart from undo.

    `ident` was made where it was ticked, so that what comes back twice is there once.
    """

    trip = models.ForeignKey(Trip, on_delete=models.CASCADE, related_name="ticks")
    ident = models.CharField(max_length=40)
    move = models.CharField(max_length=200, blank=True)
    kind = models.CharField(max_length=10)
    at = models.DateTimeField()
    text = models.CharField(max_length=200, blank=True)

    class Meta:
        ordering: ClassVar[list[str]] = ["at", "pk"]
        constraints = (models.UniqueConstraint(fields=("trip", "ident"), name="one_tick_an_ident"),)


class CardMade(Owned):
    """The last card that was taken along, to tell what a plan changes on it."""

    trip = models.OneToOneField(Trip, on_delete=models.CASCADE, related_name="card_made")
    card = models.JSONField()
    made_at = models.DateTimeField()
