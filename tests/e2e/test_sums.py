"""Quick sums: live as one types, shared as an address, wrong input said beside its blank."""

from __future__ import annotations

import re

from playwright.sync_api import Browser, Page, expect

from tools.driving import Server

PLACES = {"sums", "board", "kit"}


def test_a_sum_is_answered_as_one_types_and_kept_in_its_address(
    page: Page, empty_server: Server
) -> None:
    page.goto(f"{empty_server.address}/sums")
    answer = page.get_by_role("status").first
    expect(answer).to_have_text(re.compile("^It lasts 34 min .* too hot"))
    page.get_by_label("Draw, W").fill("1")
    expect(answer).to_have_text(re.compile(r"^It lasts 5 h \d\d .* empty\.$"))
    expect(page.get_by_text("5.7 W h / 1 W = 5 h 42, warm")).to_be_visible()
    page.get_by_label("Draw, W").fill("0")
    expect(page.get_by_role("alert")).to_have_text("From 0.01 to 60.")
    expect(answer).to_have_text(re.compile("^It lasts 5 h"))  # the last one that could be reckoned
    page.get_by_label("Draw, W").fill("2,5")
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(answer).to_have_text(re.compile("^It lasts 2 h 17"))
    told = answer.inner_text()
    page.goto(page.url)
    expect(page.get_by_label("Draw, W")).to_have_value("2,5")
    expect(answer).to_have_text(told)


def test_every_sum_answers_by_keyboard(page: Page, empty_server: Server) -> None:
    page.goto(f"{empty_server.address}/sums")
    links = page.get_by_role("navigation", name="Questions").get_by_role("link")
    links.first.wait_for()
    for number in range(links.count()):
        links.nth(number).focus()
        page.keyboard.press("Enter")
        expect(page.get_by_role("status").first).not_to_have_text("")
        expect(page.get_by_role("img", name=re.compile("^From "))).to_be_visible()
    page.get_by_role("link", name="Time-lapse").click()
    page.get_by_role("button", name="interval").click()
    expect(page.get_by_role("status").first).to_have_text("A frame every 14.4 s, 500 frames.")
    assert "wanted=interval" in page.url


def test_sums_on_a_phone_and_from_a_trip(browser: Browser, page: Page, trip: str) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{trip}/board")
    page.get_by_test_id("headline").wait_for()
    page.get_by_role("link", name="Quick sums").click()
    page.wait_for_url("**/sums*")
    expect(page.get_by_role("status").first).to_have_text(re.compile("^It lasts"))
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.get_by_role("link", name="Use it on the trip: the kit").click()
    expect(page).to_have_url(f"{trip}/kit")
