"""Which battery or card goes in, when, and whether it is worth the hand (model/hands#swap)."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final

from mypy_extensions import mypyc_attr

from ...charging import MS_PER_HOUR
from ...document import SetUp
from ..camera.camera_run import CameraRun
from ..camera.causes import Cause
from ..camera.handled import next_start_ms
from ..power.next_event import SOON_MS
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..trip.hand_plan import Promise
from ..trip.scene import BAG, Scene
from ..trip.timeline import Laid
from .handling import Handling
from .lookahead import Need, need_of
from .reach import Reachable
from .tasks import COPY_RANK, PLUG_RANK, SwapBattery, SwapCard

LEFT_MS: Final = 3_600_000  # so long a battery that has left a camera does not go back as it is
WARMER_K: Final = 0.5
NO_LIMIT: Final = 1e9
HAIR: Final = 1e-6
FIRST: Final = -1  # before all else of its rank
ALIKE: Final = 0.02


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
        looks: set[int],
    ) -> None:
        self.cells = cells
        self.cards = cards
        self.handling = handling
        self.defaults = scene.defaults
        self.settling = False
        self.looks = looks
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
        if not run.camera.battery_comes_out or need.wh <= 0.0 or _is_fed(run):
            return None
        now_ms = reach.now_ms
        if self._stays_in(run, need, held_wh, now_ms):
            return None
        spent, held_wh = held_wh is None, held_wh or 0.0
        wanted = need.wh * self.defaults.swap_margin.value
        least_wh = need.least_gain_wh()
        found = self._best_spare(reach, wanted, held_wh, None if spent else least_wh)
        if found is None or self._waits_warm(run, found[0], wanted, reach):
            return None
        best, gives_wh = found
        takes_ms = self.handling.swap_ms(run, now_ms)
        most_wh = min(need.wh, self._room_wh(run, need, now_ms))
        gained_wh = min(most_wh, gives_wh) - min(most_wh, held_wh)
        costs_wh = need.mean_w * self.costs_ms(run, now_ms, takes_ms) / MS_PER_HOUR
        if gained_wh - costs_wh < least_wh:
            return None
        return SwapBattery(need.importance, need.lasts_ms, run.index, takes_ms, run, best)

    def _stays_in(self, run: CameraRun, need: Need, held_wh: float | None, now_ms: int) -> bool:
        """Whether the battery in a camera is left in for now: it suffices, or another time serves.

        Where it would not even start what is asked next, only the plan's own word keeps it in.
        """
        if run.cell is not None and self._is_said_next(run, self.plan.swaps_ms, now_ms):
            return True
        if held_wh is None:
            return False
        if held_wh >= need.wh * self.defaults.swap_margin.value or not self.plan.early:
            return True
        return self.serves_later(now_ms, held_wh * MS_PER_HOUR / need.mean_w)

    def for_copy(self, run: CameraRun, wh: float, now_ms: int) -> SwapBattery | None:
        """A battery into a camera that is to be copied from and has nothing to run on.

        The least charged that suffices, else the fullest (model/memory#copies).
        """
        spares = [one for one in self._spares(run, now_ms) if self._reaches_wh(run, one) > 0.0]
        if not run.camera.battery_comes_out or not spares:
            return None
        enough = [one for one in spares if self._reaches_wh(run, one) >= wh]
        best = min(enough, key=lambda one: one.charge) if enough else None
        best = best or max(spares, key=lambda one: self._reaches_wh(run, one))
        takes_ms = self.handling.swap_ms(run, now_ms)
        return SwapBattery(COPY_RANK, FIRST, run.index, takes_ms, run, best)

    @staticmethod
    def _reaches_wh(run: CameraRun, cell: Cell) -> float:
        return cell.wh * (cell.charge - run.energy.line(cell))

    def _is_said_next(
        self, run: CameraRun, said: Mapping[str, tuple[int, ...]], now_ms: int
    ) -> bool:
        """Whether the plan changes it before anything more is asked of the camera."""
        if run.schedule.wanted is not None:
            return False
        next_ms = next_start_ms(run)
        return any(
            now_ms <= at_ms < next_ms and self.timeline.hands_free_within(at_ms - 1, at_ms + 1)
            for at_ms in said.get(run.id, ())
        )

    def back_in(self, run: CameraRun, now_ms: int) -> SwapBattery | None:
        """The battery that was taken out of a camera to charge, once it is full.

        Not yet where the cold will decide (model/hands#swap).
        """
        for cell in self.cells:
            full = cell.left == run.id and cell.charge >= cell.intake.full - HAIR
            if not full or not self._is_spare(cell, run, now_ms):
                continue
            until_ms = self.timeline.next_free_end_ms(now_ms)
            wanted_wh = need_of(run, now_ms, until_ms).wh * self.defaults.swap_margin.value
            reach = Reachable(run, now_ms, until_ms)
            if not self._waits_warm(run, cell, wanted_wh, reach):
                takes_ms = self.handling.swap_ms(run, now_ms)
                return SwapBattery(PLUG_RANK, FIRST, run.index, takes_ms, run, cell)
        return None

    def serves_later(self, now_ms: int, lasts_ms: float) -> bool:
        """Whether the same hands serve when it has run out, so that it may be used up first.

        At the start of free hands and at their last chance a swap is never put off.
        """
        interval = self.timeline.free_interval(now_ms)
        if interval is None or self.settling:
            return False
        return now_ms + lasts_ms < self.handling.last_chance_ms(interval)

    def _waits_warm(self, run: CameraRun, spare: Cell, wanted_wh: float, reach: Reachable) -> bool:
        """Whether the cold will decide, so that a spare stays in the warm until the last chance."""
        now_ms = reach.now_ms
        interval = self.timeline.free_interval(now_ms)
        if interval is None or run.schedule.wanted is not None:
            return False
        if not reach.cold_decides(spare, wanted_wh):
            return False
        due_ms = self.handling.late_as_can_be_ms(run, interval)
        if now_ms >= due_ms:
            return False
        self.looks.add(due_ms)
        return True

    def costs_ms(self, run: CameraRun, now_ms: int, takes_ms: int, *, power: bool = True) -> int:
        """Asked time that a swap of power, or a card, begun now costs, with the boot after it [ms].

        Source: model/hands#swap.
        """
        if power and run.recording is not None and run.recording.set_up.hot_swap:
            return 0
        end_ms, lost_ms = now_ms + takes_ms, 0
        for span in run.schedule.spans[max(0, run.schedule.next - 1) :]:
            if span.start_ms >= end_ms:
                break
            lost_ms += max(0, min(end_ms, span.end_ms) - max(now_ms, span.start_ms))
        return lost_ms + run.boot_ms if lost_ms else 0

    def _best_spare(
        self, reach: Reachable, wanted_wh: float, held_wh: float, least_wh: float | None
    ) -> tuple[Cell, float] | None:
        """The least charged spare that suffices, else the one that gives most and more.

        Where the cold decides, the warmest of those that suffice. What has just come out is none;
        but for a camera that is spent, of which no least gain is asked. Source: model/hands#swap.
        """
        spares = [
            one
            for one in self._spares(reach.run, reach.now_ms)
            if least_wh is None or not self._came_from_here(reach.run, one, reach.now_ms, least_wh)
        ]
        best: tuple[Cell, float] | None = None
        for cell in sorted(spares, key=lambda one: one.charge):
            if cell.wh * cell.charge < wanted_wh:
                continue  # it would not suffice at its warmest
            if best is not None and cell.cell_c <= best[0].cell_c + WARMER_K:
                continue
            gives_wh = reach.gives_wh(cell, wanted_wh)
            if gives_wh < wanted_wh:
                continue
            best = cell, gives_wh
            if not reach.cold_decides(cell, wanted_wh):
                break
        return best or self._fullest(reach, spares, wanted_wh, held_wh)

    def _fullest(
        self, reach: Reachable, spares: list[Cell], wanted_wh: float, held_wh: float
    ) -> tuple[Cell, float] | None:
        """The spare that gives most; where the cold decides, of those about alike the warmest."""
        found: list[tuple[Cell, float]] = []
        most_wh, held = held_wh + 1e-9, reach.run.cell
        for cell in sorted(spares, key=lambda one: -one.wh * one.charge):
            if cell.wh * cell.charge <= most_wh * (1.0 - ALIKE):
                break  # nor does any after it
            gives_wh = reach.gives_wh(cell, wanted_wh)
            if gives_wh > held_wh + 1e-9:
                found.append((cell, gives_wh))
                most_wh = max(most_wh, gives_wh)
        if not found:
            return None
        best = max(found, key=lambda one: one[1])
        if reach.cold_decides(best[0], wanted_wh):
            alike = [one for one in found if one[1] >= most_wh * (1.0 - ALIKE)]
            best = max(alike, key=lambda one: (round(one[0].cell_c, 1), one[1]))
            if held is not None and held_wh >= most_wh * (1.0 - ALIKE):
                return None if held.cell_c >= best[0].cell_c else best
        return best

    @staticmethod
    def _came_from_here(run: CameraRun, cell: Cell, now_ms: int, least_wh: float) -> bool:
        """Whether it left this camera within the hour, and no more has come to it since."""
        if cell.left != run.id or now_ms >= cell.left_ms + LEFT_MS:
            return False
        return cell.held_wh() - cell.left_wh < least_wh

    def _spares(self, run: CameraRun, now_ms: int) -> list[Cell]:
        """Batteries of a camera's family that lie about and are promised to none, as they are."""
        return [cell for cell in self.cells if self._is_spare(cell, run, now_ms)]

    def _is_spare(self, cell: Cell, run: CameraRun, now_ms: int) -> bool:
        """Whether a battery is such a one; then it is brought up to date."""
        if cell.in_camera or cell.family != run.camera.battery_family:
            return False
        promises = self.plan.promised.get(cell.id)
        if promises and self._is_promised(promises, self.made, now_ms):
            return False
        cell.rest_until(now_ms, self.defaults.self_discharge_per_month.value)
        return True

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

    def _room_wh(self, run: CameraRun, need: Need, now_ms: int) -> float:
        """What can be filmed on the card in it, or the best to go in [W h]."""
        if need.rate <= 1.0 or need.bytes <= 0:
            return NO_LIMIT
        free = run.card.free if run.card and Cause.CARD_UNFIT not in run.holds else 0
        if not _writes_own(run) and run.camera.card_slot is not None:
            free = max([free, *(one.free for one in self._card_spares(run, need, now_ms))])
        return need.wh * free / need.bytes

    def card_due(
        self, run: CameraRun, need: Need, held_wh: float, reach: Reachable
    ) -> SwapCard | None:
        """Swap when the card is unfit, full, or has less room than what is asked.

        It gains only what the battery can still film. Source: model/hands#swap.
        """
        no_slot = run.camera.card_slot is None or _writes_own(run)
        if no_slot or need.bytes <= 0 or need.peak_rate is None:
            return None
        now_ms, stuck = reach.now_ms, Cause.CARD_FULL in run.holds
        unfit = Cause.CARD_UNFIT in run.holds
        free = run.card.free if run.card and not unfit else 0
        if self._card_stays_in(run, need, free, now_ms, stuck=stuck):
            return None
        spares = [one for one in self._card_spares(run, need, now_ms) if one.free > free]
        if not spares:
            return None
        wanted = need.bytes * self.defaults.swap_margin.value
        enough = [card for card in spares if card.free >= wanted]
        smallest = min(enough, key=lambda card: card.free) if enough else None
        best = smallest or max(spares, key=lambda card: card.free)
        takes_ms = self.handling.card_ms(run, now_ms)
        filmed = min(1.0, self._powered_wh(run, need, held_wh, reach) / need.wh)
        usable = 0 if stuck else free
        most = need.bytes * filmed
        gained_ms = (min(most, best.free) - min(most, usable)) * need.asked_ms / need.bytes
        costs_ms = self.costs_ms(run, now_ms, takes_ms, power=False)
        if gained_ms - costs_ms < need.least_gain_ms():
            return None
        return SwapCard(need.importance, need.lasts_ms, run.index, takes_ms, run, best)

    def _card_stays_in(
        self, run: CameraRun, need: Need, free: int, now_ms: int, *, stuck: bool
    ) -> bool:
        """Whether the card in a camera is left in for now, as its battery would be."""
        if run.card is not None and self._is_said_next(run, self.plan.card_swaps_ms, now_ms):
            return True
        if free >= need.bytes * self.defaults.swap_margin.value:
            return True
        if free <= 0 or stuck:
            return False
        return not self.plan.early or self.serves_later(now_ms, free * 1000 / need.rate)

    def _card_spares(self, run: CameraRun, need: Need, now_ms: int) -> list[CardRun]:
        """Cards in the bag that a camera could write to, and that are promised to none."""
        slot, promised = run.camera.card_slot, self.plan.cards_promised
        return [
            card
            for card in self.cards
            if slot is not None
            and card.place == BAG
            and card.gb <= slot.largest_gb
            and card.store.sustained_bytes_s >= (need.peak_rate or 0)
            and not self._is_promised(promised.get(card.store.id, ()), self.cards_made, now_ms)
        ]

    def _powered_wh(self, run: CameraRun, need: Need, held_wh: float, reach: Reachable) -> float:
        """What the battery in a camera, or the best to go in, gives of what is asked [W h]."""
        if held_wh >= need.wh or _may_be_fed(run):
            return need.wh
        if not run.camera.battery_comes_out:
            return held_wh
        spares = self._spares(run, reach.now_ms)
        return max([held_wh, *(reach.gives_wh(one, need.wh) for one in spares)])

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


def _next_set_up(run: CameraRun) -> SetUp | None:
    """The set-up of what is wanted now or next."""
    asked = run.schedule.wanted or run.schedule.following()
    recording = asked.recording if asked is not None else None
    return None if recording is None else recording.set_up


def _is_fed(run: CameraRun) -> bool:
    """Whether what is wanted next runs on outside power alone."""
    set_up = _next_set_up(run)
    return set_up is not None and set_up.power == "outside_only"


def _may_be_fed(run: CameraRun) -> bool:
    """Whether what is wanted next may run on outside power."""
    set_up = _next_set_up(run)
    return set_up is not None and set_up.power != "battery"


def _writes_own(run: CameraRun) -> bool:
    """Whether what is wanted next goes to the camera's own memory."""
    return run.camera.writes_own(_next_set_up(run))
