"""The log: what failed and where, never what anybody typed."""

from __future__ import annotations

import logging
import traceback
from types import TracebackType

ExcInfo = tuple[type[BaseException], BaseException, TracebackType | None] | tuple[None, None, None]


class Wordless(logging.Formatter):
    """Errors by kind and by line of the program: their texts may quote what was typed."""

    def __init__(self) -> None:
        super().__init__("%(asctime)s %(levelname)s %(name)s: %(message)s")

    def formatException(self, ei: ExcInfo) -> str:  # noqa: N802 - logging names it
        """The kind of the error and the places that it came through."""
        kind, _, tb = ei
        frames = traceback.extract_tb(tb)
        places = [f"  {one.filename}:{one.lineno} {one.name}" for one in frames]
        return "\n".join([kind.__name__ if kind else "", *places])
