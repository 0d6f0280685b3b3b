"""Findings: small checks in a registry, one file a family."""

from . import (  # noqa: F401 - each registers its checks
    angles,
    batteries,
    cards,
    footage,
    gear,
    hands,
    modes,
    mounts,
    moving,
    ours,
    picture,
    power,
    recording,
    spent,
    trip,
)
from .registry import CHECKS, findings_of

__all__ = ["CHECKS", "findings_of"]
