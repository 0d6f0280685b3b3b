"""The card in the pocket: a day by touch and by keyboard, one file with no network, ticks home."""

from __future__ import annotations

import json
import re
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, expect

from tests.e2e.conftest import board, keep, open_copy
from tools.driving import Server

PLACES = {"board", "card"}
MOST_BYTES = 400_000
DAY = "2027-06-13"


def moves_of_day(page: Page, address: str) -> list[Any]:
    """The card's places of the second day with something to do, as the server tells them."""
    number = address.rsplit("/", 1)[-1]
    card = page.evaluate(f"fetch('/api/trips/{number}/card').then(a => a.json())")["card"]
    return [one for one in card["places"] if one["day"] == DAY and one["moves"]]


def words_of(move: dict[str, str]) -> str:
    """To which camera, if one is in the hands, and what."""
    return ": ".join(one for one in (move["camera"], move["say"]) if one)


def go_to(page: Page, name: str) -> None:
    """Choose a stop."""
    for _ in range(20):
        if page.locator(".pocket-place").inner_text().startswith(f"{name},"):
            return
        page.get_by_role("button", name="Next stop").click()
    raise AssertionError(f"no stop {name}")


def test_a_whole_day_is_done_by_touch_on_a_phone(
    phone: Page, server: Server, demo_text: bytes
) -> None:
    address = open_copy(phone, server, demo_text)
    phone.goto(f"{address}/card")
    phone.locator(".pocket-place").wait_for()
    for place in moves_of_day(phone, address):
        go_to(phone, place["name"])
        for move in place["moves"]:
            current = phone.locator(".pocket-move.current")
            expect(current.locator("b")).to_have_text(words_of(move))
            done = current.locator(".pocket-done")
            assert done.evaluate("one => Math.min(one.offsetWidth, one.offsetHeight)") >= 88
            done.tap()
        expect(phone.locator(".pocket-move.done")).to_have_count(len(place["moves"]))
    low = phone.evaluate(
        """() => [...document.querySelectorAll('.pocket button')].filter(one =>
          one.getBoundingClientRect().height < 55.5).length"""
    )
    assert low == 0
    assert phone.evaluate("document.documentElement.scrollWidth") <= 390
    phone.reload()
    phone.locator(".pocket-place").wait_for()
    first = moves_of_day(phone, address)[0]
    go_to(phone, first["name"])
    expect(phone.locator(".pocket-move.done")).to_have_count(len(first["moves"]))


def test_by_keyboard_done_leads_on_and_undo_takes_back(page: Page, trip: str) -> None:
    page.goto(f"{trip}/card")
    page.locator(".pocket-place").wait_for()
    go_to(page, "Brow launch")
    page.locator(".pocket-done").focus()
    for _ in range(3):
        page.keyboard.press("Enter")
    expect(page.locator(".pocket-move.done")).to_have_count(3)
    expect(page.locator(".pocket-done")).to_be_focused()
    page.get_by_role("button", name="Undo last").focus()
    page.keyboard.press("Enter")
    expect(page.locator(".pocket-move.done")).to_have_count(2)
    go_to(page, "Brow launch")
    note = page.get_by_label("Note or reading, in one line")
    note.fill("A4 shows 40 %")
    note.press("Enter")
    expect(page.locator(".pocket-words li")).to_have_text("A4 shows 40 %")


