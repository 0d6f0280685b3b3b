"""Cures on the board: shown as they come, tried over the picture, kept as one step."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from tests.e2e.conftest import board, loss, unfold
from tools.driving import Server, arrived

PLACES = {"board", "kit", "trips"}


def test_a_cure_is_tried_over_the_picture_and_kept_as_one_step(page: Page, trip: str) -> None:
    board(page, trip)
    headline = page.get_by_test_id("headline")
    expect(headline).to_have_text("Four musts are broken.")
    page.get_by_role("button", name=re.compile("^Cures of Chin on long flight")).click()
    cures = page.get_by_role("group", name="Cures")
    first = cures.get_by_role("listitem").first
    expect(first).to_contain_text("Film long flight with Chin in 1080 30.")
    expect(first).to_contain_text("+32 min must · −75 % picture")
    first.get_by_role("button", name="Try").click()
    expect(page.get_by_text("Tried, not kept:")).to_be_visible()
    expect(page.locator("[data-part=ghost]").first).to_be_attached()
    expect(headline).to_have_text("Four musts are broken.")
    page.get_by_role("button", name="Leave it").first.click()
    expect(page.locator("[data-part=ghost]")).to_have_count(0)
    first.get_by_role("button", name="Keep").click()
    expect(headline).to_have_text("Two musts are broken.")
    expect(loss(page, "Chin")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(headline).to_have_text("Four musts are broken.")


def test_by_keyboard_from_the_gap_to_its_cures(page: Page, trip: str) -> None:
    board(page, trip)
    cell = page.locator('[data-cell="d2-flight/chin"]')
    cell.focus()
    page.keyboard.press("ArrowUp")
    page.keyboard.press("ArrowDown")
    expect(cell).to_be_focused()
    page.keyboard.press("c")
    opener = page.get_by_role("button", name=re.compile("^Cures of Chin on long flight"))
    expect(opener).to_be_focused()
    expect(opener).to_have_attribute("aria-expanded", "true")
    first = page.get_by_role("group", name="Cures").get_by_role("listitem").first
    expect(first).to_contain_text("1080 30")
    page.keyboard.press("Tab")
    expect(first.get_by_role("button", name="Try")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Tried, not kept:")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Tried, not kept:")).to_have_count(0)


def test_a_cure_of_the_kit_is_kept_in_the_kit(page: Page, server: Server) -> None:
    page.goto(f"{server.address}/trips")
    page.get_by_role("link", name=re.compile("^Skarre fell run")).first.click()
    page.get_by_test_id("headline").wait_for()
    page.get_by_role("button", name=re.compile("^Cures of Brow on long lake")).click()
    more = page.locator(".cure").filter(has_text="Carry one more battery C.")
    expect(more).to_contain_text("It changes the kit, for all its trips.")
    expect(more).to_contain_text("Then two musts are broken.")
    more.get_by_role("button", name="Keep").click()
    expect(page.get_by_test_id("headline")).to_have_text("Two musts are broken.")
    page.get_by_role("link", name="Kit", exact=True).click()
    arrived(page, "Kit")
    carried = page.get_by_role("button", name=re.compile(r"^Battery C\d"))
    expect(carried).to_have_count(7)
    page.get_by_role("button", name="Undo").click()
    expect(carried).to_have_count(6)


def test_by_keyboard_a_finding_is_cured(page: Page, trip: str) -> None:
    board(page, trip)
    unfold(page)
    opener = page.get_by_role("button", name=re.compile("^Cures of Foot wants a tether"))
    opener.focus()
    page.keyboard.press("Enter")
    cures = page.get_by_role("group", name="Cures")
    expect(cures.get_by_role("listitem")).to_contain_text("Tie Foot to a tether of its own.")
    cures.get_by_role("button", name="Keep").focus()
    page.keyboard.press("Enter")
    expect(opener).to_have_count(0)


def test_a_finding_that_only_a_person_settles_says_so(page: Page, trip: str) -> None:
    board(page, trip)
    unfold(page)
    expect(page.get_by_text(re.compile("^Mind Slab 10 is at"))).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Cures of Slab 10"))).to_have_count(0)
    expect(page.get_by_role("button", name=re.compile("^Cures of Foot wants"))).to_have_count(1)


def test_a_days_work_is_copied_to_another_day_as_one_step(page: Page, trip: str) -> None:
    board(page, trip)
    page.get_by_role("button", name="For the whole trip").click()
    page.get_by_label("From day").select_option("2")
    page.get_by_label("To day").select_option("3")
    page.get_by_role("button", name="Copy day 2 to day 3").click()
    said = page.get_by_text(re.compile(r"stretches copied to day 3\."))
    expect(said).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Mon 14").click()
    copied = page.locator('[data-cell="d3-climb/boom"]')
    expect(copied).to_have_attribute("aria-label", re.compile("must"))
    page.get_by_role("button", name="Undo").click()
    expect(copied).not_to_have_attribute("aria-label", re.compile("must"))
