"""Work that one pair of hands does."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from .camera import Cam
    from .physics import Cell, Memory, Store

RESTART_S, PLUG_S = 5, 15


@dataclass
class Task:
    """Work that hands are at."""

    kind: str
    cam: Cam
    end_s: int
    cell: Cell | None = None
    card: Memory | None = None
    store: Store | None = None
    copy: int = -1
    goal: int = -1
