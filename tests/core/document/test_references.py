"""What a plan names stands in one table: every field of the schema, every row of the table."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest

from tests.build import asks, battery, camera, card, leg, raw, stop
from tumbrel.core.document import BadDocument, PlanDocument, parse_document
from tumbrel.core.document.base import Key
from tumbrel.core.document.plan import Plan
from tumbrel.core.document.references import REFERS, Refers, named_in, without_missing
from tumbrel.core.document.units import units_of
from tumbrel.core.route.correcting import Merged, corrected

KEY = Key.__metadata__[0].pattern  # type: ignore[attr-defined]
ALL = pytest.mark.parametrize("refers", REFERS, ids=lambda one: f"{one.rows}.{one.field}")


def keys_of_schema() -> Iterator[tuple[str, ...]]:
    """The path of every field of a plan that holds a key, by its schema."""
    schema = Plan.model_json_schema()

    def walk(part: Any, path: tuple[str, ...]) -> Iterator[tuple[str, ...]]:
        if "$ref" in part:
            yield from walk(schema["$defs"][part["$ref"].rpartition("/")[2]], path)
        if part.get("pattern") == KEY:
            yield path
        for name, field in part.get("properties", {}).items():
            yield from walk(field, (*path, name))
        for word in ("anyOf", "oneOf", "allOf", "prefixItems"):
            for other in part.get(word, ()):
                yield from walk(other, path)
        if isinstance(part.get("items"), dict):
            yield from walk(part["items"], path)

    yield from walk(schema, ())


def test_every_key_of_a_plan_is_in_the_table() -> None:
    found = set(keys_of_schema())
    assert len(found) > 20
    assert found == {(refers.rows, refers.field) for refers in REFERS}


def wired() -> dict[str, Any]:
    """A plan with a row for every way of naming; each unit but a camera is named in one way."""
    document = raw(
        [stop("camp", 3600), leg("way", 3600), stop("end", 3600)],
        [asks("cam", "way")],
        cameras=[camera("cam"), camera("eye"), camera("ear")],
        batteries=[battery(name) for name in ("in", "spare", "plugged", "wished", "a4", "a5")],
        cards=[card(name) for name in ("k-in", "k-swap", "k-copy")],
        plan={
            "cameras": [{"camera": "cam", "battery": "in", "card": "k-in", "source": "slab"}],
            "swaps": [{"camera": "cam", "item": "camp", "battery": "spare"}],
            "card_swaps": [{"camera": "cam", "item": "camp", "card": "k-swap"}],
            "plugs": [{"unit": "plugged", "item": "camp", "to": "bay", "place": 2}],
            "gear": [{"gear": "mic", "item": "way"}],
            "full_by": [{"unit": "wished", "at": "2027-06-12T06:30:00"}],
            "copies": [
                {"item": "camp", "camera": "cam", "drive": "disk"},
                {"item": "end", "card": "k-copy", "drive": "disk"},
            ],
            "links": [{"cameras": ["cam", "eye", "ear"]}],
        },
    )
    document["kit"] |= {
        "sources": [{"kind": "bank", "id": "slab", "name": "Slab", "mah": 10_000}],
        "drives": [{"id": "disk", "name": "Disk", "free_gb": 500}],
        "chargers": [{"id": "bay", "name": "Bay", "bays": 2, "families": ["a"]}],
        "gear": [{"id": "mic", "name": "Mic", "wh": 4.0, "use_w": 1.0}],
    }
    return document


LISTS = {"camera": ["cameras"], "battery": ["batteries"], "card": ["cards"], "drive": ["drives"],
         "source": ["sources"], "gear": ["gear"], "unit": ["batteries"],
         "power": ["chargers"]}  # fmt: skip


def less(document: dict[str, Any], refers: Refers, name: str) -> dict[str, Any]:
    """The document as loaded, without what a row names."""
    if refers.names == "item":
        document["trip"]["items"] = [one for one in document["trip"]["items"] if one["id"] != name]
    for kind in LISTS.get(refers.names, ()):
        document["kit"][kind] = [one for one in document["kit"][kind] if one["id"] != name]
    return document


@ALL
def test_what_is_named_cannot_be_missing_and_goes_as_the_table_says(refers: Refers) -> None:
    whole = parse_document(wired())
    mine = [one for one in named_in(whole.plan) if one.by == refers]
    if refers.field == "preset":
        assert mine == []  # nothing in the plan names one; it stays in any case
        return
    name = mine[0].name
    if refers.gone == "stays":
        assert without_missing(whole.plan, {refers.names: ()}) == whole.plan
        return
    broken = less(wired(), refers, name)
    with pytest.raises(BadDocument) as refused:
        parse_document(broken)
    assert f"'{name}' is not in the document" in str(refused.value)
    trip = broken["trip"]["items"]
    left = {kind: set(keys) - {name} for kind, keys in units_of(whole.kit).items()}
    plan = without_missing(whole.plan, {**left, "item": {one["id"] for one in trip}})
    after = parse_document(broken | {"plan": plan.model_dump(mode="json")}).plan
    before, rows = getattr(whole.plan, refers.rows), getattr(after, refers.rows)
    if refers.gone == "row":
        assert len(rows) < len(before)
    elif refers.gone == "one":
        assert rows[0].cameras == before[0].cameras[1:]
    else:
        emptied = dict.fromkeys((refers.field, *refers.too))
        assert rows == (before[0].model_copy(update=emptied), *before[1:])


def test_a_link_goes_when_fewer_than_two_of_it_are_left() -> None:
    whole = parse_document(wired())
    assert without_missing(whole.plan, {"camera": {"cam"}}).links == ()
    assert without_missing(whole.plan, {"camera": {"cam", "ear"}}).links[0].cameras == (
        "cam",
        "ear",
    )


@pytest.mark.parametrize("on_both", [False, True])
def test_gear_of_a_merged_leg_is_used_on_the_whole(on_both: bool) -> None:
    used = [{"gear": "mic", "item": "second"}]
    if on_both:
        used.append({"gear": "mic", "item": "first"})
    document = raw(
        [leg("first", 3600), stop("halt", 600), leg("second", 1800)],
        [asks("cam", "first"), asks("cam", "second")],
        plan={
            "gear": used,
            "plugs": [{"unit": "mic", "item": "halt"}],
        },
    )
    document["kit"]["gear"] = [{"id": "mic", "name": "Mic", "wh": 4.0, "use_w": 1.0}]
    whole = PlanDocument.model_validate(document)
    done = corrected(whole.trip, whole.plan, Merged(item="first"))
    after = whole.model_copy(update={"trip": done.trip, "plan": done.plan})
    parse_document(after.model_dump(mode="json"))  # it can be kept
    assert [(one.gear, one.item) for one in done.plan.gear] == [("mic", "first")]
    assert done.plan.plugs == ()
