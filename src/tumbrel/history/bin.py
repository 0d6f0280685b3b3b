"""The bin: what is deleted stays in it for thirty days, and can be put back."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from django.db.models import Manager, QuerySet
from django.utils import timezone

from .models import Binnable

KEPT_FOR = timedelta(days=30)


def throw_away(kept: Binnable) -> None:
    """Put a row into the bin; nothing of it is lost."""
    kept.thrown_away_at = timezone.now()
    kept.save(update_fields=["thrown_away_at"])


def put_back(kept: Binnable) -> None:
    """Take a row out of the bin again."""
    kept.thrown_away_at = None
    kept.save(update_fields=["thrown_away_at"])


def goes_at(kept: Binnable) -> datetime:
    """When a row in the bin is gone for good."""
    assert kept.thrown_away_at is not None
    return kept.thrown_away_at + KEPT_FOR


def empty_out(rows: Manager[Any] | QuerySet[Any], now: datetime) -> int:
    """Let go for good what has been in the bin for longer; returns how many rows that were."""
    _, gone = rows.filter(thrown_away_at__lt=now - KEPT_FOR).delete()
    return gone.get(rows.model._meta.label, 0)
