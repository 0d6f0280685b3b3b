"""Work that one pair of hands does."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from .camera import Cam
    from .physics import Cell, Dock, Holds, Memory, Store

RESTART_S, PLUG_S = 5, 15


@dataclass
class Task:
    """Work that hands are at."""

    kind: str
    cam: Cam | None
    end_s: int
    cell: Cell | None = None
    card: Memory | None = None
    store: Store | None = None
    copy: int = -1
    goal: int = -1
    one: Holds | Dock | None = None
    dock: Dock | None = None
    stays: bool = False
    by_word: bool = False

    def named(self) -> str:
        """The battery, card or module that goes in."""
        if self.kind == "module" and self.store:
            return str(self.store.doc["id"])
        return self.cell.name if self.cell else self.card.name if self.card else ""
