"""Tumbrel: rehearse a filmed trip with the kit you carry, before you leave."""

from .compiled import use_built

__version__ = "0.1.0"
BUILT = use_built()