def test_one_file_works_with_the_network_cut_and_its_ticks_come_home_once(
    page: Page, trip: str, tmp_path: Path
) -> None:
    page.goto(f"{trip}/card")
    with page.expect_download() as taken:
        page.get_by_role("button", name="One file for the phone").click()
    file = tmp_path / taken.value.suggested_filename
    taken.value.save_as(file)
    assert file.suffix == ".html"
    assert file.stat().st_size < MOST_BYTES
    assert not re.search(rb'(src|href)="https?:', file.read_bytes())
    expect(page.get_by_role("status").filter(has_text="Saved ")).to_be_visible()

    context = page.context.browser.new_context(viewport={"width": 390, "height": 844})  # type: ignore[union-attr]
    context.set_offline(True)
    alone = context.new_page()
    asked: list[str] = []
    alone.on("request", lambda one: asked.append(one.url))
    alone.goto(file.as_uri())
    go_to(alone, "Brow launch")
    alone.locator(".pocket-done").click()
    alone.locator(".pocket-done").click()
    alone.reload()
    go_to(alone, "Brow launch")
    expect(alone.locator(".pocket-move.done")).to_have_count(2)
    with alone.expect_download() as saved:
        alone.get_by_role("button", name="Save ticks").click()
    ticks = tmp_path / "ticks.json"
    saved.value.save_as(ticks)
    assert {one.split(":")[0] for one in asked} <= {"file", "data"}
    context.close()

    assert len(json.loads(ticks.read_text("utf-8"))["ticks"]) == 2
    for _ in range(2):
        page.get_by_label("Open ticks").set_input_files(ticks)
        expect(page.get_by_text("2 ticks are there.")).to_be_visible()
    page.get_by_label("Pasted ticks").fill("no ticks at all")
    page.get_by_role("button", name="Bring them back").click()
    expect(page.get_by_text("That holds no ticks")).to_be_visible()
    go_to(page, "Brow launch")
    expect(page.locator(".pocket-move.done")).to_have_count(2)
    number = trip.rsplit("/", 1)[-1]
    page.wait_for_function(
        """async (number) =>
          (await (await fetch(`/api/trips/${number}/card`)).json()).ticks.length === 2""",
        arg=number,
    )


def test_what_another_tab_changes_comes_without_taking_the_stop(page: Page, trip: str) -> None:
    page.goto(f"{trip}/card")
    page.locator(".pocket-place").wait_for()
    go_to(page, "Brow launch")
    note = page.get_by_label("Note or reading, in one line")
    note.fill("A4 shows")
    page.evaluate("window.seen = document.querySelector('.pocket-done')")
    other = page.context.new_page()
    board(other, trip)
    other.get_by_role("button", name="Sun 13").click()
    other.locator('[data-cell="d2-flight/chin"]').click()
    other.get_by_role("dialog").get_by_label("Mode").select_option("1080p30")
    keep(other)
    expect(other.get_by_label("The trip: keeping")).to_have_text("Kept")
    other.close()
    expect(page.locator(".pocket-films")).to_contain_text("roll 1080 30")
    expect(page.locator(".pocket-place")).to_contain_text("Brow launch")
    assert page.evaluate("window.seen.isConnected")
    expect(note).to_be_focused()
    page.keyboard.type(" 40 %")
    page.keyboard.press("Enter")
    expect(page.locator(".pocket-words li")).to_have_text("A4 shows 40 %")
    expect(note).to_have_value("")


def test_ticks_wait_for_the_server_and_what_the_plan_changes_is_said(page: Page, trip: str) -> None:
    page.goto(f"{trip}/card")
    page.locator(".pocket-place").wait_for()
    page.context.set_offline(True)
    page.locator(".pocket-done").click()
    expect(page.get_by_text("ticks are kept here and sent when it is back")).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_text("Ticks are kept with the trip.")).to_be_visible()
    with page.expect_download():
        page.get_by_role("button", name="Calendar").click()
    page.get_by_role("link", name="Board", exact=True).click()
    page.get_by_role("button", name="Sun 13").click()
    page.locator('[data-cell="d2-flight/chin"]').click()
    page.get_by_role("dialog").get_by_label("Mode").select_option("1080p30")
    keep(page)
    page.keyboard.press("Escape")
    expect(page.get_by_label("The trip: keeping")).to_have_text("Kept")
    page.get_by_role("link", name="Day card", exact=True).click()
    expect(page.get_by_role("heading", name=re.compile("^Changed since the card"))).to_be_visible()
    expect(
        page.get_by_text(re.compile(r"^Brow launch: .*Chin roll 1080 30, .*not roll 2\.7K60"))
    ).to_be_visible()
    page.get_by_role("link", name="Board", exact=True).click()
    page.get_by_test_id("headline").wait_for()
    page.reload()
    said = page.get_by_role("status").filter(has_text="is not this plan’s any more")
    expect(said).to_contain_text("Brow launch", timeout=20_000)
    said.get_by_role("link", name="What changed, move by move").click()
    expect(page.get_by_role("heading", name=re.compile("^Changed since the card"))).to_be_visible()
    expect(said).to_have_count(0)
