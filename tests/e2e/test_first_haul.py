"""From an empty start to a verdict; from a gap to its cure and back."""

from __future__ import annotations

import json
import re
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, expect

from tests.e2e.conftest import board, keep, loss
from tools.driving import ROOT, Server, arrived

PLACES = {"board", "kit", "route", "trips"}
LINES = """camp; stop; 0:30; 12
ridge; walk; 2:00; 12 to 18; 1; 20 %
saddle; stop; 0:20; 18
glide; flight; 1:30; 15; 9; 50 %; never"""


class Newcomer:
    """Somebody who has never seen it: every click and key that they need is counted."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.clicks = 0
        self.keys = 0

    def click(self, name: str | re.Pattern[str], role: Any = "button") -> None:
        """Click what is called so."""
        self.page.get_by_role(role, name=name).first.click()
        self.clicks += 1

    def type(self, text: str, *then: str) -> None:
        """Type where the page has put one, and press Enter, or other keys."""
        self.page.keyboard.type(text)
        self.keys += len(text)
        self.press(*then or ("Enter",))

    def press(self, *keys: str) -> None:
        """Press keys, one after the other."""
        for key in keys:
            self.page.keyboard.press(key)
        self.keys += len(keys)

    def camera(self, name: str, *figures: str) -> None:
        """A camera, with its own battery, card and the minutes on its box where they are said."""
        expect(self.page.get_by_label("It is called")).to_be_focused()
        if figures:
            mah, gb, minutes = figures
            self.type(name, "Tab", "Tab")
            self.type(mah, "Tab")
            self.type(gb, "Tab", "Tab", "Tab")
            self.type(minutes)
        else:
            self.type(name)
        expect(self.page.get_by_role("button", name=f"Camera {name}: edit")).to_be_visible()

    def leg(self, name: str, lasts: str = "", *then: str) -> None:
        """A leg, of its own length where that is said."""
        expect(self.page.get_by_label("Name", exact=True)).to_be_focused()
        if lasts:
            self.type(name, "Tab", "Tab")
            expect(self.page.get_by_label("Lasts, h:min")).to_be_focused()
            self.type(lasts, *then)
        else:
            self.type(name)

    def day(self, cameras: Sequence[tuple[str, ...]], legs: Sequence[tuple[str, ...]]) -> None:
        """From an empty start by the mouse to the board of a day on which all cameras roll."""
        expect(self.page.get_by_label("Name of the trip")).to_be_focused()
        self.type("Two ridges")
        expect(self.page.get_by_label("Start, local clock")).to_be_focused()
        self.click("Make the trip")
        expect(self.page.get_by_text("Next: add the camera you carry")).to_be_visible()
        for camera in cameras:
            self.click("Add a camera")
            self.camera(*camera)
        self.click("Go to Route", "link")
        for leg in legs:
            self.click("Add a leg")
            self.leg(*leg)
        expect(self.page.get_by_role("heading", level=1)).to_contain_text("3 legs and 1 stop")
        self.click("Go to Board", "link")
        self.click("Let all cameras roll on every leg")


CAMERAS = (("Chin", "1200", "128", "80"), ("Boom", "1400", "64", "95"))
LEGS = (("climb", "2:00"), ("ridge", "1:30"), ("way down", "1:00"))


def test_a_newcomer_is_led_from_an_empty_start_to_a_verdict(
    page: Page, empty_server: Server
) -> None:
    """Two cameras and a day of three legs, in 25 clicks and 60 keystrokes at most."""
    page.goto(empty_server.address)
    new = Newcomer(page)
    new.day([("Chin",), ("Boom",)], [("climb",), ("ridge",), ("way down",)])
    expect(page.get_by_test_id("headline")).to_have_text(re.compile("musts are broken"))
    expect(page.locator(":focus")).to_have_count(1)  # what one acted with has gone
    assert new.clicks <= 25
    assert new.keys <= 60
    page.get_by_role("link", name="Route", exact=True).click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("3 legs and 1 stop, 3 h 30.")


def test_two_own_cameras_and_three_legs_are_said_in_a_few_clicks_and_keys(
    page: Page, empty_server: Server
) -> None:
    """Figures of one's own, all of them."""
    page.goto(empty_server.address)
    new = Newcomer(page)
    new.day(CAMERAS, LEGS)
    expect(page.get_by_test_id("headline")).to_have_text("Six musts are broken.")
    assert new.clicks <= 12
    assert new.keys <= 90
    page.get_by_role("link", name="Route", exact=True).click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("3 legs and 1 stop, 5 h 00.")


