"""Every change that a cure may make: a plan on which it is found, and one on which it is not."""

from __future__ import annotations

from typing import Any

import pytest

from tests.build import asks, battery, camera, card, leg, mode, played, raw, set_up, stop, takes
from tests.core.findings.test_more_findings import CASES
from tumbrel.core.cures import Cure, CureTarget, cures_of
from tumbrel.core.document import PlanDocument
from tumbrel.core.report import rehearse
from tumbrel.core.wording.cures import CURES

Doc = dict[str, Any]
HOUR = 3600
FROST = {"temp_start_c": -20.0, "temp_end_c": -20.0}
MODES = [mode("m", 4.0), mode("low", 2.0, 20.0, width_px=1920, height_px=1080)]
SLAB = {"kind": "bank", "id": "slab", "name": "Slab", "mah": 10_000, "stays_on": True}
BASE = {"kind": "module", "id": "base", "name": "Base", "fits": "cam", "mah": 6000}
DOCK = {"id": "dock", "name": "Dock", "families": ["a"], "bays": 1, "in_w": 20}
PLUG = {"kind": "mains", "id": "plug", "name": "Plug", "ports": [30, 30]}
SMALL = {"id": "d", "name": "Small", "free_gb": 1}
BIG = {"id": "e", "name": "Big", "free_gb": 900}
PAIR = {"batteries": [battery("a1"), battery("a2")], "cards": [card("k1"), card("k2")]}
FIRES = {code: fires for code, fires, _ in CASES}
FLAT = {"swap_policy": "run_flat"}
GUST = {"name": "gust", "count": 2, "seconds": 20, "importance": "must"}


def made(document: Doc, **kit: Any) -> Doc:
    """A document with more in its kit."""
    document["kit"] |= kit
    return document


def rolled(seconds: int = 2 * HOUR, first: int = 1200, way: Doc | None = None, **more: Any) -> Doc:
    """A stop, then a leg that is rolled; 5.70 W h at 4 W last 85 min."""
    items = [stop("camp", first), leg("way", seconds, **(way or {}))]
    asked = more.pop("asked", [asks("cam", "way")])
    return raw(items, asked, **more)


def ridden(**more: Any) -> Doc:
    """Two legs of 75 min with a stop between."""
    items = [leg("one", 4500), stop("s", HOUR), leg("way", 4500)]
    return raw(items, [asks("cam", "one"), asks("cam", "way")], **more)


def half(spares: int = 1, plan: Doc | None = None, **more: Any) -> Doc:
    """Half a battery in the camera, and spares; swapped only when flat."""
    cells = [battery("a1", charge=0.5), *(battery(f"a{n + 2}") for n in range(spares))]
    return rolled(HOUR, batteries=cells, plan=FLAT | (plan or {}), **more)


def hot(**more: Any) -> Doc:
    """A body that grows by 55 K and stops at 70 degC."""
    shone = {"sun_share": 1.0}
    trip = {"place": {"latitude": 44.0, "longitude": 0.0}, "start": "2027-06-12T10:00:00"}
    return rolled(HOUR, way=shone | more, cameras=[camera(modes=[mode(rise_k=32.0)])], trip=trip)


def cased(*names: str) -> Doc:
    """Too warm in its case; bare it is not."""
    built = [set_up("cased", case_factor=1.5), set_up("bare")][: len(names)]
    one = camera(modes=[mode(rise_k=35.0)], set_ups=built)
    return rolled(HOUR, cameras=[one], asked=[asks("cam", "way", set_up="cased")])


def filling(drives: list[Doc], **more: Any) -> Doc:
    """A card of 32 GB that holds 70 min, and two legs of 50."""
    items = [leg("one", 3000), stop("s", 3 * HOUR), leg("way", 3000)]
    one = camera(modes=[mode(watts=1.0)])
    asked = [asks("cam", "one"), asks("cam", "way")]
    return made(raw(items, asked, [one], cards=[card(gb=32)], **more), drives=drives)


def nights(chargers: list[Doc]) -> Doc:
    """Two flat batteries, a socket for 110 min: one bay fills one of them, two both."""
    items = [leg("one", 4800), stop("s", 6600, socket={"watts": 60})]
    items.append(leg("way", 9600, hands="free"))
    cells = [battery("a1"), battery("a2", charge=0.0)]
    plan = [asks("cam", "one"), asks("cam", "way")]
    return made(raw(items, plan, batteries=cells), chargers=chargers, sources=[PLUG])


