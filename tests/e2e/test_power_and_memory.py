"""Charging, chains, memory, cold and heat entered as a person knows them, and the answers read."""

from __future__ import annotations

import re
from typing import Any

from playwright.sync_api import Page, expect

from tests.e2e.conftest import board
from tests.e2e.test_as_known import camera, fill, kept, stretch
from tools.driving import arrived

PLACES = {"board", "kit", "route"}


def kit(page: Page, trip: str) -> None:
    """The kit of the trip."""
    page.goto(f"{trip}/kit")
    arrived(page, "Kit")


def opened(page: Page, mark: str) -> Any:
    """The sheet beside something that is drawn in the kit."""
    page.locator(f'[data-unit="{mark}"]').click()
    return page.locator(".beside")


def saved(page: Page) -> None:
    """Until the kit is kept."""
    expect(page.get_by_label("The kit: keeping")).to_have_text("Kept")


def whole_trip(page: Page, trip: str) -> Any:
    """What holds for the whole trip, opened on the board."""
    board(page, trip)
    page.get_by_role("button", name="For the whole trip").click()
    return page.get_by_role("dialog", name="For the whole trip")


def test_charging_is_known_as_minutes_to_80_per_cent(page: Page, trip: str) -> None:
    """25 min are 1.92 an hour: 10.9 W into 5.7 W h, 12.2 W at a port; a port of 12 W binds.

    With a taper from 50 % on the same rate takes 30 min: (0.5 + 0.5 ln 2.5) / 1.92 h.
    """
    kit(page, trip)
    sheet = opened(page, "family/a")
    expect(sheet.get_by_text(re.compile("by itself: 80 % in 1 h 20"))).to_be_visible()
    fill(sheet, "Empty to 80 % in, min", "25")
    expect(sheet.get_by_text(re.compile("by itself: 80 % in 25 min.*cool 50 min"))).to_be_visible()
    expect(sheet.get_by_text(re.compile("the cell itself binds, 12 W"))).to_be_visible()
    expect(sheet.get_by_label("Or takes, W", exact=True)).to_have_value("10.9")
    expect(sheet.get_by_text(re.compile("in Twin dock: .* binds"))).to_be_visible()
    fill(sheet, "Less and less from, %", "50")
    expect(sheet.get_by_text(re.compile("by itself: 80 % in 30 min"))).to_be_visible()
    expect(sheet.get_by_label("Empty to 80 % in, min", exact=True)).to_have_value("29.9")


def test_a_module_is_known_by_how_long_it_lasts_and_filled_by_a_bank(page: Page, trip: str) -> None:
    kit(page, trip)
    page.get_by_role("button", name="Add a power module").click()
    sheet = page.locator(".beside")
    fill(sheet, "power module", "Pack")
    sheet.get_by_label("Rides on", exact=True).select_option("chin")
    fill(sheet, "Or it lasts, with it, min", "150")
    saved(page)
    expect(page.get_by_text("on Chin, lasts 150 min with it")).to_be_visible()
    sheet = camera(page, trip, "Chin")
    bare = sheet.get_by_label("set-up bare")
    bare.get_by_label("Runs on", exact=True).select_option("outside")
    saved(page)
    board(page, trip)
    page.get_by_role("button", name="Chin", exact=True).click()
    strip = page.get_by_role("dialog", name="How Chin is carried")
    strip.get_by_label(re.compile("^Fed, where its set-up")).select_option(label="Pack")
    page.keyboard.press("Escape")
    strip = whole_trip(page, trip)
    strip.get_by_role("button", name="Add a cable").click()
    cable = strip.get_by_role("group", name="Cable 1")
    cable.get_by_label("Unit", exact=True).select_option(label="Pack")
    cable.get_by_label("Into", exact=True).select_option(label="Slab 10")
    page.keyboard.press("Escape")
    expect(page.locator(".bank-unit", has_text="Pack")).to_contain_text("W h")
    expect(
        page.get_by_role("gridcell", name=re.compile("plug Pack into Slab 10")).first
    ).to_be_attached()