def test_the_same_by_keys_alone(page: Page, empty_server: Server) -> None:
    """From a field to another place and to the next leg without leaving the keys: 104 of them."""
    page.goto(empty_server.address)
    expect(page.get_by_label("Name of the trip")).to_be_focused()
    new = Newcomer(page)
    new.type("Two ridges")
    expect(page.get_by_label("Start, local clock")).to_be_focused()
    new.press("Enter", "Tab", "Enter")
    page.get_by_role("button", name="Add a camera").wait_for()
    for camera in CAMERAS:
        at_hand(new, "Add a camera")
        new.press("Enter")
        new.camera(*camera)
    new.press("Control+Alt+r")
    arrived(page, "Route")
    page.get_by_text("Type or paste").first.wait_for()
    for leg in LEGS:
        new.press("Control+Enter")
        new.leg(*leg, *(["Control+Alt+b"] if leg == LEGS[-1] else ["End"]))
    arrived(page, "Board")
    page.get_by_role("button", name="Let all cameras roll on every leg").wait_for()
    at_hand(new, "Let all cameras roll on every leg")
    new.press("Enter")
    expect(page.get_by_test_id("headline")).to_have_text("Six musts are broken.")
    assert new.keys <= 130


def at_hand(new: Newcomer, name: str) -> None:
    """Tab until a button has the focus."""
    button = new.page.get_by_role("button", name=name)
    for _ in range(40):
        if button.evaluate("(one) => one === document.activeElement"):
            return
        new.press("Tab")
    raise AssertionError(f"{name} is not reached by 40 Tabs")


def test_from_an_empty_start_to_a_verdict_by_typing(page: Page, empty_server: Server) -> None:
    page.goto(empty_server.address)
    expect(page.get_by_role("heading", level=1)).to_have_text(
        "Will it last? Begin with one of these."
    )
    page.get_by_label("Name of the trip").fill("Two ridges")
    page.get_by_role("button", name="Make the trip").click()
    for camera, minutes in (("Cairn", "80"), ("Chin", "70")):
        page.get_by_role("button", name="Add a camera").click()
        page.get_by_label("It is called").fill(camera)
        page.get_by_label("it lasts, min").fill(minutes)
        page.get_by_label("it lasts, min").press("Enter")
    cords = page.get_by_role("list", name="Modes").get_by_role("button")
    expect(cords).to_have_count(2)
    expect(cords.nth(1)).to_have_accessible_name(
        re.compile("^Chin 4K 30: hot after 37 min .* Otherwise empty after 1 h 10")
    )

    page.get_by_role("link", name="Route", exact=True).click()
    arrived(page, "Route")
    page.get_by_label("Type or paste").fill(LINES)
    page.get_by_role("button", name="Add 4 lines").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("2 legs and 3 stops, 4 h 50.")

    page.get_by_role("link", name="Board", exact=True).click()
    arrived(page, "Board")
    expect(page.get_by_test_id("headline")).to_have_text("Nothing is asked yet.")
    page.get_by_role("gridcell", name="Chin, glide").click()
    page.get_by_role("group", name="How it records").get_by_role("button", name="roll").click()
    page.get_by_role("group", name="Importance").get_by_role("button", name="must").click()
    keep(page)
    expect(page.get_by_test_id("headline")).to_have_text("One must is broken.")
    expect(loss(page, "Chin")).to_contain_text("20 min Chin")  # 90 asked, 70 lasted
    page.get_by_role("button", name="Close").click()
    page.get_by_role("gridcell", name="Cairn, ridge").click()
    page.get_by_role("group", name="How it records").get_by_role("button", name="takes").click()
    keep(page)
    expect(page.get_by_label("Verdict").get_by_text("camera time asked").first).to_contain_text(
        "1 h 36"
    )


