"""Rows of the kit shelf."""

from __future__ import annotations

from django.db import models

from tumbrel.history.models import Binnable, Step


class Kit(Binnable):
    """A shelf: one document of cameras, batteries and cards."""


class KitStep(Step):
    """A state that a kit was in."""

    kit = models.ForeignKey(Kit, on_delete=models.CASCADE, related_name="steps")

    class Meta(Step.Meta):
        constraints = (
            models.UniqueConstraint(fields=("kit", "number"), name="one_state_a_kit_step"),
        )
