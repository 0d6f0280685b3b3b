"""Findings on power, patterns, picture and footage: each where it fires, and where it does not."""

from __future__ import annotations

from typing import Any

import pytest

from tests.build import asks, battery, camera, card, codes, leg, mode, raw, set_up, stop, takes
from tumbrel.core.document import PlanDocument
from tumbrel.core.findings import CHECKS
from tumbrel.core.report import rehearse

Doc = dict[str, Any]
HOUR = 3600
COLD = {"temp_start_c": -20.0, "temp_end_c": -20.0}
HOT = {"temp_start_c": 50.0, "temp_end_c": 50.0}
HERE = {"place": {"latitude": 44.0, "longitude": 0.0}}
SLEEPS = {"start_s": HOUR, "duration_s": 4 * HOUR}
CHARGER = {"id": "ch", "name": "Dock", "families": ["a"], "bays": 2, "in_w": 20}
PLUG = {"kind": "mains", "id": "plug", "name": "Plug"}
BANK = {"kind": "bank", "id": "bank", "name": "Bank", "mah": 10_000}
DRIVE = {"id": "d", "name": "Drive", "free_gb": 500}


def made(items: list[Doc], asked: list[Doc], kit: Doc | None = None, **more: Any) -> Doc:
    """A document with parts of the kit added."""
    document = raw(items, asked, **more)
    document["kit"].update(kit or {})
    return document


def way(**more: Any) -> list[Doc]:
    """One leg of ten minutes."""
    return [leg("way", 600, **more)]


def roll(**more: Any) -> list[Doc]:
    """Rolled on it."""
    return [asks("cam", "way", **more)]


def stays(power: Doc | None = None, charge: float = 0.5, **more: Any) -> Doc:
    """A night with a socket and a dock, one low spare."""
    night = stop("s", 8 * HOUR, socket=power, **more)
    spare = battery("a2", charge=charge)
    kit = {"chargers": [CHARGER], "sources": [PLUG]}
    return made([night, *way()], roll(), kit, batteries=[battery(), spare])


def fed(name: str | None = "bank", **more: Any) -> Doc:
    """A camera on outside power by takes."""
    one = camera(set_ups=[set_up(power="outside")], charges_in_w=5.0)
    asked = roll(pattern=takes(10, count=2))
    chosen = [{"camera": "cam", "source": name}]
    kit = {"sources": [BANK | more]}
    return made(way(), asked, kit, cameras=[one], plan={"cameras": chosen})


def wants_class(least: str) -> Doc:
    """A V30 card in a camera whose maker wants some class."""
    one = camera(memory={"kind": "slot", "largest_gb": 512, "slowest_class": least})
    return made(way(), roll(), cameras=[one], cards=[card(speed_class="V30")])


def with_base(power: str = "battery") -> Doc:
    """Two hours on a battery that lasts 85 min, and a module in the bag, or on the camera."""
    base = {"kind": "module", "id": "base", "name": "Base", "fits": "cam", "mah": 4000}
    one = camera(set_ups=[set_up(power=power)])
    plan = {"cameras": [{"camera": "cam", "source": "base"}]} if power == "outside" else {}
    items = [leg("way", 2 * HOUR)]
    return made(items, roll(), {"sources": [base]}, cameras=[one], plan=plan)


def sealed(port_w: float | None) -> Doc:
    """A battery that stays in, empty on the second leg; a bank, and an hour at rest."""
    one = camera(battery_comes_out=False, charges_in_w=port_w)
    items = [leg("way", HOUR), stop("s", HOUR), leg("on", HOUR)]
    return made(items, [*roll(), asks("cam", "on")], {"sources": [BANK]}, cameras=[one])


MIC = {"id": "mic", "name": "Mic", "wh": 1.0, "use_w": 0.5, "serves": "cam"}


def on_module(charge: float) -> Doc:
    """A camera that rides with a module."""
    module = {"kind": "module", "id": "mod", "name": "Mod", "fits": "cam", "mah": 1000}
    one = camera(set_ups=[set_up(power="outside")])
    kit = {"sources": [module | {"charge": charge}]}
    chosen = [{"camera": "cam", "source": "mod"}]
    return made(way(), roll(), kit, cameras=[one], plan={"cameras": chosen})


def loop(length: int, seconds: int = 40, hands: str = "stops", **more: Any) -> Doc:
    """A loop on a leg with two moments."""
    moments = [{"name": "wave", "count": 2, "seconds": seconds, "reaction_s": 10}]
    one = camera(**more)
    asked = roll(pattern={"kind": "loop", "length_s": length})
    return made(way(moments=moments, hands=hands), asked, cameras=[one])


