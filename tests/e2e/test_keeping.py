"""Nothing typed is lost: tabs beside each other, no connection, reloads, refusals, a full store."""

from __future__ import annotations

import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, Page, Route, expect

from tests.e2e.conftest import board, keep, kept, open_copy, roll, token_of
from tests.folders import folder_of
from tools.driving import Server, arrived, served

PLACES = {"board", "kit", "route", "trips"}
MODES = {"4k30": "4K 30", "27k30": "2.7K 30", "1080p30": "1080 30"}
GORGE, SCREE, FLIGHT = ("Camp, gorge walk", "Camp, scree climb", "Chin, long flight")


def cut(page: Page, status: int | None = None) -> None:
    """Let no save of this tab through: no connection, or a failure of the server."""

    def refuse(route: Route) -> None:
        if route.request.method == "GET":
            route.continue_()
        elif status is None:
            route.abort()
        else:
            route.fulfill(status=status, body="")

    page.route(re.compile("/api/(trips|kits)/"), refuse)


def join(page: Page) -> None:
    page.unroute(re.compile("/api/(trips|kits)/"))


def film_in(page: Page, cell: str, mode: str) -> None:
    page.get_by_role("gridcell", name=cell).click()
    page.get_by_role("dialog").get_by_label("Mode").select_option(mode)
    keep(page)
    page.keyboard.press("Escape")


def is_rolled(page: Page, cell: str) -> None:
    named = re.compile("Rolled")
    expect(page.get_by_role("gridcell", name=cell)).to_have_accessible_name(named)


def asked(page: Page, trip: str) -> dict[tuple[str, str], Any]:
    plan = kept(page, trip)["plan"]
    return {(one["camera"], one["item"]): one for one in plan["assignments"]}


def mark(page: Page, text: str) -> None:
    expect(page.get_by_role("status", name="The trip: keeping")).to_have_text(text)


def conflict(page: Page) -> Any:
    return page.get_by_role("alert").filter(has_text="It was saved elsewhere")


@pytest.fixture
def other(context: BrowserContext, page: Page, trip: str) -> Iterator[Page]:
    """A second tab on the same trip; both show its board."""
    board(page, trip)
    made = context.new_page()
    board(made, trip)
    yield made
    made.close()


# -- two tabs ----------------------------------------------------------------------------


def test_what_one_tab_keeps_the_other_shows(page: Page, other: Page) -> None:
    roll(other, GORGE)
    is_rolled(page, GORGE)
    roll(page, SCREE)
    is_rolled(other, SCREE)
    mark(page, "Kept")


def test_edits_of_different_legs_are_brought_together(page: Page, other: Page) -> None:
    cut(page)
    roll(page, SCREE)
    mark(page, "Only here, trying again")
    roll(other, GORGE)
    join(page)
    is_rolled(page, GORGE)
    is_rolled(other, SCREE)
    mark(page, "Kept")
    expect(conflict(page)).to_have_count(0)


@pytest.mark.parametrize(
    ("side", "mode"), [("Keep mine", "1080p30"), ("Take the other trip", "27k30")]
)
def test_edits_of_the_same_field_ask(
    page: Page, other: Page, trip: str, side: str, mode: str
) -> None:
    cut(page)
    film_in(page, FLIGHT, "1080p30")
    roll(page, SCREE)
    film_in(other, FLIGHT, "27k30")
    expect(other.get_by_role("status", name="The trip: keeping")).to_have_text("Kept")
    join(page)
    expect(conflict(page)).to_contain_text("mode of Chin on long flight")
    conflict(page).get_by_role("button", name=side).click()
    mark(page, "Kept")
    expect(conflict(page)).to_have_count(0)
    assert asked(page, trip)["chin", "d2-flight"]["mode"] == mode
    is_rolled(other, SCREE)  # what did not clash stays, whichever side is taken