def test_gap_change_of_mode_gap_gone_undo_gap_back_and_kept_over_reload(
    page: Page, trip: str
) -> None:
    board(page, trip)
    expect(page.get_by_test_id("headline")).to_have_text("Four musts are broken.")
    loss(page, "Chin").click()
    page.keyboard.press("Enter")
    strip = page.get_by_role("dialog", name="Chin, long flight")
    mode = strip.get_by_label("Mode")
    expect(mode.locator("option", has_text="1080 30")).to_contain_text("+32 min")
    mode.select_option("1080p30")
    keep(page)
    expect(page.get_by_test_id("headline")).to_have_text("Two musts are broken.")
    expect(loss(page, "Chin")).to_have_count(0)
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_test_id("headline")).to_have_text("Four musts are broken.")
    expect(loss(page, "Chin")).to_contain_text("32 min")
    page.reload()
    page.get_by_role("button", name="Redo").click()
    expect(page.get_by_test_id("headline")).to_have_text("Two musts are broken.")
    page.reload()
    expect(page.get_by_test_id("headline")).to_have_text("Two musts are broken.")
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()


def test_sums_on_the_screen_add_up(page: Page, trip: str) -> None:
    board(page, trip)
    text = page.get_by_label("Verdict").inner_text()
    rows = (
        page.get_by_label("Not filmed, and to know").locator(".side-row-head b").all_inner_texts()
    )
    minutes = [int(row.split()[0]) for row in rows]
    assert sum(minutes) == 89
    assert "1 h 29 is missing" in text
    heading = page.get_by_role("heading", name="Not filmed")
    expect(heading).to_contain_text("1 h 29")


def test_a_plan_file_is_saved_and_opened_again(page: Page, trip: str, tmp_path: Path) -> None:
    board(page, trip)
    page.get_by_role("gridcell", name="Camp, gorge walk").click()
    page.get_by_role("group", name="How it records").get_by_role("button", name="roll").click()
    keep(page)
    page.keyboard.press("Escape")
    with page.expect_download() as caught:
        page.get_by_role("button", name="Save file").click()
    kept = tmp_path / "saved.json"
    caught.value.save_as(kept)
    saved = json.loads(kept.read_text("utf-8"))
    assert ("camp", "d2-gorge") in {(a["camera"], a["item"]) for a in saved["plan"]["assignments"]}
    page.get_by_role("link", name="Trips", exact=True).click()
    page.wait_for_url("**/trips*")
    page.get_by_label("Plan file", exact=True).set_input_files(kept)
    page.get_by_test_id("headline").wait_for()
    assert page.url != f"{trip}/board"
    with page.expect_download() as second:
        page.get_by_role("button", name="Save file").click()
    again = tmp_path / "again.json"
    second.value.save_as(again)
    assert again.read_bytes() == kept.read_bytes()


def test_a_bad_file_says_which_field_and_leaves_everything(
    page: Page, server: Server, demo_text: bytes, tmp_path: Path
) -> None:
    page.goto(f"{server.address}/trips")
    links = page.locator(".trip-link")
    links.first.wait_for()
    before = links.count()
    document = json.loads(demo_text)
    document["trip"]["items"][3]["duration_s"] = -5
    document["kit"]["cameras"][1]["modes"][0]["fps"] = 0
    bad = tmp_path / "bad.json"
    bad.write_text(json.dumps(document), "utf-8")
    page.get_by_label("Plan file", exact=True).set_input_files(bad)
    alert = page.get_by_role("alert")
    expect(alert).to_contain_text("bad.json was not opened; nothing was changed.")
    expect(alert).to_contain_text("trip.items[3].duration_s")
    expect(alert).to_contain_text("kit.cameras[1].modes[0].fps")
    page.reload()
    links.first.wait_for()
    assert links.count() == before


def test_an_empty_start_from_the_demo(page: Page, empty_server: Server) -> None:
    page.goto(empty_server.address)
    page.get_by_role("button", name="Begin from the demo trip").click()
    headline = page.get_by_test_id("headline")
    expect(headline).to_have_text("Four musts are broken.", timeout=20_000)  # loads the sun library
    lead = page.locator(".gap-told:focus")
    expect(lead).to_contain_text("Press Enter to keep this cure")
    page.keyboard.press("Enter")
    expect(headline).not_to_have_text("Four musts are broken.")
    page.get_by_role("button", name="Undo").click()
    expect(headline).to_have_text("Four musts are broken.")


