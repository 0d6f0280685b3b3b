"""From a rehearsal to the card of its trip."""

from __future__ import annotations

import hashlib
from collections import Counter
from collections.abc import Iterator
from datetime import datetime

from ..document import Assignment, Importance, Item, PlanDocument, Stop
from ..local_time import local_at, ms_at
from ..rehearsal.result.result import LaidItem, Move, Pooled, Rehearsal
from ..wording.card import (
    full_words,
    gesture_words,
    going_words,
    lasting_words,
    lasts_words,
    left_words,
    say_words,
    slot_words,
)
from ..wording.moves import start_words
from .told import CardMove, CardPlace, Filming, FullUnit, Shot, TripCard

MUSTS_LAST = {"nice": 0, "want": 1, "must": 2}
WORTH_KEEPING = frozenset({"start", "stop", "copy_end"})
REVISION_LETTERS = 8


def card_of(document: PlanDocument, told: Rehearsal) -> TripCard:
    """Everything that goes along, from the one telling of a rehearsal of this document."""
    teller = _Teller(document, told)
    return TripCard(
        trip=document.trip.name,
        revision=revision_of(document),
        start_utc=told.start_utc,
        time_zone=document.trip.time_zone,
        duration_ms=told.duration_ms,
        places=tuple(teller.place(number) for number in range(len(told.items))),
        full_by=tuple(teller.full_by()),
    )


def revision_of(document: PlanDocument) -> str:
    """Eight letters that name a plan: the same for the same document, another for any other."""
    text = document.model_dump_json(exclude_defaults=True)
    return hashlib.sha256(text.encode()).hexdigest()[:REVISION_LETTERS]


