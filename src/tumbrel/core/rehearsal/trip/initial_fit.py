"""Which battery and card is in each camera when the trip begins."""

from __future__ import annotations

from ...document import Camera, PlanDocument
from ...memory import card_is_too_large


class InitialFit:
    """A battery and a card for each camera: the plan's choice, else the first free one.

    A camera of which nothing is asked leaves what is in the bag to the others: of itself it holds
    only a battery that does not come out (model/hands#fit).
    """

    def __init__(self, document: PlanDocument) -> None:
        self.kit = document.kit
        self.chosen = {c.camera: c for c in document.plan.cameras}
        self.asked: set[str | None] = {a.camera for a in document.plan.assignments}
        self.asked |= {copy.camera for copy in document.plan.copies}
        plans = self.chosen.values()
        self.taken: set[str | None] = {c.battery for c in plans} | {c.card for c in plans}

    def battery(self, camera: Camera) -> str | None:
        """Key of the battery in a camera; None when none fits."""
        plan = self.chosen.get(camera.id)
        family, batteries = camera.battery_family, self.kit.batteries
        key = plan.battery if plan else None
        if key is None and (camera.id in self.asked or not camera.battery_comes_out):
            free = (b.id for b in batteries if b.family == family and b.id not in self.taken)
            key = next(free, None)
        if all((b.id, b.family) != (key, family) for b in batteries):
            return None
        self.taken.add(key)
        return key

    def card(self, camera: Camera) -> str | None:
        """Key of the card in a camera with a slot; None when none fits."""
        plan = self.chosen.get(camera.id)
        fitting = [c.id for c in self.kit.cards if not card_is_too_large(c, camera)]
        key = plan.card if plan else None
        if key is None and camera.id in self.asked:
            key = next((one for one in fitting if one not in self.taken), None)
        if key not in fitting:
            return None
        self.taken.add(key)
        return key
