"""Working on the board: drafts, several stretches, ends, the hands' work, lengths, parted legs."""

from __future__ import annotations

import json
import re
import time

from playwright.sync_api import Locator, Page, Request, Route, expect

from tests.e2e.conftest import board, keep, open_copy, saved
from tools.driving import Server

PLACES = {"board"}
UNDO = "Undo"


def cell(page: Page, item: str, camera: str) -> Locator:
    """A cell of the board's grid."""
    return page.locator(f'[data-cell="{item}/{camera}"]')


def at(page: Page, item: str, camera: str) -> Locator:
    """The same cell, focused and chosen."""
    found = cell(page, item, camera)
    found.focus()
    expect(found).to_have_attribute("aria-selected", "true")
    return found


def grip(page: Page, mark: str) -> Locator:
    """Something that can be pulled."""
    return page.locator(f'[data-grip="{mark}"]')


def drag(page: Page, what: Locator, down: float) -> None:
    """Pull something down by so many px, in small moves, and let go."""
    box = what.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    for step in range(1, 9):
        page.mouse.move(x, y + down * step / 8)
    page.mouse.up()


def day(page: Page, name: str) -> None:
    """Turn to a day."""
    page.get_by_role("button", name=name).click()


def undone(page: Page) -> None:
    """One press takes everything back."""
    page.get_by_role("button", name=UNDO).click()
    expect(page.get_by_role("button", name=UNDO)).to_be_disabled()


def test_a_change_is_drawn_with_its_difference_and_left_or_kept(page: Page, trip: str) -> None:
    board(page, trip)
    cell(page, "d2-flight", "chin").click()
    strip = page.get_by_role("dialog", name="Chin, long flight")
    strip.get_by_label("Mode").select_option("1080p30")
    foot = strip.get_by_role("group", name="Not kept yet")
    expect(foot).to_contain_text(re.compile(r"\+32 min must · .*W h · 0 g · .*GB"))
    expect(foot).to_contain_text("With it: Two musts are broken.")
    expect(page.locator('[data-part="ghost"]').first).to_be_attached()
    expect(page.get_by_test_id("headline")).to_have_text("Four musts are broken.")
    page.keyboard.press("Escape")
    expect(strip).to_have_count(0)
    expect(page.locator('[data-part="ghost"]')).to_have_count(0)
    expect(page.get_by_role("button", name=UNDO)).to_be_disabled()
    cell(page, "d2-flight", "chin").click()
    strip.get_by_label("Mode").select_option("1080p30")
    page.keyboard.press("Control+z")  # takes back what is not kept yet
    expect(strip.get_by_label("Mode")).to_have_value("27k60")
    strip.get_by_label("Mode").select_option("1080p30")
    strip.get_by_role("button", name="Leave it").click()
    expect(strip.get_by_label("Mode")).to_have_value("27k60")
    strip.get_by_label("Mode").select_option("1080p30")
    strip.get_by_role("group", name="Importance").get_by_role("button", name="want").click()
    cell(page, "d2-shelf", "camp").click()  # going elsewhere keeps it, as one step
    expect(page.get_by_test_id("headline")).to_have_text("Two musts are broken.")
    page.keyboard.press("Escape")
    undone(page)


def test_a_whole_leg_and_several_stretches_are_edited_at_once(page: Page, trip: str) -> None:
    board(page, trip)
    day(page, "Sun 13")
    page.get_by_role("button", name="gorge walk: all cameras").click()
    strip = page.get_by_role("dialog", name="gorge walk, 4 cameras")
    strip.get_by_role("group", name="How it records").get_by_role("button", name="takes").click()
    keep(page)
    page.keyboard.press("Escape")
    for camera in ("chin", "boom", "foot", "camp"):
        expect(cell(page, "d2-gorge", camera)).to_have_accessible_name(re.compile("Takes"))
    undone(page)

    at(page, "d2-gorge", "boom")
    for _ in range(2):
        page.keyboard.press("Shift+ArrowDown")
    expect(page.locator('[role=gridcell][aria-selected="true"]')).to_have_count(3)
    page.keyboard.press("Enter")
    strip = page.get_by_role("dialog", name="3 stretches of Boom")
    strip.get_by_role("group", name="Importance").get_by_role("button", name="nice").click()
    page.keyboard.press("Control+Enter")
    page.keyboard.press("Escape")
    for item in ("d2-gorge", "d2-spring", "d2-scree"):
        expect(cell(page, item, "boom")).to_have_accessible_name(re.compile(", nice"))
    undone(page)

    cell(page, "d2-gorge", "foot").click(modifiers=["Control"])
    cell(page, "d2-scree", "camp").click(modifiers=["Control"])
    page.keyboard.press("Enter")
    expect(
        page.get_by_role("dialog", name=re.compile("stretches of several cameras"))
    ).to_be_visible()


