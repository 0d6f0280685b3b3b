"""Rows of the bench."""

from __future__ import annotations

from django.db import models

from tumbrel.history.models import Kept, Step


class BenchNotebook(Kept):
    """The notebook of a kit: one document of runs, running tests and taken figures."""

    kit = models.OneToOneField("kit.Kit", on_delete=models.CASCADE, related_name="bench")


class BenchStep(Step):
    """A state that a notebook was in."""

    bench = models.ForeignKey(BenchNotebook, on_delete=models.CASCADE, related_name="steps")

    class Meta(Step.Meta):
        constraints = (
            models.UniqueConstraint(fields=("bench", "number"), name="one_state_a_bench_step"),
        )
