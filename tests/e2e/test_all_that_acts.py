"""Every button, link, field and handle of the application, worked by mouse and by touch.

They are found in the page; `all_that_acts.json` lists them by where they stand. One that is not
listed fails, as does one that is listed and not there, or that does nothing, or is covered.
After a change of the page this test, run by itself with TUMBREL_WRITE_ACTS=1, writes the list anew;
its difference is what has to be looked at.
"""

from __future__ import annotations

import json
import os
import re
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.acting import acting, works
from tests.e2e.conftest import binned, kept, open_copy, rested
from tools.driving import Server

PLACES = {"board", "kit", "route", "bench", "variants", "card", "trips", "sums"}
LISTED = Path(__file__).with_name("all_that_acts.json")
PRINTS = "window.print = () => { document.body.dataset.printed = String(Math.random()); };"
LAST = re.compile(r"Delete|Forget|Undo|Keep|Leave|×|Close|link |Take", re.I)


def unit(name: str) -> Callable[[Page], None]:
    """Open the sheet of something in the kit."""

    def opens(page: Page) -> None:
        page.get_by_role("button", name=name).first.click()
        page.get_by_role("dialog").wait_for()

    return opens


def unfolded(page: Page) -> None:
    """All that folds, open."""
    page.evaluate("document.querySelectorAll('details').forEach((one) => (one.open = true))")


def camera(page: Page) -> None:
    unit("Camera Chin: edit")(page)
    unfolded(page)


def row(name: str) -> Callable[[Page], None]:
    """Open a leg or stop of the route."""

    def opens(page: Page) -> None:
        page.get_by_role("button", name=name, exact=False).first.click()
        page.locator(".route-fields").first.wait_for()
        unfolded(page)

    return opens


def stretch(page: Page) -> None:
    page.get_by_role("button", name="Sun 13").click()
    page.locator('[data-cell="d2-flight/chin"]').first.click()
    page.get_by_role("group", name="How it records").wait_for()


def press_first(name: str) -> Callable[[Page], None]:
    return lambda page: page.get_by_role("button", name=name).first.click()


def cures(page: Page) -> None:
    press_first("Cures of")(page)
    expect(page.get_by_role("button", name="Stop looking")).to_have_count(0)


def listed(page: Page) -> None:
    page.locator(".trip-list li").first.wait_for()


def whole_trip(page: Page) -> None:
    press_first("For the whole trip")(page)
    page.get_by_role("dialog").wait_for()
    unfolded(page)


SHEET = "[role=dialog]"
STATES: dict[str, tuple[str, str, Callable[[Page], None] | None]] = {
    "head": ("kit", "header", None),
    "board": ("board", "main", None),
    "board, unfolded": ("board", ".board-side", unfolded),
    "board, a stretch": ("board", SHEET, stretch),
    "board, the whole trip": ("board", SHEET, whole_trip),
    "board, cures": ("board", "[role=group][aria-label=Cures]", cures),
    "kit": ("kit", "main", None),
    "kit, a camera": ("kit", SHEET, camera),
    "kit, a mode": ("kit", SHEET, unit("Chin 4K60:")),
    "kit, a battery": ("kit", SHEET, unit("Battery A3")),
    "kit, a family": ("kit", SHEET, unit("Family A")),
    "kit, a card": ("kit", SHEET, unit("K1")),
    "kit, a bank": ("kit", SHEET, unit("Slab 10")),
    "kit, a new camera": ("kit", SHEET, unit("Add a camera")),
    "kit, what serves where": ("kit", SHEET, unit("What serves where")),
    "route": ("route", "main", unfolded),
    "route, a leg": ("route", ".route-fields", row("ridge")),
    "route, a stop": ("route", ".route-fields", row("Ember saddle")),
    "bench": ("bench", "main", None),
    "variants": ("variants", "main", None),
    "card": ("card", "main", None),
    "trips": ("/trips", "main", listed),
    "sums": ("/sums", "main", None),
}