def test_the_end_of_a_stretch_is_pulled_by_pointer_and_by_keys(page: Page, trip: str) -> None:
    board(page, trip)
    day(page, "Sun 13")
    end = grip(page, "last/d2-gorge/chin")
    spring = cell(page, "d2-spring", "chin")
    box = spring.bounding_box()
    assert box is not None
    drag(page, end, box["height"])
    expect(spring).to_have_accessible_name(re.compile("Takes"))
    undone(page)
    expect(spring).to_have_accessible_name(re.compile("not asked"))

    at(page, "d2-gorge", "chin")
    page.keyboard.press("e")
    expect(end).to_be_focused()
    page.keyboard.press("ArrowDown")
    expect(end).to_have_attribute("aria-valuetext", re.compile("^Spring bend: .*min"))
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name=UNDO)).to_be_disabled()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(spring).to_have_accessible_name(re.compile("Takes"))
    undone(page)


def test_a_swap_goes_to_permitted_stops_only(page: Page, trip: str) -> None:
    board(page, trip)
    day(page, "Sun 13")
    swap = grip(page, "move/d2-spring/camp")
    at(page, "d2-spring", "camp")
    page.keyboard.press("m")
    expect(swap).to_be_focused()
    page.keyboard.press("ArrowDown")
    expect(swap).to_have_attribute("aria-valuetext", re.compile("^Brow launch 10:15: .*min"))
    expect(page.locator(".barred").first).to_be_visible()
    page.keyboard.press("Enter")
    expect(cell(page, "d2-brow", "camp")).to_have_accessible_name(re.compile("L1"))
    expect(cell(page, "d2-spring", "camp")).not_to_have_accessible_name(re.compile("L1 in"))
    undone(page)

    brow = cell(page, "d2-brow", "camp").bounding_box()
    here = swap.bounding_box()
    assert brow is not None
    assert here is not None
    drag(page, swap, brow["y"] + brow["height"] / 2 - here["y"])
    expect(cell(page, "d2-brow", "camp")).to_have_accessible_name(re.compile("L1"))
    undone(page)


def test_a_plug_and_a_copy_are_moved_from_the_editor(page: Page, trip: str) -> None:
    board(page, trip)
    day(page, "Sun 13")
    cell(page, "d2-shelf", "foot").click()
    strip = page.get_by_role("dialog", name="Foot, Shelf camp")
    strip.get_by_label(re.compile("^Plug in B1: move to")).select_option("d2-brow")
    foot = strip.get_by_role("group", name="Not kept yet")
    expect(foot).to_contain_text("W h")
    keep(page)
    page.keyboard.press("Escape")
    expect(cell(page, "d2-shelf", "foot")).not_to_have_accessible_name(re.compile("plug B1"))
    undone(page)
    cell(page, "d2-shelf", "foot").click()
    strip.get_by_label(re.compile("^Copy .*: move to")).select_option("d2-brow")
    keep(page)
    page.keyboard.press("Escape")
    expect(cell(page, "d2-brow", "foot")).to_have_accessible_name(re.compile("copy Foot memory"))
    undone(page)


