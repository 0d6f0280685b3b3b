"""The page does what it says: by mouse, finger and key, and the focus stays where one acted."""

from __future__ import annotations

import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import board, keep, kept, open_copy, press, rested, saved
from tools.driving import Server, arrived

PLACES = {"board", "kit", "route", "trips"}
FOUR = "Four musts are broken."
TRIED = "Tried, not kept:"


def cured(page: Page) -> Any:
    """The first gap of the day with the two flights, its best cure known."""
    page.get_by_role("button", name="Sun 13").click()
    gap = page.get_by_role("group", name="Gaps and their best cures").get_by_role("button").first
    expect(gap.locator(".gap-cure")).to_contain_text("must")
    return gap


def focused(page: Page) -> str:
    """The name of the element that has the focus."""
    return str(page.evaluate("document.activeElement.tagName"))


def test_a_cure_of_the_telling_is_kept_by_the_mouse(page: Page, trip: str) -> None:
    board(page, trip)
    headline = page.get_by_test_id("headline")
    press(page, cured(page))
    expect(page.get_by_text(TRIED)).to_be_visible()
    press(page, headline)  # elsewhere: what is tried stays
    expect(page.get_by_text(TRIED)).to_be_visible()
    press(page, page.get_by_role("button", name="Keep it"))
    expect(headline).not_to_have_text(FOUR)
    saved(page)
    expect(page.get_by_text(TRIED)).to_have_count(0)
    assert focused(page) != "BODY"
    page.get_by_role("button", name="Undo").click()
    expect(headline).to_have_text(FOUR)


def test_a_cure_of_the_telling_is_left_by_going_on(page: Page, trip: str) -> None:
    board(page, trip)
    gap = cured(page)
    gap.focus()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowUp")
    expect(page.get_by_text(TRIED)).to_be_visible()
    page.keyboard.press("Tab")
    expect(page.get_by_text(TRIED)).to_have_count(0)
    gap.focus()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowUp")
    expect(page.get_by_text(TRIED)).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("headline")).not_to_have_text(FOUR)
    assert focused(page) != "BODY"


def test_a_cure_is_kept_by_a_finger(phone: Page, server: Server, demo_text: bytes) -> None:
    board(phone, open_copy(phone, server, demo_text))
    gap = phone.locator("button.gap-told:not(.dead)").filter(has_text="must").first
    gap.tap()
    expect(phone.get_by_text(TRIED)).to_be_visible()
    phone.get_by_role("button", name="Keep it").tap()
    expect(phone.get_by_test_id("headline")).not_to_have_text(FOUR)


def test_letters_work_from_the_first_moment(page: Page, trip: str) -> None:
    """Nothing has been pressed or focused yet."""
    board(page, trip)
    page.keyboard.press("c")
    opener = page.get_by_role("button", name=re.compile("^Cures of"), expanded=True)
    expect(opener.first).to_be_focused()
    page.reload()
    page.get_by_test_id("headline").wait_for()
    page.keyboard.press("n")
    expect(page.locator("[role=gridcell]:focus")).to_be_visible()
    page.get_by_role("button", name="Undo").focus()
    page.keyboard.press("f")
    expect(page.get_by_role("grid").get_by_role("row")).to_have_count(30)


def test_the_index_is_one_stop_and_can_be_passed(page: Page, trip: str) -> None:
    board(page, trip)
    expect(page).to_have_title(re.compile(r"^Board · Crossing .* · Tumbrel$"))
    page.keyboard.press("Tab")
    expect(page.get_by_role("link", name="Past the index")).to_be_focused()
    page.keyboard.press("Enter")
    assert focused(page) == "MAIN"
    page.get_by_role("link", name="Tumbrel: all trips").focus()
    page.keyboard.press("Tab")
    places = page.get_by_role("navigation", name="Places")
    expect(places.get_by_role("link", name="Board")).to_be_focused()
    page.keyboard.press("ArrowLeft")
    expect(places.get_by_role("link", name="Route")).to_be_focused()
    page.keyboard.press("Enter")
    arrived(page, "Route")
    expect(page).to_have_title(re.compile("^Route · "))
    page.keyboard.press("Tab")
    assert page.evaluate("document.activeElement.closest('nav')") is None


