"""Whatever hangs on a source (model/charging#cell)."""

from __future__ import annotations

from abc import ABC, abstractmethod

from mypy_extensions import mypyc_attr


@mypyc_attr(serializable=True)
class Consumer(ABC):
    """Whatever hangs on a source: a camera, a charger with its bays, a bank that is filled.

    `hung_on` is the number of its source; `runs` says that it is a camera, which runs on its port
    besides being charged, `on_banks` that a bank may feed it, `stays_hung` that it stays on its
    cable when a stop is left.
    """

    __slots__ = ("hung_on", "id", "name", "on_banks", "runs", "stays_hung")

    def __init__(self, key: str, name: str, *, runs: bool = False, on_banks: bool = True) -> None:
        self.id = key
        self.name = name
        self.runs = runs
        self.on_banks = on_banks
        self.hung_on: int | None = None
        self.stays_hung = False

    @property
    @abstractmethod
    def port_wh(self) -> float:
        """What it has taken from ports so far [W h]."""

    @property
    def unit(self) -> str:
        """Key of the battery or bank that is charged, else empty."""
        return ""

    @property
    def draws(self) -> bool:
        """Whether it runs on its port now; such are fed first (model/hands#plug)."""
        return False

    @abstractmethod
    def wants_w(self) -> float:
        """What it would take from a port now [W]."""

    def would_take_w(self) -> float:
        """What it would take were a source switched on for it [W]."""
        return self.wants_w()

    @abstractmethod
    def taking_w(self) -> float:
        """What it takes from its port now [W]."""

    @abstractmethod
    def grant(self, most_w: float) -> float:
        """Take what it wants of what its port gives; how much that is [W]."""

    @abstractmethod
    def unplug(self) -> None:
        """Its cable comes out."""

    def taper_ms(self) -> float:
        """The lag with which what it takes falls, where it only charges [ms]; 0 where it does not.

        Chargers have events of their own for that.
        """
        return 0.0

    def tapers(self) -> bool:
        """Whether it takes less and less."""
        return self.taper_ms() > 0.0

    def on_store(self, *, module: bool, sleeps: bool) -> None:  # noqa: B027 - only cameras care
        """It was put on a module, which feeds it as a store does, or on another source.

        `sleeps` says that the source may switch itself off where little is drawn.
        """

    def advance(self, to_ms: int) -> None:  # noqa: B027 - only cameras do
        """Move to a time, where it does so by itself; the grid moves chargers and banks."""

    def plan_next(self) -> None:  # noqa: B027 - only cameras do
        """Find what it meets next, where it has events of its own."""