def refilled(banks: list[Doc]) -> Doc:
    """A stop of four hours refills a battery from a bank of 4.5 W h, not twice."""
    items = [leg("one", 4500), stop("s", 4 * HOUR), leg("b", 4500), stop("t", 4 * HOUR)]
    items.append(leg("way", 4500))
    plan = [asks("cam", one) for one in ("one", "b", "way")]
    heavy = {"id": "a", "name": "A", "mah": 1500, "nominal_v": 3.8, "mass_g": 300}
    return made(raw(items, plan, family=heavy), sources=banks, chargers=[DOCK])


def frosty(warmth: float, seconds: int) -> Doc:
    """A leg after two hours at rest, both as warm; a spare against the body."""
    air = {"temp_start_c": warmth, "temp_end_c": warmth}
    items = [stop("camp", 2 * HOUR, **air), leg("way", seconds, **air)]
    cells = [battery("a1", charge=0.55), battery("a2", pocket="in")]
    document = raw(items, [asks("cam", "way")], batteries=cells, plan=FLAT)
    return made(document, pockets=[{"id": "in", "name": "In", "warmth": "inside"}])


def thawing(pocket: str) -> Doc:
    """8 W for 28 min at -20 degC, on a spare from the bag or from against the body."""
    items = [leg("one", 1500, **FROST), stop("s", 1200, **FROST), leg("way", 1700, **FROST)]
    cells = [battery("a1", pocket=pocket), battery("a2", pocket=pocket)]
    one = camera(modes=[mode("m", 8.0)])
    document = raw(items, [asks("cam", "one"), asks("cam", "way")], [one], cells)
    pockets = [{"id": one, "name": one, "warmth": one} for one in ("inside", "bag")]
    return made(document, pockets=pockets)


def rests(between: str) -> Doc:
    """Ten takes over 12 h: on standby between them it draws half a watt all the while."""
    asked = [asks("cam", "way", pattern=takes(60, count=10))]
    plan = {"cameras": [{"camera": "cam", "between": between}]}
    return rolled(12 * HOUR, asked=asked, plan=plan)


def radio(*, on: bool) -> Doc:
    """A radio left on for four days."""
    plan = {"cameras": [{"camera": "cam", "radio_left_on": on}]}
    return rolled(80 * 60, first=96 * HOUR, plan=plan)


def screened(*features: str) -> Doc:
    """A screen that stays on."""
    one = camera(modes=[mode("m", 4.0, features=["screen"])])
    return rolled(cameras=[one], asked=[asks("cam", "way", features=list(features))])


def beside(*names: str) -> Doc:
    """Two draws half as much, and is asked nothing."""
    cameras = [camera(), camera("two", modes=[mode("m", 2.0)])]
    plan = {"cameras": [{"camera": "cam", "battery": "a1"}, {"camera": "two", "battery": "a2"}]}
    asked = [asks(name, "way") for name in ("cam", *names)]
    return rolled(asked=asked, cameras=cameras, plan=plan, **PAIR)


def fed(*sources: Doc) -> Doc:
    """A set-up on outside power, for which no source is chosen."""
    one = camera(set_ups=[set_up(), set_up("rig", power="outside")], charges_in_w=10.0)
    return made(rolled(cameras=[one]), sources=list(sources))


def looped(moments: list[Doc], *, loops: bool = True) -> Doc:
    """12 GB hold 27 min of an hour."""
    one = camera(memory={"kind": "fixed", "gb": 12}, modes=[mode(loops=loops)])
    return rolled(HOUR, way={"moments": moments}, cameras=[one])


def pressed(*, loops: bool = True) -> Doc:
    """Takes, on a leg on which no hand is ever free."""
    one = camera(modes=[mode(loops=loops)])
    asked = [asks("cam", "way", pattern=takes(10, count=2))]
    return raw([leg("way", 600, hands="never")], asked, [one])


def hoped(pattern: Doc | None, *more: Doc) -> Doc:
    """A must moment on a leg where hands press, and what is asked of Cam; other cameras."""
    asked = [asks("cam", "way", pattern=pattern)] if pattern else []
    items = [stop("camp", 600), leg("way", HOUR, moments=[GUST])]
    return raw(items, asked, [camera(), *more], **PAIR)


def spent(first: str) -> Doc:
    """An hour of less or as much importance before an hour of must, on 85 min."""
    items = [leg("fun", HOUR), leg("way", HOUR)]
    asked = [asks("cam", "fun", importance=first), asks("cam", "way", importance="must")]
    return raw(items, asked)


def preset(mode_of: str) -> Doc:
    """A preset of one mode, on a stretch in another."""
    one = camera(modes=MODES, presets=[{"id": "p", "slot": 1, "name": "P", "mode": mode_of}])
    return raw([leg("way", 600)], [asks("cam", "way", preset="p")], [one])