@pytest.mark.parametrize(
    ("label", "typed"), [("at, frames a second", "1080"), ("which holds, mAh", "")]
)
def test_what_is_refused_makes_no_camera(page: Page, trip: str, label: str, typed: str) -> None:
    page.goto(f"{trip}/kit")
    page.get_by_role("button", name="Add a camera").click()
    field = page.get_by_label(label)
    field.fill(typed)
    field.press("Enter")
    expect(field).to_be_focused()
    expect(field).to_have_attribute("aria-invalid", "true")
    press(page, page.get_by_role("button", name="Put it on the shelf"))
    expect(field).to_be_focused()
    rested(page)
    expect(page.get_by_role("button", name=re.compile("^Camera .*: edit"))).to_have_count(4)
    field.fill("60" if typed else "1100")
    press(page, page.get_by_role("button", name="Put it on the shelf"))
    expect(page.get_by_role("button", name=re.compile("^Camera .*: edit"))).to_have_count(5)


def test_what_is_typed_of_a_new_camera_stays(page: Page, empty_server: Server) -> None:
    """Minutes that nobody knows, and the card that becomes its memory and leaves none behind."""
    page.goto(empty_server.address)
    page.get_by_label("Name of the trip").fill("Two ridges")
    page.get_by_role("button", name="Make the trip").click()
    expect(page.locator("main:focus")).to_be_visible()
    for name, gb in (("Keel", "29"), ("Boom", "64")):
        page.get_by_role("button", name="Add a camera").click()
        expect(page.get_by_label("Its battery")).to_have_value("")
        page.get_by_label("It is called").fill(name)
        page.get_by_label("Its card holds, GB").fill(gb)
        page.get_by_label("at, frames a second").fill("60")
        page.get_by_label("The box says: in").select_option("1080")
        page.get_by_label("it lasts, min").fill("")
        page.get_by_role("button", name="Put it on the shelf").click()
    assert focused(page) != "BODY"
    modes = page.get_by_role("list", name="Modes").get_by_role("button")
    expect(modes).to_have_count(2)
    expect(modes.first).to_have_accessible_name(re.compile("^Keel 1080 60: .*not known"))
    cards = page.get_by_role("region", name="Cards").get_by_role("listitem")
    expect(cards).to_have_text([re.compile("K1.*29 GB"), re.compile("K2.*64 GB")])
    page.get_by_role("button", name="Camera Keel: edit").click()
    page.get_by_label("Memory", exact=True).select_option("fixed")
    expect(page.get_by_label("Size, GB")).to_have_value("29")
    expect(cards).to_have_text([re.compile("K2.*64 GB")])
    saved(page, "The kit")
    page.reload()
    expect(cards).to_have_text([re.compile("K2.*64 GB")])


def test_by_the_clock_begins_as_long_as_its_leg(page: Page, trip: str) -> None:
    board(page, trip)
    page.get_by_role("button", name="Sun 13").click()
    page.locator('[data-cell="d2-flight/chin"]').click()
    strip = page.get_by_role("dialog", name="Chin, long flight")
    told = strip.locator(".strip-when").inner_text()
    hours = re.findall(r"\d\d:\d\d", told)
    press(page, strip.get_by_role("button", name="by the clock"))
    expect(strip.get_by_label("opens at")).to_have_value(hours[0])
    expect(strip.get_by_label("closes at")).to_have_value(hours[1])
    expect(strip.get_by_role("group", name="Not kept yet")).not_to_contain_text("−1 h")


def test_undo_takes_back_what_was_done_last_wherever_that_was(page: Page, trip: str) -> None:
    """A battery added on the shelf, then a cure kept on the board; back and on, on the board."""
    page.goto(f"{trip}/kit")
    batteries = page.get_by_role("button", name=re.compile(r"^Battery A\d"))
    batteries.first.wait_for()
    before = batteries.count()
    page.get_by_role("button", name="Add a battery A").click()
    expect(batteries).to_have_count(before + 1)
    saved(page, "The kit")
    page.get_by_role("link", name="Board", exact=True).click()
    arrived(page, "Board")
    headline = page.get_by_test_id("headline")
    press(page, cured(page))
    press(page, page.get_by_role("button", name="Keep it"))
    expect(headline).not_to_have_text(FOUR)
    undo, redo = (page.get_by_role("button", name=name) for name in ("Undo", "Redo"))
    expect(undo).to_have_attribute("title", "Undo in the trip")
    press(page, undo)
    expect(headline).to_have_text(FOUR)
    expect(undo).to_have_attribute("title", "Undo in the kit")
    page.keyboard.press("Control+z")
    expect(undo).to_be_disabled()
    expect(redo).to_have_attribute("title", "Redo in the kit")
    page.reload()
    press(page, redo)
    expect(redo).to_have_attribute("title", "Redo in the trip")
    press(page, redo)
    expect(headline).not_to_have_text(FOUR)
    page.get_by_role("link", name="Kit", exact=True).click()
    arrived(page, "Kit")
    expect(batteries).to_have_count(before + 1)
    press(page, undo)  # the trip's cure first: it was the last
    expect(batteries).to_have_count(before + 1)
    press(page, undo)
    expect(batteries).to_have_count(before)