def test_a_battery_goes_to_another_camera_and_pocket(page: Page, trip: str) -> None:
    board(page, trip)
    day(page, "Sat 12")
    hand = page.get_by_role("slider", name="The hand", exact=False)
    hand.focus()
    page.keyboard.press("Home")
    carried = page.get_by_label("What you carry")
    carried.get_by_label("Move A2 to").select_option(label="Chin, at the start")
    expect(cell(page, "d1-climb", "chin")).to_have_accessible_name(re.compile("on A2"))
    undone(page)
    moving = carried.get_by_label("Move A6 to")
    pocket = moving.locator("option", has_text="pocket: ").first
    name = pocket.inner_text()
    moving.select_option(label=name)
    expect(moving.locator("option", has_text=name)).to_have_count(0)


def test_the_length_of_a_stop_is_pulled(page: Page, trip: str) -> None:
    board(page, trip)
    day(page, "Sun 13")
    at(page, "d2-spring", "chin")
    page.keyboard.press("l")
    edge = grip(page, "time/d2-spring")
    expect(edge).to_be_focused()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    expect(edge).to_have_attribute("aria-valuetext", re.compile("^40 min: "))
    page.keyboard.press("Enter")
    expect(cell(page, "d2-scree", "chin")).to_have_accessible_name(re.compile("09:25 to 10:25"))
    undone(page)


def test_a_leg_is_split_halted_on_and_joined_again(page: Page, trip: str) -> None:
    board(page, trip)
    day(page, "Sun 13")
    cell(page, "d2-scree", "chin").click()
    strip = page.get_by_role("dialog", name="Chin, scree climb")
    strip.get_by_role("button", name=re.compile("^Split at")).click()
    expect(page.get_by_role("button", name="scree climb, on: all cameras")).to_be_visible()
    at(page, "d2-scree", "chin")
    page.keyboard.press("j")
    expect(page.get_by_role("button", name="scree climb, on: all cameras")).to_have_count(0)
    page.keyboard.press("h")
    expect(page.get_by_role("button", name=re.compile("^Halt .*all cameras"))).to_be_visible()


def test_problems_are_walked_by_key_gaps_and_findings(page: Page, trip: str) -> None:
    board(page, trip)
    at(page, "d2-scree", "boom")
    hand = "document.querySelector('[role=slider][aria-label^=\"The hand\"]').ariaValueText"
    cell = "document.activeElement?.dataset.cell ?? ''"
    here = f"`${{{cell}}} ${{{hand}}}`"
    seen = []
    for _ in range(8):
        was = page.evaluate(here)
        page.keyboard.press("n")
        page.wait_for_function(
            f"""was => document.activeElement?.ariaSelected === 'true' && {here} !== was""", arg=was
        )
        seen.append(page.evaluate(cell))
    assert "d2-flight/chin" in seen
    assert len(set(seen)) > 4  # four gaps, and findings beside them
    back = seen[-2]
    page.keyboard.press("p")
    expect(page.locator(f'[data-cell="{back}"]')).to_be_focused()


def test_a_drag_against_a_slow_server_ends_on_the_last(page: Page, trip: str) -> None:
    """Half a second an answer: few results on the way, none lost, the last one shown and kept."""
    board(page, trip)
    day(page, "Sun 13")
    asked: list[float] = []

    def slowly(route: Route) -> None:
        asked.append(time.monotonic())
        time.sleep(0.5)
        route.continue_()

    page.route("**/api/rehearsals*", slowly)
    edge = grip(page, "time/d2-spring")
    pace = page.locator(".board-field").get_attribute("data-px-per-min")
    drag(page, edge, 100.0 * float(pace or 0))  # 100 min
    expect(cell(page, "d2-scree", "chin")).to_have_accessible_name(re.compile("10:55 to 11:55"))
    assert len(asked) <= 6
    page.unroute("**/api/rehearsals*")
    saved(page)
    page.reload()
    expect(cell(page, "d2-scree", "chin")).to_have_accessible_name(re.compile("10:55 to 11:55"))
    undone(page)


def test_a_reload_in_the_middle_of_a_change_keeps_it(page: Page, trip: str) -> None:
    board(page, trip)
    cell(page, "d2-flight", "chin").click()
    page.get_by_role("dialog").get_by_label("Mode").select_option("1080p30")
    page.reload()
    expect(page.get_by_test_id("headline")).to_have_text("Two musts are broken.")
    undone(page)