def test_keeping_mine_leaves_the_other_tabs_own_edit(page: Page, other: Page, trip: str) -> None:
    cut(page)
    film_in(page, FLIGHT, "1080p30")
    film_in(other, FLIGHT, "27k30")
    roll(other, GORGE)
    join(page)
    conflict(page).get_by_role("button", name="Keep mine").click()
    mark(page, "Kept")
    is_rolled(page, GORGE)
    assert asked(page, trip)["chin", "d2-flight"]["mode"] == "1080p30"


def test_two_tabs_without_a_connection_lose_nothing_over_reload(
    page: Page, other: Page, trip: str
) -> None:
    for tab, cell in ((page, GORGE), (other, SCREE)):
        cut(tab)
        roll(tab, cell)
        mark(tab, "Only here, trying again")
    for tab in (page, other):
        join(tab)
        tab.reload()
    for tab in (page, other):
        is_rolled(tab, GORGE)
        is_rolled(tab, SCREE)


def test_tabs_closed_without_a_connection_leave_their_edits_to_the_next(
    context: BrowserContext, page: Page, other: Page, trip: str
) -> None:
    third = context.new_page()
    board(third, trip)
    for tab, cell in ((third, GORGE), (other, SCREE)):
        cut(tab)
        roll(tab, cell)
        mark(tab, "Only here, trying again")
        tab.close()
    page.reload()
    is_rolled(page, GORGE)
    is_rolled(page, SCREE)
    mark(page, "Kept")


def test_a_kit_changed_in_one_tab_is_followed_by_the_others_board(page: Page, other: Page) -> None:
    other.get_by_role("link", name="Kit").click()
    arrived(other, "Kit")
    other.get_by_role("button", name="Add a power bank").click()
    carried = page.get_by_label("What you carry")
    expect(carried.get_by_text("power bank").first).to_be_visible()


# -- what the server cannot take now ---------------------------------------------------------


@pytest.mark.parametrize("status", [None, 500, 503])
def test_a_save_that_fails_is_tried_again_with_the_newest_edit(
    page: Page, trip: str, status: int | None
) -> None:
    board(page, trip)
    cut(page, status)
    film_in(page, FLIGHT, "27k30")
    again = page.get_by_role("button", name="Save again")
    expect(again).to_be_visible()
    film_in(page, FLIGHT, "1080p30")
    join(page)
    mark(page, "Kept")
    expect(again).to_have_count(0)
    assert asked(page, trip)["chin", "d2-flight"]["mode"] == "1080p30"


def test_without_a_connection_undo_takes_back_what_was_never_saved(page: Page, trip: str) -> None:
    board(page, trip)
    before = kept(page, trip)
    cut(page)
    roll(page, GORGE)
    mark(page, "Only here, trying again")
    page.get_by_role("button", name="Undo").click()
    join(page)
    mark(page, "Kept")
    page.reload()
    mark(page, "Kept")
    assert kept(page, trip)["plan"] == before["plan"]


def test_an_edit_is_saved_by_itself_when_the_server_is_there_again(
    page: Page, demo_folder: Path
) -> None:
    with served(demo_folder, demo=True) as server:
        server.enter(page.context)
        page.goto(server.address)
        page.get_by_test_id("headline").wait_for()
        server.kill()
        roll(page, GORGE)
        mark(page, "Only here, trying again")
        server.start()
        mark(page, "Kept")
        page.reload()
        is_rolled(page, GORGE)


def test_a_full_browser_store_stops_no_save(page: Page, trip: str) -> None:
    board(page, trip)
    page.evaluate(
        "() => { for (let n = 2 ** 20; n > 0; n >>= 1) for (;;) try {"
        " localStorage.setItem('full' + Math.random(), 'x'.repeat(n)); } catch { break; } }"
    )
    roll(page, GORGE)
    mark(page, "Kept")
    page.evaluate("localStorage.clear()")
    page.reload()
    is_rolled(page, GORGE)


def test_a_session_that_is_gone_is_opened_anew_and_nothing_is_lost(
    context: BrowserContext, page: Page, server: Server, trip: str
) -> None:
    board(page, trip)
    context.clear_cookies(name=re.compile("session"))
    roll(page, GORGE)
    closed = page.get_by_role("alert").filter(has_text="Open the address that Tumbrel printed")
    expect(closed).to_be_visible()
    server.enter(context)
    page.get_by_role("button", name="Save again").click()
    mark(page, "Kept")
    page.reload()
    is_rolled(page, GORGE)


