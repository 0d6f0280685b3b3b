"""Properties that hold for any small plan (hypothesis)."""

from __future__ import annotations

import itertools
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.build import asks, battery, camera, card, leg, mode, raw, set_up, stop, takes
from tumbrel.core.document import PlanDocument
from tumbrel.core.rehearsal.result.result import Rehearsal
from tumbrel.core.report import rehearse

MORE_MS = 4  # two roots rounded up, and the self-discharge of a wait

seconds = st.integers(60, 4 * 3600)
patterns = st.one_of(
    st.just({"kind": "roll"}),
    st.builds(takes, st.integers(5, 600), count=st.integers(1, 12)),
    st.builds(takes, st.integers(5, 120), per_hour=st.integers(1, 20)),
)
modes = st.builds(
    mode,
    watts=st.floats(0.5, 12.0),
    mbps=st.floats(4.0, 200.0),
    rise_k=st.floats(0.0, 90.0),
    clip_limit_s=st.none() | st.integers(60, 3600),
)
cameras = st.builds(
    camera,
    modes=st.tuples(modes).map(list),
    boot_s=st.sampled_from([0, 2, 5]),
    starts_itself=st.booleans(),
    continues_after_clip=st.booleans(),
    set_ups=st.builds(set_up, swap_s=st.integers(0, 90), hot_swap=st.booleans()).map(
        lambda one: [one]
    ),
)
air = st.sampled_from([0.0, 0.5, 2.0, 9.0])
temperature = st.floats(-15.0, 42.0)


@st.composite
def items(draw: st.DrawFn) -> list[dict[str, Any]]:
    """One to five legs and stops."""
    made = []
    for number in range(draw(st.integers(1, 5))):
        temps = {"temp_start_c": draw(temperature), "temp_end_c": draw(temperature)}
        if draw(st.booleans()):
            made.append(stop(f"s{number}", draw(st.integers(10, 5000)), **temps))
        else:
            hands = draw(st.sampled_from(["free", "stops", "never"]))
            made.append(leg(f"l{number}", draw(seconds), hands=hands, air_mps=draw(air), **temps))
    return made


@st.composite
def plans(draw: st.DrawFn) -> dict[str, Any]:
    """One or two cameras with spares, asked on some of the way."""
    way = draw(items())
    kit = [camera("cam") | draw(cameras), camera("two") | draw(cameras)][: draw(st.integers(1, 2))]
    for number, one in enumerate(kit):
        one["id"] = ("cam", "two")[number]
    asked = [
        asks(
            one["id"],
            item["id"],
            pattern=draw(patterns),
            importance=draw(st.sampled_from(["must", "want", "nice"])),
        )
        for one in kit
        for item in way
        if draw(st.booleans())
    ]
    charges = draw(st.lists(st.floats(0.0, 1.0), min_size=1, max_size=4))
    sizes = draw(st.lists(st.sampled_from([4, 32, 128]), min_size=1, max_size=3))
    between = [
        {"camera": one["id"], "between": draw(st.sampled_from(["off", "standby", "on"]))}
        for one in kit
    ]
    return raw(
        way,
        asked,
        cameras=kit,
        batteries=[battery(f"a{n}", charge=charge) for n, charge in enumerate(charges)],
        cards=[card(f"k{n}", gb=size) for n, size in enumerate(sizes)],
        plan={
            "cameras": between,
            "swap_policy": draw(st.sampled_from(["early", "run_flat"])),
        },
    )


def told(parts: dict[str, Any]) -> Rehearsal:
    return rehearse(PlanDocument.model_validate(parts))


@settings(max_examples=150)
@given(plans())
def test_ledgers_balance_and_spans_are_in_order(parts: dict[str, Any]) -> None:
    """The three ledgers raise inside; spans never overlap and lie in what was asked."""
    result = told(parts)
    for one in result.cameras:
        spans = sorted(
            [(s.start_ms, s.end_ms) for s in one.filmed]
            + [(g.start_ms, g.end_ms) for g in one.gaps]
        )
        assert all(start < end for start, end in spans)
        assert all(a[1] <= b[0] for a, b in itertools.pairwise(spans))
        assert sum(end - start for start, end in spans) == one.asked_ms
        assert one.hottest_c <= one.stop_c + 0.02 or one.course.body_c[0] > one.stop_c


@settings(max_examples=60)
@given(plans())
def test_hands_do_one_thing_at_a_time_and_only_where_they_are_free(parts: dict[str, Any]) -> None:
    result = told(parts)
    tasks = [m for m in result.moves if m.kind in ("swap", "card", "restart")]
    assert all(a.end_ms <= b.at_ms for a, b in itertools.pairwise(tasks))
    free = {item.id for item in result.items if item.hands_free}
    assert all(move.item in free for move in tasks)