def filtered(**more: Any) -> Doc:
    """High sun at noon, with a preset or without."""
    trip = {"place": {"latitude": 44.0, "longitude": 0.0}, "start": "2027-06-12T12:00:00"}
    one = camera(presets=[{"id": "p", "slot": 1, "name": "P", "mode": "m"}])
    return raw([leg("way", 600)], [asks("cam", "way", **more)], [one], trip=trip)


def seen(**known: Any) -> Doc:
    """Worn on the chest, where its mount shows the hands; sight is asked."""
    mounts = [{"mount": "chest", "sees": "hands"}, *([known] if known else [])]
    worn = {"cameras": [{"camera": "cam", "mount": "chest"}]}
    return raw([leg("way", 600)], [asks("cam", "way")], [camera(mounts=mounts)], plan=worn)


def moved(rest_s: int) -> Doc:
    """From chest to stick, for which a stop is too short."""
    items = [leg("one", 600), stop("s", rest_s), leg("way", 600)]
    asked = [asks("cam", "one", mount="chest"), asks("cam", "way", mount="hand_held")]
    return raw(items, asked)


def copied(*drives: Doc) -> Doc:
    """A leg of 4.6 GB, and a drive with room for one."""
    plan = {"copies": [{"item": "s", "camera": "cam", "drive": "d"}]}
    items = [leg("way", 600), stop("s", HOUR)]
    return made(raw(items, [asks("cam", "way")], plan=plan), drives=list(drives))


