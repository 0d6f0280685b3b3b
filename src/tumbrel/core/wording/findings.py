"""One sentence a finding."""

from __future__ import annotations

from collections.abc import Mapping

from ..measures import degrees

SENTENCES: dict[str, str] = {
    "figure_mistaken": "{why}. Nothing is rehearsed until then.",
    "engine_failed": "Tumbrel failed at this plan ({kind}): a fault of ours, not of yours. It is "
    "kept as it is now. Undo the last change, or change something else.",
    "does_not_balance": "What is told of {what} does not add up ({ledger}): a fault of ours, not "
    "of your plan, which is kept as it is now. Do not trust it: undo the last change, or film "
    "another way.",
    "card_too_large": "{camera} takes cards up to {largest_gb} GB; {card} is {gb} GB. "
    "Fit a smaller card.",
    "card_too_slow": "{card} sustains {sustains_mb_s} MB/s; {camera} writes up to {peak_mb_s} MB/s "
    "in {mode}. Take a faster card or a lower bitrate.",
    "card_below_class": "{card} is of class {has}; {camera}'s maker wants {wants} or faster. Take "
    "another card, or try this one for as long as you will film.",
    "battery_of_wrong_family": "{battery} is of family {family}; {camera} takes {wanted}. "
    "Fit another battery.",
    "battery_unused": "{battery} charged and nobody uses {it}.",
    "module_unused": "{module} is charged and never put on {camera}, which runs empty.",
    "never_charged": "{camera} runs empty, and nothing that you carry can charge it: {why}. Say "
    "what its port takes, if it has one, or carry a charger.",
    "draw_assumed": "What {camera} draws in {mode} is assumed, {watts} W by {by}: how long it "
    "lasts is a guess. One run on the bench tells.",
    "mode_missing": "{camera} has no mode '{mode}' any more. Choose another on the board.",
    "set_up_missing": "{camera} has no set-up '{set_up}' any more. Choose another on the board.",
    "feature_not_in_mode": "{camera} cannot use {feature} in {mode}; rehearsed without.",
    "nicer_spends_it": "{camera} films {nicer} ({nice}) for {minutes} min on what {leg} ({wanted}) "
    "then lacks: {why}. Leave it out, or swap before.",
    "swap_where_no_hand": "{camera}'s {what} gives out on {leg}, where no hand is free. "
    "Swap at the stop before, or make it last.",
    "manual_swap_not_possible": "{battery} cannot go into {camera} at {where}: no hand is free "
    "there, or the battery is not in the bag. Choose another stop or battery.",
    "manual_card_not_possible": "{card} cannot go into {camera} at {where}: no hand is free there, "
    "the card is not in the bag, or it does not fit. Choose another stop or card.",
    "manual_plug_not_possible": "{unit} is not plugged in at {where}: it is full or in use, no "
    "hand is free, or no port gives power. Choose another stop.",
    "hands_not_long_enough": "No time for {camera} {task} at {where}: it takes {takes_s} s. "
    "Make the stop longer.",
    "no_time_to_move": "{camera} is still on {was} as {leg} begins: moving it to {to} takes "
    "{takes_s} s, and {short}. Stay longer before, or leave it where it is.",
    "cold_holds_charge": "{camera} gives out in the cold with {left} % still in its battery, at "
    "{cell_c}. {free}",
    "charge_refused_cold": "Below {freezing}, don't charge. {battery} is too cold at {when}; warm "
    "it first. Follow the maker's instructions.",
    "charge_refused_hot": "{battery} is too hot to charge at {when}. Let it cool, in the shade. "
    "Follow the maker's instructions.",
    "cold_to_charge": "{battery} lies at {cell_c} at {stop}: below {freezing}, don't charge. Warm "
    "it in an inside pocket first. Follow the maker's instructions.",
    "unattended_charging": "{batteries} at {stop} while you sleep. Never leave "
    "lithium cells charging unattended in a tent; follow the makers' and the house's rules.",
    "reserve_touched": "{bank}'s emergency reserve is used up by other loads from {when}.",
    "bank_switched_off": "{bank} switches itself off at {when}: the camera on it draws too little. "
    "A hand must switch it on again; choose a bank that stays on.",
    "gear_dies": "{unit} is empty at {when}: {lasts} without {loses}{of}. Charge it before, or "
    "carry a spare.",
    "chain_breaks": "{link} is empty at {when}, with {camera} on it. {onward}.",
    "no_outside_source": "{camera} is to run on outside power ({set_up}), but no source is chosen "
    "for it. Choose one on the board.",
    "full_by_missed": "{unit} is at {charge} % when it must be full. Plug it in earlier, or at a "
    "stronger port.",
    "air_carriage": "{unit} holds {wh} W h, more than the {limit} W h that carriers usually allow "
    "without asking. Spares go in the cabin with their terminals covered; ask the carrier.",
    "radio_left_on": "{camera}'s radio left on costs {wh} W h while it is off.",
    "hot_housing": "{camera} reaches {body_c}. Keep it off skin and let it cool before "
    "touching it.",
    "mode_cannot_loop": "{camera} has no loop in {mode}. Choose another mode or pattern.",
    "loop_too_short": "{camera}'s loop of {length_s} s overwrites the start of moments before they "
    "are kept; {shortest_s} s keep 95 in 100 of them whole.",
    "loop_not_offered": "{camera} has no loop of {length_s} s in {segments} segments; it has "
    "{has}.",
    "frames_come_too_fast": "{camera} wants a frame every {every} s, and one takes {takes} s to "
    "expose and write. Film them further apart.",
    "save_comes_too_late": "{keeps} too late for {camera}'s loop: no hand is free, and "
    "it answers neither voice nor remote.",
    "window_never_opens": "No minute of {camera} on {leg} can be filmed: its window never opens, "
    "{why}. Choose another hour or leg.",
    "window_stays_shut": "A window of {camera} never opens on {leg}: {why}.",
    "trigger_never_comes": "{camera} on {leg} waits for {why}. Choose another trigger.",
    "loop_larger_than_card": "{camera}'s card has room for {holds} of its loop of {length_s} s: it "
    "overwrites sooner. Fit a larger card, or ask a shorter loop.",
    "takes_where_no_hand": "Takes of {camera} on {leg} want a press each, and no hand is free. "
    "Roll, loop, or arm it, or use a remote.",
    "moment_not_expected": "{moment} on {leg} is not expected {kept} whole. "
    "Roll, or loop and keep, where it may happen.",
    "clip_limit_stops": "{camera} stops after {minutes} min in {mode} and waits for a hand.",
    "slower_than_delivery": "{camera} in {mode} films {fps} frames a second; the film has {film}.",
    "no_sound_in_slow_motion": "{camera} in {mode} gives no usable sound: it is slowed {slow} "
    "times, or records none.",
    "dark_for_frame_rate": "{leg} is mostly too dark for {camera} in {mode}: 1/{shutter} s wants "
    "more than ISO {iso}. Fewer frames a second see more; or bring a light.",
    "filter_for_half_interval": "In the brightest sun, 1/{shutter} s in {mode} wants about "
    "{filter} of neutral density on {camera} (ND {density}).",
    "slowing_not_reached": "{camera}'s preset {preset} is to be shown {wanted} times slower: that "
    "wants {least} frames a second, its mode has {fps}.",
    "more_than_editing_takes": "{camera} in {mode} is more than your computer takes in {over}. "
    "Film less, or make lighter copies for the edit.",
    "not_steadied": "{camera}'s preset {preset} steadies the picture up to {most}; {mode} is more, "
    "and is filmed unsteadied. Choose a smaller frame or a slower rate.",
    "preset_missing": "{camera} has no preset '{preset}' any more. Choose another on the board.",
    "preset_in_another_mode": "{camera}'s preset {preset} starts {has}, but {mode} is planned. "
    "Change one of them, or a day is filmed in the wrong mode.",
    "water_against_set_up": "{camera} does not stand the water on {leg}: {what} is not built for "
    "it. Follow the maker's instructions.",
    "mount_against_activity": "{camera} does not serve on {leg}: {why}. Choose another camera, "
    "mount or angle; or say why, and it stays. Event rules and local law come first.",
    "serves_poorly": "{camera} serves poorly on {leg}: {why}. Say why it is used all the same, and "
    "it is not told again.",
    "chosen_all_the_same": "{camera} on {leg}, though {why}. Your reason: {reason}.",
    "helmet_rules": "{camera} sits on a helmet. Rules and the helmet's approval may not allow it, "
    "and a mount can snag or strike in a fall. Ask the event, the maker and local law first.",
    "tether_wanted": "{camera} wants a tether on {leg}: when its mount gives way, {harm}. Tie it, "
    "and say so under how it is carried.",
    "mount_holds_shorter": "{camera}'s {mount} holds {holds} without a look at it; {leg} lasts "
    "{lasts}. Look at it at a stop, tie it, or choose another mount; or say why, and it stays.",
    "mount_too_warm": "{camera}'s {mount} holds up to {holds_c}; {leg} reaches {air_c}. Tie it, or "
    "choose another mount; follow the maker's instructions.",
    "mount_sees_elsewhere": "{camera}'s {mount} sees {sees}; on {leg} {wanted} is asked. Choose "
    "another mount or angle.",
    "mount_in_the_picture": "{camera}'s {mount} shows {covers} in the picture.",
    "mount_covers_port": "{camera}'s {mount} blocks its port on {leg}: as '{set_up}' it gets no "
    "power there. Choose another mount or set-up.",
    "too_deep": "{leg} goes {depth} m deep; {camera} as '{set_up}' stands {most} m. Follow the "
    "maker's instructions.",
    "too_long_under": "{leg} is {lasts} under water; {camera} as '{set_up}' stands {most}. Follow "
    "the maker's instructions.",
    "mount_blocks_door": "{camera} as '{set_up}' blocks its door: {swaps} "
    "{seconds} s longer. Try it at home, with gloves.",
    "must_from_one_angle": "{moment} on {leg} must be had, and {angles} films it. A second angle "
    "makes a cut possible, and saves it when one camera fails.",
    "one_copy_only": "{minutes} min exist in one place only when you come home. Copy them first.",
    "copy_not_finished": "{clips} {do} not reach {drive}: {why}.",
    "copy_never_begun": "The copy at {where} is never made: no hand is free, or the camera is "
    "busy or has no power.",
    "wiped_with_one_copy": "{told}.",
    "clock_not_set": "{camera}'s clock is not set. It may look as if it records and not do so.",
    "clocks_drift_apart": "{one} and {other} are {seconds} s apart by the end. Set both, and film "
    "one clock with both.",
    "file_names_collide": "{one} and {other} both begin their files with {prefix}. Copy them to "
    "folders of their own.",
    "place_unknown": "The trip has no place, so the sun's heat is left out. Add one under Route.",
    "names_alike": "Two cameras are called {camera}: give one another name, or nobody can tell "
    "which is meant.",
    "nothing_asked": "{camera} is carried and never used.",
}


def finding_words(code: str, values: Mapping[str, str | float | int]) -> str:
    """The sentence of a finding's code with its values. Raises KeyError for an unknown code."""
    told = {name: _told(name, value) for name, value in values.items()}
    return SENTENCES[code].format(**told, freezing=degrees(0.0))


def _told(name: str, value: str | float) -> str | float:
    """A value as it stands in a sentence: temperatures in the reader's measures."""
    if isinstance(value, str):
        return value
    if name.endswith("_c"):
        return degrees(value)
    return str(value).replace("-", "\u2212") if value < 0 else value
