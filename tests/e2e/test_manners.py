"""Keyboard alone, phone, accessibility, two tabs, lost connections and a killed server."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, Route, expect

from tests.e2e.conftest import binned, board, keep, loss, open_copy, rested, roll, saved
from tools.driving import ROOT, Server, served

PLACES = {"board", "kit", "bench", "route", "variants", "card", "sums", "trips"}
AXE = ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js"


def tab_to(page: Page, selector: str, most: int = 60) -> None:
    """Press Tab until the focus is on something that matches."""
    for _ in range(most):
        page.keyboard.press("Tab")
        if page.evaluate("s => document.activeElement?.matches(s) ?? false", selector):
            return
    pytest.fail(f"Tab never reached {selector}")


def test_by_keyboard_alone_from_the_gap_to_its_cure(page: Page, trip: str) -> None:
    board(page, trip)
    tab_to(page, ".hand-slider")
    page.keyboard.press("Home")
    page.keyboard.press("ArrowDown")
    slider = page.get_by_role("slider", name="The hand", exact=False)
    expect(slider).to_have_attribute("aria-valuetext", re.compile(r"^day 2, 0\d:\d5"))
    page.keyboard.press("PageDown")
    expect(slider).to_have_attribute("aria-valuetext", re.compile("Spring bend"))
    page.keyboard.press("n")
    page.keyboard.press("n")
    page.keyboard.press("n")
    cell = page.get_by_role("gridcell", name="Chin, long flight")
    expect(cell).to_be_focused()
    page.keyboard.press("Enter")
    strip = page.get_by_role("dialog", name="Chin, long flight")
    expect(strip.get_by_role("button", name="roll")).to_be_focused()
    tab_to(page, 'select:has(option[value="1080p30"])')
    page.keyboard.press("End")  # the last mode
    page.keyboard.press("Control+Enter")
    expect(page.get_by_test_id("headline")).to_have_text("Two musts are broken.")
    page.keyboard.press("Escape")
    expect(cell).to_be_focused()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("gridcell", name="Boom, long flight")).to_be_focused()
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("gridcell", name="Boom, Brow launch")).to_be_focused()
    page.keyboard.press("Control+z")
    expect(page.get_by_test_id("headline")).to_have_text("Four musts are broken.")
    page.keyboard.press("Control+Shift+z")
    expect(page.get_by_test_id("headline")).to_have_text("Two musts are broken.")


def test_every_command_is_found_by_name_and_letters_can_be_turned_off(
    page: Page, trip: str
) -> None:
    board(page, trip)
    page.get_by_role("gridcell", name="Chin, long flight").focus()
    page.keyboard.press("?")
    dialog = page.get_by_role("dialog", name="Every command")
    dialog.get_by_label("Find by name").fill("next")
    expect(dialog.get_by_role("button", name="Next gap")).to_be_visible()
    expect(dialog.get_by_role("button", name="Undo")).to_have_count(0)
    dialog.get_by_label("Single letters work").uncheck()
    dialog.get_by_role("button", name="Close").click()
    page.get_by_role("gridcell", name="Chin, gorge walk").focus()
    page.keyboard.press("n")
    expect(page.get_by_role("gridcell", name="Chin, gorge walk")).to_be_focused()
    page.keyboard.press("?")
    page.get_by_role("dialog").get_by_label("Find by name").fill("fold")
    page.get_by_role("button", name="Fold to stops").click()
    expect(page.get_by_role("grid").get_by_role("row")).to_have_count(30)


def test_on_a_phone_nothing_hangs_over_and_a_gap_can_be_cured(
    phone: Page, server: Server, demo_text: bytes
) -> None:
    page = phone
    address = open_copy(page, server, demo_text)
    for place in ("board", "kit", "bench", "route", "variants", "card"):
        page.goto(f"{address}/{place}")
        page.get_by_role("heading", level=1).wait_for()
        rested(page)
        assert page.evaluate("document.documentElement.scrollWidth") <= 390, place
    board(page, address)
    cell = page.get_by_role("gridcell", name="Chin, long flight")
    cell.tap()
    strip = page.get_by_role("dialog", name="Chin, long flight")
    box = strip.bounding_box()
    assert box is not None
    assert box["width"] == 390
    heights = [
        button.bounding_box() for button in strip.get_by_role("group").get_by_role("button").all()
    ]
    assert all(one is not None and one["height"] >= 44 for one in heights)
    strip.get_by_label("Mode").select_option("1080p30")
    keep(page)
    expect(page.get_by_test_id("headline")).to_have_text("Two musts are broken.")


@pytest.mark.parametrize("theme", ["light", "dim"])
@pytest.mark.parametrize("place", [*sorted(PLACES), "strip"])
def test_axe_finds_nothing_serious(
    page: Page, server: Server, trip: str, place: str, theme: str
) -> None:
    page.add_init_script(f"localStorage.setItem('tumbrel.theme', '{theme}')")
    if place in ("trips", "sums"):
        if place == "trips":
            binned(page, server, trip)
        page.goto(f"{server.address}/{place}")
    else:
        page.goto(f"{trip}/{'board' if place == 'strip' else place}")
    page.get_by_role("heading", level=1).wait_for()
    if place == "strip":
        page.get_by_role("gridcell", name="Boom, long flight").click()
        page.get_by_role("dialog").wait_for()
    if place == "trips":
        page.get_by_role("region", name="Bin").wait_for()
    if place == "bench":
        page.get_by_role("button", name="Start a test").click()
        page.get_by_role("button", name="Start the clock").click()
        page.get_by_role("button", name="Type a run").click()
    rested(page)
    assert serious(page) == []


def serious(page: Page) -> list[tuple[str, Any]]:
    """What a check of the page for those who cannot see or point finds grave."""
    page.evaluate(AXE.read_text("utf-8"))
    found = page.evaluate("async () => (await axe.run()).violations")
    return [
        (one["id"], [node["target"] for node in one["nodes"]][:4])
        for one in found
        if one["impact"] in ("serious", "critical")
    ]


TOO_LOW = """() => [...document.querySelectorAll('button, a, select, [role=gridcell][tabindex]')]
  .filter((one) => one.checkVisibility() && one.closest('[aria-hidden=true]') === null)
  .filter((one) => one.getBoundingClientRect().height < 43.5)
  .map((one) => one.outerHTML.slice(0, 120))"""


@pytest.mark.parametrize("place", ["board", "kit", "route", "variants", "card"])
def test_on_a_phone_axe_is_content_and_fingers_hit(
    phone: Page, server: Server, demo_text: bytes, place: str
) -> None:
    address = open_copy(phone, server, demo_text)
    phone.goto(f"{address}/{place}")
    phone.get_by_role("heading", level=1).wait_for()
    rested(phone)
    assert serious(phone) == []
    assert phone.evaluate(TOO_LOW) == []


def test_on_a_phone_what_lies_in_the_bin_is_put_back_by_a_finger(
    phone: Page, server: Server, demo_text: bytes
) -> None:
    name = binned(phone, server, open_copy(phone, server, demo_text))
    phone.goto(f"{server.address}/trips")
    put_back = phone.get_by_role("button", name=f"Put back trip {name}", exact=True)
    put_back.wait_for()
    assert serious(phone) == []
    assert phone.evaluate(TOO_LOW) == []
    assert phone.evaluate("document.documentElement.scrollWidth") <= 390
    put_back.tap()
    phone.get_by_role("link", name=name, exact=True).tap()
    phone.get_by_test_id("headline").wait_for()


def test_what_cannot_be_saved_survives_a_reload(page: Page, trip: str) -> None:
    board(page, trip)

    def refuse_saves(route: Route) -> None:
        if route.request.method == "PUT":
            route.abort()
        else:
            route.continue_()

    page.route("**/api/trips/*", refuse_saves)
    roll(page, "Camp, gorge walk")
    alert = page.get_by_role("alert").filter(has_text="Tumbrel is not answering")
    expect(alert).to_be_visible()
    page.unroute("**/api/trips/*")
    page.reload()
    cell = page.get_by_role("gridcell", name="Camp, gorge walk")
    expect(cell).to_have_accessible_name(re.compile("Rolled"))
    saved(page)
    page.evaluate("localStorage.clear()")
    page.reload()
    expect(cell).to_have_accessible_name(re.compile("Rolled"))


def test_saving_again_after_the_connection_is_back(page: Page, trip: str) -> None:
    board(page, trip)
    page.route("**/api/trips/*", lambda route: route.abort())
    roll(page, "Camp, gorge walk")
    again = page.get_by_role("button", name="Save again")
    expect(again).to_be_visible()
    page.unroute("**/api/trips/*")
    again.click()
    expect(again).to_have_count(0)
    saved(page)
    page.evaluate("localStorage.clear()")
    page.reload()
    expect(page.get_by_role("gridcell", name="Camp, gorge walk")).to_have_accessible_name(
        re.compile("Rolled")
    )


def test_a_press_that_is_on_its_way_meets_the_button_it_was_meant_for(
    page: Page, trip: str
) -> None:
    """The page's own retry saves while the pointer is over *Save again*: nothing moves under it."""
    board(page, trip)
    page.route("**/api/trips/*", lambda route: route.abort())
    roll(page, "Camp, gorge walk")
    again = page.get_by_role("button", name="Save again")
    again.hover()
    box = again.bounding_box()
    assert box is not None
    middle = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.unroute("**/api/trips/*")
    expect(page.get_by_text("It is kept now.")).to_be_visible()
    saved(page)
    under = "([x, y]) => document.elementFromPoint(x, y).closest('button')?.textContent"
    assert page.evaluate(under, middle) == "Save again"
    page.mouse.down()
    page.mouse.up()
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.mouse.move(5, 700)
    expect(again).to_have_count(0)
    expect(page.get_by_role("gridcell", name="Camp, gorge walk")).to_have_accessible_name(
        re.compile("Rolled")
    )


def test_a_killed_server_loses_nothing(page: Page, demo_folder: Path) -> None:
    with served(demo_folder, demo=True) as server:
        server.enter(page.context)
        page.goto(server.address)
        page.get_by_test_id("headline").wait_for()
        roll(page, "Camp, gorge walk")
        saved(page)
        server.kill()
        server.start()
        page.evaluate("localStorage.clear()")
        page.reload()
        expect(page.get_by_role("gridcell", name="Camp, gorge walk")).to_have_accessible_name(
            re.compile("Rolled")
        )


def test_edits_in_quick_succession_end_with_the_last(page: Page, trip: str) -> None:
    board(page, trip)
    loss(page, "Chin").click()
    page.keyboard.press("Enter")
    mode = page.get_by_role("dialog").get_by_label("Mode")
    for value in ("4k60", "4k30", "27k30", "27k60", "1080p30"):
        mode.select_option(value)
    expect(page.get_by_role("group", name="Not kept yet")).to_contain_text("+32 min must")
    keep(page)
    expect(page.get_by_test_id("headline")).to_have_text("Two musts are broken.")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_test_id("headline")).to_have_text("Four musts are broken.")
    expect(page.get_by_role("button", name="Undo")).to_be_disabled()