class _Teller:
    """Looks up what a card says of each place."""

    def __init__(self, document: PlanDocument, told: Rehearsal) -> None:
        self.document, self.told = document, told
        self.cameras = {one.id: one for one in document.kit.cameras}
        self.items = {one.id: one for one in document.trip.items}
        self.order = {one.id: number for number, one in enumerate(told.items)}
        self.batteries = {one.name: one for one in told.batteries}
        self.cards = {one.name: one for one in told.cards}
        asked = document.plan.assignments
        of_rates = ((asked[one.assignment], one) for one in told.rates)
        self.rates = {(one.camera, one.item): rate for one, rate in of_rates}
        self.seen: Counter[str] = Counter()

    def place(self, number: int) -> CardPlace:
        """One stop, leg or wait."""
        laid = self.told.items[number]
        item = self.items.get(laid.id)
        moves = [one for one in self.told.moves if one.item == laid.id]
        shown = tuple(self._move(move, laid, place) for place, move in enumerate(moves))
        work_s = sum(one.takes_s for one in shown)
        free_s = (laid.end_ms - laid.start_ms) // 1000 if laid.hands_free else 0
        if isinstance(item, Stop) and item.asleep is not None:
            free_s -= item.asleep.duration_s
        ahead = self._ahead(number) if laid.kind == "stop" else [laid]
        return CardPlace(
            item=laid.id,
            name=laid.name,
            kind=laid.kind,
            day=f"{self._local(laid.start_ms):%Y-%m-%d}",
            start_ms=laid.start_ms,
            end_ms=laid.end_ms,
            start=self._clock(laid.start_ms),
            end=self._clock(laid.end_ms),
            hands_free=laid.hands_free,
            asleep=self._asleep(item, laid.start_ms),
            moves=shown,
            spare_s=free_s - work_s,
            leave_out=_leave_out(shown),
            films=tuple(self._films([laid, *ahead] if laid.kind == "stop" else ahead)),
            shots=tuple(self._shots(ahead)),
            cautions=self._cautions(laid.id),
        )

    def full_by(self) -> Iterator[FullUnit]:
        """What must be full when, in order of time."""
        kit = self.document.kit
        names = {one.id: one.name for one in (*kit.batteries, *kit.sources)}
        for wanted in sorted(self.document.plan.full_by, key=lambda one: one.at):
            at_ms = ms_at(self.told.start_utc, self.document.trip.time_zone, wanted.at)
            name = names.get(wanted.unit, wanted.unit)
            yield FullUnit(
                unit=wanted.unit,
                at_ms=at_ms,
                say=full_words(name, self._clock(at_ms)),
            )

    # -- moves ----------------------------------------------------------------------

    def _move(self, move: Move, laid: LaidItem, place: int) -> CardMove:
        camera = self.cameras[move.camera]
        asked = self._served(move, laid)
        bare = f"{move.item}/{move.camera}/{move.kind}/{move.unit or move.puts_in}"
        self.seen[bare] += 1
        preset = next((p for p in camera.presets if asked and p.id == asked.preset), None)
        start = move.kind in ("start", "move")
        how = (slot_words(preset), gesture_words(camera)) if start else ("",)
        return CardMove(
            key=f"{bare}/{self.seen[bare]}",
            number=place + 1,
            at_ms=move.at_ms,
            clock=self._clock(move.at_ms),
            camera="" if move.alone else camera.name,
            kind=move.kind,
            say=say_words(move.kind, move.takes_out, move.puts_in, move.text),
            where=self._where(move),
            how="; ".join(one for one in how if one),
            why=self._why(move, asked),
            takes_s=max(0, move.end_ms - move.at_ms) // 1000,
            importance=asked.importance if asked else None,
            dear=self._is_dear(move, laid, asked),
        )

    def _served(self, move: Move, laid: LaidItem) -> Assignment | None:
        """The stretch that a move is for: the camera's own here, or the next one after."""
        from_here = self.order[laid.id]
        mine = [one for one in self.document.plan.assignments if one.camera == move.camera]
        later = [one for one in mine if self.order[one.item] >= from_here]
        return min(later, key=lambda one: self.order[one.item], default=None)

    def _where(self, move: Move) -> str:
        """Where what goes in lies now, and where what comes out goes."""
        units = self.cards if move.kind == "card" else self.batteries
        puts_in, takes_out = units.get(move.puts_in), units.get(move.takes_out)
        if move.kind == "plug" and takes_out is not None:
            lies = self._place_of(takes_out, move.at_ms, before=True)
            return going_words(move.takes_out, "is in", lies)
        if move.kind not in ("swap", "card"):
            return ""
        from_place = self._place_of(puts_in, move.at_ms, before=True) if puts_in else ""
        to_place = self._place_of(takes_out, move.end_ms, before=False) if takes_out else ""
        parts = (
            going_words(move.puts_in, "is in", from_place),
            going_words(move.takes_out, "goes into", to_place),
        )
        return "; ".join(one for one in parts if one)

    def _place_of(self, unit: Pooled, at_ms: int, *, before: bool) -> str:
        stays = unit.stays
        if before:
            found = [one for one in stays if one.start_ms < at_ms or one is stays[0]]
            place = found[-1].place
        else:
            place = next((s.place for s in stays if s.end_ms > at_ms), stays[-1].place)
        return self._named(place)

    def _named(self, place: str) -> str:
        """A camera by its name; a pocket, charger or the bag with its article."""
        kit = self.document.kit
        key = place.split("/", maxsplit=1)[0]
        if key in self.cameras:
            return self.cameras[key].name
        named = (*kit.pockets, *kit.chargers, *kit.sources)
        return next((f"the {one.name}" for one in named if one.id == key), "the bag")

    def _why(self, move: Move, asked: Assignment | None) -> str:
        if move.kind in ("swap", "card", "plug"):
            unit = None if move.kind == "card" else self.batteries.get(move.takes_out)
            told = "" if unit is None else left_words(move.takes_out, _level(unit, move.at_ms))
            served = f"for {self._name(asked.item)}" if asked and move.kind != "plug" else ""
            return ", ".join(one for one in (told, served, self._lasts(move, asked)) if one)
        if move.kind in ("start", "move") and asked is not None:
            return f"{self._name(asked.item)}, {asked.importance}"
        return ""

    def _lasts(self, move: Move, asked: Assignment | None) -> str:
        """How long what goes in lasts in the stretch that it is for; not of a cold battery."""
        rate = self.rates.get((asked.camera, asked.item)) if asked else None
        if rate is None:
            return ""
        card, battery = self.cards.get(move.puts_in), self.batteries.get(move.puts_in)
        if move.kind == "card" and card is not None and rate.bytes_s > 0.0:
            room = card.size - _level(card, move.at_ms)
            return lasts_words(card.name, room / rate.bytes_s / 60.0)
        if move.kind == "swap" and battery is not None and rate.watts > 0.0:
            held_wh = _level(battery, move.at_ms) * battery.size
            cell_c = _last_c(battery, move.at_ms)
            warm = cell_c is not None and cell_c > 0.0
            return lasts_words(battery.name, held_wh * 60.0 / rate.watts) if warm else ""
        return ""

    def _is_dear(self, move: Move, laid: LaidItem, asked: Assignment | None) -> bool:
        """What must not be missed: swaps and starts before a must, plugging in before sleep."""
        item = self.items.get(laid.id)
        sleeps = isinstance(item, Stop) and item.asleep is not None
        if move.kind == "plug":
            return sleeps
        must = asked is not None and asked.importance == "must"
        return must and move.kind in ("swap", "card", "module", "move", "start", "restart")

    # -- what comes next ------------------------------------------------------------

    def _ahead(self, number: int) -> list[LaidItem]:
        """Legs after a stop, up to the next stop."""
        found: list[LaidItem] = []
        for laid in self.told.items[number + 1 :]:
            if laid.kind == "stop":
                break
            found.append(laid)
        return found

    def _films(self, ahead: list[LaidItem]) -> Iterator[Filming]:
        """Each camera asked there: until when it lasts, and what ends it."""
        names = {one.id for one in ahead}
        for result in self.told.cameras:
            mine = [
                one
                for one in self.document.plan.assignments
                if one.camera == result.camera and one.item in names
            ]
            if not mine:
                continue
            mine.sort(key=lambda one: self.order[one.item])
            lost = [one for one in result.losses if one.item in names]
            first = min(lost, key=lambda one: one.start_ms, default=None)
            until_ms = (
                first.start_ms if first else self.told.items[self.order[mine[-1].item]].end_ms
            )
            yield Filming(
                camera=self.cameras[result.camera].name,
                what=start_words(self.document.kit, mine[0]),
                until_ms=until_ms,
                until=self._clock(until_ms),
                ends=lasting_words(first.text if first else None),
            )

    def _shots(self, ahead: list[LaidItem]) -> Iterator[Shot]:
        """Moments wanted on what follows, those that must be had first."""
        names = {one.id for one in ahead}
        wanted = [one for one in self.told.moments if one.item in names]
        for one in sorted(wanted, key=lambda each: -MUSTS_LAST[each.importance]):
            yield Shot(
                name=one.moment,
                count=one.count,
                importance=one.importance,
                on=self._name(one.item),
            )

    def _cautions(self, item: str) -> tuple[str, ...]:
        """What stops or warns here, each once."""
        grave = ("stop", "warn")
        found = [
            one.text for one in self.told.findings if one.item == item and one.severity in grave
        ]
        return tuple(dict.fromkeys(found))

    # -- words of time and place ----------------------------------------------------

    def _asleep(self, item: Item | None, start_ms: int) -> str:
        if not isinstance(item, Stop) or item.asleep is None:
            return ""
        from_ms = start_ms + 1000 * item.asleep.start_s
        return f"{self._clock(from_ms)} to {self._clock(from_ms + 1000 * item.asleep.duration_s)}"

    def _local(self, at_ms: int) -> datetime:
        return local_at(self.told.start_utc, self.document.trip.time_zone, at_ms)

    def _clock(self, at_ms: int) -> str:
        return f"{self._local(at_ms):%H:%M}"

    def _name(self, item: str) -> str:
        return next((one.name for one in self.told.items if one.id == item), item)


def _level(unit: Pooled, at_ms: int) -> float:
    """A battery's charge [0..1], or a card's bytes used, as the hands come to it at a time."""
    stay = [one for one in unit.stays if one.start_ms <= at_ms][-1]
    return stay.level_start if stay.start_ms == at_ms else stay.level_end


def _last_c(battery: Pooled, at_ms: int) -> float | None:
    """The temperature [degC] last told of a battery outside a camera before a time."""
    rows = zip(battery.t_ms, battery.cell_c, strict=True)
    told = [cell_c for row_ms, cell_c in rows if row_ms <= at_ms]
    return told[-1] if told else None


def _leave_out(moves: tuple[CardMove, ...]) -> tuple[str, ...]:
    """What takes time, by what matters least: of lesser stretches first, the longest first."""

    def rank(move: CardMove) -> tuple[bool, int, int]:
        importance: Importance = move.importance or "nice"
        return (move.dear, MUSTS_LAST[importance], -move.takes_s)

    found = [one for one in moves if one.kind not in WORTH_KEEPING and one.takes_s > 0]
    return tuple(one.key for one in sorted(found, key=rank))
