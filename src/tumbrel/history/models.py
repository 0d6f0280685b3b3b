"""Abstract rows: owned, kept in versions, with steps to go back and forward over."""

from __future__ import annotations

from typing import Any, ClassVar, Self

from django.conf import settings
from django.contrib.auth.models import User
from django.db import models

from .packed import PackedJSON


class OwnedQuerySet(models.QuerySet[Any]):
    """The one owner scope: every query goes through `of`."""

    def of(self, owner: User) -> Self:
        """Only the owner's rows."""
        return self.filter(owner=owner)


class Owned(models.Model):
    """A row that belongs to someone."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    objects: ClassVar[models.Manager[Any]] = OwnedQuerySet.as_manager()

    class Meta:
        abstract = True


class Kept(Owned):
    """A document with a version and a place in its own steps."""

    name = models.CharField(max_length=60)
    version = models.PositiveIntegerField(default=1)
    step = models.PositiveIntegerField(default=1)
    document = models.JSONField()
    made_at = models.DateTimeField(auto_now_add=True)
    saved_at = models.DateTimeField(auto_now=True)

    class Meta:
        abstract = True


class BinnableQuerySet(OwnedQuerySet):
    """Rows of an owner that are not in the bin, and those that are."""

    def of(self, owner: User) -> Self:
        """Only the owner's rows, without those in the bin."""
        return self.filter(owner=owner, thrown_away_at__isnull=True)

    def in_bin_of(self, owner: User) -> Self:
        """Only the owner's rows that are in the bin, the newest first."""
        thrown = self.filter(owner=owner, thrown_away_at__isnull=False)
        return thrown.order_by("-thrown_away_at")


class Binnable(Kept):
    """A kept document that may be thrown away, and stays in the bin for a while."""

    thrown_away_at = models.DateTimeField(null=True, default=None)
    objects: ClassVar[models.Manager[Any]] = BinnableQuerySet.as_manager()

    class Meta:
        abstract = True


class Step(Owned):
    """One state that a kept document was in."""

    number = models.PositiveIntegerField()
    document = PackedJSON()
    made_at = models.DateTimeField(auto_now_add=True, null=True)
    """Null: before this was noted."""

    class Meta:
        abstract = True
        ordering: ClassVar[list[str]] = ["number"]
