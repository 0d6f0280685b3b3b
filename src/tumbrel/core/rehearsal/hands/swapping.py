"""Which battery or card goes in, when, and whether it is worth the hand (model/hands#swap)."""

from __future__ import annotations

from mypy_extensions import mypyc_attr

from ...charging import MS_PER_HOUR
from ..camera.camera_run import CameraRun
from ..camera.causes import Cause
from ..camera.handled import next_start_ms
from ..power.next_event import SOON_MS
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..trip.hand_plan import Promise
from ..trip.scene import Scene
from ..trip.timeline import Laid
from .handling import Handling
from .lookahead import Need
from .reach import Reachable
from .tasks import SwapBattery, SwapCard


@mypyc_attr(serializable=True)
class Swapping:
    """Chooses what goes in; `settling` says that hands have just become free, or will soon not be.

    `made` are swaps of the plan that were made: keys of camera and leg or stop; `cards_made` those
    of cards.
    """

    def __init__(
        self,
        scene: Scene,
        cells: list[Cell],
        cards: list[CardRun],
        handling: Handling,
    ) -> None:
        self.cells = cells
        self.cards = cards
        self.handling = handling
        self.defaults = scene.defaults
        self.settling = False
        self.made: set[tuple[str, str]] = set()
        self.cards_made: set[tuple[str, str]] = set()
        self.use_scene(scene)

    def use_scene(self, scene: Scene) -> None:
        """Go by a scene that was the same until now."""
        self.plan = scene.hands
        self.timeline = scene.timeline

    def battery_due(
        self, run: CameraRun, need: Need, held_wh: float | None, reach: Reachable
    ) -> SwapBattery | None:
        """Swap when what can be reached falls short of what is asked (model/hands#swap).

        What the battery in it gives is None where it would not even start what is asked next.
        """
        if not run.camera.battery_comes_out or need.wh <= 0.0 or self._fed(run):
            return None
        now_ms = reach.now_ms
        gives, held_wh = held_wh is not None, held_wh or 0.0
        wanted = need.wh * self.defaults.swap_margin.value
        if held_wh >= wanted or (gives and not self.plan.early):
            return None
        if gives and self.serves_later(now_ms, held_wh * MS_PER_HOUR / need.mean_w):
            return None
        found = self._best_spare(reach, wanted, held_wh)
        if found is None or (gives and self._is_only_warmer(run, found[0], now_ms)):
            return None
        best, gives_wh = found
        takes_ms = self.handling.swap_ms(run, now_ms)
        gained_wh = min(need.wh, gives_wh) - min(need.wh, held_wh)
        if gained_wh * MS_PER_HOUR <= need.mean_w * self.costs_ms(run, now_ms, takes_ms):
            return None
        return SwapBattery(need.importance, need.lasts_ms, run.index, takes_ms, run, best)

    def serves_later(self, now_ms: int, lasts_ms: float) -> bool:
        """Whether the same hands serve when it has run out, so that it may be used up first.

        At the start of free hands and at their last chance a swap is never put off.
        """
        interval = self.timeline.free_interval(now_ms)
        if interval is None or self.settling:
            return False
        return now_ms + lasts_ms < self.handling.last_chance_ms(interval)

    def _is_only_warmer(self, run: CameraRun, spare: Cell, now_ms: int) -> bool:
        """Whether a spare is no fuller, only warmer, and can stay warm until the last chance."""
        interval = self.timeline.free_interval(now_ms)
        cell = run.cell
        if interval is None or cell is None or spare.charge * spare.wh > cell.charge * cell.wh:
            return False
        last_ms = self.handling.last_chance_ms(interval)
        return now_ms < last_ms <= next_start_ms(run)

    def costs_ms(self, run: CameraRun, now_ms: int, takes_ms: int) -> int:
        """Asked time that a swap begun now costs, with the boot after it [ms].

        Source: model/hands#swap.
        """
        if run.recording is not None and run.recording.set_up.hot_swap:
            return 0
        end_ms, lost_ms = now_ms + takes_ms, 0
        for span in run.schedule.spans[max(0, run.schedule.next - 1) :]:
            if span.start_ms >= end_ms:
                break
            lost_ms += max(0, min(end_ms, span.end_ms) - max(now_ms, span.start_ms))
        return lost_ms + run.boot_ms if lost_ms else 0

    def _best_spare(
        self, reach: Reachable, wanted_wh: float, held_wh: float
    ) -> tuple[Cell, float] | None:
        """The least-charged spare that suffices, else the one that gives most and more.

        Source: model/hands#swap.
        """
        spares = self._spares(reach.run, reach.now_ms)
        for cell in sorted(spares, key=lambda one: one.charge):
            if cell.wh * cell.charge < wanted_wh:
                continue  # it would not suffice at its warmest
            gives_wh = reach.gives_wh(cell, wanted_wh)
            if gives_wh >= wanted_wh:
                return cell, gives_wh
        fullest: tuple[Cell, float] | None = None
        most_wh = held_wh + 1e-9
        for cell in sorted(spares, key=lambda one: -one.wh * one.charge):
            if cell.wh * cell.charge <= most_wh:
                break  # nor does any after it
            gives_wh = reach.gives_wh(cell, wanted_wh)
            if gives_wh > most_wh:
                fullest, most_wh = (cell, gives_wh), gives_wh
        return fullest

    def _spares(self, run: CameraRun, now_ms: int) -> list[Cell]:
        """Batteries of a camera's family that lie about and are promised to none, as they are."""
        share = self.defaults.self_discharge_per_month.value
        spares: list[Cell] = []
        for cell in self.cells:
            fits = not cell.in_camera and cell.family == run.camera.battery_family
            promises = self.plan.promised.get(cell.id, ())
            if fits and not self._is_promised(promises, self.made, now_ms):
                cell.rest_until(now_ms, share)
                spares.append(cell)
        return spares

    def _is_promised(
        self, promises: tuple[Promise, ...], made: set[tuple[str, str]], now_ms: int
    ) -> bool:
        """Whether the plan puts a unit into a camera here, or within a day (model/hands#swap)."""
        here = self.timeline.laid_at(now_ms)
        for camera, item, at_ms in promises:
            due = item == here.id or now_ms <= at_ms < now_ms + SOON_MS
            if due and (camera, item) not in made:
                return True
        return False

    def _fed(self, run: CameraRun) -> bool:
        """Whether what is wanted next runs on outside power alone."""
        following = run.schedule.wanted or run.schedule.following()
        recording = following.recording if following else None
        return recording is not None and recording.set_up.power == "outside_only"

    @staticmethod
    def _writes_own(run: CameraRun) -> bool:
        """Whether what is wanted next goes to the camera's own memory."""
        following = run.schedule.wanted or run.schedule.following()
        recording = following.recording if following else None
        return run.camera.writes_own(recording.set_up if recording else None)

    def card_due(self, run: CameraRun, need: Need, now_ms: int) -> SwapCard | None:
        """Swap when the card is unfit, full, or has less room than what is asked.

        Source: model/hands#swap.
        """
        slot = run.camera.card_slot
        if slot is None or self._writes_own(run) or need.bytes <= 0 or need.peak_rate is None:
            return None
        unfit = Cause.CARD_UNFIT in run.holds
        stuck = Cause.CARD_FULL in run.holds
        free = run.card.free if run.card and not unfit else 0
        wanted = need.bytes * self.defaults.swap_margin.value
        if free >= wanted or (free > 0 and not self.plan.early and not stuck):
            return None
        if free > 0 and not stuck and self.serves_later(now_ms, free * 1000 / need.rate):
            return None
        spares = [
            card
            for card in self.cards
            if card.place == "bag"
            and card.gb <= slot.largest_gb
            and card.store.sustained_bytes_s >= need.peak_rate
            and not self._is_promised(
                self.plan.cards_promised.get(card.store.id, ()), self.cards_made, now_ms
            )
        ]
        enough = [card for card in spares if card.free >= wanted]
        if enough:
            best = min(enough, key=lambda card: card.free)
        else:
            more = [card for card in spares if card.free > free]
            if not more:
                return None
            best = max(more, key=lambda card: card.free)
        takes_ms = self.handling.card_ms(run, now_ms)
        return SwapCard(need.importance, need.lasts_ms, run.index, takes_ms, run, best)

    def card_said(self, run: CameraRun, here: Laid, now_ms: int) -> SwapCard | None:
        """The plan's own word on a card at this stop, where it can be done now."""
        said = self.plan.card_swaps.get((run.camera.id, here.id))
        if said is None or said.card is None or Cause.COPYING in run.holds:
            return None
        if (run.camera.id, here.id) in self.cards_made:
            return None
        if said.when == "leaving" and now_ms < self.handling.leaving_ms(here):
            return None
        slot = run.camera.card_slot
        card = next((one for one in self.cards if one.store.id == said.card), None)
        if slot is None or card is None or card.place != "bag" or card.gb > slot.largest_gb:
            return None
        run.advance(now_ms)
        takes_ms = self.handling.card_ms(run, now_ms)
        return SwapCard(0, 0, run.index, takes_ms, run, card, said_at=here.id)
