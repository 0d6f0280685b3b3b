"""One camera through the trip: what it does now, how it starts, and how it gives out.

It owns its schedule, body, power, recorder and account of asked time; the battery and the card in
it are handed down to them.
"""

from __future__ import annotations

from typing import Final

from mypy_extensions import mypyc_attr

from ...charging import NEVER_MS
from ...memory import memory_key
from ..power.consumer import Consumer
from ..stock.batteries import Cell
from ..stock.cards import CardRun
from ..trip.asked import Asked, Framing, Recording, Worn, move_ms
from ..trip.scene import CameraAtStart, Scene
from .asked_time import AskedTime
from .causes import STOPPED_FOR_GOOD, Cause
from .energy import LEAST_W, Energy
from .forecast import Event, Forecast, thawed
from .recorder import Recorder
from .schedule import Schedule
from .starting import fed_enough, held_back
from .thermal import Thermal
from .trace import Trace
from .turns import BOOTING, FILMING, OFF, STANDBY, Due, Priority, State

SEEN_AT_MS: Final = (600_000, 1_500_000, 3_000_000)
LONG_REST_MS: Final = 3_600_000


@mypyc_attr(serializable=True)
class CameraRun(Consumer):
    """A camera as it stands, advanced from event to event.

    `holds` are what keeps it from filming, and since when [ms]. It is `hot` until it has cooled,
    `dead` while its cell gives nothing, and `spent` when it waits for a hand to start it again.
    `worn` is where a hand has put it; None while it sits as it set out.
    """

    __slots__ = (
        "beside",
        "between",
        "boot_ends_ms",
        "boot_ms",
        "camera",
        "card",
        "cell",
        "dead",
        "defaults",
        "due",
        "due_kind",
        "end_ms",
        "energy",
        "holds",
        "hot",
        "index",
        "now_ms",
        "recorder",
        "recording",
        "schedule",
        "spent",
        "state",
        "thermal",
        "time",
        "trace",
        "worn",
    )

    def __init__(self, index: int, carried: CameraAtStart, scene: Scene) -> None:
        camera = carried.camera
        super().__init__(camera.id, camera.name, runs=True)
        self.index = index
        self.camera = camera
        self.defaults = defaults = scene.defaults
        self.between = carried.between
        self.boot_ms = carried.boot_ms
        self.end_ms = scene.timeline.duration_ms
        self.schedule = Schedule(carried.asked)
        self.thermal = Thermal(carried, scene.timeline.conditions, defaults)
        self.energy = Energy(carried, defaults)
        self.recorder = Recorder(camera)
        self.time = AskedTime()
        self.trace = Trace()
        self.cell: Cell | None = None
        self.card: CardRun | None = None
        self.beside: CardRun | None = None
        self.state: State = OFF
        self.recording: Recording | None = None
        self.worn: Worn | None = None
        self.holds: dict[Cause, int] = {}
        self.hot = self.dead = self.spent = False
        self.boot_ends_ms: int | None = None
        self.due: tuple[int, int] = (NEVER_MS, 0)
        self.due_kind = Due.NOTHING
        self.now_ms = 0

    # -- as something that hangs on a source ----------------------------------------

    @property
    def port_wh(self) -> float:
        """What it has taken from ports so far [W h]."""
        return self.energy.port_wh

    @property
    def unit(self) -> str:
        """Key of the battery in it, else empty."""
        return self.cell.id if self.cell is not None else ""

    @property
    def draws(self) -> bool:
        """Whether it runs on its port now."""
        return self.energy.draw_w > 0.0

    def wants_w(self) -> float:
        """What it would take from a port [W]: its draw, with what is due, and its charging."""
        return self._wants_w(to_come=True, most=True)

    def would_take_w(self) -> float:
        """What it would take were a source switched on for it [W]."""
        return self._wants_w(to_come=self._keeps_on(), most=False)

    def _keeps_on(self) -> bool:
        """Whether it would go on drawing: wanted, not stopped for good, no frame now and then."""
        wanted = self.schedule.wanted
        if wanted is None or not STOPPED_FOR_GOOD.isdisjoint(self.holds):
            return False
        how = wanted.how
        off_ms = how.every_ms - how.on_ms if isinstance(how, Framing) and how.on_ms else 0
        return off_ms < self.defaults.bank_off_after_s.value * 1000

    def _wants_w(self, *, to_come: bool, most: bool) -> float:
        self.energy.look(self.state, self.recording)
        out = self.battery_out
        return self.energy.wants_w(self.cell, battery_out=out, to_come=to_come, most=most)

    def taking_w(self) -> float:
        """What it takes from its port now [W]."""
        return self.energy.taking_w(self.cell)

    def taper_ms(self) -> float:
        """The lag with which what it takes falls while its cell is charged [ms]."""
        charged = self.cell if self.energy.into_w > 0.0 else None
        return charged.intake.lag_ms if charged is not None else 0.0

    def grant(self, most_w: float) -> float:
        """Take what it wants of what its port gives; how much that is [W]."""
        if self.cell is not None and self.energy.feed_w <= 0.0:
            self.cell.cool = False
        self.review_refusal()
        given = min(most_w, self.wants_w())
        self.feed(given)
        self.plan_next()
        return given

    def unplug(self) -> None:
        """Its cable comes out."""
        self.feed(0.0)

    def on_store(self, *, module: bool, sleeps: bool) -> None:
        """A module feeds it by its store, others straight; what is refused is told anew."""
        self.energy.on_sleeper = sleeps
        d = self.defaults
        if self.cell is not None:
            self.cell.refused, self.cell.cool = "", False
        self.energy.through = (d.store_efficiency if module else d.feed_efficiency).value

    def feed(self, watts: float) -> None:
        """Take what a port grants; with the battery out, losing it stops the camera."""
        energy = self.energy
        energy.feed_w = watts
        self.review_refusal()
        if self.lacks_power():
            self.lose_power()
            self.account()
        elif self.schedule.wanted is None or self.state != OFF:
            return
        elif Cause.NO_POWER in self.holds or (self.lacks_cell() and fed_enough(self)):
            self.try_begin()
            self.account()

    def lacks_cell(self) -> bool:
        """Whether there is no battery in it that gives anything."""
        return self.dead or self.cell is None

    def lacks_power(self) -> bool:
        """Whether it is on without a battery that it runs on, and draws more than it is granted."""
        if self.state == OFF or (self.cell is not None and not self.battery_out):
            return False
        return self.energy.feed_w * self.energy.through < self._drawn()[0] - LEAST_W

    def lose_power(self) -> None:
        """Outside power is gone, or was never there."""
        self.halt(OFF)
        self.holds[Cause.NO_POWER if self.battery_out else Cause.NO_BATTERY] = self.now_ms

    # -- what holds now -------------------------------------------------------------

    @property
    def battery_out(self) -> bool:
        """Whether it runs on outside power alone: on its source, or wanted so."""
        if self.energy.outside_alone:
            return True
        recording = self.recording
        if self.schedule.wanted is None or recording is None:
            return False
        if recording.set_up.power != "outside_only":
            return False
        return self.is_built(self.schedule.wanted.worn)

    def sits(self) -> Worn | None:
        """Where it sits: as a hand has put it, else as its first stretch wants it."""
        if self.worn is not None:
            return self.worn
        return self.schedule.spans[0].worn if self.schedule.spans else None

    def is_built(self, worn: Worn) -> bool:
        """Whether it is built as a stretch wants it, or is so in no time (model/hands#moving)."""
        sits = self.sits()
        if sits is None or sits.set_up == worn.set_up:
            return True
        return move_ms(self.camera, worn, gloves=False) == 0

    def _drawn(self) -> tuple[float, float]:
        return self.energy.of_state(self.state, self.recording, self.thermal.body)

    @property
    def writes_own(self) -> bool:
        """Whether it writes to its own memory now."""
        return self.card is not None and self.card.store.id == memory_key(self.camera)

    def use_store(self, recording: Recording) -> None:
        """Write where it is built to write: to its own memory, or to its card.

        Source: model/memory#two.
        """
        if self.beside is None or self.camera.slot is None:
            return
        if self.writes_own != self.camera.writes_own(recording.set_up):
            card = self.card
            self.card = self.beside
            self.beside = card

    def settle(self) -> None:
        """Bring power and heat into line with what holds now; constant until the next event."""
        self.energy.look(self.state, self.recording)
        drawn = self._drawn()
        if self.state == OFF and self.dead and self.energy.feed_w <= 0.0:
            drawn = (0.0, drawn[1])
        body, out = self.thermal.body, self.battery_out
        self.thermal.rise_k = self.energy.settle(drawn, body, self.cell, battery_out=out)

    def line(self) -> float:
        """The charge at which the cell gives no more, at its temperature (model/cold#reach)."""
        return self.energy.line(self.cell)

    def thawed(self) -> bool:
        """Whether a dead cell may start again, with some charge above its line."""
        return self.cell is not None and thawed(self.energy, self.cell)

    def review_refusal(self) -> None:
        """Whether the cell in the camera takes charge at its temperatures."""
        if self.cell is not None and not self.battery_out:
            self.energy.review_refusal(self.now_ms, self.cell, self.thermal.body_c)

    @property
    def waits_to_charge(self) -> bool:
        """Whether it hangs on a port, and takes no charge until its cell or body turns."""
        refused = self.cell is not None and (self.cell.refused != "" or self.energy.body_pause)
        return refused and self.hung_on is not None

    def own_event(self, bound_ms: int) -> Event | None:
        """What it meets first by itself, at or before a bound: heat, an empty cell, a limit."""
        limit_ms = self.recording.clip_limit_ms if self.recording is not None else None
        return self.forecast().next_event(bound_ms, self.recorder.clip, limit_ms)

    def forecast(self) -> Forecast:
        """What finds its next events from how it stands now."""
        return Forecast(
            self.now_ms,
            self.thermal,
            self.energy,
            self.cell,
            off=self.state == OFF,
            hot=self.hot,
            dead=self.dead,
            battery_out=self.battery_out,
            refused=self.waits_to_charge,
        )

    def account(self) -> None:
        """Bring filmed and missed time into line with what holds now."""
        holds = None if self.state in FILMING else self.holds
        asked = self.schedule.current
        self.time.account(self.now_ms, asked, holds, self.card, self._ran_on())

    def close_spans(self) -> None:
        """End whatever span of asked time is open."""
        self.time.close(self.now_ms, self.schedule.current, self.card, self._ran_on())

    def _ran_on(self) -> Cell | None:
        return None if self.battery_out else self.cell

    def plan_next(self) -> None:
        """Find what it meets next: what is asked, a boot's end, a beat, or a level of its own."""
        self.settle()
        first, kind = (NEVER_MS, 0), Due.NOTHING
        current, following = self.schedule.current, self.schedule.following()
        if current is not None:
            ends = Priority.ENDS if current.ends_leg else Priority.PATTERN_ENDS
            first, kind = (current.end_ms, ends), Due.UNASK
        elif following is not None:
            early_ms = following.prepare_ms if self.state == OFF else None
            wanted = self.schedule.wanted
            if early_ms is not None and wanted is not following and early_ms >= self.now_ms:
                first, kind = (early_ms, Priority.STARTS), Due.PREPARE
            else:
                first, kind = (following.start_ms, Priority.STARTS), Due.ASK
        if self.boot_ends_ms is not None and (self.boot_ends_ms, Priority.STARTS) < first:
            first, kind = (self.boot_ends_ms, Priority.STARTS), Due.BOOTED
        if self.recorder.beat_ms < first[0]:
            first, kind = (self.recorder.beat_ms, Priority.PATTERN_ENDS), Due.BEAT
        waits = self.hot or (self.dead and self.schedule.wanted is not None)
        waits = waits or self.waits_to_charge
        if waits or self.state != OFF or self.energy.feed_w > 0.0 or self.energy.drain_w > 0.0:
            own = self.own_event(min(first[0], self.end_ms))
            if own is not None and own < first:
                first, kind = (own[0], own[1]), Due.BY_ITSELF
        self.due, self.due_kind = first, kind

    # -- advancing ------------------------------------------------------------------

    def advance(self, to_ms: int) -> None:
        """Move to a time; nothing else may happen to the camera before it.

        Power and byte rate are constant until then, so only temperatures are followed by step.
        """
        elapsed_ms = to_ms - self.now_ms
        if elapsed_ms <= 0:
            return
        rests = self.state == OFF and elapsed_ms > LONG_REST_MS
        if rests and self.thermal.far_from_rest(self.cell):
            start_ms = self.now_ms
            for part_ms in SEEN_AT_MS:  # how it cools or warms is to be seen, not a straight line
                self._go(start_ms + part_ms, part_ms - (self.now_ms - start_ms))
            elapsed_ms = to_ms - self.now_ms
        self._go(to_ms, elapsed_ms)

    def _go(self, to_ms: int, elapsed_ms: int) -> None:
        cell, energy = self.cell, self.energy
        off = self.state == OFF
        beside = cell if energy.outside_alone else None
        beside_c = beside.cell_c if beside is not None else 0.0
        on = not off or energy.into_w > 0.0
        for at_ms, body_c, cell_c in self.thermal.follow(self.now_ms, to_ms, cell, on=on):
            charge = energy.charge_after(cell, at_ms - self.now_ms) if cell is not None else 0.0
            used = self.recorder.used_at(at_ms, self.card)
            self.trace.add(at_ms, charge, body_c, cell_c, used, self.state)
        if beside is not None:  # it lies beside the camera
            beside.cell_c = beside.bag_climate.after(beside_c, self.now_ms, to_ms)
        energy.take_and_give(cell, elapsed_ms, off=off)
        self.now_ms = to_ms
        if self.recorder.clip is not None and self.card is not None:
            self.card.used = self.recorder.used_at(to_ms, self.card)
        self.note()

    def note(self) -> None:
        """Add a point to the trace; long rests are kept coarse."""
        cell, body_c = self.cell, self.thermal.body_c
        charge, cell_c = (cell.charge, cell.cell_c) if cell is not None else (0.0, body_c)
        used = self.card.used if self.card is not None else 0
        self.trace.add_coarse(self.now_ms, charge, body_c, cell_c, used, self.state)

    # -- starting -------------------------------------------------------------------

    def try_begin(self) -> None:
        """Start recording when it is wanted and nothing holds it back."""
        if self.schedule.wanted is None or self.state >= BOOTING:
            return
        if held_back(self):
            if Cause.COLD in self.holds or Cause.EMPTY in self.holds:
                self.dead = True
                self.spent = not self.camera.starts_itself
            elif Cause.HOT in self.holds:  # who presses now has to press again when it is cool
                self.spent = not self.camera.starts_itself
        elif self.thermal.too_hot:
            self.stop_hot()
        elif self.state == STANDBY or self.boot_ms == 0:
            self.record()
        else:
            self.state = BOOTING
            self.boot_ends_ms = self.now_ms + self.boot_ms
            self.holds[Cause.BOOT] = self.now_ms

    def record(self) -> None:
        """The camera is up and films as it was asked."""
        self.boot_ends_ms = None
        for over in (Cause.BOOT, Cause.CLIP_LIMIT, Cause.SAVE):
            self.holds.pop(over, None)
        assert self.schedule.last_wanted is not None
        self.write(self.schedule.last_wanted)
        self.account()

    def write(self, span: Asked) -> None:
        """Begin to write what a span asks."""
        assert self.card is not None
        assert span.recording is not None
        self.energy.train_w = self.energy.train_rise_k = 0.0
        begin = self.recorder.begin
        self.state = begin(span, span.recording, self.card, self.now_ms, self.boot_ms)

    def halt(self, state: State) -> None:
        """Stop recording or booting and go off or on standby."""
        self.recorder.close(self.card, self.now_ms)
        self.energy.train_w = self.energy.train_rise_k = 0.0
        self.state = state
        self.boot_ends_ms = None
        self.recorder.beat_ms = NEVER_MS
        self.holds.pop(Cause.BOOT, None)
        self.holds.pop(Cause.SAVE, None)

    def stop_hot(self) -> None:
        """Too hot: off until cool, and then for a hand unless it starts itself."""
        self.halt(OFF)
        self.hot = True
        self.spent = not self.camera.starts_itself
        self.holds[Cause.HOT] = self.now_ms
        if self.spent and self.schedule.wanted is not None:
            self.holds[Cause.NO_HAND] = self.now_ms
        self.account()

    def adopt(self, fresh: CameraRun) -> None:
        """Go on in a scene that was the same until now."""
        self.thermal.adopt(fresh.thermal.conditions)
        self.schedule.adopt(fresh.schedule)
        self.end_ms = fresh.end_ms
        last = self.schedule.last_wanted
        if last is not None and last.recording is not None:
            self.recording = last.recording
