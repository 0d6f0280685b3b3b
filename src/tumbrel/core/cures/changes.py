"""Changes of a document that a cure may make, small and free to be made after one another."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Literal

from ..document import (
    Assignment,
    Bank,
    Battery,
    Camera,
    CameraPlan,
    Card,
    Charger,
    FullBy,
    Item,
    Leg,
    ManualSwap,
    Module,
    PlanDocument,
    Pocket,
    SetUp,
)
from ..document.rows import free_key
from ..route.correcting import Halted, corrected
from ..serving import against, carried, mount_and_angle, stands_water

Change = Callable[[PlanDocument], PlanDocument]
Values = Mapping[str, str | int | float]


@dataclass(frozen=True)
class Proposal:
    """A change, how it is told, and what it costs whatever the rehearsal says.

    `picture` is the share of pixels a second that the stretch loses; `halts` are stops added;
    `grams` is what is carried more. Changes that set the same (`sets`, else their code) exclude
    each other; `carried` says that it only uses what is carried; `once_more` makes two of it, and
    three, where one more is not enough.
    """

    code: str
    change: Change
    values: Values = field(default_factory=dict)
    grams: float = 0.0
    picture: float = 0.0
    halts: int = 0
    sets: str = ""
    carried: bool = False
    once_more: Mapping[int, str] = field(default_factory=dict)
    edits: int = 1

    @property
    def excludes(self) -> str:
        """What no other change beside it may set."""
        return self.sets or self.code

    def times(self, count: int) -> Proposal:
        """The same so many times, as one change of as many edits."""

        def change(document: PlanDocument) -> PlanDocument:
            for _ in range(count):
                document = self.change(document)
            return document

        values = {**self.values, "more": self.once_more[count]}
        grams = self.grams * count
        return replace(self, change=change, values=values, grams=grams, edits=count)


def with_plan(document: PlanDocument, **parts: Any) -> PlanDocument:
    """The document with parts of its plan replaced."""
    return document.model_copy(update={"plan": document.plan.model_copy(update=parts)})


def with_kit(document: PlanDocument, **parts: Any) -> PlanDocument:
    """The document with parts of its kit replaced."""
    return document.model_copy(update={"kit": document.kit.model_copy(update=parts)})


def on_stretch(camera: str, item: str, **parts: Any) -> Change:
    """Parts of one assignment replaced; nothing where the stretch is not asked any more."""

    def change(document: PlanDocument) -> PlanDocument:
        assignments = tuple(
            one.model_copy(update=parts) if (one.camera, one.item) == (camera, item) else one
            for one in document.plan.assignments
        )
        return with_plan(document, assignments=assignments)

    return change


def handed_over(camera: str, item: str, other: Camera, set_up: SetUp) -> Change:
    """A stretch asked of another camera, in its first mode and a set-up that stands the leg."""

    def change(document: PlanDocument) -> PlanDocument:
        def given(one: Assignment) -> Assignment:
            if (one.camera, one.item) != (camera, item):
                return one
            names = {"camera": other.id, "mode": other.modes[0].id, "set_up": set_up.id}
            more = {"features": (), "preset": None, "angle": None, "mount": None, "reason": ""}
            return one.model_copy(update={**names, **more})

        return with_plan(document, assignments=tuple(map(given, document.plan.assignments)))

    return change


def asked_too(item: str, other: Camera, set_up: SetUp) -> Change:
    """A stretch asked of one more camera, rolled in its first mode, as a must."""

    def change(document: PlanDocument) -> PlanDocument:
        more = Assignment(
            camera=other.id,
            item=item,
            mode=other.modes[0].id,
            set_up=set_up.id,
            importance="must",
        )
        return with_plan(document, assignments=(*document.plan.assignments, more))

    return change


def carried_with(camera: str, **parts: Any) -> Change:
    """Parts of how a camera is carried, replaced."""

    def change(document: PlanDocument) -> PlanDocument:
        now: CameraPlan = carried(document.plan, camera).model_copy(update=parts)
        others = [one for one in document.plan.cameras if one.camera != camera]
        return with_plan(document, cameras=(*others, now))

    return change


def left_out(camera: str, item: str) -> Change:
    """A stretch that is not asked any more."""

    def change(document: PlanDocument) -> PlanDocument:
        kept = (a for a in document.plan.assignments if (a.camera, a.item) != (camera, item))
        return with_plan(document, assignments=tuple(kept))

    return change


def both(first: Change, second: Change) -> Change:
    """One change after another, as one."""
    return lambda document: second(first(document))


def swapped_at(
    camera: str, item: str, battery: str, when: Literal["arrival", "leaving"] = "arrival"
) -> Change:
    """A battery put in by hand at a stop, on arrival or just before leaving."""

    def change(document: PlanDocument) -> PlanDocument:
        others = [s for s in document.plan.swaps if (s.camera, s.item) != (camera, item)]
        swap = ManualSwap(camera=camera, item=item, battery=battery, when=when)
        return with_plan(document, swaps=(*others, swap))

    return change


def module_on(camera: Camera, item: str, now: SetUp, module: Module) -> Change:
    """A camera with a module on it for a leg, else built as it is now; fed by the module."""
    name = f"{now.name} with {module.name}"[:60]
    fed = next((one for one in camera.set_ups if one.name == name), None)

    def change(document: PlanDocument) -> PlanDocument:
        built = fed
        if built is None:
            key = free_key(name, {one.id for one in camera.set_ups}, "set-up")
            built = now.model_copy(update={"id": key, "name": name, "power": "outside"})
            cameras = tuple(
                one.model_copy(update={"set_ups": (*one.set_ups, built)})
                if one.id == camera.id
                else one
                for one in document.kit.cameras
            )
            document = with_kit(document, cameras=cameras)
        document = carried_with(camera.id, source=module.id)(document)
        return on_stretch(camera.id, item, set_up=built.id)(document)

    return change


def full_by(wish: FullBy) -> Change:
    """A battery or bank that must be full at a time."""

    def change(document: PlanDocument) -> PlanDocument:
        others = [one for one in document.plan.full_by if one.unit != wish.unit]
        return with_plan(document, full_by=(*others, wish))

    return change


def one_more_battery(family: str, pocket: str | None) -> Change:
    """A full battery of a family, in the warmest pocket there is."""

    def change(document: PlanDocument) -> PlanDocument:
        batteries = document.kit.batteries
        names = {one.name for one in batteries}
        letter = next(f.name for f in document.kit.families if f.id == family)[:20]
        number = next(n for n in range(1, 100) if f"{letter}{n}" not in names)
        taken = {one.id for one in batteries}
        key = free_key(f"{letter}{number}", taken, "battery")
        more = Battery(id=key, name=f"{letter}{number}", family=family, pocket=pocket)
        return with_kit(document, batteries=(*batteries, more))

    return change


def one_more_card(like: Card) -> Change:
    """An empty card like one that is carried."""

    def change(document: PlanDocument) -> PlanDocument:
        cards = document.kit.cards
        names = {one.name for one in cards}
        number = next(n for n in range(1, 100) if f"K{n}" not in names)
        key = free_key(f"K{number}", {one.id for one in cards}, "card")
        more = like.model_copy(update={"id": key, "name": f"K{number}", "used_bytes": 0})
        return with_kit(document, cards=(*cards, more))

    return change


def one_more_like(part: Literal["sources", "chargers"], like: Bank | Charger) -> Change:
    """A bank or charger like one that is carried; a bank is full."""

    def change(document: PlanDocument) -> PlanDocument:
        units = getattr(document.kit, part)
        names = {one.name for one in units}
        stem = like.name[:56]
        name = next(f"{stem} {n}" for n in range(2, 99) if f"{stem} {n}" not in names)
        key = free_key(name, {one.id for one in units}, part)
        full = {"charge": 1.0} if isinstance(like, Bank) else {}
        more = like.model_copy(update={"id": key, "name": name, **full})
        return with_kit(document, **{part: (*units, more)})

    return change


def spares_inside(family: str) -> Change:
    """All batteries of a family carried against the body."""

    def change(document: PlanDocument) -> PlanDocument:
        kit = document.kit
        inside = next((one for one in kit.pockets if one.warmth == "inside"), None)
        pockets = kit.pockets
        if inside is None:
            key = free_key("inside pocket", {one.id for one in pockets}, "pocket")
            inside = Pocket(id=key, name="inside pocket", warmth="inside")
            pockets = (*pockets, inside)
        moved = tuple(
            one.model_copy(update={"pocket": inside.id}) if one.family == family else one
            for one in kit.batteries
        )
        return with_kit(document, pockets=pockets, batteries=moved)

    return change


def longer(key: str, more_s: int) -> Change:
    """A leg or stop that lasts longer."""

    def change(document: PlanDocument) -> PlanDocument:
        item = document.trip.item(key)
        return on_item(key, duration_s=item.duration_s + more_s)(document)

    return change


def on_item(key: str, **parts: Any) -> Change:
    """Parts of a leg or stop replaced."""

    def change(document: PlanDocument) -> PlanDocument:
        items = tuple(
            one.model_copy(update=parts) if one.id == key else one for one in document.trip.items
        )
        return document.model_copy(
            update={"trip": document.trip.model_copy(update={"items": items})}
        )

    return change


def halted_on(leg: Leg, share: float, halt_s: int) -> Change:
    """A stop put on a leg after a share of its time; what is asked goes on behind it."""

    def change(document: PlanDocument) -> PlanDocument:
        after_s = max(1, min(leg.duration_s - 1, round(leg.duration_s * share)))
        halt = Halted(item=leg.id, after_s=after_s, duration_s=halt_s)
        done = corrected(document.trip, document.plan, halt)
        return document.model_copy(update={"trip": done.trip, "plan": done.plan})

    return change


def stand_ins(document: PlanDocument, item: Item) -> Iterator[tuple[Camera, SetUp]]:
    """Cameras not asked on a leg that may serve there, in a set-up that stands its water."""
    busy = {one.camera for one in document.plan.assignments if one.item == item.id}
    for other in document.kit.cameras:
        mount, angle = mount_and_angle(carried(document.plan, other.id), None)
        unfit = any(rule[0] == "never" for rule in against(document.kit, item, mount, angle))
        set_up = next((one for one in other.set_ups if stands_water(one, item)), None)
        if other.id not in busy and set_up is not None and not unfit:
            yield other, set_up
