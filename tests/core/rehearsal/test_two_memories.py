"""A camera with memory of its own and a slot: where it writes, and what moves inside it.

Source: model/memory#two.
"""

from __future__ import annotations

from typing import Any

import pytest

from tests.build import asks, camera, card, leg, mode, raw, set_up, stop
from tumbrel.core.document import BadDocument, PlanDocument, parse_document
from tumbrel.core.rehearsal.engine.played import Played, play
from tumbrel.core.rehearsal.trip.prepare import prepare
from tumbrel.core.report import rehearse

Doc = dict[str, Any]
HOUR = 3600
OWN = {"kind": "fixed", "gb": 32, "reserved_gb": 0.0, "speed_mb_s": 90.0}
BUILT = [set_up("bare"), set_up("backed", writes_to="card")]


def made(items: list[Doc], asked: list[Doc], plan: Doc | None = None, **more: Any) -> Doc:
    """A camera of 20 MB/s, whose pack brings a slot."""
    one = camera(
        modes=[mode(watts=0.5, rise_k=0.0, mbps=158.2, audio_mbps=0.0)],
        memory=OWN,
        slot={"kind": "slot", "largest_gb": 256},
        set_ups=BUILT,
        move_s=0.0,
        move_gloved_s=0.0,
        **more,
    )
    return raw(items, asked, [one], cards=[card("k1", gb=128)], plan=plan)


def done(document: Doc) -> Played:
    return play(prepare(PlanDocument.model_validate(document)))


def used(played: Played) -> dict[str, int]:
    return {one.store.id: one.used for one in played.cards}


def test_it_writes_where_it_is_built_to() -> None:
    """Half an hour each, at 19,972,750 B/s, to its own memory and then to the card."""
    items = [leg("out", 1200), leg("on", 1200)]
    played = done(made(items, [asks("cam", "out"), asks("cam", "on", set_up="backed")]))
    rate = played.cameras[0].recorder.written // 2400
    assert rate == pytest.approx(158.2e6 / 8 * 1.01, rel=1e-4)
    assert used(played) == {
        "k1": pytest.approx(1200 * rate, rel=1e-3),
        "cam:memory": pytest.approx(1200 * rate, rel=1e-3),
    }
    assert not played.cameras[0].time.gaps


def test_only_its_own_memory_is_full() -> None:
    """32 GB x 0.985 / 19.97 MB/s is 26.3 min; built with the pack it goes on."""
    told = rehearse(PlanDocument.model_validate(made([leg("way", HOUR)], [asks("cam", "way")])))
    (gap,) = told.cameras[0].gaps
    assert (gap.cause, gap.start_ms / 1000) == (
        "card_full",
        pytest.approx(31.52e9 / 19.97e6, abs=1),
    )
    backed = made([leg("way", HOUR)], [asks("cam", "way", set_up="backed")])
    assert rehearse(PlanDocument.model_validate(backed)).verdict.gap_ms == 0


def test_footage_moves_inside_it_at_20_mb_a_second() -> None:
    """1126.5 s filmed are 22.5 GB: 18 min 45 at 20 MB/s, and nothing is filmed meanwhile."""
    items = [leg("out", 1127), stop("top", HOUR), leg("on", 600)]
    asked = [asks("cam", "out"), asks("cam", "on")]
    plan = {"copies": [{"item": "top", "camera": "cam"}]}
    document = made(items, asked, plan)
    played = done(document)
    (copied,) = played.hands.copying.copied
    rate = played.cameras[0].recorder.written / 1727
    assert copied.bytes == pytest.approx(22.5e9, rel=2e-3)
    assert (copied.end_ms - copied.start_ms) / 1000 == pytest.approx(1125, abs=3)
    assert used(played)["k1"] == copied.bytes
    assert used(played)["cam:memory"] == pytest.approx(600 * rate, rel=1e-3)
    told = rehearse(PlanDocument.model_validate(document))
    assert told.ledgers.bytes_wiped == 0
    at_end = {one.place: one.by_hour_ms[-1] for one in told.at_risk}
    assert at_end["k1"] == pytest.approx(1127_000, abs=1)


def test_what_moved_is_copied_from_the_card() -> None:
    items = [leg("out", 300), stop("top", HOUR), stop("camp", HOUR)]
    inside = {"item": "top", "camera": "cam"}
    onward = {"item": "camp", "card": "k1", "drive": "disk"}
    document = made(items, [asks("cam", "out")], {"copies": [inside, onward]})
    document["kit"]["drives"] = [{"id": "disk", "name": "Disk", "free_gb": 500.0}]
    first, second = done(document).hands.copying.copied
    assert (first.clips, second.clips) == (1, 1)
    assert first.bytes == second.bytes


def test_too_short_a_stop_moves_whole_files_only() -> None:
    items = [leg("out", 300), leg("on", 300), stop("top", 400)]
    asked = [asks("cam", "out", pattern={"kind": "takes", "seconds": 60, "count": 4})]
    plan = {"copies": [{"item": "top", "camera": "cam"}]}
    (copied,) = done(made(items, asked, plan)).hands.copying.copied
    assert copied.clips == 4
    short = [leg("out", 300), stop("top", 150), leg("on", 300)]
    (cut,) = done(made(short, asked, plan)).hands.copying.copied
    assert 0 < cut.clips < 4


@pytest.mark.parametrize(
    ("wrong", "why"),
    [
        ({"memory": {"kind": "slot", "largest_gb": 256}}, "it has a slot already"),
        ({"slot": None}, "has no slot"),
    ],
)
def test_a_slot_twice_or_nowhere_is_refused(wrong: Doc, why: str) -> None:
    document = made([leg("way", 60)], [asks("cam", "way")])
    document["kit"]["cameras"][0].update(wrong)
    with pytest.raises(BadDocument, match=why):
        parse_document(document)