def window(event: str, latitude: float) -> Doc:
    """A window of the sun on a summer's day."""
    edges = {
        "opens": {"kind": "sun", "event": event, "plus_min": -60},
        "closes": {"kind": "sun", "event": event, "plus_min": 60},
    }
    asked = roll(pattern={"kind": "windows", "windows": [edges]})
    day = [leg("way", 20 * HOUR)]
    return made(day, asked, trip={"place": {"latitude": latitude, "longitude": 0.0}})


def copying(wipe: str = "no", free_gb: float = 500, seconds: int = 4 * HOUR, **more: Any) -> Doc:
    """Rolled, then copied to a drive at a stop."""
    copy = {"item": "s", "camera": "cam", "drive": "d", "wipe": wipe}
    items = [*way(), stop("s", seconds)]
    plan = {"copies": [copy | more]}
    return made(items, roll(), {"drives": [DRIVE | {"free_gb": free_gb}]}, plan=plan)


def two(**more: Any) -> Doc:
    """Two cameras that both film."""
    one, other = camera("cam", **more), camera("two", **more)
    items = [leg("way", 600)]
    asked = [asks("cam", "way"), asks("two", "way")]
    return made(items, asked, cameras=[one, other], batteries=[battery(), battery("a2")])


def called_alike() -> Doc:
    """Two cameras of one name."""
    made_of = two()
    made_of["kit"]["cameras"][1]["name"] = "CAM"
    return made_of


def in_mode(trip: Doc | None = None, items: list[Doc] | None = None, **more: Any) -> Doc:
    """Rolled in a mode of its own."""
    one = camera(modes=[mode(**more)])
    return made(items or way(), roll(), cameras=[one], trip=trip)


def with_moment() -> list[Doc]:
    """A leg with a moment that must be had."""
    moment = {"name": "launch", "count": 1, "seconds": 60, "importance": "must"}
    return [leg("way", HOUR, moments=[moment])]


def clocks(*opens: str) -> Doc:
    """Windows of an hour by the clock, on a leg from 06:00 to 12:00."""
    windows = [
        {
            "opens": {"kind": "clock", "at": at},
            "closes": {"kind": "clock", "at": f"{int(at[:2]) + 1:02d}:00"},
        }
        for at in opens
    ]
    return made([leg("way", 6 * HOUR)], roll(pattern={"kind": "windows", "windows": windows}))


def called(trigger: str, **more: Any) -> Doc:
    """An armed camera that waits for something."""
    pattern = {"kind": "armed", "count": 1, "seconds": 20, "trigger": trigger}
    return made(way(), roll(pattern=pattern), cameras=[camera(**more)])


def long_loop(gb: int) -> Doc:
    """Twenty minutes of a loop of an hour, 9.1 GB, on a card."""
    pattern = {"kind": "loop", "length_s": HOUR}
    return made([leg("way", 1200)], roll(pattern=pattern), cards=[card("k1", gb=gb)])


HELD = {"cameras": [{"camera": "cam", "mount": "hand_held"}]}
BOTH = [asks("cam", "way"), asks("two", "way")]
DRIFTS = camera("two", clock_drift_s_per_day=2.0)
RADIO = {"cameras": [{"camera": "cam", "radio_left_on": True}]}
FULL_BY = {"full_by": [{"unit": "a1", "at": "2027-06-12T06:05:00"}]}
LARGE = {"id": "a", "name": "A", "mah": 30_000, "nominal_v": 3.8}
TOO_COLD = [leg("way", 2 * HOUR, **COLD)]
WET = [camera(set_ups=[set_up(water="splash")])]
BARE_STOP = [stop("s", HOUR), leg("way", HOUR)]
PLUG_THERE = {"plugs": [{"unit": "a1", "item": "s"}]}


def on_chest(known: Doc, set_up_more: Doc | None = None, **more: Any) -> Doc:
    """Rolled on the chest for ten minutes, with what is known of that mount and set-up."""
    one = camera(
        mounts=[{"mount": "chest", **known}],
        set_ups=[set_up(**(set_up_more or {}))],
        charges_in_w=5.0,
    )
    worn = {"cameras": [{"camera": "cam", "mount": "chest", "source": "bank"}]}
    return made(way(**more), roll(), {"sources": [BANK]}, cameras=[one], plan=worn)


def preset(**more: Any) -> Doc:
    """Rolled with a preset that steadies the picture, where the camera steadies up to 1080."""
    steady = {"stabilised": "on", "width_px": 1920, "height_px": 1080, "fps": 60}
    own = {"id": "p", "slot": 1, "name": "P", "mode": "m", **more}
    one = camera(presets=[own], steadies=[steady])
    return raw(way(), roll(preset="p"), [one])


def frames(**more: Any) -> Doc:
    """A frame every two seconds."""
    return raw(way(), roll(pattern={"kind": "interval", "every_s": 2, "frame_mb": 6, **more}))