def test_a_deleted_battery_takes_its_rows_along_and_undo_returns_them_from_the_board(
    page: Page, trip: str
) -> None:
    page.goto(f"{trip}/kit")
    before = kept(page, trip)["plan"]
    assert any(one["battery"] == "a1" for one in before["cameras"])
    rested(page)  # what comes late above it moves it
    press(page, page.get_by_role("button", name="Battery A1").first)
    press(page, page.get_by_role("button", name="Delete battery A1"))
    said = page.get_by_role("status").filter(has_text="is deleted")
    expect(said).to_contain_text("Battery A1 is deleted. With it went what a camera starts with")
    assert all(one["battery"] != "a1" for one in kept(page, trip)["plan"]["cameras"])
    page.get_by_role("link", name="Board").click()
    arrived(page, "Board")
    expect(said).to_be_visible()
    press(page, said.get_by_role("button", name="Bring it back"))
    expect(page.get_by_role("status").filter(has_text="With it came back")).to_be_visible()
    saved(page)
    assert kept(page, trip)["plan"] == before
    page.get_by_role("button", name="Redo", exact=True).click()
    expect(said.or_(page.get_by_text("With it went"))).to_be_visible()
    assert all(one["battery"] != "a1" for one in kept(page, trip)["plan"]["cameras"])


def test_on_a_phone_cures_open_where_one_taps(
    phone: Page, server: Server, demo_text: bytes
) -> None:
    phone.goto(f"{open_copy(phone, server, demo_text)}/board")
    rested(phone)
    opener = phone.get_by_role("button", name=re.compile("^Cures of")).first
    opener.scroll_into_view_if_needed()
    opener.tap()
    cures = phone.get_by_role("group", name="Cures").get_by_role("button", name="Try").first
    expect(cures).to_be_in_viewport()
    rested(phone)
    expect(opener).to_be_in_viewport()
    cures.tap()
    expect(phone.get_by_text(TRIED)).to_be_visible()


BELOW_FOOT = """() => {
  const box = document.querySelector('.draft-foot').getBoundingClientRect();
  const below = document.elementFromPoint(box.x + box.width / 2, box.bottom + 12);
  return below?.closest('.strip') === null ? '' : below?.outerHTML.slice(0, 80);
}"""


@pytest.mark.parametrize("width", [1280, 1000, 390])
def test_nothing_of_a_strip_shows_below_what_is_not_kept_yet(
    page: Page, trip: str, width: int
) -> None:
    page.set_viewport_size({"width": width, "height": 700})
    board(page, trip)
    page.get_by_role("button", name="Sun 13").click()
    page.locator('[data-cell="d2-flight/chin"]').first.click()
    page.get_by_label("Mode", exact=True).select_option("1080p30")
    page.get_by_role("group", name="Not kept yet").wait_for()
    rested(page)
    assert page.evaluate(BELOW_FOOT) in ("", None)


def test_undo_pressed_twice_at_once_takes_back_both_in_trip_and_kit(page: Page, trip: str) -> None:
    page.goto(f"{trip}/kit")
    batteries = page.get_by_role("button", name=re.compile("^Battery A"))
    batteries.first.wait_for()
    rested(page)
    before, plan = batteries.count(), kept(page, trip)["plan"]
    page.get_by_role("button", name="Add a battery A").click()
    expect(batteries).to_have_count(before + 1)
    saved(page, "The kit")
    board(page, trip)
    page.get_by_role("button", name="Sun 13").click()
    page.locator('[data-cell="d2-flight/chin"]').first.click()
    page.get_by_role("group", name="Importance").get_by_role("button", name="nice").click()
    keep(page)
    saved(page)
    assert kept(page, trip)["plan"] != plan
    page.get_by_role("button", name="Undo").evaluate("(one) => { one.click(); one.click(); }")
    expect(page.get_by_role("button", name="Undo")).to_be_disabled()
    page.get_by_role("link", name="Kit", exact=True).click()
    arrived(page, "Kit")
    expect(batteries).to_have_count(before)
    assert kept(page, trip)["plan"] == plan