def test_a_change_in_another_tab_meets_a_draft_here(page: Page, trip: str) -> None:
    """The draft is of what is kept; what another tab keeps meanwhile goes under it."""
    board(page, trip)
    other = page.context.new_page()
    board(other, trip)
    cell(page, "d2-flight", "chin").click()
    page.get_by_role("dialog").get_by_label("Mode").select_option("1080p30")
    cell(other, "d2-gorge", "camp").click()
    other.get_by_role("group", name="How it records").get_by_role("button", name="roll").click()
    keep(other)
    expect(cell(page, "d2-gorge", "camp")).to_have_accessible_name(re.compile("Rolled"))
    keep(page)
    expect(page.get_by_test_id("headline")).to_have_text("Two musts are broken.")
    expect(cell(other, "d2-flight", "chin")).to_have_accessible_name(re.compile("1080 30"))


def test_a_drag_shows_results_while_it_moves(page: Page, trip: str) -> None:
    """Rehearsals are asked one after the other, and never more than one at a time."""
    board(page, trip)
    day(page, "Sun 13")
    flying, most, count = 0, 0, 0

    def begun(request: Request) -> None:
        nonlocal flying, most, count
        if "/api/rehearsals" in request.url and "aside=true" not in request.url:
            flying, count = flying + 1, count + 1
            most = max(most, flying)

    def ended(request: Request) -> None:
        nonlocal flying
        if "/api/rehearsals" in request.url and "aside=true" not in request.url:
            flying -= 1

    page.on("request", begun)
    page.on("requestfinished", ended)
    edge = grip(page, "time/d2-spring")
    edge.focus()
    for _ in range(12):
        page.keyboard.press("ArrowDown")
        page.wait_for_timeout(60)
    expect(edge).to_have_attribute("aria-valuetext", re.compile("^1 h 30: .*min"))
    page.keyboard.press("Escape")
    assert most == 1
    assert count >= 3


def test_a_long_trip_is_drawn_where_it_is_seen_and_walked_by_key(
    page: Page, server: Server, demo_text: bytes
) -> None:
    """A hundred and twenty legs and stops folded to stops: few of them drawn, all reached."""
    long = json.loads(demo_text)
    first = long["trip"]["items"]
    again = [{**item, "id": f"{item['id']}-{n}"} for n in range(4) for item in first]
    long["trip"]["items"] = [{**item, "on_way": None} for item in again]
    long["trip"]["ways"] = []
    asked = long["plan"]["assignments"]
    long["plan"] = {
        "assignments": [{**one, "item": f"{one['item']}-{n}"} for n in range(4) for one in asked]
    }
    address = open_copy(page, server, json.dumps(long).encode())
    board(page, address)
    page.get_by_role("button", name="All stops", exact=True).click()
    grid = page.get_by_role("grid")
    expect(grid).to_have_attribute("aria-rowcount", "120")
    rows = grid.get_by_role("row")
    assert rows.count() < 80
    page.get_by_role("gridcell").first.focus()
    page.keyboard.press("End")
    last = page.locator(f'[data-cell="{again[-1]["id"]}/chin"]')
    expect(last).to_be_focused()
    expect(last).to_be_in_viewport()
    page.keyboard.press("Home")
    expect(page.locator(f'[data-cell="{again[0]["id"]}/chin"]')).to_be_focused()


def test_a_long_press_chooses_one_more(page: Page, trip: str) -> None:
    board(page, trip)
    day(page, "Sun 13")
    at(page, "d2-gorge", "chin")
    touch = {"pointerType": "touch", "pointerId": 7, "bubbles": True}
    other = cell(page, "d2-gorge", "boom")
    other.dispatch_event("pointerdown", touch)
    expect(page.locator('[role=gridcell][aria-selected="true"]')).to_have_count(2)
    other.dispatch_event("pointerup", touch)
    other.dispatch_event("click")
    expect(page.get_by_role("dialog")).to_have_count(0)  # a long press opens nothing
    other.click()
    expect(page.get_by_role("dialog", name="gorge walk, 2 cameras")).to_be_visible()