def test_notes_go_to_no_other_installation_on_the_same_port(
    page: Page, tmp_path: Path, tmp_path_factory: pytest.TempPathFactory, demo_text: bytes
) -> None:
    folders = [folder_of(tmp_path_factory, tmp_path / name, demo=True) for name in ("a", "b")]
    with served(folders[0], demo=True) as one:
        one.enter(page.context)
        trip = open_copy(page, one, demo_text)
        board(page, trip)
        cut(page)
        roll(page, GORGE)
        mark(page, "Only here, trying again")
        number = trip.rpartition("/")[2]
    join(page)
    with served(folders[1], demo=True, port=one.port) as two:
        two.enter(page.context)
        twin = open_copy(page, two, demo_text)
        assert twin.rpartition("/")[2] == number
        board(page, twin)
        mark(page, "Kept")
        assert ("camp", "d2-gorge") not in asked(page, twin)


# -- typed and not taken yet --------------------------------------------------------------------


def name_field(page: Page, trip: str) -> Any:
    board(page, trip)
    page.get_by_role("link", name="Route").click()
    arrived(page, "Route")
    field = page.get_by_label("Trip", exact=True)
    field.fill("Crossing, renamed")
    return field


def test_text_that_stands_in_a_field_survives_reload(page: Page, trip: str) -> None:
    name_field(page, trip)
    page.reload()
    expect(page.get_by_label("Trip", exact=True)).to_have_value("Crossing, renamed")
    mark(page, "Kept")
    assert kept(page, trip)["trip"]["name"] == "Crossing, renamed"


@pytest.mark.parametrize("way", ["back", "close"])
def test_text_that_stands_in_a_field_survives_leaving(page: Page, trip: str, way: str) -> None:
    name_field(page, trip)
    if way == "back":
        page.go_back()
    else:
        page.goto("about:blank")
        board(page, trip)
    page.get_by_test_id("headline").wait_for()
    expect(page.locator(".trip-name")).to_have_text("Crossing, renamed")
    mark(page, "Kept")
    assert kept(page, trip)["trip"]["name"] == "Crossing, renamed"


def test_text_that_a_field_marks_as_wrong_is_there_when_one_comes_back(
    page: Page, trip: str
) -> None:
    board(page, trip)
    page.get_by_role("link", name="Route").click()
    arrived(page, "Route")
    start = page.get_by_label("Start, local clock")
    before = start.input_value()
    start.fill("2027-06-12 half past")
    page.get_by_role("link", name="Board").click()
    arrived(page, "Board")
    page.get_by_role("link", name="Route").click()
    arrived(page, "Route")
    expect(start).to_have_value("2027-06-12 half past")
    page.reload()
    expect(start).to_have_value("2027-06-12 half past")
    start.press("Escape")
    page.reload()
    expect(start).to_have_value(before)


def test_a_pasted_table_survives_reload_and_another_place(page: Page, trip: str) -> None:
    board(page, trip)
    page.get_by_role("link", name="Route").click()
    arrived(page, "Route")
    table = page.get_by_label("Type or paste, one a line")
    table.fill("Hut; stop; 1:00\nridge; climb; 2:00")
    page.get_by_role("link", name="Board").click()
    arrived(page, "Board")
    page.get_by_role("link", name="Route").click()
    arrived(page, "Route")
    expect(table).to_have_value(re.compile("ridge; climb"))
    page.reload()
    expect(table).to_have_value(re.compile("ridge; climb"))
    page.get_by_role("button", name="Add 2 lines").click()
    expect(table).to_have_value("")
    page.reload()
    expect(table).to_have_value("")


def test_the_name_of_a_trip_to_be_made_survives_reload(page: Page, server: Server) -> None:
    page.goto(f"{server.address}/trips")
    page.get_by_label("Name of the trip").fill("Not made yet")
    page.reload()
    expect(page.get_by_label("Name of the trip")).to_have_value("Not made yet")


