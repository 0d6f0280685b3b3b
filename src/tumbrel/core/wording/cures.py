"""A cure in a sentence: what to do."""

from __future__ import annotations

from collections.abc import Mapping

from .units import opening
from .verdict import musts_broken

CURES: dict[str, str] = {
    "mode": "Film {leg} with {camera} in {mode}",
    "feature_off": "Turn {camera}'s {feature} off on {leg}",
    "radio_off": "Turn {camera}'s radio off when it is off",
    "off_between": "Switch {camera} off between stretches",
    "set_up": "Build {camera} as '{set_up}' for {leg}",
    "shade": "Keep the kit in the shade on {leg}",
    "swap_at": "Put {battery} into {camera} at {stop}",
    "start_with": "Start with {battery} in {camera}",
    "warm_pocket": "Carry all batteries {family} in an inside pocket",
    "swap_early": "Swap early, at stops",
    "one_more_battery": "Carry {more} {family}",
    "one_more_bank": "Carry {more} like {bank}",
    "one_more_charger": "Carry {more} like {charger}",
    "start_with_card": "Start with {card} in {camera}",
    "one_more_card": "Carry {more} of {gb} GB",
    "copy_and_wipe": "Copy {camera} to two drives at {stop}, then wipe it",
    "other_camera": "Ask {camera} on {leg} instead of {instead}",
    "swap_leaving": "Put {battery} into {camera} just before leaving {stop}",
    "fed": "Build {camera} as '{set_up}' for {leg} and feed it from {source}",
    "module_on": "Put {module} on {camera} for {leg}",
    "loop": "Loop {camera} on {leg}, {minutes} min, and keep it at moments",
    "loop_kept": "Loop {camera} on {leg}, {minutes} min, and keep it twice an hour",
    "loop_at_moments": "Make {camera}'s loop on {leg} {seconds} s long and keep it at moments",
    "roll": "Roll {camera} on {leg}",
    "arm": "Arm {camera} on {leg}",
    "left_out": "Leave {camera} off on {leg}, for {for}",
    "last_minutes": "Film only the last {minutes} min of {leg} with {camera}",
    "asked_too": "Ask {camera} on {leg} too",
    "unmoved": "Leave {camera} on {was} on {leg}",
    "angle": "Ask {camera} for {angle} on {leg}",
    "mount": "Put {camera} on {mount} for {leg}",
    "longer_stop": "Stay {minutes} min longer at {stop}",
    "copy_to": "Copy to {drive} at {stop}",
    "halt": "Halt for {minutes} min on {leg} before it gives out",
    "tether": "Tie {camera} to a tether of its own",
    "preset_mode": "Plan {camera} in the mode of its preset {preset}",
    "no_preset": "Use no preset of {camera} here",
    "loop_length": "Make {camera}'s loop {seconds} s long",
    "source": "Feed {camera} from {source}",
    "clock": "Set {camera}'s clock, and say so in the kit",
    "no_charging": "Charge by hand only, while someone is awake",
    "filter": "Fit {stops} stops of neutral density with {camera}'s preset {preset}",
}


def more_words(one: str, several: str) -> dict[int, str]:
    """One more of a thing, two more, three more."""
    return {1: f"one more {one}", 2: f"two more {several}", 3: f"three more {several}"}


WHY: Mapping[str, str] = {
    "hot": "It grows too hot there however it is filmed, and does not cool in time",
    "no_power": "Nothing that is carried gives it power there",
    "no_card": "No card that is carried fits",
    "card_full": "No card that is carried has the room, and none is emptied before",
    "card_unfit": "No card that is carried is fast enough",
    "clip_limit": "Its longest clip ends there, and nobody starts it again",
    "no_start": "Nobody and nothing can start it there",
    "no_hand": "Nobody is there to start it again",
    "swap": "Its battery is changed then, and no other time serves",
    "card_swap": "Its card is changed then, and no other time serves",
    "move": "The hands move it then",
    "copying": "It is copied from then",
    "plan": "What is planned of it is not in the kit",
}
NO_HANDS: Mapping[str, str] = {
    "never": "No hand is ever free on it, and what is put in before does not last",
    "stops": "Hands are free at its stops only, and what is put in there does not last",
}


def why_words(cause: str | None, hands: str) -> str:
    """Why nothing helps against a gap: its own cause, or for a battery who could change it."""
    if cause is not None and cause in WHY:
        return WHY[cause]
    return NO_HANDS.get(hands, "What it draws is more than what it holds")


def leaves_words(broken_musts: int, *, covered: bool) -> str:
    """The verdict that a cure leaves."""
    if broken_musts:
        return f"then {musts_broken(broken_musts)}"
    return "then everything you asked is filmed" if covered else "then no must is broken"


def cure_words(code: str, values: Mapping[str, str | int | float]) -> str:
    """The sentence of a change. Raises KeyError for an unknown code."""
    return CURES[code].format(**values)


def joined(sentences: list[str]) -> str:
    """Changes that go together, as one sentence."""
    first, *rest = sentences
    return "; ".join([first, *(one[0].lower() + one[1:] for one in rest)]) + "."


def nothing_cures(what: str, tried: int, reason: str, full: list[str]) -> str:
    """Why there is no cure; what is carried and full is named, since a person may know a way."""
    if tried == 0:
        return f"Nothing is known that cures {what}: {reason[0].lower()}{reason[1:]}."
    ways = "1 change was" if tried == 1 else f"{tried} changes were"
    said = f"No cure was found for {what}: {ways} rehearsed, and none helps. {opening(reason)}."
    if full:
        are = "is" if len(full) == 1 else "are"
        said += f" {', '.join(full)} {are} carried and well charged."
    return said
