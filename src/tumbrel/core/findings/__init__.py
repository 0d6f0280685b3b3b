"""Findings: small checks in a registry, one file a family."""

from . import angles, batteries, cards, footage, hands, modes, picture, power, recording, trip  # noqa: F401 - each registers its checks
from .registry import CHECKS, findings_of

__all__ = ["CHECKS", "findings_of"]