def offered(*lengths: int) -> Doc:
    """A loop of a minute in six segments, on a camera that has others."""
    pattern = {"kind": "loop", "length_s": 60, "segments": 6, "saves": 1}
    loops = [{"length_s": one, "segment_s": one // 5} for one in lengths]
    return raw([leg("way", 600)], [asks("cam", "way", pattern=pattern)], [camera(loops=loops)])


def climbed() -> Doc:
    """Held in the hand on a climb, untied."""
    held = {"cameras": [{"camera": "cam", "mount": "hand_held"}]}
    return raw([leg("way", 600, activity="climb")], [asks("cam", "way")], plan=held)


EMPTY = rolled()
FLIGHT = rolled(way={"activity": "flight", "hands": "never"}, batteries=PAIR["batteries"])
LATE = {"kind": "loop", "length_s": 25, "saves": 1}
EVERY: list[tuple[str, str, tuple[Doc, str], tuple[Doc, str]]] = [
    ("mode", "Film way with Cam in LOW.", (rolled(cameras=[camera(modes=MODES)]), ""), (EMPTY, "")),
    ("feature_off", "Turn Cam's screen off on way.", (screened("screen"), ""), (screened(), "")),
    ("radio_off", "Turn Cam's radio off when it is off.", (radio(on=True), ""), (EMPTY, "")),
    ("off_between", "Switch Cam off between stretches.", (rests("standby"), ""), (EMPTY, "")),
    ("set_up", "Build Cam as 'bare' for way.", (cased("a", "b"), ""), (cased("a"), "")),
    ("shade", "Keep the kit in the shade on way.", (hot(), ""), (EMPTY, "")),
    ("swap_at", "Put A2 into Cam at camp.", (half(), ""), (half(0), "")),
    ("start_with", "Start with A2 in Cam.", (half(), ""), (half(0), "")),
    ("warm_pocket", "Carry all batteries A in an inside pocket.", (thawing("bag"), ""),
     (thawing("inside"), "")),
    ("swap_early", "Swap early, at stops.", (half(), ""), (EMPTY, "")),
    ("one_more_battery", "Carry one more battery A.", (ridden(), ""),
     (ridden(cameras=[camera(battery_comes_out=False)]), "")),
    ("one_more_bank", "Carry one more power bank like Slab.",
     (refilled([SLAB | {"mah": 1600}]), ""), (refilled([]), "")),
    ("one_more_charger", "Carry one more charger like Dock.",
     (nights([DOCK]), ""), (nights([]), "")),
    ("start_with_card", "Start with K2 in Cam.",
     (rolled(HOUR, cards=[card("k1", 16), card("k2", 256)],
             plan={"cameras": [{"camera": "cam", "card": "k1"}], **FLAT}), ""),
     (rolled(HOUR, cards=[card("k1", 16)]), "")),
    ("one_more_card", "Carry one more card of 32 GB.", (filling([]), ""),
     (rolled(HOUR, cameras=[camera(memory={"kind": "fixed", "gb": 16})]), "")),
    ("copy_and_wipe", "Copy Cam to two drives at s, then wipe it.",
     (filling([BIG, BIG | {"id": "f", "name": "Far"}]), ""), (filling([BIG]), "")),
    ("other_camera", "Ask Two on way instead of Cam.", (beside(), ""), (beside("two"), "")),
    ("swap_leaving", "Put A2 into Cam just before leaving camp.", (frosty(-20.0, 2400), ""),
     (frosty(25.0, 4200), "")),
    ("fed", "Build Cam as 'rig' for way and feed it from Slab.", (fed(SLAB), ""), (fed(), "")),
    ("module_on", "Put Base on Cam for way.", (made(rolled(), sources=[BASE]), ""),
     (made(rolled(), sources=[SLAB]), "")),
    ("loop", "Loop Cam on way, 5 min, and keep it at moments.", (looped([GUST]), ""),
     (looped([GUST], loops=False), "")),
    ("loop_kept", "Loop Cam on way, 5 min, and keep it twice an hour.",
     (pressed(), "takes_where_no_hand"), (pressed(loops=False), "takes_where_no_hand")),
    ("loop_at_moments", "Make Cam's loop on way 33 s long and keep it at moments.",
     (hoped(LATE), "moment_not_expected"), (hoped(takes(10, count=1)), "moment_not_expected")),
    ("roll", "Roll Cam on way.", (hoped(takes(10, count=1)), "moment_not_expected"), (EMPTY, "")),
    ("arm", "Arm Cam on way.", (pressed(), "takes_where_no_hand"), (EMPTY, "")),
    ("left_out", "Leave Cam off on fun, for way.", (spent("nice"), ""), (spent("must"), "")),
    ("last_minutes", "Film only the last 85 min of way with Cam.", (EMPTY, ""),
     (rests("standby"), "")),
    ("asked_too", "Ask Two on way too.", (hoped(None, camera("two")), "moment_not_expected"),
     (hoped(takes(10, count=1)), "moment_not_expected")),
    ("unmoved", "Leave Cam on chest on way.", (moved(30), "no_time_to_move"), (EMPTY, "")),
    ("angle", "Ask Cam for my hands on way.", (seen(), "mount_sees_elsewhere"), (EMPTY, "")),
    ("mount", "Put Cam on tripod for way.",
     (seen(mount="tripod", sees="sight"), "mount_sees_elsewhere"),
     (seen(), "mount_sees_elsewhere")),
    ("longer_stop", "Stay 1 min longer at s.", (moved(30), "no_time_to_move"), (EMPTY, "")),
    ("copy_to", "Copy to Big at s.", (copied(SMALL, BIG), "copy_not_finished"),
     (copied(SMALL), "copy_not_finished")),
    ("halt", "Halt for 10 min on way before it gives out.",
     (rolled(batteries=PAIR["batteries"]), ""), (FLIGHT, "")),
    ("tether", "Tie Cam to a tether of its own.", (climbed(), "tether_wanted"),
     (EMPTY, "")),
    ("preset_mode", "Plan Cam in the mode of its preset P.",
     (preset("low"), "preset_in_another_mode"), (EMPTY, "")),
    ("no_preset", "Use no preset of Cam here.", (preset("low"), "preset_in_another_mode"),
     (EMPTY, "")),
    ("loop_length", "Make Cam's loop 300 s long.", (offered(60, 300), "loop_not_offered"),
     (offered(60), "loop_not_offered")),
    ("source", "Feed Cam from Bank.", (FIRES["no_outside_source"], "no_outside_source"),
     (EMPTY, "")),
    ("clock", "Set Cam's clock, and say so in the kit.",
     (raw([leg("way", 600)], [asks("cam", "way")], [camera(clock_set=False)]), "clock_not_set"),
     (EMPTY, "")),
    ("no_charging", "Charge by hand only, while someone is awake.",
     (FIRES["unattended_charging"], "unattended_charging"), (EMPTY, "")),
    ("filter", "Fit 6 stops of neutral density with Cam's preset P.",
     (filtered(preset="p"), "filter_for_half_interval"),
     (filtered(), "filter_for_half_interval")),
]  # fmt: skip


def found(document: Doc, code: str) -> list[str]:
    """All cures that are found of the first finding of a code, or of what is lost on the way."""
    plan = PlanDocument.model_validate(document)
    target = CureTarget(camera="cam", item="way")
    if code:
        one = next(each for each in rehearse(plan).findings if each.code == code)
        target = CureTarget(camera=one.camera, item=one.item, code=code, path=one.path)
    return [one.text for one in cures_of(plan, target, played) if isinstance(one, Cure)]


@pytest.mark.parametrize(("code", "words", "here", "there"), EVERY, ids=[one[0] for one in EVERY])
def test_a_cure_is_found_here_and_not_there(
    code: str, words: str, here: tuple[Doc, str], there: tuple[Doc, str]
) -> None:
    assert words in found(*here)
    assert words not in found(*there)


def test_every_cure_has_such_a_pair() -> None:
    assert {one[0] for one in EVERY} == set(CURES)