def test_the_first_run_shows_the_demo_on_the_board_and_asks_nothing_outside(
    page: Page, server: Server
) -> None:
    hosts: set[str] = set()
    page.on("request", lambda request: hosts.add(request.url.split("/")[2]))
    page.goto(server.address)
    expect(page.get_by_test_id("headline")).to_be_visible()
    page.get_by_role("link", name="Kit").click()
    arrived(page, "Kit")
    page.get_by_test_id("shelf-headline").wait_for()
    assert hosts == {f"127.0.0.1:{server.port}"}


STEP = re.compile(r"Type `([^`]+)`, then Enter|[Cc]lick \*\*([^*]+)\*\*|It says \*\*([^*]+)\*\*")


def test_the_first_trip_of_the_documents_goes_as_it_says(page: Page, empty_server: Server) -> None:
    """Every step of docs/first-trip.md, to the letter."""
    page.goto(empty_server.address)
    expect(page.get_by_label("Name of the trip")).to_be_focused()
    told = (ROOT / "docs" / "first-trip.md").read_text("utf-8")
    steps = STEP.findall("\n".join(re.findall(r"^\d+\. .*$", told, re.MULTILINE)))
    assert len(steps) > 15
    for typed, clicked, said in steps:
        if typed:
            expect(page.locator("input:focus")).to_be_visible()
            page.keyboard.type(typed)
            page.keyboard.press("Enter")
        elif clicked:
            page.locator("button, a").filter(has_text=clicked).first.click()
        else:
            expect(page.get_by_text(said).first).to_be_visible()


def test_the_page_alone_answers_what_a_new_user_asks(page: Page, trip: str) -> None:
    """When does each camera stop and why; what to do where; how full; how much room; what first."""
    board(page, trip)
    page.get_by_role("button", name="Sun 13").click()
    gaps = page.get_by_role("group", name="Gaps and their best cures").get_by_role("button")
    expect(gaps).to_have_count(3)
    told = [gap.locator(".gap-what").inner_text() for gap in gaps.all()]
    assert told == [
        "09:32 Boom too hot, 68°, 17 min lost",
        "09:49 Boom waits for a hand, 26 min lost",
        "12:57 Chin A4 empty, 32 min lost",
    ]
    expect(gaps.first.locator(".gap-cure")).to_contain_text("+43 min must")  # which cure first

    words = page.locator(".board-field svg text").all_text_contents()
    brow = words.index("Brow launch")
    assert brow > 0
    lines = page.evaluate(
        """() => [...document.querySelectorAll('.board-field svg title')].map((one) =>
          one.parentElement.previousElementSibling.textContent + ' ' + one.textContent)"""
    )
    start = lines.index("10:15 Boom stop")
    assert lines[start : start + 4] == [
        "10:15 Boom stop",
        "10:15 Boom rebuilt bare on the boom",
        "10:16 Chin A4 to Twin dock",
        "10:24 Boom A2 to Twin dock",
    ]
    assert any(line.endswith(" Boom A2 in") for line in lines)
    away = lines.index("11:11 Chin A4 in")
    assert lines[away : away + 3] == [
        "11:11 Chin A4 in",
        "11:15 Chin roll 2.7K60, with Boom (takes 4K30): one press",
        "11:15 Foot takes 2.7K60",
    ]

    hand = page.get_by_role("slider", name="The hand", exact=False)
    hand.focus()
    while not hand.inner_text().startswith("at 18:0"):
        hand.press("ArrowDown" if hand.inner_text() < "at 18:0" else "ArrowUp")
    carried = page.get_by_label("What you carry").get_by_role("listitem")
    expect(carried.filter(has_text=re.compile("^A4"))).to_contain_text("%")
    page.get_by_role("button", name="Tue 15").click()
    hand.focus()
    hand.press("End")
    expect(carried.filter(has_text=re.compile("^Foot"))).to_contain_text(re.compile("[0-9]+ GB"))
