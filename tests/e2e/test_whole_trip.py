"""What holds for the whole trip, linked cameras, and a board of eight cameras."""

from __future__ import annotations

import json
import re
from typing import Any

from playwright.sync_api import Page, expect

from tests.e2e.conftest import board, open_copy, saved, unfold
from tools.driving import Server

PLACES = {"board"}


def test_a_wish_to_be_full_is_typed_by_keyboard_and_survives_a_reload(
    page: Page, trip: str
) -> None:
    board(page, trip)
    page.get_by_role("button", name="For the whole trip").focus()
    page.keyboard.press("Enter")
    strip = page.get_by_role("dialog", name="For the whole trip")
    strip.get_by_role("button", name="Add one").press("Enter")
    wish = strip.get_by_role("group", name="Full by 2")
    clock = wish.get_by_label("Local clock")
    clock.fill("2027-06-12 06:05")
    clock.press("Enter")
    wish.get_by_label("Unit").select_option(label="A5")
    page.keyboard.press("Escape")
    expect(strip).to_have_count(0)
    saved(page)
    page.reload()
    page.get_by_test_id("headline").wait_for()
    page.get_by_role("button", name="For the whole trip").click()
    strip = page.get_by_role("dialog", name="For the whole trip")
    expect(strip.get_by_label("Local clock").nth(1)).to_have_value("2027-06-12 06:05")
    expect(strip.get_by_label("Unit").nth(1)).to_have_value("a5")


def test_charging_turned_off_is_rehearsed_at_once_and_undone(page: Page, trip: str) -> None:
    board(page, trip)
    plugs = page.get_by_text(re.compile(r"batter(y|ies) charges? at Hut Aster while"))
    expect(plugs).to_have_count(1)
    page.get_by_role("button", name="For the whole trip").click()
    page.get_by_label("Free hands plug in what is low").uncheck()
    expect(plugs).to_have_count(0)
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Undo").click()
    expect(plugs).to_have_count(1)


def test_a_faster_film_makes_modes_too_slow_for_it(page: Page, trip: str) -> None:
    board(page, trip)
    page.get_by_role("button", name="For the whole trip").click()
    rate = page.get_by_label("The film’s rate, frames a second")
    rate.fill("0")
    expect(page.get_by_text("From 1 to 240 frames a second.")).to_be_visible()
    rate.fill("50")
    rate.press("Enter")
    unfold(page)
    expect(page.get_by_text(re.compile("the film has 50")).first).to_be_visible()


def test_cameras_are_linked_from_either_side(page: Page, trip: str) -> None:
    board(page, trip)
    page.get_by_role("button", name="Chin", exact=True).click()
    strip = page.get_by_role("dialog", name="How Chin is carried")
    together = strip.get_by_role("group", name="One action starts it together with")
    together.get_by_label("Foot").check()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Foot", exact=True).click()
    strip = page.get_by_role("dialog", name="How Foot is carried")
    expect(strip.get_by_label("Chin")).to_be_checked()


def test_eight_cameras_fold_the_side_and_keep_work_in_one_column(
    page: Page, server: Server, demo_text: bytes
) -> None:
    document: dict[str, Any] = json.loads(demo_text)
    kit, plan = document["kit"], document["plan"]
    for camera in list(kit["cameras"]):
        kit["cameras"].append({**camera, "id": f"{camera['id']}2", "name": f"{camera['name']} 2"})
    for assignment in list(plan["assignments"]):
        plan["assignments"].append({**assignment, "camera": f"{assignment['camera']}2"})
    board(page, open_copy(page, server, json.dumps(document).encode()))
    expect(page.get_by_role("grid")).to_have_attribute("aria-colcount", "9")
    lost = page.get_by_role("heading", name=re.compile("^Not filmed"))
    expect(lost).to_be_hidden()
    edge = page.get_by_role("button", name=re.compile("^Unfold the side"))
    edge.click()
    expect(lost).to_be_visible()
    page.get_by_role("button", name=re.compile("^Fold the side")).press("Escape")
    expect(lost).to_be_hidden()
    overlaps = page.evaluate(
        """() => {
          const boxes = [...document.querySelectorAll('.board-field svg text')]
            .filter((one) => one.querySelector('title') !== null)
            .map((one) => one.getBoundingClientRect());
          const cards = [...document.querySelectorAll('.board-field [data-part=card] rect')]
            .map((one) => one.getBoundingClientRect());
          return [boxes.length, boxes.filter((b) => cards.some((c) =>
            b.right > c.left && b.left < c.right && b.bottom > c.top && b.top < c.bottom)).length];
        }"""
    )
    assert overlaps[0] > 4
    assert overlaps[1] == 0


def test_on_a_phone_the_whole_trips_strip_rises_from_the_lower_edge(page: Page, trip: str) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    board(page, trip)
    page.get_by_role("button", name="For the whole trip").click()
    strip = page.get_by_role("dialog", name="For the whole trip")
    box = strip.bounding_box()
    assert box is not None
    assert (box["x"], round(box["width"])) == (0, 390)
    assert abs(box["y"] + box["height"] - 844) < 2
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide == 390