# -- faults of ours -----------------------------------------------------------------------------


def test_a_fault_of_tumbrel_says_that_the_change_was_kept_and_takes_it_back(
    page: Page, trip: str
) -> None:
    """A plan that is rehearsed no more after an edit: that is kept, and one press takes it back."""
    board(page, trip)
    before = asked(page, trip)
    found = {"code": "engine_failed", "severity": "stop", "path": "plan", "camera": None,
             "item": None, "values": {"kind": "KeyError"}, "harm": False, "curable": False,
             "text": "Tumbrel failed at this plan (KeyError)."}  # fmt: skip

    def fail(route: Route) -> None:
        answer = route.fetch()
        told = answer.json()
        told["verdict"]["headline"] = "Not rehearsed: Tumbrel failed at this plan."
        route.fulfill(response=answer, json=told | {"findings": [found]})

    page.route(re.compile("/api/rehearsals"), fail)
    roll(page, GORGE)
    expect(page.get_by_test_id("headline")).to_contain_text("Tumbrel failed at this plan")
    expect(page.get_by_test_id("undo-here")).to_contain_text("Your change of the trip was kept.")
    mark(page, "Kept")
    assert asked(page, trip) != before
    page.unroute(re.compile("/api/rehearsals"))
    page.get_by_role("button", name="Undo it in the trip").click()
    expect(page.get_by_test_id("headline")).to_have_text("Four musts are broken.")
    expect(page.get_by_test_id("undo-here")).to_have_count(0)
    assert asked(page, trip) == before


# -- the bin ------------------------------------------------------------------------------------


def test_a_deleted_trip_comes_back_from_the_bin(page: Page, server: Server, trip: str) -> None:
    name = kept(page, trip)["trip"]["name"]
    page.goto(f"{server.address}/trips")
    delete = page.get_by_role("button", name=f"Delete {name}", exact=True)
    delete.wait_for()
    expect(page.get_by_text("Rehearsing…")).to_have_count(0)
    asked: list[str] = []
    page.on("request", lambda sent: asked.append(f"{sent.method} {sent.url}"))
    delete.click()
    expect(page.get_by_role("link", name=name, exact=True)).to_have_count(0)
    expect(page.get_by_text(f"{name} lies in the bin for 30 days")).to_be_visible()
    bin_ = page.get_by_role("region", name="Bin")
    expect(bin_).to_contain_text(name)
    # the other trips stand as they were told: only lists are asked anew
    lists = ("/api/trips", "/api/bin", "/api/kits", "/api/installation")
    assert [one for one in asked if one.startswith("POST") or "/api/trips/" in one] == [
        f"DELETE {server.address}/api/trips/{trip.rpartition('/')[2]}"
    ]
    assert all(one.endswith(lists) for one in asked if one.startswith("GET"))
    bin_.get_by_role("button", name=f"Put back trip {name}", exact=True).click()
    page.get_by_role("link", name=name, exact=True).click()
    page.get_by_test_id("headline").wait_for()


def test_an_edit_of_a_trip_that_was_deleted_elsewhere_waits_for_it(
    page: Page, other: Page, server: Server, trip: str
) -> None:
    number = trip.rpartition("/")[2]
    headers = token_of(page, server)
    page.request.delete(f"{server.address}/api/trips/{number}", headers=headers)
    roll(page, GORGE)
    expect(page.get_by_role("alert").filter(has_text="There is no such trip")).to_be_visible()
    page.request.post(f"{server.address}/api/bin/trip/{number}", headers=headers)
    page.get_by_role("button", name="Save again").click()
    mark(page, "Kept")
    is_rolled(other, GORGE)


def test_on_a_phone_it_is_said_where_an_edit_is(
    phone: Page, server: Server, demo_text: bytes
) -> None:
    page = phone
    board(page, open_copy(page, server, demo_text))
    cut(page)
    roll(page, GORGE)
    mark(page, "Only here, trying again")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