def offered(**more: Any) -> Doc:
    """A loop of 60 s in five segments, on a camera that has some."""
    pattern = {"kind": "loop", "length_s": 60, "saves": 1, **more}
    one = camera(loops=[{"length_s": 60, "segment_s": 12}, {"length_s": 300, "segment_s": 60}])
    return raw(way(), roll(pattern=pattern), [one])


UNDER = {"water": "under", "depth_m": 10.0, "under_min": 9.0}
DIVES = {"wet": "under", "depth_m": 12.0}
STICK = [asks("cam", "one", mount="chest"), asks("cam", "way", mount="hand_held")]


def spends(first: str) -> Doc:
    """An hour and 40 min on one battery of 85 min: the second leg is a must."""
    items = [leg("one", HOUR), leg("way", 2400)]
    return raw(items, [asks("cam", "one", importance=first), asks("cam", "way", importance="must")])


CARD_HERE = {"card_swaps": [{"camera": "cam", "item": "way", "card": "k2"}]}
TWO_CARDS = [card("k1"), card("k2")]
CASES: list[tuple[str, Doc, Doc]] = [
    ("nicer_spends_it", spends("nice"), spends("must")),
    (
        "manual_card_not_possible",
        raw(way(), roll(), cards=TWO_CARDS, plan=CARD_HERE),
        raw(way(hands="free"), roll(), cards=TWO_CARDS, plan=CARD_HERE),
    ),
    ("mount_holds_shorter", on_chest({"holds_min": 9}), on_chest({"holds_min": 10})),
    ("mount_too_warm", on_chest({"holds_to_c": 24}), on_chest({"holds_to_c": 25})),
    ("mount_sees_elsewhere", on_chest({"sees": "hands"}), on_chest({"sees": "sight"})),
    ("mount_in_the_picture", on_chest({"seen_over": "a strap"}), on_chest({})),
    (
        "mount_covers_port",
        on_chest({"covers": ["port"]}, {"power": "outside"}),
        on_chest({"covers": ["port"]}),
    ),
    ("too_deep", on_chest({}, UNDER, **DIVES), on_chest({}, UNDER, wet="under", depth_m=10.0)),
    (
        "too_long_under",
        on_chest({}, UNDER, wet="under"),
        on_chest({}, UNDER | {"under_min": 10.0}, wet="under"),
    ),
    ("not_steadied", preset(), preset(stabilised="off")),
    ("loop_not_offered", offered(segments=6), offered(segments=5)),
    ("frames_come_too_fast", frames(exposure_s=1.5, writing_s=1), frames(exposure_s=1.5)),
    (
        "no_time_to_move",
        raw([leg("one", 600), *way()], STICK),
        raw([leg("one", 600), stop("s", 60), *way()], STICK),
    ),
    ("manual_plug_not_possible", raw(BARE_STOP, roll(), plan=PLUG_THERE), raw(BARE_STOP, roll())),
    ("cold_holds_charge", raw(TOO_COLD, roll()), raw([leg("way", 2 * HOUR)], roll())),
    (
        "charge_refused_cold",
        made([stop("s", HOUR, socket={"watts": 20}), leg("way", 4 * HOUR, **COLD)],
             [asks("cam", "s")],
             {"chargers": [CHARGER], "sources": [BANK]},
             batteries=[battery(), battery("a2", charge=0.1)]),
        stays({"watts": 20}),
    ),
    (
        "charge_refused_hot",
        made([stop("s", HOUR), leg("way", 4 * HOUR, **HOT)],
             [asks("cam", "s")],
             {"chargers": [CHARGER], "sources": [BANK]},
             batteries=[battery(), battery("a2", charge=0.1)]),
        stays({"watts": 20}),
    ),
    ("cold_to_charge", stays({"watts": 20}, **COLD), stays({"watts": 20})),
    ("unattended_charging", stays({"watts": 20}, asleep={"start_s": 600, "duration_s": HOUR}),
     stays({"watts": 20}, charge=1.0, asleep=SLEEPS)),
    ("reserve_touched",
     made([leg("way", 20 * HOUR)], [], {
         "sources": [BANK | {"charge": 0.5, "reserve_wh": 15}],
         "loads": [{"id": "lamp", "name": "Lamp", "wh_per_day": 20}]}),
     made([leg("way", 20 * HOUR)], [], {
         "sources": [BANK | {"reserve_wh": 5}],
         "loads": [{"id": "lamp", "name": "Lamp", "wh_per_day": 5}]})),
    ("bank_switched_off", fed(), fed(stays_on=True)),
    ("no_outside_source", fed(None), fed()),
    ("full_by_missed", made(way(), [], batteries=[battery(charge=0.4)], plan=FULL_BY),
     made(way(), [], plan=FULL_BY)),
    ("air_carriage", made(way(), [], family=LARGE, plan={"by_air": True}),
     made(way(), [], plan={"by_air": True})),
    ("radio_left_on",
     made([leg("way", 30 * HOUR)], [], plan=RADIO),
     made(way(), [], plan=RADIO)),
    ("hot_housing", in_mode(rise_k=40.0, items=[leg("way", 2 * HOUR)]), in_mode(rise_k=10.0)),
    ("mode_cannot_loop",
     made(way(), roll(pattern={"kind": "loop", "length_s": 60}),
          cameras=[camera(modes=[mode(loops=False)])]), loop(120)),
    ("loop_too_short", loop(60), loop(63)),
    ("save_comes_too_late", loop(120, hands="never"),
     loop(120, hands="never", answers_to=["voice"])),
    ("window_never_opens", window("sunset", 75.0), window("sunset", 44.0)),
    ("draw_assumed", in_mode(draw={"kind": "not_known"}), in_mode()),
    ("names_alike", called_alike(), two()),
    ("window_stays_shut", clocks("08:00", "20:00"), clocks("08:00")),
    ("trigger_never_comes", called("voice"), called("voice", answers_to=["voice"])),
    ("loop_larger_than_card", long_loop(4), long_loop(16)),
    ("card_below_class", wants_class("V60"), wants_class("V30")),
    ("module_unused", with_base(), with_base(power="outside")),
    ("never_charged", sealed(None), sealed(5.0)),
    ("takes_where_no_hand",
     raw(way(hands="never"), roll(pattern=takes(10, count=2))),
     raw(way(hands="stops"), roll(pattern=takes(10, count=2)))),
    ("clip_limit_stops",
     made(way(), roll(),
          cameras=[camera(continues_after_clip=False, modes=[mode(clip_limit_s=120)])]),
     in_mode(clip_limit_s=120)),
    ("slower_than_delivery", in_mode(fps=24), in_mode(fps=25)),
    ("no_sound_in_slow_motion", in_mode(sound=False), in_mode(fps=60)),
    ("dark_for_frame_rate",
     in_mode({**HERE, "start": "2027-06-12T23:30:00"}, fps=120), in_mode(HERE, fps=120)),
    ("filter_for_half_interval",
     in_mode({**HERE, "start": "2027-06-12T12:00:00"}),
     in_mode({**HERE, "start": "2027-06-12T23:30:00"})),
    ("water_against_set_up", raw(way(wet="splash"), roll()),
     raw(way(wet="splash"), roll(), cameras=WET)),
    ("mount_against_activity",
     raw(way(activity="descent"), roll(),
         plan=HELD),
     raw(way(activity="walk"), roll(), plan=HELD)),
    ("one_copy_only", made(way(), roll(), {"drives": [DRIVE]}), copying()),
    ("copy_not_finished", copying(free_gb=0.1), copying()),
    ("copy_never_begun", copying(seconds=20), copying()),
    ("wiped_with_one_copy", copying("anyway"), copying("no")),
    ("moment_not_expected", made(with_moment(), roll(pattern=takes(60, count=1))),
     made(with_moment(), roll())),
    ("clock_not_set", made(way(), roll(), cameras=[camera(clock_set=False)]),
     made(way(), [], cameras=[camera(clock_set=False)])),
    ("clocks_drift_apart",
     made([leg("way", 2 * 86_400)], BOTH, cameras=[camera(), DRIFTS]),
     made(way(), BOTH,
          cameras=[camera(), camera("two", clock_drift_s_per_day=2.0)])),
    ("gear_dies", made(way(), roll(), {"gear": [MIC | {"charge": 0.0}]}),
     made(way(), roll(), {"gear": [MIC]})),
    ("chain_breaks", on_module(0.05), on_module(1.0)),
    ("file_names_collide", two(file_prefix="CLIP"), two(file_prefix="")),
]  # fmt: skip


def of_code(document: Doc, code: str) -> list[Any]:
    told = rehearse(PlanDocument.model_validate(document))
    return [finding for finding in told.findings if finding.code == code]


@pytest.mark.parametrize(("code", "fires", "quiet"), CASES, ids=[case[0] for case in CASES])
def test_a_finding_fires_where_it_should_only(code: str, fires: Doc, quiet: Doc) -> None:
    found = of_code(fires, code)
    assert found
    assert found[0].severity == CHECKS[code].severity
    assert found[0].text
    assert "{" not in found[0].text
    assert not of_code(quiet, code)


def test_every_check_has_a_case_of_its_own() -> None:
    """Twelve stand in one other file, ten in that of angles and settings, one beside budgets.

    Those of our own faults stand with the ledgers.
    """
    assert len(CHECKS) == len(CASES) + 12 + 10 + 1 + 2
    assert len(codes(rehearse(PlanDocument.model_validate(fed())))) >= 1
