"""A second engine, as simple and slow as it may be, written from the rules alone.

It marches every camera, cell, bank and the one pair of hands through the trip in half seconds and
asks anew at each what holds. It shares no code, no formula and no document class with the first;
`docs/decisions/0002` says how both read the rules where they leave a choice.
"""

from .world import World, march

__all__ = ["World", "march"]
