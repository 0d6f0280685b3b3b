"""What another plan changes on a card that is in the pocket already."""

from __future__ import annotations

from .told import CardMove, StopChanged, TripCard


def changes_between(old: TripCard, new: TripCard) -> tuple[StopChanged, ...]:
    """Each stop whose work is another one, and what is new, gone, or at another hour."""
    before = {place.item: place for place in old.places}
    told = []
    for place in new.places:
        known = before.pop(place.item, None)
        said = _of_moves(known.moves if known else (), place.moves)
        if known is not None and known.start != place.start:
            said.insert(0, f"begins {place.start}, not {known.start}")
        if said:
            told.append(StopChanged(stop=place.name, said=tuple(said)))
    gone = [place for place in before.values() if place.moves]
    told += [StopChanged(stop=one.name, said=("is gone, with its work",)) for one in gone]
    return tuple(told)


def _of_moves(old: tuple[CardMove, ...], new: tuple[CardMove, ...]) -> list[str]:
    before, now = {one.key: one for one in old}, {one.key: one for one in new}
    said = [f"{_short(one)} is gone" for key, one in before.items() if key not in now]
    for key, one in now.items():
        known = before.get(key)
        if known is None:
            said.append(f"{one.clock} {_short(one)} is new")
        elif known.say != one.say:
            said.append(f"{_short(one)}, not {known.say}")
        elif known.clock != one.clock:
            said.append(f"{_short(one)} at {one.clock}, not {known.clock}")
    return said


def _short(move: CardMove) -> str:
    return f"{move.camera} {move.say}".strip()