def own_words(document: dict[str, Any]) -> set[str]:
    """Names that are the trip's own."""
    words = {document["trip"]["name"], document["kit_name"]}
    kit = document["kit"]
    lists = [value for value in kit.values() if isinstance(value, list)]
    parts = [cam[name] for cam in kit["cameras"] for name in ("modes", "set_ups", "presets")]
    named = [*lists, *parts, document["trip"]["items"], document["trip"]["ways"]]
    named += [item["moments"] for item in document["trip"]["items"]]
    words |= {one["name"] for some in named for one in some if one.get("name")}
    return {word for word in words if word}


def fresh_trip(page: Page, server: Server, demo_text: bytes, state: str) -> str:
    """A trip that nobody has changed, and for the list of trips another one in the bin."""
    if state == "trips":
        binned(page, server, open_copy(page, server, demo_text))
    return open_copy(page, server, demo_text)


def opened(page: Page, server: Server, trip: str, state: str) -> None:
    place, _, more = STATES[state]
    if place.startswith("/"):
        page.goto(f"{trip}/kit")  # the trip that one comes from
        rested(page)
    page.goto(f"{server.address}{place}" if place.startswith("/") else f"{trip}/{place}")
    rested(page)
    if more is not None:
        more(page)
        rested(page)


def all_there(page: Page, within: str, own: set[str], wanted: list[str]) -> dict[str, int]:
    """What acts, when all that is wanted is there; or as it is after a while."""
    for _ in range(40):
        found = acting(page, within, own)
        if sorted(found) == wanted:
            break
        page.wait_for_timeout(500)
    return found


def all_worked(
    page: Page, server: Server, demo_text: bytes, state: str, wanted: list[str], *, touch: bool
) -> tuple[list[str], dict[str, str]]:
    """What acts in a state, and what of it does nothing or cannot be reached, with why."""
    trip = fresh_trip(page, server, demo_text, state)
    own = own_words(kept(page, trip))
    opened(page, server, trip, state)
    within = STATES[state][1]
    found = all_there(page, within, own, wanted)
    where = page.url
    wrong = {}
    for kind in sorted(found, key=lambda one: (LAST.search(one) is not None, one)):
        came = ""
        for again in (False, True):  # once more, on a trip that nobody has changed
            if again:
                trip = fresh_trip(page, server, demo_text, state)
                own |= own_words(kept(page, trip))
            if again or page.url != where:
                opened(page, server, trip, state)
                where = page.url
            now = acting(page, within, own)
            try:
                came = works(page, kind, now[kind], touch=touch) if kind in now else ""
            except AssertionError as error:
                wrong[kind] = str(error)
            if came:
                wrong.pop(kind, None)
                break
        if not came:
            wrong.setdefault(kind, "did nothing" if kind in now else "was not there again")
    return sorted(found), wrong


@pytest.mark.parametrize("state", STATES)
@pytest.mark.parametrize("hand", ["mouse", "finger"])
def test_all_that_acts_is_listed_and_does_something(
    request: pytest.FixtureRequest, server: Server, demo_text: bytes, state: str, hand: str
) -> None:
    page: Page = request.getfixturevalue("page" if hand == "mouse" else "phone")
    if state == "trips":  # what other tests left on theirs is not to be deleted here
        server = request.getfixturevalue("empty_server")
        server.enter(page.context)
    page.add_init_script(PRINTS)
    listed = json.loads(LISTED.read_text("utf-8"))
    wanted = listed[hand].get(state, [])
    found, wrong = all_worked(page, server, demo_text, state, wanted, touch=hand == "finger")
    assert wrong == {}
    if os.environ.get("TUMBREL_WRITE_ACTS"):
        listed[hand][state] = found
        told = json.dumps(listed, indent=1, ensure_ascii=False, sort_keys=True)
        LISTED.write_text(f"{told}\n", "utf-8")
    assert found == wanted, "after a look at what is new, list it: see above"
