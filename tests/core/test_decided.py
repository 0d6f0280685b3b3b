"""What the rules leave open is decided as a person would want it, and written down (docs/model)."""

from __future__ import annotations

from typing import Any

import pytest

from tests.build import (
    asks,
    battery,
    camera,
    card,
    document,
    gaps,
    leg,
    mode,
    only,
    played,
    raw,
    rehearsed,
    set_up,
    stop,
)
from tumbrel.core.document import Interval, PlanDocument
from tumbrel.core.heat import body_of, shedding
from tumbrel.core.parameters import DEFAULTS
from tumbrel.core.patterns import frame_takes_ms
from tumbrel.core.rehearsal.camera.turns import ARMED
from tumbrel.core.report import rehearse

HOUR = 3600
LOOP = {"kind": "loop", "length_s": 60, "saves": 0}
FRAMES = {"kind": "interval", "every_s": 60, "frame_mb": 5}


def borders(first: Any, second: Any, **more: Any) -> list[tuple[str, int, int]]:
    """The gaps of ten minutes of one pattern and ten of another, at once after it."""
    one = camera(boot_s=5, **more)
    items = [leg("one", 600, hands="never"), leg("two", 600, hands="never")]
    asked = [asks("cam", "one", pattern=first), asks("cam", "two", pattern=second)]
    return gaps(only(rehearsed(items, asked, [one])))


def test_patterns_of_one_stream_go_on_over_a_border_and_others_are_started_anew() -> None:
    """Source: model/patterns#asked."""
    roll = {"kind": "roll"}
    assert borders(roll, roll) == [("boot", 0, 5_000)]
    alone = {"starts_itself": True}
    assert borders(roll, LOOP, **alone) == [("boot", 0, 5_000)]  # it loops what it records on
    assert borders(LOOP, roll, **alone) == [("boot", 0, 5_000), ("boot", 600_000, 605_000)]
    assert ("no_start", 600_000, 1_200_000) in borders(LOOP, roll)  # and no hand is there


def test_a_camera_that_stopped_at_its_longest_clip_waits_for_a_later_press() -> None:
    """A stretch that touches brings no press; one after a pause does (model/hands#who-presses)."""
    one = camera(modes=[mode(clip_limit_s=300)], continues_after_clip=False)
    both = [asks("cam", "one"), asks("cam", "two")]
    touching = rehearsed([leg("one", 600), leg("two", 600)], both, [one])
    assert gaps(only(touching)) == [("clip_limit", 300_000, 600_000),
                                    ("clip_limit", 600_000, 1_200_000)]  # fmt: skip
    apart = rehearsed([leg("one", 600), leg("rest", 60), leg("two", 600)], both, [one])
    assert gaps(only(apart)) == [("clip_limit", 300_000, 600_000),
                                 ("clip_limit", 960_000, 1_260_000)]  # fmt: skip


def test_frames_count_from_where_the_run_begins() -> None:
    """Cells swapped by free hands at half time: frames go on a minute apart from there.

    Source: model/patterns#asked.
    """
    made = raw([leg("way", HOUR, hands="free")], [asks("cam", "way", pattern=FRAMES)],
               [camera(boot_s=4, modes=[mode(watts=9.0)])],
               [battery("a1", charge=0.05), battery("a2")],
               plan={"swap_policy": "run_flat"})  # fmt: skip
    run = played(PlanDocument.model_validate(made)).cameras[0]
    runs = list(run.recorder.kept)
    assert len(runs) > 1
    for one in runs:
        expected = -(-(one.end_ms - one.start_ms) // 60_000)
        assert one.frames == expected


def test_an_armed_camera_draws_its_armed_watts_and_all_of_them_to_keep_what_came_before() -> None:
    """Source: model/patterns#asked."""
    armed = {"kind": "armed", "count": 1, "seconds": 60}
    for watts, before_s, drawn_w in ((1.0, 0, 1.0), (None, 0, 0.4), (1.0, 10, 4.0)):
        one = camera(armed_w=watts, standby_w=0.4)
        asked = [asks("cam", "way", pattern=armed | {"pre_record_s": before_s})]
        run = played(document([leg("way", HOUR)], asked, [one])).cameras[0]
        assert ARMED in run.trace.state
        film_s = 60 + before_s
        wh = (4.0 * film_s + drawn_w * (HOUR - film_s)) / HOUR
        assert run.energy.used_wh == pytest.approx(wh, rel=1e-3)


def test_a_camera_that_saves_its_loop_draws_as_when_it_records() -> None:
    """Source: model/patterns#asked."""
    asked = [asks("cam", "way", pattern=LOOP | {"saves": 20})]
    run = played(document([leg("way", HOUR)], asked)).cameras[0]
    assert len(run.time.gaps) == 20
    assert run.energy.used_wh == pytest.approx(4.0, rel=1e-6)


@pytest.mark.parametrize(
    ("exposure_s", "writing_s", "takes_ms"),
    [(None, None, 1000), (None, 3.0, 3000), (20.0, None, 21_000), (20.0, 3.0, 23_000)],
)
def test_what_is_not_said_of_a_frame(
    exposure_s: float | None, writing_s: float | None, takes_ms: int
) -> None:
    """Source: model/patterns#asked."""
    frames = Interval(every_s=60, exposure_s=exposure_s, writing_s=writing_s)
    assert frame_takes_ms(frames, 1000) == takes_ms


def test_the_floor_of_what_sheds_heat_thins_with_the_air() -> None:
    """8,400 m up there is 1/e of the air: e^0.3 of the floor (model/heat#height)."""
    cam = document([leg("way", 60)], [asks("cam", "way")]).kit.cameras[0]
    body = body_of(cam, cam.set_ups[0], DEFAULTS)
    low, high = (shedding(body, 100.0, height_m) for height_m in (0.0, 8400.0))
    assert low == DEFAULTS.least_g.value
    assert high / low == pytest.approx(2.718281828**0.3)


def test_of_one_camera_the_swap_comes_before_the_move() -> None:
    """Both are due as the stop begins: the door is open as it sits (model/hands#tasks)."""
    ways = [set_up(), set_up("cased", door_blocked_s=300.0)]
    one = camera(set_ups=ways, move_s=60.0)
    items = [leg("one", 4500), stop("halt", 1800), leg("two", HOUR)]
    asked = [asks("cam", "one"), asks("cam", "two", set_up="cased")]
    told = rehearsed(items, asked, [one], [battery("a1"), battery("a2")])
    kinds = [move.kind for move in told.moves if move.kind in ("swap", "move")]
    assert kinds == ["swap", "move"]
    swap = next(move for move in told.moves if move.kind == "swap")
    assert swap.end_ms - swap.at_ms == 30_000


def test_a_camera_that_is_never_asked_leaves_the_bag_to_the_others() -> None:
    """One card, one battery, and an idle camera first in the kit (model/hands#fit)."""
    idle, cam = camera("idle"), camera("cam")
    told = rehearsed([leg("way", 600)], [asks("cam", "way")], [idle, cam],
                     [battery("a1")], [card("k1")])  # fmt: skip
    assert told.cameras[1].filmed_ms == 600_000
    built_in = camera("idle", battery_comes_out=False)
    made = document([leg("way", 600)], [asks("cam", "way")], [built_in, cam],
                    [battery("a1")], [card("k1")])  # fmt: skip
    assert rehearse(made).cameras[1].filmed_ms == 0  # its own stays in it
