"""Tumbrel: rehearse a filmed trip with the kit you carry, before you leave."""

__version__ = "0.1.0"
