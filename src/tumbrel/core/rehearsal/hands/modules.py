"""Modules that ride on cameras: which goes on next, and putting it on (model/charging#chains)."""

from __future__ import annotations

from typing import Final

from mypy_extensions import mypyc_attr

from ...charging import MS_PER_HOUR
from ..camera.camera_run import CameraRun
from ..camera.causes import Cause
from ..camera.handled import end_handling
from ..power.grid import Grid
from ..power.loads import Supply
from ..power.stores import BankRun
from ..trip.timeline import Laid
from .lookahead import Need
from .swapping import Swapping
from .tasks import SwapModule

MORE: Final = 1.01


@mypyc_attr(serializable=True)
class Modules:
    """Finds the next module to put on a camera."""

    def __init__(self, grid: Grid, swapping: Swapping) -> None:
        self.grid = grid
        self.swapping = swapping
        self.defaults = swapping.defaults
        self.made: set[tuple[str, str]] = set()

    def look(
        self, run: CameraRun, here: Laid, need: Need, takes_ms: int, now_ms: int
    ) -> tuple[SwapModule | None, Need]:
        """The module to put on now, if any; and what is left for the battery to give."""
        on = self._on(run)
        if on is None:
            return None, need
        spares = [one for one in self._fitting(run) if one is not on]
        task = self._named(run, spares, here, takes_ms)
        if task is None:
            best = self._better(run, on, spares, need, takes_ms, now_ms)
            if best is not None:
                rank = need.importance, need.lasts_ms, run.index
                task = SwapModule(*rank, takes_ms, run, best)
        return task, need.without(self._gives_wh(on))

    def _named(
        self, run: CameraRun, spares: list[Supply], here: Laid, takes_ms: int
    ) -> SwapModule | None:
        """The module that the plan names here, until it has been put on."""
        said = self.swapping.plan.plugs.get(here.id, {})
        for supply in spares:
            wanted = said.get(supply.source.id)
            named = wanted is not None and wanted.plug and wanted.to == run.camera.id
            if named and (supply.source.id, here.id) not in self.made:
                return SwapModule(0, 0, run.index, takes_ms, run, supply, here.id)
        return None

    def _better(
        self,
        run: CameraRun,
        on: Supply,
        spares: list[Supply],
        need: Need,
        takes_ms: int,
        now_ms: int,
    ) -> Supply | None:
        """Another module where the one that is on does not last, as batteries are swapped.

        The least full that suffices, else the fullest, and only one that holds more: as hands
        become free and at their last chance, or once it is empty; not where it gains no minute.
        """
        margin, gives_wh = self.defaults.swap_margin.value, self._gives_wh(on)
        if need.wh <= 0.0 or gives_wh >= need.wh * margin:
            return None
        if gives_wh > 0.0 and not (self.swapping.plan.early and self.swapping.settling):
            return None
        enough = [one for one in spares if self._gives_wh(one) >= need.wh * margin]
        best = min(enough, key=self._gives_wh, default=None)
        best = best or max(spares, key=self._gives_wh, default=None)
        if best is None or self._gives_wh(best) <= gives_wh * MORE:
            return None
        gained_wh = min(need.wh, self._gives_wh(best)) - min(need.wh, gives_wh)
        costs_wh = need.mean_w * self.swapping.costs_ms(run, now_ms, takes_ms) / MS_PER_HOUR
        return best if gained_wh - costs_wh >= need.least_gain_wh() else None

    def _gives_wh(self, supply: Supply) -> float:
        """What a module still gives its camera, to a hundredth [W h]."""
        return round(_held(supply.bank) * self.defaults.store_efficiency.value, 2)

    def put_on(self, task: SwapModule) -> tuple[str, str]:
        """The old one off, the new one on; the camera goes on where it is fed now."""
        run, supply, grid = task.run, task.supply, self.grid
        old = self._on(run)
        run.close_spans()
        if task.said_at:
            self.made.add((supply.source.id, task.said_at))
        if supply.bank is not None:
            grid.detach(supply.bank)
        fed = run.energy.outside_w > 0.0 or (old is not None and old.port_of(run) is not None)
        if fed:
            grid.detach(run)
        grid.rides[run.index] = supply.source.id
        if fed:
            grid.attach(run, supply)
        end_handling(run, Cause.SWAP)
        return "" if old is None else old.source.name, supply.source.name

    def _fitting(self, run: CameraRun) -> list[Supply]:
        return [one for one in self.grid.supplies if _fits(one) == run.camera.id]

    def _on(self, run: CameraRun) -> Supply | None:
        key = self.grid.rides.get(run.index, "")
        return next((one for one in self._fitting(run) if one.source.id == key), None)


def _fits(supply: Supply) -> str:
    return supply.source.fits if supply.source.kind == "module" else ""


def _held(bank: BankRun | None) -> float:
    """What a store still gives [W h]."""
    if bank is None or bank.dry:
        return 0.0
    return bank.wh * max(0.0, bank.charge - bank.floor())
