"""States of the plan side by side: kept, made, compared, taken from and gone back to."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from tests.e2e.conftest import board, keep
from tools.driving import arrived

PLACES = {"board", "variants", "kit"}


def figures(page: Page, name: str) -> list[str]:
    """The cells of a row of the ledger."""
    rows = page.get_by_role("table").first.get_by_role("row")
    return rows.filter(has=page.get_by_role("rowheader", name=name)).locator("td").all_inner_texts()


def test_a_starting_set_is_made_compared_and_taken_from(page: Page, trip: str) -> None:
    page.goto(f"{trip}/variants")
    heading = page.get_by_role("heading", level=1)
    expect(heading).to_have_text("the plan now: Four musts are broken.")
    page.get_by_role("button", name="Make the set").click()
    for name in ("Let it roll", "Short takes", "Loop and keep", "Set and leave"):
        expect(page.get_by_role("checkbox", name=name)).to_be_visible()
    expect(page.get_by_role("checkbox", name="Sharper picture")).to_be_visible()
    expect(page.get_by_role("button", name="Make the set")).to_be_visible()
    for name in ("Let it roll", "Loop and keep"):
        page.get_by_role("checkbox", name=name).uncheck()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Short takes: ")
    expect(page.get_by_role("table").first.get_by_role("columnheader")).to_have_count(2)
    now, takes = figures(page, "to look through")
    assert now != takes
    table = page.get_by_role("table").nth(1)
    flight = table.get_by_role("row").filter(has=page.get_by_text("long flight, Chin"))
    expect(flight).to_contain_text("roll 2.7K60")
    page.get_by_role("button", name="Take long flight, Chin from Short takes").click()
    expect(flight).to_have_count(0)  # it is the same in both now
    page.get_by_role("button", name="Undo").click()
    expect(flight.get_by_role("cell").first).to_contain_text("roll 2.7K60")


def test_a_state_is_kept_named_gone_back_to_and_deleted(page: Page, trip: str) -> None:
    page.goto(f"{trip}/variants")
    name = page.get_by_label("Keep the plan now as")
    name.fill("As planned")
    name.press("Enter")
    expect(page.get_by_role("checkbox", name="As planned")).to_be_visible()
    name.fill("As planned")
    name.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("a variant 'As planned' is kept already")

    board(page, trip)
    page.locator('[data-cell="d2-flight/chin"]').click()
    page.get_by_role("dialog").get_by_label("Mode").select_option("1080p30")
    keep(page)
    expect(page.get_by_test_id("headline")).to_have_text("Two musts are broken.")
    page.get_by_role("link", name="Variants").click()
    arrived(page, "Variants")
    page.get_by_role("checkbox", name="As planned").check()
    expect(page.get_by_role("heading", level=1)).to_have_text(
        re.compile("^Against the plan now. As planned: .* less filmed")
    )
    page.get_by_role("button", name="More of As planned").click()
    more = page.get_by_role("group", name="As planned")
    more.get_by_label("Name").fill("First idea")
    more.get_by_label("Name").press("Enter")
    page.get_by_role("group", name="First idea").get_by_role(
        "button", name="Go back to its plan"
    ).click()
    expect(page.get_by_test_id("headline")).to_have_text("Four musts are broken.")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_test_id("headline")).to_have_text("Two musts are broken.")

    page.get_by_role("link", name="Variants").click()
    arrived(page, "Variants")
    page.get_by_role("button", name="More of First idea").click()
    page.get_by_role("button", name="Delete…").click()
    page.get_by_role("button", name="Delete First idea").click()
    expect(page.get_by_role("checkbox", name="First idea")).to_have_count(0)


def test_a_variants_kit_comes_with_it(page: Page, trip: str) -> None:
    board(page, trip)
    batteries = page.get_by_label("What you carry").locator(".battery-unit")
    before = batteries.count()
    page.get_by_role("link", name="Variants").click()
    arrived(page, "Variants")
    page.get_by_role("button", name="Make the set").click()
    expect(page.get_by_role("checkbox", name="Sharper picture")).to_be_visible()
    page.get_by_role("button", name="More of Safer kit").click()
    safer = page.get_by_role("group", name="Safer kit")
    safer.get_by_role("button", name="… and its kit").click()
    page.get_by_test_id("headline").wait_for()
    expect(batteries).to_have_count(before + 3)  # one of each family
