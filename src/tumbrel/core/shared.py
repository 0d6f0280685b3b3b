"""Values that never change once a trip begins."""

from __future__ import annotations


class Shared:
    """A state that is put away shares such values with the living one instead of copying them."""

    __slots__ = ()
