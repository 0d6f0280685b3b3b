"""One sentence a finding."""

from __future__ import annotations

from collections.abc import Mapping

SENTENCES: dict[str, str] = {
    "card_too_large": "{camera} takes cards up to {largest_gb} GB; {card} is {gb} GB. "
    "Fit a smaller card.",
    "card_too_slow": "{card} sustains {sustains_mb_s} MB/s; {camera} writes up to {peak_mb_s} MB/s "
    "in {mode}. Take a faster card or a lower bitrate.",
    "battery_of_wrong_family": "{battery} is of family {family}; {camera} takes {wanted}. "
    "Fit another battery.",
    "battery_unused": "{battery} is charged and nobody uses it.",
    "mode_missing": "{camera} has no mode '{mode}' any more. Choose another on the board.",
    "set_up_missing": "{camera} has no set-up '{set_up}' any more. Choose another on the board.",
    "feature_not_in_mode": "{camera} cannot use {feature} in {mode}; rehearsed without.",
    "swap_where_no_hand": "{camera}'s {what} gives out on {leg}, where no hand is free. "
    "Swap at the stop before, or make it last.",
    "manual_swap_not_possible": "{battery} cannot go into {camera} at {where}: no hand is free "
    "there, or the battery is not in the bag. Choose another stop or battery.",
    "hands_not_long_enough": "No time for {camera}'s {task} at {where}: it takes {takes_s} s. "
    "Make the stop longer.",
    "place_unknown": "The trip has no place, so the sun's heat is left out. Add one under Route.",
    "nothing_asked": "{camera} is carried and never used.",
}


def finding_words(code: str, values: Mapping[str, str | float | int]) -> str:
    """The sentence of a finding's code with its values. Raises KeyError for an unknown code."""
    return SENTENCES[code].format(**values)