@settings(max_examples=60)
@given(plans())
def test_a_battery_or_card_is_in_one_place(parts: dict[str, Any]) -> None:
    result = told(parts)
    for pool in (*result.batteries, *result.cards):
        edges = [(stay.start_ms, stay.end_ms) for stay in pool.stays]
        assert edges[0][0] == 0
        assert edges[-1][1] == result.duration_ms
        assert all(a[1] == b[0] for a, b in itertools.pairwise(edges))


@settings(max_examples=40)
@given(plans(), st.randoms(use_true_random=False))
def test_the_order_of_assignments_changes_nothing(parts: dict[str, Any], random: Any) -> None:
    before = told(parts)
    random.shuffle(parts["plan"]["assignments"])
    after = told(parts)
    assert before.verdict.filmed_ms == after.verdict.filmed_ms
    assert before.ledgers == after.ledgers


def rolled(parts: dict[str, Any], **more: Any) -> int:
    """Filmed ms of one rolling camera on one leg [ms]."""
    one = camera(modes=[mode(watts=parts["watts"], mbps=parts["mbps"], rise_k=parts["rise"])])
    way = [leg("way", parts["seconds"], air_mps=parts["air"], temp_start_c=26, temp_end_c=26)]
    units = {"batteries": [battery(charge=parts["charge"])], "cards": [card(gb=parts["gb"])]}
    return told(raw(way, [asks("cam", "way")], cameras=[one], **units, **more)).verdict.filmed_ms


singles = st.fixed_dictionaries(
    {
        "watts": st.floats(0.5, 10.0),
        "mbps": st.floats(4.0, 200.0),
        "rise": st.floats(0.0, 90.0),
        "air": air,
        "charge": st.floats(0.05, 0.95),
        "gb": st.sampled_from([8, 32, 64]),
        "seconds": st.integers(600, 5 * 3600),
    }
)


@settings(max_examples=40)
@given(singles)
def test_more_never_films_less(parts: dict[str, Any]) -> None:
    """A fuller or bigger battery, a larger card, more air, a lower draw: never fewer minutes.

    In air of 26 degC, where the cold hides nothing: in colder air, more of it cools the cell.
    """
    least = rolled(parts) - MORE_MS
    assert rolled({**parts, "charge": 1.0}) >= least
    assert rolled({**parts, "gb": 512}) >= least
    assert rolled({**parts, "air": parts["air"] + 3.0}) >= least
    assert rolled({**parts, "watts": parts["watts"] * 0.8}) >= least
    bigger = {"id": "a", "name": "A", "mah": 3000, "nominal_v": 3.8}
    assert rolled(parts, family=bigger) >= least


@settings(max_examples=40)
@given(singles, st.floats(0.1, 0.9))
def test_splitting_a_rolled_leg_changes_nothing(parts: dict[str, Any], share: float) -> None:
    """The same air all along, so that the steps of conditions do not differ."""
    whole_s = parts["seconds"]
    first_s = max(1, int(whole_s * share))
    one = camera(modes=[mode(watts=parts["watts"], mbps=parts["mbps"], rise_k=parts["rise"])])
    units = {"batteries": [battery(charge=parts["charge"])], "cards": [card(gb=parts["gb"])]}

    def filmed(way: list[dict[str, Any]]) -> Rehearsal:
        plan = [asks("cam", item["id"]) for item in way]
        return told(raw(way, plan, cameras=[one], **units))

    joined = filmed([leg("way", whole_s)])
    split = filmed([leg("one", first_s), leg("two", whole_s - first_s)])
    assert abs(split.verdict.filmed_ms - joined.verdict.filmed_ms) <= MORE_MS
    assert abs(split.ledgers.energy_used_wh - joined.ledgers.energy_used_wh) < 1e-4


@settings(max_examples=30)
@given(plans())
def test_the_order_of_cameras_only_settles_ties(parts: dict[str, Any]) -> None:
    """With a battery and a card for each, neither camera takes anything from the other."""
    kit = parts["kit"]
    if len(kit["cameras"]) < 2:
        return
    kit["batteries"] = [battery("a0"), battery("a1")]
    kit["cards"] = [card("k0"), card("k1")]
    own = {"cam": ("a0", "k0"), "two": ("a1", "k1")}
    for one in kit["cameras"]:
        one["battery_comes_out"] = False
        one["memory"] = {"kind": "fixed", "gb": 64}
    parts["plan"]["cameras"] = [
        {"camera": name, "battery": cell} for name, (cell, _) in own.items()
    ]
    before = {c.camera: c.filmed_ms for c in told(parts).cameras}
    kit["cameras"].reverse()
    assert {c.camera: c.filmed_ms for c in told(parts).cameras} == before
