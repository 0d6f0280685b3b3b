"""A camera's course as it is written down."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Final

from mypy_extensions import mypyc_attr

from ..state.append_log import Log
from .turns import OFF, State

COARSE_K: Final = 0.5
COARSE_CHARGE: Final = 0.002
Row = tuple[int, int, float, float, float, int, State]  # how many rows, and what stands in the last


@mypyc_attr(serializable=True)
@dataclass(slots=True)
class Trace:
    """A camera's course as columns: time [ms], charge [0..1], body and cell [degC], bytes, state.

    A row's state is that of the stretch which ends there. All rows but the last stay as they are;
    `tail` is the last one as it was when the trace was put away, with how many there were then.
    Every column is a Log; as lists machine code appends to them without a look by name.
    """

    t_ms: list[int] = field(default_factory=Log)
    charge: list[float] = field(default_factory=Log)
    body_c: list[float] = field(default_factory=Log)
    cell_c: list[float] = field(default_factory=Log)
    used_bytes: list[int] = field(default_factory=Log)
    state: list[int] = field(default_factory=Log)
    tail: Row | None = None

    def add(
        self, at_ms: int, charge: float, body_c: float, cell_c: float, used: int, state: State
    ) -> None:
        """Append a point."""
        self.t_ms.append(at_ms)
        self.charge.append(charge)
        self.body_c.append(body_c)
        self.cell_c.append(cell_c)
        self.used_bytes.append(used)
        self.state.append(state)

    def add_coarse(
        self, at_ms: int, charge: float, body_c: float, cell_c: float, used: int, state: State
    ) -> None:
        """Append a point; long rests are kept coarse."""
        if (
            state == OFF
            and len(self.t_ms) >= 2
            and self.state[-1] == self.state[-2] == OFF
            and self.used_bytes[-2] == used
            and abs(self.charge[-2] - charge) < COARSE_CHARGE
            and abs(self.body_c[-2] - body_c) < COARSE_K
        ):
            self._drop_last()
        self.add(at_ms, charge, body_c, cell_c, used, state)

    def put_away(self) -> None:
        """Keep the last row, which may yet give way to a later one."""
        if self.t_ms:
            self.tail = (
                len(self.t_ms),
                self.t_ms[-1],
                self.charge[-1],
                self.body_c[-1],
                self.cell_c[-1],
                self.used_bytes[-1],
                self.state[-1],
            )

    def take_up(self) -> None:
        """Go on from the row that was the last."""
        if self.tail is not None:
            _, at_ms, charge, body_c, cell_c, used, state = self.tail
            assert self.tail[0] == len(self.t_ms)
            self._drop_last()
            self.add(at_ms, charge, body_c, cell_c, used, state)

    def _drop_last(self) -> None:
        for column in (self.t_ms, self.charge, self.body_c, self.cell_c):
            column.pop()
        self.used_bytes.pop()
        self.state.pop()