def test_footage_moves_to_the_card_that_a_module_brings(page: Page, trip: str) -> None:
    sheet = camera(page, trip, "Foot")
    sheet.get_by_text("A module brings it a card slot").click()
    expect(sheet.get_by_label("Moves to the card at, MB/s", exact=True)).to_be_visible()
    saved(page)
    dialog = stretch(page, trip, "Sun 13", "d2-shelf/foot")
    dialog.get_by_label("Copy its footage here", exact=True).select_option("-")
    kept(page)
    expect(
        page.get_by_role("gridcell", name=re.compile("copy Foot memory to K3")).first
    ).to_be_attached()


def test_a_microphone_dies_and_its_gap_is_told(page: Page, trip: str) -> None:
    """1 W h that lasts an hour, with a camera that films for ten: the rest is without sound."""
    kit(page, trip)
    page.get_by_role("button", name=re.compile("^Add a microphone")).click()
    sheet = page.locator(".beside")
    fill(sheet, "Name", "Lapel")
    fill(sheet, "Holds, W h", "1")
    fill(sheet, "Or lasts, min", "60")
    saved(page)
    board(page, trip)
    mine = page.get_by_role("list", name="Things with a battery")
    expect(mine).to_contain_text(re.compile(r"Lapel.*with Chin, dead .*without sound"))
    told = page.get_by_role("group", name="Gaps and their best cures")
    told.get_by_role("button", name=re.compile("Lapel empty, .* without sound with Chin")).click()
    expect(
        page.get_by_role("gridcell", name=re.compile("^Chin, .*Lapel empty at .* without sound"))
    ).to_be_focused()
    expect(page.locator('[data-part="dead"] rect').first).to_be_attached()
    said = page.get_by_text(re.compile("Lapel is empty at .* without sound with Chin"))
    page.locator(".side-more", has=said).locator("summary").first.click()
    expect(said.first).to_be_visible()


def test_the_cold_curve_is_seen_changed_and_felt(page: Page, trip: str) -> None:
    kit(page, trip)
    sheet = opened(page, "family/a")
    expect(sheet.get_by_text(re.compile("new.*: 52 % at −20°"))).to_be_visible()
    expect(sheet.get_by_text(re.compile(r"worn to 90 % \(A5\): 47 %"))).to_be_visible()
    sheet.get_by_role("button", name="Change the curve to what you measured").click()
    measured = sheet.get_by_role("group", name="Measured in the cold")
    measured.get_by_label("gives, %", exact=True).nth(4).fill("40")
    measured.get_by_label("gives, %", exact=True).nth(4).press("Tab")
    expect(sheet.get_by_text(re.compile("new.*: 40 % at −20°"))).to_be_visible()
    page.keyboard.press("Escape")
    sheet = opened(page, "pocket/lid")
    fill(sheet, "Kept at, °C", "30")
    saved(page)
    expect(page.get_by_text("kept at 30°")).to_be_visible()


def test_snow_warms_a_body_in_the_sun(page: Page, trip: str) -> None:
    """On the scree in the sun, over snow, the camera on the boom is hot for longer."""

    def hot() -> int:
        board(page, trip)
        page.get_by_role("button", name="Sun 13").click()
        words = page.get_by_text(re.compile(r"Boom.*too hot")).first.text_content() or ""
        found = re.search(r"(\d+) min", words)
        assert found is not None, words
        return int(found.group(1))

    before = hot()
    page.goto(f"{trip}/route")
    arrived(page, "Route")
    scree = page.locator(".route-row").filter(has=page.get_by_text("scree climb", exact=True)).first
    scree.get_by_role("button").first.click()
    page.get_by_label("Snow around").first.check()
    expect(page.get_by_label("The trip: keeping")).to_have_text("Kept")
    assert hot() > before


def test_what_is_least_left_of_banks_is_told(page: Page, trip: str) -> None:
    board(page, trip)
    page.locator("summary", has_text="Least left over the trip").click()
    least = page.locator(".side-more", has_text="Least left over the trip")
    expect(least.get_by_text(re.compile("Slab 10 .* of its charge, above cold"))).to_be_visible()
